import { randomUUID } from 'node:crypto'
import { ALL_SITES, type Holding, type ParsedInputOf, type Person, type Site, type sites } from '@bocado/contract'
import { civilDate, dayNumber, seasonLater, seasonStart, type Hemisphere } from '@bocado/core'
import { civilDayIn, type Clock } from '../clock.js'
import {
  auditOther,
  holdingOf,
  insertRow,
  removeRow,
  restoreRow,
  sqlInstant,
  updateRow,
  versionsOf,
  type Queryable,
  type Row,
  type Write,
} from '../database/index.js'
import { fieldProblem, HttpProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/serving.js'
import {
  findSite,
  helpColumns,
  insertPerson,
  joinSite,
  listSites,
  listSitesOf,
  peopleOf,
  seasonsOf,
  sitesOfHoldings,
  type StoredSite,
} from './store.js'

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
  const [now, versions, people, seasons, sites] = await Promise.all([
    clock.now(db),
    versionsOf(db, ids),
    peopleOf(db, ids),
    seasonsOf(db, ids),
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
      seasons: [...new Set([civilDate(start), ...(seasons.get(site.id) ?? [])])].sort().reverse(),
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

/** Every site there is: for what the server does by itself. */
export async function everySite(db: Queryable, clock: Clock): Promise<Site[]> {
  return presented(db, clock, await listSites(db))
}

/** The sites at which somebody works. */
export async function getSites(db: Queryable, clock: Clock, personId: string): Promise<Site[]> {
  const all = await presented(db, clock, await listSitesOf(db, personId))
  return all.map((site) => {
    const self = site.people.filter(({ id }) => id === personId)
    // Who helps for a day is told where they are, and not who else works there.
    return self.some(({ role }) => role === 'volunteer') ? { ...site, people: self, seasons: [site.season.start] } : site
  })
}

type SiteColumns = Pick<
  ParsedInputOf<typeof sites.create>,
  'name' | 'kind' | 'place' | 'timeZone' | 'units' | 'latitude' | 'longitude' | 'elevationM' | 'auditYears'
>

const columnsOf = (input: SiteColumns) => ({
  name: input.name,
  kind: input.kind,
  place: input.place,
  latitude: input.latitude,
  longitude: input.longitude,
  elevation_m: input.elevationM,
  audit_years: input.auditYears,
  time_zone: input.timeZone,
  units: input.units,
})

/** Starts a site, which is then of the person who starts it. A holding takes sites of who owns or leads one of it. */
export async function createSite({ db: tx, clock }: Deps, personId: string, input: ParsedInputOf<typeof sites.create>): Promise<Site> {
  const siteId = randomUUID()
  const w: Write = { tx, siteId, personId, now: await clock.now(tx) }
  if (input.holdingId) {
    const [[holding]] = await tx.query<Row[]>(
      `SELECT h.id FROM holding h JOIN site s ON s.holding_id = h.id AND s.deleted_at IS NULL
       JOIN site_person sp ON sp.site_id = s.id AND sp.person_id = ? AND sp.left_at IS NULL AND sp.role IN ('owner', 'lead')
       WHERE h.id = ? AND h.deleted_at IS NULL LIMIT 1`,
      [personId, input.holdingId],
    )
    if (!holding) throw fieldProblem('holdingId', 'choose a holding from the list')
  }
  const holdingId = input.holdingId ?? randomUUID()
  if (!input.holdingId) await tx.query('INSERT INTO holding (id, name, changed_by) VALUES (?, ?, ?)', [holdingId, input.name, personId])
  await insertRow(w, 'site', { ...columnsOf(input), holding_id: holdingId }, siteId)
  await joinSite(tx, siteId, { id: personId, role: 'owner', licensed: false })
  return getSite(tx, clock, siteId)
}

export async function changeSite(w: Write, clock: Clock, input: ParsedInputOf<typeof sites.update>): Promise<Site> {
  await updateRow(w, 'site', w.siteId, input.rowVersion, columnsOf(input))
  return getSite(w.tx, clock, w.siteId)
}

/** Says whose rules hold here. Those of another country or region are not checked because others were. */
export async function setRules(w: Write, clock: Clock, input: ParsedInputOf<typeof sites.setRules>): Promise<Site> {
  const { rules, today } = await getSite(w.tx, clock, w.siteId)
  if (input.checkedOn !== null && input.checkedOn > today) throw refusal('checkedOn', 'day.future', { today: { day: today } })
  const isOther = rules.country !== input.country || rules.region !== input.region
  await updateRow(w, 'site', w.siteId, input.rowVersion, {
    rules_country: input.country,
    rules_region: input.region,
    rules_checked_on: isOther && input.checkedOn === rules.checkedOn ? null : input.checkedOn,
  })
  return getSite(w.tx, clock, w.siteId)
}

/** Says how chemicals are used here. A certificate is kept only where the site grows by it. */
export async function setPolicy(w: Write, clock: Clock, input: ParsedInputOf<typeof sites.setPolicy>): Promise<Site> {
  const isOrganic = input.chemicals === 'organic'
  await updateRow(w, 'site', w.siteId, input.rowVersion, {
    chemicals: input.chemicals,
    certificate: isOrganic ? input.certificate : '',
    certified_on: isOrganic ? input.certifiedOn : null,
  })
  return getSite(w.tx, clock, w.siteId)
}

/** Says whether first finds, catches and blooms are told to other sites that do the same. */
export async function shareFirst(w: Write, clock: Clock, input: ParsedInputOf<typeof sites.shareFirst>): Promise<Site> {
  await updateRow(w, 'site', w.siteId, input.rowVersion, { shares_first: input.sharesFirst })
  return getSite(w.tx, clock, w.siteId)
}

export async function nameHolding(w: Write, clock: Clock, input: ParsedInputOf<typeof sites.nameHolding>): Promise<Holding> {
  await updateRow(w, 'holding', await holdingOf(w.tx, w.siteId), input.rowVersion, { name: input.name })
  return (await getSite(w.tx, clock, w.siteId)).holding
}

/** The people of a site changed, and with them what the list of sites says. */
function touchPeople(w: Write): void {
  w.tx.touch(w.siteId, 'site')
  w.tx.touch(ALL_SITES, 'site')
}

async function personAt(w: Write, personId: string): Promise<Person> {
  const person = (await peopleOf(w.tx, [w.siteId])).get(w.siteId)?.find(({ id }) => id === personId)
  if (!person) throw new HttpProblem(404, 'There is no such person at this site.')
  return person
}

/** Somebody new, or somebody who works at another site of the holding already. */
export async function addPerson(w: Write, { personId, ...input }: ParsedInputOf<typeof sites.addPerson>): Promise<Person> {
  await holdPeople(w)
  if (input.role === 'owner') await requireOwner(w)
  await requireBlocks(w.tx, w.siteId, input.help)
  const id = personId ?? randomUUID()
  if ((await peopleOf(w.tx, [w.siteId])).get(w.siteId)?.some((one) => one.id === id))
    throw fieldProblem('personId', 'works at this site already; change what they may do there instead')
  if (personId === null) await insertPerson(w.tx, w.siteId, { id, ...input })
  else {
    const [[known]] = await w.tx.query<Row[]>(
      `SELECT 1 AS found FROM site_person sp JOIN site s ON s.id = sp.site_id
       WHERE sp.person_id = ? AND s.holding_id = ? LIMIT 1`,
      [personId, await holdingOf(w.tx, w.siteId)],
    )
    if (!known) throw fieldProblem('personId', 'choose somebody who works at a site of this holding')
    await requireNamed(w, personId)
    await joinSite(w.tx, w.siteId, { id, ...input })
  }
  await auditOther(w, 'site_person', id, 'create', null, input)
  touchPeople(w)
  return personAt(w, id)
}

/** Refuses blocks that are none of this site. */
export async function requireBlocks(db: Queryable, siteId: string, help: Person['help']): Promise<void> {
  if (!help) return
  const [rows] = await db.query<Row[]>("SELECT id FROM place WHERE site_id = ? AND level = 'block' AND deleted_at IS NULL", [siteId])
  if (help.blockIds.some((id) => !rows.some((row) => row['id'] === id))) throw fieldProblem('help.blockIds', 'choose blocks of this site')
}

/** Whose name was taken out does not come back under a number. */
async function requireNamed(w: Write, personId: string): Promise<void> {
  const [[row]] = await w.tx.query<Row[]>('SELECT erased_at FROM person WHERE id = ? FOR UPDATE', [personId])
  if (row?.['erased_at']) throw new HttpProblem(409, 'The name was taken out for good. Whoever comes back is added, or invited, anew.')
}

/** Holds all who work at the site until the write is over, so that two who leave at once see each other. */
async function holdPeople(w: Write): Promise<void> {
  await w.tx.query('SELECT person_id FROM site_person WHERE site_id = ? ORDER BY person_id FOR UPDATE', [w.siteId])
}

/** Refuses what would leave a site without anybody who owns it. */
async function requireOwnerLeft(w: Write, without: string): Promise<void> {
  const people = (await peopleOf(w.tx, [w.siteId])).get(w.siteId) ?? []
  if (!people.some(({ id, role }) => id !== without && role === 'owner'))
    throw fieldProblem('role', 'nobody else owns this site: make somebody else an owner first')
}

/** Owners are made, and unmade, by owners. */
async function requireOwner(w: Write): Promise<void> {
  const people = (await peopleOf(w.tx, [w.siteId])).get(w.siteId) ?? []
  if (!people.some(({ id, role }) => id === w.personId && role === 'owner'))
    throw fieldProblem('role', 'only an owner makes owners, and changes them')
}

/** The membership of a person, with all others held until the write is over. */
async function memberRow(w: Write, personId: string, rowVersion: number): Promise<Row> {
  await holdPeople(w)
  const [[row]] = await w.tx.query<Row[]>('SELECT * FROM site_person WHERE site_id = ? AND person_id = ?', [w.siteId, personId])
  if (!row) throw new HttpProblem(404, 'There is no such person at this site.')
  if (row['row_version'] !== rowVersion)
    throw new HttpProblem(409, 'Somebody else changed this person meanwhile. Look at them again, and save anew.')
  return row
}

export async function changePerson(w: Write, personId: string, input: ParsedInputOf<typeof sites.changePerson>): Promise<Person> {
  const { rowVersion, name, role, licensed, licenceNumber, licenceUntil, help } = input
  await requireBlocks(w.tx, w.siteId, help)
  const row = await memberRow(w, personId, rowVersion)
  const before = await personAt(w, personId)
  if (role === 'owner' || before.role === 'owner') await requireOwner(w)
  if (role !== 'owner' && before.role === 'owner') await requireOwnerLeft(w, personId)
  await w.tx.query('UPDATE person SET name = ? WHERE id = ?', [name, personId])
  const { licensed: was, licenceNumber: numberBefore, licenceUntil: untilBefore } = before
  await w.tx.query(
    `UPDATE site_person SET role = ?, licensed = ?, licence_number = ?, licence_until = ?, help_on = ?, help_in = ?, row_version = row_version + 1
     WHERE site_id = ? AND person_id = ?`,
    [role, licensed, licenceNumber, licenceUntil, ...helpColumns(role, help), w.siteId, personId],
  )
  await auditOther(
    w,
    'site_person',
    personId,
    'change',
    { name: before.name, role: row['role'] as string, licensed: was, licenceNumber: numberBefore, licenceUntil: untilBefore },
    { name, role, licensed, licenceNumber, licenceUntil, ...(help ? { helpsOn: help.on } : {}) },
  )
  touchPeople(w)
  return personAt(w, personId)
}

export async function removePerson(w: Write, personId: string, rowVersion: number): Promise<{ id: string; rowVersion: number }> {
  await memberRow(w, personId, rowVersion)
  const { role } = await personAt(w, personId)
  if (role === 'owner') {
    await requireOwner(w)
    await requireOwnerLeft(w, personId)
  }
  return setLeft(w, personId, rowVersion, 'remove')
}

export async function restorePerson(w: Write, personId: string, rowVersion: number): Promise<Person> {
  const { role } = await memberRow(w, personId, rowVersion)
  if (role === 'owner') await requireOwner(w)
  await requireNamed(w, personId)
  await setLeft(w, personId, rowVersion, 'restore')
  return personAt(w, personId)
}

async function setLeft(
  w: Write,
  personId: string,
  rowVersion: number,
  action: 'remove' | 'restore',
): Promise<{ id: string; rowVersion: number }> {
  await w.tx.query('UPDATE site_person SET left_at = ?, row_version = row_version + 1 WHERE site_id = ? AND person_id = ?', [
    action === 'remove' ? sqlInstant(w.now) : null,
    w.siteId,
    personId,
  ])
  await auditOther(w, 'site_person', personId, action, null, null)
  touchPeople(w)
  return { id: personId, rowVersion: rowVersion + 1 }
}

export async function archiveSite(w: Write, clock: Clock, { archived, rowVersion }: ParsedInputOf<typeof sites.archive>): Promise<Site> {
  await updateRow(w, 'site', w.siteId, rowVersion, { archived_at: archived ? sqlInstant(w.now) : null })
  return getSite(w.tx, clock, w.siteId)
}

/** Takes a site out of sight. Only one that was archived before, so that nothing that is still worked on goes by a slip. */
export async function removeSite(w: Write, clock: Clock, rowVersion: number): Promise<{ id: string; rowVersion: number }> {
  const { archivedAt } = await getSite(w.tx, clock, w.siteId)
  if (archivedAt === null) throw new HttpProblem(409, 'Archive the site first; an archived site can be removed.')
  return removeRow(w, 'site', w.siteId, rowVersion)
}

export async function restoreSite(w: Write, clock: Clock, rowVersion: number): Promise<Site> {
  await restoreRow(w, 'site', w.siteId, rowVersion)
  return getSite(w.tx, clock, w.siteId)
}
