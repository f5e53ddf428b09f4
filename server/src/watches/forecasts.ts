import type { Site } from '@bocado/contract'
import { civilDate, dayNumber, LEAD_DAYS } from '@bocado/core'
import { listBlocks } from '../blocks/store.js'
import { listWetEvents } from '../blocks/wetEvents.js'
import { sourcesNear } from '../around/service.js'
import { bloomsByStation, type StationBloom } from '../bloom/evidence.js'
import type { Deps } from '../http/route.js'
import { weatherOfBlocks, type GroundWeather } from '../weather/groundWeather.js'
import { listRounds } from '../scouting/service.js'
import { listTreatments } from '../treatments/store.js'
import { clocksOf, listClocks } from './clocks.js'
import type { KeptForecast } from './derived.js'
import { diseaseRecords, type SeasonRecords } from './disease.js'
import { listSightings } from './eventRecords.js'
import { forecastWatch, type StationPush } from './forecast.js'
import { hashOf } from './models.js'
import { entryKey, listWatches, organismOf, type StoredWatch } from './store.js'

/** A forecast of a watch that can be made, with what it rests on. */
export interface MakeableForecast {
  watch: StoredWatch
  weather: GroundWeather
  bloom: StationPush | undefined
  /** Of everything that it rests on, with versions: as long as it is the same, so is the forecast. */
  keyHash: string
  make: () => KeptForecast
}

/**
 * The forecasts of the watches of a season. Nothing of them is computed yet but what tells whether they have to be.
 *
 * @param only those of these watches; all without it
 */
export async function makeableForecasts(deps: Deps, site: Site, season: string, only?: ReadonlySet<string>): Promise<MakeableForecast[]> {
  const { db, memo } = deps
  const stored = (await listWatches(db, site.id, season)).filter(({ id }) => !only || only.has(id))
  if (stored.length === 0) return []
  const [blocks, wetEvents, allClocks] = await Promise.all([
    listBlocks(db, site.id),
    listWetEvents(db, site.id, civilDate(dayNumber(season) - LEAD_DAYS)),
    listClocks(db, site.id),
  ])
  const records = await seasonRecords(deps, site.id, season, stored)
  const weatherOf = await weatherOfBlocks(deps, site, season)
  const evidence = season === site.season.start ? await bloomsByStation(deps, site, blocks) : []
  const near = season === site.season.start ? await sourcesNear(db, site) : new Map<string, never>()
  const found: MakeableForecast[] = []
  for (const watch of stored) {
    const block = blocks.find(({ id }) => id === watch.blockId)
    if (!block) continue
    const weather = await weatherOf(block)
    const organism = organismOf(watch)
    const events = wetEvents.filter(({ blockId }) => blockId === block.id)
    const clocks = clocksOf(allClocks, watch)
    const sourceNear = organism.infection ? near.get(organism.id) : undefined
    const disease = diseaseRecords(watch, organism, records, events, weather.utcOffsetMinutes, sourceNear !== undefined)
    const seen = seenFirst(watch, organism, records.sightings)
    const versions = [watch, block, ...events, ...clocks].map(({ id, rowVersion }) => `${id}@${rowVersion}`).join()
    const bloom = bloomPush(watch, weather, evidence)
    const key = `forecast ${weather.key} ${versions} ${watch.modelHash} ${entryKey(watch)} ${organism.version} ${weather.hemisphere} ${bloom ? JSON.stringify(bloom) : ''} ${disease ? JSON.stringify(disease) : ''} ${JSON.stringify(seen)} ${JSON.stringify(sourceNear ?? null)}`
    const make = (): KeptForecast => ({
      forecast: forecastWatch({
        watch,
        organism,
        block: weather,
        ground: block,
        wetEvents: events,
        memo,
        bloom,
        clocks,
        disease,
        seen,
        sourceNear,
      }),
      rain: rainOf(weather),
    })
    found.push({ watch, weather, bloom, keyHash: hashOf(key), make: () => memo.get(key, make) })
  }
  return found
}

/** What was seen in a season; what was done and counted only where a disease is watched. */
async function seasonRecords({ db }: Deps, siteId: string, season: string, watches: readonly StoredWatch[]): Promise<SeasonRecords> {
  const sightings = await listSightings(db, siteId)
  if (!watches.some((watch) => organismOf(watch).infection)) return { treatments: [], rounds: [], sightings }
  const [treatments, rounds] = await Promise.all([listTreatments(db, siteId, season), listRounds(db, siteId, season)])
  return { treatments, rounds, sightings }
}

/** The first day of each event that a published sum of heat waits for, as it was seen in the block this season. */
function seenFirst(
  watch: StoredWatch,
  { named }: ReturnType<typeof organismOf>,
  sightings: SeasonRecords['sightings'],
): { event: string; day: string }[] {
  const awaited = new Set(named.flatMap(({ figure }) => (figure && 'after' in figure.from ? [figure.from.after] : [])))
  return [...awaited].flatMap((event) => {
    const days = sightings
      .filter((s) => s.season === watch.season && s.blockId === watch.blockId && s.organismId === watch.organismId && s.event === event)
      .filter(({ kind }) => kind === 'first')
      .map(({ seenOn }) => seenOn)
      .sort()
    return days[0] === undefined ? [] : [{ event, day: days[0] }]
  })
}

/** mm of rain by day of the season up to yesterday. */
function rainOf({ place, weather: { firstDay, todayIndex } }: GroundWeather): (number | null)[] {
  if (!place) return []
  return Array.from({ length: todayIndex }, (_, i) => place.rain.get(firstDay + i) ?? null)
}

/** What the blooms of a watch's station say of the season, where the watch follows them. */
export function bloomPush(watch: StoredWatch, weather: GroundWeather, evidence: readonly StationBloom[]): StationPush | undefined {
  if (!watch.followsBloom) return undefined
  const shift = evidence.find(({ stationId }) => stationId === weather.followed?.station.id)?.shift
  if (!shift) return undefined
  const { heat, sd, prior, days, blooms, held } = shift
  return { heat, sd, prior, days, blooms, held }
}
