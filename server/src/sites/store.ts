import type { Holding, Person, Site } from '@bocado/contract'
import { instantOf, jsonOf, type Queryable, type Row } from '../database/index.js'

export type StoredSite = Omit<Site, 'today' | 'season' | 'seasons' | 'versions' | 'people' | 'holding'> & {
  holding: Omit<Holding, 'sites'>
}

const siteOf = (row: Row): StoredSite => ({
  id: row['id'] as string,
  holding: { id: row['holding_id'] as string, name: row['holding_name'] as string, rowVersion: row['holding_version'] as number },
  name: row['name'] as string,
  kind: row['kind'] as Site['kind'],
  place: row['place'] as string,
  latitude: row['latitude'] as number | null,
  longitude: row['longitude'] as number | null,
  elevationM: row['elevation_m'] as number | null,
  auditYears: row['audit_years'] as number | null,
  timeZone: row['time_zone'] as string,
  units: row['units'] as Site['units'],
  rules: {
    country: row['rules_country'] as string,
    region: row['rules_region'] as string,
    checkedOn: row['rules_checked_on'] as string | null,
  },
  policy: {
    chemicals: row['chemicals'] as Site['policy']['chemicals'],
    certificate: row['certificate'] as string,
    certifiedOn: row['certified_on'] as string | null,
  },
  sharesFirst: Boolean(row['shares_first']),
  archivedAt: row['archived_at'] ? instantOf(row['archived_at'] as string) : null,
  rowVersion: row['row_version'] as number,
})

const SELECT = `SELECT s.*, h.name AS holding_name, h.row_version AS holding_version FROM site s JOIN holding h ON h.id = s.holding_id`

export async function listSites(db: Queryable): Promise<StoredSite[]> {
  const [rows] = await db.query<Row[]>(`${SELECT} WHERE s.deleted_at IS NULL ORDER BY s.created_at, s.name`)
  return rows.map(siteOf)
}

export async function findSite(db: Queryable, siteId: string): Promise<StoredSite | undefined> {
  const [[row]] = await db.query<Row[]>(`${SELECT} WHERE s.id = ? AND s.deleted_at IS NULL`, [siteId])
  return row && siteOf(row)
}

/** The sites at which somebody works. */
export async function listSitesOf(db: Queryable, personId: string): Promise<StoredSite[]> {
  const [rows] = await db.query<Row[]>(
    `${SELECT} JOIN site_person sp ON sp.site_id = s.id AND sp.person_id = ? AND sp.left_at IS NULL
     WHERE s.deleted_at IS NULL ORDER BY s.created_at, s.name`,
    [personId],
  )
  return rows.map(siteOf)
}

/** How many sites holdings have. */
export async function sitesOfHoldings(db: Queryable, holdingIds: readonly string[]): Promise<Map<string, number>> {
  if (holdingIds.length === 0) return new Map()
  const [rows] = await db.query<Row[]>(
    'SELECT holding_id, COUNT(*) AS sites FROM site WHERE holding_id IN (?) AND deleted_at IS NULL GROUP BY holding_id',
    [[...new Set(holdingIds)]],
  )
  return new Map(rows.map((row) => [row['holding_id'] as string, Number(row['sites'])]))
}

/** The day and the blocks of a volunteer. */
export const helpOf = (row: Row): Person['help'] =>
  row['help_on'] === null ? null : { on: row['help_on'] as string, blockIds: jsonOf<string[]>(row['help_in']) }

/** The people of sites, by site. */
export async function peopleOf(db: Queryable, siteIds: readonly string[]): Promise<Map<string, Person[]>> {
  const people = new Map<string, Person[]>()
  if (siteIds.length === 0) return people
  const [rows] = await db.query<Row[]>(
    `SELECT sp.site_id, p.id, p.name, sp.role, sp.licensed, sp.licence_number, sp.licence_until, sp.help_on, sp.help_in, sp.row_version, a.person_id IS NOT NULL AS signs_in FROM site_person sp
     JOIN person p ON p.id = sp.person_id LEFT JOIN account a ON a.person_id = p.id
     WHERE sp.site_id IN (?) AND sp.left_at IS NULL ORDER BY sp.role, p.name`,
    [siteIds],
  )
  for (const row of rows) {
    const siteId = row['site_id'] as string
    const person: Person = {
      id: row['id'] as string,
      name: row['name'] as string,
      role: row['role'] as Person['role'],
      licensed: Boolean(row['licensed']),
      licenceNumber: row['licence_number'] as string,
      licenceUntil: row['licence_until'] as string | null,
      signsIn: Boolean(row['signs_in']),
      help: helpOf(row),
      rowVersion: row['row_version'] as number,
    }
    people.set(siteId, [...(people.get(siteId) ?? []), person])
  }
  return people
}

/** What somebody is at a site. */
type Member = Pick<Person, 'id' | 'role' | 'licensed'> & Partial<Pick<Person, 'licenceNumber' | 'licenceUntil' | 'help'>>

export async function insertPerson(db: Queryable, siteId: string, person: Member & Pick<Person, 'name'>): Promise<void> {
  await db.query('INSERT INTO person (id, name) VALUES (?, ?)', [person.id, person.name])
  await joinSite(db, siteId, person)
}

/** Nobody but a volunteer is held to a day. */
export const helpColumns = (role: Person['role'], help: Person['help']): [on: string | null, blocks: string | null] =>
  role === 'volunteer' && help ? [help.on, JSON.stringify(help.blockIds)] : [null, null]

/** Somebody who was here before comes back. */
export async function joinSite(
  db: Queryable,
  siteId: string,
  { id, role, licensed, licenceNumber = '', licenceUntil = null, help = null }: Member,
): Promise<void> {
  await db.query(
    `INSERT INTO site_person (site_id, person_id, role, licensed, licence_number, licence_until, help_on, help_in) VALUES (?, ?, ?, ?, ?, ?, ?, ?)
     ON DUPLICATE KEY UPDATE role = VALUES(role), licensed = VALUES(licensed), licence_number = VALUES(licence_number),
       licence_until = VALUES(licence_until), help_on = VALUES(help_on), help_in = VALUES(help_in), left_at = NULL, row_version = row_version + 1`,
    [siteId, id, role, licensed, licenceNumber, licenceUntil, ...helpColumns(role, help)],
  )
}

/** Seasons that sites have watches of, the newest first. */
export async function seasonsOf(db: Queryable, siteIds: readonly string[]): Promise<Map<string, string[]>> {
  const seasons = new Map<string, string[]>()
  if (siteIds.length === 0) return seasons
  const [rows] = await db.query<Row[]>(
    'SELECT DISTINCT site_id, season FROM watch WHERE site_id IN (?) AND deleted_at IS NULL ORDER BY season DESC',
    [siteIds],
  )
  for (const row of rows) {
    const siteId = row['site_id'] as string
    seasons.set(siteId, [...(seasons.get(siteId) ?? []), row['season'] as string])
  }
  return seasons
}
