import { MS_PER_HOUR } from '../time/durations.js'

/** What of a deed says how long it took. */
export interface TimedWork {
  /** As somebody measured it. */
  minutes: number | null
  /** Instants, ISO 8601. */
  startedAt: string
  endedAt: string | null
}

/**
 * Minutes of work: as measured, else from its beginning to its end.
 *
 * @returns null where neither is known
 * @example workMinutes({ minutes: null, startedAt: '2026-06-12T05:00:00Z', endedAt: '2026-06-12T06:30:00Z' }) // 90
 */
export const workMinutes = ({ minutes, startedAt, endedAt }: TimedWork): number | null =>
  minutes ?? (endedAt === null ? null : (Date.parse(endedAt) - Date.parse(startedAt)) / (MS_PER_HOUR / 60))
