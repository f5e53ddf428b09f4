import { fork, type ChildProcess } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { setTimeout as sleep } from 'node:timers/promises'
import { fileURLToPath } from 'node:url'
import type { Endpoint, InputOf, ParamsOf, Problem, ResponseOf } from '@bocado/contract'
import { createConnection } from 'mysql2/promise'
import type { Pool } from 'mysql2/promise'
import { hashOf, newToken } from '../accounts/tokens.js'
import { clock } from '../clock.js'
import { Database } from '../database/database.js'
import { openPool, sqlInstant, type Row } from '../database/pool.js'
import type { Serving } from '../http/serving.js'
import { Memo } from '../memo.js'
import { StationHistory } from '../weather/history.js'

/** What the server is started with beside its settings, as `npm run demo` does. */
const ENVIRONMENT = JSON.parse(readFileSync(new URL('../../environment.json', import.meta.url), 'utf8')) as Record<string, string>
const MAIN = fileURLToPath(new URL('../../dist/main.js', import.meta.url))

/** An answer of the interface, taken apart. */
export interface Answer<T> {
  status: number
  body: T
  problem: Problem
}

/** The built server on a database of its own: what a test drives from outside. */
export interface Application {
  address: string
  databaseUrl: string
  database: Pool
  process: ChildProcess
  /**
   * Calls an endpoint as somebody who is signed in; a read of a site without anybody as one who owns it, and `person: ''` as nobody.
   */
  call: <E extends Endpoint>(
    e: E,
    params: ParamsOf<E>,
    input: InputOf<E>,
    as?: { person?: string; key?: string },
  ) => Promise<Answer<ResponseOf<E>>>
  /** Somebody new, who works nowhere yet. */
  newPerson: (name?: string) => Promise<string>
  /** The header with which somebody is signed in. */
  cookieOf: (person: string) => Promise<string>
  /** Fetches an address under /api/v1/ as an owner of the site that it names. */
  get: (path: string, init?: RequestInit) => Promise<Response>
  /** Waits until everything that follows from what was stored is made; it fails where some of it cannot be. */
  settled: () => Promise<void>
  stop: () => Promise<void>
}

/** The parts of a server in this process, over the database of an application: for what the server does though nobody asks. */
export function servingOver({ databaseUrl }: Application): Serving & { end: () => Promise<void> } {
  const database = new Database(databaseUrl)
  return {
    database,
    clock,
    history: new StationHistory(160 * 2 ** 20),
    memo: new Memo(64 * 2 ** 20),
    readWeatherFile: () => Promise.reject(new Error('reads no files')),
    stored: () => undefined,
    end: () => database.end(),
  }
}

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer()
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number }
      probe.close(() => resolve(port))
    })
  })

/** Starts the built server as a process. It has to be built: `npm test` does that first. */
export async function startServer(databaseUrl: string, port: number, environment: Record<string, string> = {}): Promise<ChildProcess> {
  const child = fork(MAIN, {
    env: {
      ...process.env,
      ...ENVIRONMENT,
      BOCADO_DATABASE_URL: databaseUrl,
      BOCADO_PORT: String(port),
      BOCADO_LOG_LEVEL: process.env['BOCADO_TEST_LOG'] ?? 'silent',
      ...environment,
    },
  })
  await new Promise<void>((resolve, reject) => {
    child.once('message', () => resolve())
    child.once('exit', (code) => reject(new Error(`the server ended with ${code} before it listened`)))
  })
  return child
}

/** What makes the tables as all migrations leave them, read once from the first database that was migrated. */
let tables: string | undefined

