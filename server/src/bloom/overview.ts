import type { BloomOverview } from '@bocado/contract'
import { bloomDates, civilDate, clockDates, dayNumber, learntBlooms } from '@bocado/core'
import { indicators } from '@bocado/library'
import { listBlocks } from '../blocks/store.js'
import type { Deps } from '../http/route.js'
import { routePlants } from '../library/route.js'
import { getSite } from '../sites/service.js'
import { dateBounds } from '../watches/bounds.js'
import { keepBeside } from '../watches/forecast.js'
import { weatherOfBlocks } from '../weather/groundWeather.js'
import { bloomPlants, bloomsByStation } from './evidence.js'
import { OWN_EVENTS, OWN_LOWER, ownPlants } from './plants.js'
import { listBloomRecords } from './store.js'
import { listTriggers } from './triggers.js'

const LOOK_AHEAD_DAYS = 14
const OVERDUE_DAYS = 3
/** Weeks from 1 March to 31 October, in which enemies of pests need nectar. */
const NECTAR_FROM = 59
const NECTAR_UNTIL = 304

/** What blooms so far say of the season, what to look for these weeks, and where nectar is missing. */
export async function bloomOverview(deps: Deps, siteId: string): Promise<BloomOverview> {
  const db = deps.db
  const site = await getSite(db, deps.clock, siteId)
  const blocks = await listBlocks(db, siteId)
  const evidence = await bloomsByStation(deps, site, blocks)
  const [route, records] = await Promise.all([routePlants(db, siteId), listBloomRecords(db, siteId)])
  const main = await (await weatherOfBlocks(deps, site, site.season.start))(null)
  const shift = evidence.find(({ stationId }) => stationId === main.followed?.station.id)?.shift ?? null
  const firstDay = dayNumber(site.season.start)
  const today = dayNumber(site.today) - firstDay
  const own = await ownPlants(db, siteId)
  const placed = evidence.find(({ stationId }) => stationId === main.followed?.station.id)?.placed ?? []
  const expected: ExpectedBloom[] = [
    ...indicators.flatMap((plant): ExpectedBloom[] => {
      const model = bloomPlants.find(({ id }) => id === plant.id)
      const dates = model && bloomDates(model, main, dayNumber(site.today), shift ?? undefined, keepBeside(main, deps.memo))
      return plant.events.flatMap(({ id, name }, i) => {
        const date = dates?.[i]
        return date ? [{ plant, event: id, eventName: name, date: dateBounds(date) }] : []
      })
    }),
    ...own.flatMap((plant): ExpectedBloom[] => {
      const known = { id: plant.plantId, name: plant.name, events: OWN_EVENTS }
      return learntBlooms(placed, plant.plantId).flatMap(({ event, heat, heatSe, seasons }) => {
        const date = clockDates({ lower: OWN_LOWER, heat, heatSe, df: seasons - 1 }, main, keepBeside(main, deps.memo))
        const named = OWN_EVENTS.find(({ id }) => id === event)
        return date && named ? [{ plant: known, event: named.id, eventName: named.name, date: dateBounds(date) }] : []
      })
    }),
  ]
  const mine = new Set(own.map(({ plantId }) => plantId))
  const onRoute = (plantId: string): boolean => mine.has(plantId) || route.length === 0 || route.some((r) => r.plantId === plantId)
  const season = records.filter((r) => r.season === site.season.start)
  const ahead = expected.flatMap(({ plant, event, eventName, date }) => {
    if (!onRoute(plant.id) || date.p50 === null) return []
    const own = season.filter((r) => r.plantId === plant.id && r.event === event)
    if (own.some(({ notYet }) => !notYet)) return []
    // What ended or stands in full bloom needs no word about its first flower.
    const later = plant.events.slice(plant.events.findIndex(({ id }) => id === event) + 1).map(({ id }) => id as string)
    if (season.some((r) => !r.notYet && r.plantId === plant.id && later.includes(r.event))) return []
    const overdue = (date.p90 ?? date.p50) < today - OVERDUE_DAYS
    if (!overdue && date.p50 > today + LOOK_AHEAD_DAYS) return []
    if (date.p50 < today - 45) return []
    const looked =
      own
        .filter(({ notYet }) => notYet)
        .map(({ seenFrom }) => seenFrom)
        .sort()
        .at(-1) ?? null
    const place = route.find((r) => r.plantId === plant.id)?.place ?? ''
    return [{ plantId: plant.id, name: plant.name, event, eventName, place, date, overdue, lastLooked: looked }]
  })
  return {
    stations: evidence.map(({ stationId, stationName, shift: s, used }) => ({ stationId, stationName, shift: s, used })),
    ahead: ahead.sort((a, b) => Number(b.overdue) - Number(a.overdue) || (a.date.p50 ?? 0) - (b.date.p50 ?? 0)),
    triggers: await listTriggers(db, site, records),
    gaps: gapsOf(expected, onRoute, site.season.start),
  }
}

/** A bloom with the days on which it is expected. */
interface ExpectedBloom {
  plant: { id: string; name: string; events: readonly { id: string }[] }
  event: BloomOverview['ahead'][number]['event']
  eventName: string
  date: ReturnType<typeof dateBounds>
}

interface Expected {
  plant: { id: string; name: string }
  event: string
  date: { p50: number | null }
}

/** Weeks in which nothing of the route blooms, with library plants whose bloom would fill them. */
function gapsOf(expected: readonly Expected[], onRoute: (id: string) => boolean, season: string): BloomOverview['gaps'] {
  const spans = new Map<string, { name: string; from: number; to: number }>()
  for (const { plant, event, date } of expected) {
    const span = spans.get(plant.id) ?? { name: plant.name, from: NaN, to: NaN }
    if (event === 'first-open' && date.p50 !== null) span.from = date.p50
    if (event === 'end' && date.p50 !== null) span.to = date.p50
    spans.set(plant.id, span)
  }
  const blooming = (day: number, mine: boolean): string[] =>
    [...spans].filter(([id, { from, to }]) => onRoute(id) === mine && from <= day && day <= to).map(([, { name }]) => name)
  const start = dayNumber(season)
  const gaps: BloomOverview['gaps'] = []
  for (let week = NECTAR_FROM; week + 7 <= NECTAR_UNTIL; week += 7) {
    const days = Array.from({ length: 7 }, (_, d) => week + d)
    if (days.some((day) => blooming(day, true).length > 0)) continue
    const fill = [...new Set(days.flatMap((day) => blooming(day, false)))]
    const last = gaps.at(-1)
    const from = civilDate(start + week)
    if (last && dayNumber(last.to) + 1 === start + week) {
      last.to = civilDate(start + week + 6)
      last.fill = [...new Set([...last.fill, ...fill])]
    } else gaps.push({ from, to: civilDate(start + week + 6), fill })
  }
  return gaps
}
