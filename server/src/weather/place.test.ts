import { endpoints, type InputOf } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'
import { hourlyFile, importFile, preview } from '../testing/upload.js'

const { weather, blocks, sites, watches } = endpoints
const SEASON = '2026-01-01'

let app: Application
let place: TestSite
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  const file = hourlyFile(2021, '2026-06-12')
  await importFile(app, place, file, (await preview(app, place, file.slice(0, 200_000))).body.mapping)
})
afterAll(() => app.stop())

const at = () => ({ siteId: place.site.id })
const as = () => ({ person: place.person })
const addBlock = async (input: InputOf<typeof blocks.create>) => done(await app.call(blocks.create, at(), input, as()))
const days = async (blockId?: string) =>
  done(await app.call(weather.days, { ...at(), stationId: place.stationId }, { season: SEASON, ...(blockId ? { blockId } : {}) })).days
const watch = async (blockId: string, where = place) =>
  done(
    await app.call(
      watches.create,
      { siteId: where.site.id },
      { organismId: 'codling-moth', blockId, season: SEASON, biofix: '2026-05-10' },
      { person: where.person },
    ),
  )
const bandOf = async (where = place) => done(await app.call(watches.band, { siteId: where.site.id }, { season: SEASON })).watches

describe('a block', () => {
  test('follows the nearest station outside unless one was chosen', async () => {
    const add = (name: string, latitude: number | null, underCover = false) =>
      app.call(weather.addStation, at(), { name, latitude, longitude: latitude === null ? null : -119.3, underCover }, as())
    const river = done(await add('River', 46.19)).id
    const inside = done(await add('Inside', 46.2, true)).id
    done(await add('Hill', 46.3))
    const follows = async (blockId: string) => done(await app.call(blocks.list, at(), {})).find(({ id }) => id === blockId)?.follows
    const near = await addBlock({ name: 'Long Corn', kind: 'field', latitude: 46.191, longitude: -119.3 })
    expect(await follows(near.id)).toMatchObject({ stationId: river, how: 'nearest' })
    expect((await follows(near.id))!.km).toBeCloseTo(0.111, 2)
    const chosen = await addBlock({ name: 'Onion Flat', kind: 'field', latitude: 46.191, longitude: -119.3, stationId: place.stationId })
    expect(await follows(chosen.id)).toMatchObject({ stationId: place.stationId, how: 'chosen' })
    const tunnel = await addBlock({ name: 'Glass One', kind: 'tunnel', stationId: inside })
    expect(await follows(tunnel.id)).toMatchObject({ stationId: inside, how: 'chosen' })
  })

  test('in a cold hollow is colder by its offset, and its heat follows', async () => {
    const hollow = await addBlock({ name: 'Hollow', kind: 'orchard', stationId: place.stationId, offsetMin: -3, offsetMax: -0.5 })
    const level = await addBlock({ name: 'Level', kind: 'orchard', stationId: place.stationId })
    const [there, here] = [(await days(hollow.id))[150]!, (await days())[150]!]
    expect(there.min).toBeCloseTo(here.min! - 3, 2)
    expect(there.max).toBeCloseTo(here.max! - 0.5, 2)
    await watch(hollow.id)
    await watch(level.id)
    const band = await bandOf()
    const [cold, plain] = [hollow, level].map(({ id }) => band.find((w) => w.watch.blockId === id)!)
    expect(cold!.offset).toEqual({ min: -3, max: -0.5 })
    expect(cold!.heat.now).toBeLessThan(plain!.heat.now - 10)
    expect(cold!.windows[0]!.opens.p50!).toBeGreaterThan(plain!.windows[0]!.opens.p50!)
    expect(plain!.heat.now).toBeGreaterThan(0)
  })

  test('under cover has no rain, its wet hours are unknown but for what was entered, and these can be taken back', async () => {
    const glass = await addBlock({ name: 'Glass Two', kind: 'tunnel', stationId: place.stationId, offsetMin: 3, offsetMax: 6 })
    const of = async () => (await days(glass.id))[150]!
    expect(await of()).toMatchObject({ rain: null, wet: 0, wetUnknown: 24 })
    const event = {
      kind: 'overhead-watering' as const,
      startedAt: '2026-05-31T14:00:00Z',
      endedAt: '2026-05-31T16:30:00Z',
      waterMm: 8,
    }
    const before = (await of()).rootZone!
    const added = done(await app.call(blocks.addWetEvent, { ...at(), blockId: glass.id }, event, as()))
    expect(await of()).toMatchObject({ wet: 3, wetUnknown: 21 })
    expect((await of()).rootZone! - before).toBeGreaterThan(0.05)
    const hours = done(await app.call(weather.hours, { ...at(), stationId: place.stationId }, { day: '2026-05-31', blockId: glass.id }))
    expect(hours.hours.filter(({ wet }) => wet).map(({ hour }) => hour)).toEqual([6, 7, 8])
    const { rowVersion } = done(await app.call(blocks.removeWetEvent, { ...at(), wetEventId: added.id }, { rowVersion: 1 }, as()))
    expect(await of()).toMatchObject({ wet: 0 })
    done(await app.call(blocks.restoreWetEvent, { ...at(), wetEventId: added.id }, { rowVersion }, as()))
    expect(await of()).toMatchObject({ wet: 3 })
    const refuse = async (input: object) =>
      (await app.call(blocks.addWetEvent, { ...at(), blockId: glass.id }, { ...event, ...input }, as())).problem.fields?.[0]
    expect(await refuse({ endedAt: event.startedAt })).toEqual({ path: 'endedAt', message: 'must end after it began' })
    expect((await refuse({ startedAt: '2026-07-01T00:00:00Z', endedAt: '2026-07-01T02:00:00Z' }))?.message).toContain('future')
  })
})

