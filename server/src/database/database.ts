import { setTimeout as sleep } from 'node:timers/promises'
import { createConnection, type Connection } from 'mysql2/promise'
import { isFull, isInTheWay } from './failures.js'
import { Connections, type PoolConnection, type Row } from './pool.js'
import { MOST_ATTEMPTS, raiseVersions } from './aspects.js'
import { Session, type Transaction } from './session.js'

const READS = { connections: 10, patienceMs: 4000, deadlineMs: 20_000 }
const WRITES = { connections: 6, patienceMs: 6000, deadlineMs: 25_000 }
/** An import of millions of readings takes minutes; few are stored at a time. */
const LONG = { deadlineMs: 900_000, statementMs: 600_000 }
const TRIES = 4

export interface Health {
  /** Whether the database answers, and if not, how it fails. */
  database: 'ok' | 'silent' | 'unreachable'
  /** Whether the last write found room on the disk. */
  disk: 'ok' | 'full'
  reads: { held: number; waiting: number }
  writes: { held: number; waiting: number }
  /** Work beside requests that failed for good: what follows from it is shown as it was. */
  work: { failed: number }
}

export interface WriteOptions {
  /** For imports: the time-outs of ordinary writes do not hold. */
  long?: boolean
}

/**
 * The database as use cases see it. Each holds one connection from its begin to its end: a read sees one state of everything, a write
 * stores all that it does or nothing. What fails because of others beside it is done over.
 */
export class Database {
  private readonly reads: Connections
  private readonly writes: Connections
  private full = false
  private probe: Promise<Health['database']> | undefined
  private prober: Connection | undefined
  private failedWork = 0

  /** @param connections how many use cases of each kind may run at a time */
  constructor(
    private readonly url: string,
    connections: { reads: number; writes: number } = { reads: READS.connections, writes: WRITES.connections },
  ) {
    const settings = (isolation: string): string[] => [
      `SET SESSION TRANSACTION ISOLATION LEVEL ${isolation}`,
      'SET SESSION innodb_lock_wait_timeout = 5, max_statement_time = 14',
    ]
    this.reads = new Connections(url, connections.reads, READS.patienceMs, settings('REPEATABLE READ'))
    this.writes = new Connections(url, connections.writes, WRITES.patienceMs, settings('READ COMMITTED'))
  }

  /** Runs a read: everything it asks is answered from one moment, and it can store nothing. */
  read<T>(work: (db: Session) => Promise<T>): Promise<T> {
    return this.tried(this.reads, READS.deadlineMs, ['START TRANSACTION WITH CONSISTENT SNAPSHOT, READ ONLY'], [], work)
  }

  /** Runs a write in one transaction: all of it is stored, or nothing. */
  async write<T>(work: (tx: Transaction) => Promise<T>, { long = false }: WriteOptions = {}): Promise<T> {
    const before = long ? [`SET SESSION max_statement_time = ${LONG.statementMs / 1000}, innodb_lock_wait_timeout = 120`] : []
    const after = long ? ['SET SESSION max_statement_time = 14, innodb_lock_wait_timeout = 5'] : []
    try {
      const result = await this.tried(
        this.writes,
        long ? LONG.deadlineMs : WRITES.deadlineMs,
        [...before, 'START TRANSACTION'],
        after,
        work,
        long,
      )
      this.full = false
      return result
    } catch (error) {
      if (isFull(error)) this.full = true
      throw error
    }
  }

  /** Runs work that needs a connection to itself for longer than a use case may take, such as the package of a site. */
  async alone<T>(work: (connection: Connection) => Promise<T>): Promise<T> {
    const connection = await createConnection({ uri: this.url, dateStrings: true, timezone: 'Z', charset: 'utf8mb4' })
    try {
      return await work(connection)
    } finally {
      await connection.end()
    }
  }

  private async tried<T>(
    connections: Connections,
    deadlineMs: number,
    before: readonly string[],
    after: readonly string[],
    work: (session: Session) => Promise<T>,
    long = false,
  ): Promise<T> {
    const deadline = Date.now() + deadlineMs
    for (let attempt = 1; ; attempt++) {
      try {
        return await once(connections, deadline, before, after, work, long)
      } catch (error) {
        if (!isInTheWay(error) || attempt >= TRIES || Date.now() > deadline - 2000) throw error
        await sleep(Math.random() * 40 * 2 ** attempt)
      }
    }
  }

  /** Whether everything works that the server needs of the database. Always answers within a second. */
  async health(): Promise<Health> {
    this.probe ??= this.ask().finally(() => (this.probe = undefined))
    const { reads, writes } = this
    return {
      database: await this.probe,
      disk: this.full ? 'full' : 'ok',
      reads: { held: reads.held, waiting: reads.waiting },
      writes: { held: writes.held, waiting: writes.waiting },
      work: { failed: this.failedWork },
    }
  }

  private async ask(): Promise<Health['database']> {
    // A connection of its own: it must not wait for the others.
    const asked = (async (): Promise<Health['database']> => {
      if (!this.prober) {
        this.prober = await createConnection({ uri: this.url, connectTimeout: 600 })
        // What breaks it is told by the next query.
        this.prober.on('error', () => undefined)
      }
      const sql = 'SELECT COUNT(*) AS failed FROM work WHERE attempts >= ?'
      const [[row]] = await this.prober.query<Row[]>({ sql, values: [MOST_ATTEMPTS], timeout: 600 })
      this.failedWork = Number(row?.['failed'])
      return 'ok'
    })()
    const late = sleep(750).then((): Health['database'] => 'silent')
    const answer = await Promise.race([
      asked.catch((error: unknown): Health['database'] => {
        const { code } = error as { code?: string }
        return code === 'PROTOCOL_SEQUENCE_TIMEOUT' || code === 'ETIMEDOUT' ? 'silent' : 'unreachable'
      }),
      late,
    ])
    if (answer !== 'ok') {
      this.prober?.destroy()
      this.prober = undefined
    }
    return answer
  }

  async end(): Promise<void> {
    this.prober?.destroy()
    await Promise.all([this.reads.end(), this.writes.end()])
  }
}

async function once<T>(
  connections: Connections,
  deadline: number,
  before: readonly string[],
  after: readonly string[],
  work: (session: Session) => Promise<T>,
  long: boolean,
): Promise<T> {
  const connection = await connections.take()
  const session = new Session(
    connection,
    deadline,
    long ? LONG.statementMs : undefined,
    before.some((sql) => sql.includes('SNAPSHOT')),
  )
  let settled = false
  try {
    for (const sql of before) await session.query(sql)
    const result = await work(session)
    if (session.touched.size > 0) session.changed = await raiseVersions(session, session.touched, session.soonMs)
    await session.query('COMMIT')
    for (const sql of after) await session.query(sql)
    settled = true
    return result
  } finally {
    session.end()
    const clean = settled || (!session.broken && (await rolledBack(connection, after)))
    connections.give(connection, !clean)
  }
}

/** A connection whose rollback fails is not to be used again. */
async function rolledBack(connection: PoolConnection, after: readonly string[]): Promise<boolean> {
  try {
    for (const sql of ['ROLLBACK', ...after]) await connection.query({ sql, timeout: 3000 })
    return true
  } catch {
    return false
  }
}
