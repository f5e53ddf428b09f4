import { endpoints, openApiDocument, type Endpoint } from '@bocado/contract'
import compression from 'compression'
import express, { Router, type ErrorRequestHandler, type Express } from 'express'
import helmet from 'helmet'
import type { Logger } from 'pino'
import { bloomRoutes } from './bloom/routes.js'
import { demoRoutes } from './demo/routes.js'
import { deviceRoutes } from './devices/routes.js'
import { blockRoutes } from './blocks/routes.js'
import { toProblem } from './http/problems.js'
import type { Deps } from './http/route.js'
import { libraryRoutes } from './library/routes.js'
import { outcomeRoutes } from './outcomes/routes.js'
import { scoutingRoutes } from './scouting/routes.js'
import { siteRoutes } from './sites/routes.js'
import { treatmentRoutes } from './treatments/routes.js'
import { varietyRoutes } from './varieties/routes.js'
import { watchRoutes } from './watches/routes.js'
import { weatherRoutes } from './weather/routes.js'
import { weatherFileRoutes } from './weatherFiles/routes.js'

/** The application over its parts: the interface under /api/v1, the built page elsewhere. */
export function createApp(deps: Deps, options: { page: string; log: Logger }): Express {
  const app = express()
  // Styles are made in the page as it runs; everything else comes from this server.
  app.use(
    helmet({ contentSecurityPolicy: { directives: { 'style-src': ["'self'", "'unsafe-inline'"], 'upgrade-insecure-requests': null } } }),
  )
  app.use(compression({ filter: (req, res) => !req.headers.accept?.includes('ndjson') && compression.filter(req, res) }))
  app.use(express.json({ limit: '2mb' }))

  app.get('/healthz', async (_req, res) => {
    await deps.database.query('SELECT 1')
    res.json({ ok: true })
  })
  const api = Router()
  const document = openApiDocument(endpoints as unknown as Record<string, Record<string, Endpoint>>)
  api.get('/openapi.json', (_req, res) => {
    res.json(document)
  })
  for (const routes of [
    siteRoutes,
    blockRoutes,
    weatherRoutes,
    weatherFileRoutes,
    watchRoutes,
    libraryRoutes,
    varietyRoutes,
    bloomRoutes,
    treatmentRoutes,
    scoutingRoutes,
    outcomeRoutes,
    deviceRoutes,
    demoRoutes,
  ])
    routes(api, deps)
  api.use((_req, res) => {
    res
      .status(404)
      .type('application/problem+json')
      .json({ type: 'about:blank', title: 'Not found', status: 404, detail: 'There is nothing at this address.' })
  })
  app.use('/api/v1', api)

  app.use(express.static(options.page, { index: false, maxAge: '1h' }))
  // Any other address is a screen of the page.
  app.get('/{*screen}', (_req, res) => {
    res.sendFile('index.html', { root: options.page, maxAge: 0 })
  })
  app.use(answerError(options.log))
  return app
}

function answerError(log: Logger): ErrorRequestHandler {
  return (error, req, res, next) => {
    const { problem, fault } = toProblem(error)
    if (fault) log.error({ err: error as Error, method: req.method, url: req.originalUrl }, problem.detail)
    // A device has nobody who reads its answers, so what was refused to it is written down.
    else if (req.path.endsWith('/readings')) log.warn({ url: req.originalUrl, status: problem.status }, problem.detail)
    if (res.headersSent) {
      next(error)
      return
    }
    if (problem.status === 503) res.set('Retry-After', '2')
    res.status(problem.status).type('application/problem+json').send(JSON.stringify(problem))
  }
}
