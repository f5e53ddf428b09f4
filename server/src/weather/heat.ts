import { heatMethods, type ParsedInputOf, type ResponseOf, type weather } from '@bocado/contract'
import {
  civilDate,
  compareMethods,
  dayNumber,
  daysAheadOfPast,
  pastSums,
  seasonLater,
  seasonSum,
  rateCurves,
  type CurvedRule,
  type HeatRule,
  type PlaceWeather,
} from '@bocado/core'
import { refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { getSite } from '../sites/service.js'
import { placeDays } from './place.js'
import { blockOfQuery } from './seasonDays.js'
import { getStation } from './stations.js'

type Query = ParsedInputOf<typeof weather.heat>

const rounded = (values: Float64Array): number[] => Array.from(values, (v) => Math.round(v * 100) / 100)

/** Heat of a station's season by any rule, against its past seasons; the rule asked for is the reference of the comparison. */
export async function heatOfStation(deps: Deps, siteId: string, stationId: string, query: Query): Promise<ResponseOf<typeof weather.heat>> {
  const station = await getStation(deps.db, siteId, stationId)
  const site = await getSite(deps.db, deps.clock, siteId)
  const season = dayNumber(query.season)
  const end = seasonLater(season, 1)
  const from = dayNumber(query.from)
  if (from < season || from >= end)
    throw refusal('from', 'day.within-season', { from: { day: query.season }, to: { day: civilDate(end - 1) } })
  const { series, temperatures, key } = await placeDays(deps, site, station, await blockOfQuery(deps, siteId, query.blockId))
  const place: PlaceWeather = { days: series, hours: temperatures }
  const ruleOf = (method: HeatRule['method']): HeatRule => ({
    method,
    lower: query.lower,
    cutoff: query.cutoff,
    ...(query.upper === undefined ? {} : { upper: query.upper }),
  })
  const rule = ruleOf(query.method)
  return deps.memo.get(`heat ${key} ${site.today} ${JSON.stringify(query)}`, () => makeHeat(place, rule, query, site.today, ruleOf))
}

function makeHeat(
  place: PlaceWeather,
  rule: HeatRule,
  query: Query,
  today: string,
  ruleOf: (method: HeatRule['method']) => HeatRule,
): ResponseOf<typeof weather.heat> {
  const season = dayNumber(query.season)
  const from = dayNumber(query.from)
  const end = seasonLater(season, 1)
  const { upper, limit } = query
  const curves: CurvedRule[] =
    upper === undefined || limit === undefined ? [] : rateCurves.map((curve) => ({ curve, lower: query.lower, upper, limit }))
  const current = seasonSum(place, rule, season, from, Math.min(end, dayNumber(today)))
  const past = pastSums(place, rule, season, from)
  const others = heatMethods.filter((method) => method !== query.method).map(ruleOf)
  return {
    current: rounded(current.cumulative),
    past: past.map((sum) => ({ season: civilDate(sum.season), cumulative: rounded(sum.cumulative) })),
    aheadDays: daysAheadOfPast(current, past) ?? null,
    methods: compareMethods(place, [rule, ...others, ...curves], season, from, query.target).map(({ method, day, laterBy }) => ({
      method,
      day: day ?? null,
      laterBy: laterBy ?? null,
    })),
  }
}
