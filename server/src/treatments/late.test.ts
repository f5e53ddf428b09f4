import { endpoints } from '@bocado/contract'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'

const { crops, harvests, treatments, watches, weather } = endpoints
const SEASON = '2026-01-01'

let app: Application
let place: TestSite
let at: { siteId: string }
let as: { person: string }
let watchId: string
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  at = { siteId: place.site.id }
  as = { person: place.person }
  const watch = { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: '2026-05-10' }
  watchId = done(await app.call(watches.create, at, watch, as)).id
})
afterAll(() => app.stop())

const late = async () => done(await app.call(treatments.late, { ...at, watchId }, {}, as))

test('nothing is made up: without harvests no weight, without past seasons no frost and nothing that surely ripens', async () => {
  const known = await late()
  expect(known).toMatchObject({ ownWeightKg: null, frost: null })
  expect(known.replace.every(({ ripens }) => ripens === 'perhaps')).toBe(true)
  expect((await app.call(treatments.late, { ...at, watchId: crypto.randomUUID() }, {}, as)).status).toBe(404)
})

test('a weight comes from what was picked there, and of what stands there no crop of its family is sown after it', async () => {
  const pick = (kg: number, pieces: number) =>
    app.call(harvests.add, at, { placeId: place.blockId, pickedOn: '2026-06-11', kg, pieces }, as)
  done(await pick(10, 80))
  expect((await late()).ownWeightKg).toBeNull()
  done(await pick(6, 48))
  expect((await late()).ownWeightKg).toBeCloseTo(0.125)
  const before = (await late()).replace.map(({ cropName }) => cropName)
  expect(before.length).toBeGreaterThan(0)
  const [first] = before
  const known = done(await app.call(crops.known, at, {}, as))
  const crop = known.find(({ name }) => name === first)!
  done(await app.call(crops.add, at, { placeId: place.blockId, crop: crop.id, standsFrom: '2026-05-01' }, as))
  const family = new Set(known.filter((one) => one.family === crop.family).map(({ name }) => name))
  expect((await late()).replace.filter(({ cropName }) => family.has(cropName))).toEqual([])
})

test('where no past autumn had frost nothing ends before the season does', async () => {
  const mild = await startSite(app, 'Ladder Pears')
  const there = { siteId: mild.site.id }
  const by = { person: mild.person }
  const watch = { organismId: 'codling-moth', blockId: mild.blockId, season: SEASON, biofix: null }
  const { id } = done(await app.call(watches.create, there, watch, by))
  const days = [2020, 2021, 2022, 2023, 2024].flatMap((year) =>
    Array.from({ length: 365 }, (_, d) => ({ day: new Date(Date.UTC(year, 0, 1 + d)).toISOString().slice(0, 10), min: 8, max: 22 })),
  )
  // The last day of a leap year is missing above, and a season with a gap tells nothing.
  for (const year of [2020, 2024]) days.push({ day: `${year}-12-31`, min: 8, max: 22 })
  for (let i = 0; i < days.length; i += 300)
    done(await app.call(weather.typeDays, { ...there, stationId: mild.stationId }, { days: days.slice(i, i + 300) } as never, by))
  const known = done(await app.call(treatments.late, { ...there, watchId: id }, {}, by))
  expect(known.frost).toEqual({ early: '2026-12-31', usual: '2026-12-31', seasons: 5 })
  expect(known.replace.some(({ ripens }) => ripens === 'surely')).toBe(true)
})

test('frost is told by past autumns of the station, and then what is sown today may surely ripen', async () => {
  const rows = [2020, 2021, 2022, 2023, 2024].flatMap((year, k) =>
    Array.from({ length: 365 }, (_, d) => {
      const date = new Date(Date.UTC(year, 0, 1 + d)).toISOString().slice(0, 10)
      // The first frost of autumn comes on the 280th day of the first year, and two days later in each that follows.
      return { day: date, min: d >= 280 + 2 * k || d < 90 ? -2 : 8, max: d < 90 ? 6 : 22 }
    }),
  )
  const stationId = place.stationId
  for (let i = 0; i < rows.length; i += 300)
    done(await app.call(weather.typeDays, { ...at, stationId }, { days: rows.slice(i, i + 300) } as never, as))
  const known = await late()
  expect(known.frost).toEqual({ early: '2026-10-08', usual: '2026-10-12', seasons: 5 })
  expect(known.replace.some(({ ripens }) => ripens === 'surely')).toBe(true)
  expect(known.replace.filter(({ ripens }) => ripens === 'surely').every(({ until }) => until < '2026-10-08')).toBe(true)
})
