import type { VarietyLook } from '@bocado/contract'
import type { Queryable, Row } from '../database/index.js'

const SELECT = `SELECT l.*, b.name AS block_name, p.name AS person
  FROM variety_look l JOIN place b ON b.id = l.block_id JOIN person p ON p.id = l.changed_by`

const lookOf = (row: Row): VarietyLook => ({
  id: row['id'] as string,
  organismId: row['organism_id'] as string,
  blockId: row['block_id'] as string,
  blockName: row['block_name'] as string,
  season: row['season'] as string,
  variety: row['variety'] as string,
  libraryVariety: row['library_variety'] as string | null,
  part: row['part'] as VarietyLook['part'],
  lookedOn: row['looked_on'] as string,
  looked: row['looked'] as number,
  hit: row['hit'] as number,
  degree: row['degree'] === null ? null : Number(row['degree']),
  note: row['note'] as string,
  personName: row['person'] as string,
  rowVersion: row['row_version'] as number,
})

/** Looks at varieties for an organism, or for any, newest first. */
export async function listVarietyLooks(db: Queryable, siteId: string, organismId: string | null): Promise<VarietyLook[]> {
  const [rows] = await db.query<Row[]>(
    `${SELECT} WHERE l.site_id = ?${organismId === null ? '' : ' AND l.organism_id = ?'} AND l.deleted_at IS NULL
     ORDER BY l.looked_on DESC, b.name, l.organism_id, l.variety, l.part`,
    [siteId, ...(organismId === null ? [] : [organismId])],
  )
  return rows.map(lookOf)
}

export async function findVarietyLook(db: Queryable, siteId: string, id: string): Promise<VarietyLook | undefined> {
  const [[row]] = await db.query<Row[]>(`${SELECT} WHERE l.id = ? AND l.site_id = ? AND l.deleted_at IS NULL`, [id, siteId])
  return row && lookOf(row)
}

/** Names of the varieties of a site, each in its first spelling. */
export async function listVarietyNames(db: Queryable, siteId: string): Promise<string[]> {
  const [rows] = await db.query<Row[]>(
    'SELECT MIN(variety) AS name FROM variety_look WHERE site_id = ? AND deleted_at IS NULL GROUP BY variety ORDER BY name',
    [siteId],
  )
  return rows.map((row) => row['name'] as string)
}
