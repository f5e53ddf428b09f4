import { endpoints, id } from '@bocado/contract'
import { methodSchema, organismSchema } from '@bocado/library'
import type { Request, Response, Router } from 'express'
import { z } from 'zod'
import { removeRow } from '../database/index.js'
import { HttpProblem } from '../http/problems.js'
import { parse, read, write, type Deps } from '../http/route.js'
import { listOwnMethods, listOwnOrganisms, methodsOf, organismsOf } from './catalogue.js'
import { addCheck, confirmPhoto, listChecks, listPhotos, photoFile, restoreCheck, verdictSoFar } from './identity.js'
import { requireUnwatched, restoreOwn, saveMethod, saveOrganism } from './ownEntries.js'
import { benchData } from './bench.js'
import { addToRoute } from './route.js'
import { libraryEntry, listIndicators, listLibrary, watchedOrganisms } from './service.js'
import { signsOf, suspectsOf } from './suspects.js'

/** JSON Schemas of what can be imported. */
const SCHEMAS = { organism: organismSchema, method: methodSchema } as const
const tableOf = (kind: 'organism' | 'method') => (kind === 'organism' ? 'own_organism' : 'own_method')

export function libraryRoutes(router: Router, deps: Deps): void {
  const { library, bench } = endpoints
  const db = deps.database
  read(router, deps, library.list, ({ params }) => listLibrary(deps, params.siteId))
  read(router, deps, library.entry, ({ params, input }) => libraryEntry(deps, params.siteId, params.organismId, input.blockId))
  read(router, deps, bench.data, ({ params, input }) => benchData(deps, params.siteId, params.organismId, input.blockId))
  read(router, deps, library.methods, ({ params }) => methodsOf(db, params.siteId))
  read(router, deps, library.indicators, ({ params }) => listIndicators(deps, params.siteId))
  write(router, deps, library.addToRoute, (ctx) => addToRoute(ctx, ctx.input.plantId, ctx.input.place))
  write(router, deps, library.removeFromRoute, (ctx) => removeRow(ctx, 'bloom_plant', ctx.params.rowId, ctx.input.rowVersion))
  read(router, deps, library.signs, async ({ params }) => signsOf(await organismsOf(db, params.siteId)))
  read(router, deps, library.suspects, async ({ params, input }) => {
    const { watched, hemisphere } = await watchedOrganisms(deps, params.siteId)
    return suspectsOf(await organismsOf(db, params.siteId), input, watched, hemisphere)
  })
  read(router, deps, library.verdict, ({ params, input }) => verdictSoFar(deps, params.siteId, params.organismId, input.answers))
  read(router, deps, library.checks, ({ params, input }) => listChecks(db, params.siteId, input.organismId))
  write(router, deps, library.check, (ctx) => addCheck(ctx, deps, ctx.input))
  write(router, deps, library.removeCheck, (ctx) => removeRow(ctx, 'identity_check', ctx.params.rowId, ctx.input.rowVersion))
  write(router, deps, library.restoreCheck, (ctx) => restoreCheck(ctx, ctx.params.rowId, ctx.input.rowVersion))
  read(router, deps, library.photos, ({ params, input }) => listPhotos(db, params.siteId, input.organismId))
  write(router, deps, library.confirmPhoto, (ctx) => confirmPhoto(ctx, ctx.params.rowId, ctx.input))
  write(router, deps, library.saveOrganism, (ctx) => saveOrganism(ctx, ctx.input.entry))
  write(router, deps, library.saveMethod, (ctx) => saveMethod(ctx, ctx.input.entry))
  write(router, deps, library.removeOwn, async (ctx) => {
    if (ctx.params.kind === 'organism') await requireUnwatched(ctx, ctx.params.rowId)
    return removeRow(ctx, tableOf(ctx.params.kind), ctx.params.rowId, ctx.input.rowVersion)
  })
  write(router, deps, library.restoreOwn, (ctx) => restoreOwn(ctx, tableOf(ctx.params.kind), ctx.params.rowId, ctx.input.rowVersion))

  router.get('/sites/:siteId/photos/:photoId/jpeg', async (req: Request, res: Response) => {
    const jpeg = await photoFile(db, parse(id, req.params['siteId']), parse(id, req.params['photoId']))
    res.type('image/jpeg').set('Cache-Control', 'private, max-age=86400, immutable').send(jpeg)
  })
  router.get('/schemas/:name.json', (req: Request, res: Response) => {
    const schema = SCHEMAS[req.params['name'] as keyof typeof SCHEMAS]
    if (!schema) throw new HttpProblem(404, 'There is a schema of organism and one of method.')
    res.json(z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }))
  })
  /** An entry as a file: one of the site's own as it was written, one of the library spelt out. */
  router.get('/sites/:siteId/library/:kind/:entryId/file', async (req: Request, res: Response) => {
    const siteId = parse(id, req.params['siteId'])
    const { kind, entryId = '' } = req.params as { kind: string; entryId?: string }
    const entry =
      kind === 'methods'
        ? ((await listOwnMethods(db, siteId)).find(({ method }) => method.id === entryId)?.entry ??
          (await methodsOf(db, siteId)).map(({ own: _, ...method }) => method).find((method) => method.id === entryId))
        : ((await listOwnOrganisms(db, siteId)).find(({ organism }) => organism.id === entryId)?.entry ??
          (await organismsOf(db, siteId)).find((organism) => organism.id === entryId))
    if (!entry) throw new HttpProblem(404, 'There is no such entry.')
    res
      .attachment(`${entryId}.json`)
      .type('application/json')
      .send(`${JSON.stringify(entry, null, 2)}\n`)
  })
}
