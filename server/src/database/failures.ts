import { Busy } from './pool.js'
import { SessionEnded, TookTooLong } from './session.js'

const CONNECTION_GONE = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'PROTOCOL_CONNECTION_LOST',
  'PROTOCOL_SEQUENCE_TIMEOUT',
  'ER_SERVER_SHUTDOWN',
  'ER_CON_COUNT_ERROR',
])
/** Two use cases were in each other's way: a deadlock, a lock that did not come free, a row changed since the snapshot. */
const IN_THE_WAY = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD'])
const NO_ROOM = new Set(['ER_DISK_FULL', 'ER_RECORD_FILE_FULL', 'ER_ERROR_ON_WRITE', 'ER_DISK_FULL_NOWAIT', 'ENOSPC', 'EDQUOT'])

const codeOf = (error: unknown): string => (error as { code?: string } | null)?.code ?? ''
const messageOf = (error: unknown): string => (error as { message?: string } | null)?.message ?? ''

/** Whether an error means that the database cannot be reached now, so that trying again is right. */
export const isUnreachable = (error: unknown): boolean =>
  CONNECTION_GONE.has(codeOf(error)) || /closed state|Connection lost/i.test(messageOf(error))

/** Whether a use case failed only because of others beside it, and may be done over. */
export const isInTheWay = (error: unknown): boolean => IN_THE_WAY.has(codeOf(error)) || error instanceof SessionEnded

/** Whether nothing could be stored because the disk is full. */
export const isFull = (error: unknown): boolean =>
  NO_ROOM.has(codeOf(error)) || /No space left on device|errno:? ?28\b|error 28\b/i.test(messageOf(error))

/** Whether a use case ran out of the time that it has. */
export const isLate = (error: unknown): boolean =>
  error instanceof Busy || error instanceof TookTooLong || codeOf(error) === 'ER_STATEMENT_TIMEOUT'
