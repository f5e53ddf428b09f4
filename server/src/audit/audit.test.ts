import { endpoints } from '@bocado/contract'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, GRANULE, startSite, type TestSite } from '../testing/farm.js'

const { audit, blocks, sites, treatments, watches, weather } = endpoints

let app: Application
let place: TestSite
let at: { siteId: string }
let as: { person: string }
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z', worker: false })
  place = await startSite(app)
  at = { siteId: place.site.id }
  as = { person: place.person }
})
afterAll(() => app.stop())

const list = async (input: { before?: number; entityId?: string; personId?: string; most?: number } = {}) =>
  done(await app.call(audit.list, at, input, as))

test('who changed what is told with each value before and after, and what was removed with all that stood there', async () => {
  const params = { ...at, blockId: place.blockId }
  const [block] = done(await app.call(blocks.list, at, {}))
  const { checkAreas: _, follows: __, id: ___, ...same } = block!
  const changed = done(await app.call(blocks.update, params, { ...same, grows: 'apple, 1988', areaHa: 4.3 }, as))
  const removed = done(await app.call(blocks.remove, params, { rowVersion: changed.rowVersion }, as))
  done(await app.call(blocks.restore, params, { rowVersion: removed.rowVersion }, as))
  const { entries } = await list({ entityId: place.blockId })
  expect(entries.map(({ action, by, name }) => [action, by, name])).toEqual([
    ['restore', 'Marit Solheim', 'Old Apples'],
    ['remove', 'Marit Solheim', 'Old Apples'],
    ['change', 'Marit Solheim', 'Old Apples'],
    ['create', 'Marit Solheim', 'Old Apples'],
  ])
  expect(entries[2]!.changes).toContainEqual({ field: 'grows', before: 'apple', after: 'apple, 1988' })
  expect(entries[2]!.changes.map(({ field }) => field)).not.toContain('row_version')
})

test('what rows point to is told by its name, and typed days one by one', async () => {
  const watch = { organismId: 'codling-moth', blockId: place.blockId, season: '2026-01-01', biofix: '2026-05-10' }
  const { id: watchId } = done(await app.call(watches.create, at, watch, as))
  const product = done(await app.call(treatments.addProduct, at, GRANULE, as))
  const plan = done(await app.call(treatments.plan, at, { watchId, productId: product.id, plannedOn: '2026-06-14' }, as))
  const { entries } = await list({ entityId: plan.id })
  expect(entries[0]!.changes).toContainEqual({ field: 'product_id', before: null, after: 'Granule C' })
  expect(entries[0]!.changes).toContainEqual({ field: 'place_id', before: null, after: 'Old Apples' })
  const station = { ...at, stationId: place.stationId }
  const day = { day: '2026-06-01', min: 8, max: 21 }
  done(await app.call(weather.typeDays, station, { days: [day] }, as))
  done(await app.call(weather.typeDays, station, { days: [{ ...day, max: 25 }] }, as))
  const typed = (await list({ entityId: place.stationId })).entries.find(({ entity }) => entity === 'typed_day')!
  expect(typed.changes.map(({ field }) => field)).toEqual(['2026-06-01'])
})

test('it is read a page at a time and by person, by who leads alone, and goes out as a file', async () => {
  const scout = done(await app.call(sites.addPerson, at, { name: 'Dario Quince', role: 'scout' }, as)).id
  expect((await app.call(audit.list, at, {}, { person: scout })).status).toBe(403)
  const whole = await list()
  const seen: number[] = []
  for (let before: number | undefined; ;) {
    const { entries, isMore } = await list({ most: 3, ...(before === undefined ? {} : { before }) })
    seen.push(...entries.map(({ id }) => id))
    if (!isMore) break
    before = entries.at(-1)!.id
  }
  expect(seen).toEqual(whole.entries.map(({ id }) => id))
  expect(seen).toEqual([...seen].sort((a, b) => b - a))
  expect((await list({ personId: scout })).entries).toEqual([])
  const csv = await (await app.get(`sites/${at.siteId}/audit.csv`)).text()
  expect(csv.split('\r\n')[0]).toBe('at,by,action,kind,name,id,field,before,after')
  expect(csv).toContain('grows,apple,"apple, 1988"')
  const refused = await fetch(`${app.address}/api/v1/sites/${at.siteId}/audit.csv`, { headers: { Cookie: await app.cookieOf(scout) } })
  expect(refused.status).toBe(403)
})
