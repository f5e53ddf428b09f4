import type { BloomModel } from '../forecast/bloomDates.js'
import { heatStart } from '../forecast/heatStart.js'
import { dailyHeatNow } from '../forecast/placedModel.js'
import type { SeasonAtPlace } from '../forecast/seasonAtPlace.js'
import { resolveEvents } from '../phenology/model.js'
import { quantileSorted } from '../statistics/quantile.js'
import { seasonLater } from '../time/civilDays.js'
import { seasonHeat, type SeasonHeat } from '../weather/seasonHeat.js'
import { seasonWeather } from '../weather/seasonWeather.js'
import { seasonShift, sharedShiftSd, SHIFT_PRIOR_SD, type SeasonShift } from './seasonShift.js'

/** A plant of which blooms are written down. */
export interface BloomPlant extends BloomModel {
  id: string
}

/** A bloom as it was written down; days are day numbers. */
export interface BloomSighting {
  plantId: string
  event: string
  /** First day of its season. */
  season: number
  /** First and last day of the range in which it came; the same where the day is known. */
  seenFrom: number
  seenTo: number
  /** Looked for on that day, and not there yet. */
  notYet: boolean
}

/** A sighting on the scale of heat of its plant: what had come by the middle of its days, and how well that is known. */
export interface PlacedBloom<S extends BloomSighting = BloomSighting> {
  sighting: S
  heat: number
  datingSd: number
  /** Middle of its days, counted from the season's start. */
  day: number
  season: SeasonHeat
}

/** A bloom of this season that tells of its shift. */
export interface TellingBloom<S extends BloomSighting = BloomSighting> {
  sighting: S
  heat: number
  expected: number
  sd: number
  /** Seasons of the place's own that the expectation rests on. */
  ownYears: number
}

/** What the blooms of a place say of a season. */
export interface BloomEvidence<S extends BloomSighting = BloomSighting> {
  placed: PlacedBloom<S>[]
  used: TellingBloom<S>[]
  /** Undefined where nothing was seen this season. */
  shift: (SeasonShift & { days: number; blooms: number; notYet: number; priorOwn: boolean }) | undefined
}

/** Fewer seasons of its own say too little: then the library's figure is expected (from practice). */
const LEAST_OWN_YEARS = 3
/** Between visits people look about once a week; without a "not yet" this gap is taken (from practice). */
const USUAL_GAP_DAYS = 4
/** A longer gap says nothing more (from practice). */
const LONGEST_GAP_DAYS = 14
/** °C·d that no bloom is told better than, and beyond which a residual is an error of the notebook (from practice). */
const SMALLEST_SD = 4
const MOST_RESIDUAL = 60

/** The first of each season. */
export function firstBySeason<S extends BloomSighting>(placed: readonly PlacedBloom<S>[]): PlacedBloom<S>[] {
  const first = new Map<number, PlacedBloom<S>>()
  for (const one of placed) {
    const known = first.get(one.sighting.season)
    if (!known || one.day < known.day) first.set(one.sighting.season, one)
  }
  return [...first.values()]
}

const middle = (values: readonly number[]): number => quantileSorted(Float64Array.from(values).sort(), 0.5)
/** From the middle absolute deviation to a standard deviation of a normal distribution. */
const robustSd = (values: readonly number[]): number => 1.4826 * middle(values.map((value) => Math.abs(value - middle(values))))

/**
 * Sightings of a place on their plants' scales of heat. One whose plant is not known, whose start is not, or of whose season a day is
 * missing, has no place.
 *
 * @param today day number up to which this season is known
 */
export function placeBlooms<S extends BloomSighting>(
  plants: readonly BloomPlant[],
  sightings: readonly S[],
  at: SeasonAtPlace,
  today: number,
): PlacedBloom<S>[] {
  const { place, hemisphere } = at
  if (!place) return []
  const heats = new Map<string, SeasonHeat | undefined>()
  const heatOf = (plant: BloomPlant, season: number): SeasonHeat | undefined => {
    const key = `${season} ${JSON.stringify(plant.heat)} ${JSON.stringify(plant.biofix)}`
    if (heats.has(key)) return heats.get(key)
    const end = Math.min(seasonLater(season, 1), today)
    const then = season === at.weather.firstDay ? at.weather : seasonWeather({ series: place.series, firstDay: season, today: end })
    const start = heatStart(plant, null, { firstDay: season, today: end, hemisphere, temperatures: place.temperatures })
    const heat = start.how === 'none' || start.how === 'chill-expected' ? undefined : seasonHeat(then, plant.heat, start.day)
    const usable = heat && heat.missingDays.length === 0 ? heat : undefined
    heats.set(key, usable)
    return usable
  }
  return sightings.flatMap((sighting): PlacedBloom<S>[] => {
    const plant = plants.find(({ id }) => id === sighting.plantId)
    const season = plant && heatOf(plant, sighting.season)
    if (!season) return []
    const heatThrough = (day: number): number => season.median[Math.max(0, Math.min(season.median.length - 1, Math.floor(day)))] ?? 0
    const [from, to] = [sighting.seenFrom - sighting.season, sighting.seenTo - sighting.season]
    const looked = sightings
      .filter((s) => s.notYet && s.plantId === sighting.plantId && s.event === sighting.event && s.season === sighting.season)
      .flatMap((s) => (s.seenFrom < sighting.seenFrom ? [s.seenFrom - sighting.season] : []))
    const gap = sighting.notYet ? 0 : Math.max(to - from, Math.min(LONGEST_GAP_DAYS, from - Math.max(from - USUAL_GAP_DAYS, ...looked)))
    const day = sighting.notYet ? from : (from + to) / 2 - (to > from ? 0 : gap / 2)
    const width = Math.max(0, heatThrough(to) - heatThrough(Math.max(0, to - Math.max(1, gap))))
    return [{ sighting, heat: heatThrough(day), datingSd: width / Math.sqrt(12), day, season }]
  })
}

