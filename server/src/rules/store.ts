import type { SiteRule } from '@bocado/contract'
import type { Queryable, Row } from '../database/index.js'
import { blockOf, tree } from '../places/store.js'

/** The rules that a site has written down, those of law first. */
export async function listRules(db: Queryable, siteId: string): Promise<SiteRule[]> {
  const [rows] = await db.query<Row[]>('SELECT * FROM site_rule WHERE site_id = ? AND deleted_at IS NULL ORDER BY whose DESC, name, id', [
    siteId,
  ])
  const places = await tree(db, siteId)
  return rows.map((row) => ({
    id: row['id'] as string,
    name: row['name'] as string,
    kind: row['kind'] as SiteRule['kind'],
    act: row['act'] as SiteRule['act'],
    whose: row['whose'] as SiteRule['whose'],
    placeId: row['place_id'] as string | null,
    blockId: row['place_id'] === null ? null : (blockOf(places, row['place_id'] as string)?.id ?? (row['place_id'] as string)),
    companionId: null,
    fromDay: row['from_day'] as string | null,
    untilDay: row['until_day'] as string | null,
    fromHour: row['from_hour'] as number | null,
    untilHour: row['until_hour'] as number | null,
    amount: row['amount'] as number | null,
    source: row['source'] as string,
    readOn: row['read_on'] as string | null,
    rowVersion: row['row_version'] as number,
  }))
}
