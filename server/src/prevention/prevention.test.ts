import { endpoints, type InputOf } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'

const { blocks, crops, prevention, scouting, watches, weather } = endpoints
const SEASON = '2026-01-01'

let app: Application
let place: TestSite
let at: { siteId: string }
let as: { person: string }
let field: string
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  at = { siteId: place.site.id }
  as = { person: place.person }
  field = done(await app.call(blocks.create, at, { name: 'Onion Flat', kind: 'field', areaHa: 3.1 }, as)).id
})
afterAll(() => app.stop())

type Asked = InputOf<typeof prevention.dates>
const ask = (input: Partial<Asked> = {}) => app.call(prevention.dates, at, { placeId: field, crop: 'carrot', begins: 'sown', ...input })
const dates = async (input: Partial<Asked> = {}) => done(await ask(input))

/** Years of a plain course of the year, from 2019 to the day before today: the last frost in March, the first in November. */
async function readWeather(stationId: string) {
  const days: { day: string; min: number; max: number }[] = []
  for (let day = Date.UTC(2019, 0, 1); day < Date.UTC(2026, 5, 12); day += 86_400_000) {
    const date = new Date(day)
    const warm = Math.sin(((date.getUTCMonth() * 30.4 + date.getUTCDate() - 105) / 365) * 2 * Math.PI)
    days.push({ day: date.toISOString().slice(0, 10), min: 6 + 11 * warm, max: 16 + 13 * warm })
  }
  for (let i = 0; i < days.length; i += 300)
    done(await app.call(weather.typeDays, { ...at, stationId }, { days: days.slice(i, i + 300) } as never, as))
}

describe('without any weather', () => {
  test('what comes is told by its months, and nothing of frost is made up', async () => {
    const found = await dates()
    expect(found.meetings.map(({ organismId, by, isKnownHere }) => [organismId, by, isKnownHere])).toEqual([
      ['carrot-rust-fly', 'months', false],
    ])
    expect(found).toMatchObject({ frostSeasons: 0, season: { start: SEASON, days: 365, first: 162 } })
    expect(found.dates).toHaveLength(365)
    expect(found.dates[120]).toMatchObject({ springFrost: null, autumnFrost: null })
    // May and June, August and September: up in May it meets the first flight, sown in late June only the second.
    const share = (day: number) => found.dates[day]!.met[0]!.share.p50
    expect(share(90)).toBeGreaterThan(0.7)
    expect(share(195)).toBeLessThan(0.6)
    expect(share(290)).toBe(0)
  })

  test('of the next season no day has passed, and it is as long as it is', async () => {
    expect((await dates({ year: 'next' })).season).toEqual({ start: '2027-01-01', days: 365, first: 0 })
    expect(done(await app.call(prevention.chores, at, {}))).toEqual([])
  })

  test.each<[string, Partial<Asked>, string]>([
    ['an unknown crop', { crop: 'moon-melon' }, 'crop'],
    ['what stands for years', { crop: 'apple' }, 'crop'],
    ['a crop that is never planted out', { begins: 'planted' }, 'begins'],
    ['a place of nowhere', { placeId: crypto.randomUUID() }, 'placeId'],
  ])('%s is refused by name', async (_, input, path) => {
    expect((await ask(input)).problem.fields?.map((one) => one.path)).toEqual([path])
  })
})

describe('the ground', () => {
  test('names what of the family stood in that soil, and other ground that is clear of it', async () => {
    const old = { placeId: field, crop: 'parsnip', standsFrom: '2025-04-10', standsUntil: '2025-10-30' }
    done(await app.call(crops.add, at, old, as))
    const other = done(await app.call(blocks.create, at, { name: 'Long Corn', kind: 'field', areaHa: 8 }, as)).id
    const found = await dates()
    expect(found.sameFamily).toEqual([{ cropName: 'Parsnip', until: '2025-10-30' }])
    expect(found.clear).toEqual([{ placeId: other, name: 'Long Corn', metres: null }])
    expect(found.meetings[0]).toMatchObject({ wintersThere: true, coverHelps: true })
    expect((await dates({ placeId: other })).sameFamily).toEqual([])
  })
})

describe('own looks', () => {
  test('of three seasons stand in place of the months', async () => {
    for (const year of [2023, 2024, 2025]) {
      const watch = { organismId: 'carrot-rust-fly', blockId: field, season: `${year}-01-01` as const }
      const watchId = done(await app.call(watches.create, at, { ...watch, biofix: null }, as)).id
      for (const [day, found] of [
        ['07-01', 0],
        ['07-10', 3],
        ['07-20', 2],
        ['07-30', 0],
      ] as const)
        done(await app.call(scouting.create, at, { watchId, countedOn: `${year}-${day}`, units: [{ mined: found }] }, as))
    }
    const [fly] = (await dates()).meetings
    expect(fly).toMatchObject({ by: 'records', seasons: 3, isKnownHere: true })
    // Nothing in May, which is one of its usual months.
    expect(fly!.curve[135]).toBe(0)
    expect(fly!.curve[190]).toBeGreaterThan(0.8)
  })
})

describe('with weather of past seasons', () => {
  let watchId: string
  beforeAll(async () => {
    await readWeather(place.stationId)
    const watch = { organismId: 'onion-maggot', blockId: field, season: SEASON, biofix: null }
    watchId = done(await app.call(watches.create, at, watch, as)).id
  })

  test('a modelled pest comes by its model, and frost ends what bears none', async () => {
    const onion = await dates({ crop: 'onion' })
    expect(onion.meetings[0]).toMatchObject({ organismId: 'onion-maggot', by: 'model', isKnownHere: true })
    expect(onion.meetings[0]!.curve.every((part) => part >= 0 && part <= 1)).toBe(true)
    expect(Math.max(...onion.meetings[0]!.curve)).toBe(1)
    const bean = await dates({ crop: 'bean' })
    expect(bean.frostSeasons).toBe(7)
    expect(bean.dates[30]!.springFrost).toBe(1)
    expect(bean.dates[150]).toMatchObject({ springFrost: 0, autumnFrost: 0 })
    expect(bean.dates[270]!.autumnFrost).toBeGreaterThan(0.5)
    expect(onion.dates[30]).toMatchObject({ springFrost: 0, autumnFrost: 0 })
  })

  test('the next season is told by the past ones', async () => {
    const next = await dates({ crop: 'onion', year: 'next' })
    expect(next.season.start).toBe('2027-01-01')
    expect(next.meetings[0]).toMatchObject({ by: 'model' })
    expect(next.meetings[0]!.seasons).toBeGreaterThanOrEqual(5)
  })

  test('between two seasons it says what takes the winter from what is watched, and by when it is about again', async () => {
    const [chore] = done(await app.call(prevention.chores, at, {})).filter(({ organismId }) => organismId === 'onion-maggot')
    expect(chore).toMatchObject({ blockName: 'Onion Flat', by: 'model' })
    expect(chore!.todo.length).toBeGreaterThan(0)
    // It flew this spring already: what counts is the next one.
    expect(chore!.until > '2027-02-01' && chore!.until < '2027-06-15', chore!.until).toBe(true)
    done(await app.call(watches.remove, { ...at, watchId }, { rowVersion: 1 }, as))
    expect(done(await app.call(prevention.chores, at, {})).some(({ organismId }) => organismId === 'onion-maggot')).toBe(false)
  })
})
