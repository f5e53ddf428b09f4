import type { BloomOverview, BloomRecord, BloomShift, Site } from '@bocado/contract'
import {
  dayNumber,
  resolveEvents,
  seasonHeat,
  seasonLater,
  seasonShift,
  seasonWeather,
  sharedShiftSd,
  SHIFT_PRIOR_SD,
  type SeasonHeat,
} from '@bocado/core'
import { indicatorModel, indicators, type Indicator } from '@bocado/library'
import type { Block } from '@bocado/contract'
import type { Deps } from '../http/route.js'
import { hemisphereOf } from '../sites/service.js'
import { startOf } from '../watches/start.js'
import { weatherOfBlocks, type BlockWeather } from '../weather/blockWeather.js'
import { bloomVersion, listBloomRecords } from './store.js'

/** Fewer seasons of its own say too little: then the library's figure is expected. */
const LEAST_OWN_YEARS = 3
/** Between visits people look about once a week; without a "not yet" this gap is taken. */
const USUAL_GAP_DAYS = 4
const SMALLEST_SD = 4

type UsedBloom = BloomOverview['stations'][number]['used'][number]

/** A record on the scale of heat of its plant: what had come by the middle of its days, and how well that is known. */
export interface PlacedBloom {
  record: BloomRecord
  heat: number
  datingSd: number
  /** Middle of its days, counted from the season's start. */
  day: number
  season: SeasonHeat
}

/** What one station's blooms say of the season. */
export interface StationBloom {
  stationId: string
  stationName: string
  shift: BloomShift | null
  used: UsedBloom[]
  placed: PlacedBloom[]
}

const eventOf = (plant: Indicator, event: string) => plant.events.find(({ id }) => id === event)

/** Blooms of a site on their scales of heat, station by station, with what they say of this season. */
export async function bloomEvidence(deps: Deps, site: Site, blocks: readonly Block[]): Promise<StationBloom[]> {
  const version = await bloomVersion(deps.db, site.id)
  const season = site.season.start
  const weatherOf = await weatherOfBlocks(deps, site, season)
  const main = await weatherOf(null)
  const followed = new Map<string, BlockWeather>()
  const stationOfBlock = new Map<string, string>()
  for (const block of blocks) {
    const weather = await weatherOf(block)
    // Under a cover nothing of the lane blooms by the same air.
    if (!weather.followed || weather.place?.covered) continue
    stationOfBlock.set(block.id, weather.followed.station.id)
    followed.set(weather.followed.station.id, weather)
  }
  if (main.followed) followed.set(main.followed.station.id, main)
  const key = `bloom ${site.id} ${version} ${site.today} ${[...followed.values()].map(({ key: k }) => k).join()}`
  const held = deps.memo.get(key, async () => {
    const records = await listBloomRecords(deps.db, site.id)
    return [...followed].map(([stationId, weather]) => {
      const own = records.filter(({ blockId }) => (blockId ? stationOfBlock.get(blockId) : main.followed?.station.id) === stationId)
      return stationBloom(stationId, weather, own, site)
    })
  })
  return held
}

function stationBloom(stationId: string, weather: BlockWeather, records: readonly BloomRecord[], site: Site): StationBloom {
  const stationName = weather.followed?.station.name ?? ''
  const placed = placedBlooms(weather, records, site)
  const current = site.season.start
  const past = placed.filter(({ record }) => record.season !== current && !record.notYet)
  const expected = (plant: Indicator, event: string): { heat: number; sd: number; ownYears: number } | undefined => {
    const entry = eventOf(plant, event)
    if (!entry) return undefined
    const own = firstByYear(past.filter(({ record }) => record.plantId === plant.id && record.event === event))
    if (own.length >= LEAST_OWN_YEARS)
      return {
        heat: median(own.map(({ heat }) => heat)),
        sd: Math.max(SMALLEST_SD, spread(own.map(({ heat }) => heat))),
        ownYears: own.length,
      }
    const [resolved] = resolveEvents({
      generations: [{ id: plant.id, reachableStages: [], events: indicatorModel(plant).events.filter(({ id }) => id === event) }],
    })
    return resolved ? { heat: resolved.spread.median, sd: entry.heatSe.value, ownYears: own.length } : undefined
  }
  const residuals = new Map<string, number[]>()
  for (const { record, heat } of past) {
    const plant = indicators.find(({ id }) => id === record.plantId)
    const e = plant && expected(plant, record.event)
    if (e && e.ownYears >= LEAST_OWN_YEARS) residuals.set(record.season, [...(residuals.get(record.season) ?? []), heat - e.heat])
  }
  const own = sharedShiftSd([...residuals.values()].map((values) => values.map((r) => Math.max(-60, Math.min(60, r)))))
  const prior = own ?? SHIFT_PRIOR_SD
  const used: UsedBloom[] = []
  for (const plant of indicators)
    for (const { id: event } of plant.events) {
      const e = expected(plant, event)
      const now = placed.filter(({ record }) => record.season === current && record.plantId === plant.id && record.event === event)
      const seen = firstByYear(now.filter(({ record }) => !record.notYet))[0]
      const notYet = now.filter(({ record }) => record.notYet).sort((a, b) => b.day - a.day)[0]
      const one = seen ?? notYet
      if (!e || !one) continue
      // What a plant differs by from year to year is partly the shared shift itself; that part is not its own.
      const ownSd = Math.sqrt(Math.max(SMALLEST_SD ** 2, e.sd ** 2 - (e.ownYears >= LEAST_OWN_YEARS ? prior ** 2 : 0)))
      used.push({
        recordId: one.record.id,
        plantId: plant.id,
        event: event as UsedBloom['event'],
        heat: one.heat,
        expected: e.heat,
        sd: Math.hypot(ownSd, one.datingSd),
        notYet: !seen,
        ownYears: e.ownYears,
      })
    }
  if (used.length === 0) return { stationId, stationName, shift: null, used, placed }
  const shift = seasonShift(
    used.filter(({ notYet }) => !notYet),
    used.filter(({ notYet }) => notYet),
    prior,
  )
  const daily = dailyHeatNow(placed.find(({ record }) => record.season === current)?.season)
  return {
    stationId,
    stationName,
    shift: {
      ...shift,
      days: daily > 0 ? shift.heat / daily : 0,
      blooms: used.filter(({ notYet }) => !notYet).length,
      notYet: used.filter(({ notYet }) => notYet).length,
      priorOwn: own !== undefined,
    },
    used,
    placed,
  }
}

