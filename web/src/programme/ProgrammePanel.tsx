import { endpoints, type Method, type Programme, type WatchForecast } from '@bocado/contract'
import { useState } from 'react'
import { useProducts, useRead, useWrite } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { programmeSums, stepKey, stepStates, type ProgrammeSums, type StepState } from '../band/programme.js'
import { bloomKey } from '../band/today.js'
import { TextButton } from '../design/buttons.js'
import { Heading, Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { useFormat, type Format } from '../design/useFormat.js'
import { useText, type Say } from '../messages/useText.js'
import { partLater } from '../shell/partLater.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { FigureTable } from '../windows/FigureTable.js'
import { useMethods } from '../windows/useShelfFor.js'
import { useBloomChoices } from './useBloomChoices.js'
import { useSigns } from './useSigns.js'
import '../messages/en/crops.js'
import '../messages/en/programme.js'

const ProgrammeForm = partLater(async () => (await import('./ProgrammeForm.js')).ProgrammeForm)

/** The programmes of a watch: their steps and how each stands, what they take over three years, two beside each other. */
export function ProgrammePanel({ forecast, onPlan }: { forecast: WatchForecast; onPlan: (key: string) => void }) {
  const t = useText()
  const site = useSite()
  const { data } = useRead(endpoints.programmes.list, { params: { siteId: site.id }, input: {} })
  const [open, setOpen] = useState<string | null>(null)
  const follow = useWrite(endpoints.programmes.update)
  if (!data) return null
  const own = data.filter(({ watchId }) => watchId === forecast.watch.id)
  const followNow = ({ id, watchId: _, ...rest }: Programme): void =>
    void follow.save({ params: { siteId: site.id, programmeId: id }, input: { ...rest, followed: true } })
  return (
    <Stack>
      {own.length === 0 && open === null ? <Small>{t('programme.none')}</Small> : null}
      {own.map((programme) =>
        open === programme.id ? (
          <ProgrammeForm key={programme.id} forecast={forecast} programme={programme} onDone={() => setOpen(null)} />
        ) : (
          <Stack key={programme.id} $gap={6}>
            <Line style={{ justifyContent: 'space-between' }}>
              <Heading as="h3">
                {programme.name} {programme.followed ? <Quiet>{t('programme.isFollowed')}</Quiet> : null}
              </Heading>
              <Line>
                {programme.followed ? null : (
                  <TextButton
                    isDisabled={follow.isBarred}
                    aria-label={t('programme.followOne', { name: programme.name })}
                    onPress={() => followNow(programme)}
                  >
                    {t('programme.follow')}
                  </TextButton>
                )}
                <TextButton aria-label={t('programme.edit', { name: programme.name })} onPress={() => setOpen(programme.id)}>
                  {t('edit')}
                </TextButton>
                <RemoveButton
                  remove={endpoints.programmes.remove}
                  restore={endpoints.programmes.restore}
                  params={{ siteId: site.id, programmeId: programme.id }}
                  rowVersion={programme.rowVersion}
                  label={t('programme.removeOne', { name: programme.name })}
                  said={t('programme.removed', { name: programme.name })}
                />
              </Line>
            </Line>
            <Steps programme={programme} forecast={forecast} onPlan={onPlan} />
          </Stack>
        ),
      )}
      {own.length > 0 ? <Sums programmes={own} /> : null}
      {open === 'new' ? (
        <ProgrammeForm forecast={forecast} onDone={() => setOpen(null)} />
      ) : (
        <TextButton onPress={() => setOpen('new')}>{t('programme.add')}</TextButton>
      )}
    </Stack>
  )
}

/** When a step is done and how often, in words. */
function stepSays(
  { when, everyDays, emptyChecks }: Programme['steps'][number],
  year: string,
  bloomName: (bloom: { plantId: string; event: string }) => string,
  t: Say,
  f: Format,
): string {
  const said = ((): string => {
    switch (when.kind) {
      case 'after':
        return t('programme.says.after', { days: when.days, step: when.step + 1 })
      case 'months':
        return t('programme.says.months', {
          months: when.months.map((m) => f.month(`${year}-${String(m).padStart(2, '0')}-01`)).join(', '),
        })
      case 'regrowth':
        return t('programme.says.regrowth', { cm: when.cm })
      case 'count':
        return t('programme.says.count', { per100: when.per100 })
      case 'bloom':
        return t('programme.says.bloom', { days: when.days, bloom: bloomName(when) })
      case 'crop-stage':
        return t('programme.says.crop-stage', { stage: t(`crops.stage.${when.stage}`) })
      default:
        return t(`programme.says.${when.kind}`)
    }
  })()
  return [
    said,
    everyDays === null ? '' : t('programme.every', { days: everyDays }),
    emptyChecks === null ? '' : t('programme.until', { checks: emptyChecks }),
  ].join('')
}

function stateSays(state: StepState, t: Say, f: Format): string {
  const on = (day: number): string => f.date(f.nudge('1970-01-01', day))
  switch (state.state) {
    case 'due': {
      const day = f.nudge('1970-01-01', state.day)
      return t('programme.state.due', { when: day < f.today ? 'past' : 'coming', date: f.date(day) })
    }
    case 'look':
      return t('programme.state.look', { last: state.lastDone === null ? 'none' : on(state.lastDone) })
    case 'done':
      return t('programme.state.done', { date: on(state.day) })
    case 'over':
      return t('programme.state.over', { empty: state.empty })
    case 'waits':
      return t('programme.state.waits')
  }
}

function Steps({ programme, forecast, onPlan }: { programme: Programme; forecast: WatchForecast; onPlan: (key: string) => void }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: products = [] } = useProducts(site.id)
  const { data: methods = [] } = useMethods()
  const blooms = useBloomChoices()
  const bloomName = (bloom: { plantId: string; event: string }): string =>
    blooms.find(({ id }) => id === bloomKey({ plant: bloom.plantId, event: bloom.event }))?.label ?? bloom.plantId
  const signs = useSigns()
  if (!signs) return null
  const states = stepStates(programme, forecast, site.today, signs)
  return (
    <Rows>
      {programme.steps.map((step, i) => {
        const method: Method | undefined = methods.find(({ id }) => id === step.methodId)
        const name = products.find(({ id }) => id === step.productId)?.name ?? method?.name ?? ''
        const state = states[i] as StepState
        return (
          <li key={i}>
            <Line style={{ justifyContent: 'space-between' }}>
              <span>
                {i + 1}. <b>{name}</b> {stepSays(step, site.today.slice(0, 4), bloomName, t, f)}
                <Small>
                  {stateSays(state, t, f)}
                  {method ? ` · ${t('programme.provokes', { text: method.provokes })}` : ''}
                </Small>
              </span>
              {state.state === 'due' || state.state === 'look' ? (
                <TextButton
                  aria-label={t('programme.planOne', { nth: i + 1, name, programme: programme.name })}
                  onPress={() => onPlan(stepKey(step))}
                >
                  {t('programme.plan')}
                </TextButton>
              ) : null}
            </Line>
          </li>
        )
      })}
    </Rows>
  )
}

