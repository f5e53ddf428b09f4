import type { Person, Site } from '@bocado/contract'
import type { Queryable, Row } from '../database/index.js'

export type StoredSite = Omit<Site, 'today' | 'season' | 'versions' | 'people'>

const siteOf = (row: Row): StoredSite => ({
  id: row['id'] as string,
  name: row['name'] as string,
  place: row['place'] as string,
  latitude: row['latitude'] as number | null,
  longitude: row['longitude'] as number | null,
  elevationM: row['elevation_m'] as number | null,
  timeZone: row['time_zone'] as string,
  units: row['units'] as Site['units'],
  rowVersion: row['row_version'] as number,
})

export async function listSites(db: Queryable): Promise<StoredSite[]> {
  const [rows] = await db.query<Row[]>('SELECT * FROM site WHERE deleted_at IS NULL ORDER BY created_at, name')
  return rows.map(siteOf)
}

export async function findSite(db: Queryable, siteId: string): Promise<StoredSite | undefined> {
  const [[row]] = await db.query<Row[]>('SELECT * FROM site WHERE id = ? AND deleted_at IS NULL', [siteId])
  return row && siteOf(row)
}

/** The people of sites, by site. */
export async function peopleOf(db: Queryable, siteIds: readonly string[]): Promise<Map<string, Person[]>> {
  const people = new Map<string, Person[]>()
  if (siteIds.length === 0) return people
  const [rows] = await db.query<Row[]>(
    `SELECT sp.site_id, p.id, p.name, sp.role, sp.licensed FROM site_person sp JOIN person p ON p.id = sp.person_id
     WHERE sp.site_id IN (?) ORDER BY sp.role, p.name`,
    [siteIds],
  )
  for (const row of rows) {
    const siteId = row['site_id'] as string
    const person: Person = {
      id: row['id'] as string,
      name: row['name'] as string,
      role: row['role'] as Person['role'],
      licensed: Boolean(row['licensed']),
    }
    people.set(siteId, [...(people.get(siteId) ?? []), person])
  }
  return people
}

export async function insertPerson(db: Queryable, siteId: string, person: Person): Promise<void> {
  await db.query('INSERT INTO person (id, name) VALUES (?, ?)', [person.id, person.name])
  await joinSite(db, siteId, person)
}

export async function joinSite(db: Queryable, siteId: string, person: Person): Promise<void> {
  await db.query('INSERT INTO site_person (site_id, person_id, role, licensed) VALUES (?, ?, ?, ?)', [
    siteId,
    person.id,
    person.role,
    person.licensed,
  ])
}
