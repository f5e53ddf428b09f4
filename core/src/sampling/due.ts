import type { Urgency } from '../forecast/urgency.js'

/** Why something is to be counted. */
export const countReasons = ['look-again', 'undecided', 'window', 'coming', 'breeds-on', 'months'] as const
export type CountReason = (typeof countReasons)[number]

/** What is known of a watch when its next count is asked for; days as day numbers. */
export interface Countable {
  today: number
  urgency: Urgency
  /** Day on which the window that is next opens at the earliest; null where none does. */
  opens: number | null
  breedsOn: boolean
  /** It can be reached this month, as far as months tell. */
  isItsMonth: boolean
  last: { day: number; verdict: 'act' | 'stop' | 'undecided' | 'too-few' | null } | null
  /** What was over its threshold was left until that day. */
  lookAgainOn: number | null
}

/** A count between its lines is gone on with after so many days. */
const UNDECIDED_AFTER_DAYS = 3
/** While a window is open, or what breeds on goes on, it is counted once in so many days. */
const WEEK_DAYS = 7
/** What is known by months only changes slowly, and is counted once in so many days. */
const FORTNIGHT_DAYS = 14
/** Counting begins so many days before a window opens at the earliest. */
const BEFORE_WINDOW_DAYS = 7
/** A count that is older decides nothing any more. */
const OLD_DAYS = 14

/**
 * When a watch is to be counted next, and why: on the day that a decision waits for; again where the last count left it open; each week while its
 * window is open or about to be; each fortnight in the months in which it can be reached, where months are all that is known.
 *
 * @returns the day, never before today where nothing was counted yet; null where nothing asks for a count
 * @example countDue({ today: 100, urgency: 'open', opens: 95, breedsOn: false, isItsMonth: true, last: { day: 98, verdict: 'stop' }, lookAgainOn: null }) // { day: 105, because: 'window' }
 */
export function countDue(c: Countable): { day: number; because: CountReason } | null {
  const after = (days: number): number => (c.last ? c.last.day + days : c.today)
  if (c.lookAgainOn !== null) return { day: c.lookAgainOn, because: 'look-again' }
  const isOpenYet = c.last?.verdict === 'undecided' || c.last?.verdict === 'too-few'
  if (c.last && isOpenYet && c.today - c.last.day <= OLD_DAYS) return { day: after(UNDECIDED_AFTER_DAYS), because: 'undecided' }
  if (c.urgency === 'open' || c.urgency === 'closing') return { day: after(WEEK_DAYS), because: 'window' }
  if (c.urgency === 'coming' && c.opens !== null && c.opens - c.today <= BEFORE_WINDOW_DAYS)
    return { day: after(WEEK_DAYS), because: 'coming' }
  if (c.breedsOn && c.urgency === 'quiet') return { day: after(WEEK_DAYS), because: 'breeds-on' }
  if (c.urgency === 'unknown' && c.isItsMonth) return { day: after(FORTNIGHT_DAYS), because: 'months' }
  return null
}

/** Days between two checks of a trap as long as its own checks do not tell. */
const TRAP_DAYS = 7
/** Checks whose gaps tell how often it is looked at. */
const GAPS = 5

/**
 * The day on which a trap is to be checked next: after as many days as lay between its last checks, in the middle.
 *
 * @param hungOn day number
 * @param checks day numbers in their order
 * @example trapDue(100, [103, 107, 110]) // 113
 */
export function trapDue(hungOn: number, checks: readonly number[]): number {
  const days = [hungOn, ...checks].slice(-GAPS - 1)
  const gaps = days.slice(1).map((day, i) => day - (days[i] as number))
  const sorted = [...gaps].sort((a, b) => a - b)
  return (days.at(-1) as number) + (sorted[Math.floor((sorted.length - 1) / 2)] ?? TRAP_DAYS)
}

/** Of fewer times measured one does not say how long something takes. */
const LEAST_TIMES = 3

/** How long something usually takes, by the middle of the times that were measured; null before there are three. */
export function usualMinutes(times: readonly number[]): number | null {
  const sorted = [...times].sort((a, b) => a - b)
  return sorted.length < LEAST_TIMES ? null : (sorted[Math.floor(sorted.length / 2)] as number)
}
