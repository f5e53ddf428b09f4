import { dayOfHeat } from '../phenology/eventDates.js'
import type { Reach } from '../phenology/model.js'
import { heatAtShare } from '../phenology/spread.js'
import type { CohortQuantile } from '../treatment/coverage.js'

/** A day past every season: stands for "not in this season" where a finite number is needed. */
export const NEVER = 1e6

export const COHORT_QUANTILES = 50

/** Heat, in °C·d, at which each quantile of the population enters and leaves the reachable stages. */
export interface ReachHeat {
  enter: Float64Array
  exit: Float64Array
  enterSe: number
  exitSe: number
}

/** Quantiles of entry and exit; an individual early to enter is early to leave. */
export function reachHeat(reach: Reach, quantiles = COHORT_QUANTILES): ReachHeat {
  const enter = new Float64Array(quantiles)
  const exit = new Float64Array(quantiles)
  for (let i = 0; i < quantiles; i++) {
    const share = (i + 0.5) / quantiles
    enter[i] = heatAtShare(share, reach.enter.spread)
    exit[i] = reach.exit ? Math.max(enter[i] as number, heatAtShare(share, reach.exit.spread)) : Infinity
  }
  return { enter, exit, enterSe: reach.enter.heatSe, exitSe: reach.exit?.heatSe ?? 0 }
}

/**
 * The cohort on one member's heat curve: the days of its season, fractions included, between which each quantile can be
 * reached. `score` moves the figures by that many of their standard errors.
 */
export function reachableCohort(heat: ReachHeat, cumulative: ArrayLike<number>, score: number): CohortQuantile[] {
  return Array.from(heat.enter, (enterHeat, i) => {
    const enter = Math.min(NEVER, dayOfHeat(cumulative, enterHeat + score * heat.enterSe))
    const exitHeat = (heat.exit[i] as number) + score * heat.exitSe
    const exit = exitHeat === Infinity ? NEVER : Math.min(NEVER, dayOfHeat(cumulative, exitHeat))
    return { enter, exit: Math.max(enter, exit) }
  })
}
