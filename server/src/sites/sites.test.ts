import { endpoints } from '@bocado/contract'
import { unzipSync } from 'fflate'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'

const { blocks, sites, watches } = endpoints

let app: Application
let place: TestSite
let at: { siteId: string }
let as: { person: string }
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  at = { siteId: place.site.id }
  as = { person: place.person }
})
afterAll(() => app.stop())

const site = async (id = place.site.id) => done(await app.call(sites.list, {}, {}, as)).find((s) => s.id === id)

describe('whose rules hold at a site', () => {
  test('is said, and that the list was held against them; of others nobody has checked it', async () => {
    const none = (await site())!
    expect(none.rules).toEqual({ country: '', region: '', checkedOn: null })
    const set = (rules: { country: string; region: string; checkedOn?: string | null }, rowVersion: number) =>
      app.call(sites.setRules, at, { ...rules, rowVersion }, as)
    const here = { country: 'United States', region: 'Washington' }
    const said = done(await set(here, none.rowVersion))
    expect(said.rules).toEqual({ ...here, checkedOn: null })
    const checked = done(await set({ ...here, checkedOn: '2026-06-12' }, said.rowVersion))
    expect(checked.rules).toEqual({ ...here, checkedOn: '2026-06-12' })
    const moved = done(await set({ ...here, region: 'Oregon', checkedOn: '2026-06-12' }, checked.rowVersion))
    expect(moved.rules).toEqual({ ...here, region: 'Oregon', checkedOn: null })
    expect((await set({ ...here, checkedOn: '2026-06-13' }, moved.rowVersion)).problem.fields?.[0]).toMatchObject({
      path: 'checkedOn',
      code: 'day.future',
    })
    expect((await set(here, checked.rowVersion)).status).toBe(409)
    // Name and place of the site stay as they are.
    expect((await site())!).toMatchObject({ name: none.name, place: none.place })
  })
})

describe('the people of a site', () => {
  test('are renamed, given another role and licence, and leave, with a way back', async () => {
    const scout = done(await app.call(sites.addPerson, at, { name: 'Dario', role: 'scout' }, as))
    const params = { ...at, personId: scout.id }
    const changed = done(
      await app.call(sites.changePerson, params, { name: 'Dario Quince', role: 'lead', licensed: true, rowVersion: scout.rowVersion }, as),
    )
    expect(changed).toMatchObject({ name: 'Dario Quince', role: 'lead', licensed: true })
    expect((await app.call(sites.changePerson, params, { ...changed, rowVersion: scout.rowVersion }, as)).status).toBe(409)
    const left = done(await app.call(sites.removePerson, params, { rowVersion: changed.rowVersion }, as))
    expect((await site())!.people.some(({ id }) => id === scout.id)).toBe(false)
    const grown = { name: 'Stone Row', kind: 'orchard' } as const
    expect((await app.call(blocks.create, at, grown, { person: scout.id })).status).toBe(404)
    done(await app.call(sites.restorePerson, params, { rowVersion: left.rowVersion }, as))
    expect((await app.call(blocks.create, at, grown, { person: scout.id })).status).toBe(200)
  })

  test('are the business of who leads; owners are made by owners, and there always is one', async () => {
    const { people } = (await site())!
    const lead = people.find(({ role }) => role === 'owner')!
    const other = people.find(({ role }) => role === 'lead')!
    const params = { ...at, personId: lead.id }
    const step = { name: lead.name, role: 'scout' as const, rowVersion: lead.rowVersion }
    expect((await app.call(sites.changePerson, params, step, as)).problem.fields?.[0]?.message).toContain('nobody else owns')
    expect((await app.call(sites.removePerson, params, { rowVersion: lead.rowVersion }, as)).status).toBe(422)
    expect((await app.call(sites.removePerson, params, { rowVersion: lead.rowVersion }, { person: other.id })).status).toBe(422)
    const made = { name: other.name, role: 'owner' as const, rowVersion: other.rowVersion }
    const byLead = await app.call(sites.changePerson, { ...at, personId: other.id }, made, { person: other.id })
    expect(byLead.problem.fields?.[0]?.message).toContain('only an owner makes owners')
    expect((await app.call(sites.addPerson, at, { name: 'Ina Berg', role: 'owner' }, { person: other.id })).status).toBe(422)
    expect((await app.call(sites.addPerson, at, { name: 'Ina Berg', role: 'scout' }, { person: other.id })).status).toBe(200)
  })

  test('work at several sites of one holding, under one name', async () => {
    const tovahHerself = done(await app.call(sites.addPerson, at, { name: 'Tovah Lindqvist', role: 'lead' }, as)).id
    const second = done(
      await app.call(
        sites.create,
        {},
        {
          name: 'Lower Terrace',
          place: 'by the river',
          timeZone: 'America/Los_Angeles',
          units: 'us',
          holdingId: place.site.holding.id,
        },
        { person: tovahHerself },
      ),
    )
    const tovah = { person: second.people[0]!.id }
    const joined = done(
      await app.call(sites.addPerson, { siteId: second.id }, { name: 'Marit Solheim', role: 'scout', personId: place.person }, tovah),
    )
    expect(joined).toMatchObject({ id: place.person, name: 'Marit Solheim', role: 'scout' })
    const elsewhere = await startSite(app, 'Somebody else’s')
    const stranger = await app.call(
      sites.addPerson,
      { siteId: second.id },
      { name: 'Nobody', role: 'scout', personId: elsewhere.person },
      tovah,
    )
    expect(stranger.problem.fields?.[0]?.path).toBe('personId')
  })
})

