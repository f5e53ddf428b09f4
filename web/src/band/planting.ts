import type { Chore, Job, PlantingDates } from '@bocado/contract'
import { FROST_BORNE, sowingPlans, stageDays, type SowingPlan } from '@bocado/core'

export type { SowingPlan }

type Date = PlantingDates['dates'][number]
type Meeting = PlantingDates['meetings'][number]

/** What of the meetings is looked at, each with its place in the dates. */
export interface Looked extends Meeting {
  at: number
}

/** Those that somebody watched here; all where none was. */
export function lookedAtFirst({ meetings }: Pick<PlantingDates, 'meetings'>): string[] {
  const here = meetings.filter(({ isKnownHere }) => isKnownHere)
  return (here.length > 0 ? here : meetings).map(({ organismId }) => organismId)
}

export const lookedAt = ({ meetings }: Pick<PlantingDates, 'meetings'>, ids: readonly string[]): Looked[] =>
  meetings.flatMap((meeting, at) => (ids.includes(meeting.organismId) ? [{ ...meeting, at }] : []))

/** The ways to choose a date, by what is looked at. */
export const plansBy = ({ dates, season }: PlantingDates, looked: readonly Looked[]): SowingPlan[] =>
  sowingPlans(
    dates.map((date) => ({ ...date, met: looked.flatMap(({ at, organismId }) => metOf(date, at, organismId)) })),
    season.first,
    season.days,
  )

function metOf({ met }: Date, at: number, id: string) {
  const one = met[at]
  return one ? [{ id, ...one }] : []
}

/** The most that a day meets of whatever is looked at, with bounds; null where nothing is looked at. */
export function mostMet(date: Date, looked: readonly Looked[]): { p10: number; p50: number; p90: number } | null {
  const shares = looked.flatMap(({ at }) => date.met[at]?.share ?? [])
  return shares.length === 0 ? null : shares.reduce((most, share) => (share.p50 > most.p50 ? share : most))
}

/** Whether a day is left out of the ways to choose one: frost comes too often, it is too cold to grow, or nothing ripens before the season's end. */
export const isBarred = ({ springFrost, autumnFrost, harvest, grows }: Date, days: number): boolean =>
  !grows || (springFrost ?? 0) > FROST_BORNE || (autumnFrost ?? 0) > FROST_BORNE || (harvest !== null && harvest.p50 >= days)

export interface StageSpan {
  stage: string
  /** Days of the season on which it begins: quick, usual, slow. */
  from: { quick: number; usual: number; slow: number }
}

/** When the stages of a crop that is begun on a day begin. */
export function stagesFrom({ crop, begins }: Pick<PlantingDates, 'crop' | 'begins'>, day: number): StageSpan[] {
  const [quick, usual, slow] = [0.1, 0.5, 0.9].map((pace) => stageDays(crop.stages, begins, pace)) as [
    Map<string, number>,
    Map<string, number>,
    Map<string, number>,
  ]
  return crop.stages.flatMap(({ id }) => {
    const [a, b, c] = [quick.get(id), usual.get(id), slow.get(id)]
    return a === undefined || b === undefined || c === undefined
      ? []
      : [{ stage: id, from: { quick: day + a, usual: day + b, slow: day + c } }]
  })
}

/** Between which days of the season a crop stands in what something comes to, at the usual pace. */
export function spanOf(
  stages: readonly StageSpan[],
  order: PlantingDates['crop']['stages'],
  { from, until }: Pick<Meeting, 'from' | 'until'>,
) {
  const dayOf = (id: string): number => {
    const at = order.findIndex((stage) => stage.id === id)
    if (at < 0) return Infinity
    const next = order.slice(at).find((stage) => stages.some((one) => one.stage === stage.id))
    return stages.find(({ stage }) => stage === next?.id)?.from.usual ?? Infinity
  }
  return { from: dayOf(from), until: dayOf(until) }
}

/** A cover over a crop that is begun on a day: when it comes off, and why; or that it may not, since something winters below it. */
export type CoverAdvice =
  | { kind: 'none' }
  | { kind: 'not'; organism: string; crop: string; until: string }
  | { kind: 'cover'; on: number; off: number; why: 'pollinated' | 'over'; stage: string | null }

/** Less than this share of its season is no attack to keep out. */
const HARDLY_ANY = 0.02

export function coverFor(dates: PlantingDates, day: number, looked: readonly Looked[]): CoverAdvice {
  const date = dates.dates[day]
  const [wasThere] = dates.sameFamily
  const comes = looked.filter(({ coverHelps, at }) => coverHelps && (date?.met[at]?.share.p50 ?? 0) > HARDLY_ANY)
  if (comes.length === 0) return { kind: 'none' }
  const below = wasThere && comes.find(({ wintersThere }) => wintersThere)
  if (below) return { kind: 'not', organism: below.name, crop: wasThere.cropName, until: wasThere.until }
  const stages = stagesFrom(dates, day)
  const over = Math.max(...comes.map((one) => spanOf(stages, dates.crop.stages, one).until))
  const open = stages.find(({ stage }) => stage === dates.crop.openFrom)?.from.quick
  return open !== undefined && open < over
    ? { kind: 'cover', on: day, off: Math.floor(open), why: 'pollinated', stage: dates.crop.openFrom }
    : { kind: 'cover', on: day, off: Math.min(dates.season.days - 1, Math.ceil(over)), why: 'over', stage: null }
}

/** A strip that draws something away is sown so many days before the crop. */
const STRIP_AHEAD_DAYS = 14

/** Strips that a date asks for, with the day of the season on which each is sown. */
export const stripsFor = (dates: PlantingDates, day: number, looked: readonly Looked[]): { organism: string; day: number }[] =>
  looked
    .filter(({ stripHelps, at }) => stripHelps && (dates.dates[day]?.met[at]?.share.p50 ?? 0) > HARDLY_ANY)
    .map(({ name }) => ({ organism: name, day: day - STRIP_AHEAD_DAYS }))
    .filter((strip) => strip.day >= dates.season.first)

/** Chores of one organism that are the same in several blocks, once. */
export function choresTogether(chores: readonly Chore[]): { chore: Chore; blocks: { id: string; name: string }[] }[] {
  const found: { chore: Chore; blocks: { id: string; name: string }[] }[] = []
  for (const chore of chores) {
    const same = found.find(
      ({ chore: one }) =>
        one.organismId === chore.organismId && one.until === chore.until && one.from === chore.from && one.by === chore.by,
    )
    const block = { id: chore.blockId, name: chore.blockName }
    if (same) same.blocks.push(block)
    else found.push({ chore, blocks: [block] })
  }
  return found
}

/** The work by which something stands on the schedule already. */
export const jobFor = (jobs: readonly Job[], placeId: string, name: string): Job | undefined =>
  jobs.find((job) => job.placeId === placeId && job.name === name && job.doneOn === null)
