import type { library, ParsedInputOf, UnknownFind } from '@bocado/contract'
import { insertRow, isStored, jsonOf, madeColumns, restoreRow, updateRow, type Queryable, type Row, type Write } from '../database/index.js'
import { HttpProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { liveBlock } from '../places/store.js'
import { getSite } from '../sites/service.js'
import { requireOrganism } from './catalogue.js'
import { addPhoto } from './identity.js'
import { observationsOf } from './suspects.js'

/** What a photo shows of which nobody knows what it is. */
const UNKNOWN = 'unknown'

const findOf = (row: Row): UnknownFind => ({
  id: row['id'] as string,
  blockId: row['block_id'] as string | null,
  foundOn: row['found_on'] as string,
  place: row['place'] as string,
  observations: jsonOf<UnknownFind['observations']>(row['seen']),
  howMany: row['how_many'] as number | null,
  note: row['note'] as string,
  photoId: row['photo_id'] as string | null,
  namedAs: row['named_as'] as string | null,
  personName: row['person'] as string,
  rowVersion: row['row_version'] as number,
})

const SELECT = 'SELECT u.*, p.name AS person FROM unknown_find u JOIN person p ON p.id = u.changed_by'

/** Finds that nobody could name when they were made, newest first. */
export async function listUnknown(db: Queryable, siteId: string): Promise<UnknownFind[]> {
  const [rows] = await db.query<Row[]>(
    `${SELECT} WHERE u.site_id = ? AND u.deleted_at IS NULL ORDER BY u.found_on DESC, u.created_at DESC, u.id`,
    [siteId],
  )
  return rows.map(findOf)
}

async function getUnknown(db: Queryable, siteId: string, id: string): Promise<UnknownFind> {
  const [[row]] = await db.query<Row[]>(`${SELECT} WHERE u.id = ? AND u.site_id = ? AND u.deleted_at IS NULL`, [id, siteId])
  if (!row) throw new HttpProblem(404, 'There is no such find at this site.')
  return findOf(row)
}

/** Keeps what nobody can name, with what was seen of it, how many there were and a photo, to be named later. */
export async function keepUnknown(w: Write, deps: Deps, input: ParsedInputOf<typeof library.keepUnknown>): Promise<UnknownFind> {
  if (input.id !== undefined && (await isStored(w, 'unknown_find', input.id))) return getUnknown(w.tx, w.siteId, input.id)
  const observations = [...observationsOf(input.seen, 'seen', true), ...observationsOf(input.notSeen, 'notSeen', false)]
  if (input.blockId !== null) await liveBlock(w.tx, w.siteId, input.blockId)
  const { today } = await getSite(w.tx, deps.clock, w.siteId)
  const foundOn = input.foundOn ?? today
  if (foundOn > today) throw refusal('foundOn', 'day.future', { today: { day: today } })
  const photoId = input.photo ? await addPhoto(w, { organismId: UNKNOWN, blockId: input.blockId }, input.photo, today) : null
  const columns = {
    block_id: input.blockId,
    found_on: foundOn,
    place: input.place,
    seen: JSON.stringify(observations),
    how_many: input.howMany,
    note: input.note,
    photo_id: photoId,
    ...madeColumns(w, input.made),
  }
  return getUnknown(w.tx, w.siteId, await insertRow(w, 'unknown_find', columns, input.id))
}

/** Says what a find turned out to be; its photo then is one of that. */
export async function nameUnknown(w: Write, id: string, input: ParsedInputOf<typeof library.nameUnknown>): Promise<UnknownFind> {
  const before = await getUnknown(w.tx, w.siteId, id)
  if (input.namedAs !== null) await requireOrganism(w.tx, w.siteId, input.namedAs)
  await updateRow(w, 'unknown_find', id, input.rowVersion, { named_as: input.namedAs })
  if (before.photoId) {
    const [[photo]] = await w.tx.query<Row[]>('SELECT row_version, deleted_at FROM photo WHERE id = ? FOR UPDATE', [before.photoId])
    const shows = input.namedAs ?? UNKNOWN
    if (photo && photo['deleted_at'] === null)
      await updateRow(w, 'photo', before.photoId, photo['row_version'] as number, { organism_id: shows, shows })
  }
  return getUnknown(w.tx, w.siteId, id)
}

export async function restoreUnknown(w: Write, id: string, rowVersion: number): Promise<UnknownFind> {
  await restoreRow(w, 'unknown_find', id, rowVersion)
  return getUnknown(w.tx, w.siteId, id)
}
