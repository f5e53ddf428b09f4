import { createPool, type Pool as MysqlPool, type PoolConnection, type RowDataPacket } from 'mysql2/promise'

export type Row = RowDataPacket
export type { PoolConnection }

/** `2026-06-12 05:00:00` as the database gives a UTC moment, to ISO 8601. */
export const instantOf = (text: string): string => `${text.slice(0, 19).replace(' ', 'T')}Z`
/** ISO 8601 or a Date to the form that the database takes. */
export const sqlInstant = (moment: string | Date): string => new Date(moment).toISOString().slice(0, 19).replace('T', ' ')

/** MariaDB hands JSON columns over as text. */
export const jsonOf = <T>(column: unknown): T => (typeof column === 'string' ? (JSON.parse(column) as T) : (column as T))

/** Plain connections to the database of the URL. Dates come as text, moments as UTC. */
export function openPool(url: string, connections = 8): MysqlPool {
  return createPool({
    uri: url,
    connectionLimit: connections,
    dateStrings: true,
    timezone: 'Z',
    charset: 'utf8mb4',
    connectTimeout: 4000,
    enableKeepAlive: true,
  })
}

/** No connection came free in time: everything is in use, or the database does not answer. */
export class Busy extends Error {}

/** Connections of one kind, handed out to one use case at a time. Nobody waits for one longer than it is patient. */
export class Connections {
  private readonly pool: MysqlPool
  /** Connections that have their settings already. */
  private readonly ready = new WeakSet<object>()
  /** Use cases that hold a connection, and those that wait for one. */
  held = 0
  waiting = 0

  constructor(
    url: string,
    connections: number,
    private readonly patienceMs: number,
    private readonly settings: readonly string[],
  ) {
    this.pool = openPool(url, connections)
  }

  async take(): Promise<PoolConnection> {
    this.waiting++
    const asked = this.pool.getConnection()
    let timer: NodeJS.Timeout | undefined
    const late = new Promise<never>((_, reject) => {
      timer = setTimeout(() => reject(new Busy('no connection came free')), this.patienceMs)
    })
    try {
      const connection = await Promise.race([asked, late])
      await this.settle(connection)
      this.held++
      return connection
    } catch (error) {
      // It may still come, for nobody.
      if (error instanceof Busy)
        asked.then(
          (connection) => connection.release(),
          () => undefined,
        )
      throw error
    } finally {
      clearTimeout(timer)
      this.waiting--
    }
  }

  /** A connection works by its settings, or not at all. */
  private async settle(connection: PoolConnection): Promise<void> {
    if (this.ready.has(connection.connection)) return
    try {
      for (const sql of this.settings) await connection.query({ sql, timeout: this.patienceMs })
      this.ready.add(connection.connection)
    } catch (error) {
      connection.destroy()
      throw error
    }
  }

  give(connection: PoolConnection, broken: boolean): void {
    this.held--
    if (broken) connection.destroy()
    else connection.release()
  }

  end(): Promise<void> {
    return this.pool.end()
  }
}
