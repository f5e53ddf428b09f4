import { endpoints, id } from '@bocado/contract'
import { methodSchema, organismSchema } from '@bocado/library'
import type { Request, Response, Router } from 'express'
import { z } from 'zod'
import { removeRow, restoreRow } from '../database/index.js'
import { HttpProblem } from '../http/problems.js'
import { download, read, write, type Serving } from '../http/route.js'
import { listOwnMethods, listOwnOrganisms, methodsOf, organismsOf } from './catalogue.js'
import { addCheck, confirmPhoto, listChecks, listPhotos, photoFile, restoreCheck, verdictSoFar } from './identity.js'
import { bringBackOverwritten, listOverwritten, requireUnwatched, restoreOwn, saveMethod, saveOrganism } from './ownEntries.js'
import { benchData } from './bench.js'
import { reportDuties, restoreReportable, setReportable } from './reportables.js'
import { addOwnPlant, changeOwnPlant, restoreOwnPlant } from '../bloom/plants.js'
import { addToRoute, changeOnRoute } from './route.js'
import { libraryEntry, listIndicators, listLibrary, watchedOrganisms } from './service.js'
import { getToldApart, tellApart } from './toldApart.js'
import { keepUnknown, listUnknown, nameUnknown, restoreUnknown } from './unknownFinds.js'
import { signsOf, suspectsOf } from './suspects.js'

/** JSON Schemas of what can be imported. */
const SCHEMAS = { organism: organismSchema, method: methodSchema } as const
const tableOf = (kind: 'organism' | 'method') => (kind === 'organism' ? 'own_organism' : 'own_method')

