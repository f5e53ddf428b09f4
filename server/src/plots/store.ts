import type { Plot, PlotLook } from '@bocado/contract'
import { jsonOf, type Queryable, type Row } from '../database/index.js'

/** A plot without the names of its plants, and its looks by themselves. */
export type StoredPlot = Omit<Plot, 'plants' | 'looks' | 'dueOn'> & { weeds: string[]; wanted: string[] }
export type StoredLook = Omit<PlotLook, 'covers'> & {
  covers: Omit<PlotLook['covers'][number], 'name'>[]
  plotId: string
  season: string
  dueOn: string | null
}

/** The plots of a site by their numbers. */
export async function listPlots(db: Queryable, siteId: string): Promise<StoredPlot[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT p.*, l.name AS place_name FROM plot p JOIN place l ON l.id = p.place_id
     WHERE p.site_id = ? AND p.deleted_at IS NULL ORDER BY p.number, p.created_at, p.id`,
    [siteId],
  )
  return rows.map((row) => ({
    id: row['id'] as string,
    placeId: row['place_id'] as string,
    placeName: row['place_name'] as string,
    number: row['number'] as number,
    sideM: row['side_m'] as number,
    worked: Boolean(row['worked']),
    weeds: jsonOf<string[]>(row['weeds']),
    wanted: jsonOf<string[]>(row['wanted']),
    position:
      row['latitude'] === null
        ? null
        : {
            latitude: row['latitude'] as number,
            longitude: row['longitude'] as number,
            accuracyM: row['accuracy_m'] as number | null,
          },
    fromWhat: row['from_what'] as string,
    bearingDeg: row['bearing_deg'] as number | null,
    paces: row['paces'] as number | null,
    note: row['note'] as string,
    rowVersion: row['row_version'] as number,
  }))
}

/** Looks at the plots of a site, the newest first, whoever sent theirs first. */
export async function listLooks(db: Queryable, siteId: string): Promise<StoredLook[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT k.*, p.name AS person_name FROM plot_look k JOIN person p ON p.id = k.changed_by
     WHERE k.site_id = ? AND k.deleted_at IS NULL
     ORDER BY k.looked_on DESC, COALESCE(k.recorded_at, k.created_at) DESC, k.queue_order DESC, k.id`,
    [siteId],
  )
  return rows.map((row) => ({
    id: row['id'] as string,
    plotId: row['plot_id'] as string,
    season: row['season'] as string,
    lookedOn: row['looked_on'] as string,
    covers: jsonOf<StoredLook['covers']>(row['covers']),
    minutes: row['minutes'] as number | null,
    dueOn: row['due_on'] as string | null,
    photoId: row['photo_id'] as string | null,
    note: row['note'] as string,
    personName: row['person_name'] as string,
    rowVersion: row['row_version'] as number,
  }))
}

/** Names of the plants that a site wants, also of those that are on its list no more: what was seen of them stays. */
export async function wantedNames(db: Queryable, siteId: string): Promise<Map<string, string>> {
  const [rows] = await db.query<Row[]>('SELECT id, name FROM wanted_plant WHERE site_id = ?', [siteId])
  return new Map(rows.map((row) => [row['id'] as string, row['name'] as string]))
}