/** Reads how the tables of a database that was just migrated, and holds nothing yet, are made. */
async function readTables(databaseUrl: string): Promise<string> {
  const db = await createConnection({ uri: databaseUrl })
  const [names] = await db.query<Row[]>('SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE()')
  const made = ['SET FOREIGN_KEY_CHECKS = 0']
  for (const { name } of names as { name: string }[]) {
    const [[row]] = await db.query<Row[]>(`SHOW CREATE TABLE ${name}`)
    made.push(row!['Create Table'] as string)
  }
  const [log] = await db.query<Row[]>('SELECT name FROM schema_migration')
  made.push(
    `INSERT INTO schema_migration (name) VALUES ${log
      .map((row) => db.escape([row['name']]))
      .map((one) => `(${one})`)
      .join()}`,
  )
  await db.end()
  return made.join(';\n')
}

async function emptyDatabase(server: string): Promise<{ url: string; drop: () => Promise<void> }> {
  const name = `bocado_test_${randomUUID().slice(0, 8)}`
  const run = async (sql: string): Promise<void> => {
    const connection = await createConnection({ uri: server, multipleStatements: true })
    await connection.query(sql)
    await connection.end()
  }
  await run([`CREATE DATABASE ${name} CHARACTER SET utf8mb4`, ...(tables === undefined ? [] : [`USE ${name}`, tables])].join(';\n'))
  const url = new URL(server)
  url.pathname = `/${name}`
  return { url: url.toString(), drop: () => run(`DROP DATABASE IF EXISTS ${name}`) }
}

/**
 * Starts an application for a test.
 * @param options.now the time that the server shall take it to be, ISO in UTC; real time without it
 * @param options.server the database server; the one that `npm test` started without it
 * @param options.demo its people sign in by one press
 * @param options.worker false: nobody does the work beside requests
 */
export async function startApplication(options: { now?: string; server?: string; worker?: false; demo?: true } = {}): Promise<Application> {
  const server = options.server ?? process.env['BOCADO_TEST_SERVER']
  if (!server) throw new Error('BOCADO_TEST_SERVER is not set; run the tests with npm test')
  const { url: databaseUrl, drop } = await emptyDatabase(server)
  const port = await freePort()
  const child = await startServer(databaseUrl, port, {
    ...(options.worker === false ? { BOCADO_WORKER: 'elsewhere' } : {}),
    ...(options.demo ? { BOCADO_DEMO: 'on' } : {}),
  })
  tables ??= await readTables(databaseUrl)
  const database = openPool(databaseUrl)
  if (options.now) await database.query('REPLACE INTO demo_clock (only_row, now_at) VALUES (1, ?)', [sqlInstant(options.now)])
  const stop = async (): Promise<void> => {
    await database.end()
    child.kill('SIGKILL')
    await drop().catch(() => undefined)
  }
  return over(databaseUrl, child, port, database, stop, options.worker !== false)
}

/** A second server on the database of an application; it stops alone. */
export async function besideIt(app: Application): Promise<Application> {
  const port = await freePort()
  const child = await startServer(app.databaseUrl, port)
  return over(app.databaseUrl, child, port, app.database, () => {
    child.kill('SIGKILL')
    return Promise.resolve()
  })
}

function over(
  databaseUrl: string,
  child: ChildProcess,
  port: number,
  database: Pool,
  stop: () => Promise<void>,
  waits = true,
): Application {
  const address = `http://127.0.0.1:${port}`
  const cookieOf = (person: string): Promise<string> => cookieFor(database, person)
  return {
    address,
    databaseUrl,
    database,
    process: child,
    // A page shows what is derived as it was, and is told when it is made anew; a test waits for that.
    call: async (e, params, input, as = {}) => {
      if (waits && e.restsOn?.includes('forecasts')) await settled(database)
      const { siteId } = params as { siteId?: string }
      const person = as.person ?? (e.method === 'get' || e.path.endsWith('preview') ? await ownerOf(database, siteId) : '')
      return callEndpoint(address, e, params, input, { ...as, cookie: person === '' ? '' : await cookieOf(person) })
    },
    newPerson: async (name = 'Marit Solheim') => {
      const id = randomUUID()
      await database.query('INSERT INTO person (id, name) VALUES (?, ?)', [id, name])
      return id
    },
    cookieOf,
    get: async (path, init = {}) => {
      const owner = await ownerOf(database, /sites[/=]([\da-f-]{36})/.exec(path)?.[1])
      const cookie: Record<string, string> = owner === '' ? {} : { Cookie: await cookieOf(owner) }
      return fetch(`${address}/api/v1/${path}`, { ...init, headers: { ...(init.headers as Record<string, string>), ...cookie } })
    },
    settled: () => settled(database),
    stop,
  }
}

