import { MS_PER_HOUR } from '@bocado/core/time'

/** Time spent counting, as taps tell it. */
export interface Spent {
  ms: number
  /** When something was tapped last, by the clock of the device. */
  lastAt: number | null
}

const MS_PER_MINUTE = MS_PER_HOUR / 60
/** A longer pause between two taps is none of counting: the phone was in the pocket, or the walk goes on tomorrow. */
const LONGEST_MS = 5 * MS_PER_MINUTE

/** The time after one more tap. */
export const tapped = ({ ms, lastAt }: Spent, now: number): Spent => {
  const since = lastAt === null ? 0 : now - lastAt
  return { ms: since > 0 && since <= LONGEST_MS ? ms + since : ms, lastAt: now }
}

/** It in whole minutes, at least one where anything was counted; null where nothing was. */
export const minutesOf = ({ ms }: Spent): number | null => (ms > 0 ? Math.max(1, Math.round(ms / MS_PER_MINUTE)) : null)
