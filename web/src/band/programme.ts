import type { BloomRecord, Planting, Programme, ProgrammeStep, WatchForecast } from '@bocado/contract'
import { bloomSign, civilDate, currentWindow, dayNumber, programmeStates, type StepState } from '@bocado/core'
import { keyOf } from './means.js'

export { programmeSums, type ProgrammeSums, type StepState } from '@bocado/core'

/** Key of what a step is done with, as the ways to act are keyed. */
export const stepKey = ({ productId, methodId }: Pick<ProgrammeStep, 'productId' | 'methodId'>): string => keyOf({ productId, methodId })

/** Signs of the season that steps wait for, as somebody saw them: blooms of the site, and stages of the crop of each block. */
export interface Signs {
  blooms: ReadonlyMap<string, number>
  stagesIn: (blockId: string) => ReadonlyMap<string, number>
}

/** The earliest of several days by their names. */
function earliest(seen: readonly (readonly [name: string, day: number])[]): Map<string, number> {
  const first = new Map<string, number>()
  for (const [name, day] of seen) first.set(name, Math.min(day, first.get(name) ?? Infinity))
  return first
}

/** Signs of a season from what was written down of it. */
export const signsOf = (
  records: readonly BloomRecord[],
  plantings: readonly Planting[],
  season: string,
  blockOf: (placeId: string) => string,
): Signs => ({
  blooms: earliest(
    records.filter((one) => one.season === season && !one.notYet).map((one) => [bloomSign(one), dayNumber(one.seenFrom)] as const),
  ),
  stagesIn: (blockId) =>
    earliest(
      plantings
        .filter(({ placeId }) => blockOf(placeId) === blockId)
        .flatMap(({ stages }) => stages.flatMap(({ stage, seen }) => (seen ? [[stage, dayNumber(seen.on)] as const] : []))),
    ),
})

/** How each step of a programme stands today, by what was done and counted against its watch this season. */
export function stepStates({ steps }: Pick<Programme, 'steps'>, row: WatchForecast, today: string, signs: Signs): StepState[] {
  const done = new Map<string, number[]>()
  for (const treatment of row.treatments)
    if (treatment.done)
      done.set(
        keyOf(treatment),
        [...(done.get(keyOf(treatment)) ?? []), dayNumber(treatment.done.day)].sort((a, b) => a - b),
      )
  const begin = dayNumber(row.watch.season)
  const opens = row.grade === 'dates' && !row.infection ? (currentWindow(row)?.opens.p50 ?? null) : null
  return programmeStates(
    steps.map((step) => ({ means: stepKey(step), when: step.when, everyDays: step.everyDays, emptyChecks: step.emptyChecks })),
    {
      today: dayNumber(today),
      begin,
      done,
      opens: opens === null ? null : begin + Math.floor(opens),
      counts: row.rounds
        .filter(({ checkAreaId }) => checkAreaId === null)
        .map(({ countedOn, per100 }) => ({ day: dayNumber(countedOn), per100 })),
      blooms: signs.blooms,
      stages: signs.stagesIn(row.watch.blockId),
    },
  )
}

/** A step of a followed programme that comes up. */
export interface StepDue {
  row: WatchForecast
  programme: Programme
  step: ProgrammeStep
  /** Counted from 0. */
  at: number
  day: string
}

/** Steps of followed programmes that are due by a day and not planned yet. */
export function stepsDue(
  programmes: readonly Programme[],
  rows: readonly WatchForecast[],
  today: string,
  until: string,
  signs: Signs,
): StepDue[] {
  return programmes
    .filter(({ followed }) => followed)
    .flatMap((programme) => {
      const row = rows.find(({ watch }) => watch.id === programme.watchId)
      if (!row) return []
      const planned = new Set(row.treatments.filter(({ status }) => status === 'planned').map(keyOf))
      return stepStates(programme, row, today, signs).flatMap((state, at): StepDue[] => {
        const step = programme.steps[at]
        if (!step || state.state !== 'due' || planned.has(stepKey(step))) return []
        const day = civilDate(state.day)
        return day > until ? [] : [{ row, programme, step, at, day }]
      })
    })
}