export function libraryRoutes(router: Router, serving: Serving): void {
  const { library, bench } = endpoints
  read(router, serving, library.list, ({ deps, params }) => listLibrary(deps, params.siteId))
  read(router, serving, library.entry, ({ deps, params, input }) => libraryEntry(deps, params.siteId, params.organismId, input.blockId))
  read(router, serving, bench.data, ({ deps, params, input }) => benchData(deps, params.siteId, params.organismId, input.blockId))
  read(router, serving, library.methods, ({ deps, params }) => methodsOf(deps.db, params.siteId))
  read(router, serving, library.indicators, ({ deps, params }) => listIndicators(deps, params.siteId))
  write(router, serving, library.addToRoute, (ctx) => addToRoute(ctx, ctx.input.plantId, ctx.input.place, ctx.input.blockId))
  write(router, serving, library.changeOnRoute, (ctx) => changeOnRoute(ctx, ctx.params.rowId, ctx.input))
  write(router, serving, library.addOwnPlant, (ctx) => addOwnPlant(ctx, ctx.input))
  write(router, serving, library.changeOwnPlant, (ctx) => changeOwnPlant(ctx, ctx.params.plantRowId, ctx.input))
  write(router, serving, library.removeOwnPlant, (ctx) => removeRow(ctx, 'own_bloom_plant', ctx.params.plantRowId, ctx.input.rowVersion))
  write(router, serving, library.restoreOwnPlant, (ctx) => restoreOwnPlant(ctx, ctx.params.plantRowId, ctx.input.rowVersion))
  write(router, serving, library.removeFromRoute, (ctx) => removeRow(ctx, 'bloom_plant', ctx.params.rowId, ctx.input.rowVersion))
  read(router, serving, library.signs, async ({ deps, params }) => signsOf(await organismsOf(deps.db, params.siteId)))
  read(router, serving, library.unknownFinds, ({ deps, params }) => listUnknown(deps.db, params.siteId))
  write(router, serving, library.keepUnknown, (ctx) => keepUnknown(ctx, ctx.deps, ctx.input))
  write(router, serving, library.nameUnknown, (ctx) => nameUnknown(ctx, ctx.params.findId, ctx.input))
  write(router, serving, library.removeUnknown, (ctx) => removeRow(ctx, 'unknown_find', ctx.params.findId, ctx.input.rowVersion))
  write(router, serving, library.restoreUnknown, (ctx) => restoreUnknown(ctx, ctx.params.findId, ctx.input.rowVersion))
  read(router, serving, library.suspects, async ({ deps, params, input }) => {
    const { watched, hemisphere } = await watchedOrganisms(deps, params.siteId)
    return suspectsOf(await organismsOf(deps.db, params.siteId), input, watched, hemisphere)
  })
  read(router, serving, library.verdict, ({ deps, params, input }) => verdictSoFar(deps, params.siteId, params.organismId, input.answers))
  read(router, serving, library.checks, ({ deps, params, input }) => listChecks(deps.db, params.siteId, input.organismId))
  read(router, serving, library.reportDuties, ({ deps, params }) => reportDuties(deps.db, params.siteId))
  write(router, serving, library.setReportable, (ctx) => setReportable(ctx, ctx.params.organismId, ctx.input))
  write(router, serving, library.removeReportable, (ctx) => removeRow(ctx, 'reportable', ctx.params.reportableId, ctx.input.rowVersion))
  write(router, serving, library.restoreReportable, (ctx) => restoreReportable(ctx, ctx.params.reportableId, ctx.input.rowVersion))
  read(router, serving, library.toldApart, ({ deps, params }) => getToldApart(deps, params.siteId, params.watchId))
  write(router, serving, library.tellApart, (ctx) => tellApart(ctx, ctx.deps, ctx.params.watchId, ctx.input))
  write(router, serving, library.check, (ctx) => addCheck(ctx, ctx.deps, ctx.input))
  write(router, serving, library.removeCheck, (ctx) => removeRow(ctx, 'identity_check', ctx.params.rowId, ctx.input.rowVersion))
  write(router, serving, library.restoreCheck, (ctx) => restoreCheck(ctx, ctx.params.rowId, ctx.input.rowVersion))
  read(router, serving, library.photos, ({ deps, params, input }) => listPhotos(deps.db, params.siteId, input.organismId))
  write(router, serving, library.confirmPhoto, (ctx) => confirmPhoto(ctx, ctx.params.rowId, ctx.input))
  write(router, serving, library.removePhoto, (ctx) => removeRow(ctx, 'photo', ctx.params.rowId, ctx.input.rowVersion))
  write(router, serving, library.restorePhoto, async (ctx) => {
    await restoreRow(ctx, 'photo', ctx.params.rowId, ctx.input.rowVersion)
    return { id: ctx.params.rowId, rowVersion: ctx.input.rowVersion + 1 }
  })
  write(router, serving, library.saveOrganism, (ctx) => saveOrganism(ctx, ctx.input.entry, ctx.input))
  write(router, serving, library.saveMethod, (ctx) => saveMethod(ctx, ctx.input.entry, ctx.input))
  read(router, serving, library.overwritten, ({ deps, params }) => listOverwritten(deps.db, params.siteId))
  write(router, serving, library.bringBackOverwritten, (ctx) => bringBackOverwritten(ctx, ctx.params.auditId))
  write(router, serving, library.removeOwn, async (ctx) => {
    if (ctx.params.kind === 'organism') await requireUnwatched(ctx, ctx.params.rowId)
    return removeRow(ctx, tableOf(ctx.params.kind), ctx.params.rowId, ctx.input.rowVersion)
  })
  write(router, serving, library.restoreOwn, (ctx) => restoreOwn(ctx, tableOf(ctx.params.kind), ctx.params.rowId, ctx.input.rowVersion))

  download(router, serving, '/sites/:siteId/photos/:photoId/jpeg', PHOTO, NO_QUERY, async ({ db }, { siteId, photoId }) => ({
    type: 'image/jpeg',
    body: await photoFile(db, siteId, photoId),
    cache: 'private, max-age=86400, immutable',
  }))
  router.get('/schemas/:name.json', (req: Request, res: Response) => {
    const schema = SCHEMAS[req.params['name'] as keyof typeof SCHEMAS]
    if (!schema) throw new HttpProblem(404, 'There is a schema of organism and one of method.')
    res.json(z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }))
  })
  /** An entry as a file: one of the site's own as it was written, one of the library spelt out. */
  download(router, serving, '/sites/:siteId/library/:kind/:entryId/file', ENTRY, NO_QUERY, async ({ db }, { siteId, kind, entryId }) => {
    const entry =
      kind === 'methods'
        ? ((await listOwnMethods(db, siteId)).find(({ method }) => method.id === entryId)?.entry ??
          (await methodsOf(db, siteId)).map(({ own: _, ...method }) => method).find((method) => method.id === entryId))
        : ((await listOwnOrganisms(db, siteId)).find(({ organism }) => organism.id === entryId)?.entry ??
          (await organismsOf(db, siteId)).find((organism) => organism.id === entryId))
    if (!entry) throw new HttpProblem(404, 'There is no such entry.')
    return { type: 'application/json', fileName: `${entryId}.json`, body: `${JSON.stringify(entry, null, 2)}\n` }
  })
}

const PHOTO = z.object({ siteId: id, photoId: id })
const ENTRY = z.object({ siteId: id, kind: z.string(), entryId: z.string() })
const NO_QUERY = z.object({})
