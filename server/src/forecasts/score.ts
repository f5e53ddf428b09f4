import {
  correctionsOf,
  hasDay,
  scoreForecasts,
  standardDay,
  standardHour,
  type DayExtremes,
  type ForecastPair,
  type LeadCorrection,
  type LeadScore,
  MS_PER_DAY,
} from '@bocado/core'
import type { Queryable } from '../database/index.js'
import type { Deps } from '../http/route.js'
import type { StationDays } from '../weather/history.js'
import type { StoredStation } from '../weather/store.js'
import { issuesBetween, loadIssue, type ForecastIssue } from './store.js'

/** Forecasts older than this were made by another season's weather. */
const SCORED_DAYS = 60

/** Ids and moments of the issues that a station's forecasts are scored by, newest first. */
export const scoredHeaders = (db: Queryable, stationId: string, now: Date): ReturnType<typeof issuesBetween> =>
  issuesBetween(db, stationId, new Date(now.getTime() - SCORED_DAYS * MS_PER_DAY), now)

/** A day of which more is filled than this is no measure of a forecast. */
const MOST_FILLED = 0.2

export interface ForecastScore {
  /** Everything that it rests on, for keys of what is made from it. */
  key: string
  issues: number
  leads: LeadScore[]
  corrections: LeadCorrection[]
}

/** Extremes of each whole day of an issue, by member; the first entry is day `firstDay`. */
interface IssueDays {
  issueDay: number
  firstDay: number
  members: DayExtremes[][]
}

function daysOfIssue({ issuedAt, firstHour, members }: ForecastIssue, utcOffsetMinutes: number): IssueDays {
  const first = standardHour(Date.parse(firstHour), utcOffsetMinutes)
  const firstDay = Math.ceil(first / 24)
  return {
    issueDay: standardDay(Date.parse(issuedAt), utcOffsetMinutes),
    firstDay,
    members: members.map(({ temperature }) => {
      const days: DayExtremes[] = []
      for (let i = firstDay * 24 - first; i + 24 <= temperature.length; i += 24) {
        const day = temperature.slice(i, i + 24)
        days.push({ min: Math.min(...day), max: Math.max(...day) })
      }
      return days
    }),
  }
}

/**
 * How good the forecasts of the last sixty days were at a station, one issue a day, and what is taken off the next one for it.
 * Only days that are over and were mostly read are compared.
 */
export async function forecastScore(
  deps: Deps,
  station: StoredStation,
  { series, contentBefore }: Pick<StationDays, 'series' | 'contentBefore'>,
  now: Date,
): Promise<ForecastScore> {
  const headers = await scoredHeaders(deps.db, station.id, now)
  const dayOf = (moment: string): number => standardDay(Date.parse(moment), station.utcOffsetMinutes)
  const today = standardDay(now.getTime(), station.utcOffsetMinutes)
  // Issues of one day share their errors: they would count as several and be one.
  const oneADay = new Map([...headers].reverse().map((header) => [dayOf(header.issuedAt), header.id]))
  const key = `score ${station.id} ${contentBefore(today)} ${station.utcOffsetMinutes} ${today} ${headers[0]?.id} ${headers.length}`
  return deps.memo.get(key, async () => {
    const pairs: ForecastPair[] = []
    for (const id of oneADay.values()) {
      const { issueDay, firstDay, members } = await deps.memo.get(`days of issue ${id} ${station.utcOffsetMinutes}`, async () =>
        daysOfIssue(await loadIssue(deps.db, deps.memo, id), station.utcOffsetMinutes),
      )
      const days = members[0]?.length ?? 0
      for (let d = 0; d < days; d++) {
        const day = firstDay + d
        const i = day - series.firstDay
        if (day >= today || !hasDay(series, day) || (series.filled[i] as number) > MOST_FILLED) continue
        pairs.push({
          lead: day - issueDay,
          members: members.map((member) => member[d] as DayExtremes),
          came: { min: series.min[i] as number, max: series.max[i] as number },
        })
      }
    }
    const leads = scoreForecasts(pairs)
    return { key, issues: oneADay.size, leads, corrections: correctionsOf(leads) }
  })
}
