import { endpoints } from '@bocado/contract'
import { useMemo, useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { useWrite } from '../api/hooks.js'
import { useMay } from '../api/may.js'
import { RequestProblem } from '../api/client.js'
import { useSeasonChoice, useSite } from '../api/workplace.js'
import { meansOf, schools, undoneOnce, type Proposed, type SeasonPlan, type SeasonSources } from '../band/season.js'
import { Button, TextButton } from '../design/buttons.js'
import { Checkbox, Choice } from '../design/controls.js'
import { NumberField } from '../design/NumberField.js'
import { Bullets, Columns, Empty, Heading, Line, Page, Quiet, Rows, Small, Stack, Title } from '../design/text.js'
import { Unfold } from '../design/Unfold.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { useUndo } from '../shell/Undo.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { Waiting } from '../shell/Waiting.js'
import { SchoolsTable } from './SchoolsTable.js'
import { SeasonPicture } from './SeasonPicture.js'
import { useSeasonPlans } from './useSeasonPlans.js'
import { useSources } from './useSources.js'
import '../messages/en/plans.js'
import '../messages/en/prevent.js'
import '../messages/en/weeks.js'

/** A whole season from today on, under one school beside the others; what is chosen of it goes on the schedule. */
export function SeasonScreen() {
  const t = useText()
  usePageTitle(t('plans.title'))
  const { isPast } = useSeasonChoice()
  const sources = useSources()
  if (isPast)
    return (
      <Page>
        <Title>{t('plans.title')}</Title>
        <Empty>
          <p>{t('plans.past')}</p>
        </Empty>
      </Page>
    )
  return sources ? <Planning sources={sources} /> : <Waiting />
}

type Sources = NonNullable<ReturnType<typeof useSources>>

function Planning({ sources }: { sources: Sources }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [search, setSearch] = useSearchParams()
  const school = schools.find((one) => one === search.get('school')) ?? 'mix'
  const [hours, setHours] = useState<number | null>(null)
  const [ranks, setRanks] = useState<SeasonSources['ranks']>({})
  const { plans, done, begin, stop } = useSeasonPlans()
  const plan = plans.find((one) => one.school === school)
  const start = (): void => begin({ ...sources, ranks, hoursPerWeek: hours === null || Number.isNaN(hours) ? null : hours }, school)
  return (
    <Page>
      <Line style={{ justifyContent: 'space-between' }}>
        <Title>{t('plans.title')}</Title>
        <Link to={`/sites/${site.id}/schedule`}>{t('prevent.back')}</Link>
      </Line>
      <Small>{t('plans.lead')}</Small>
      <Line style={{ alignItems: 'end' }}>
        <Choice
          label={t('plans.school')}
          options={schools.map((id) => ({ id, label: t(`plans.school.${id}`) }))}
          value={school}
          onChange={(next) => setSearch(next === 'mix' ? {} : { school: next }, { replace: true })}
        />
        <NumberField label={t('plans.hours')} width="9ch" unit="h" digits={0} least={1} value={hours} onChange={setHours} />
        {done === null ? (
          <Button onPress={start}>{t(plans.length === 0 ? 'plans.begin' : 'plans.again')}</Button>
        ) : (
          <>
            <progress aria-label={t('plans.title')} value={done} max={1} />
            <Small as="span" role="status">
              {t('plans.working', { done: f.percent(done) })}
            </Small>
            <TextButton onPress={stop}>{t('plans.stop')}</TextButton>
          </>
        )}
      </Line>
      <Small>{t(`plans.schoolWhat.${school}`)}</Small>
      <Unfold title={t('plans.rank')}>
        <Ranks sources={sources} ranks={ranks} onChange={setRanks} />
      </Unfold>
      {plans.length > 0 ? <SchoolsTable plans={plans} chosen={school} /> : null}
      {plan ? (
        <>
          <SeasonPicture sources={sources} plan={plan} />
          <Columns $left="1.5fr" $right="1fr">
            <Proposals key={`${plan.school} ${plan.worth}`} sources={sources} plan={plan} />
            <Left sources={sources} plan={plan} />
          </Columns>
        </>
      ) : null}
    </Page>
  )
}

/** What comes first where hours are short. */
function Ranks({
  sources,
  ranks,
  onChange,
}: {
  sources: Sources
  ranks: SeasonSources['ranks']
  onChange: (ranks: SeasonSources['ranks']) => void
}) {
  const t = useText()
  const names = useNames(sources)
  const words = ['last', 'usual', 'first'] as const
  return (
    <Rows>
      {sources.rows.map(({ watch: { id } }) => (
        <li key={id}>
          <Line style={{ justifyContent: 'space-between' }}>
            <span>{names.watch(id)}</span>
            <Choice
              label={names.watch(id)}
              options={words.map((word, i) => ({ id: String(i), label: t(`plans.rank.${word}`) }))}
              value={String(ranks[id] ?? 1)}
              onChange={(rank) => onChange({ ...ranks, [id]: Number(rank) })}
            />
          </Line>
        </li>
      ))}
    </Rows>
  )
}

/** Names of what a plan speaks of. */
function useNames(sources: Sources) {
  const t = useText()
  return useMemo(() => {
    const rowOf = (id: string) => sources.rows.find(({ watch }) => watch.id === id)
    const place = (id: string): string => sources.blocks.find((block) => block.id === rowOf(id)?.watch.blockId)?.name ?? ''
    const organism = (id: string): string => rowOf(id)?.organismName ?? ''
    const way = (key: string): string => {
      const { product, methodId } = meansOf(key, sources)
      return product?.name ?? sources.methods.find(({ id }) => id === methodId)?.name ?? ''
    }
    return { place, organism, way, watch: (id: string): string => t('plans.rankOf', { organism: organism(id), place: place(id) }) }
  }, [sources, t])
}

const keyOf = ({ watch, generation, day, way }: Proposed): string => `${watch} ${generation} ${day} ${way.key}`

/** What a plan proposes, the first first; what is ticked goes on the schedule by one press. */
function Proposals({ sources, plan }: { sources: Sources; plan: SeasonPlan }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const undo = useUndo()
  const mayPlan = useMay('tend')
  const names = useNames(sources)
  const [ticked, setTicked] = useState(() => new Set(plan.treatments.filter(({ conditional }) => !conditional).map(keyOf)))
  const [said, setSaid] = useState<{ count: number; left: number; why: string } | null>(null)
  const make = useWrite(endpoints.treatments.plan)
  const remove = useWrite(endpoints.treatments.remove)
  const dateOf = (day: number): string => f.seasonDay(sources.season.start, day)
  const [isTaking, setTaking] = useState(false)
  const take = async (): Promise<void> => {
    setTaking(true)
    const stored: { id: string; rowVersion: number }[] = []
    const refused: string[] = []
    for (const one of plan.treatments) {
      if (!ticked.has(keyOf(one))) continue
      const { product, methodId } = meansOf(one.way.key, sources)
      const what = product ? { productId: product.id } : { methodId: methodId ?? '' }
      try {
        const treatment = await make.save({
          params: { siteId: site.id },
          input: { watchId: one.watch, plannedOn: dateOf(one.day), ...what },
        })
        stored.push(treatment)
      } catch (error) {
        if (!(error instanceof RequestProblem)) throw error
        refused.push(error.problem.fields?.[0]?.message ?? error.problem.detail)
      }
    }
    const words = { count: stored.length, left: refused.length, why: refused[0] ?? '' }
    setSaid(words)
    setTicked(new Set())
    setTaking(false)
    if (stored.length > 0)
      undo.offer(t('plans.taken', { ...words, left: 0 }), async () => {
        for (const { id, rowVersion } of stored) await remove.save({ params: { siteId: site.id, treatmentId: id }, input: { rowVersion } })
      })
  }
  return (
    <Stack>
      <Heading>{t('plans.list')}</Heading>
      {plan.treatments.length === 0 ? <p>{t('plans.none')}</p> : null}
      <Rows data-testid="season-proposals">
        {plan.treatments.map((one) => {
          const key = keyOf(one)
          const what = t('plans.one', {
            date: f.date(dateOf(one.day)),
            way: names.way(one.way.key),
            organism: names.organism(one.watch),
            place: names.place(one.watch),
          })
          const why = [
            t(`plans.because.${one.because}`),
            ...(one.reach > 0 ? [t('plans.reaches', { share: f.percent(one.reach) })] : []),
            ...(one.conditional ? [t('plans.ifCounted')] : []),
          ].join(' · ')
          return (
            <li key={key}>
              <Checkbox
                isDisabled={!mayPlan}
                label={
                  <span>
                    {what} <Quiet>{why}</Quiet>
                  </span>
                }
                value={ticked.has(key)}
                onChange={(on) => setTicked((before) => new Set(on ? [...before, key] : [...before].filter((other) => other !== key)))}
              />
            </li>
          )
        })}
      </Rows>
      {said ? <p role="status">{t('plans.taken', said)}</p> : null}
      {mayPlan && plan.treatments.length > 0 ? (
        <Button isDisabled={ticked.size === 0 || isTaking || make.isBarred} onPress={() => void take()}>
          {t('plans.take', { count: ticked.size })}
        </Button>
      ) : null}
    </Stack>
  )
}

/** What a plan leaves undone, and why. */
function Left({ sources, plan }: { sources: Sources; plan: SeasonPlan }) {
  const t = useText()
  const f = useFormat()
  const names = useNames(sources)
  return plan.undone.length === 0 ? (
    <span />
  ) : (
    <Stack data-testid="season-undone">
      <Heading>{t('plans.undone')}</Heading>
      <Bullets>
        {undoneOnce(plan).map(({ watch, because, reach, times }) => (
          <li key={`${watch} ${because}`}>
            {t('plans.undoneOne', {
              organism: names.organism(watch),
              place: names.place(watch),
              why: t(`plans.undone.${because}`),
              share: reach > 0 ? f.percent(reach) : 'none',
              times,
            })}
          </li>
        ))}
      </Bullets>
    </Stack>
  )
}
