import { wrap } from 'comlink'
import { useEffect, useMemo, useState } from 'react'
import { reachedBySeveral, type Action, type ReachedCohorts } from '../band/treatmentCoverage.js'
import { TextButton } from '../design/buttons.js'
import { NumberField, readable } from '../design/NumberField.js'
import { Rows, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import type { DaysAsked, DaysFound } from '../workers/days.js'
import type { DaysWorker } from '../workers/days.worker.js'
import '../messages/en/plan.js'

/** Until somebody types what the label asks. */
const USUAL_INTERVAL = 7
const LONGEST_INTERVAL = 60
/** So many days that are left out are named. */
const NAMED_DAYS = 4

function useBestDays(asked: DaysAsked): DaysFound[] | null {
  const [found, setFound] = useState<{ of: DaysAsked; found: DaysFound[] } | null>(null)
  useEffect(() => {
    let current = true
    const thread = new Worker(new URL('../workers/days.worker.ts', import.meta.url), { type: 'module' })
    void wrap<DaysWorker>(thread)
      .bestByNumber(asked)
      .then((days) => current && setFound({ of: asked, found: days }))
    return () => {
      current = false
      thread.terminate()
    }
  }, [asked])
  return found?.of === asked ? found.found : null
}

/** Which two or three days of a generation together reach most of it, from today on, and how much more than one. */
export function SeveralDays(p: {
  cohorts: ReachedCohorts
  action: Action
  generation: string
  name: string
  /** First and last day of the season that are thought of. */
  from: number
  to: number
  /** First day of the season. */
  start: string
  /** Days between on which nobody can or may treat. */
  without: readonly number[]
  /** What the label asks between two, and how many it allows; null where it says nothing, or nobody typed it. */
  label: { leastIntervalDays: number | null; mostPerSeason: number | null } | null
  onDate: (date: string) => void
}) {
  const t = useText()
  const f = useFormat()
  const { effect, residualDays } = p.action
  const [interval, setInterval] = useState<number | null>(p.label?.leastIntervalDays ?? USUAL_INTERVAL)
  const typed = readable(interval)
  const least = p.label?.leastIntervalDays ?? 1
  const isInRange = typed !== null && typed >= least && typed <= LONGEST_INTERVAL
  const minInterval = isInRange ? typed : Math.max(least, USUAL_INTERVAL)
  const own = p.cohorts.generations.find(({ generation }) => generation === p.generation)
  const { from, to, without } = p
  // The same for as long as the same is asked: a day that is dragged past asks for nothing new.
  const asked = useMemo(
    () => ({ cohorts: own?.cohorts ?? [], from, to, effect, residualDays, minInterval, without }),
    [own, from, to, effect, residualDays, minInterval, without],
  )
  const found = useBestDays(asked)
  return (
    <Stack $gap={8} data-testid="several-days">
      <NumberField
        label={t('jointly.interval')}
        hint={t(p.label?.leastIntervalDays == null ? 'jointly.label' : 'jointly.byLabel', { days: least })}
        width="14ch"
        digits={0}
        unit={t('jointly.days')}
        value={interval}
        onChange={setInterval}
        error={isInRange ? undefined : t('jointly.range', { least })}
      />
      {without.length > 0 ? (
        <Small>
          {t('jointly.without', {
            days: without
              .slice(0, NAMED_DAYS)
              .map((day) => f.date(f.seasonDay(p.start, day)))
              .join(', '),
            more: Math.max(0, without.length - NAMED_DAYS),
          })}
        </Small>
      ) : null}
      {found === null ? <Small role="status">{t('jointly.finding')}</Small> : null}
      {found !== null && found.length === 0 ? <Small>{t('jointly.none')}</Small> : null}
      <Rows>
        {(isInRange ? (found ?? []) : [])
          .filter(({ days }) => days.length <= (p.label?.mostPerSeason ?? days.length))
          .map(({ days }) => {
            const reach = reachedBySeveral(p.cohorts, p.action, p.generation, days)
            return reach ? (
              <li key={days.length}>
                {days.map((day, i) => {
                  const date = f.seasonDay(p.start, day)
                  return (
                    <span key={day}>
                      {i === 0 ? '' : ', '}
                      <TextButton aria-label={t('jointly.take', { date: f.date(date) })} onPress={() => p.onDate(date)}>
                        {f.date(date)}
                      </TextButton>
                    </span>
                  )
                })}{' '}
                {t('jointly.reach', {
                  share: f.percent(reach.p50),
                  low: f.number(100 * reach.p10),
                  high: f.number(100 * reach.p90),
                  generation: p.name,
                  count: days.length,
                })}
              </li>
            ) : null
          })}
      </Rows>
    </Stack>
  )
}
