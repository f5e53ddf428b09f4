import type { Block, InfectionForecast, WatchForecast, WetEvent, WindowForecast } from '@bocado/contract'
import {
  civilDate,
  clockDates,
  dayNumber,
  dayInSeason,
  firstEnds,
  namedDates,
  generationWindows,
  heatOfBegin,
  placeModel,
  statement,
  usualMonths,
  winterVerdict,
  type BloomPush,
  type Bounds,
  type DiseaseRecords,
  type GenerationWindow,
  type Keep,
  type Statement,
} from '@bocado/core'
import { datedEvents, regions, restsOnPlaceholder, type Confidence, type DatableEvent, type Organism } from '@bocado/library'
import { wettingsOf } from '../blocks/wetEvents.js'
import type { Memo } from '../memo.js'
import type { GroundWeather } from '../weather/groundWeather.js'
import { dateBounds, finiteBounds } from './bounds.js'
import type { StoredClock } from './clocks.js'
import type { PinnedModel } from './models.js'
import { presentedWatch, type StoredWatch } from './store.js'

const rounded = (values: ArrayLike<number>): number[] => Array.from(values, (v) => Math.round(v * 1e3) / 1e3)
const NOT_KNOWN = { p10: null, p50: null, p90: null }

/** How far what was seen in bloom moves a season, and what that rests on. */
export interface StationPush extends BloomPush {
  blooms: number
  held: boolean
}

/** What a watch's forecast is made from. */
export interface ForecastInput {
  watch: StoredWatch
  organism: Organism
  block: GroundWeather
  ground: Pick<Block, 'soilTexture' | 'soilCover'>
  /** Waterings and condensation of the block. */
  wetEvents: readonly WetEvent[]
  memo: Memo
  /** Clocks that the block goes by for events without a figure. */
  clocks: readonly StoredClock[]
  /** Events of it that somebody saw in the block this season, with the first day of each. */
  seen?: readonly { event: string; day: string }[] | undefined
  /** What was recorded of it, where it is a disease. */
  disease?: DiseaseRecords | undefined
  /** The nearest find of it at another site that tells of it. */
  sourceNear?: { withinKm: number; day: string } | undefined
  /** What blooms say of the season at its station; undefined where they say nothing, or the watch does not follow them. */
  bloom?: StationPush | undefined
}

/** What is made on the way is held beside the weather that it was made from. */
export const keepBeside =
  ({ key }: Pick<GroundWeather, 'key'>, memo: Memo): Keep =>
  (what, make) =>
    memo.get(`${key} ${what}`, make)

const entered = (biofix: string | null): number | null => (biofix === null ? null : dayNumber(biofix))

/** How sure the numbers of a model are; watches that were pinned before that was kept go by the library. */
const confidenceOf = (pinned: PinnedModel, organism: Organism): Confidence =>
  pinned.confidence ?? (restsOnPlaceholder(organism) ? 'placeholder' : 'approximate')

/** Puts a pinned model on the weather of a block. */
export const placedAt = (
  block: GroundWeather,
  pinned: PinnedModel,
  biofix: string | null,
  memo: Memo,
  bloom?: BloomPush,
): ReturnType<typeof placeModel> => placeModel(pinned, entered(biofix), block, bloom, keepBeside(block, memo))

/** Windows of a pinned model at a block, as they are shown. */
export const windowsAt = (
  organism: Organism,
  pinned: PinnedModel,
  biofix: string | null,
  block: GroundWeather,
  memo: Memo,
  bloom?: BloomPush,
): WindowForecast[] => shownWindows(organism, generationWindows(pinned, placedAt(block, pinned, biofix, memo, bloom)))

const nameOf = (organism: Organism, eventId: string): string => datedEvents(organism).find(({ id }) => id === eventId)?.name ?? eventId

const shownWindows = (organism: Organism, windows: readonly GenerationWindow[]): WindowForecast[] =>
  windows.map(({ generation, state, opens, closes, bestDay, best, opensHeat, beginsWith }) => ({
    generation,
    generationName: organism.generations.find(({ id }) => id === generation)?.name ?? generation,
    state,
    opens: dateBounds(opens),
    closes: dateBounds(closes),
    bestDay: dateBounds(bestDay),
    best: finiteBounds(best),
    opensHeat,
    beginsWith: { name: nameOf(organism, beginsWith.event), heat: beginsWith.heat },
  }))

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

/** What a season usually is like for a generation, by the months of its region, moved to where the place's heat has them. */
function usualOf(organism: Organism, block: GroundWeather, grade: Statement['grade'], keep: Keep): WatchForecast['usual'] {
  return [
    ...organism.generations.map(({ id, name, usual }) => ({ id, name, usual })),
    { id: 'infection', name: 'infection', usual: organism.infection?.usual },
    { id: 'emergence', name: 'seedlings come up', usual: organism.emergence?.usual },
  ].flatMap(({ id, name, usual }) => {
    if (!usual) return []
    const { bloom, region } = usual
    const normals = grade === 'months' ? regions[region]?.months : undefined
    const moved = normals ? usualMonths(usual.months, normals, block, keep) : null
    const months = moved?.months ?? usual.months.map((m) => (block.hemisphere === 'south' ? ((m + 5) % 12) + 1 : m))
    return [{ generation: id, name, months, bloom, region, movedDays: moved?.movedDays ?? null }]
  })
}

