import { endpoints } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { Row } from '../database/index.js'
import { startApplication, type Application } from '../testing/application.js'
import { done, GRANULE, startSite, type TestSite } from '../testing/farm.js'

const { account, audit, crew, privacy, scouting, sites, treatments, watches } = endpoints

let app: Application
let place: TestSite
let other: TestSite
let watchId: string
const at = () => ({ siteId: place.site.id })
const as = () => ({ person: place.person })

beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z', worker: false })
  place = await startSite(app)
  other = await startSite(app, 'Lower Terrace')
  watchId = done(
    await app.call(watches.create, at(), { organismId: 'codling-moth', blockId: place.blockId, season: '2026-01-01', biofix: null }, as()),
  ).id
})
afterAll(() => app.stop())

/** Somebody who came by an invitation, counted, treated if asked, and left. */
async function whoLeft(name: string, treats: boolean): Promise<{ id: string; rowVersion: number }> {
  const { token } = done(await app.call(crew.invite, at(), { name, role: 'applicator' }, as()))
  const came = await app.call(
    account.useLink,
    {},
    { token, name, signInName: name.toLowerCase().replace(' ', '.'), password: 'four tall herons wait' },
  )
  const person = done(came).person!.id
  await app.call(account.setCode, {}, { code: '2749' }, { person })
  done(await app.call(scouting.create, at(), { watchId, countedOn: '2026-06-10', units: [{ 'fresh-entry': 1 }] }, { person }))
  if (treats) {
    const product = done(await app.call(treatments.addProduct, at(), { ...GRANULE, name: `Granule ${name}` }, as()))
    const used = {
      watchId,
      productId: product.id,
      startedAt: '2026-06-10T15:00:00Z',
      rate: GRANULE.labelRate,
      areaHa: 0.5,
      weather: {},
    }
    done(await app.call(treatments.recordUnplanned, at(), used as never, { person }))
  }
  const { people } = done(await app.call(sites.list, {}, {}, as())).find(({ id }) => id === place.site.id)!
  const { rowVersion } = people.find(({ id }) => id === person)!
  return done(await app.call(sites.removePerson, { ...at(), personId: person }, { rowVersion }, as()))
}
/** Every value of every column of text, so that a name is found wherever it stands. */
async function tablesWith(name: string): Promise<string[]> {
  const [columns] = await app.database.query<Row[]>(
    `SELECT table_name AS t, column_name AS c FROM information_schema.columns
     WHERE table_schema = DATABASE() AND data_type IN ('varchar', 'char', 'text', 'mediumtext', 'longtext', 'json')`,
  )
  const found: string[] = []
  for (const { t, c } of columns as { t: string; c: string }[]) {
    const [[row]] = await app.database.query<Row[]>(`SELECT COUNT(*) AS n FROM \`${t}\` WHERE \`${c}\` LIKE ?`, [`%${name}%`])
    if (Number(row!['n']) > 0) found.push(`${t}.${c}`)
  }
  return found.filter((where) => !where.startsWith('idempotency.')).sort()
}

describe('somebody who left', () => {
  test('is a number from then on, wherever the name stood; what they recorded stays', async () => {
    const left = await whoLeft('Ina Berg', false)
    const [listed] = done(await app.call(privacy.left, at(), {}, as()))
    expect(listed).toMatchObject({ id: left.id, name: 'Ina Berg', isErased: false, keeps: 0 })
    const counts = done(await app.call(scouting.list, at(), { season: '2026-01-01' })).length
    const erased = done(await app.call(privacy.erase, { ...at(), personId: left.id }, { rowVersion: left.rowVersion }, as()))
    expect(erased).toMatchObject({ name: `no. ${left.id.slice(0, 6)}`, isErased: true })
    expect(await tablesWith('Ina Berg')).toEqual([])
    expect(await tablesWith('ina.berg')).toEqual([])
    expect(done(await app.call(scouting.list, at(), { season: '2026-01-01' })).length).toBe(counts)
    const { entries } = done(await app.call(audit.list, at(), {}, as()))
    expect(entries.some(({ by }) => by === erased.name)).toBe(true)
    const back = await app.call(sites.restorePerson, { ...at(), personId: left.id }, { rowVersion: left.rowVersion }, as())
    expect([back.status, back.problem.detail]).toEqual([409, expect.stringContaining('taken out for good')])
    // What was opened by them opens nothing, and asking again changes nothing.
    expect((await app.call(account.signIn, {}, { signInName: 'ina.berg', password: 'four tall herons wait' })).status).toBe(403)
    expect(done(await app.call(privacy.erase, { ...at(), personId: left.id }, { rowVersion: left.rowVersion }, as()))).toEqual(erased)
  })

  test('keeps the name in records of treatments alone, where the law asks for it', async () => {
    const left = await whoLeft('Tovah Lindqvist', true)
    const erased = done(await app.call(privacy.erase, { ...at(), personId: left.id }, { rowVersion: left.rowVersion }, as()))
    expect(erased.keeps).toBe(1)
    const byProduct = await tablesWith('Granule Tovah')
    expect((await tablesWith('Tovah Lindqvist')).filter((where) => !byProduct.includes(where))).toEqual(['person.record_name'])
    const record = done(await app.call(treatments.list, at(), { season: '2026-01-01' })).find(({ done: d }) => d?.doneById === left.id)!
    expect([record.done?.doneByName, record.personName]).toEqual(['Tovah Lindqvist', erased.name])
  })
  /** The test's own product is called after its person; with what rests on that. */

  test('is erased by an owner only, of all sites where they worked, and after they left all', async () => {
    const left = await whoLeft('Dario Quince', false)
    const erase = (person: string) => app.call(privacy.erase, { ...at(), personId: left.id }, { rowVersion: left.rowVersion }, { person })
    const lead = await app.newPerson('Ines Varga')
    await app.database.query("INSERT INTO site_person (site_id, person_id, role) VALUES (?, ?, 'lead')", [place.site.id, lead])
    expect((await erase(lead)).status).toBe(403)
    await app.database.query("INSERT INTO site_person (site_id, person_id, role) VALUES (?, ?, 'scout')", [other.site.id, left.id])
    expect((await erase(place.person)).status).toBe(403)
    await app.database.query("INSERT INTO site_person (site_id, person_id, role) VALUES (?, ?, 'owner')", [other.site.id, place.person])
    const still = await erase(place.person)
    expect([still.status, still.problem.detail]).toEqual([409, expect.stringContaining('still work at Lower Terrace')])
    await app.database.query('UPDATE site_person SET left_at = UTC_TIMESTAMP() WHERE site_id = ? AND person_id = ?', [
      other.site.id,
      left.id,
    ])
    expect((await app.call(privacy.erase, { ...at(), personId: left.id }, { rowVersion: left.rowVersion + 1 }, as())).status).toBe(409)
    // Who works here is not erased over their head.
    expect((await app.call(privacy.erase, { ...at(), personId: lead }, { rowVersion: 1 }, as())).status).toBe(404)
    // Twenty at once, with keys of their own: it is done once, and kept once.
    const all = await Promise.all(Array.from({ length: 20 }, () => erase(place.person)))
    expect(all.filter(({ status }) => status === 200).length).toBeGreaterThan(0)
    expect(all.every(({ status }) => [200, 409, 503].includes(status))).toBe(true)
    const [[kept]] = await app.database.query<Row[]>(
      "SELECT COUNT(*) AS n FROM audit WHERE entity = 'site_person' AND action = 'change' AND entity_id = ? AND before_row IS NULL",
      [left.id],
    )
    expect(Number(kept!['n'])).toBe(1)
  })
})

