import type { Notice, Permission } from '@bocado/contract'
import type { Queryable, Row } from '../database/index.js'

export async function listPermissions(db: Queryable, siteId: string): Promise<Permission[]> {
  const [rows] = await db.query<Row[]>(
    'SELECT * FROM permission WHERE site_id = ? AND deleted_at IS NULL ORDER BY COALESCE(valid_until, "9999-12-31"), by_whom, id',
    [siteId],
  )
  return rows.map((row) => ({
    id: row['id'] as string,
    kind: row['kind'] as Permission['kind'],
    byWhom: row['by_whom'] as string,
    ruleId: row['rule_id'] as string | null,
    placeId: row['place_id'] as string | null,
    productId: row['product_id'] as string | null,
    validFrom: row['valid_from'] as string,
    validUntil: row['valid_until'] as string | null,
    reference: row['reference'] as string,
    rowVersion: row['row_version'] as number,
  }))
}

/** Who was told of a treatment. */
export async function listNotices(db: Queryable, siteId: string, treatmentId: string): Promise<Notice[]> {
  const [rows] = await db.query<Row[]>(
    'SELECT * FROM notice WHERE site_id = ? AND treatment_id = ? AND deleted_at IS NULL ORDER BY given_on, to_whom',
    [siteId, treatmentId],
  )
  return rows.map(noticeOf)
}

export const noticeOf = (row: Row): Notice => ({
  id: row['id'] as string,
  treatmentId: row['treatment_id'] as string,
  toWhom: row['to_whom'] as string,
  way: row['way'] as Notice['way'],
  givenOn: row['given_on'] as string,
  rowVersion: row['row_version'] as number,
})
