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
  /** Use cases that hold a connection, and those that wait for one. */
  held = 0
  waiting = 0

  constructor(
    url: string,
    connections: number,
    private readonly patienceMs: number,
    settings: string,
  ) {
    this.pool = openPool(url, connections)
    // Queued before anything that a use case asks of the connection.
    this.pool.pool.on('connection', (connection) => {
      connection.query(settings, () => undefined)
    })
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
      this.held++
      return connection
    } catch (error) {
      // It may still come, for nobody.
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

  give(connection: PoolConnection, broken: boolean): void {
    this.held--
    if (broken) connection.destroy()
    else connection.release()
  }

  end(): Promise<void> {
    return this.pool.end()
  }
}
