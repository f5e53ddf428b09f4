import { endpoints } from '@bocado/contract'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'

const { around, bloom, scouting, sites, traps, watches } = endpoints
const SEASON = '2026-01-01'

let app: Application
let here: TestSite
let near: TestSite
let far: TestSite
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  here = await startSite(app)
  near = await startSite(app, 'Lower Terrace')
  far = await startSite(app, 'Upper Bench')
  // Four kilometres north, and eighty.
  for (const [place, latitude] of [
    [near, 46.235],
    [far, 46.92],
  ] as const) {
    const { name, kind, timeZone, units, longitude, elevationM, auditYears, place: where, rowVersion } = place.site
    const moved = { name, kind, timeZone, units, place: where, latitude, longitude, elevationM, auditYears, rowVersion }
    place.site = done(await app.call(sites.update, { siteId: place.site.id }, moved as never, { person: place.person }))
  }
})
afterAll(() => app.stop())

const seen = async (place: TestSite = here) => done(await app.call(around.read, { siteId: place.site.id }, {}))
async function share(place: TestSite, sharesFirst = true) {
  const { id } = place.site
  place.site = done(
    await app.call(sites.shareFirst, { siteId: id }, { sharesFirst, rowVersion: place.site.rowVersion }, { person: place.person }),
  )
}
async function watch(place: TestSite, organismId: string): Promise<string> {
  const input = { organismId, blockId: place.blockId, season: SEASON, biofix: null }
  return done(await app.call(watches.create, { siteId: place.site.id }, input, { person: place.person })).id
}

test('nothing is told by a site that did not agree, nor to one', async () => {
  const at = { siteId: near.site.id }
  const as = { person: near.person }
  const hung = { name: 'Gate trap', blockId: near.blockId, organismId: 'codling-moth', hungOn: '2026-05-01' }
  const trapId = done(await app.call(traps.add, at, hung, as)).id
  for (const [seenOn, caught] of [
    ['2026-05-08', 0],
    ['2026-05-15', 3],
    ['2026-05-22', 6],
  ] as const)
    done(await app.call(traps.check, at, { trapId, day: seenOn, caught }, as))
  const scab = await watch(near, 'apple-scab')
  const spots = { watchId: scab, countedOn: '2026-06-03', units: [{ diseased: 2 }] }
  done(await app.call(scouting.create, at, spots, as))
  done(await app.call(bloom.add, at, { plantId: 'common-lilac', event: 'first-open', seenFrom: '2026-04-20' }, as))
  expect(await seen()).toEqual({ others: 0, found: [] })
  await share(near)
  expect(await seen()).toEqual({ others: 0, found: [] })
  expect(
    (await app.call(sites.shareFirst, { siteId: here.site.id }, { sharesFirst: true, rowVersion: 1 }, { person: here.viewer })).status,
  ).toBe(403)
})

test('once both agreed the first of each is told, with its day and about how far, and nothing of where or by whom', async () => {
  await share(here)
  const { others, found } = await seen()
  expect(others).toBe(1)
  expect(found).toMatchObject([
    { kind: 'find', what: 'apple-scab', name: 'Apple scab', day: '2026-06-03', withinKm: 10 },
    { kind: 'catch', what: 'codling-moth', day: '2026-05-15', withinKm: 10 },
    { kind: 'bloom', what: 'common-lilac', day: '2026-04-20', withinKm: 10 },
  ])
  const told = JSON.stringify(found)
  for (const secret of [near.site.id, near.site.name, near.blockId, near.person, 'Old Apples', 'Gate trap', '46.235'])
    expect(told).not.toContain(secret)
})

test('of several sites the nearest counts, and what lies too far away is not told', async () => {
  const at = { siteId: far.site.id }
  const as = { person: far.person }
  done(await app.call(bloom.add, at, { plantId: 'common-lilac', event: 'first-open', seenFrom: '2026-04-10' }, as))
  done(await app.call(bloom.add, at, { plantId: 'forsythia', event: 'first-open', seenFrom: '2026-03-10' }, as))
  await share(far)
  const { others, found } = await seen()
  expect(others).toBe(2)
  expect(found.find(({ what }) => what === 'common-lilac')).toMatchObject({ day: '2026-04-20', withinKm: 10 })
  expect(found.find(({ what }) => what === 'forsythia')).toMatchObject({ day: '2026-03-10', withinKm: 100 })
})

test('whoever moves their own site about learns only in which square another lies', async () => {
  const move = async (latitude: number): Promise<number[]> => {
    const { name, kind, timeZone, units, longitude, elevationM, auditYears, place, rowVersion } = near.site
    const moved = { name, kind, timeZone, units, place, latitude, longitude, elevationM, auditYears, rowVersion }
    near.site = done(await app.call(sites.update, { siteId: near.site.id }, moved as never, { person: near.person }))
    return (await seen()).found.map(({ withinKm }) => withinKm)
  }
  const there = await move(46.235)
  // Anywhere in the same square looks alike from here.
  expect(await move(46.245)).toEqual(there)
  expect(await move(46.16)).toEqual(there)
})

test('a disease that was found near by counts as a known source, unless somebody said otherwise', async () => {
  const at = { siteId: here.site.id }
  const scab = await watch(here, 'apple-scab')
  const mildew = await watch(here, 'vine-downy-mildew')
  await app.settled()
  const row = async (id: string) => done(await app.call(watches.band, at, { season: SEASON })).watches.find((one) => one.watch.id === id)!
  expect((await row(scab)).sourceNear).toEqual({ withinKm: 10, day: '2026-06-03' })
  expect((await row(mildew)).sourceNear).toBeNull()
  await share(near, false)
  await share(here, false)
  await app.settled()
  expect((await row(scab)).sourceNear).toBeNull()
})
