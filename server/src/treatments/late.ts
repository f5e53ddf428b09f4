import type { Block, Late, Site } from '@bocado/contract'
import { civilDate, cropCalendar, dayNumber, firstFrost, ownWeight, ripens, seasonLater, type DailySeries } from '@bocado/core'
import { crops, findCrop } from '@bocado/library'
import { getBlock } from '../blocks/service.js'
import { listPlantings } from '../crops/store.js'
import type { Queryable } from '../database/index.js'
import { listHarvests } from '../harvests/store.js'
import { HttpProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { isOneGround, tree } from '../places/store.js'
import { getSite } from '../sites/service.js'
import { findWatch } from '../watches/store.js'
import { placeDays } from '../weather/place.js'
import { getStation } from '../weather/stations.js'

/** Summer is over so many days after the season began: frosts before are those of spring. */
const SUMMER_OVER_DAYS = 200

/** What may still be saved in the block of a watch: by its own weights, by frost, and by what would still ripen there. */
export async function lateOf(deps: Deps, siteId: string, watchId: string): Promise<Late> {
  const watch = await findWatch(deps.db, siteId, watchId)
  if (!watch) throw new HttpProblem(404, 'There is no such watch at this site.')
  const block = await getBlock(deps.db, siteId, watch.blockId)
  const site = await getSite(deps.db, deps.clock, siteId)
  const begin = dayNumber(site.season.start)
  const frost = block.follows ? await frostAt(deps, site, block, block.follows.stationId, begin) : null
  const there = await standing(deps.db, siteId, block.id, site.today)
  const places = await tree(deps.db, siteId)
  const picked = (await listHarvests(deps.db, siteId, site.season.start)).filter(({ placeId }) => isOneGround(places, placeId, block.id))
  return {
    ownWeightKg: ownWeight(picked),
    frost: frost && {
      early: civilDate(begin + frost.early),
      usual: civilDate(begin + frost.usual),
      seasons: frost.seasons,
    },
    replace: replacements(there, dayNumber(site.today) - begin, frost).map(({ from, until, ...rest }) => ({
      ...rest,
      from: civilDate(begin + from),
      until: civilDate(begin + until),
    })),
  }
}

/** First frosts of autumn at a block, over the past seasons of its station whose autumn is known. */
async function frostAt(deps: Deps, site: Site, block: Block, stationId: string, begin: number) {
  const { series } = await placeDays(deps, site, await getStation(deps.db, site.id, stationId), block)
  const seasons = Array.from({ length: 40 }, (_, k) => seasonLater(begin, -1 - k)).filter((start) => start >= series.firstDay)
  return firstFrost(seasons.flatMap((start) => firstFrostOf(series, start) ?? []))
}

/** Days from the start of a season to its first frost of autumn; its last day where none came; undefined where days are missing before it. */
function firstFrostOf({ firstDay, min }: Pick<DailySeries, 'firstDay' | 'min'>, start: number): number | undefined {
  const end = seasonLater(start, 1)
  for (let day = start + SUMMER_OVER_DAYS; day < end; day++) {
    const lowest = min[day - firstDay] ?? NaN
    if (Number.isNaN(lowest)) return undefined
    if (lowest <= 0) return day - start
  }
  return end - 1 - start
}

/** Families of what stands in a block today. */
async function standing(db: Queryable, siteId: string, blockId: string, today: string): Promise<Set<string>> {
  const plantings = (await listPlantings(db, siteId)).filter(
    ({ placeId, standsFrom, standsUntil }) => placeId === blockId && standsFrom <= today && (standsUntil === null || today <= standsUntil),
  )
  return new Set(plantings.flatMap(({ crop }) => findCrop(crop)?.family ?? []))
}

/** So many crops are named. */
const NAMED = 6

/** Annual crops of other families that may ripen where they are sown on a day, the surest and soonest first. */
function replacements(families: ReadonlySet<string>, today: number, frost: Parameters<typeof ripens>[1]) {
  const all = crops.flatMap((crop) => {
    const [first] = crop.stages
    if (crop.lives !== 'annual' || families.has(crop.family) || !first) return []
    const harvest = cropCalendar(crop.stages, new Map([[first.id, today]])).find(({ id }) => id === 'first-harvest')?.expected
    const how = harvest ? ripens(harvest, frost) : 'no'
    return harvest && how !== 'no' ? [{ cropName: crop.name, ...harvest, ripens: how }] : []
  })
  const sureness = ({ ripens: how }: { ripens: 'surely' | 'perhaps' }): number => (how === 'surely' ? 0 : 1)
  return all.sort((a, b) => sureness(a) - sureness(b) || a.until - b.until).slice(0, NAMED)
}
