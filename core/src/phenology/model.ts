import type { HeatRule } from '../heat/rule.js'
import { spreadThrough, type Spread } from './spread.js'

/**
 * One event in an organism's year: the begin of a stage, on the heat scale in °C·d.
 *
 * `heat` is the published figure and `atShare` the share of the population it refers to (a first catch is about 0.03).
 * `spread` is the standard deviation between individuals, `heatSe` the uncertainty of the figure itself, years included.
 * `countedFrom` names an earlier event whose median the heat counts from; without it heat counts from the biofix.
 */
export interface EventModel {
  id: string
  stage: string
  heat: number
  atShare: number
  spread: number
  heatSe: number
  distribution: 'lognormal' | 'normal' | 'logistic'
  countedFrom?: string
}

/** One generation: its events in order, each the begin of a stage that lasts until the next event. */
export interface GenerationModel {
  id: string
  events: readonly EventModel[]
  /** Stages, by name, that a treatment from outside can reach; they follow each other. */
  reachableStages: readonly string[]
}

/** An organism's year as data. Generations follow each other: the last stage of one ends as the first of the next begins. */
export interface OrganismModel {
  heat: HeatRule
  generations: readonly GenerationModel[]
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
 * All events of a model in order, medians derived. A figure counted from an earlier event adds that event's median and
 * both variances.
 *
 * @throws RangeError where `countedFrom` names no earlier event, or two events share an id.
 */
export function resolveEvents(model: OrganismModel): ResolvedEvent[] {
  const resolved: ResolvedEvent[] = []
  for (const generation of model.generations) {
    for (const event of generation.events) {
      if (resolved.some(({ id }) => id === event.id)) throw new RangeError(`event.id must be unique in the model, got ${event.id} twice`)
      const own = spreadThrough({ kind: event.distribution, heat: event.heat, atShare: event.atShare, sd: event.spread })
      resolved.push({ generation: generation.id, id: event.id, stage: event.stage, ...placed(event, own, resolved) })
    }
  }
  return resolved
}

function placed(event: EventModel, own: Spread, earlier: readonly ResolvedEvent[]): Pick<ResolvedEvent, 'spread' | 'heatSe'> {
  if (event.countedFrom === undefined) return { spread: own, heatSe: event.heatSe }
  const anchor = earlier.find(({ id }) => id === event.countedFrom)
  if (!anchor || anchor.spread.kind === 'weibull')
    throw new RangeError(`event.countedFrom must name an earlier event, got ${event.countedFrom} in ${event.id}`)
  return {
    spread: { kind: event.distribution, median: anchor.spread.median + own.median, sd: Math.hypot(anchor.spread.sd, event.spread) },
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
