import type { ResponseOf, weather } from '@bocado/contract'
import { forecastScore } from '../forecasts/score.js'
import type { Deps } from '../http/route.js'
import { getSite } from '../sites/service.js'
import { stationPosition } from './place.js'
import { getStation } from './stations.js'

const hundredths = (value: number): number => Math.round(value * 100) / 100

/** How good past forecasts were at a station, and what is taken off the next one. */
export async function scoreOfStation(deps: Deps, siteId: string, stationId: string): Promise<ResponseOf<typeof weather.score>> {
  const station = await getStation(deps.db, siteId, stationId)
  const site = await getSite(deps.db, deps.clock, siteId)
  const days = await deps.history.daysOf(deps.db, station, stationPosition(station, site))
  const now = await deps.clock.now(deps.db)
  const { issues, leads, corrections } = await forecastScore(deps, station, days, now)
  return {
    issues,
    leads: leads.map((score) => {
      const correction = corrections.find(({ lead }) => lead === score.lead)
      return {
        lead: score.lead,
        n: score.n,
        biasMin: hundredths(score.biasMin),
        biasMax: hundredths(score.biasMax),
        errorMin: hundredths(score.errorMin),
        errorMax: hundredths(score.errorMax),
        inside: hundredths(score.inside),
        takenOffMin: hundredths(correction?.min ?? 0),
        takenOffMax: hundredths(correction?.max ?? 0),
      }
    }),
  }
}
