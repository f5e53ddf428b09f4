import { methodKinds, type Method, type Organism, type WatchForecast } from '@bocado/contract'
import { wrap } from 'comlink'
import { useEffect, useMemo, useState } from 'react'
import { Link } from 'react-router'
import { useSite } from '../api/workplace.js'
import { keyOfMethod } from '../band/means.js'
import { monthSpan, windowSentence } from '../band/words.js'
import { TextButton } from '../design/buttons.js'
import { Quiet, Rows, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import type { Way, WayWindow } from '../workers/ways.js'
import type { WaysWorker } from '../workers/ways.worker.js'
import { useMethods } from './useShelfFor.js'
import '../messages/en/field.js'
import '../messages/en/plan.js'
import '../messages/en/windows.js'

const NONE: readonly Way[] = []

/** What still reaches comes first; what is past, or never comes, last. */
const ORDER: readonly WayWindow['state'][] = ['closing', 'open', 'coming', 'poorly-reachable', 'past', 'not-this-season']

/** The window that matters of a way: the one that presses most. */
const pressing = (windows: readonly WayWindow[]): WayWindow | undefined =>
  [...windows].sort((a, b) => ORDER.indexOf(a.state) - ORDER.indexOf(b.state))[0]

/** Ways with their windows: what still reaches first, and within that from prevention to chemical. */
export function sortedWays<T extends { windows: readonly WayWindow[]; method: Pick<Method, 'kind'> }>(ways: readonly T[]): T[] {
  const late = ({ windows }: T): number => {
    const state = pressing(windows)?.state
    return state === undefined ? 1 : ['past', 'not-this-season'].includes(state) ? 2 : 0
  }
  const kind = ({ method }: T): number => methodKinds.indexOf(method.kind)
  return [...ways].sort((a, b) => late(a) - late(b) || kind(a) - kind(b))
}

/** The windows of the ways to act on a watch, reckoned beside the page; none where only months are known. */
function useWayWindows(forecast: WatchForecast, reach: readonly Way[]): WayWindow[][] | null {
  const [windows, setWindows] = useState<{ of: WatchForecast; windows: WayWindow[][] } | null>(null)
  useEffect(() => {
    if (reach.length === 0 || forecast.grade !== 'dates' || forecast.events.length === 0) return
    let current = true
    const thread = new Worker(new URL('../workers/ways.worker.ts', import.meta.url), { type: 'module' })
    const { heat, events, generations, end } = forecast
    void wrap<WaysWorker>(thread)
      .windowsOfWays({ heat, events, generations, end }, [...reach])
      .then((found) => current && setWindows({ of: forecast, windows: found }))
    return () => {
      current = false
      thread.terminate()
    }
  }, [forecast, reach])
  return windows?.of === forecast ? windows.windows : null
}

/** Every way to act on what is watched, each with its own window: hands, tools and covers as well as what comes with a label. */
export function WaysToAct({
  forecast,
  organism,
  onPlan,
}: {
  forecast: WatchForecast
  organism: Organism
  /** A way by hand was taken up: its key, as planning takes it. */
  onPlan: (key: string) => void
}) {
  const t = useText()
  const site = useSite()
  const { data: methods } = useMethods()
  const reach = useMemo(
    () => organism.reach.map((way): Way => ({ ...way, residualDays: methods?.find(({ id }) => id === way.method)?.lasts?.value ?? 0 })),
    [organism, methods],
  )
  const windows = useWayWindows(forecast, methods ? reach : NONE)
  const ways = sortedWays(
    reach.flatMap((way, i) => {
      const method = methods?.find(({ id }) => id === way.method)
      return method ? [{ way, method, windows: windows?.[i] ?? [] }] : []
    }),
  )
  return (
    <Stack>
      <Small>{t('ways.how')}</Small>
      <Rows data-testid="ways">
        {ways.map(({ way, method, windows: of }) => (
          <li key={`${way.method} ${way.stages.join()}`}>
            <Link to={`/sites/${site.id}/library/methods/${method.id}`}>
              <b>{method.name}</b>
            </Link>{' '}
            <Quiet>
              {t(`methodKind.${method.kind}`)}, {t(`evidence.${method.evidence}`)}
            </Quiet>
            <br />
            <WayWords forecast={forecast} way={way} method={method} windows={of} />{' '}
            <Quiet>
              {t('ways.on', {
                stages: way.stages.map((id) => organism.stages.find((stage) => stage.id === id)?.name ?? id).join(', '),
              })}
              {way.strains
                ? ` · ${method.strains
                    .filter(({ id }) => way.strains?.includes(id))
                    .map(({ name }) => name)
                    .join(', ')}`
                : ''}
            </Quiet>{' '}
            {method.product ? null : (
              <TextButton aria-label={t('ways.planNamed', { name: method.name })} onPress={() => onPlan(keyOfMethod(method.id))}>
                {t('ways.plan')}
              </TextButton>
            )}
          </li>
        ))}
      </Rows>
    </Stack>
  )
}

/** When a way reaches: by days where the model gives them, otherwise by the usual months of the generations that have its stages. */
function WayWords({
  forecast,
  way,
  method,
  windows,
}: {
  forecast: WatchForecast
  way: Way
  method: Method
  windows: readonly WayWindow[]
}) {
  const t = useText()
  const f = useFormat()
  const window = pressing(windows)
  if (window && method.lasting) {
    const start = forecast.watch.season
    const on = (index: number | null): string => (index === null ? t('window.beyond') : f.date(f.seasonDay(start, index)))
    const over = window.state === 'past' || window.state === 'not-this-season'
    const begun = window.begins.p50 !== null && window.begins.p50 <= forecast.heat.todayIndex
    const name = forecast.generations.find(({ id }) => id === window.generation)?.name ?? ''
    return (
      <>
        {t('ways.standBy', {
          state: over ? 'over' : begun ? 'late' : 'ahead',
          by: on(window.begins.p10),
          until: on(window.closes.p50),
          generation: name,
        })}
      </>
    )
  }
  if (window) {
    const name = forecast.generations.find(({ id }) => id === window.generation)?.name ?? ''
    const sentence = windowSentence(forecast, t, f, {
      ...window,
      generationName: name,
      bestDay: window.opens,
      opensHeat: null,
      beginsWith: { name: '', heat: 0 },
    })
    return <>{windows.length > 1 ? t('ways.ofGeneration', { sentence, generation: name }) : sentence}</>
  }
  const usual = forecast.usual.filter(({ generation }) =>
    forecast.generations.some(
      ({ id, reachableStages }) => id === generation && reachableStages.some((stage) => way.stages.includes(stage)),
    ),
  )
  if (forecast.grade !== 'dates' && usual.length > 0)
    return <>{usual.map((of) => t('window.monthsOnly', { months: monthSpan(of.months, t, f) })).join('; ')}</>
  return <>{t('ways.noWindow')}</>
}
