import type { HeatRule } from '../heat/rule.js'
import type { EmergenceModel } from '../emergence/share.js'
import type { InfectionModel } from '../infection/infectionDays.js'
import type { DiapauseModel } from './diapause.js'
import { heatAtShare, sdOf, spreadThrough, type Spread } from './spread.js'

interface EventBase {
  id: string
  stage: string
  heat: number
  atShare: number
  heatSe: number
  countedFrom?: string
}

/**
 * One event in an organism's year: the begin of a stage, on the heat scale in °C·d.
 *
 * `heat` is the published figure and `atShare` the share of the population it refers to (a first catch is about 0.03).
 * `spread` is the standard deviation between individuals, for a Weibull given by `shape` and `onset`; `heatSe` the uncertainty of
 * the figure itself, years included. `countedFrom` names an earlier event whose median the heat counts from; without it heat counts
 * from the biofix.
 */
export type EventModel = EventBase &
  (
    | { distribution: 'lognormal' | 'normal' | 'logistic'; spread: number }
    | { distribution: 'weibull'; shape: number; onset: number; spread?: never }
  )

/** One generation: its events in order, each the begin of a stage that lasts until the next event. */
export interface GenerationModel {
  id: string
  events: readonly EventModel[]
  /** Stages, by name, that a treatment from outside can reach; they follow each other. */
  reachableStages: readonly string[]
  /** Day length that sends individuals into diapause at the event `at`; the others make the next generation. */
  diapause?: DiapauseModel & { at: string }
}

/** What starts an organism's heat. Months and days are those of the northern hemisphere. */
export type BiofixModel =
  | { kind: 'date'; month: number; day: number }
  | { kind: 'sustained-catch' | 'bloom'; expected: ExpectedBiofix }
  | { kind: 'chill'; portions: number }

/** Heat from the season's start, by the organism's rule, at which a biofix is expected until one is entered; °C·d. */
export interface ExpectedBiofix {
  heat: number
  heatSe: number
}

/** What ends an organism's season where it is no heat: the first frost of autumn, or days that have grown short. */
export type SeasonEndModel =
  /** °C that a night falls to. */
  | { by: 'frost'; limit: number }
  /** Hours of daylight, for leaf colour and growth that stops. */
  | { by: 'day-length'; limit: number }

/** An organism's year as data. Generations follow each other: the last stage of one ends as the first of the next begins. */
export interface OrganismModel {
  heat: HeatRule
  /** Without it heat counts from a date that somebody enters. */
  biofix?: BiofixModel
  generations: readonly GenerationModel[]
  infection?: {
    model: InfectionModel
    /** Heat since the biofix at which host or source is past it. */
    ends?: number
    latent: ExpectedBiofix
    curativeDays: number
  }
  emergence?: EmergenceModel
  /** What ends its season where that is no heat; the first that comes does. */
  ends?: readonly SeasonEndModel[]
}

/** An event with its distribution over individuals and the standard error of its position, both in °C·d. */
export interface ResolvedEvent {
  generation: string
  id: string
  stage: string
  spread: Spread
  heatSe: number
}

/**
 * All events of a model in order, medians derived. A figure counted from an earlier event adds that event's median and both
 * variances; with `expected`, heat counts from the season's start and every figure from the biofix that is expected there.
 *
 * @throws RangeError where `countedFrom` names no earlier event, or two events share an id.
 */
export function resolveEvents(model: Pick<OrganismModel, 'generations'>, expected?: ExpectedBiofix): ResolvedEvent[] {
  const resolved: ResolvedEvent[] = []
  for (const generation of model.generations) {
    for (const event of generation.events) {
      if (resolved.some(({ id }) => id === event.id)) throw new RangeError(`event.id must be unique in the model, got ${event.id} twice`)
      const placed = event.countedFrom === undefined ? placedFrom(expected, event) : placedAfter(event, event.countedFrom, resolved)
      resolved.push({ generation: generation.id, id: event.id, stage: event.stage, ...placed })
    }
  }
  return resolved
}

/** The event's own distribution, from where its heat counts. */
function ownSpread(event: EventModel): Spread {
  if (event.distribution === 'weibull')
    return { kind: 'weibull', median: medianOfWeibull(event.heat, event.atShare, event), shape: event.shape, onset: event.onset }
  return spreadThrough({ kind: event.distribution, heat: event.heat, atShare: event.atShare, sd: event.spread })
}

/** The median of the Weibull that has reached `atShare` at `heat`. */
function medianOfWeibull(heat: number, atShare: number, { onset, shape }: { onset: number; shape: number }): number {
  const reach = heatAtShare(atShare, { kind: 'weibull', median: onset + 1, shape, onset }) - onset
  return onset + (heat - onset) / reach
}

function placedFrom(expected: ExpectedBiofix | undefined, event: EventModel): Pick<ResolvedEvent, 'spread' | 'heatSe'> {
  const own = ownSpread(event)
  if (!expected) return { spread: own, heatSe: event.heatSe }
  return { spread: later(own, expected.heat), heatSe: Math.hypot(expected.heatSe, event.heatSe) }
}

/** A distribution moved to a later heat; its width stays what it was. */
function later(spread: Spread, by: number): Spread {
  const moved = { ...spread, median: spread.median + by }
  return moved.kind === 'weibull' ? { ...moved, onset: moved.onset + by } : moved
}

function placedAfter(event: EventModel, from: string, earlier: readonly ResolvedEvent[]): Pick<ResolvedEvent, 'spread' | 'heatSe'> {
  const anchor = earlier.find(({ id }) => id === from)
  if (!anchor) throw new RangeError(`event.countedFrom must name an earlier event, got ${from} in ${event.id}`)
  const own = ownSpread(event)
  const kind = own.kind === 'weibull' ? 'lognormal' : own.kind
  return {
    spread: { kind, median: anchor.spread.median + own.median, sd: Math.hypot(sdOf(anchor.spread), sdOf(own)) },
    heatSe: Math.hypot(anchor.heatSe, event.heatSe),
  }
}

/** A run of stages that can be reached together: from the event that begins it to the one that ends it, if any does. */
export interface Reach {
  enter: ResolvedEvent
  exit: ResolvedEvent | undefined
}

/**
 * Where the given stages of one generation begin and end.
 *
 * @returns undefined where the generation has none of them
 */
export function reachOf(events: readonly ResolvedEvent[], generation: string, stages: readonly string[]): Reach | undefined {
  const inReach = (event: ResolvedEvent): boolean => event.generation === generation && stages.includes(event.stage)
  const first = events.findIndex(inReach)
  if (first < 0) return undefined
  const last = events.findLastIndex(inReach)
  return { enter: events[first] as ResolvedEvent, exit: events[last + 1] }
}
