import type { Outcome, ResponseOf, WatchForecast, YearsOf, endpoints } from '@bocado/contract'
import { workMinutes } from '@bocado/core'
import { civilDate, dayNumber } from '@bocado/core/time'

/** What is proposed to do otherwise next season, by what this one showed. */
export type Change =
  | { what: 'window-missed'; watchId: string; name: string; generation: string; closes: string }
  | { what: 'met-nothing'; name: string; on: string }
  | { what: 'count-after'; name: string; on: string }
  | { what: 'leave-check'; name: string }
  | { what: 'forecast-off'; name: string; event: string; days: number; watchId: string }
  | { what: 'did-nothing'; name: string; on: string }

/** What reaches less than this of a generation met nothing. */
const NOTHING = 0.005
/** What at its best took less than this share did not do what it was used for. */
const LITTLE = 0.5
/** A forecast that is off by fewer days in the mean changes no plan. */
const OFF_DAYS = 2
/** Days before its opening and after its closing in which a count over the threshold belongs to a window. */
const COUNT_NEAR_DAYS = 14

type Row = Pick<WatchForecast, 'watch' | 'organismName' | 'windows' | 'treatments' | 'rounds' | 'grade'>
type Skill = ResponseOf<typeof endpoints.outcomes.skill>[number]

/** Windows that are over, in which it stood over the threshold in the block and nothing was done. */
function missedWindows(rows: readonly Row[], season: string): Change[] {
  return rows.flatMap(({ watch, organismName, windows, treatments, rounds, grade }) => {
    if (grade !== 'dates') return []
    return windows.flatMap(({ generationName, state, opens, closes }): Change[] => {
      if (state !== 'past' || opens.p50 === null || closes.p50 === null) return []
      const [from, to] = [dayNumber(season) + Math.floor(opens.p50), dayNumber(season) + Math.ceil(closes.p50)]
      const within = (day: string, margin: number): boolean => dayNumber(day) >= from - margin && dayNumber(day) <= to + margin
      const wasOver = rounds.some(
        ({ checkAreaId, crossed, countedOn }) => checkAreaId === null && crossed && within(countedOn, COUNT_NEAR_DAYS),
      )
      const wasTreated = treatments.some(({ done }) => done && within(done.day, 0))
      if (!wasOver || wasTreated) return []
      return [
        { what: 'window-missed', watchId: watch.id, name: organismName, generation: generationName, closes: dateOf(season, closes.p50) },
      ]
    })
  })
}

const dateOf = (season: string, day: number): string => civilDate(dayNumber(season) + Math.floor(day))

/** What to do otherwise next season: windows that were missed, deeds that met nothing or were judged by nobody, forecasts that were off. */
export function whatToChange(p: { season: string; rows: readonly Row[]; outcomes: readonly Outcome[]; skill: readonly Skill[] }): Change[] {
  const { season, rows, outcomes, skill } = p
  const met = outcomes.filter(({ coverage }) => coverage !== null && coverage.p90 < NOTHING)
  const uncounted = outcomes.filter(({ treated }) => !treated.before || !treated.after)
  const unchecked = [
    ...new Set(outcomes.filter((one) => one.treated.before && one.treated.after && !one.comparison).map(({ watchId }) => watchId)),
  ]
  const useless = outcomes.filter(({ comparison, isEarly }) => comparison && !isEarly && comparison.hendersonTilton.withAreas.high < LITTLE)
  return [
    ...missedWindows(rows, season),
    ...met.map(({ productName, treatedOn }): Change => ({ what: 'met-nothing', name: productName, on: treatedOn })),
    ...useless.map(({ productName, treatedOn }): Change => ({ what: 'did-nothing', name: productName, on: treatedOn })),
    ...uncounted.map(({ productName, treatedOn }): Change => ({ what: 'count-after', name: productName, on: treatedOn })),
    ...unchecked.flatMap((watchId): Change[] => {
      const row = rows.find(({ watch }) => watch.id === watchId)
      return row ? [{ what: 'leave-check', name: row.organismName }] : []
    }),
    ...skill.flatMap(({ organismName, name, byLibrary, ownAccepted, watchId }): Change[] =>
      !ownAccepted && watchId !== null && byLibrary?.bias != null && byLibrary.forecasts > 1 && Math.abs(byLibrary.bias) >= OFF_DAYS
        ? [{ what: 'forecast-off', name: organismName, event: name, days: byLibrary.bias, watchId }]
        : [],
    ),
  ]
}

/** How the highest count of a season stands to the middle of the other seasons: times as high; null where nothing can be held beside it. */
export function againstOtherYears({ years }: Pick<YearsOf, 'years'>, season: string): { times: number; years: number } | null {
  const own = years.find((year) => year.season === season)?.highest
  const others = years.flatMap((year) => (year.season !== season && year.highest ? [year.highest.per100] : [])).sort((a, b) => a - b)
  if (!own || others.length === 0) return null
  const middle = ((others[Math.floor((others.length - 1) / 2)] as number) + (others[Math.ceil((others.length - 1) / 2)] as number)) / 2
  return middle > 0 ? { times: own.per100 / middle, years: others.length } : null
}

/** A deed as a review names it. */
export interface ReviewDeed {
  id: string
  name: string
  organismName: string
  day: string
  person: string
  /** Of work; null where nobody said. */
  minutes: number | null
  bags: number
}

/** What was done against what is watched, the oldest first. */
export function deedsOf(rows: readonly Pick<WatchForecast, 'organismName' | 'treatments'>[]): ReviewDeed[] {
  const deeds = rows.flatMap(({ organismName, treatments }) =>
    treatments.flatMap(({ id, name, done }) =>
      done
        ? [
            {
              at: done.startedAt,
              deed: { id, name, organismName, day: done.day, person: done.doneByName, minutes: workMinutes(done), bags: done.bags ?? 0 },
            },
          ]
        : [],
    ),
  )
  return deeds.sort((a, b) => a.at.localeCompare(b.at)).map(({ deed }) => deed)
}
