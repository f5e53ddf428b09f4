import { endpoints, type Calibration, type InputOf } from '@bocado/contract'
import { civilDate, dayNumber, shareReached } from '@bocado/core'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { servingOver, startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'
import { hourlyFile, importFile, preview } from '../testing/upload.js'
import { issueForecasts } from '../worker/issueForecasts.js'

const { watches, calibration } = endpoints
const SEASON = '2026-01-01'
const PAST = ['2023-01-01', '2024-01-01', '2025-01-01']

let app: Application
let place: TestSite
let id: string
/** Heat from 10 May on, by season, as the server has it. */
let heat: Map<string, number[]>
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  const file = hourlyFile(2020, '2026-06-12')
  await importFile(app, place, file, (await preview(app, place, file.slice(0, 200_000))).body.mapping)
  for (const season of PAST) await watch(season, `${season.slice(0, 4)}-05-10`)
  id = (await watch(SEASON, '2026-05-10')).id
  const past = done(await app.call(watches.pastSeasons, { ...at(), watchId: id }, {}))
  heat = new Map(past.map(({ season, cumulative }) => [season, cumulative]))
})
afterAll(() => app.stop())

const at = () => ({ siteId: place.site.id })
const as = () => ({ person: place.person })
const watch = async (season: string, biofix: string | null) =>
  done(await app.call(watches.create, at(), { organismId: 'codling-moth', blockId: place.blockId, season, biofix }, as()))
const dateOf = (season: string, wanted: number): string =>
  civilDate(dayNumber(season) + heat.get(season)!.findIndex((sum) => sum >= wanted))
const read = async (): Promise<Calibration> => done(await app.call(calibration.get, { ...at(), watchId: id }, {}))
const eventOf = async (event: string) => (await read()).events.find((e) => e.event === event)!
const saw = (input: InputOf<typeof calibration.addSighting>) => app.call(calibration.addSighting, { ...at(), watchId: id }, input, as())
const caught = (input: InputOf<typeof calibration.addCatches>) => app.call(calibration.addCatches, { ...at(), watchId: id }, input, as())

test('without a record there is nothing to fit, and nothing to accept', async () => {
  expect(await read()).toEqual({ records: [], caughtBiofix: null, clocks: [], typed: [], events: [] })
  const refused = await app.call(calibration.accept, { ...at(), watchId: id }, { event: 'hatch' }, as())
  expect(refused.status).toBe(422)
})

