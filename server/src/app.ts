import { endpoints, openApiDocument, type Endpoint } from '@bocado/contract'
import compression from 'compression'
import express, { Router, type ErrorRequestHandler, type Express } from 'express'
import helmet from 'helmet'
import type { Logger } from 'pino'
import { accountRoutes } from './accounts/routes.js'
import { auditRoutes } from './audit/routes.js'
import { bloomRoutes } from './bloom/routes.js'
import type { Changes } from './changes/changes.js'
import { changeRoutes } from './changes/routes.js'
import { demoRoutes } from './demo/routes.js'
import { deviceRoutes } from './devices/routes.js'
import { blockRoutes } from './blocks/routes.js'
import { flagRoutes } from './flags/routes.js'
import { groundRoutes } from './ground/routes.js'
import { arrivalRoutes } from './arrivals/routes.js'
import { cropRoutes } from './crops/routes.js'
import { harvestRoutes } from './harvests/routes.js'
import { alertRoutes } from './alerts/routes.js'
import { programmeRoutes } from './programmes/routes.js'
import { preventionRoutes } from './prevention/routes.js'
import { scheduleRoutes } from './schedule/routes.js'
import { ruleRoutes } from './rules/routes.js'
import { placeRoutes } from './places/routes.js'
import { named, ownNamesOnly } from './http/doors.js'
import { signInOf } from './http/identity.js'
import { pageHtml } from './http/pageHtml.js'
import { HttpProblem, toProblem } from './http/problems.js'
import { readFirst } from './http/readFirst.js'
import type { Serving } from './http/route.js'
import { helpingRoutes } from './helping/routes.js'
import { aroundRoutes } from './around/routes.js'
import { equipmentRoutes } from './equipment/routes.js'
import { livingRoutes } from './living/routes.js'
import { permissionRoutes } from './permissions/routes.js'
import { companionRoutes } from './companions/routes.js'
import { plotRoutes } from './plots/routes.js'
import { replacementRoutes } from './replacement/routes.js'
import { trialRoutes } from './trials/routes.js'
import { libraryRoutes } from './library/routes.js'
import { outcomeRoutes } from './outcomes/routes.js'
import { packageRoutes } from './package/routes.js'
import { scoutingRoutes } from './scouting/routes.js'
import { siteRoutes } from './sites/routes.js'
import { trapRoutes } from './traps/routes.js'
import { treatmentRoutes } from './treatments/routes.js'
import { varietyRoutes } from './varieties/routes.js'
import { watchRoutes } from './watches/routes.js'
import { weatherRoutes } from './weather/routes.js'
import { privacyRoutes } from './privacy/routes.js'
import { findRoutes } from './finds/routes.js'
import { wayRoutes } from './way/routes.js'
import { addressesOf, type WayIn } from './way/settings.js'
import { weatherFileRoutes } from './weatherFiles/routes.js'

export interface AppOptions {
  /** Folder of the built page. */
  page: string
  log: Logger
  /** How this server is reached. */
  way: WayIn
}

const YEAR_S = 31_536_000

