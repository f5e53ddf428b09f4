import { createPool, type Pool, type PoolConnection, type RowDataPacket } from 'mysql2/promise'

export type Database = Pool
/** A connection inside a transaction. */
export type Transaction = PoolConnection
/** Either: a read may run on its own or inside a write. */
export type Queryable = Pool | PoolConnection
export type Row = RowDataPacket

/** A pool over the database of the URL. Dates come as text, moments as UTC. */
export function openDatabase(url: string): Database {
  return createPool({
    uri: url,
    connectionLimit: 8,
    dateStrings: true,
    timezone: 'Z',
    charset: 'utf8mb4',
    connectTimeout: 5000,
    enableKeepAlive: true,
  })
}

/** `2026-06-12 05:00:00` as the database gives a UTC moment, to ISO 8601. */
export const instantOf = (text: string): string => `${text.slice(0, 19).replace(' ', 'T')}Z`
/** ISO 8601 or a Date to the form that the database takes. */
export const sqlInstant = (moment: string | Date): string => new Date(moment).toISOString().slice(0, 19).replace('T', ' ')

/** MariaDB hands JSON columns over as text. */
export const jsonOf = <T>(column: unknown): T => (typeof column === 'string' ? (JSON.parse(column) as T) : (column as T))

const UNREACHABLE = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'PROTOCOL_CONNECTION_LOST',
  'ER_SERVER_SHUTDOWN',
  'ER_CON_COUNT_ERROR',
  'ER_LOCK_WAIT_TIMEOUT',
  'ER_LOCK_DEADLOCK',
])

/** Whether an error means that the database cannot be reached now, so that trying again is right. */
export function isUnreachable(error: unknown): boolean {
  const { code, message } = error as { code?: string; message?: string }
  return (code !== undefined && UNREACHABLE.has(code)) || /closed state|Connection lost/i.test(message ?? '')
}