const shownInfection = ({ days, usual, followUp, ...rest }: NonNullable<Statement['infection']>): InfectionForecast => ({
  ...rest,
  followUp: followUp && { ...followUp, due: finiteBounds(followUp.due) },
  days: days.map(({ probability, severity, total, symptoms, ...day }) => ({
    ...day,
    probability: Math.round(probability * 1000) / 1000,
    severity: Math.round(severity * 100) / 100,
    total: total === null ? null : Math.round(total * 10) / 10,
    symptoms: symptoms ? finiteBounds(symptoms) : NOT_KNOWN,
  })),
  usual: usual && { byNow: usual.byNow, perWeek: usual.perWeek.map((n) => Math.round(n * 100) / 100) },
})

function shownEmergence({ shares, flushes, half, ...rest }: NonNullable<Statement['emergence']>): WatchForecast['emergence'] {
  const at = (p: keyof Bounds): number[] => rounded(shares.map((share) => share[p]))
  return {
    ...rest,
    p10: at('p10'),
    p50: at('p50'),
    p90: at('p90'),
    flushes: flushes.map((flush) => ({ ...flush, share: Math.round(flush.share * 1000) / 1000 })),
    half: half ? dateBounds(half) : NOT_KNOWN,
  }
}

/** What the winter before did to what carries over. */
function winterOf(
  { carriesOver }: Organism,
  { place, weather, today }: GroundWeather,
  ground: ForecastInput['ground'],
): WatchForecast['winter'] {
  return carriesOver.flatMap(({ what, medium, killedBelow, alive, killed }) => {
    const found = place && winterVerdict({ medium, killedBelow: killedBelow.value }, place, ground.soilCover, weather.firstDay, today)
    if (!found) return []
    const { lowest, day, read, verdict } = found
    const then = verdict === 'killed' ? killed : alive
    return [
      { what, medium, killedBelow: killedBelow.value, lowest: Math.round(lowest * 10) / 10, day: civilDate(day), read, verdict, then },
    ]
  })
}

/** What ends the season of an organism, in the entry's words, with its day in each draw. */
function shownEnd(organism: Organism, { end, ends }: Statement): WatchForecast['end'] {
  if (!end) return null
  const what = organism.ends.find(({ by }) => by === end.by)?.what ?? end.by
  return { by: end.by, what, date: dateBounds(end.date), draws: firstEnds(ends).map((day) => (Number.isFinite(day) ? day : null)) }
}

function shownHeat({ heat, ensemble, start }: Statement, { ahead }: GroundWeather): WatchForecast['heat'] {
  const { segments } = heat
  const nowIndex = Math.min(heat.todayIndex, heat.median.length) - 1
  return {
    todayIndex: heat.todayIndex,
    openIndex: heat.openIndex,
    biofixIndex: start.day - heat.firstDay,
    knownDays: heat.knownDays,
    median: rounded(heat.median),
    segments: {
      startIndex: segments.startIndex,
      length: segments.length,
      observed: rounded(segments.observed),
      forecast: segments.forecast.map(rounded),
      seam: segments.seam.map(rounded),
      tails: segments.tails.map(({ pastSeason, made, heat: days }) => ({ pastSeason, made, heat: rounded(days) })),
    },
    scores: [...ensemble.scores],
    pastSeasons: segments.tails.filter(({ pastSeason }) => pastSeason !== heat.firstDay).length,
    madeSeasons: segments.tails.filter(({ made }) => made).length,
    forecast:
      ahead && heat.forecastDays > 0
        ? { issuedAt: ahead.issuedAt, members: ahead.members.length, days: heat.forecastDays, correctedFrom: ahead.correctedFrom }
        : null,
    filledShare: heat.filledShare,
    now: nowIndex >= 0 ? (heat.median[nowIndex] ?? 0) : 0,
    missing: runs(heat.missingDays),
  }
}

/** The forecast of one watch, without what was done and counted, and without what could be offered to it. */
export type ForecastOfWatch = Omit<WatchForecast, 'treatments' | 'rounds' | 'decision' | 'seen' | 'offer' | 'moved'>

