import { endpoints } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { tendStations } from '../worker/tendStations.js'
import { servingOver, startApplication, type Application } from '../testing/application.js'
import { done, type TestSite } from '../testing/farm.js'
import { hourlyFile, importFile, preview } from '../testing/upload.js'

const { blocks, sites, weather } = endpoints
const SEASON = '2026-01-01'

let app: Application
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
})
afterAll(() => app.stop())

/** A site whose clock stands between the hours, with a spike at four in the afternoon of the first of May. */
async function siteIn(timeZone: string, latitude: number): Promise<TestSite> {
  const as = { person: await app.newPerson() }
  const site = done(
    await app.call(
      sites.create,
      {},
      { name: `Bench of ${timeZone}`, place: 'a terrace', timeZone, units: 'metric', latitude, longitude: 80 },
      as,
    ),
  )
  const stationId = done(await app.call(weather.addStation, { siteId: site.id }, { name: 'Bench' }, as)).id
  const blockId = done(await app.call(blocks.create, { siteId: site.id }, { name: 'Rows', kind: 'field', areaHa: 1, grows: '' }, as)).id
  const place = { site, person: as.person, viewer: '', stationId, blockId }
  const file = hourlyFile(2025, '2026-06-12')
    .split('\n')
    .map((line) => (line.startsWith('2026-05-01 16:00') ? '2026-05-01 16:00,55.5,0' : line))
    .join('\n')
  await importFile(app, place, file, (await preview(app, place, file.slice(0, 200_000))).body.mapping)
  return place
}

describe.each([
  ['Asia/Kolkata', 22],
  ['Australia/Adelaide', -34],
  ['Asia/Kathmandu', 28],
])('a doubted reading in %s', (timeZone, latitude) => {
  let place: TestSite
  beforeAll(async () => {
    place = await siteIn(timeZone, latitude)
  })
  const params = () => ({ siteId: place.site.id, stationId: place.stationId })
  const season = () => (latitude < 0 ? '2025-07-01' : SEASON)
  const spike = async () =>
    done(await app.call(weather.doubts, params(), { season: season() })).find(
      ({ flag, variable }) => flag === 'spike' && variable === 'temperature',
    )
  const hour = async () => done(await app.call(weather.hours, params(), { day: '2026-05-01' })).hours.find(({ hour: h }) => h === 16)!

  test('is shown with what was read, in its hour, before and after it is kept', async () => {
    for (const kept of [false, true]) {
      if (kept) await tendStations(servingOver(app), place.site.id)
      expect((await spike())?.read).toEqual({ low: 55.5, high: 55.5 })
      expect((await hour()).doubts).toMatchObject([{ flag: 'spike', read: 55.5 }])
    }
  })

  test('can be decided on, whoever found it', async () => {
    const { from, to } = (await spike())!
    const decided = await app.call(
      weather.decideDoubts,
      params(),
      { decision: 'overruled', doubts: [{ variable: 'temperature', from, to }] },
      { person: place.person },
    )
    expect(done(decided).hours).toBe(1)
    expect((await hour()).temperature).toBe(55.5)
    expect(await spike()).toMatchObject({ decision: 'overruled', decidedBy: 'Marit Solheim' })
  })

  test('moves with its hour where the clock is put right, and shows that hour’s reading', async () => {
    const clock = {
      kind: 'clock',
      from: '2026-04-30',
      to: '2026-05-02',
      shiftMinutes: 60,
      variable: null,
      readAs: null,
      isIn: null,
    } as const
    done(await app.call(weather.correct, params(), clock as never, { person: place.person }))
    const later = done(await app.call(weather.hours, params(), { day: '2026-05-01' })).hours.find(({ hour: h }) => h === 17)!
    expect(later.doubts).toMatchObject([{ flag: 'spike', read: 55.5 }])
    expect((await spike())?.read).toEqual({ low: 55.5, high: 55.5 })
  })
})
