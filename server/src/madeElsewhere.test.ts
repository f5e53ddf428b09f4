import { randomUUID } from 'node:crypto'
import { endpoints, type Endpoint } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { Row } from './database/index.js'
import { startApplication, type Application } from './testing/application.js'
import { done, startSite, type TestSite } from './testing/farm.js'

/** What a phone made without signal and sends when it has one: each record once, however late and however often. */

const { bloom, calibration, harvests, library, scouting, treatments, watches } = endpoints
const SEASON = '2026-01-01'

let app: Application
let place: TestSite
let other: TestSite
let watchId: string
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  other = await startSite(app, 'Onion Flat', place.person)
  const watch = { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: '2026-05-10' }
  watchId = done(await app.call(watches.create, { siteId: place.site.id }, watch, { person: place.person })).id
})
afterAll(() => app.stop())

interface Kind {
  name: string
  e: Endpoint
  table: string
  input: () => object
  params?: () => object
  remove: Endpoint
  idName: string
}
const KINDS: Kind[] = [
  {
    name: 'a count',
    e: scouting.create,
    table: 'round',
    input: () => ({ watchId, countedOn: '2026-05-22', units: [{ sting: 1 }, {}] }),
    remove: scouting.remove,
    idName: 'roundId',
  },
  {
    name: 'a harvest',
    e: harvests.add,
    table: 'harvest',
    input: () => ({ placeId: place.blockId, pickedOn: '2026-05-22', kg: 3.2 }),
    remove: harvests.remove,
    idName: 'harvestId',
  },
  {
    name: 'a bloom',
    e: bloom.add,
    table: 'bloom_record',
    input: () => ({ plantId: 'common-lilac', event: 'full-bloom', seenFrom: '2026-05-09' }),
    remove: bloom.remove,
    idName: 'recordId',
  },
  {
    name: 'a sighting',
    e: calibration.addSighting,
    table: 'event_record',
    input: () => ({ event: 'hatch', kind: 'first', seenOn: '2026-05-30' }),
    params: () => ({ watchId }),
    remove: calibration.removeRecord,
    idName: 'recordId',
  },
  {
    name: 'hand work',
    e: treatments.recordUnplanned,
    table: 'deed',
    input: () => ({ watchId, methodId: 'fallen-fruit', startedAt: '2026-05-22T12:00:00Z', minutes: 20, weather: {} }),
    remove: treatments.remove,
    idName: 'treatmentId',
  },
  {
    name: 'a plan',
    e: treatments.plan,
    table: 'deed',
    input: () => ({ watchId, methodId: 'fallen-fruit', plannedOn: '2026-06-20' }),
    remove: treatments.remove,
    idName: 'treatmentId',
  },
  {
    name: 'what nobody can name',
    e: library.keepUnknown,
    table: 'unknown_find',
    input: () => ({ seen: 'leaf:holes', foundOn: '2026-05-22' }),
    remove: library.removeUnknown,
    idName: 'findId',
  },
  {
    name: 'a look-alike check',
    e: library.check,
    table: 'identity_check',
    input: () => ({ organismId: 'wild-parsnip', answers: { stem: 'here' }, checkedOn: '2026-05-22' }),
    remove: library.removeCheck,
    idName: 'rowId',
  },
]

describe.each(KINDS)('$name made without signal', ({ e, table, input, params, remove, idName }) => {
  const id = randomUUID()
  const made = () => ({ at: '2026-05-22T12:10:00.000Z', order: 7, by: place.person })
  const send = (site: TestSite, more: object, person = place.person) =>
    app.call(e, { siteId: site.site.id, ...params?.() }, { ...input(), id, made: made(), ...more }, { person })
  const rows = async (): Promise<Row[]> => (await app.database.query<Row[]>(`SELECT * FROM ${table} WHERE id = ?`, [id]))[0]

  test('is not stored in the name of somebody else who is signed in by now', async () => {
    const { id: scout } = done(
      await app.call(
        endpoints.sites.addPerson,
        { siteId: place.site.id },
        { name: 'Dario Quince', role: 'lead' },
        { person: place.person },
      ),
    )
    expect((await send(place, {}, scout)).status).toBe(403)
    expect(await rows()).toEqual([])
  })

  test('is stored once with when it was made, also when it is sent again after weeks', async () => {
    const first = done(await send(place, {}))
    await app.database.query("DELETE FROM idempotency WHERE request_hash <> ''")
    expect(done(await send(place, {}))).toEqual(first)
    const together = await Promise.all([1, 2, 3].map(() => send(place, {})))
    for (const again of together) expect(done(again)).toEqual(first)
    const [row] = await rows()
    expect(row).toMatchObject({ recorded_at: '2026-05-22 12:10:00.000', queue_order: 7, row_version: 1 })
    const [[count]] = await app.database.query<Row[]>(`SELECT COUNT(*) AS n FROM ${table} WHERE site_id = ? AND deleted_at IS NULL`, [
      place.site.id,
    ])
    expect(count!['n']).toBe(1)
  })

  test('is not taken for one of another site', async () => {
    // A sighting is of a watch, which that site does not have.
    const { status, problem } = await send(other, {})
    if (params) return expect(status).toBe(404)
    expect(status).toBe(422)
    expect(problem.detail).toContain('number of another one')
  })

  test('is not brought back by being sent again after somebody removed it', async () => {
    done(await app.call(remove, { siteId: place.site.id, [idName]: id }, { rowVersion: 1 }, { person: place.person }))
    const { status, problem } = await send(place, {})
    expect(status).toBe(422)
    expect(problem.detail).toContain('removed since')
  })
})

test('a planned treatment that is recorded twice by the same device stands once, as it was', async () => {
  const at = { siteId: place.site.id }
  const as = { person: place.person }
  const planned = done(await app.call(treatments.plan, at, { watchId, methodId: 'fallen-fruit', plannedOn: '2026-06-01' }, as))
  const input = {
    startedAt: '2026-06-01T12:00:00Z',
    minutes: 15,
    weather: {},
    rowVersion: planned.rowVersion,
    made: { at: '2026-06-01T12:20:00.000Z', order: 3, by: place.person },
  }
  const params = { ...at, treatmentId: planned.id }
  const first = done(await app.call(treatments.record, params, input, as))
  await app.database.query("DELETE FROM idempotency WHERE request_hash <> ''")
  expect(done(await app.call(treatments.record, params, input, as))).toEqual(first)
  // Another record over the same plan is somebody's correction, and is asked about.
  const later = { ...input, made: { ...input.made, order: 4 } }
  expect((await app.call(treatments.record, params, later, as)).status).toBe(409)
})
