import type { ParsedInputOf, treatments, WatchHours } from '@bocado/contract'
import {
  civilDate,
  hourBlocks,
  hoursBetween,
  MS_PER_MINUTE,
  hourLimits,
  holdsOn,
  hoursCost,
  offsetHours,
  rulesFor,
  soilTemperature,
  standardDay,
  standardHour,
  sunTimes,
  usableHours,
  withRules,
  type ActingMeans,
  type Arc,
  type DayLight,
  type HourOfWeather,
  type LimitsOfMeans,
  type SoilCover,
} from '@bocado/core'
import { getBlock } from '../blocks/service.js'
import { inFlowerOnDays } from '../bloom/blooming.js'
import { zoneOffsetMinutes } from '../clock.js'
import type { Queryable } from '../database/index.js'
import { memberHoursAhead } from '../forecasts/service.js'
import { fieldProblem, HttpProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { methodsByIds } from '../library/catalogue.js'
import { rulesAt } from '../rules/service.js'
import { getSite } from '../sites/service.js'
import { findWatch } from '../watches/store.js'
import { placeDays, stationPosition } from '../weather/place.js'
import { getStation } from '../weather/stations.js'
import { keptFromDrift } from './drift.js'
import { entryClosedUntil, findProduct } from './store.js'

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
  const soil = soilAhead(
    place.series,
    ahead.map(({ temperature }) => temperature),
    today - 1,
    block.soilCover,
  )
  const midnight = 24 - Math.round((wall - station.utcOffsetMinutes) / 60)
  const members = ahead.map((member, m): HourOfWeather[] => {
    const temperature = offsetHours((today - 1) * 24, member.temperature, place.offset)
    return Array.from({ length: DAYS * 24 }, (_, hour) => {
      const h = midnight + hour
      return {
        temperature: temperature[h] as number,
        // Under a cover neither rain nor wind reaches it.
        humidity: member.humidity[h] as number,
        rain: place.covered ? 0 : (member.rain[h] as number),
        wind: place.covered ? 0 : (member.wind[h] as number),
        direction: place.covered ? NaN : (member.direction[h] as number),
        soil: soil[m]?.[Math.floor(hour / 24)] ?? NaN,
      }
    })
  })
  const light = position ? Array.from({ length: DAYS + 1 }, (_, d): DayLight => sunTimes(today + d, position, wall)) : []
  const flowers = await flowersBy(deps, siteId, block.id, today, means)
  const rules = rulesFor(await rulesAt(db, deps.clock, siteId, block.id), {
    ways: means.product?.ways ?? null,
    methods: means.methods,
    chemical: means.chemical,
  })
  const closedUntil = await entryClosedUntil(db, siteId, block.id, now)
  const downwind = await keptFromDrift(db, siteId, block, means)
  const towards = downwind.flatMap(({ from }) => from ?? [])
  const limitsOn = flowers.map((names, d): LimitsOfMeans => {
    const own = keptFrom(withRules(underCover(hourLimits(means, names.length > 0), place.covered), rules, civilDate(today + d)), towards)
    const entry = closedUntil === null ? 0 : hoursBetween(0, closedUntil + wall * MS_PER_MINUTE) - (today + d) * 24
    return entry <= 0 ? own : { limits: { ...own.limits, entryFrom: entry }, from: { ...own.from, entry: 'label' } }
  })
  const over = standardHour(now.getTime(), wall) - today * 24
  const { hours, days } = usableHours(members, (day) => (limitsOn[day] as LimitsOfMeans).limits, light, over)
  const from = Object.assign({}, ...limitsOn.map((one) => one.from)) as LimitsOfMeans['from']
  if (limitsOn.some((one) => one.from.rule === 'law')) from.rule = 'law'
  return {
    from: civilDate(today),
    members: members.length,
    over,
    hours,
    days,
    limits: hourBlocks.flatMap((reason) => (from[reason] === undefined ? [] : [{ reason, from: from[reason] }])),
    costs: hoursCost(hours, members.length, over),
    rules: rules
      .filter((rule) => ['closed-days', 'closed-hours', 'wind'].includes(rule.kind))
      .filter((rule) => limitsOn.some((_, d) => holdsOn(rule, civilDate(today + d))))
      .map(({ name }) => name),
    flowers: [...new Set(flowers.flat())],
    downwind,
    knowsDirection: ahead.some(({ direction }) => direction.some((degrees) => !Number.isNaN(degrees))),
  }
}

/** Soil of each member on each day from `first` + 1 on: that of the days before it, carried on by the member's air. */
function soilAhead(
  { firstDay, min, max }: { firstDay: number; min: ArrayLike<number>; max: ArrayLike<number> },
  members: readonly ArrayLike<number>[],
  first: number,
  cover: SoilCover,
): number[][] {
  const from = Math.max(firstDay, first - SOIL_LEAD_DAYS)
  const before = Array.from({ length: Math.max(0, first - from) }, (_, k) => {
    const i = from + k - firstDay
    return ((min[i] ?? NaN) + (max[i] ?? NaN)) / 2
  })
  return members.map((temperature) => {
    const ahead = Array.from({ length: Math.floor(temperature.length / 24) }, (_, d) => {
      const day = Array.from({ length: 24 }, (__, h) => temperature[d * 24 + h] as number)
      return (Math.min(...day) + Math.max(...day)) / 2
    })
    return [...soilTemperature([...before, ...ahead], cover)].slice(before.length + 1)
  })
}
/** Soil forgets the air in about so many days. */
const SOIL_LEAD_DAYS = 60

/** What is named of both, with what its label says. */
async function actingMeans(
  db: Queryable,
  siteId: string,
  { productId, methodId }: ParsedInputOf<typeof treatments.hours>,
): Promise<ActingMeans & { chemical: boolean }> {
  if ((productId === undefined) === (methodId === undefined))
    throw fieldProblem('productId', 'name one product of the shelf, or one method by hand')
  const product = productId === undefined ? null : await findProduct(db, siteId, productId)
  if (product === undefined) throw fieldProblem('productId', 'choose a product of this site’s shelf')
  const methods = product ? product.methods : [methodId as string]
  const known = await methodsByIds(db, siteId, methods)
  if (!product && known.length === 0) throw fieldProblem('methodId', 'choose a method of the library')
  const floor = known.flatMap(({ strains }) => strains).find(({ id }) => id === product?.strain)?.soilFloor?.value
  return {
    product,
    methods,
    systemic: known.some(({ systemic }) => systemic),
    chemical: known.some(({ kind }) => kind === 'chemical'),
    soilFloor: floor ?? null,
  }
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

/** With the directions from which the wind carries it to what is kept clear of it. */
const keptFrom = ({ limits, from }: LimitsOfMeans, towards: readonly Arc[]): LimitsOfMeans =>
  towards.length === 0 ? { limits, from } : { limits: { ...limits, towards }, from: { ...from, towards: 'usual' } }

/** Under a cover still air carries nothing away, and what a forecast of the outside says of the drops in the air does not hold. */
function underCover({ limits, from }: LimitsOfMeans, covered: boolean): LimitsOfMeans {
  if (!covered) return { limits, from }
  const { inversion: _, deltaT: __, maxWind: ___, ...rest } = limits
  const { inversion: ____, 'delta-t': _____, wind: ______, ...whose } = from
  return { limits: rest, from: whose }
}

const nothingKnown = (from: string): WatchHours => ({
  from,
  members: 0,
  over: 0,
  hours: [],
  days: [],
  limits: [],
  costs: [],
  rules: [],
  flowers: [],
  downwind: [],
  knowsDirection: false,
})
