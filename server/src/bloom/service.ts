import type { BloomOverview, Ladder } from '@bocado/contract'
import { bounds, civilDate, datesOf, dayNumber, moveByShift, rankIndicator, resolveEvents, type IndicatorYear } from '@bocado/core'
import { findOrganism, indicatorModel, indicators } from '@bocado/library'
import { listBlocks } from '../blocks/store.js'
import type { Deps } from '../http/route.js'
import { routePlants } from '../library/route.js'
import { getSite, hemisphereOf } from '../sites/service.js'
import { dateBounds } from '../watches/bounds.js'
import { listEventRecords } from '../watches/eventRecords.js'
import { scoresFor } from '../watches/models.js'
import { getBand } from '../watches/service.js'
import { startOf } from '../watches/start.js'
import { listWatches, organismOf } from '../watches/store.js'
import { heatFrom } from '../watches/forecast.js'
import { weatherOfBlocks } from '../weather/blockWeather.js'
import { bloomEvidence, firstByYear } from './evidence.js'
import { listBloomRecords } from './store.js'
import { listTriggers } from './triggers.js'

/** The scale of the ladder: the rule by which bloom plants without a chill count. */
const REFERENCE = { heat: { method: 'single-sine' as const, lower: 10 } }
const LOOK_AHEAD_DAYS = 14
const OVERDUE_DAYS = 3
/** Weeks from 1 March to 31 October, in which enemies of pests need nectar. */
const NECTAR_FROM = 59
const NECTAR_UNTIL = 304