test('what is kept of oneself comes as a file, and nothing of others in it', async () => {
  const way: [number, number][] = [
    [-119.3, 46.2],
    [-119.301, 46.2],
  ]
  const searched = { placeId: place.blockId, organismIds: ['wild-parsnip'], searchedOn: '2026-06-10', track: [way] }
  done(await app.call(endpoints.flags.addSearch, at(), searched, as()))
  const cookie = await app.cookieOf(place.person)
  const answer = await fetch(`${app.address}/api/v1/account/data.json`, { headers: { Cookie: cookie } })
  expect(answer.headers.get('Content-Disposition')).toContain('kept-of-me.json')
  const data = (await answer.json()) as {
    person: { name: string }
    sites: { site: string }[]
    signIns: unknown[]
    changed: unknown[]
    waysWalked: unknown[]
  }
  expect(data.person.name).toBe('Marit Solheim')
  expect(data.sites.map(({ site }) => site)).toContain(place.site.name)
  expect(data.changed.length).toBeGreaterThan(3)
  expect(data.signIns.length).toBeGreaterThan(0)
  expect(data.waysWalked).toMatchObject([{ site: place.site.name, searched_on: '2026-06-10' }])
  expect(JSON.stringify(data)).not.toContain('Ines Varga')
  expect((await fetch(`${app.address}/api/v1/account/data.json`)).status).toBe(401)
})

test('who leads sees who signed in, on which phone; who left is not told of any more', async () => {
  const listed = done(await app.call(audit.signIns, at(), {}, as()))
  expect(listed[0]).toMatchObject({ how: expect.any(String) as string, phone: null })
  expect(new Set(listed.map(({ name }) => name))).toEqual(new Set(['Marit Solheim', 'Ines Varga']))
})

test('what is chosen once is so wherever one signs in; a site’s years of keeping have a floor', async () => {
  const read = async (): Promise<unknown> => {
    const answer = await fetch(`${app.address}/api/v1/session`, { headers: { Cookie: await app.cookieOf(place.person) } })
    return ((await answer.json()) as { person: { settings: unknown } }).person.settings
  }
  expect(await read()).toEqual({ units: null, dates: null })
  done(await app.call(account.setSettings, {}, { units: 'us', dates: 'dmy' }, as()))
  expect(await read()).toEqual({ units: 'us', dates: 'dmy' })
  expect((await app.call(account.setSettings, {}, { units: 'stone', dates: null } as never, as())).status).toBe(422)
  const site = done(await app.call(sites.list, {}, {}, as())).find(({ id }) => id === place.site.id)!
  expect(site.units).toBe(place.site.units)
  const { name, kind, place: where, timeZone, units, rowVersion } = site
  const update = (auditYears: number | null) =>
    app.call(sites.update, at(), { name, kind, place: where, timeZone, units, auditYears, rowVersion }, as())
  expect((await update(2)).problem.fields?.[0]).toMatchObject({ path: 'auditYears', message: 'keep it at least 3 years' })
  expect(done(await update(5)).auditYears).toBe(5)
})