/** °C·d a day in these weeks, of the median member. */
function dailyHeatNow(season: SeasonHeat | undefined): number {
  if (!season) return 0
  const to = Math.min(season.median.length - 1, season.todayIndex + 7)
  const from = Math.max(0, to - 21)
  return ((season.median[to] ?? 0) - (season.median[from] ?? 0)) / Math.max(1, to - from)
}

function placedBlooms(weather: BlockWeather, records: readonly BloomRecord[], site: Site): PlacedBloom[] {
  const { place } = weather
  if (!place) return []
  const hemisphere = hemisphereOf(site)
  const heats = new Map<string, SeasonHeat | undefined>()
  const heatOf = (plant: Indicator, season: string): SeasonHeat | undefined => {
    const key = `${season} ${JSON.stringify(plant.heat)} ${JSON.stringify(plant.biofix)}`
    if (heats.has(key)) return heats.get(key)
    const firstDay = dayNumber(season)
    const today = dayNumber(site.today)
    const end = Math.min(seasonLater(firstDay, 1), today)
    const then = season === site.season.start ? weather.weather : seasonWeather({ series: place.series, firstDay, today: end })
    const model = indicatorModel(plant)
    const start = startOf(model, null, { ...weather, weather: then }, end, hemisphere)
    const heat = start.how === 'none' || start.how === 'chill-expected' ? undefined : seasonHeat(then, model.heat, start.day)
    const usable = heat && heat.missingDays.length === 0 ? heat : undefined
    heats.set(key, usable)
    return usable
  }
  return records.flatMap((record): PlacedBloom[] => {
    const plant = indicators.find(({ id }) => id === record.plantId)
    const season = plant && heatOf(plant, record.season)
    if (!season) return []
    const first = dayNumber(record.season)
    const at = (day: number): number => season.median[Math.max(0, Math.min(season.median.length - 1, Math.floor(day)))] ?? 0
    const [from, to] = [dayNumber(record.seenFrom) - first, dayNumber(record.seenTo) - first]
    const looked = records
      .filter(
        (r) =>
          r.notYet &&
          r.plantId === record.plantId &&
          r.event === record.event &&
          r.season === record.season &&
          r.seenFrom < record.seenFrom,
      )
      .map((r) => dayNumber(r.seenFrom) - first)
    const gap = record.notYet ? 0 : Math.max(to - from, Math.min(14, from - Math.max(from - USUAL_GAP_DAYS, ...looked)))
    const day = record.notYet ? from : (from + to) / 2 - (to > from ? 0 : gap / 2)
    const width = Math.max(0, at(to) - at(Math.max(0, to - Math.max(1, gap))))
    return [{ record, heat: at(day), datingSd: width / Math.sqrt(12), day, season }]
  })
}

/** The first of each season. */
export function firstByYear(placed: readonly PlacedBloom[]): PlacedBloom[] {
  const first = new Map<string, PlacedBloom>()
  for (const one of placed) {
    const known = first.get(one.record.season)
    if (!known || one.day < known.day) first.set(one.record.season, one)
  }
  return [...first.values()]
}

const median = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b)
  const half = sorted.length >> 1
  return sorted.length % 2 ? (sorted[half] as number) : ((sorted[half - 1] as number) + (sorted[half] as number)) / 2
}
/** Robust standard deviation. */
const spread = (values: readonly number[]): number => 1.4826 * median(values.map((v) => Math.abs(v - median(values))))