const cookies = new WeakMap<Pool, Map<string, Promise<string>>>()

/** Signs somebody in past the door: what comes in by it has tests of its own. */
function cookieFor(database: Pool, person: string): Promise<string> {
  const known = cookies.get(database) ?? new Map<string, Promise<string>>()
  cookies.set(database, known)
  const cookie = known.get(person) ?? openCookie(database, person)
  known.set(person, cookie)
  return cookie
}

async function openCookie(database: Pool, person: string): Promise<string> {
  const token = newToken()
  const [[found]] = await database.query<Row[]>('SELECT 1 AS found FROM person WHERE id = ?', [person])
  if (found)
    await database.query(
      `INSERT INTO sign_in (token_hash, id, person_id, how, agent, created_at, seen_at, expires_at)
       VALUES (?, ?, ?, 'password', 'a test', UTC_TIMESTAMP(), UTC_TIMESTAMP(), UTC_TIMESTAMP() + INTERVAL 1 DAY)`,
      [hashOf(token), randomUUID(), person],
    )
  return `bocado=${token}`
}

const owners = new Map<string, string>()

/** Somebody who owns a site, or the first site there is; empty for none. While the database is away it is who it was before. */
async function ownerOf(database: Pool, siteId: string | undefined): Promise<string> {
  const key = siteId ?? ''
  try {
    const owner = await findOwner(database, siteId)
    owners.set(key, owner)
    return owner
  } catch (error) {
    const known = owners.get(key)
    if (known === undefined) throw error
    return known
  }
}

async function findOwner(database: Pool, siteId: string | undefined): Promise<string> {
  const [[row]] = await database.query<Row[]>(
    `SELECT sp.person_id FROM site_person sp JOIN site s ON s.id = sp.site_id
     WHERE sp.role = 'owner' AND sp.left_at IS NULL AND (? IS NULL OR s.id = ?) ORDER BY s.created_at, s.id LIMIT 1`,
    [siteId ?? null, siteId ?? null],
  )
  return (row?.['person_id'] as string | undefined) ?? (siteId === undefined ? '' : ownerOf(database, undefined))
}

const SETTLE_MS = 20_000

/** Waits until no work is left but what has failed for good. */
async function settled(database: Pool): Promise<void> {
  const until = Date.now() + SETTLE_MS
  for (;;) {
    const [[row]] = await database.query<Row[]>("SELECT COUNT(*) AS n FROM work WHERE kind = 'derive' AND attempts < 2")
    if (Number(row?.['n']) === 0) return
    if (Date.now() > until) throw new Error('what follows from what was stored was not made in time')
    await sleep(15)
  }
}

async function callEndpoint<E extends Endpoint>(
  address: string,
  e: E,
  params: ParamsOf<E>,
  input: InputOf<E>,
  as: { key?: string; cookie: string },
): Promise<Answer<ResponseOf<E>>> {
  const path = e.path.replace(/:(\w+)/g, (_, name: string) => (params as Record<string, string>)[name] ?? '')
  const query = e.method === 'get' ? `?${new URLSearchParams(input as Record<string, string>).toString()}` : ''
  const response = await fetch(`${address}/api/v1${path}${query}`, {
    method: e.method.toUpperCase(),
    headers: {
      'Content-Type': 'application/json',
      'Idempotency-Key': as.key ?? randomUUID(),
      ...(as.cookie ? { Cookie: as.cookie } : {}),
    },
    ...(e.method === 'get' ? {} : { body: JSON.stringify(input) }),
  })
  const body = (await response.json()) as ResponseOf<E> & Problem
  return { status: response.status, body, problem: body }
}
