import type { Bounds } from '../statistics/quantile.js'
import { boundsOfShares, FEW_SEASONS_DAYS, type Ensemble } from '../phenology/ensemble.js'
import { heatAtShare, shareReached, type Spread } from '../phenology/spread.js'
import type { EmergenceClock } from './emergence.js'

/** How seedlings of a weed come up: a clock and a Weibull over its time, with the uncertainty of its median. */
export interface EmergenceModel {
  clock: EmergenceClock
  onset: number
  median: number
  shape: number
  medianSe: number
}

/**
 * Share of a flush that is up by the end of each day, with predictive bounds. The scores of the ensemble move the median by that many
 * of its standard errors, one a draw.
 *
 * @param curves emergence time by day, one curve a draw, from `emergenceCurves`
 */
export function emergedShare(model: EmergenceModel, curves: readonly ArrayLike<number>[], ensemble: Omit<Ensemble, 'members'>): Bounds[] {
  const { onset, median, shape, medianSe } = model
  const { scores, openIndex } = ensemble
  const length = curves[0]?.length ?? 0
  const spreads = curves.map((_, m) => ({
    kind: 'weibull' as const,
    onset,
    median: Math.max(onset + 1e-6, median + (scores[m] ?? 0) * medianSe),
    shape,
  }))
  const shares = curves.map((curve, m) => shareCurve(curve, spreads[m]!))
  const column = new Array<number>(curves.length)
  const middle = shares[shares.length >> 1]
  const at = (day: number): number => middle?.[Math.min(length - 1, Math.max(0, day))] ?? 0
  return Array.from({ length }, (_, day) => {
    shares.forEach((share, m) => (column[m] = share[day] as number))
    const between = Math.max(Math.abs(at(day + FEW_SEASONS_DAYS) - at(day)), Math.abs(at(day - FEW_SEASONS_DAYS) - at(day)))
    return boundsOfShares(column, ensemble, day < openIndex ? 0 : between)
  })
}

/** Nearly all are up: the last few are not waited for. */
const ALL_UP = 0.9999

/** Emergence time by which nearly all are up, even where the median lies three of its errors later. */
export function timeOfAll({ onset, median, shape, medianSe }: EmergenceModel): number {
  return heatAtShare(ALL_UP, { kind: 'weibull', onset, median: median + 3 * medianSe, shape })
}

function shareCurve(curve: ArrayLike<number>, spread: Spread): Float64Array {
  const shares = new Float64Array(curve.length)
  for (let day = 0; day < curve.length; day++) {
    const time = curve[day] as number
    // A day on which nothing was added stays where it was.
    if (day > 0 && time === curve[day - 1]) shares[day] = shares[day - 1] as number
    else shares[day] = shareReached(time, spread)
    if ((shares[day] as number) > ALL_UP) return shares.fill(1, day)
  }
  return shares
}

/** A run of days on which seedlings come up. */
export interface Flush {
  from: number
  until: number
  /** Share of the flush that comes up in it. */
  share: number
}

const FLUSH_FROM_SHARE_A_DAY = 0.012
const LONGEST_PAUSE_DAYS = 3

/** The runs of days on which at least 1.2 % come up a day; pauses of up to three days do not end one. */
export function flushes(emerged: ArrayLike<number>): Flush[] {
  const result: Flush[] = []
  for (let day = 0; day < emerged.length; day++) {
    const gained = (emerged[day] as number) - (day > 0 ? (emerged[day - 1] as number) : 0)
    if (gained < FLUSH_FROM_SHARE_A_DAY) continue
    const last = result.at(-1)
    if (last && day - last.until <= LONGEST_PAUSE_DAYS) {
      last.share = (emerged[day] as number) - (last.from > 0 ? (emerged[last.from - 1] as number) : 0)
      last.until = day + 1
    } else result.push({ from: day, until: day + 1, share: gained })
  }
  return result.filter(({ share }) => share >= 0.05)
}