/** The application over its parts: the interface under /api/v1, the built page elsewhere. */
export function createApp(serving: Serving, changes: Changes, options: AppOptions): Express {
  const app = express()
  // Where a request comes from a proxy may say that is known, and nobody else.
  app.set('trust proxy', options.way.proxies.length > 0 ? options.way.proxies : false)
  app.use(named, ownNamesOnly(options.way))
  // Styles are made in the page as it runs; everything else comes from this server. Over plain HTTP nothing promises HTTPS.
  app.use(
    helmet({
      contentSecurityPolicy: { directives: { 'style-src': ["'self'", "'unsafe-inline'"], 'upgrade-insecure-requests': null } },
      strictTransportSecurity: options.way.publicOrigin?.startsWith('https:') ? { maxAge: YEAR_S } : false,
    }),
  )
  // What is told bit by bit is not held back to be packed.
  const isStream = (accept = ''): boolean => accept.includes('ndjson') || accept.includes('event-stream')
  app.use(compression({ filter: (req, res) => !isStream(req.headers.accept) && compression.filter(req, res) }))

  app.get('/healthz', async (_req, res) => {
    const parts = await serving.database.health()
    const ok = parts.database === 'ok' && parts.disk === 'ok'
    res
      .status(ok ? 200 : 503)
      .set('Cache-Control', 'no-store')
      .json({ ok, parts })
  })
  const api = Router()
  // What somebody is shown is theirs: nothing on the way keeps it for another, and the browser asks anew each time.
  api.use((_req, res, next) => {
    res.set('Cache-Control', 'private, no-cache')
    next()
  })
  // Half a second's work, which no start should wait for.
  let document: Record<string, unknown> | undefined
  api.get('/openapi.json', (_req, res) => {
    document ??= openApiDocument(endpoints as unknown as Record<string, Record<string, Endpoint>>)
    res.json(document)
  })
  for (const routes of [
    accountRoutes,
    auditRoutes,
    privacyRoutes,
    siteRoutes,
    blockRoutes,
    placeRoutes,
    groundRoutes,
    harvestRoutes,
    programmeRoutes,
    scheduleRoutes,
    preventionRoutes,
    livingRoutes,
    equipmentRoutes,
    permissionRoutes,
    trialRoutes,
    companionRoutes,
    plotRoutes,
    replacementRoutes,
    aroundRoutes,
    alertRoutes,
    ruleRoutes,
    cropRoutes,
    arrivalRoutes,
    helpingRoutes,
    weatherRoutes,
    weatherFileRoutes,
    watchRoutes,
    libraryRoutes,
    varietyRoutes,
    bloomRoutes,
    treatmentRoutes,
    scoutingRoutes,
    flagRoutes,
    trapRoutes,
    outcomeRoutes,
    packageRoutes,
    deviceRoutes,
    demoRoutes,
  ])
    routes(api, serving)
  wayRoutes(api, serving, options.way)
  findRoutes(api, serving, addressesOf(options.way)[0])
  changeRoutes(api, serving, changes)
  api.use(() => {
    throw new HttpProblem(404, 'There is nothing at this address.')
  })
  app.use('/api/v1', api)

  // What is built carries its version in its name.
  app.use('/assets', express.static(`${options.page}/assets`, { index: false, maxAge: YEAR_S * 1000, immutable: true, fallthrough: true }))
  app.use(express.static(options.page, { index: false, maxAge: '1h' }))
  // Any other address is a screen of the page; a file that is not there is none.
  let html: ReturnType<typeof pageHtml> | undefined
  app.get('/{*screen}', async (req, res) => {
    if (/\.\w+$/.test(req.path)) throw new HttpProblem(404, 'There is no such file here.')
    const { reads, isDoor } = await readFirst(serving, req.path, signInOf(req))
    res
      .type('html')
      .set('Cache-Control', 'no-cache')
      .send((html ??= pageHtml(options.page))(req.path, reads, isDoor))
  })
  app.use(answerError(options.log))
  return app
}

function answerError(log: Logger): ErrorRequestHandler {
  return (error, req, res, next) => {
    const { problem, fault, retryAfter } = toProblem(error, req.method === 'GET' ? 'read' : 'write')
    const request = { request: res.get('X-Request-Id'), method: req.method, url: withoutSecrets(req.originalUrl), status: problem.status }
    if (fault) log.error({ ...request, err: error as Error }, problem.detail)
    // A device has nobody who reads its answers, so what was refused to it is written down.
    else if (req.path.endsWith('/readings')) log.warn(request, problem.detail)
    if (res.headersSent) {
      next(error)
      return
    }
    if (retryAfter !== undefined) res.set('Retry-After', String(retryAfter))
    res.status(problem.status).type('application/problem+json').send(JSON.stringify(problem))
  }
}

/** An address as it may be logged: that of a calendar is the secret itself. */
const withoutSecrets = (address: string): string => address.replace(/(\/calendar\/)[^/?]+/, '$1…').slice(0, 500)
