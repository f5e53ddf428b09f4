import { endpoints, pushInput } from '@bocado/contract'
import { text, type Request, type RequestHandler, type Response, type Router } from 'express'
import { rateLimit } from 'express-rate-limit'
import Papa from 'papaparse'
import { sqlInstant } from '../database/index.js'
import { jsonBody } from '../http/body.js'
import { HttpProblem, toProblem } from '../http/problems.js'
import { reading, writing } from '../http/serving.js'
import { noteRefusal } from '../weather/store.js'
import { takeForecast } from '../forecasts/service.js'
import { parse, type Deps, type Serving } from '../http/route.js'
import { pushCatches, requireCounter } from '../traps/service.js'
import { pushReadings } from './service.js'
import { requireStation } from './token.js'

/** Far above what an hourly device needs, far below what would trouble the database. */
const PUSHES_PER_MINUTE = 60
/** Whoever tries tokens that open nothing is held back by address, and takes nothing from the device whose station they name. */
const STRANGERS_PER_MINUTE = 120

/** A CSV body as the JSON that it stands for; blank cells are no values. */
function fromCsv(body: string): unknown {
  const { data, errors } = Papa.parse<Record<string, string>>(body.trim(), { header: true, skipEmptyLines: true })
  if (errors[0]) throw new HttpProblem(422, `Line ${(errors[0].row ?? 0) + 2} of the CSV cannot be read: ${errors[0].message}.`)
  const readings = data.map(({ at, ...values }) => ({
    at,
    ...Object.fromEntries(Object.entries(values).flatMap(([name, value]) => (value.trim() === '' ? [] : [[name, Number(value)]]))),
  }))
  return { readings }
}

const tokenOf = (req: Request): string | undefined => /^Bearer (.{1,200})$/.exec(req.header('Authorization') ?? '')?.[1]

export function deviceRoutes(router: Router, serving: Serving): void {
  const { push, pushCatches: pushTrap, issueForecast } = endpoints.devices
  const limited = (limit: number, keyGenerator: (req: Request) => string, words: string): RequestHandler =>
    rateLimit({
      windowMs: 60_000,
      limit,
      standardHeaders: 'draft-8',
      legacyHeaders: false,
      keyGenerator,
      handler: () => {
        throw new HttpProblem(429, words, { retryAfter: 60 })
      },
    })
  const ofStation = limited(
    PUSHES_PER_MINUTE,
    (req) => String(req.params['stationId']),
    `More than ${PUSHES_PER_MINUTE} pushes in a minute. Send readings together, and try again in a minute.`,
  )
  const ofStranger = limited(
    STRANGERS_PER_MINUTE,
    (req) => `${req.socket.remoteAddress ?? ''}`,
    'Too many tokens that open nothing came from this address. Put the right one into the device, and try again in a minute.',
  )
  /** Before anything of a body is read it is known whose it is. */
  const knownBy =
    (check: (db: Deps['db'], req: Request) => Promise<unknown>): RequestHandler =>
    async (req, res, next) => {
      try {
        await reading(serving, ({ db }) => check(db, req))
      } catch (error) {
        if (!(error instanceof HttpProblem)) throw error
        await new Promise<void>((resolve, reject) => {
          void ofStranger(req, res, (refused?: unknown) => (refused ? reject(refused as Error) : resolve()))
        })
        throw error
      }
      next()
    }
  const known = knownBy((db, req) => requireStation(db, parse(push.params, req.params).stationId, tokenOf(req)))
  const knownCounter = knownBy((db, req) => requireCounter({ db }, parse(pushTrap.params, req.params).trapId, tokenOf(req)))
  const ofTrap = limited(
    PUSHES_PER_MINUTE,
    (req) => String(req.params['trapId']),
    `More than ${PUSHES_PER_MINUTE} pushes in a minute. Send days together, and try again in a minute.`,
  )
  router.post(pushTrap.path, knownCounter, ofTrap, jsonBody, async (req: Request, res: Response) => {
    const { trapId } = parse(pushTrap.params, req.params)
    const input = parse(pushTrap.input, req.body)
    res.json(await writing(serving, (deps) => pushCatches(deps, trapId, tokenOf(req), input)))
  })
  router.post(push.path, known, ofStation, text({ type: 'text/csv', limit: '2mb' }), jsonBody, async (req: Request, res: Response) => {
    const { stationId } = parse(push.params, req.params)
    const token = tokenOf(req)
    try {
      const body: unknown = typeof req.body === 'string' ? fromCsv(req.body) : req.body
      const input = parse(pushInput, body)
      res.json(await writing(serving, (deps) => pushReadings(deps, stationId, token, input)))
    } catch (error) {
      const { problem, fault } = toProblem(error)
      if (!fault)
        await writing(serving, async ({ db, clock }) => noteRefusal(db, stationId, sqlInstant(await clock.now(db)), problem.detail))
      throw error
    }
  })
  router.post(issueForecast.path, known, ofStation, jsonBody, async (req: Request, res: Response) => {
    const { stationId } = parse(issueForecast.params, req.params)
    const input = parse(issueForecast.input, req.body)
    res.json(await writing(serving, (deps) => takeForecast(deps, stationId, tokenOf(req), input)))
  })
}
