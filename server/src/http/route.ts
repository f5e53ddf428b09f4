import { createHash } from 'node:crypto'
import { promisify } from 'node:util'
import { gzip } from 'node:zlib'
import {
  ALL_SITES,
  CHANGED_HEADER,
  needOf,
  READ_AT_HEADER,
  type Endpoint,
  type Need,
  type ParamsOf,
  type ParsedInputOf,
  type ResponseOf,
} from '@bocado/contract'
import type { Request, RequestHandler, Response, Router } from 'express'
import { type z } from 'zod'
import { versionsOf, type Queryable, type Transaction, type Write } from '../database/index.js'
import { requireSeason } from '../sites/service.js'
import { findSite } from '../sites/store.js'
import { jsonBody } from './body.js'
import { claimKey, keepAnswer } from './idempotency.js'
import { callerAt, requireNeed, signInOf } from './identity.js'
import { limitWrites } from './limits.js'
import { HttpProblem, schemaProblem } from './problems.js'
import { reading, writing, type Deps, type Serving } from './serving.js'

export type { Deps, Serving } from './serving.js'

export interface ReadContext<E extends Endpoint> {
  deps: Deps
  params: ParamsOf<E>
  input: ParsedInputOf<E>
  /** Who is signed in; empty where an operation asks for nobody. */
  personId: string
  /** The secret of their sign-in. */
  token: string
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
  const need = needOf(e)
  router[e.method](e.path, knownFor(need), jsonBody, async (req: Request, res: Response) => {
    const params = parse(e.params, req.params) as ParamsOf<E> & { siteId?: string }
    const token = signInOf(req) ?? ''
    const body = await reading(serving, async (deps) => {
      const personId = await requireCaller(deps.db, need, token, params.siteId)
      const input = parse(e.input, e.method === 'get' ? req.query : req.body) as ParsedInputOf<E>
      if (params.siteId !== undefined) await requirePlace(deps.db, params.siteId, (input as { season?: unknown }).season)
      // Taken before what it is said of: the answer is at least as new.
      const subject = params.siteId ?? (e.restsOn?.length ? ALL_SITES : undefined)
      if (subject !== undefined) res.set(READ_AT_HEADER, JSON.stringify((await versionsOf(deps.db, [subject]))[subject]))
      return handler({ deps, params, input, personId, token })
    })
    const written = writtenBodies.get(body as object)
    if (written) sendWritten(req, res, await written)
    else res.json(body)
  })
}

/** Turns away whoever shows no sign-in before anything that they send is read. */
export const knownFor =
  (need: Need): RequestHandler =>
  (req, _res, next) => {
    if (need !== 'nothing' && signInOf(req) === undefined) requireNeed(need, undefined, undefined)
    next()
  }

/** Who calls, where they may do what is needed; empty where nobody has to be known. */
export async function requireCaller(db: Queryable, need: Need, token: string | undefined, siteId: string | undefined): Promise<string> {
  if (need === 'nothing') return ''
  const caller = await callerAt(db, token || undefined, siteId)
  requireNeed(need, caller, siteId)
  return caller?.personId ?? ''
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

/** Registers a file to download, for whoever may look at its site, or what else it needs: it is made in one read, and sent after it. */
export function download<P extends z.ZodType, Q extends z.ZodType>(
  router: Router,
  serving: Serving,
  path: string,
  params: P,
  query: Q,
  make: (deps: Deps, params: z.output<P>, query: z.output<Q>) => Promise<Download>,
  need: Need = 'look',
): void {
  router.get(path, async (req: Request, res: Response) => {
    const [p, q] = [parse(params, req.params), parse(query, req.query)]
    const { type, body, fileName, cache } = await reading(serving, async (deps) => {
      const { siteId } = p as { siteId?: string }
      await requireCaller(deps.db, need, signInOf(req), siteId)
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
  res.set({ 'Content-Type': 'application/json; charset=utf-8', ETag: tag, Vary: 'Accept-Encoding' })
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
  const need = needOf(e)
  router[e.method](e.path, knownFor(need), ...limitWrites, jsonBody, async (req: Request, res: Response) => {
    const token = signInOf(req) ?? ''
    const params = parse(e.params, req.params) as ParamsOf<E> & { siteId?: string }
    const hash = createHash('sha256')
      .update(`${req.method} ${req.originalUrl}\n${JSON.stringify(req.body)}`)
      .digest('hex')
    const siteId = params.siteId ?? ''
    let session: Transaction | undefined
    const store = async (deps: Deps): Promise<ResponseOf<E>> => {
      const tx = deps.db
      session = tx
      const personId = await requireWriter(tx, need, token, params.siteId, settings.at)
      // What somebody sends is looked at once it is known that they may send it.
      const input = parse(e.input, req.body) as ParsedInputOf<E>
      const key = { key: req.header('Idempotency-Key'), personId, hash }
      const earlier = await claimKey(tx, key)
      if (earlier !== undefined) return earlier.answer as ResponseOf<E>
      const now = await deps.clock.now(tx)
      const result = await handler({ deps, params, input, tx, siteId, personId, token, now })
      await keepAnswer(tx, key, settings.secret ? undefined : result)
      return result
    }
    const body = await writing(serving, store, { long: settings.long ?? false })
    // What it changed the page reads anew; of a write that was stored before, it reads everything.
    res.set(CHANGED_HEADER, JSON.stringify(session?.changed ?? {}))
    res.json(body)
  })
}

/** Who writes: somebody who may, at a site that is worked on. */
export async function requireWriter(
  tx: Queryable,
  need: Need,
  token: string | undefined,
  siteId: string | undefined,
  at: WriteSettings['at'] = undefined,
): Promise<string> {
  const personId = await requireCaller(tx, need, token, siteId)
  if (siteId === undefined) return personId
  if (at !== 'removed') await requirePlace(tx, siteId)
  if (at === undefined && (await findSite(tx, siteId))?.archivedAt)
    throw new HttpProblem(409, 'This site is archived: it can be looked at only. Take it up again on its Site screen to change something.')
  return personId
}