/** What blooms so far say of the season, what to look for these weeks, and where nectar is missing. */
export async function bloomOverview(deps: Deps, siteId: string): Promise<BloomOverview> {
  const db = deps.database
  const site = await getSite(db, deps.clock, siteId)
  const blocks = await listBlocks(db, siteId)
  const evidence = await bloomEvidence(deps, site, blocks)
  const [route, records] = await Promise.all([routePlants(db, siteId), listBloomRecords(db, siteId)])
  const main = await (await weatherOfBlocks(deps, site, site.season.start))(null)
  const shift = evidence.find(({ stationId }) => stationId === main.followed?.station.id)?.shift ?? null
  const firstDay = dayNumber(site.season.start)
  const today = dayNumber(site.today) - firstDay
  const hemisphere = hemisphereOf(site)
  const expected = indicators.flatMap((plant) => {
    const model = indicatorModel(plant)
    const start = startOf(model, null, main, dayNumber(site.today), hemisphere)
    if (start.how === 'none') return []
    const heat = heatFrom({ block: main, memo: deps.memo }, model, start)
    if (heat.members.length === 0) return []
    const resolved = resolveEvents({ generations: [{ id: plant.id, reachableStages: [], events: model.events }] }, start.expected)
    const events = shift ? moveByShift(resolved, shift) : resolved
    const scores = scoresFor(heat.members.length)
    return events.map((event, i) => ({
      plant,
      event: event.id as Ladder['blooms'][number]['event'],
      eventName: plant.events[i]?.name ?? event.id,
      date: dateBounds(bounds(datesOf(event, 0.5, heat.members, scores))),
    }))
  })
  const onRoute = (plantId: string): boolean => route.length === 0 || route.some((r) => r.plantId === plantId)
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

/** Blooms and events of pests in all years on one scale of heat, and which bloom foretells which event. */
export async function bloomLadder(deps: Deps, siteId: string): Promise<Ladder> {
  const db = deps.database
  const site = await getSite(db, deps.clock, siteId)
  const blocks = await listBlocks(db, siteId)
  const evidence = await bloomEvidence(deps, site, blocks)
  const main = await (await weatherOfBlocks(deps, site, site.season.start))(null)
  const station = evidence.find(({ stationId }) => stationId === main.followed?.station.id)
  const placed = (station?.placed ?? []).filter(({ record }) => !record.notYet)
  // One scale for all: heat as plants without a chill of their own count it from the season's start.
  const counted = new Set(indicators.filter(({ biofix }) => biofix.kind === 'date').map(({ id }) => id))
  const curves = new Map(
    placed.filter(({ record }) => counted.has(record.plantId)).map(({ record, season }) => [record.season, season.median]),
  )
  const heatOn = (season: string, day: number): number | undefined => curves.get(season)?.[Math.max(0, Math.floor(day))]
  const blooms = indicators.flatMap((plant) =>
    plant.events.flatMap((event) => {
      const own = firstByYear(placed.filter(({ record }) => record.plantId === plant.id && record.event === event.id)).flatMap(
        ({ record, day }) => {
          const heat = heatOn(record.season, day)
          return heat === undefined ? [] : [{ record, day, heat }]
        },
      )
      if (own.length === 0) return []
      return [
        {
          plantId: plant.id,
          event: event.id as Ladder['blooms'][number]['event'],
          name: `${plant.name}, ${event.name}`,
          expected: event.heat.value,
          dots: own.map(({ record, heat, day }) => ({ season: record.season, heat, day })),
          placed: own,
        },
      ]
    }),
  )
  const watches = await listWatches(db, siteId, site.season.start)
  const band = await getBand(deps, siteId, site.season.start)
  // Heat of this season on the scale of the blooms, as far as weather is known and expected.
  const reference =
    main.weather.observed.length > 0
      ? heatFrom({ block: main, memo: deps.memo }, REFERENCE, { day: dayNumber(site.season.start), how: 'calendar' })
      : undefined
  const pests: Ladder['pests'] = []
  for (const watch of watches) {
    const records = (await listEventRecords(db, siteId, watch)).filter(({ kind }) => kind !== 'catch')
    const organism = findOrganism(watch.organismId) ?? organismOf(watch)
    const forecast = band.watches.find((f) => f.watch.id === watch.id)
    // What was seen, and otherwise what opens the first window.
    const opening =
      forecast?.grade === 'dates' ? forecast.events.find((e) => forecast.generations[0]?.reachableStages.includes(e.stage))?.id : undefined
    for (const event of new Set([...records.map((r) => r.event), ...(opening ? [opening] : [])])) {
      const named = organism.generations.flatMap(({ events }) => events).find(({ id }) => id === event)
      const dots = records
        .filter((r) => r.event === event)
        .flatMap((r) => {
          const first = dayNumber(r.season)
          const day = (dayNumber(r.lookedBefore ?? r.seenOn) + dayNumber(r.seenOn)) / 2 - first
          const heat = heatOn(r.season, day)
          return heat === undefined ? [] : [{ season: r.season, heat, day }]
        })
      const begins = forecast?.grade === 'dates' ? (forecast.events.find(({ id }) => id === event)?.dates.begins.p50 ?? null) : null
      if (dots.length === 0 && begins === null) continue
      const indicatorsOf = blooms.flatMap((bloom) => {
        const years = dots.flatMap((dot): IndicatorYear[] => {
          const one = bloom.placed.find(({ record }) => record.season === dot.season)
          const cumulative = curves.get(dot.season)
          return one && cumulative && one.day <= dot.day
            ? [{ eventHeat: dot.heat, bloomHeat: one.heat, eventDay: dot.day, bloomDay: one.day, cumulative }]
            : []
        })
        const rank = rankIndicator(years)
        if (!rank) return []
        const { leadHeat, leadDays, spread, error, byHeat, byCalendar, better, years: n } = rank
        return [
          {
            plantId: bloom.plantId,
            event: bloom.event,
            name: bloom.name,
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
      pests.push({
        organismId: watch.organismId,
        blockId: watch.blockId,
        event,
        name: named?.name ?? event,
        organismName: organism.name,
        dots,
        expected: begins === null ? null : { heat: reference?.median[Math.floor(begins)] ?? 0, day: begins },
        byLibrary:
          indicatorsOf.length > 0 || begins === null
            ? []
            : band.blooms
                .flatMap(({ name, eventName, date }) =>
                  date.p50 !== null && date.p50 < begins ? [{ name: `${name}, ${eventName}`, leadDays: begins - date.p50 }] : [],
                )
                .sort((a, b) => a.leadDays - b.leadDays)
                .slice(0, 5),
        indicators: indicatorsOf.sort((a, b) => a.error - b.error || a.leadDays - b.leadDays).slice(0, 12),
      })
    }
  }
  // What can be foretold from own years stands first.
  pests.sort((a, b) => b.indicators.length - a.indicators.length || b.dots.length - a.dots.length)
  return { blooms: blooms.map(({ placed: _, ...bloom }) => bloom), pests }
}
