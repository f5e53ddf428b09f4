import { createHash } from 'node:crypto'
import { promisify } from 'node:util'
import { gzip } from 'node:zlib'
import { CHANGED_HEADER, type Endpoint, type ParamsOf, type ParsedInputOf, type ResponseOf } from '@bocado/contract'
import type { Request, Response, Router } from 'express'
import { z } from 'zod'
import type { Queryable, Row, Transaction, Write } from '../database/index.js'
import { requireSeason } from '../sites/service.js'
import { findSite } from '../sites/store.js'
import { jsonBody } from './body.js'
import { claimKey, keepAnswer } from './idempotency.js'
import { limitWrites } from './limits.js'
import { HttpProblem, schemaProblem } from './problems.js'
import { reading, writing, type Deps, type Serving } from './serving.js'

export type { Deps, Serving } from './serving.js'

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
export function read<E extends Endpoint>(
  router: Router,
  serving: Serving,
  e: E,
  handler: (ctx: ReadContext<E>) => Promise<ResponseOf<E>>,
): void {
  router[e.method](e.path, jsonBody, async (req: Request, res: Response) => {
    const params = parse(e.params, req.params) as ParamsOf<E> & { siteId?: string }
    const input = parse(e.input, e.method === 'get' ? req.query : req.body) as ParsedInputOf<E>
    const body = await reading(serving, async (deps) => {
      if (params.siteId !== undefined) await requirePlace(deps.db, params.siteId, (input as { season?: unknown }).season)
      return handler({ deps, params, input })
    })
    const written = writtenBodies.get(body as object)
    if (written) sendWritten(req, res, await written)
    else res.json(body)
  })
}

/** A site that is not there, or no longer, has nothing to read; nor has a day of it that begins no season. */
async function requirePlace(db: Queryable, siteId: string, season?: unknown): Promise<void> {
  const site = await findSite(db, siteId)
  if (!site) throw new HttpProblem(404, 'There is no such site.')
  if (typeof season === 'string') requireSeason(site, season)
}

/** What a download consists of. */
export interface Download {
  type: string
  body: string | Buffer
  /** Under what name it is kept; without one it is shown. */
  fileName?: string
  /** How it may be kept by the browser. */
  cache?: string
}

/** Registers a file to download: it is made in one read, and sent after it. */
export function download<P extends z.ZodType, Q extends z.ZodType>(
  router: Router,
  serving: Serving,
  path: string,
  params: P,
  query: Q,
  make: (deps: Deps, params: z.output<P>, query: z.output<Q>) => Promise<Download>,
): void {
  router.get(path, async (req: Request, res: Response) => {
    const [p, q] = [parse(params, req.params), parse(query, req.query)]
    const { type, body, fileName, cache } = await reading(serving, async (deps) => {
      const { siteId } = p as { siteId?: string }
      if (siteId !== undefined) await requirePlace(deps.db, siteId, (q as { season?: unknown } | undefined)?.season)
      return make(deps, p, q)
    })
    res.type(type)
    if (fileName !== undefined) res.attachment(fileName).type(type)
    if (cache !== undefined) res.set('Cache-Control', cache)
    res.send(body)
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

export interface WriteSettings {
  /** The answer shows a secret: it is given once and never kept. A replay is told to have a new one made. */
  secret?: boolean
  /** Who may write where no site is named; nobody has to be known where it is not given. */
  by?: (tx: Transaction, header: string | undefined) => Promise<string>
  /** It may touch years of readings, and gets the time that an import gets. */
  long?: boolean
  /** It is for sites that are archived, too, or even for those that were removed. */
  at?: 'archived' | 'removed'
}

/**
 * Registers a write. It runs in one transaction with its idempotency key, so that a request sent again after a lost answer
 * gets the first answer and stores nothing twice.
 */
export function write<E extends Endpoint>(
  router: Router,
  serving: Serving,
  e: E,
  handler: (ctx: WriteContext<E>) => Promise<ResponseOf<E>>,
  settings: WriteSettings = {},
): void {
  router[e.method](e.path, limitWrites, jsonBody, async (req: Request, res: Response) => {
    const params = parse(e.params, req.params) as ParamsOf<E> & { siteId?: string }
    const input = parse(e.input, req.body) as ParsedInputOf<E>
    const hash = createHash('sha256')
      .update(`${req.method} ${req.originalUrl}\n${JSON.stringify(req.body)}`)
      .digest('hex')
    const siteId = params.siteId ?? ''
    let session: Transaction | undefined
    const store = async (deps: Deps): Promise<ResponseOf<E>> => {
      const tx = deps.db
      session = tx
      const header = req.header('X-Bocado-Person')
      const personId = siteId === '' ? ((await settings.by?.(tx, header)) ?? '') : await writerOf(tx, siteId, header, settings.at)
      const key = { key: req.header('Idempotency-Key'), personId, hash }
      const earlier = await claimKey(tx, key)
      if (earlier !== undefined) return earlier.answer as ResponseOf<E>
      const now = await deps.clock.now(tx)
      const result = await handler({ deps, params, input, tx, siteId, personId, now })
      await keepAnswer(tx, key, settings.secret ? undefined : result)
      return result
    }
    const body = await writing(serving, store, { long: settings.long ?? false })
    // What it changed the page reads anew; of a write that was stored before, it reads everything.
    res.set(CHANGED_HEADER, JSON.stringify(session?.changed ?? {}))
    res.json(body)
  })
}

function personOf(header: string | undefined): string {
  const person = z.uuid().safeParse(header)
  if (!person.success) throw new HttpProblem(400, 'Say who is writing: choose a person under "working as".')
  return person.data
}

/** The person who writes, where it concerns no single site: somebody who is no viewer at one of them. */
export async function writerSomewhere(tx: Queryable, header: string | undefined): Promise<string> {
  const person = personOf(header)
  const [[row]] = await tx.query<Row[]>(
    "SELECT 1 AS found FROM site_person WHERE person_id = ? AND role <> 'viewer' AND left_at IS NULL LIMIT 1",
    [person],
  )
  if (!row) throw new HttpProblem(403, 'Only somebody who works at a site may change this. Choose another person under "working as".')
  return person
}

/** The person who writes: somebody of this site, and not a viewer. */
export async function writerOf(
  tx: Queryable,
  siteId: string,
  header: string | undefined,
  at: WriteSettings['at'] = undefined,
): Promise<string> {
  const person = personOf(header)
  if (at !== 'removed') await requirePlace(tx, siteId)
  if (at === undefined && (await findSite(tx, siteId))?.archivedAt)
    throw new HttpProblem(409, 'This site is archived: it can be looked at only. Take it up again on its Site screen to change something.')
  const [[row]] = await tx.query<Row[]>('SELECT role FROM site_person WHERE site_id = ? AND person_id = ? AND left_at IS NULL', [
    siteId,
    person,
  ])
  if (!row) throw new HttpProblem(403, 'This person does not work at this site. Choose another under "working as".')
  if (row['role'] === 'viewer')
    throw new HttpProblem(403, 'A viewer can look at everything and change nothing. Choose another person under "working as".')
  return person
}
