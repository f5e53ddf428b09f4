import type { Block, WatchForecast, WetEvent, WindowForecast } from '@bocado/contract'
import {
  boundsOfDates,
  civilDate,
  datesOf,
  ensembleOf,
  eventBounds,
  generationShares,
  moveByShift,
  heatAtShare,
  LEAST_PAST_SEASONS,
  reachHeat,
  reachOf,
  resolveEvents,
  seasonHeat,
  seasonLater,
  sunTimes,
  windowForecast,
  windowState,
  type Bounds,
  type Ensemble,
  type Hemisphere,
  type ResolvedEvent,
  type SeasonHeat,
} from '@bocado/core'
import { restsOnPlaceholder, type Organism } from '@bocado/library'
import type { Memo } from '../memo.js'
import type { BlockWeather } from '../weather/blockWeather.js'
import { dateBounds, finiteBounds } from './bounds.js'
import { forecastEmergence } from './emergence.js'
import { forecastInfection } from './infection.js'
import type { PinnedModel } from './models.js'
import { startOf, type Start } from './start.js'
import { presentedWatch, type StoredWatch } from './store.js'

const rounded = (values: Float64Array): number[] => Array.from(values, (v) => Math.round(v * 1e3) / 1e3)

/** The begin of a stage, as it is spoken of: 3 % of the population have reached it. */
const BEGIN_SHARE = 0.03
const begins = (event: ResolvedEvent): number => heatAtShare(BEGIN_SHARE, event.spread)

/** How far what was seen in bloom moves a season, on the scale of the blooms. */
export interface BloomPush {
  heat: number
  sd: number
  prior: number
  /** What that is in days, at the heat of these weeks. */
  days: number
  blooms: number
  held: boolean
}

/** What a watch's forecast is made from. */
export interface ForecastInput {
  watch: StoredWatch
  organism: Organism
  block: BlockWeather
  ground: Pick<Block, 'id' | 'soilTexture' | 'soilCover'>
  /** Waterings and condensation of the block. */
  wetEvents: readonly WetEvent[]
  hemisphere: Hemisphere
  memo: Memo
  /** What blooms say of the season at its station; undefined where they say nothing, or the watch does not follow them. */
  bloom?: BloomPush | undefined
}

/** The season's heat of a model from where it starts; the same for every watch with the same rule and start. */
export function heatFrom(
  { block, memo }: Pick<ForecastInput, 'block' | 'memo'>,
  pinned: Pick<PinnedModel, 'heat'>,
  start: Start,
): SeasonHeat {
  return memo.get(`heat ${block.key} ${JSON.stringify(pinned.heat)} ${start.day}`, () => seasonHeat(block.weather, pinned.heat, start.day))
}

/** Less than this share of a population makes no generation of its own. */
const LEAST_GENERATION = 0.05

/** A model on the weather of a season: its heat, its events where they lie, and what of the population goes through each. */
export interface PlacedModel {
  start: Start
  heat: SeasonHeat
  ensemble: Ensemble
  events: ResolvedEvent[]
  /** Share of the population in each generation, in the order of the model. */
  shares: number[]
  /** By how much blooms have moved the events, in their own °C·d; null where they have not. */
  moved: { heat: number; sd: number } | null
}

/** Puts a model on the weather: start, heat, events and generations. The one way in which a forecast of dates begins. */
export function placeModel(
  input: Pick<ForecastInput, 'block' | 'memo' | 'hemisphere' | 'bloom'>,
  pinned: PinnedModel,
  entered: string | null,
): PlacedModel {
  const { block } = input
  const { firstDay, todayIndex, length } = block.weather
  const start = startOf(pinned, entered, block, firstDay + todayIndex, input.hemisphere)
  const heat = heatFrom(input, pinned, start)
  // A start that is off by days is off by what heat those days bring.
  const from = Math.max(0, start.day - firstDay)
  const daily = ((heat.median[Math.min(length - 1, from + 13)] ?? 0) - (heat.median[from] ?? 0)) / 13
  const expected = start.expected ?? (start.daySd === undefined ? undefined : { heat: 0, heatSe: start.daySd * daily })
  const resolved = resolveEvents(pinned, expected)
  const moved = movedBy(input.bloom, start, heat)
  const events = moved && input.bloom ? moveByShift(resolved, { ...moved, prior: input.bloom.prior }) : resolved
  const { position, followed } = block
  const offset = followed?.station.utcOffsetMinutes ?? 0
  const shares = position
    ? generationShares(pinned, events, heat.median, (index) => sunTimes(firstDay + index, position, offset).dayLength)
    : pinned.generations.map(() => 1)
  return { start, heat, ensemble: ensembleOf(heat), events, shares, moved }
}

