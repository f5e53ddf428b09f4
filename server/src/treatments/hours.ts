import type { ParsedInputOf, treatments, WatchHours } from '@bocado/contract'
import {
  civilDate,
  hourBlocks,
  hourLimits,
  hoursCost,
  offsetHours,
  standardDay,
  standardHour,
  sunTimes,
  usableHours,
  type ActingMeans,
  type DayLight,
  type HourOfWeather,
  type LimitsOfMeans,
} from '@bocado/core'
import { getBlock } from '../blocks/service.js'
import { inFlowerOnDays } from '../bloom/blooming.js'
import { zoneOffsetMinutes } from '../clock.js'
import type { Queryable } from '../database/index.js'
import { memberHoursAhead } from '../forecasts/service.js'
import { fieldProblem, HttpProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { methodsByIds } from '../library/catalogue.js'
import { getSite } from '../sites/service.js'
import { findWatch } from '../watches/store.js'
import { placeDays, stationPosition } from '../weather/place.js'
import { getStation } from '../weather/stations.js'
import { findProduct } from './store.js'

/** Days that are looked at, today first: further ahead the hours of a forecast say little. */
const DAYS = 8

/** The hours of the days ahead in which something can be used against a watch, over the members of the forecast. */
export async function hoursOfWatch(
  deps: Deps,
  siteId: string,
  watchId: string,
  input: ParsedInputOf<typeof treatments.hours>,
): Promise<WatchHours> {
  const { db } = deps
  const watch = await findWatch(db, siteId, watchId)
  if (!watch) throw new HttpProblem(404, 'There is no such watch at this site.')
  const means = await actingMeans(db, siteId, input)
  const block = await getBlock(db, siteId, watch.blockId)
  const site = await getSite(db, deps.clock, siteId)
  const stationId = block.follows?.stationId
  if (stationId === undefined) return nothingKnown(site.today)
  const station = await getStation(db, siteId, stationId)
  const now = await deps.clock.now(db)
  // Work goes by the clock on the wall; the station keeps standard time.
  const wall = zoneOffsetMinutes(now, site.timeZone)
  const today = standardDay(now.getTime(), wall)
  const position = stationPosition(station, site)
  const [place, stationDays] = [await placeDays(deps, site, station, block), await deps.history.daysOf(db, station, position)]
  const ahead = await memberHoursAhead(deps, station, stationDays, today - 1, DAYS + 2)
  if (!ahead) return nothingKnown(civilDate(today))
  const midnight = 24 - Math.round((wall - station.utcOffsetMinutes) / 60)
  const members = ahead.map((member): HourOfWeather[] => {
    const temperature = offsetHours((today - 1) * 24, member.temperature, place.offset)
    return Array.from({ length: DAYS * 24 }, (_, hour) => {
      const h = midnight + hour
      return {
        temperature: temperature[h] as number,
        // Under a cover neither rain nor wind reaches it.
        humidity: member.humidity[h] as number,
        rain: place.covered ? 0 : (member.rain[h] as number),
        wind: place.covered ? 0 : (member.wind[h] as number),
      }
    })
  })
  const light = position ? Array.from({ length: DAYS + 1 }, (_, d): DayLight => sunTimes(today + d, position, wall)) : []
  const flowers = await flowersBy(deps, siteId, block.id, today, means)
  const limitsOn = flowers.map((names) => underCover(hourLimits(means, names.length > 0), place.covered))
  const over = standardHour(now.getTime(), wall) - today * 24
  const { hours, days } = usableHours(members, (day) => (limitsOn[day] as LimitsOfMeans).limits, light, over)
  const from = Object.assign({}, ...limitsOn.map((one) => one.from)) as LimitsOfMeans['from']
  return {
    from: civilDate(today),
    members: members.length,
    over,
    hours,
    days,
    limits: hourBlocks.flatMap((reason) => (from[reason] === undefined ? [] : [{ reason, from: from[reason] }])),
    costs: hoursCost(hours, members.length, over),
    flowers: [...new Set(flowers.flat())],
  }
}

/** What is named of both, with what its label says. */
async function actingMeans(
  db: Queryable,
  siteId: string,
  { productId, methodId }: ParsedInputOf<typeof treatments.hours>,
): Promise<ActingMeans> {
  if ((productId === undefined) === (methodId === undefined))
    throw fieldProblem('productId', 'name one product of the shelf, or one method by hand')
  const product = productId === undefined ? null : await findProduct(db, siteId, productId)
  if (product === undefined) throw fieldProblem('productId', 'choose a product of this site’s shelf')
  const methods = product ? product.methods : [methodId as string]
  const known = await methodsByIds(db, siteId, methods)
  if (!product && known.length === 0) throw fieldProblem('methodId', 'choose a method of the library')
  return { product, methods, systemic: known.some(({ systemic }) => systemic) }
}

/** What may flower there on each day, as far as that binds it. */
async function flowersBy(deps: Deps, siteId: string, blockId: string, today: number, { product }: ActingMeans): Promise<string[][]> {
  if (!product || product.bees === 'none-stated') return Array.from({ length: DAYS }, () => [])
  return inFlowerOnDays(
    deps,
    siteId,
    blockId,
    Array.from({ length: DAYS }, (_, d) => today + d),
  )
}

/** Under a cover still air carries nothing away, and what a forecast of the outside says of the drops in the air does not hold. */
function underCover({ limits, from }: LimitsOfMeans, covered: boolean): LimitsOfMeans {
  if (!covered) return { limits, from }
  const { inversion: _, deltaT: __, maxWind: ___, ...rest } = limits
  const { inversion: ____, 'delta-t': _____, wind: ______, ...whose } = from
  return { limits: rest, from: whose }
}

const nothingKnown = (from: string): WatchHours => ({ from, members: 0, over: 0, hours: [], days: [], limits: [], costs: [], flowers: [] })
