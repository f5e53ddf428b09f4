import type { Writable } from 'node:stream'
import type { Aspect, AspectVersions } from '@bocado/contract'
import type { FieldPacket, PoolConnection, QueryOptions, QueryResult, QueryValues } from 'mysql2/promise'

/** What of which sites a write changed. */
export type Touched = ReadonlyMap<string, ReadonlySet<Aspect>>
/** Versions by site, as they are after a write. */
export type Changed = Readonly<Record<string, AspectVersions>>

/** What was asked of a session whose use case is over. It is asked for by work that somebody else started and waits for. */
export class SessionEnded extends Error {}

/** A use case took longer than it may. */
export class TookTooLong extends Error {}

/** What a person changed is followed at once. */
const SOON_MS = 50

/** No statement may take longer, whatever the database says of it. */
const STATEMENT_MS = 15_000

/**
 * The one connection of a use case, inside its transaction: every query of a read, a write or a preview goes through it. It knows
 * how long the use case may take, and answers nobody once that is over.
 */
export class Session {
  private ended = false
  /** What was answered in a snapshot. */
  private readonly answers: Map<string, Promise<unknown>> | undefined
  /** The connection can no longer be used by anybody. */
  broken = false
  /** What of which sites this write changes, and how soon what follows from it shall be made anew. */
  readonly touched = new Map<string, Set<Aspect>>()
  soonMs = SOON_MS
  /** The versions that this write raised; known once it is over. */
  changed: Changed = {}

  constructor(
    private readonly connection: PoolConnection,
    private readonly deadline: number,
    private readonly statementMs = STATEMENT_MS,
    snapshot = false,
  ) {
    this.answers = snapshot ? new Map() : undefined
  }

  /**
   * @returns rows and fields. In a snapshot the same question has the same answer: it is asked once, and whoever asks again shares its
   * rows, which nobody changes
   */
  query<T extends QueryResult = QueryResult>(sql: string | QueryOptions, values?: QueryValues): Promise<[T, FieldPacket[]]> {
    if (!this.answers || typeof sql !== 'string' || !sql.startsWith('SELECT')) return this.ask<T>(sql, values)
    const key = values === undefined ? sql : `${sql} ${JSON.stringify(values)}`
    const known = this.answers.get(key) ?? this.ask<T>(sql, values)
    this.answers.set(key, known)
    return known as Promise<[T, FieldPacket[]]>
  }

  private async ask<T extends QueryResult>(sql: string | QueryOptions, values?: QueryValues): Promise<[T, FieldPacket[]]> {
    if (this.ended) throw new SessionEnded('the use case of this connection is over')
    const left = this.deadline - Date.now()
    if (left <= 0) throw new TookTooLong('the use case took too long')
    const asked: QueryOptions = typeof sql === 'string' ? { sql, ...(values === undefined ? {} : { values }) } : sql
    try {
      return await this.connection.query<T>({ ...asked, timeout: Math.min(left, this.statementMs) })
    } catch (error) {
      const { code, fatal } = error as { code?: string; fatal?: boolean }
      const late = code === 'PROTOCOL_SEQUENCE_TIMEOUT'
      if (fatal || late) this.broken = true
      if (late && left < this.statementMs) throw new TookTooLong('the use case took too long', { cause: error })
      throw error
    }
  }

  /** Notes that this write changes an aspect of a site. Whoever shows it is told when the write is stored. */
  touch(siteId: string, aspect: Aspect): this {
    const of = this.touched.get(siteId) ?? new Set()
    this.touched.set(siteId, of.add(aspect))
    return this
  }

  /** The stream beneath the connection, which the driver does not name in its types. */
  get stream(): Writable | undefined {
    return (this.connection.connection as unknown as { stream?: Writable }).stream
  }

  /** From now on nothing can be asked of it. */
  end(): void {
    this.ended = true
  }
}

/** What a use case reads through: inside a write it is the write's own. */
export type Queryable = Pick<Session, 'query'>
/** The session of a write. */
export type Transaction = Session
