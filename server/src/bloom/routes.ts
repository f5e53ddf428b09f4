import { endpoints, id } from '@bocado/contract'
import { indicators } from '@bocado/library'
import type { Request, Response, Router } from 'express'
import Papa from 'papaparse'
import { removeRow } from '../database/index.js'
import { parse, read, write, type Deps } from '../http/route.js'
import { getSite } from '../sites/service.js'
import { followBloom } from '../watches/service.js'
import { listBlocks } from '../blocks/store.js'
import { addBloomRecord, importNotebook, previewNotebook, restoreBloomRecord } from './log.js'
import { bloomLadder } from './ladder.js'
import { bloomOverview } from './overview.js'
import { listBloomRecords } from './store.js'
import { addTrigger, restoreTrigger } from './triggers.js'

export function bloomRoutes(router: Router, deps: Deps): void {
  const { bloom } = endpoints
  const db = deps.database
  read(router, deps, bloom.records, ({ params }) => listBloomRecords(db, params.siteId))
  read(router, deps, bloom.overview, ({ params }) => bloomOverview(deps, params.siteId))
  read(router, deps, bloom.ladder, ({ params }) => bloomLadder(deps, params.siteId))
  write(router, deps, bloom.add, (ctx) => addBloomRecord(ctx, deps, ctx.input))
  write(router, deps, bloom.remove, (ctx) => removeRow(ctx, 'bloom_record', ctx.params.recordId, ctx.input.rowVersion))
  write(router, deps, bloom.restore, (ctx) => restoreBloomRecord(ctx, ctx.params.recordId, ctx.input.rowVersion))
  write(router, deps, bloom.preview, (ctx) => previewNotebook(deps, ctx.siteId, ctx.input.text))
  write(router, deps, bloom.import, (ctx) => importNotebook(ctx, deps, ctx.input))
  write(router, deps, bloom.addTrigger, (ctx) => addTrigger(ctx, ctx.input))
  write(router, deps, bloom.removeTrigger, (ctx) => removeRow(ctx, 'bloom_trigger', ctx.params.recordId, ctx.input.rowVersion))
  write(router, deps, bloom.restoreTrigger, (ctx) => restoreTrigger(ctx, ctx.params.recordId, ctx.input.rowVersion))
  write(router, deps, bloom.follow, (ctx) => followBloom(ctx, ctx.params.watchId, ctx.input.follows, ctx.input.rowVersion))

  /** The log in a form that the notebook takes in again. */
  router.get('/sites/:siteId/bloom.csv', async (req: Request, res: Response) => {
    const siteId = parse(id, req.params['siteId'])
    const records = await listBloomRecords(db, siteId)
    res.type('text/csv').attachment('bloom.csv')
    res.send(
      Papa.unparse({
        fields: ['date', 'plant', 'event', 'place', 'note', 'observer'],
        data: records.map((r) => [
          r.seenTo === r.seenFrom ? r.seenFrom : `${r.seenFrom}/${r.seenTo}`,
          indicators.find(({ id: plant }) => plant === r.plantId)?.name ?? r.plantId,
          r.notYet ? `not yet ${r.event}` : r.event,
          r.place,
          r.note,
          r.personName,
        ]),
      }),
    )
  })
  /** The log as Darwin Core occurrences. */
  router.get('/sites/:siteId/bloom-occurrences.csv', async (req: Request, res: Response) => {
    const siteId = parse(id, req.params['siteId'])
    const site = await getSite(db, deps.clock, siteId)
    const blocks = await listBlocks(db, siteId)
    const records = await listBloomRecords(db, siteId)
    res.type('text/csv').attachment('bloom-occurrences.csv')
    res.send(
      Papa.unparse(
        records.map((r) => {
          const block = blocks.find(({ id: blockId }) => blockId === r.blockId)
          return {
            occurrenceID: r.id,
            basisOfRecord: 'HumanObservation',
            scientificName: indicators.find(({ id: plant }) => plant === r.plantId)?.scientificName ?? r.plantId,
            eventDate: r.seenTo === r.seenFrom ? r.seenFrom : `${r.seenFrom}/${r.seenTo}`,
            reproductiveCondition: r.event,
            occurrenceStatus: r.notYet ? 'absent' : 'present',
            recordedBy: r.personName,
            locality: [site.place, block?.name, r.place].filter(Boolean).join(', '),
            decimalLatitude: block?.latitude ?? site.latitude ?? '',
            decimalLongitude: block?.longitude ?? site.longitude ?? '',
            occurrenceRemarks: r.note,
          }
        }),
      ),
    )
  })
}
