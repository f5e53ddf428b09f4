import { createHash } from 'node:crypto'
import { promisify } from 'node:util'
import { gzip } from 'node:zlib'
import type { Endpoint, ParamsOf, ParsedInputOf, ResponseOf } from '@bocado/contract'
import type { Request, Response, Router } from 'express'
import { z } from 'zod'
import type { Clock } from '../clock.js'
import type { Memo } from '../memo.js'
import { jsonOf, type Database, type Row, type Transaction } from '../database/pool.js'
import type { Write } from '../database/rows.js'
import type { WeatherFileReader } from '../weatherFiles/reader.js'
import type { StationHistory } from '../weather/history.js'
import { HttpProblem, schemaProblem } from './problems.js'
import { inTransaction } from './transaction.js'

/** What every use case may need; made once at start. */
export interface Deps {
  database: Database
  clock: Clock
  history: StationHistory
  /** What was computed and still holds. */
  memo: Memo
  readWeatherFile: WeatherFileReader
}

export interface ReadContext<E extends Endpoint> {
  deps: Deps
  params: ParamsOf<E>
  input: ParsedInputOf<E>
}

export interface WriteContext<E extends Endpoint> extends ReadContext<E>, Write {}

export function parse<S extends z.ZodType>(schema: S, value: unknown): z.output<S> {
  const parsed = schema.safeParse(value ?? {})
  if (!parsed.success) throw schemaProblem(parsed.error)
  return parsed.data
}

/** Registers a read. Nothing it does is stored. */
export function read<E extends Endpoint>(router: Router, deps: Deps, e: E, handler: (ctx: ReadContext<E>) => Promise<ResponseOf<E>>): void {
  router[e.method](e.path, async (req: Request, res: Response) => {
    const params = parse(e.params, req.params) as ParamsOf<E>
    const input = parse(e.input, e.method === 'get' ? req.query : req.body) as ParsedInputOf<E>
    const body = await handler({ deps, params, input })
    const written = writtenBodies.get(body as object)
    if (written) sendWritten(req, res, await written)
    else res.json(body)
  })
}

/** A body as text, made and packed once, with the tag by which a page knows that it has it already. */
interface Written {
  json: Buffer
  packed: Buffer
  tag: string
}
const writtenBodies = new WeakMap<object, Promise<Written>>()
const pack = promisify(gzip)

/**
 * Marks the body of a read as one that is asked for again and again unchanged: it is written and packed once. The same object has to
 * be handed out each time, and nothing in it may change.
 */
export function writtenOnce<T extends object>(body: T): T {
  if (!writtenBodies.has(body)) {
    const json = Buffer.from(JSON.stringify(body))
    const tag = `"${createHash('sha256').update(json).digest('base64url').slice(0, 22)}"`
    writtenBodies.set(
      body,
      pack(json, { level: 4 }).then((packed) => ({ json, packed, tag })),
    )
  }
  return body
}

function sendWritten(req: Request, res: Response, { json, packed, tag }: Written): void {
  res.set({ 'Content-Type': 'application/json; charset=utf-8', ETag: tag, 'Cache-Control': 'no-cache', Vary: 'Accept-Encoding' })
  if (req.header('If-None-Match')?.includes(tag)) {
    res.status(304).end()
    return
  }
  const packs = /\bgzip\b/.test(req.header('Accept-Encoding') ?? '')
  // Said here, so that what packs other answers leaves this one alone.
  if (packs) res.set('Content-Encoding', 'gzip')
  res.end(packs ? packed : json)
}

/**
 * Registers a write. It runs in one transaction with its idempotency key, so that a request sent again after a lost answer
 * gets the first answer and stores nothing twice.
 */
export function write<E extends Endpoint>(
  router: Router,
  deps: Deps,
  e: E,
  handler: (ctx: WriteContext<E>) => Promise<ResponseOf<E>>,
): void {
  router[e.method](e.path, async (req: Request, res: Response) => {
    const params = parse(e.params, req.params) as ParamsOf<E> & { siteId?: string }
    const input = parse(e.input, req.body) as ParsedInputOf<E>
    const hash = createHash('sha256')
      .update(`${req.method} ${req.originalUrl}\n${JSON.stringify(req.body)}`)
      .digest('hex')
    const body = await inTransaction(deps.database, async (tx) => {
      const earlier = await claimKey(tx, req.header('Idempotency-Key'), hash)
      if (earlier !== undefined) return earlier
      const siteId = params.siteId ?? ''
      const personId = siteId === '' ? '' : await writerOf(tx, siteId, req.header('X-Bocado-Person'))
      const result = await handler({ deps, params, input, tx, siteId, personId })
      await tx.query('UPDATE idempotency SET response = ? WHERE idempotency_key = ?', [
        JSON.stringify(result),
        req.header('Idempotency-Key'),
      ])
      return result
    })
    res.json(body)
  })
}

/** Takes the key for this request, or returns what was answered to it before. */
async function claimKey(tx: Transaction, key: string | undefined, hash: string): Promise<unknown> {
  if (!key || key.length > 100)
    throw new HttpProblem(400, 'A write needs an Idempotency-Key header of 1 to 100 characters, the same for each try.')
  try {
    await tx.query('INSERT INTO idempotency (idempotency_key, request_hash) VALUES (?, ?)', [key, hash])
    return undefined
  } catch (error) {
    if ((error as { code?: string }).code !== 'ER_DUP_ENTRY') throw error
  }
  const [[row]] = await tx.query<Row[]>('SELECT request_hash, response FROM idempotency WHERE idempotency_key = ?', [key])
  if (row?.['request_hash'] !== hash) throw new HttpProblem(422, 'This Idempotency-Key was used for another request.')
  return jsonOf(row['response'])
}

/** The person who writes: somebody of this site, and not a viewer. */
export async function writerOf(tx: Transaction, siteId: string, header: string | undefined): Promise<string> {
  const person = z.uuid().safeParse(header)
  if (!person.success) throw new HttpProblem(400, 'Say who is writing: choose a person under "working as".')
  const [[row]] = await tx.query<Row[]>('SELECT role FROM site_person WHERE site_id = ? AND person_id = ?', [siteId, person.data])
  if (!row) throw new HttpProblem(403, 'This person does not work at this site. Choose another under "working as".')
  if (row['role'] === 'viewer')
    throw new HttpProblem(403, 'A viewer can look at everything and change nothing. Choose another person under "working as".')
  return person.data
}
