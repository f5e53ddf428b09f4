import { normalCdf, studentQuantile } from '../statistics/normal.js'
import { dayOfHeat } from './eventDates.js'

/** A season in which an event was dated, with the heat that it may be told by. */
export interface ClockSeason {
  /** Day of the season, fraction included: the middle between the last look without it and the first with it. */
  day: number
  /** °C·d from the season's first day through each of its days, above a lower threshold in °C. */
  heatAbove: (lower: number) => ArrayLike<number>
}

/** The clock that an organism's own dates make: how far it is ahead of the calendar, and whether that is enough to go by it. */
export interface OwnClock {
  seasons: number
  /** °C above which heat counts, from the season's first day. */
  lower: number
  /** Mean heat in °C·d at the event. */
  heat: number
  /** How far the next season may lie from it, in °C·d: s·√(1 + 1/n), as Student's t with `df` degrees of freedom. */
  heatSe: number
  df: number
  /** Mean day of the season, as the calendar would tell it. */
  calendarDay: number
  /** Mean absolute error in days, each season told without itself. */
  error: { clock: number; calendar: number }
  /** By how many days a season the clock is nearer than the calendar, and the standard error of that. */
  gain: { mean: number; se: number }
  /** Five seasons or more, and a gain beyond its standard error. */
  offered: boolean
}

/** With fewer nothing is said. */
export const LEAST_SEASONS_SHOWN = 3
/** From so many on the threshold is sought, too, and the clock may be offered. */
export const LEAST_SEASONS_OFFERED = 5
/** °C; what bloom plants and most insects of temperate places are counted above. */
export const USUAL_LOWER = 10
const LOWERS = Array.from({ length: 15 }, (_, i) => i)

const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length
const sdOf = (values: readonly number[]): number => {
  const middle = mean(values)
  return Math.sqrt(values.reduce((sum, value) => sum + (value - middle) ** 2, 0) / (values.length - 1))
}

/** One season at one threshold: its heat at the event, and the day on which another heat would be reached. */
interface Placed {
  day: number
  heat: number
  dayOf: (heat: number) => number
}

/** Heat through a fraction of a day; the sum through day i stands at i. */
function heatAt(sums: ArrayLike<number>, day: number): number {
  const through = (i: number): number => (i < 0 ? 0 : (sums[Math.min(i, sums.length - 1)] ?? 0))
  const whole = Math.floor(day)
  return through(whole - 1) + (day - whole) * (through(whole) - through(whole - 1))
}

const placed = ({ day, heatAbove }: ClockSeason, lower: number): Placed => {
  const sums = heatAbove(lower)
  return { day, heat: heatAt(sums, day), dayOf: (heat) => Math.min(sums.length, dayOfHeat(sums, heat)) }
}

/** Days by which each season is missed by the mean heat of the others. */
const missed = (seasons: readonly Placed[]): number[] =>
  seasons.map((one, i) => Math.abs(one.dayOf(mean(seasons.flatMap(({ heat }, k) => (k === i ? [] : [heat])))) - one.day))

/** The threshold at which the seasons foretell one another best; the usual one where none is better. */
function bestLower(byLower: readonly (readonly Placed[])[]): number {
  let best = USUAL_LOWER
  let least = mean(missed(byLower[USUAL_LOWER] as readonly Placed[]))
  for (const lower of LOWERS) {
    const error = mean(missed(byLower[lower] as readonly Placed[]))
    if (error < least - 1e-9) [best, least] = [lower, error]
  }
  return best
}

/**
 * The clock that dates of an event make by themselves, without a figure of the library: mean heat from the season's first day. From
 * five seasons on the lower threshold is the best of 0 to 14 °C, sought anew without each season that it is judged by; before, it is
 * 10 °C. It is offered where it tells the seasons better than their mean date by more than the standard error of that gain.
 *
 * @returns undefined with fewer than three seasons
 */
export function ownClock(seasons: readonly ClockSeason[]): OwnClock | undefined {
  const n = seasons.length
  if (n < LEAST_SEASONS_SHOWN) return undefined
  const sought = n >= LEAST_SEASONS_OFFERED
  const byLower = LOWERS.map((lower) => (sought || lower === USUAL_LOWER ? seasons.map((season) => placed(season, lower)) : []))
  const at = (lower: number): readonly Placed[] => byLower[lower] as readonly Placed[]
  const errors = seasons.map((season, i) => {
    const without = <T>(values: readonly T[]): T[] => values.filter((_, k) => k !== i)
    const lower = sought ? bestLower(byLower.map(without)) : USUAL_LOWER
    const one = at(lower)[i] as Placed
    return {
      clock: Math.abs(one.dayOf(mean(without(at(lower)).map(({ heat }) => heat))) - season.day),
      calendar: Math.abs(mean(without(seasons).map(({ day }) => day)) - season.day),
    }
  })
  const gains = errors.map(({ clock, calendar }) => calendar - clock)
  const gain = { mean: mean(gains), se: sdOf(gains) / Math.sqrt(n) }
  const lower = sought ? bestLower(byLower) : USUAL_LOWER
  const heats = at(lower).map(({ heat }) => heat)
  return {
    seasons: n,
    lower,
    heat: mean(heats),
    heatSe: sdOf(heats) * Math.sqrt(1 + 1 / n),
    df: n - 1,
    calendarDay: mean(seasons.map(({ day }) => day)),
    error: { clock: mean(errors.map(({ clock }) => clock)), calendar: mean(errors.map(({ calendar }) => calendar)) },
    gain,
    offered: sought && gain.mean > gain.se,
  }
}

/** Standard scores of a figure from few seasons of one's own: those of a normal distribution, drawn out to Student's t. */
export const scoresOfFew = (scores: readonly number[], df: number): number[] =>
  scores.map((score) => studentQuantile(Math.min(1 - 1e-9, Math.max(1e-9, normalCdf(score))), df))
