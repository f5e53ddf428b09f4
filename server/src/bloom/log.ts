import { randomUUID } from 'node:crypto'
import type { BloomRecord, NotebookLine, ParsedInputOf, Site, bloom } from '@bocado/contract'
import { insertOnce, insertRows, isStored, madeColumns, restoreRow, type Write } from '../database/index.js'
import { HttpProblem, fieldProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { addPhoto } from '../library/identity.js'
import { getSite, seasonOf } from '../sites/service.js'
import { readNotebook } from './notebook.js'
import { ownPlants, requirePlant } from './plants.js'
import { findBloomRecord, listBloomRecords } from './store.js'
import { liveBlock } from '../places/store.js'

type Input = ParsedInputOf<typeof bloom.add>

const sameBloom = (a: Pick<BloomRecord, 'plantId' | 'event' | 'seenFrom' | 'notYet' | 'place'>, b: typeof a): boolean =>
  a.plantId === b.plantId && a.event === b.event && a.seenFrom === b.seenFrom && a.notYet === b.notYet && a.place === b.place

export async function addBloomRecord(w: Write, deps: Deps, input: Input): Promise<BloomRecord> {
  if (input.id !== undefined && (await isStored(w, 'bloom_record', input.id))) return getRecord(w, input.id)
  const site = await getSite(w.tx, deps.clock, w.siteId)
  await requirePlant(w.tx, w.siteId, input.plantId)
  const to = input.seenTo ?? input.seenFrom
  if (to > site.today) throw refusal(input.seenTo ? 'seenTo' : 'seenFrom', 'day.future', { today: { day: site.today } })
  if (input.blockId !== null) await liveBlock(w.tx, w.siteId, input.blockId)
  const photoId = input.photo ? await addPhoto(w, { organismId: input.plantId, blockId: input.blockId }, input.photo, site.today) : null
  const columns = { ...columnsOf(site, input), photo_id: photoId, ...madeColumns(w, input.made) }
  const known = () => fieldProblem('seenFrom', 'this is in the log already for that day and place')
  const id = await insertOnce(w, 'bloom_record', columns, known, input.id)
  return getRecord(w, id)
}

const columnsOf = (site: Site, input: Omit<Input, 'photo' | 'id' | 'made'>): Record<string, unknown> => ({
  plant_id: input.plantId,
  event: input.event,
  block_id: input.blockId,
  place: input.place,
  season: seasonOf(site, input.seenFrom),
  seen_from: input.seenFrom,
  seen_to: input.seenTo ?? input.seenFrom,
  not_yet: input.notYet,
  note: input.note,
})

async function getRecord(w: Write, id: string): Promise<BloomRecord> {
  const record = await findBloomRecord(w.tx, w.siteId, id)
  if (!record) throw new HttpProblem(404, 'There is no such record at this site.')
  return record
}

export async function restoreBloomRecord(w: Write, id: string, rowVersion: number): Promise<{ id: string; rowVersion: number }> {
  await restoreRow(w, 'bloom_record', id, rowVersion)
  return { id, rowVersion: rowVersion + 1 }
}

/** How each line of a notebook is understood, and whether it stands in the log already. */
export async function previewNotebook(
  deps: Deps,
  siteId: string,
  { text, order }: ParsedInputOf<typeof bloom.preview>,
): Promise<NotebookLine[]> {
  const site = await getSite(deps.db, deps.clock, siteId)
  return marked(readNotebook(text, site.today, await ownPlants(deps.db, siteId), order), await listBloomRecords(deps.db, siteId))
}

function marked(lines: readonly NotebookLine[], log: readonly BloomRecord[]): NotebookLine[] {
  const seen: NotebookLine[] = []
  return lines.map((line) => {
    const same = (other: typeof line | BloomRecord): boolean =>
      line.plantId !== null && line.event !== null && line.seenFrom !== null && sameBloom(line as never, other as never)
    const known = log.some(same) || seen.some(same)
    seen.push(line)
    return { ...line, known }
  })
}

/** Takes a notebook into the log. A line that cannot be read refuses all of it, unless such lines shall be left out. */
export async function importNotebook(w: Write, deps: Deps, input: ParsedInputOf<typeof bloom.import>) {
  const site = await getSite(w.tx, deps.clock, w.siteId)
  const lines = marked(
    readNotebook(input.text, site.today, await ownPlants(w.tx, w.siteId), input.order),
    await listBloomRecords(w.tx, w.siteId),
  )
  const wrong = lines.filter(({ problem }) => problem !== null)
  if (wrong.length > 0 && !input.skipWrong)
    throw new HttpProblem(
      422,
      `${wrong.length} of ${lines.length} lines cannot be read, so nothing was taken. Put them right, or leave them out.`,
      {
        fields: wrong.slice(0, 20).map(({ line, problem }) => ({ path: `text.${line}`, message: `line ${line} ${problem}` })),
      },
    )
  if (lines.length === wrong.length) throw fieldProblem('text', 'holds no line that can be read')
  const importId = randomUUID()
  const fresh = lines.filter(({ problem, known }) => problem === null && !known)
  await insertRows(
    w,
    'bloom_record',
    fresh.map(({ plantId, event, seenFrom, seenTo, notYet, place, note }) => ({
      ...columnsOf(site, {
        plantId: plantId ?? '',
        event: event ?? 'first-open',
        blockId: null,
        place,
        seenFrom: seenFrom ?? '',
        seenTo,
        notYet,
        note,
      }),
      import_id: importId,
    })),
  )
  return { added: fresh.length, known: lines.filter(({ problem, known }) => problem === null && known).length, skipped: wrong.length }
}