describe('a dated event', () => {
  test('moves the figure by what the seasons weigh, and is judged without the season that is predicted', async () => {
    // In truth hatch begins here at 165 °C·d; the library has 139.
    for (const season of PAST) {
      const seenOn = dateOf(season, 165)
      done(await saw({ event: 'hatch', kind: 'first', seenOn, lookedBefore: civilDate(dayNumber(seenOn) - 2) }))
    }
    const hatch = await eventOf('hatch')
    expect(hatch.prior).toEqual({ heat: 139, heatSe: 14 })
    expect(hatch.seasons.map(({ season }) => season)).toEqual(PAST)
    for (const { heat: one } of hatch.seasons) expect(Math.abs(one - 160)).toBeLessThan(9)
    expect(hatch.posterior!.heat).toBeGreaterThan(146)
    expect(hatch.posterior!.heat).toBeLessThan(160)
    expect(hatch.posterior!.weight).toBeGreaterThan(0.5)
    expect(hatch.skill!.own.error).toBeLessThan(hatch.skill!.prior.error)
    expect(hatch.skill!.prior.bias).toBeLessThan(0)
    expect(hatch.accepted).toBe(false)
  })

  test('counts with the block once it is accepted and taken, and can be gone back from', async () => {
    const { posterior } = await eventOf('hatch')
    const figures = done(await app.call(calibration.accept, { ...at(), watchId: id }, { event: 'hatch' }, as()))
    const hatch = figures.find(({ path }) => path === 'hatch.heat')!
    expect(hatch.value).toBeCloseTo(posterior!.heat, 1)
    expect(hatch.own).toMatchObject({
      libraryValue: 139,
      fitted: true,
      blockId: place.blockId,
      reason: 'fitted to the records of 2023, 2024, 2025',
    })
    // What was fitted is not fitted to again: the number before the records stays the one they are held against.
    expect(await eventOf('hatch')).toMatchObject({ accepted: true, prior: { heat: 139 } })

    const forecast = async () => done(await app.call(watches.band, at(), { season: SEASON })).watches.find((f) => f.watch.id === id)!
    const before = await forecast()
    expect(before.offer).toMatchObject({ ownFigures: 2 })
    done(await app.call(watches.takeModel, { ...at(), watchId: id }, { rowVersion: before.watch.rowVersion }, as()))
    const after = await forecast()
    const begins = (f: typeof after): number => f.events.find((e) => e.id === 'hatch')!.begins
    expect(begins(after) - begins(before)).toBeCloseTo(hatch.value - 139, 0)

    const organism = { ...at(), organismId: 'codling-moth' }
    const dropped = done(await app.call(watches.dropOwnFigure, organism, { path: 'hatch.heat', blockId: place.blockId }, as()))
    expect(dropped.find(({ path }) => path === 'hatch.heat')!.own).toBeNull()
    expect((await eventOf('hatch')).accepted).toBe(false)
  })

  test('a number that a person sets for the block afterwards is not hidden by the fitted one', async () => {
    done(await app.call(calibration.accept, { ...at(), watchId: id }, { event: 'hatch' }, as()))
    const organism = { ...at(), organismId: 'codling-moth' }
    const own = { path: 'hatch.heat', blockId: place.blockId, value: 150, reason: 'seen at the wall' }
    const figures = done(await app.call(watches.ownFigure, organism, own, as()))
    expect(figures.find(({ path }) => path === 'hatch.heat')).toMatchObject({ value: 150, own: { fitted: false } })
    expect((await eventOf('hatch')).prior.heat).toBe(150)
    done(await app.call(watches.dropOwnFigure, organism, { path: 'hatch.heat', blockId: place.blockId }, as()))
  })

  test('removed is out of the sum, and undone in it again', async () => {
    const { records } = await read()
    const one = records.find(({ event, season }) => event === 'hatch' && season === PAST[0])!
    const params = { ...at(), recordId: one.id }
    const { rowVersion } = done(await app.call(calibration.removeRecord, params, { rowVersion: one.rowVersion }, as()))
    expect((await eventOf('hatch')).seasons).toHaveLength(2)
    done(await app.call(calibration.restoreRecord, params, { rowVersion }, as()))
    expect((await eventOf('hatch')).seasons).toHaveLength(3)
  })
})

test('catches of a trap give median and spread, by what fell between the checks', async () => {
  // A flight of 300 moths about 150 °C·d with 50 between individuals, checked every four days.
  for (const season of PAST) {
    const sums = heat.get(season)!
    const hung = dayNumber(`${season.slice(0, 4)}-05-06`)
    const share = (day: number): number => shareReached(sums[day - dayNumber(season)]!, { kind: 'normal', median: 150, sd: 50 })
    const checks = Array.from({ length: 12 }, (_, i) => ({ day: hung + 4 * (i + 1), from: hung + 4 * i })).map(({ day, from }) => ({
      day: civilDate(day),
      caught: Math.round(300 * (share(day) - share(from))),
    }))
    done(await caught({ event: 'flight', hungOn: civilDate(hung), checks }))
  }
  const { flight, seasons, posterior } = await eventOf('flight')
  expect(flight!.sd).toBeGreaterThan(44)
  expect(flight!.sd).toBeLessThan(56)
  expect(flight!.low < 50 && flight!.high > 50).toBe(true)
  expect(seasons.map(({ source }) => source)).toEqual(['catch', 'catch', 'catch'])
  // 3 % of that flight have come at 150 − 1.88 × 50.
  for (const { heat: one } of seasons) expect(Math.abs(one - 56)).toBeLessThan(12)
  expect(posterior!.heat).toBeGreaterThan(0)
})

