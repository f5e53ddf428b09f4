import type { ParsedInputOf, Reportable, ResponseOf, library } from '@bocado/contract'
import { insertOnce, liveRow, restoreRow, updateRow, type Queryable, type Row, type Write } from '../database/index.js'
import { HttpProblem } from '../http/problems.js'
import { organismsOf, requireOrganism } from './catalogue.js'

const reportableOf = (row: Row, name: string): Reportable => ({
  id: row['id'] as string,
  organismId: row['organism_id'] as string,
  organismName: name,
  whom: row['whom'] as string,
  note: row['note'] as string,
  rowVersion: row['row_version'] as number,
})

/** Which organisms must be reported where a site lies, by its own list, and which the library asks to check. */
export async function reportDuties(db: Queryable, siteId: string): Promise<ResponseOf<typeof library.reportDuties>> {
  const [organisms, [rows]] = await Promise.all([
    organismsOf(db, siteId),
    db.query<Row[]>('SELECT * FROM reportable WHERE site_id = ? AND deleted_at IS NULL', [siteId]),
  ])
  const nameOf = (id: string): string => organisms.find((organism) => organism.id === id)?.name ?? id
  const listed = rows
    .map((row) => reportableOf(row, nameOf(row['organism_id'] as string)))
    .sort((a, b) => a.organismName.localeCompare(b.organismName))
  const toCheck = organisms.flatMap(({ id, name, about }) =>
    about.report !== null && !listed.some(({ organismId }) => organismId === id)
      ? [{ organismId: id, organismName: name, text: about.report }]
      : [],
  )
  return { listed, toCheck: toCheck.sort((a, b) => a.organismName.localeCompare(b.organismName)) }
}

async function getReportable(w: Write, id: string): Promise<Reportable> {
  const row = await liveRow(w.tx, w.siteId, 'reportable', id)
  return reportableOf(row, (await requireOrganism(w.tx, w.siteId, row['organism_id'] as string)).name)
}

/** Puts an organism on the list, or changes whom to tell. */
export async function setReportable(w: Write, organismId: string, input: ParsedInputOf<typeof library.setReportable>): Promise<Reportable> {
  await requireOrganism(w.tx, w.siteId, organismId)
  const columns = { organism_id: organismId, whom: input.whom, note: input.note }
  if (input.rowVersion === null) {
    const meanwhile = (): HttpProblem => new HttpProblem(409, 'Somebody put it on the list meanwhile. Look at it, and change that instead.')
    return getReportable(w, await insertOnce(w, 'reportable', columns, meanwhile))
  }
  const [[row]] = await w.tx.query<Row[]>('SELECT id FROM reportable WHERE site_id = ? AND organism_id = ? AND deleted_at IS NULL', [
    w.siteId,
    organismId,
  ])
  if (!row) throw new HttpProblem(409, 'It was taken off the list meanwhile. Save it once more to put it back.')
  await updateRow(w, 'reportable', row['id'] as string, input.rowVersion, columns)
  return getReportable(w, row['id'] as string)
}

export async function restoreReportable(w: Write, id: string, rowVersion: number): Promise<Reportable> {
  await restoreRow(w, 'reportable', id, rowVersion)
  return getReportable(w, id)
}
