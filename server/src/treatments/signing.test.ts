import { endpoints, type Treatment } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { Row } from '../database/index.js'
import { startApplication, type Application } from '../testing/application.js'
import { done, GRANULE, startSite, type TestSite } from '../testing/farm.js'

const { sites, treatments, watches, account, phones } = endpoints

let app: Application
let place: TestSite
let watchId: string
/** An applicator whose licence holds, one whose licence ended, and one without. */
let tovah: string
let late: string
let dario: string

const at = () => ({ siteId: place.site.id })
const byLead = () => ({ person: place.person })

beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z', worker: false })
  place = await startSite(app)
  const add = async (name: string, licensed: boolean, licenceUntil: string | null): Promise<string> =>
    done(await app.call(sites.addPerson, at(), { name, role: 'applicator', licensed, licenceNumber: 'HB 2041', licenceUntil }, byLead())).id
  tovah = await add('Tovah Lindqvist', true, '2026-06-10')
  late = await add('Ina Berg', true, '2026-06-09')
  dario = await add('Dario Quince', false, null)
  const watch = { organismId: 'codling-moth', blockId: place.blockId, season: '2026-01-01', biofix: null }
  watchId = done(await app.call(watches.create, at(), watch, byLead())).id
})
afterAll(() => app.stop())

async function recorded(licensedOnly: boolean): Promise<Treatment> {
  const name = `Terrace copper ${crypto.randomUUID()}`
  const product = done(await app.call(treatments.addProduct, at(), { ...GRANULE, name, licensedOnly }, byLead()))
  const used = { watchId, productId: product.id, startedAt: '2026-06-10T15:00:00Z', rate: GRANULE.labelRate, areaHa: 0.5, weather: {} }
  return done(await app.call(treatments.recordUnplanned, at(), used as never, { person: dario }))
}
const sign = (treatment: Treatment, person: string) =>
  app.call(treatments.sign, { ...at(), treatmentId: treatment.id }, { rowVersion: treatment.rowVersion }, { person })

describe('a record of what only the licensed may use', () => {
  test('is a draft until one of them signs it, whose licence held on its day', async () => {
    const draft = await recorded(true)
    expect([draft.done?.label?.licensedOnly, draft.done?.signed]).toEqual([true, null])
    const without = await sign(draft, dario)
    expect([without.status, without.problem.detail]).toEqual([403, expect.stringContaining('applicator’s licence')])
    const ended = await sign(draft, late)
    expect(ended.problem.fields).toMatchObject([{ path: 'licence', code: 'licence.ended', values: { until: { day: '2026-06-09' } } }])
    // The last day of a licence is one on which it holds.
    const signed = done(await sign(draft, tovah))
    expect(signed.done?.signed).toEqual({ byName: 'Tovah Lindqvist', at: '2026-06-12T14:30:00Z', licence: 'HB 2041' })
    expect((await sign(draft, tovah)).status).toBe(409)
    const another = await recorded(true)
    const all = await Promise.all(Array.from({ length: 20 }, () => sign(another, tovah)))
    expect(all.filter(({ status }) => status === 200)).toHaveLength(1)
    expect(all.every(({ status }) => [200, 409, 503].includes(status))).toBe(true)
  })

  test('loses its signature with a correction, and keeps in the record whose it was', async () => {
    const signed = done(await sign(await recorded(true), tovah))
    const { rate, areaHa } = signed.done!
    const correction = {
      startedAt: '2026-06-10T15:00:00Z',
      rate,
      areaHa: areaHa! / 2,
      weather: {},
      note: 'half of it',
      rowVersion: signed.rowVersion,
    }
    const to = { ...at(), treatmentId: signed.id }
    const corrected = done(await app.call(treatments.record, to, correction as never, byLead()))
    // Whoever corrects it has not done it.
    expect(corrected.done).toMatchObject({ areaHa: areaHa! / 2, signed: null, doneById: dario, doneByName: 'Dario Quince' })
    expect(corrected.personName).toBe('Marit Solheim')
    const [[kept]] = await app.database.query<Row[]>(
      "SELECT before_row FROM audit WHERE entity = 'deed' AND entity_id = ? ORDER BY id DESC LIMIT 1",
      [signed.id],
    )
    expect(JSON.stringify(kept!['before_row'])).toContain(tovah)
    expect(done(await sign(corrected, tovah)).done?.signed?.byName).toBe('Tovah Lindqvist')
    // A number that is changed later changes nothing of what was signed.
    const people = done(await app.call(sites.list, {}, {}, byLead())).find(({ id }) => id === place.site.id)!.people
    const { id, rowVersion, name, role, licensed } = people.find((one) => one.id === tovah)!
    const renewed = { name, role, licensed, licenceNumber: 'HB 3000', licenceUntil: '2027-06-10', rowVersion }
    done(await app.call(sites.changePerson, { ...at(), personId: id }, renewed, byLead()))
    const listed = done(await app.call(treatments.list, at(), { season: '2026-01-01' })).find((one) => one.id === signed.id)!
    expect(listed.done?.signed?.licence).toBe('HB 2041')
  })

  test('is not signed by a code on a shared phone; it stays a draft there', async () => {
    const draft = await recorded(true)
    done(await app.call(account.setCode, {}, { code: '2749' }, { person: tovah }))
    const { token } = done(await app.call(phones.offer, at(), { name: 'Van phone' }, byLead()))
    const headers: Record<string, string> = { 'Content-Type': 'application/json' }
    const post = async (path: string, body: object): Promise<Response> => {
      const response = await fetch(`${app.address}/api/v1${path}`, {
        method: 'POST',
        headers: { ...headers, 'Idempotency-Key': crypto.randomUUID() },
        body: JSON.stringify(body),
      })
      const cookies = response.headers.getSetCookie().map((cookie) => cookie.split(';')[0]!)
      headers['Cookie'] = [headers['Cookie'], ...cookies].filter(Boolean).join('; ')
      return response
    }
    await post(phones.pair.path, { token })
    expect((await post(account.signInByCode.path, { personId: tovah, code: '2749' })).status).toBe(200)
    const refused = await post(`/sites/${place.site.id}/treatments/${draft.id}/sign`, { rowVersion: draft.rowVersion })
    expect([refused.status, ((await refused.json()) as { detail: string }).detail]).toEqual([
      403,
      expect.stringContaining('A code is not enough to sign'),
    ])
  })

  test('what was planned only, or done by hand, has nothing to sign; what anybody may use can be signed, too', async () => {
    const plain = await recorded(false)
    expect(done(await sign(plain, tovah)).done?.signed?.byName).toBe('Tovah Lindqvist')
    const planned = done(
      await app.call(treatments.plan, at(), { watchId, productId: plain.productId, plannedOn: '2026-06-14' }, { person: dario }),
    )
    expect((await sign(planned, tovah)).status).toBe(409)
  })
})