/** A bloom's heat as its own dates have it, on its plant's scale. */
export interface LearntBloom {
  event: string
  /** °C·d; the middle of the seasons, and how far the next may lie off. */
  heat: number
  heatSe: number
  seasons: number
}

/** What a place's own dates say of a plant's blooms, where three seasons or more were written down. */
export function learntBlooms(placed: readonly PlacedBloom[], plantId: string): LearntBloom[] {
  const own = placed.filter(({ sighting }) => sighting.plantId === plantId && !sighting.notYet)
  return [...new Set(own.map(({ sighting }) => sighting.event))].flatMap((event) => {
    const heats = firstBySeason(own.filter(({ sighting }) => sighting.event === event)).map(({ heat }) => heat)
    if (heats.length < LEAST_OWN_YEARS) return []
    const heatSe = Math.max(SMALLEST_SD, robustSd(heats)) * Math.sqrt(1 + 1 / heats.length)
    return [{ event, heat: middle(heats), heatSe, seasons: heats.length }]
  })
}

/**
 * What the blooms of a place say of the season at hand: each bloom's expectation from the place's own seasons, or from the library's
 * figure where these are fewer than three, and the shift that all of them share.
 */
export function bloomEvidence<S extends BloomSighting>(
  plants: readonly BloomPlant[],
  sightings: readonly S[],
  at: SeasonAtPlace,
  today: number,
): BloomEvidence<S> {
  const current = at.weather.firstDay
  const placed = placeBlooms(plants, sightings, at, today)
  const past = placed.filter(({ sighting }) => sighting.season !== current && !sighting.notYet)
  const of = (all: readonly PlacedBloom<S>[], plantId: string, event: string): PlacedBloom<S>[] =>
    all.filter(({ sighting }) => sighting.plantId === plantId && sighting.event === event)
  const expectedOf = (plant: BloomPlant, event: string): { heat: number; sd: number; ownYears: number } | undefined => {
    const own = firstBySeason(of(past, plant.id, event)).map(({ heat }) => heat)
    if (own.length >= LEAST_OWN_YEARS) return { heat: middle(own), sd: Math.max(SMALLEST_SD, robustSd(own)), ownYears: own.length }
    const model = plant.events.find(({ id }) => id === event)
    if (!model) return undefined
    const [resolved] = resolveEvents({ generations: [{ id: plant.id, reachableStages: [], events: [model] }] })
    return resolved && { heat: resolved.spread.median, sd: model.heatSe, ownYears: own.length }
  }
  const own = sharedShiftSd(residualsBySeason(past, plants, expectedOf))
  const prior = own ?? SHIFT_PRIOR_SD
  const now = placed.filter(({ sighting }) => sighting.season === current)
  const used = plants.flatMap((plant) =>
    plant.events.flatMap(({ id: event }): TellingBloom<S>[] => {
      const expected = expectedOf(plant, event)
      const all = of(now, plant.id, event)
      const seen = firstBySeason(all.filter(({ sighting }) => !sighting.notYet))[0]
      const one = seen ?? all.filter(({ sighting }) => sighting.notYet).sort((a, b) => b.day - a.day)[0]
      if (!expected || !one) return []
      // What a plant differs by from year to year is partly the shared shift itself; that part is not its own.
      const shared = expected.ownYears >= LEAST_OWN_YEARS ? prior ** 2 : 0
      const ownSd = Math.sqrt(Math.max(SMALLEST_SD ** 2, expected.sd ** 2 - shared))
      const sd = Math.hypot(ownSd, one.datingSd)
      return [{ sighting: one.sighting, heat: one.heat, expected: expected.heat, sd, ownYears: expected.ownYears }]
    }),
  )
  if (used.length === 0) return { placed, used, shift: undefined }
  const [seen, notYet] = [used.filter(({ sighting }) => !sighting.notYet), used.filter(({ sighting }) => sighting.notYet)]
  const shift = seasonShift(seen, notYet, prior)
  const daily = now[0] ? dailyHeatNow(now[0].season) : 0
  return {
    placed,
    used,
    shift: {
      ...shift,
      days: daily > 0 ? shift.heat / daily : 0,
      blooms: seen.length,
      notYet: notYet.length,
      priorOwn: own !== undefined,
    },
  }
}

/** How far each bloom of past seasons lay from what the place's own seasons expect of it, season by season. */
function residualsBySeason<S extends BloomSighting>(
  past: readonly PlacedBloom<S>[],
  plants: readonly BloomPlant[],
  expectedOf: (plant: BloomPlant, event: string) => { heat: number; ownYears: number } | undefined,
): number[][] {
  const residuals = new Map<number, number[]>()
  for (const { sighting, heat } of past) {
    const plant = plants.find(({ id }) => id === sighting.plantId)
    const expected = plant && expectedOf(plant, sighting.event)
    if (!expected || expected.ownYears < LEAST_OWN_YEARS) continue
    const off = Math.max(-MOST_RESIDUAL, Math.min(MOST_RESIDUAL, heat - expected.heat))
    residuals.set(sighting.season, [...(residuals.get(sighting.season) ?? []), off])
  }
  return [...residuals.values()]
}
