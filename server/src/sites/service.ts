import { randomUUID } from 'node:crypto'
import { ALL_SITES, type Holding, type ParsedInputOf, type Person, type Site, type sites } from '@bocado/contract'
import { civilDate, dayNumber, seasonLater, seasonStart, type Hemisphere } from '@bocado/core'
import { civilDayIn, type Clock } from '../clock.js'
import { holdingOf, insertRow, updateRow, versionsOf, type Queryable, type Row, type Write } from '../database/index.js'
import { fieldProblem, HttpProblem } from '../http/problems.js'
import type { Deps } from '../http/serving.js'
import { findSite, insertPerson, joinSite, listSites, peopleOf, sitesOfHoldings, type StoredSite } from './store.js'

/** A site without a latitude is taken to lie in the north. */
export const hemisphereOf = (site: Pick<StoredSite, 'latitude'>): Hemisphere => ((site.latitude ?? 0) < 0 ? 'south' : 'north')

/** First day of the season in which a day of the site lies. */
export const seasonOf = (site: Pick<StoredSite, 'latitude'>, day: string): string =>
  civilDate(seasonStart(dayNumber(day), hemisphereOf(site)))

/** Refuses a day that begins no season of a site; what is asked of a season would otherwise be answered of none. */
export function requireSeason(site: Pick<StoredSite, 'latitude'>, day: string): void {
  if (seasonOf(site, day) !== day) throw fieldProblem('season', `must be the first day of a season, such as ${seasonOf(site, day)}`)
}

/** Sites as they are shown, in a handful of queries however many they are. */
async function presented(db: Queryable, clock: Clock, stored: readonly StoredSite[]): Promise<Site[]> {
  const ids = stored.map(({ id }) => id)
  const [now, versions, people, sites] = await Promise.all([
    clock.now(db),
    versionsOf(db, ids),
    peopleOf(db, ids),
    sitesOfHoldings(
      db,
      stored.map(({ holding }) => holding.id),
    ),
  ])
  return stored.map((site) => {
    const today = civilDayIn(now, site.timeZone)
    const start = seasonStart(dayNumber(today), hemisphereOf(site))
    return {
      ...site,
      holding: { ...site.holding, sites: sites.get(site.holding.id) ?? 1 },
      today,
      season: { start: civilDate(start), end: civilDate(seasonLater(start, 1) - 1) },
      versions: versions[site.id] ?? {},
      people: people.get(site.id) ?? [],
    }
  })
}

/** The site, or 404. */
export async function getSite(db: Queryable, clock: Clock, siteId: string): Promise<Site> {
  const site = await findSite(db, siteId)
  if (!site) throw new HttpProblem(404, 'There is no such site.')
  const [shown] = await presented(db, clock, [site])
  return shown as Site
}

export async function getSites(db: Queryable, clock: Clock): Promise<Site[]> {
  return presented(db, clock, await listSites(db))
}

type SiteColumns = Pick<
  ParsedInputOf<typeof sites.create>,
  'name' | 'place' | 'timeZone' | 'units' | 'latitude' | 'longitude' | 'elevationM'
>

const columnsOf = (input: SiteColumns) => ({
  name: input.name,
  place: input.place,
  latitude: input.latitude,
  longitude: input.longitude,
  elevation_m: input.elevationM,
  time_zone: input.timeZone,
  units: input.units,
})

/** Starts a site together with the person who starts it, who is also the one recorded as having done so. */
export async function createSite({ db: tx, clock }: Deps, input: ParsedInputOf<typeof sites.create>): Promise<Site> {
  const siteId = randomUUID()
  const person: Person = { id: randomUUID(), ...input.person }
  await tx.query('INSERT INTO person (id, name) VALUES (?, ?)', [person.id, person.name])
  const w: Write = { tx, siteId, personId: person.id, now: await clock.now(tx) }
  if (input.holdingId) {
    const [[holding]] = await tx.query<Row[]>('SELECT id FROM holding WHERE id = ? AND deleted_at IS NULL', [input.holdingId])
    if (!holding) throw fieldProblem('holdingId', 'choose a holding from the list')
  }
  const holdingId = input.holdingId ?? randomUUID()
  if (!input.holdingId) await tx.query('INSERT INTO holding (id, name, changed_by) VALUES (?, ?, ?)', [holdingId, input.name, person.id])
  await insertRow(w, 'site', { ...columnsOf(input), holding_id: holdingId }, siteId)
  await joinSite(tx, siteId, person)
  return getSite(tx, clock, siteId)
}

export async function changeSite(w: Write, clock: Clock, input: ParsedInputOf<typeof sites.update>): Promise<Site> {
  await updateRow(w, 'site', w.siteId, input.rowVersion, columnsOf(input))
  return getSite(w.tx, clock, w.siteId)
}

export async function nameHolding(w: Write, clock: Clock, input: ParsedInputOf<typeof sites.nameHolding>): Promise<Holding> {
  await updateRow(w, 'holding', await holdingOf(w.tx, w.siteId), input.rowVersion, { name: input.name })
  return (await getSite(w.tx, clock, w.siteId)).holding
}

export async function addPerson(w: Write, input: ParsedInputOf<typeof sites.addPerson>): Promise<Person> {
  const person: Person = { id: randomUUID(), ...input }
  await insertPerson(w.tx, w.siteId, person)
  w.tx.touch(w.siteId, 'site')
  w.tx.touch(ALL_SITES, 'site')
  return person
}
