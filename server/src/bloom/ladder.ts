import type { Ladder } from '@bocado/contract'
import { dayNumber, firstBySeason, heatFrom, rankIndicator, type IndicatorYear, type PlacedBloom } from '@bocado/core'
import { datedEvents, findOrganism, indicators } from '@bocado/library'
import { listBlocks } from '../blocks/store.js'
import type { Deps } from '../http/route.js'
import { getSite } from '../sites/service.js'
import { listSightings } from '../watches/eventRecords.js'
import { keepBeside } from '../watches/forecast.js'
import { getBand } from '../watches/band.js'
import { listWatches, organismOf } from '../watches/store.js'
import { weatherOfBlocks } from '../weather/groundWeather.js'
import { bloomsByStation, type Sighting } from './evidence.js'
import { knownPlants, type KnownPlant } from './plants.js'

/** The scale of the ladder: the rule by which bloom plants without a chill count. */
const REFERENCE = { heat: { method: 'single-sine' as const, lower: 10 } }
const INDICATORS_SHOWN = 12
const BY_LIBRARY_SHOWN = 5

type Pest = Ladder['pests'][number]

/** Cumulative heat of past seasons by day, by the season's first day. */
type Curves = ReadonlyMap<string, ArrayLike<number>>

interface BloomOfYears extends Omit<Ladder['blooms'][number], 'dots'> {
  years: { season: string; heat: number; day: number }[]
}

const heatOn = (curves: Curves, season: string, day: number): number | undefined => curves.get(season)?.[Math.max(0, Math.floor(day))]

/** Every bloom that was seen in any year, on one scale of heat. */
function bloomsOf(plants: readonly KnownPlant[], placed: readonly PlacedBloom<Sighting>[], curves: Curves): BloomOfYears[] {
  return plants.flatMap((plant) =>
    plant.events.flatMap((event) => {
      const seen = placed.filter(({ sighting }) => sighting.plantId === plant.id && sighting.event === event.id)
      const years = firstBySeason(seen).flatMap(({ sighting, day }) => {
        const { season } = sighting.record
        const heat = heatOn(curves, season, day)
        return heat === undefined ? [] : [{ season, heat, day }]
      })
      if (years.length === 0) return []
      const { id: plantId } = plant
      return [{ plantId, event: event.id, name: `${plant.name}, ${event.name}`, expected: expectedHeat(plantId, event.id), years }]
    }),
  )
}

/** The library's heat of a bloom; null for a plant of the site's own. */
const expectedHeat = (plantId: string, event: string): number | null =>
  indicators.find(({ id }) => id === plantId)?.events.find(({ id }) => id === event)?.heat.value ?? null

/** How well each bloom foretold an event of a pest in the years of which both are known; the best first. */
function indicatorsOf(dots: Pest['dots'], blooms: readonly BloomOfYears[], curves: Curves): Pest['indicators'] {
  const ranked = blooms.flatMap(({ plantId, event, name, years }) => {
    const both = dots.flatMap((dot): IndicatorYear[] => {
      const bloom = years.find(({ season }) => season === dot.season)
      const cumulative = curves.get(dot.season)
      return bloom && cumulative && bloom.day <= dot.day
        ? [{ eventHeat: dot.heat, bloomHeat: bloom.heat, eventDay: dot.day, bloomDay: bloom.day, cumulative }]
        : []
    })
    const rank = rankIndicator(both)
    if (!rank) return []
    const { leadHeat, leadDays, spread, error, byHeat, byCalendar, better, years: n } = rank
    return [
      {
        plantId,
        event,
        name,
        leadHeat,
        leadDays,
        spread,
        error,
        errorByHeat: byHeat.error,
        errorByCalendar: byCalendar.error,
        better,
        years: n,
      },
    ]
  })
  return ranked.sort((a, b) => a.error - b.error || a.leadDays - b.leadDays).slice(0, INDICATORS_SHOWN)
}