describe('a site without a station', () => {
  const months = Array.from({ length: 12 }, (_, m) => ({
    min: 4 - 9 * Math.cos((2 * Math.PI * (m - 0.5)) / 12),
    max: 16 - 12 * Math.cos((2 * Math.PI * (m - 0.5)) / 12),
    rain: 25,
  }))

  test('forecasts from its monthly normals, and says so', async () => {
    const bare = await startSite(app, 'Bare bench')
    await watch(bare.blockId, bare)
    expect((await bandOf(bare))[0]).toMatchObject({ grade: 'calendar', basis: 'none', windows: [] })
    const type = (input: object) => app.call(sites.typeNormals, { siteId: bare.site.id }, input as never, { person: bare.person })
    const wrong = await type({ months: months.with(3, { min: 12, max: 4, rain: 0 }), rowVersion: null })
    expect(wrong.problem.fields?.[0]?.path).toBe('months.3.min')
    done(await type({ months, source: 'county almanac', rowVersion: null }))
    const [forecast] = await bandOf(bare)
    expect(forecast).toMatchObject({
      grade: 'dates',
      basis: 'normals',
      heat: { pastSeasons: 0, madeSeasons: 4, forecast: null },
      wide: true,
    })
    expect(forecast!.windows[0]!.opens.p50!).toBeGreaterThan(130)
    expect(forecast!.windows[0]!.opens.p90! - forecast!.windows[0]!.opens.p10!).toBeGreaterThan(4)
    const typed = done(await app.call(sites.normals, { siteId: bare.site.id }, {})).typed!
    expect(typed).toMatchObject({ source: 'county almanac', by: 'Marit Solheim', rowVersion: 1 })
    expect((await type({ months, rowVersion: 7 })).status).toBe(409)
    done(await app.call(sites.removeNormals, { siteId: bare.site.id }, { rowVersion: 1 }, { person: bare.person }))
    expect((await bandOf(bare))[0]).toMatchObject({ grade: 'calendar' })
  })

  test('with a young one goes on from what past seasons there are, and from normals', async () => {
    const young = await startSite(app, 'Young bench')
    const file = hourlyFile(2025, '2026-06-12')
    await importFile(app, young, file, (await preview(app, young, file.slice(0, 200_000))).body.mapping)
    await watch(young.blockId, young)
    // One past season gives dates already, and they are called wide.
    const [one] = await bandOf(young)
    expect(one).toMatchObject({ grade: 'dates', basis: 'station', wide: true, heat: { knownDays: 365, pastSeasons: 1 } })
    const second = one!.windows[1]!
    expect(second.opens.p90! - second.opens.p10!).toBeGreaterThan(14)
    done(await app.call(sites.typeNormals, { siteId: young.site.id }, { months, rowVersion: null }, { person: young.person }))
    expect((await bandOf(young))[0]).toMatchObject({
      basis: 'station-and-normals',
      heat: { knownDays: 365, pastSeasons: 1, madeSeasons: 4 },
    })
    const own = done(await app.call(sites.normals, { siteId: young.site.id }, {})).own!
    expect(own.months[5]).toMatchObject({ years: 1 })
  })

  test('with past years and nothing of this season has dates from past seasons alone, and says so', async () => {
    const old = await startSite(app, 'Old bench')
    const file = hourlyFile(2019, '2026-01-01')
    await importFile(app, old, file, (await preview(app, old, file.slice(0, 200_000))).body.mapping)
    done(
      await app.call(
        watches.create,
        { siteId: old.site.id },
        { organismId: 'codling-moth', blockId: old.blockId, season: SEASON, biofix: '2026-05-10' },
        { person: old.person },
      ),
    )
    const [forecast] = await bandOf(old)
    expect(forecast).toMatchObject({ grade: 'dates', basis: 'past-seasons', wide: false, heat: { pastSeasons: 7, missing: [] } })
    expect(forecast!.windows[0]!.opens.p10).not.toBeNull()
  })
})
