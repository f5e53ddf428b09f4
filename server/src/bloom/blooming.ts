import type { Blooming, BloomRecord } from '@bocado/contract'
import {
  bloomDates,
  civilDate,
  clockDates,
  dayNumber,
  flowerSpan,
  learntBlooms,
  mayFlowerOn,
  type Bounds,
  type FlowerSpan,
} from '@bocado/core'
import { indicators } from '@bocado/library'
import { listBlocks } from '../blocks/store.js'
import { HttpProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { cropsInFlower } from '../crops/service.js'
import { routePlants } from '../library/route.js'
import { getSite } from '../sites/service.js'
import { keepBeside } from '../watches/forecast.js'
import { weatherOfBlocks, type GroundWeather } from '../weather/groundWeather.js'
import { bloomPlants, bloomsByStation, type StationBloom } from './evidence.js'
import { OWN_LOWER, ownPlants } from './plants.js'
import { listBloomRecords } from './store.js'

interface Flowering extends FlowerSpan {
  plantId: string
  name: string
}

/** Days on which a library plant is expected to open and to end, the earlier and the later bound; days of the season. */
function expectedOfLibrary(
  plantId: string,
  at: GroundWeather,
  deps: Deps,
  station: StationBloom | undefined,
): { from: number | null; until: number | null } {
  const model = bloomPlants.find(({ id }) => id === plantId)
  const dates = model && bloomDates(model, at, at.today, station?.shift ?? undefined, keepBeside(at, deps.memo))
  const of = (event: string): Bounds | undefined =>
    dates?.[indicators.find(({ id }) => id === plantId)?.events.findIndex(({ id }) => id === event) ?? -1]
  return { from: finite(of('first-open')?.p10), until: finite(of('end')?.p90) }
}

/** The same of a plant of the site's own, by what its dates have taught. */
function expectedOfOwn(
  plantId: string,
  at: GroundWeather,
  deps: Deps,
  station: StationBloom | undefined,
): { from: number | null; until: number | null } {
  const learnt = learntBlooms(station?.placed ?? [], plantId)
  const of = (event: string): Bounds | undefined => {
    const found = learnt.find((one) => one.event === event)
    return (
      found &&
      clockDates({ lower: OWN_LOWER, heat: found.heat, heatSe: found.heatSe, df: found.seasons - 1 }, at, keepBeside(at, deps.memo))
    )
  }
  return { from: finite((of('first-open') ?? of('full-bloom'))?.p10), until: finite(of('end')?.p90) }
}

const finite = (value: number | undefined): number | null => (value !== undefined && Number.isFinite(value) ? value : null)

const IN_FLOWER: readonly BloomRecord['event'][] = ['first-open', 'full-bloom']

/** What flowers in or beside a block this season, as far as somebody has said that it grows there: plants of the log, and crops. */
async function floweringIn(deps: Deps, siteId: string, blockId: string): Promise<Flowering[]> {
  return (await floweringOf(deps, siteId))(blockId)
}

/** The same for any block of a site: what all have in common is worked out once. */
async function floweringOf(deps: Deps, siteId: string): Promise<(blockId: string) => Promise<Flowering[]>> {
  const { db, clock } = deps
  const site = await getSite(db, clock, siteId)
  const blocks = await listBlocks(db, siteId)
  const [route, own, records] = await Promise.all([routePlants(db, siteId), ownPlants(db, siteId), listBloomRecords(db, siteId)])
  const once = <T>(make: () => Promise<T>): (() => Promise<T>) => {
    let made: Promise<T> | undefined
    return () => (made ??= make())
  }
  // Where nothing of the log grows, nobody needs them.
  const weatherOf = once(() => weatherOfBlocks(deps, site, site.season.start))
  const stations = once(() => bloomsByStation(deps, site, blocks))
  return async (blockId) => {
    const block = blocks.find(({ id }) => id === blockId)
    if (!block) throw new HttpProblem(404, 'There is no such block at this site.')
    const here = [
      ...route
        .filter((plant) => plant.blockId === blockId)
        .map(({ plantId }) => ({ plantId, name: indicators.find(({ id }) => id === plantId)?.name ?? plantId, own: false })),
      ...own.filter((plant) => plant.blockId === blockId).map(({ plantId, name }) => ({ plantId, name, own: true })),
    ]
    const planted = await cropsInFlower(deps, siteId, blockId)
    if (here.length === 0) return planted
    const at = await (await weatherOf())(block)
    const station = (await stations()).find(({ stationId }) => stationId === at.followed?.station.id)
    const firstDay = dayNumber(site.season.start)
    const written = here.map(({ plantId, name, own: isOwn }): Flowering => {
      const seen = records.filter(
        (r) => r.plantId === plantId && r.season === site.season.start && !r.notYet && (r.blockId === null || r.blockId === blockId),
      )
      const first = (events: readonly string[]): number | null => {
        const days = seen.filter(({ event }) => events.includes(event)).map(({ seenFrom }) => dayNumber(seenFrom))
        return days.length > 0 ? Math.min(...days) : null
      }
      const expected = (isOwn ? expectedOfOwn : expectedOfLibrary)(plantId, at, deps, station)
      const on = (day: number | null): number | null => (day === null ? null : firstDay + Math.floor(day))
      return {
        plantId,
        name,
        ...flowerSpan({ opened: first(IN_FLOWER), ended: first(['end']) }, { from: on(expected.from), until: on(expected.until) }),
      }
    })
    // The same plant may be told of by the log and by the calendar of the crop: what is known counts, and of two that are known both.
    const known = new Set([...written, ...planted].flatMap(({ name, how }) => (how === 'unknown' ? [] : [name])))
    return [...written, ...planted].filter(({ name, how }) => how !== 'unknown' || !known.has(name))
  }
}

/** What flowers in or beside a block this season, and when. */
export const blooming = async (deps: Deps, siteId: string, blockId: string): Promise<Blooming[]> =>
  (await floweringIn(deps, siteId, blockId)).map(told)

/** The same of all blocks of a site, each with its id. */
export async function bloomingBySite(deps: Deps, siteId: string): Promise<{ blockId: string; flowers: Blooming[] }[]> {
  const flowering = await floweringOf(deps, siteId)
  const blocks = await listBlocks(deps.db, siteId)
  return Promise.all(blocks.map(async ({ id }) => ({ blockId: id, flowers: (await flowering(id)).map(told) })))
}

const told = ({ plantId, name, from, until, how }: Flowering): Blooming => ({
  plantId,
  name,
  from: from === null ? null : civilDate(from),
  until: until === null ? null : civilDate(until),
  how,
})

/** Names of what may be in flower in or beside a block on a day. */
export async function inFlowerOn(deps: Deps, siteId: string, blockId: string, day: string): Promise<string[]> {
  const all = await floweringIn(deps, siteId, blockId)
  return all.filter((plant) => mayFlowerOn(plant, dayNumber(day)) === true).map(({ name }) => name)
}

/** The same of several days, given by their numbers. */
export async function inFlowerOnDays(deps: Deps, siteId: string, blockId: string, days: readonly number[]): Promise<string[][]> {
  const all = await floweringIn(deps, siteId, blockId)
  return days.map((day) => all.filter((plant) => mayFlowerOn(plant, day) === true).map(({ name }) => name))
}

/**
 * Names of what may be in flower in or beside a block so many days after a sign: by the day of the sign where it was seen, or by when it is
 * expected. A plant that is its own sign is judged by that day as well.
 */
export async function floweringAfter(
  deps: Deps,
  siteId: string,
  blockId: string,
  { plantId, input: { event, daysAfter } }: { plantId: string; input: { event: string; daysAfter: number } },
): Promise<string[]> {
  const day = await dayOfSign(deps, siteId, plantId, event)
  const all = await floweringIn(deps, siteId, blockId)
  // Nobody knows when: then whatever flowers there may.
  if (day === null) return all.map(({ name }) => name)
  return all.filter((plant) => mayFlowerOn(plant, day + daysAfter) === true).map(({ name }) => name)
}

/** Day number on which a sign came this season, or is expected; null where neither is known. */
async function dayOfSign(deps: Deps, siteId: string, plantId: string, event: string): Promise<number | null> {
  const site = await getSite(deps.db, deps.clock, siteId)
  const records = await listBloomRecords(deps.db, siteId)
  const seen = records
    .filter((r) => r.plantId === plantId && r.event === event && r.season === site.season.start && !r.notYet)
    .map(({ seenFrom }) => dayNumber(seenFrom))
  if (seen.length > 0) return Math.min(...seen)
  const main = await (await weatherOfBlocks(deps, site, site.season.start))(null)
  const plant = indicators.find(({ id }) => id === plantId)
  const model = bloomPlants.find(({ id }) => id === plantId)
  const dates = plant && model && bloomDates(model, main, main.today, undefined, keepBeside(main, deps.memo))
  const day = dates?.[plant?.events.findIndex(({ id }) => id === event) ?? -1]?.p50
  return day !== undefined && Number.isFinite(day) ? dayNumber(site.season.start) + Math.floor(day) : null
}