describe('what cannot be', () => {
  const count = async (): Promise<number> => (await read()).records.length
  test.each([
    ['an event that the organism has not', { event: 'bolting' }, 'event', /Codling moth/],
    ['a day to come', { seenOn: '2026-06-20' }, 'seenOn', /future/],
    ['a look after the day', { lookedBefore: '2025-06-05' }, 'lookedBefore', /before the day/],
  ])('%s is refused with its field', async (_, wrong, path, message) => {
    const before = await count()
    const { status, problem } = await saw({ event: 'hatch', kind: 'half', seenOn: '2025-06-05', ...wrong })
    expect(status).toBe(422)
    expect(problem.fields![0]).toMatchObject({ path, message: expect.stringMatching(message) as string })
    expect(await count()).toBe(before)
  })

  test.each([
    [
      'out of order',
      [
        { day: '2022-05-20', caught: 1 },
        { day: '2022-05-16', caught: 2 },
      ],
      /check 2, 2022-05-16.*2022-05-20/,
    ],
    [
      'of another season',
      [
        { day: '2022-05-20', caught: 1 },
        { day: '2023-05-20', caught: 2 },
      ],
      /another season/,
    ],
  ])('checks %s are refused, and none of them is kept', async (_, checks, message) => {
    const before = await count()
    const { status, problem } = await caught({ event: 'flight', hungOn: '2022-05-10', checks })
    expect(status).toBe(422)
    expect(problem.fields![0]).toMatchObject({ path: 'checks.1.day', message: expect.stringMatching(message) as string })
    expect(await count()).toBe(before)
  })

  test('the same day twice is refused', async () => {
    const again = (await read()).records.find(({ event }) => event === 'hatch')!
    const { status, problem } = await saw({ event: 'hatch', kind: 'first', seenOn: again.seenOn })
    expect(status).toBe(422)
    expect(problem.fields![0]!.message).toContain('recorded already')
  })

  test('a season without weather is said to be left out', async () => {
    done(await saw({ event: 'hatch', kind: 'first', seenOn: '2011-06-01' }))
    expect((await eventOf('hatch')).left).toEqual([{ season: '2011-01-01', reason: 'weather' }])
  })
})

test('forecasts are issued with each day though nobody looks, those by months too', async () => {
  const months = done(await app.call(watches.create, at(), { organismId: 'onion-thrips', blockId: place.blockId, season: SEASON }, as())).id
  const serving = servingOver(app)
  await issueForecasts(serving, place.site.id)
  expect(await issueForecasts(serving, place.site.id)).toBe(0)
  done(await app.call(endpoints.demo.setClock, {}, { now: '2026-06-13T14:30:00Z' }, as()))
  expect(await issueForecasts(serving, place.site.id)).toBeGreaterThan(0)
  // Of the twelfth no weather has come: past seasons stand for it from there on.
  const { issued, since } = done(await app.call(watches.moves, { ...at(), watchId: months }, {}))
  expect(issued.map(({ today, grade }) => `${today} ${grade}`)).toEqual(['2026-06-13 months', '2026-06-12 months'])
  expect(issued[0]!.usual.length).toBeGreaterThan(0)
  expect(issued[0]!.windows).toEqual([])
  expect(since).toBeNull()
})

test('catches of this season offer the biofix that they show, between the check before them and the first of them', async () => {
  const thisYear = done(await app.call(watches.list, at(), { season: SEASON })).find(({ organismId }) => organismId === 'codling-moth')!
  const params = { ...at(), watchId: thisYear.id }
  const checks = [
    { day: '2026-05-04', caught: 0 },
    { day: '2026-05-08', caught: 2 },
    { day: '2026-05-12', caught: 0 },
    { day: '2026-05-16', caught: 3 },
    { day: '2026-05-20', caught: 5 },
  ]
  done(await app.call(calibration.addCatches, params, { event: 'flight', hungOn: '2026-04-30', checks, note: '' }, as()))
  expect(done(await app.call(calibration.get, params, {})).caughtBiofix).toEqual({
    day: '2026-05-14',
    halfInterval: 2,
    checks: ['2026-05-16', '2026-05-20'],
  })
})
