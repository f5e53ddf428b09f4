import type { WatchForecast, WindowForecast } from '@bocado/contract'
import {
  civilDate,
  dayNumber,
  heatAtShare,
  reachHeat,
  reachOf,
  resolveEvents,
  seasonHeat,
  seasonLater,
  seededRandom,
  stratifiedScores,
  windowForecast,
  windowState,
  type Hemisphere,
  type Bounds,
  type ResolvedEvent,
  type SeasonHeat,
  type SeasonWeather,
} from '@bocado/core'
import { restsOnPlaceholder, type Confidence, type Organism, forecastQuantities } from '@bocado/library'
import type { BlockWeather } from '../weather/blockWeather.js'
import { presentedWatch, type StoredWatch } from './store.js'

/** One seed for all watches: the same weather gives the same forecast, whoever asks. */
const MEMBER_SEED = 1969

const finite = (value: number): number | null => (Number.isFinite(value) ? value : null)
const finiteBounds = ({ p10, p50, p90 }: Bounds) => ({ p10: finite(p10), p50: finite(p50), p90: finite(p90) })
const rounded = (values: Float64Array): number[] => Array.from(values, (v) => Math.round(v * 1e4) / 1e4)

/** The begin of a stage, as it is spoken of: 3 % of the population have reached it. */
const begins = (event: ResolvedEvent): number => heatAtShare(0.03, event.spread)

function leastSure(organism: Organism): Confidence {
  const found = new Set(forecastQuantities(organism).map((q) => q.confidence))
  return found.has('placeholder') ? 'placeholder' : found.has('approximate') ? 'approximate' : 'established'
}

/** What a watch's forecast is made from. */
export interface ForecastInput {
  watch: StoredWatch
  organism: Organism
  block: BlockWeather
}

/** The season's heat of a watch, and one standard score per member for the uncertainty of its figures. */
export function watchHeat(watch: StoredWatch, weather: SeasonWeather): { heat: SeasonHeat; scores: number[] } {
  const heat = seasonHeat(weather, watch.pinned.heat, dayNumber(watch.biofix))
  return { heat, scores: heat.members.length > 0 ? stratifiedScores(heat.members.length, seededRandom(MEMBER_SEED)) : [] }
}

function windowsOf(
  organism: Organism,
  watch: StoredWatch,
  events: readonly ResolvedEvent[],
  heat: SeasonHeat,
  scores: readonly number[],
): WindowForecast[] {
  const length = seasonLater(heat.firstDay, 1) - heat.firstDay
  // Without weather to come nothing can be said of a window that may still be opening.
  if (heat.members.length === 0 || heat.knownDays < length) return []
  return watch.pinned.generations.flatMap((generation) => {
    const reach = reachOf(events, generation.id, generation.reachableStages)
    if (!reach) return []
    const window = windowForecast(heat.members, scores, reachHeat(reach), length)
    const opensOn = window.opens.p50
    return [
      {
        generation: generation.id,
        generationName: organism.generations.find(({ id }) => id === generation.id)?.name ?? generation.id,
        state: windowState(window, heat.todayIndex),
        opens: finiteBounds(window.opens),
        closes: finiteBounds(window.closes),
        bestDay: finiteBounds(window.bestDay),
        best: finiteBounds(window.best),
        opensHeat: Number.isFinite(opensOn) ? (heat.median[Math.floor(opensOn)] ?? null) : null,
        beginsWith: { name: nameOf(organism, reach.enter.id), heat: begins(reach.enter) },
      },
    ]
  })
}

const nameOf = (organism: Organism, eventId: string): string =>
  organism.generations.flatMap(({ events }) => events).find(({ id }) => id === eventId)?.name ?? eventId

/** Runs of consecutive day numbers as first and last date. */
function runs(days: readonly number[]): { from: string; to: string }[] {
  const result: { from: number; to: number }[] = []
  for (const day of days) {
    const last = result.at(-1)
    if (last && last.to === day - 1) last.to = day
    else result.push({ from: day, to: day })
  }
  return result.map(({ from, to }) => ({ from: civilDate(from), to: civilDate(to) }))
}

/** What a season usually is like for a generation, where there is no weather to say more. */
const usualOf = (organism: Organism, south: boolean): WatchForecast['usual'] =>
  organism.generations.flatMap(({ id, name, usual }) =>
    usual
      ? [
          {
            generation: id,
            name,
            months: usual.months.map((m) => (south ? ((m + 5) % 12) + 1 : m)),
            bloom: usual.bloom,
            region: usual.region,
          },
        ]
      : [],
  )

/** The forecast of one watch, without what was done and counted. */
export function forecastWatch(
  { watch, organism, block }: ForecastInput,
  hemisphere: Hemisphere,
): Omit<WatchForecast, 'treatments' | 'rounds'> {
  const { heat, scores } = watchHeat(watch, block.weather)
  const events = resolveEvents(watch.pinned)
  const { method, lower, upper, cutoff } = watch.pinned.heat
  const nowIndex = Math.min(heat.todayIndex, heat.median.length) - 1
  return {
    watch: presentedWatch(watch),
    organismName: organism.name,
    scientificName: organism.scientificName,
    stages: organism.stages,
    generations: organism.generations.map(({ id, name, reachableStages }) => ({ id, name, reachableStages })),
    events: events.map((event) => {
      if (event.spread.kind === 'weibull') throw new RangeError(`event.spread of ${event.id} must not be weibull`)
      return {
        generation: event.generation,
        id: event.id,
        name: nameOf(organism, event.id),
        stage: event.stage,
        spread: event.spread,
        heatSe: event.heatSe,
        begins: begins(event),
      }
    }),
    rule: { method, lower, ...(upper === undefined ? {} : { upper }), ...(cutoff ? { cutoff } : {}) },
    grade: block.basis === 'none' ? 'calendar' : heat.members.length === 0 ? 'none' : restsOnPlaceholder(organism) ? 'months' : 'dates',
    basis: block.basis,
    usual: usualOf(organism, hemisphere === 'south'),
    confidence: leastSure(organism),
    stationId: block.followed?.station.id ?? null,
    stationName: block.followed?.station.name ?? null,
    offset: block.place?.offset ?? { min: 0, max: 0 },
    heat: {
      todayIndex: heat.todayIndex,
      biofixIndex: dayNumber(watch.biofix) - heat.firstDay,
      knownDays: heat.knownDays,
      median: rounded(heat.median),
      segments: {
        startIndex: heat.segments.startIndex,
        length: heat.segments.length,
        observed: rounded(heat.segments.observed),
        forecast: heat.segments.forecast.map(rounded),
        seam: heat.segments.seam.map(rounded),
        tails: heat.segments.tails.map(({ pastSeason, made, heat: days }) => ({ pastSeason, made, heat: rounded(days) })),
      },
      scores,
      pastSeasons: heat.segments.tails.filter(({ pastSeason }) => pastSeason !== heat.firstDay).length,
      madeSeasons: heat.segments.tails.filter(({ made }) => made).length,
      forecast:
        block.ahead && heat.forecastDays > 0
          ? {
              issuedAt: block.ahead.issuedAt,
              members: block.ahead.members.length,
              days: heat.forecastDays,
              correctedFrom: block.ahead.correctedFrom,
            }
          : null,
      filledShare: heat.filledShare,
      now: nowIndex >= 0 ? (heat.median[nowIndex] ?? 0) : 0,
      missing: runs(heat.missingDays),
    },
    windows: windowsOf(organism, watch, events, heat, scores),
  }
}
