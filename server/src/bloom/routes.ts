import { endpoints, id } from '@bocado/contract'
import type { Router } from 'express'
import { z } from 'zod'
import { removeRow } from '../database/index.js'
import { csvOf } from '../http/csv.js'
import { download, read, write, type Deps, type Serving } from '../http/route.js'
import { getSite } from '../sites/service.js'
import { followBloom } from '../watches/service.js'
import { listBlocks } from '../blocks/store.js'
import { addBloomRecord, importNotebook, previewNotebook, restoreBloomRecord } from './log.js'
import { bloomLadder } from './ladder.js'
import { bloomOverview } from './overview.js'
import { blooming } from './blooming.js'
import { knownPlants } from './plants.js'
import { listBloomRecords } from './store.js'
import { addTrigger, restoreTrigger } from './triggers.js'

export function bloomRoutes(router: Router, serving: Serving): void {
  const { bloom } = endpoints
  read(router, serving, bloom.records, ({ deps, params }) => listBloomRecords(deps.db, params.siteId))
  read(router, serving, bloom.blooming, ({ deps, params }) => blooming(deps, params.siteId, params.blockId))
  read(router, serving, bloom.overview, ({ deps, params }) => bloomOverview(deps, params.siteId))
  read(router, serving, bloom.ladder, ({ deps, params }) => bloomLadder(deps, params.siteId))
  write(router, serving, bloom.add, (ctx) => addBloomRecord(ctx, ctx.deps, ctx.input))
  write(router, serving, bloom.remove, (ctx) => removeRow(ctx, 'bloom_record', ctx.params.recordId, ctx.input.rowVersion))
  write(router, serving, bloom.restore, (ctx) => restoreBloomRecord(ctx, ctx.params.recordId, ctx.input.rowVersion))
  read(router, serving, bloom.preview, ({ deps, params, input }) => previewNotebook(deps, params.siteId, input))
  write(router, serving, bloom.import, (ctx) => importNotebook(ctx, ctx.deps, ctx.input))
  write(router, serving, bloom.addTrigger, (ctx) => addTrigger(ctx, ctx.deps, ctx.input))
  write(router, serving, bloom.removeTrigger, (ctx) => removeRow(ctx, 'bloom_trigger', ctx.params.recordId, ctx.input.rowVersion))
  write(router, serving, bloom.restoreTrigger, (ctx) => restoreTrigger(ctx, ctx.params.recordId, ctx.input.rowVersion))
  write(router, serving, bloom.follow, (ctx) => followBloom(ctx, ctx.params.watchId, ctx.input.follows, ctx.input.rowVersion))

  /** The log in a form that the notebook takes in again. */
  download(router, serving, '/sites/:siteId/bloom.csv', SITE, NO_QUERY, async ({ db }, { siteId }) => {
    const plants = await knownPlants(db, siteId)
    return {
      type: 'text/csv',
      fileName: 'bloom.csv',
      body: csvOf({
        fields: ['date', 'plant', 'event', 'place', 'note', 'observer'],
        data: (await listBloomRecords(db, siteId)).map((r) => [
          r.seenTo === r.seenFrom ? r.seenFrom : `${r.seenFrom}/${r.seenTo}`,
          plants.find(({ id: plant }) => plant === r.plantId)?.name ?? r.plantName ?? r.plantId,
          r.notYet ? `not yet ${r.event}` : r.event,
          r.place,
          r.note,
          r.personName,
        ]),
      }),
    }
  })
  /** The log as Darwin Core occurrences. */
  download(router, serving, '/sites/:siteId/bloom-occurrences.csv', SITE, NO_QUERY, async (deps, { siteId }) => ({
    type: 'text/csv',
    fileName: 'bloom-occurrences.csv',
    body: csvOf(await occurrences(deps, siteId)),
  }))
}

const SITE = z.object({ siteId: id })
const NO_QUERY = z.object({})

async function occurrences({ db, clock }: Deps, siteId: string): Promise<Record<string, unknown>[]> {
  const site = await getSite(db, clock, siteId)
  const blocks = await listBlocks(db, siteId)
  const plants = await knownPlants(db, siteId)
  return (await listBloomRecords(db, siteId)).map((r) => {
    const block = blocks.find(({ id: blockId }) => blockId === r.blockId)
    return {
      occurrenceID: r.id,
      basisOfRecord: 'HumanObservation',
      scientificName: plants.find(({ id: plant }) => plant === r.plantId)?.scientificName ?? r.plantName ?? r.plantId,
      eventDate: r.seenTo === r.seenFrom ? r.seenFrom : `${r.seenFrom}/${r.seenTo}`,
      reproductiveCondition: r.event,
      occurrenceStatus: r.notYet ? 'absent' : 'present',
      recordedBy: r.personName,
      locality: [site.place, block?.name, r.place].filter(Boolean).join(', '),
      decimalLatitude: block?.latitude ?? site.latitude ?? '',
      decimalLongitude: block?.longitude ?? site.longitude ?? '',
      occurrenceRemarks: r.note,
    }
  })
}