/** Blooms and events of pests in all years on one scale of heat, and which bloom foretells which event. */
export async function bloomLadder(deps: Deps, siteId: string): Promise<Ladder> {
  const db = deps.db
  const site = await getSite(db, deps.clock, siteId)
  const { start } = site.season
  const [evidence, main, watches, band, sightings] = await Promise.all([
    listBlocks(db, siteId).then((blocks) => bloomsByStation(deps, site, blocks)),
    weatherOfBlocks(deps, site, start).then((of) => of(null)),
    listWatches(db, siteId, start),
    getBand(deps, siteId, start),
    listSightings(db, siteId),
  ])
  const station = evidence.find(({ stationId }) => stationId === main.followed?.station.id)
  const placed = (station?.placed ?? []).filter(({ sighting }) => !sighting.notYet)
  // One scale for all: heat as plants without a chill of their own count it from the season's start.
  const plants = await knownPlants(db, siteId)
  const chilled = new Set(indicators.filter(({ biofix }) => biofix.kind !== 'date').map(({ id }) => id))
  const curves: Curves = new Map(
    placed.filter(({ sighting }) => !chilled.has(sighting.plantId)).map(({ sighting, season }) => [sighting.record.season, season.median]),
  )
  const blooms = bloomsOf(plants, placed, curves)
  // Heat of this season on the scale of the blooms, as far as weather is known and expected.
  const reference = main.weather.observed.length > 0 ? heatFrom(main, REFERENCE, dayNumber(start), keepBeside(main, deps.memo)) : undefined

  const pests = watches.flatMap((watch): Pest[] => {
    const organism = findOrganism(watch.organismId) ?? organismOf(watch)
    const seen = sightings.filter((s) => s.blockId === watch.blockId && s.organismId === watch.organismId)
    const stated = band.watches.find((f) => f.watch.id === watch.id)
    const forecast = stated?.grade === 'dates' ? stated : undefined
    // What was seen, and otherwise what opens the first window.
    const opening = forecast?.events.find((e) => forecast.generations[0]?.reachableStages.includes(e.stage))?.id
    return [...new Set([...seen.map((s) => s.event), ...(opening ? [opening] : [])])].flatMap((event): Pest[] => {
      const dots = seen
        .filter((s) => s.event === event)
        .flatMap(({ season, lookedBefore, seenOn }) => {
          const day = (dayNumber(lookedBefore ?? seenOn) + dayNumber(seenOn)) / 2 - dayNumber(season)
          const heat = heatOn(curves, season, day)
          return heat === undefined ? [] : [{ season, heat, day }]
        })
      const begins =
        forecast?.events.find(({ id }) => id === event)?.dates.begins.p50 ??
        stated?.named.find(({ id }) => id === event)?.clock?.date.p50 ??
        null
      if (dots.length === 0 && begins === null) return []
      const foretold = indicatorsOf(dots, blooms, curves)
      return [
        {
          organismId: watch.organismId,
          blockId: watch.blockId,
          event,
          name: datedEvents(organism).find(({ id }) => id === event)?.name ?? event,
          organismName: organism.name,
          dots,
          expected: begins === null ? null : { heat: reference?.median[Math.floor(begins)] ?? 0, day: begins },
          byLibrary: foretold.length > 0 || begins === null ? [] : bloomsBefore(band.blooms, begins),
          indicators: foretold,
        },
      ]
    })
  })
  // What can be foretold from own years stands first.
  pests.sort((a, b) => b.indicators.length - a.indicators.length || b.dots.length - a.dots.length)
  return { blooms: blooms.map(({ years, ...bloom }) => ({ ...bloom, dots: years })), pests }
}

/** Blooms that the library and this season's weather put before a day of the season, nearest first. */
function bloomsBefore(blooms: Awaited<ReturnType<typeof getBand>>['blooms'], day: number): Pest['byLibrary'] {
  return blooms
    .flatMap(({ name, eventName, date }) =>
      date.p50 !== null && date.p50 < day ? [{ name: `${name}, ${eventName}`, leadDays: day - date.p50 }] : [],
    )
    .sort((a, b) => a.leadDays - b.leadDays)
    .slice(0, BY_LIBRARY_SHOWN)
}
