import { requireAtLeast } from '../guards.js'
import { MS_PER_DAY } from '../time/durations.js'

/** When a step of a programme is due. */
export type StepWhen =
  /** As soon as the programme begins. */
  | { kind: 'at-once' }
  /** So many days after another step was last done; steps count from 0. */
  | { kind: 'after'; step: number; days: number }
  /** In months of the year, 1 to 12. */
  | { kind: 'months'; months: readonly number[] }
  /** When the window of the watch opens. */
  | { kind: 'window' }
  /** When what grows again is so many cm high: somebody has to look. */
  | { kind: 'regrowth'; cm: number }
  /** When a count finds at least so many per 100 items. */
  | { kind: 'count'; per100: number }
  /** So many days after a bloom was seen. */
  | { kind: 'bloom'; plantId: string; event: string; days: number }
  /** When the crop of the block was seen in a stage. */
  | { kind: 'crop-stage'; stage: string }

/** A step: what is done with which means, when, and how often. */
export interface ProgrammeStep {
  /** Key of its means: what was done with the same counts as this step. */
  means: string
  when: StepWhen
  /** Done again after so many days; null: once. */
  everyDays: number | null
  /** Ends after so many looks in a row that found nothing; null: it has no such end. */
  emptyChecks: number | null
}

/** What is known of a season, day numbers throughout. */
export interface ProgrammeKnown {
  today: number
  /** First day of the season. */
  begin: number
  /** Days on which something was done, by the key of its means, ascending. */
  done: ReadonlyMap<string, readonly number[]>
  /** Day on which the window opens; null where nobody knows. */
  opens: number | null
  /** The last counts of the block, the newest last. */
  counts: readonly { day: number; per100: number }[]
  /** First day on which each bloom was seen, by `bloomSign`. */
  blooms: ReadonlyMap<string, number>
  /** First day on which the crop of the block was seen in each stage. */
  stages: ReadonlyMap<string, number>
}

/** The name of a bloom among those that were seen. */
export const bloomSign = ({ plantId, event }: { plantId: string; event: string }): string => `${plantId} ${event}`

/** How a step stands: due since or from a day; waiting for somebody to look, for another step, or for what nobody knows; done; or over. */
export type StepState =
  | { state: 'due'; day: number }
  | { state: 'look'; cm: number; lastDone: number | null }
  | { state: 'waits' }
  | { state: 'done'; day: number }
  | { state: 'over'; empty: number }

/** First day of the next month of a list, or today where it is one of them; months count from 1. */
function nextInMonths(months: readonly number[], today: number): number | null {
  for (let ahead = 0; ahead <= 366; ahead++) {
    const date = new Date((today + ahead) * MS_PER_DAY)
    if (months.includes(date.getUTCMonth() + 1)) return today + ahead
  }
  return null
}

/** Looks in a row, from the newest back, that found nothing. */
const emptyInARow = (counts: ProgrammeKnown['counts']): number => {
  const last = counts.findLastIndex(({ per100 }) => per100 > 0)
  return counts.length - 1 - last
}

/** The day on which a step is due for the first time; null while nobody knows. */
function firstDue(when: StepWhen, steps: readonly ProgrammeStep[], known: ProgrammeKnown): number | null {
  const { today, begin, opens, counts, done, blooms, stages } = known
  switch (when.kind) {
    case 'at-once':
      return begin
    case 'after': {
      const before = steps[when.step]
      const last = before && done.get(before.means)?.at(-1)
      return last === undefined ? null : last + when.days
    }
    case 'months':
      return nextInMonths(when.months, today)
    case 'window':
      return opens
    case 'count': {
      const over = counts.findLast(({ per100 }) => per100 >= when.per100)
      return over && over === counts.at(-1) ? over.day : null
    }
    case 'bloom': {
      const seen = blooms.get(bloomSign(when))
      return seen === undefined ? null : seen + when.days
    }
    case 'crop-stage':
      return stages.get(when.stage) ?? null
    case 'regrowth':
      return null
  }
}

/**
 * How each step of a programme stands. What is repeated is due again after its interval until so many looks in a row found nothing; what grows
 * again is due when somebody has seen how high it is.
 *
 * @returns one for each step, in their order
 */
export function programmeStates(steps: readonly ProgrammeStep[], known: ProgrammeKnown): StepState[] {
  return steps.map(({ means, when, everyDays, emptyChecks }): StepState => {
    const last = known.done.get(means)?.at(-1) ?? null
    const since = known.counts.filter(({ day }) => last !== null && day >= last)
    const empty = emptyInARow(since)
    if (emptyChecks !== null && last !== null && empty >= emptyChecks) return { state: 'over', empty }
    if (when.kind === 'regrowth') return { state: 'look', cm: when.cm, lastDone: last }
    if (last !== null) return everyDays === null ? { state: 'done', day: last } : { state: 'due', day: last + everyDays }
    const day = firstDue(when, steps, known)
    return day === null ? { state: 'waits' } : { state: 'due', day }
  })
}

/** What one visit of a step takes. */
export interface StepCosts {
  /** Visits in the first, the second and the third year. */
  visits: readonly [first: number, second: number, third: number]
  /** Of one visit; null: nobody said. */
  hours: number | null
  litres: number | null
  bags: number | null
  money: number | null
}

/** Sums over three years. A sum of what nobody said of any step is null; `missing` says of how many it is unknown. */
export interface ProgrammeSums {
  visits: number
  hours: number | null
  litres: number | null
  bags: number | null
  money: number | null
  missing: { hours: number; litres: number; bags: number; money: number }
}

/**
 * What a programme takes over three years.
 *
 * @param hourly money that an hour of work costs; null leaves work out of the money
 * @throws RangeError for a negative number of visits
 * @example programmeSums([{ visits: [3, 2, 1], hours: 4, litres: null, bags: 5, money: null }], null).hours // 24
 */
export function programmeSums(steps: readonly StepCosts[], hourly: number | null): ProgrammeSums {
  const visitsOf = ({ visits }: StepCosts): number =>
    visits.reduce((sum, one) => {
      requireAtLeast('visits', one, 0)
      return sum + one
    }, 0)
  const missing = { hours: 0, litres: 0, bags: 0, money: 0 }
  const sum = (of: keyof typeof missing): number | null => {
    const known = steps.filter((step) => step[of] !== null)
    missing[of] = steps.length - known.length
    return known.length === 0 ? null : known.reduce((all, step) => all + visitsOf(step) * (step[of] as number), 0)
  }
  const hours = sum('hours')
  const spent = sum('money')
  const work = hours === null || hourly === null ? null : hours * hourly
  const money = spent === null && work === null ? null : (spent ?? 0) + (work ?? 0)
  return { visits: steps.reduce((all, step) => all + visitsOf(step), 0), hours, litres: sum('litres'), bags: sum('bags'), money, missing }
}
