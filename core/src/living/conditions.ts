import { requireFinite } from '../guards.js'

/** What a living material needs around it. */
export interface LivingNeeds {
  medium: 'soil' | 'air'
  /** °C below which it does nothing, and above which it dies. */
  floor: number
  ceiling: number
}

/** It has to find its prey for so many days after it was put out. */
export const LIVING_DAYS = 14

/** Share of the ways the weather may go in which it has to stay warm enough (as science asks of nematodes). */
export const LIVING_SHARE = 0.8

/** What can be said of a day on which something living is put out. */
export interface LivingConditions {
  /** °C of the medium on that day, the middle of the ways. */
  onTheDay: number
  /** Share of the ways in which it stays at or above the floor over the days after, and at or below the ceiling. */
  warmEnough: number
  coolEnough: number
  verdict: 'fits' | 'too-cold' | 'too-hot'
}

/**
 * Whether something living is put out in what it can live in: warm enough on the day and, in at least 80 % of the ways the weather may go,
 * over the days after, on none of which its ceiling is passed.
 *
 * @param ways of each the °C of the medium on the day and the days after: the mean of a day for soil, for air the mean for the floor
 * @param peaks of each the highest °C of those days; for soil, which hardly swings below 10 cm, the same
 * @throws RangeError without a day
 */
export function livingConditions(
  { floor, ceiling }: LivingNeeds,
  ways: readonly (readonly number[])[],
  peaks: readonly (readonly number[])[] = ways,
): LivingConditions {
  const firsts = ways.map(([first]) => first ?? NaN).sort((a, b) => a - b)
  const onTheDay = firsts[firsts.length >> 1]
  if (onTheDay === undefined) throw new RangeError('ways must hold at least one, got none')
  requireFinite('ways', onTheDay)
  const share = (of: readonly (readonly number[])[], fits: (celsius: number) => boolean): number =>
    of.filter((days) => days.every(fits)).length / of.length
  const warmEnough = share(ways, (celsius) => celsius >= floor)
  const coolEnough = share(peaks, (celsius) => celsius <= ceiling)
  const verdict =
    onTheDay < floor || warmEnough < LIVING_SHARE ? 'too-cold' : onTheDay > ceiling || coolEnough < LIVING_SHARE ? 'too-hot' : 'fits'
  return { onTheDay, warmEnough, coolEnough, verdict }
}

/** Fewer readings of a thermometer give no offset. */
const LEAST_READINGS = 2

/** Readings that lie further apart than this from the day looked at tell of another time of the year. */
export const READING_DAYS = 30

/**
 * By how much the soil of a pot or bed differs from the estimate for its block, by what a thermometer read in it: the mean difference of the
 * readings of about a month.
 *
 * @param readings day numbers with °C that were read
 * @param estimated °C of the block's soil on a day; undefined where it is not known
 * @returns null with fewer than two readings that can be compared
 */
export function soilOffset(
  readings: readonly { day: number; celsius: number }[],
  estimated: (day: number) => number | undefined,
  today: number,
): { celsius: number; readings: number } | null {
  const differences = readings
    .filter(({ day }) => Math.abs(today - day) <= READING_DAYS)
    .flatMap(({ day, celsius }) => {
      const there = estimated(day)
      return there === undefined || Number.isNaN(there) ? [] : [celsius - there]
    })
  if (differences.length < LEAST_READINGS) return null
  return { celsius: differences.reduce((sum, one) => sum + one, 0) / differences.length, readings: differences.length }
}
