import type { outcomes, ParsedInputOf, ReviewNote } from '@bocado/contract'
import { insertOnce, updateRow, type Queryable, type Row, type Write } from '../database/index.js'
import { HttpProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { liveBlock } from '../places/store.js'
import { getSite, requireSeason } from '../sites/service.js'

const noteOf = (row: Row): ReviewNote => ({
  id: row['id'] as string,
  blockId: row['place_id'] as string,
  said: row['said'] as string,
  personName: row['person'] as string,
  rowVersion: row['row_version'] as number,
})

/** What was said of a season, by block. */
export async function listNotes(db: Queryable, siteId: string, season: string): Promise<ReviewNote[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT n.*, p.name AS person FROM review_note n JOIN person p ON p.id = n.changed_by
     WHERE n.site_id = ? AND n.season = ? AND n.deleted_at IS NULL ORDER BY n.created_at, n.id`,
    [siteId, season],
  )
  return rows.map(noteOf)
}

/** Keeps what is said of a season in a block, or puts it right. */
export async function keepNote(
  w: Write,
  deps: Deps,
  blockId: string,
  { season, said, rowVersion }: ParsedInputOf<typeof outcomes.keepNote>,
): Promise<ReviewNote> {
  await liveBlock(w.tx, w.siteId, blockId)
  requireSeason(await getSite(w.tx, deps.clock, w.siteId), season)
  const before = (await listNotes(w.tx, w.siteId, season)).find((note) => note.blockId === blockId)
  if (rowVersion === null)
    await insertOnce(
      w,
      'review_note',
      { place_id: blockId, season, said },
      () => new HttpProblem(409, 'Somebody wrote on this season meanwhile. Look at it, and add to that.'),
    )
  else if (before) await updateRow(w, 'review_note', before.id, rowVersion, { said })
  else throw new HttpProblem(404, 'Nothing was said of this season in this block yet.')
  return (await listNotes(w.tx, w.siteId, season)).find((note) => note.blockId === blockId) as ReviewNote
}
