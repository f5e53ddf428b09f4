import type { around, FirstSeen, ResponseOf, Site } from '@bocado/contract'
import { datedEvents, findOrganism, indicators } from '@bocado/library'
import { jsonOf, type Queryable, type Row } from '../database/index.js'
import { kilometres } from '../ground/geometry.js'

/** A distance is told by the class that it lies in, km: nearer ones would tell the place. */
const WITHIN_KM = [10, 25, 50, 100] as const

/**
 * A site is looked for at the middle of a square of about ten kilometres: whoever moves the position of their own site about to find out where
 * another lies finds no more than that.
 */
const SQUARE_DEGREES = 0.1
const inSquare = (degrees: number): number => Math.round(degrees / SQUARE_DEGREES) * SQUARE_DEGREES

/** A find or catch as near as this may be a source of infection here, km. */
export const SOURCE_WITHIN_KM = 25

/** A sharing site with the class of its distance. */
type Near = Map<string, number>

/** Other sites that agreed to tell, as far as a site that does the same may hear of them. */
async function sitesNear(db: Queryable, site: Pick<Site, 'id' | 'sharesFirst' | 'latitude' | 'longitude'>): Promise<Near> {
  const near: Near = new Map()
  if (!site.sharesFirst || site.latitude === null || site.longitude === null) return near
  const [rows] = await db.query<Row[]>(
    `SELECT id, latitude, longitude FROM site
     WHERE shares_first = 1 AND id <> ? AND latitude IS NOT NULL AND longitude IS NOT NULL AND archived_at IS NULL AND deleted_at IS NULL`,
    [site.id],
  )
  for (const row of rows) {
    const km = kilometres([site.longitude, site.latitude], [inSquare(row['longitude'] as number), inSquare(row['latitude'] as number)])
    const within = WITHIN_KM.find((limit) => km <= limit)
    if (within !== undefined) near.set(row['id'] as string, within)
  }
  return near
}

/** What of an organism was first found or caught this season at sites near by, at each site. */
async function findsAt(db: Queryable, near: Near, { season, today }: Pick<Site, 'season' | 'today'>): Promise<FirstSeen[]> {
  const ids = [...near.keys()]
  const [seen] = await db.query<Row[]>(
    `SELECT site_id, organism_id, event_id, kind, MIN(seen_on) AS day FROM event_record
     WHERE site_id IN (?) AND (kind = 'first' OR (kind = 'catch' AND caught > 0)) AND seen_on BETWEEN ? AND ? AND deleted_at IS NULL
     GROUP BY site_id, organism_id, event_id, kind`,
    [ids, season.start, today],
  )
  const [counts] = await db.query<Row[]>(
    `SELECT r.site_id, w.organism_id, r.counted_on AS day, r.units FROM round r JOIN watch w ON w.id = r.watch_id
     WHERE r.site_id IN (?) AND r.counted_on BETWEEN ? AND ? AND r.deleted_at IS NULL AND w.deleted_at IS NULL`,
    [ids, season.start, today],
  )
  const [flags] = await db.query<Row[]>(
    `SELECT f.site_id, f.organism_id, MIN(v.seen_on) AS day FROM flag_visit v JOIN flag f ON f.id = v.flag_id
     WHERE f.site_id IN (?) AND f.organism_id IS NOT NULL AND v.sight IN ('standing', 'regrowing') AND v.seen_on BETWEEN ? AND ?
       AND v.deleted_at IS NULL AND f.deleted_at IS NULL GROUP BY f.site_id, f.organism_id`,
    [ids, season.start, today],
  )
  const isAny = (row: Row): boolean => jsonOf<Record<string, number>[]>(row['units']).some((unit) => Object.values(unit).some((n) => n > 0))
  return [
    ...seen.map((row) => ({
      row,
      kind: row['kind'] === 'catch' ? ('catch' as const) : ('find' as const),
      event: row['event_id'] as string,
    })),
    ...[...counts.filter(isAny), ...flags].map((row) => ({ row, kind: 'find' as const, event: null })),
  ].flatMap(({ row, kind, event }): FirstSeen[] => {
    // What a site has named itself means nothing elsewhere, and might tell whose it is.
    const organism = findOrganism(row['organism_id'] as string)
    const withinKm = near.get(row['site_id'] as string)
    if (!organism || withinKm === undefined) return []
    const name = event === null ? null : (datedEvents(organism).find(({ id }) => id === event)?.name ?? null)
    return [{ kind, what: organism.id, name: organism.name, event: name, day: row['day'] as string, withinKm }]
  })
}

async function bloomsAt(db: Queryable, near: Near, { season, today }: Pick<Site, 'season' | 'today'>): Promise<FirstSeen[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT site_id, plant_id, event, MIN(seen_from) AS day FROM bloom_record
     WHERE site_id IN (?) AND not_yet = 0 AND seen_from BETWEEN ? AND ? AND deleted_at IS NULL GROUP BY site_id, plant_id, event`,
    [[...near.keys()], season.start, today],
  )
  return rows.flatMap((row): FirstSeen[] => {
    const plant = indicators.find(({ id }) => id === row['plant_id'])
    const event = plant?.events.find(({ id }) => id === row['event'])
    const withinKm = near.get(row['site_id'] as string)
    if (!plant || !event || withinKm === undefined) return []
    return [{ kind: 'bloom', what: plant.id, name: plant.name, event: event.name, day: row['day'] as string, withinKm }]
  })
}

/** Of each matter the first: that of the nearest class, and of these the earliest. */
function firstOfEach(all: readonly FirstSeen[]): FirstSeen[] {
  const found = new Map<string, FirstSeen>()
  for (const one of all) {
    const key = `${one.kind} ${one.what} ${one.event}`
    const known = found.get(key)
    if (!known || one.withinKm < known.withinKm || (one.withinKm === known.withinKm && one.day < known.day)) found.set(key, one)
  }
  return [...found.values()].sort((a, b) => (a.day < b.day ? 1 : a.day > b.day ? -1 : a.name < b.name ? -1 : 1))
}

/** What was first seen this season at other sites that agreed to tell it, the newest first; nothing for a site that does not. */
export async function firstsAround(db: Queryable, site: Site): Promise<ResponseOf<typeof around.read>> {
  const near = await sitesNear(db, site)
  if (near.size === 0) return { others: 0, found: [] }
  const all = [...(await findsAt(db, near, site)), ...(await bloomsAt(db, near, site))]
  return { others: near.size, found: firstOfEach(all) }
}

/** By organism the nearest find or catch that may be a source of infection here. */
export async function sourcesNear(db: Queryable, site: Site): Promise<Map<string, { withinKm: number; day: string }>> {
  const near = await sitesNear(db, site)
  if (near.size === 0) return new Map()
  const finds = firstOfEach((await findsAt(db, near, site)).map((one) => ({ ...one, kind: 'find', event: null })))
  return new Map(finds.filter(({ withinKm }) => withinKm <= SOURCE_WITHIN_KM).map(({ what, withinKm, day }) => [what, { withinKm, day }]))
}
