import { requireAtLeast } from '../guards.js'
import { reachOf, type OrganismModel } from '../phenology/model.js'
import { shareReached } from '../phenology/spread.js'
import type { PlacedModel } from '../forecast/placedModel.js'

/**
 * When in a season something comes to a crop: for each way the season may go the part of its whole attack that falls on each day. The parts
 * of one way sum to 1, or are all 0 where it does not come.
 */
export interface Attack {
  /** Draw-major, as `seasonHeat` gives them: the season of an entry is its place modulo `seasons`. */
  ways: readonly Float64Array[]
  /** Seasons that they come from. */
  seasons: number
}

/** So many draws of each season are looked at: what a sowing meets is an area below a curve, which more would not tell better. */
const DRAWS_LOOKED_AT = 2

/** Days on either side by which usual months may lie off: what is said of a month was said of many places and years. */
const MONTHS_OFF_DAYS = 15

/** Looks lie days apart: what one found is spread over so many days on either side. */
const LOOK_SPREAD_DAYS = 10

/**
 * The attack of an organism whose year is modelled: on each day the share of its population that is in the stages that come to the crop, over
 * all generations, each counted by how much of the population makes it.
 *
 * @param stages that come to the crop or harm it
 * @returns undefined where the model has none of them, or nothing is known of the season's heat
 */
export function attackOfModel(
  { generations }: Pick<OrganismModel, 'generations'>,
  { events, ensemble, shares }: Pick<PlacedModel, 'events' | 'ensemble' | 'shares'>,
  stages: readonly string[],
): Attack | undefined {
  const runs = generations.flatMap(({ id }, g) => {
    const reach = reachOf(events, id, stages)
    return reach ? [{ ...reach, share: shares[g] ?? 1 }] : []
  })
  if (runs.length === 0 || ensemble.members.length === 0) return undefined
  const looked = ensemble.members.slice(0, ensemble.seasons * DRAWS_LOOKED_AT)
  const ways = looked.map(({ cumulative }, m) => {
    const score = ensemble.scores[m] ?? 0
    return asParts(
      Float64Array.from(cumulative, (heat) =>
        runs.reduce((sum, { enter, exit, share }) => {
          const came = shareReached(heat - score * enter.heatSe, enter.spread)
          const gone = exit ? shareReached(heat - score * exit.heatSe, exit.spread) : 0
          return sum + share * Math.max(0, came - gone)
        }, 0),
      ),
    )
  })
  return { ways, seasons: ensemble.seasons }
}

/**
 * The attack of what is only known by months: as much on each day of them, as it is, half a month early and half a month late.
 *
 * @param months runs of days of the season in which it is about, end not included; outside the season nothing counts
 * @param length days of the season
 */
export function attackOfMonths(months: readonly { from: number; until: number }[], length: number): Attack {
  requireAtLeast('length', length, 1)
  const ways = [-MONTHS_OFF_DAYS, 0, MONTHS_OFF_DAYS].map((by) => {
    const days = new Float64Array(length)
    for (const { from, until } of months) for (let day = Math.max(0, from + by); day < Math.min(length, until + by); day++) days[day] = 1
    return asParts(days)
  })
  return { ways, seasons: ways.length }
}

/** Fewer seasons of own records tell less than the months do. */
export const LEAST_OWN_SEASONS = 3

/** Fewer looks in a season do not show when it came and went. */
const LEAST_LOOKS = 4

/**
 * The attack as own looks of past seasons have found it, each season a way of its own.
 *
 * @param seasons of each the looks: the day of the season, and what was found per unit or trap and day
 * @returns undefined with fewer than three seasons in which enough was looked and something found
 */
export function attackOfRecords(seasons: readonly (readonly { day: number; found: number }[])[], length: number): Attack | undefined {
  const ways = seasons
    .filter((looks) => looks.length >= LEAST_LOOKS && looks.some(({ found }) => found > 0))
    .map((looks) => {
      const days = new Float64Array(length)
      for (let day = 0; day < length; day++) {
        let [weights, sum] = [0, 0]
        for (const look of looks) {
          const apart = Math.abs(look.day - day)
          const weight = apart > LOOK_SPREAD_DAYS ? 0 : 1 - apart / (LOOK_SPREAD_DAYS + 1)
          weights += weight
          sum += weight * look.found
        }
        days[day] = weights > 0 ? sum / weights : 0
      }
      return asParts(days)
    })
  return ways.length >= LEAST_OWN_SEASONS ? { ways, seasons: ways.length } : undefined
}

function asParts(days: Float64Array): Float64Array {
  const whole = days.reduce((sum, part) => sum + part, 0)
  return whole > 0 ? days.map((part) => part / whole) : days
}

/** What falls on each day, over all ways: for a picture. */
export function usualAttack({ ways }: Attack): Float64Array {
  const mean = new Float64Array(ways[0]?.length ?? 0)
  for (const way of ways) for (const [day, part] of way.entries()) mean[day] = (mean[day] as number) + part / ways.length
  return mean
}