const SUMS = ['hours', 'litres', 'bags', 'money'] as const

/** What the programmes take over three years, one beside the other. */
function Sums({ programmes }: { programmes: readonly Programme[] }) {
  const t = useText()
  const f = useFormat()
  const all = programmes.map(({ steps, hourly }) => programmeSums(steps, hourly))
  const said = (sums: ProgrammeSums, of: (typeof SUMS)[number]): string => {
    const sum = sums[of]
    if (sum === null) return t('programme.unknown')
    const missing = sums.missing[of]
    return missing === 0 ? f.number(sum, 1) : t('programme.partly', { sum: f.number(sum, 1), missing })
  }
  return (
    <>
      <FigureTable data-testid="programme-sums">
        <caption>{t('programme.sums')}</caption>
        <thead>
          <tr>
            <td />
            {programmes.map(({ id, name }) => (
              <th key={id} scope="col">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <tr>
            <th scope="row">{t('programme.sum.visits')}</th>
            {all.map(({ visits }, i) => (
              <td key={i}>{f.number(visits)}</td>
            ))}
          </tr>
          {SUMS.filter((of) => all.some((sums) => sums[of] !== null)).map((of) => (
            <tr key={of}>
              <th scope="row">{t(`programme.sum.${of}`)}</th>
              {all.map((sums, i) => (
                <td key={i}>{said(sums, of)}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </FigureTable>
      <Small>{t('programme.how')}</Small>
    </>
  )
}
