import { endpoints, pushInput } from '@bocado/contract'
import { text, type Request, type Response, type Router } from 'express'
import { rateLimit } from 'express-rate-limit'
import Papa from 'papaparse'
import { sqlInstant } from '../database/index.js'
import { HttpProblem, toProblem } from '../http/problems.js'
import { noteRefusal } from '../weather/store.js'
import { takeForecast } from '../forecasts/service.js'
import { parse, type Deps } from '../http/route.js'
import { pushReadings } from './service.js'

/** Far above what an hourly device needs, far below what would trouble the database. */
const PUSHES_PER_MINUTE = 60

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

const tokenOf = (req: Request): string | undefined => /^Bearer (.+)$/.exec(req.header('Authorization') ?? '')?.[1]

export function deviceRoutes(router: Router, deps: Deps): void {
  const { push, issueForecast } = endpoints.devices
  const limit = rateLimit({
    windowMs: 60_000,
    limit: PUSHES_PER_MINUTE,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    keyGenerator: (req) => String(req.params['stationId']),
    handler: () => {
      throw new HttpProblem(429, `More than ${PUSHES_PER_MINUTE} pushes in a minute. Send readings together, and try again in a minute.`)
    },
  })
  router.post(push.path, limit, text({ type: 'text/csv', limit: '2mb' }), async (req: Request, res: Response) => {
    const { stationId } = parse(push.params, req.params)
    const body: unknown = typeof req.body === 'string' ? fromCsv(req.body) : req.body
    try {
      res.json(await pushReadings(deps, stationId, tokenOf(req), parse(pushInput, body)))
    } catch (error) {
      const { problem, fault } = toProblem(error)
      if (!fault) await noteRefusal(deps.database, stationId, sqlInstant(await deps.clock.now(deps.database)), problem.detail)
      throw error
    }
  })
  router.post(issueForecast.path, limit, async (req: Request, res: Response) => {
    const { stationId } = parse(issueForecast.params, req.params)
    res.json(await takeForecast(deps, stationId, tokenOf(req), parse(issueForecast.input, req.body)))
  })
}
