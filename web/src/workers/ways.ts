import type { Organism, WatchForecast, WindowForecast } from '@bocado/contract'
import {
  BEGUN_SHARE,
  boundsOfDates,
  datesOf,
  LEAST_GENERATION,
  reachHeat,
  reachOf,
  windowForecast,
  windowState,
  type Bounds,
} from '@bocado/core'
import { ensembleOf } from '../band/streams.js'

/** What of a watch the windows of its ways to act rest on. */
export type WaysOf = Pick<WatchForecast, 'heat' | 'events' | 'generations' | 'end'>

/** The window of one way to act in one generation; days of the season, null beyond it. */
export interface WayWindow {
  generation: string
  state: WindowForecast['state']
  opens: WindowForecast['opens']
  closes: WindowForecast['closes']
  best: WindowForecast['best']
  /** When the first of it comes: what has to be there before has to stand by then. */
  begins: WindowForecast['opens']
}

/** A way to act with the days for which what was put on goes on acting. */
export type Way = Organism['reach'][number] & { residualDays: number }

const shown = ({ p10, p50, p90 }: Bounds): WindowForecast['opens'] => ({ p10: day(p10), p50: day(p50), p90: day(p90) })
const day = (value: number): number | null => (Number.isFinite(value) ? value : null)

/** The windows of each way to act, one for each generation that has a stage which it reaches, in the order of the ways. */
export function windowsOfWays(watch: WaysOf, reach: readonly Way[]): WayWindow[][] {
  const ensemble = ensembleOf(watch)
  const { todayIndex, knownDays } = watch.heat
  const last = watch.end?.draws.map((day) => day ?? Infinity) ?? []
  return reach.map(({ stages, residualDays }) =>
    watch.generations.flatMap(({ id, share }) => {
      const reached = share < LEAST_GENERATION ? undefined : reachOf(watch.events, id, stages)
      if (!reached) return []
      const window = windowForecast(ensemble, reachHeat(reached), knownDays, residualDays, last)
      const begins = boundsOfDates(datesOf(reached.enter, BEGUN_SHARE, ensemble.members, ensemble.scores), ensemble)
      return [
        {
          generation: id,
          state: windowState(window, todayIndex),
          opens: shown(window.opens),
          closes: shown(window.closes),
          best: shown(window.best),
          begins: shown(begins),
        },
      ]
    }),
  )
}
