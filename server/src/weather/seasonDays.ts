import type { Block, ParsedInputOf, ResponseOf, WetEvent, weather } from '@bocado/contract'
import {
  civilDate,
  completeLateDays,
  dayNumber,
  firstOpenDay,
  offsetDay,
  quantileSorted,
  seasonDays,
  seasonLater,
  seasonStart,
  standardDay,
  sunTimes,
  type DailySeries,
  type Position,
} from '@bocado/core'
import { listBlocks } from '../blocks/store.js'
import { listWetEvents, wettingsOf } from '../blocks/wetEvents.js'
import { daysAhead, type DaysAhead } from '../forecasts/service.js'
import { fieldProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { getSite, hemisphereOf } from '../sites/service.js'
import { placeDays, stationPosition, type PlaceDays } from './place.js'
import { getStation } from './stations.js'

type Shown = ResponseOf<typeof weather.days>

const round = (value: number, digits: number): number => Number(value.toFixed(digits))
const known = (value: number | undefined, digits: number): number | null =>
  value === undefined || Number.isNaN(value) ? null : round(value, digits)

/** The block as which weather is looked at; null for the station itself. */
export async function blockOfQuery(deps: Deps, siteId: string, blockId: string | undefined): Promise<Block | null> {
  if (blockId === undefined) return null
  const block = (await listBlocks(deps.db, siteId)).find(({ id }) => id === blockId)
  if (!block) throw fieldProblem('blockId', 'choose a block of this site')
  return block
}

/** Lowest, median and highest of each day's extremes over the members of a forecast. */
function spansAhead({ members }: DaysAhead, today: number, { offset }: PlaceDays): Shown['ahead'] {
  const span = (values: readonly number[]) => {
    const sorted = Float64Array.from(values).sort()
    return { low: sorted[0] as number, middle: quantileSorted(sorted, 0.5), high: sorted.at(-1) as number }
  }
  return (members[0] ?? []).map((_, i) => {
    const day = members.flatMap((member) => (member[i] ? [offsetDay(member[i], offset)] : []))
    return { day: civilDate(today + i), min: span(day.map(({ min }) => min)), max: span(day.map(({ max }) => max)) }
  })
}

interface Making {
  place: PlaceDays
  position: Position | undefined
  block: Block | null
  events: readonly WetEvent[]
  utcOffsetMinutes: number
  ahead: DaysAhead | undefined
  season: number
  today: number
  seasons: string[]
}

function makeSeasonDays(m: Making): Shown {
  const { place, season, today, block } = m
  const texture = block?.soilTexture ?? 'loam'
  const made = seasonDays({
    place,
    position: m.position,
    ground: { texture, cover: block?.soilCover ?? 'bare' },
    wettings: wettingsOf(m.events, m.utcOffsetMinutes),
    season,
    today,
  })
  const end = seasonLater(season, 1)
  const { frost } = made
  const dateOf = (day: number | null): string | null => (day === null ? null : civilDate(day))
  const sun = m.position && sunTimes(Math.min(today, end - 1), m.position, m.utcOffsetMinutes)
  return {
    days: made.days.map((day) => ({
      day: civilDate(day.day),
      min: known(day.min, 2),
      max: known(day.max, 2),
      rain: known(day.rain, 2),
      filled: round(day.filled, 4),
      wet: known(day.wet, 0),
      wetUnknown: day.wetUnknown,
      soil: known(day.soil, 1),
      rootZone: known(day.rootZone, 3),
      surface: known(day.surface, 3),
      chill: known(day.chill, 2),
    })),
    normal: made.normal.map((range) => (range ? { low: round(range.low, 2), high: round(range.high, 2) } : null)),
    pastSeasons: made.pastYears.length,
    seasons: m.seasons,
    ahead: m.ahead && today < end ? spansAhead(m.ahead, today, place) : [],
    forecast:
      m.ahead && today < end ? { issuedAt: m.ahead.issuedAt, members: m.ahead.members.length, correctedFrom: m.ahead.correctedFrom } : null,
    soil: {
      source: made.probed ? 'probe' : 'estimated',
      texture,
      assumed: block?.soilTexture == null,
      unknownRainDays: made.unknownRainDays,
    },
    frost: {
      springKnown: frost.springKnown,
      lastSpring: dateOf(frost.lastSpring),
      firstAutumn: dateOf(frost.firstAutumn),
      risk: frost.risk,
      seasons: frost.pastSeasons,
    },
    usualChill: known(made.usualChill, 1),
    sun: sun ? { sunrise: sun.sunrise, sunset: sun.sunset, dayLength: sun.dayLength } : null,
  }
}

/** First days of the seasons of which a series knows anything. */
function seasonsOf(series: DailySeries, current: number, hemisphere: 'north' | 'south'): string[] {
  const seasons: string[] = []
  for (let start = seasonStart(series.firstDay, hemisphere); start < current; start = seasonLater(start, 1)) seasons.push(civilDate(start))
  return [...seasons, civilDate(current)]
}

/** A season of a station day by day, as it is at a block where one is named. */
export async function daysOfSeason(
  deps: Deps,
  siteId: string,
  stationId: string,
  { season, blockId }: ParsedInputOf<typeof weather.days>,
): Promise<Shown> {
  const station = await getStation(deps.db, siteId, stationId)
  const site = await getSite(deps.db, deps.clock, siteId)
  const block = await blockOfQuery(deps, siteId, blockId)
  const firstDay = dayNumber(season)
  const hemisphere = hemisphereOf(site)
  if (seasonStart(firstDay, hemisphere) !== firstDay)
    throw fieldProblem('season', `must be the first day of a season, such as ${site.season.start}`)
  const place = await placeDays(deps, site, station, block)
  const position = stationPosition(station, site)
  const days = await deps.history.daysOf(deps.db, station, position)
  const now = await deps.clock.now(deps.db)
  const today = standardDay(now.getTime(), station.utcOffsetMinutes)
  const ahead = await daysAhead(deps, station, days, today)
  // What a late station has not sent of days that are over is made from what it did send.
  const series = completeLateDays(place.series, place.temperatures, firstOpenDay(place.series, today), today)
  const events = block ? (await listWetEvents(deps.db, siteId, civilDate(firstDay - 400))).filter((e) => e.blockId === block.id) : []
  const eventsKey = events.map(({ id, rowVersion }) => `${id}@${rowVersion}`).join()
  const key = `days ${place.keyBefore(today)} ${ahead?.key} ${season} ${today} ${block?.id}@${block?.rowVersion} ${eventsKey}`
  return deps.memo.get(key, () =>
    makeSeasonDays({
      place: { ...place, series },
      position,
      block,
      events,
      utcOffsetMinutes: station.utcOffsetMinutes,
      ahead,
      season: firstDay,
      today,
      seasons: place.series.min.length > 0 ? seasonsOf(place.series, dayNumber(site.season.start), hemisphere) : [site.season.start],
    }),
  )
}
