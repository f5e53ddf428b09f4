import { sameDayInYear } from '../time/civilDays.js'
import type { CheckedVariable, Doubt } from './quality.js'

/** An hourly series; hour i begins `firstHour + i` hours after 1970-01-01 in standard time. NaN: no reading. */
export interface HourlySeries {
  firstHour: number
  values: Float64Array
}

/** What a filled value rests on. */
export type FillMethod = 'interpolated' | 'neighbour' | 'climatology' | 'unknown'

/** A value in place of a reading; `value` is NaN where the method is `unknown`. */
export interface FilledHour extends Doubt {
  value: number
  method: FillMethod
}

const LONGEST_INTERPOLATED_HOURS = 3
const REGRESSION_HALF_WIDTH_HOURS = 30 * 24
const REGRESSION_LEAST_PAIRS = 72
const REGRESSION_LEAST_R = 0.8
const CLIMATOLOGY_HALF_WIDTH_DAYS = 5
const CLIMATOLOGY_LEAST_YEARS = 3

/**
 * A value for each doubted hour, by the first way that serves: a straight line between believed readings at most three hours
 * apart; linear regression on the best-correlated neighbouring station over the thirty days around; the mean of the same
 * hour within five days in at least three other years. Rain is never drawn between hours nor taken from other years: the
 * nearest station's rain, else unknown. Wetness is never filled: rain and humidity tell of it where the sensor did not. Nor is the direction
 * of the wind: there is no line between two bearings.
 *
 * @param series the readings as they came, doubts included
 * @param doubts of `checkHours`, less those that somebody overruled
 * @param neighbours other stations of the site, nearest first, with their own doubted hours already NaN
 */
export function fillHours(
  series: HourlySeries,
  doubts: readonly Doubt[],
  variable: CheckedVariable,
  neighbours: readonly HourlySeries[],
): FilledHour[] {
  const believed = Float64Array.from(series.values)
  for (const { hour } of doubts) believed[hour] = NaN
  const climate = new Map<number, number>()
  return runsOf(doubts).flatMap((run) => {
    const from = (run[0] as Doubt).hour
    const to = (run.at(-1) as Doubt).hour
    if (variable === 'wetness' || variable === 'direction')
      return run.map((doubt): FilledHour => ({ ...doubt, value: NaN, method: 'unknown' }))
    const regression = variable === 'rain' ? undefined : bestRegression(believed, series.firstHour, neighbours, (from + to) >> 1)
    return run.map((doubt): FilledHour => {
      const filled =
        variable === 'rain'
          ? rainNearby(series.firstHour + doubt.hour, neighbours)
          : (interpolated(believed, from, to, doubt.hour) ??
            regression?.(series.firstHour + doubt.hour) ??
            fromOtherYears(believed, series.firstHour, doubt.hour, climate))
      return { ...doubt, ...(filled ?? { value: NaN, method: 'unknown' }) }
    })
  })
}

/** Doubts of consecutive hours belong together, whatever their reasons. */
function runsOf(doubts: readonly Doubt[]): Doubt[][] {
  const runs: Doubt[][] = []
  for (const doubt of doubts) {
    const run = runs.at(-1)
    if (run && (run.at(-1) as Doubt).hour === doubt.hour - 1) run.push(doubt)
    else runs.push([doubt])
  }
  return runs
}

type Filled = Pick<FilledHour, 'value' | 'method'>

function interpolated(believed: Float64Array, from: number, to: number, hour: number): Filled | undefined {
  if (to - from + 1 > LONGEST_INTERPOLATED_HOURS) return undefined
  const before = believed[from - 1]
  const after = believed[to + 1]
  if (before === undefined || after === undefined || Number.isNaN(before) || Number.isNaN(after)) return undefined
  return { value: before + ((after - before) * (hour - from + 1)) / (to - from + 2), method: 'interpolated' }
}

const at = (series: HourlySeries, absoluteHour: number): number => series.values[absoluteHour - series.firstHour] ?? NaN

/** The regression on the neighbour with the highest correlation around an hour; undefined where none is close enough. */
function bestRegression(
  believed: Float64Array,
  firstHour: number,
  neighbours: readonly HourlySeries[],
  centre: number,
): ((absoluteHour: number) => Filled | undefined) | undefined {
  let best: { r: number; line: (x: number) => number; neighbour: HourlySeries } | undefined
  for (const neighbour of neighbours) {
    let n = 0
    let sx = 0
    let sy = 0
    let sxx = 0
    let syy = 0
    let sxy = 0
    for (
      let i = Math.max(0, centre - REGRESSION_HALF_WIDTH_HOURS);
      i <= Math.min(believed.length - 1, centre + REGRESSION_HALF_WIDTH_HOURS);
      i++
    ) {
      const y = believed[i] as number
      const x = at(neighbour, firstHour + i)
      if (Number.isNaN(x) || Number.isNaN(y)) continue
      n++
      sx += x
      sy += y
      sxx += x * x
      syy += y * y
      sxy += x * y
    }
    if (n < REGRESSION_LEAST_PAIRS) continue
    const vx = sxx - (sx * sx) / n
    const vy = syy - (sy * sy) / n
    const cxy = sxy - (sx * sy) / n
    if (vx <= 0 || vy <= 0) continue
    const r = cxy / Math.sqrt(vx * vy)
    if (r < REGRESSION_LEAST_R || (best && r <= best.r)) continue
    const slope = cxy / vx
    best = { r, neighbour, line: (x) => sy / n + slope * (x - sx / n) }
  }
  if (!best) return undefined
  const { neighbour, line } = best
  return (absoluteHour) => {
    const x = at(neighbour, absoluteHour)
    return Number.isNaN(x) ? undefined : { value: line(x), method: 'neighbour' }
  }
}

function rainNearby(absoluteHour: number, neighbours: readonly HourlySeries[]): Filled | undefined {
  for (const neighbour of neighbours) {
    const value = at(neighbour, absoluteHour)
    if (!Number.isNaN(value)) return { value, method: 'neighbour' }
  }
  return undefined
}

function fromOtherYears(believed: Float64Array, firstHour: number, hour: number, known: Map<number, number>): Filled | undefined {
  const held = known.get(hour)
  if (held !== undefined) return { value: held, method: 'climatology' }
  const absolute = firstHour + hour
  const day = Math.floor(absolute / 24)
  const ofDay = absolute - day * 24
  let years = 0
  let sum = 0
  for (let offset = -40; offset <= 40; offset++) {
    if (offset === 0) continue
    const centre = sameDayInYear(day, offset)
    let n = 0
    let yearly = 0
    for (let d = centre - CLIMATOLOGY_HALF_WIDTH_DAYS; d <= centre + CLIMATOLOGY_HALF_WIDTH_DAYS; d++) {
      const value = believed[d * 24 + ofDay - firstHour]
      if (value === undefined || Number.isNaN(value)) continue
      n++
      yearly += value
    }
    if (n === 0) continue
    years++
    sum += yearly / n
  }
  if (years < CLIMATOLOGY_LEAST_YEARS) return undefined
  known.set(hour, sum / years)
  return { value: sum / years, method: 'climatology' }
}