export function forecastWatch(input: ForecastInput): ForecastOfWatch {
  const { watch, organism, block, ground, bloom } = input
  const { pinned } = watch
  const keep = keepBeside(block, input.memo)
  const made = statement({
    model: pinned,
    confidence: confidenceOf(pinned, organism),
    expectedConfidence: pinned.expectedConfidence,
    biofix: entered(watch.biofix),
    at: block,
    ground: { texture: ground.soilTexture, cover: ground.soilCover },
    wettings: wettingsOf(input.wetEvents, block.utcOffsetMinutes),
    disease: input.disease,
    bloom,
    keep,
  })
  const { start, events, shares, dates } = made
  const { method, lower, upper, cutoff } = pinned.heat
  const weightOf = (generation: string): number => shares[pinned.generations.findIndex(({ id }) => id === generation)] ?? 1
  return {
    watch: presentedWatch(watch),
    organismName: organism.name,
    scientificName: organism.scientificName,
    kind: organism.kind,
    stages: organism.stages,
    generations: organism.generations.map(({ id, name, reachableStages }) => ({
      id,
      name,
      // The watch keeps the reach of the model that it is pinned to.
      reachableStages: [...(pinned.generations.find((generation) => generation.id === id)?.reachableStages ?? reachableStages)],
      share: weightOf(id),
    })),
    biofix: {
      how: start.how,
      kind: organism.biofix.kind,
      date: start.how === 'expected' || start.how === 'none' ? null : civilDate(start.day),
      expected: made.expected && dateBounds(made.expected),
    },
    events: events.map((event, i) => ({
      ...event,
      name: nameOf(organism, event.id),
      begins: heatOfBegin(event),
      weight: weightOf(event.generation),
      dates: dates?.[i] ? { begins: dateBounds(dates[i].begins), half: dateBounds(dates[i].half) } : { begins: NOT_KNOWN, half: NOT_KNOWN },
    })),
    rule: { method, lower, ...(upper === undefined ? {} : { upper }), ...(cutoff ? { cutoff } : {}) },
    grade: made.grade,
    basis: block.basis,
    wide: made.wide,
    usual: usualOf(organism, block, made.grade, keep),
    confidence: pinned.confidence ?? 'approximate',
    stationId: block.followed?.station.id ?? null,
    stationName: block.followed?.station.name ?? null,
    offset: block.place?.offset ?? { min: 0, max: 0 },
    heat: shownHeat(made, block),
    windows: shownWindows(organism, made.windows),
    breedsOn: organism.breeds === 'continuous',
    named: datedEvents(organism)
      .filter(({ hasFigure }) => !hasFigure)
      .map((event) => ({ id: event.id, name: event.name, clock: expectedBy(event, input) })),
    end: shownEnd(organism, made),
    winter: winterOf(organism, block, ground),
    infection: made.infection && shownInfection(made.infection),
    emergence: made.emergence && shownEmergence(made.emergence),
    sourceNear: input.sourceNear ?? null,
    ownFigures: pinned.own?.length ?? 0,
    bloom:
      made.moved && bloom
        ? {
            ...made.moved,
            days: bloom.days,
            blooms: bloom.blooms,
            held: bloom.held,
            opensWithout: shownWindows(organism, made.windowsWithoutBloom ?? []).map(({ generation, opens }) => ({
              generation,
              day: opens.p50,
            })),
          }
        : null,
  }
}

/** When a clock of the block's own records tells an event, or else a published sum of heat. */
function expectedBy(event: DatableEvent, input: ForecastInput): WatchForecast['named'][number]['clock'] {
  const { block, memo, clocks } = input
  const clock = clocks.find((one) => one.event === event.id)
  if (clock) {
    const { lower, heat, heatSe, seasons, typed } = clock
    if (typed) {
      const rule = { method: 'single-sine' as const, lower, ...(typed.upper === null ? {} : { upper: typed.upper }) }
      const [month = 0, day = 0] = typed.startsOn?.split('-').map(Number) ?? []
      // As it was typed for this place: a southern March is a March.
      const start = typed.startsOn === null ? block.weather.firstDay : dayInSeason(month, day, block.weather.firstDay, 'north')
      const told = namedDates({ rule, heat, heatSe }, start, block, keepBeside(block, memo))
      return { seasons, date: told ? dateBounds(told) : NOT_KNOWN, by: 'typed', source: typed.source || null }
    }
    const date = clockDates({ lower, heat, heatSe, df: seasons - 1 }, block, keepBeside(block, memo))
    return { seasons, date: date ? dateBounds(date) : NOT_KNOWN, by: 'own', source: null }
  }
  const { figure } = event
  const startDay = figure && startOf(figure, input)
  if (!figure || startDay === undefined) return null
  const { lower, upper, heat, heatSe } = figure
  const rule = { method: 'single-sine' as const, lower: lower.value, ...(upper ? { upper: upper.value } : {}) }
  const date = namedDates({ rule, heat: heat.value, heatSe: heatSe.value }, startDay, block, keepBeside(block, memo))
  const source = heat.source.kind === 'paper' ? `${heat.source.authors} ${heat.source.year}` : null
  return date ? { seasons: 0, date: dateBounds(date), by: 'published', source } : null
}

/** Day number from which a published sum counts; undefined while what it waits for was not seen. */
function startOf({ from }: NonNullable<DatableEvent['figure']>, { block, seen }: ForecastInput): number | undefined {
  if ('month' in from) return dayInSeason(from.month, from.day, block.weather.firstDay, block.hemisphere)
  const day = seen?.find(({ event }) => event === from.after)?.day
  return day === undefined ? undefined : dayNumber(day)
}