/**
 * A shift by bloom on the scale of a model: as many days, at its own heat of these weeks. A biofix that was seen stands closer to the
 * organism than any bloom, so nothing is moved from there on.
 */
function movedBy(bloom: BloomPush | undefined, start: Start, heat: SeasonHeat): PlacedModel['moved'] {
  if (!bloom || start.how === 'entered' || start.how === 'none' || bloom.heat === 0) return null
  const to = Math.min(heat.median.length - 1, heat.todayIndex + 7)
  const from = Math.max(0, to - 21)
  const daily = ((heat.median[to] ?? 0) - (heat.median[from] ?? 0)) / Math.max(1, to - from)
  const scale = bloom.days !== 0 && daily > 0 ? (bloom.days * daily) / bloom.heat : 1
  return { heat: bloom.heat * scale, sd: bloom.sd * Math.abs(scale) }
}

/** The windows of a placed model: one for each generation that can be reached. */
export function windowsOf(organism: Organism, pinned: PinnedModel, { events, heat, ensemble, shares }: PlacedModel): WindowForecast[] {
  const length = seasonLater(heat.firstDay, 1) - heat.firstDay
  // Without weather to come nothing can be said of a window that may still be opening.
  if (heat.members.length === 0 || heat.knownDays < length) return []
  return pinned.generations.flatMap((generation, g) => {
    const reach = reachOf(events, generation.id, generation.reachableStages)
    if (!reach) return []
    const window = windowForecast(ensemble, reachHeat(reach), length)
    const opensOn = window.opens.p50
    const few = (shares[g] ?? 1) < LEAST_GENERATION
    return [
      {
        generation: generation.id,
        generationName: organism.generations.find(({ id }) => id === generation.id)?.name ?? generation.id,
        state: few ? ('not-this-season' as const) : windowState(window, heat.todayIndex),
        opens: dateBounds(window.opens),
        closes: dateBounds(window.closes),
        bestDay: dateBounds(window.bestDay),
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
  [
    ...organism.generations.map(({ id, name, usual }) => ({ id, name, usual })),
    { id: 'infection', name: 'infection', usual: organism.infection?.usual },
    { id: 'emergence', name: 'seedlings come up', usual: organism.emergence?.usual },
  ].flatMap(({ id, name, usual }) =>
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

/** How certain a forecast may be stated: dates, months, or not at all. */
function gradeOf({ watch, organism, block }: ForecastInput, { start, heat }: PlacedModel): WatchForecast['grade'] {
  if (block.basis === 'none') return 'calendar'
  if (heat.members.length === 0 || start.how === 'none') return 'none'
  const { pinned } = watch
  const unsure = pinned.confidence === undefined ? restsOnPlaceholder(organism) : pinned.confidence === 'placeholder'
  const unsureStart = start.how === 'expected' && pinned.expectedConfidence === 'placeholder'
  return unsure || unsureStart ? 'months' : 'dates'
}

/** When a biofix that nobody entered is expected, as days of the season. */
function expectedBiofix({ start, heat, ensemble }: PlacedModel): Bounds | null {
  const { expected } = start
  if (!expected) return null
  const at: ResolvedEvent = {
    generation: '',
    id: 'biofix',
    stage: '',
    spread: { kind: 'normal', median: expected.heat, sd: 1 },
    heatSe: expected.heatSe,
  }
  return heat.members.length > 0 ? boundsOfDates(datesOf(at, 0.5, heat.members, ensemble.scores), ensemble) : null
}

/** The forecast of one watch, without what was done and counted, and without what could be offered to it. */
export function forecastWatch(input: ForecastInput): Omit<WatchForecast, 'treatments' | 'rounds' | 'offer'> {
  const { watch, organism, block, hemisphere } = input
  const { pinned } = watch
  const placed = placeModel(input, pinned, watch.biofix)
  const { start, heat, ensemble, events, shares } = placed
  const { scores } = ensemble
  const dates = (share: number) => (heat.members.length > 0 ? eventBounds(events, share, ensemble).map(dateBounds) : undefined)
  const [begun, half] = [dates(BEGIN_SHARE), dates(0.5)]
  const { method, lower, upper, cutoff } = pinned.heat
  const nowIndex = Math.min(heat.todayIndex, heat.median.length) - 1
  const weightOf = (generation: string): number => shares[pinned.generations.findIndex(({ id }) => id === generation)] ?? 1
  const expected = expectedBiofix(placed)
  const { firstDay } = heat
  const startDay = start.how === 'expected' ? expectedDay(expected, firstDay) : start.day
  return {
    watch: presentedWatch(watch),
    organismName: organism.name,
    scientificName: organism.scientificName,
    kind: organism.kind,
    stages: organism.stages,
    generations: organism.generations.map(({ id, name, reachableStages }) => ({ id, name, reachableStages, share: weightOf(id) })),
    biofix: {
      how: start.how,
      kind: organism.biofix.kind,
      date: start.how === 'expected' || start.how === 'none' ? null : civilDate(start.day),
      expected: expected && dateBounds(expected),
    },
    events: events.map((event, i) => ({
      generation: event.generation,
      id: event.id,
      name: nameOf(organism, event.id),
      stage: event.stage,
      spread: event.spread,
      heatSe: event.heatSe,
      begins: begins(event),
      weight: weightOf(event.generation),
      dates: {
        begins: begun?.[i] ?? NOT_KNOWN,
        half: half?.[i] ?? NOT_KNOWN,
      },
    })),
    rule: { method, lower, ...(upper === undefined ? {} : { upper }), ...(cutoff ? { cutoff } : {}) },
    grade: gradeOf(input, placed),
    basis: block.basis,
    wide: isWide(heat),
    usual: usualOf(organism, hemisphere === 'south'),
    confidence: pinned.confidence ?? 'approximate',
    stationId: block.followed?.station.id ?? null,
    stationName: block.followed?.station.name ?? null,
    offset: block.place?.offset ?? { min: 0, max: 0 },
    heat: {
      todayIndex: heat.todayIndex,
      openIndex: heat.openIndex,
      biofixIndex: start.day - firstDay,
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
      scores: [...scores],
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
    windows: windowsOf(organism, pinned, placed),
    infection: pinned.infection
      ? forecastInfection({
          infection: pinned.infection,
          block,
          place: input.ground,
          events: input.wetEvents,
          heat,
          scores,
          start: startDay,
          memo: input.memo,
        })
      : null,
    emergence:
      pinned.emergence && heat.members.length > 0
        ? forecastEmergence(pinned.emergence, block, input.ground, start.day, ensemble, input.wetEvents)
        : null,
    ownFigures: pinned.own?.length ?? 0,
    bloom:
      placed.moved && input.bloom
        ? {
            ...placed.moved,
            days: input.bloom.days,
            blooms: input.bloom.blooms,
            held: input.bloom.held,
            opensWithout: windowsOf(organism, pinned, placeModel({ ...input, bloom: undefined }, pinned, watch.biofix)).map(
              ({ generation, opens }) => ({ generation, day: opens.p50 }),
            ),
          }
        : null,
  }
}

const NOT_KNOWN = { p10: null, p50: null, p90: null }

/** Whether too few past seasons tell how far years differ, so that bounds are wide; made ones know nothing of it. */
const isWide = ({ segments, knownDays, todayIndex }: SeasonHeat): boolean =>
  knownDays > todayIndex && segments.tails.filter(({ made, heat }) => !made && heat.length > 0).length < LEAST_PAST_SEASONS

/** The day number of the median of an expected date; undefined where it does not come in this season. */
const expectedDay = (expected: Bounds | null, firstDay: number): number | undefined =>
  expected && Number.isFinite(expected.p50) ? firstDay + Math.floor(expected.p50) : undefined
