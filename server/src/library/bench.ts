import type { BenchData } from '@bocado/contract'
import { civilDate, dayNumber, heatStart, knownPastYears, seasonLater, seasonWeather, type DayExtremes, type HeatStart } from '@bocado/core'
import { listBlocks } from '../blocks/store.js'
import type { Deps } from '../http/route.js'
import { getSite } from '../sites/service.js'
import { listEventRecords } from '../watches/eventRecords.js'
import { listOwnFigures, resolvedModel } from '../watches/models.js'
import { listBiofixes } from '../watches/store.js'
import { weatherOfBlocks } from '../weather/groundWeather.js'
import { requireOrganism } from './catalogue.js'

const PAST_SEASONS = 11
const tenths = (c: number): number => Math.round(c * 10) / 10
const pairOf = (day: DayExtremes | undefined): [number, number] | null => (day ? [tenths(day.min), tenths(day.max)] : null)
const shown = ({ day, expected, daySd }: HeatStart): BenchData['start'] => ({ day, expected: expected ?? null, daySd: daySd ?? null })

/** Weather and model of an organism's season in pieces, and its past seasons with what was seen in a block. */
export async function benchData(deps: Deps, siteId: string, organismId: string, blockId: string | undefined): Promise<BenchData> {
  const db = deps.db
  const organism = await requireOrganism(db, siteId, organismId)
  const site = await getSite(db, deps.clock, siteId)
  const block = (await listBlocks(db, siteId)).find(({ id }) => id === blockId) ?? null
  const { pinned } = resolvedModel(organism, await listOwnFigures(db, siteId), block?.id ?? '')
  const season = site.season.start
  const firstDay = dayNumber(season)
  const weather = await (await weatherOfBlocks(deps, site, season))(block)
  const { hemisphere } = weather
  const temperatures = weather.place?.temperatures
  const startOf = (of: string, first: number, until: number): HeatStart => {
    const entered = biofixes.get(of)
    return heatStart(pinned, entered === undefined ? null : dayNumber(entered), { firstDay: first, today: until, hemisphere, temperatures })
  }
  const here = block ? { blockId: block.id, organismId } : null
  const records = here ? await listEventRecords(db, siteId, here) : []
  const biofixes = here ? await listBiofixes(db, siteId, here) : new Map<string, string>()
  const { observed, forecast, tails, length, todayIndex } = weather.weather
  const series = weather.place?.series
  const past = series
    ? knownPastYears(series, firstDay)
        .slice(0, PAST_SEASONS)
        .map((years) => {
          const first = seasonLater(firstDay, years)
          const end = seasonLater(first, 1)
          const then = seasonWeather({ series, firstDay: first, today: end })
          const name = civilDate(first)
          const seen = records.flatMap(({ event, season: of, kind, seenOn, lookedBefore }) => {
            if (of !== name || kind === 'catch') return []
            const from = lookedBefore ? dayNumber(lookedBefore) : dayNumber(seenOn) - 1
            return [{ event, day: (from + dayNumber(seenOn)) / 2 - first, kind }]
          })
          return {
            season: name,
            firstDay: first,
            days: then.observed.map(pairOf),
            start: shown(startOf(name, first, end)),
            seen,
          }
        })
    : []
  const { own: _, confidence: __, expectedConfidence: ___, ...model } = pinned
  return {
    model,
    season,
    weather: {
      firstDay,
      length,
      todayIndex,
      observed: observed.map(pairOf),
      forecast: forecast.map((member) => member.map(pairOf)),
      tails: tails.map(({ pastSeason, made, days }) => ({ pastSeason, made, days: days.map(pairOf) })),
    },
    start: shown(startOf(season, firstDay, firstDay + todayIndex)),
    past,
  }
}