describe('a site that is no longer worked', () => {
  test('is archived: it is read and not written, until it is taken up again', async () => {
    const archived = done(await app.call(sites.archive, at, { archived: true, rowVersion: (await site())!.rowVersion }, as))
    expect(archived.archivedAt).not.toBeNull()
    const refused = await app.call(blocks.create, at, { name: 'Long Corn', kind: 'field' }, as)
    expect(refused).toMatchObject({ status: 409, problem: { detail: expect.stringContaining('archived') as string } })
    expect(done(await app.call(blocks.list, at, {}))).not.toHaveLength(0)
    const again = done(await app.call(sites.archive, at, { archived: false, rowVersion: archived.rowVersion }, as))
    expect(again.archivedAt).toBeNull()
  })

  test('is removed only after that, and comes back whole', async () => {
    const { rowVersion } = (await site())!
    expect((await app.call(sites.remove, at, { rowVersion }, as)).status).toBe(409)
    const archived = done(await app.call(sites.archive, at, { archived: true, rowVersion }, as))
    const removed = done(await app.call(sites.remove, at, { rowVersion: archived.rowVersion }, as))
    expect(await site()).toBeUndefined()
    expect((await app.call(blocks.list, at, {})).status).toBe(404)
    const back = done(await app.call(sites.restore, at, { rowVersion: removed.rowVersion }, as))
    expect(back.name).toBe(place.site.name)
    done(await app.call(sites.archive, at, { archived: false, rowVersion: back.rowVersion }, as))
  })

  test('is given out as one file first, by any address of it', async () => {
    const answer = await app.get(`sites/${place.site.id}/package`)
    expect(answer.headers.get('content-disposition')).toContain('bocado-Hollin-Bench.zip')
    const files = unzipSync(new Uint8Array(await answer.arrayBuffer()))
    expect(JSON.parse(Buffer.from(files['datapackage.json']!).toString())).toMatchObject({ title: 'Hollin Bench' })
    expect((await app.get(`sites/${crypto.randomUUID()}/package`)).status).toBe(404)
  })
})

test('the seasons of a site are those that something is kept of, and the one now', async () => {
  expect((await site())!.seasons).toEqual(['2026-01-01'])
  const old = { organismId: 'codling-moth', blockId: place.blockId, season: '2024-01-01', biofix: null }
  done(await app.call(watches.create, at, old, as))
  expect((await site())!.seasons).toEqual(['2026-01-01', '2024-01-01'])
})
