import { endpoints } from '@bocado/contract'
import {
  civilDate,
  compareWithCheck,
  dailyFromHours,
  dayNumber,
  ensembleOf,
  hendersonTilton,
  reachHeat,
  reachOf,
  resolveEvents,
  seasonHeat,
  seasonWeather,
  windowForecast,
} from '@bocado/core'
import { findOrganism, modelOf } from '@bocado/library'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from './testing/application.js'
import { done, startSite, type TestSite } from './testing/farm.js'
import { hourlyFile, importFile, preview } from './testing/upload.js'

const { watches, treatments, scouting, outcomes, blocks, demo, weather } = endpoints
const SEASON = '2026-01-01'

let app: Application
let place: TestSite
let watchId: string
let productId: string
const file = hourlyFile(2021, '2026-06-12')
const inSite = () => ({ siteId: place.site.id })
const asLead = () => ({ person: place.person })

beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  const { mapping } = (await preview(app, place, file.slice(0, 200_000))).body
  await importFile(app, place, file, mapping)
  watchId = done(
    await app.call(
      watches.create,
      inSite(),
      { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: '2026-05-10' },
      asLead(),
    ),
  ).id
  productId = done(
    await app.call(
      treatments.addProduct,
      inSite(),
      {
        name: 'Granule C',
        methods: ['granulosis-virus'],
        stages: ['young-larva'],
        effect: 0.75,
        residualDays: 8,
        labelRate: 0.1,
        rateUnit: 'L/ha',
        reEntryHours: 4,
        preHarvestDays: 7,
        bees: 'none-stated',
        protection: 'gloves',
      },
      asLead(),
    ),
  ).id
})
afterAll(() => app.stop())

test('a forecast is what the computation makes of the readings, with a member for each past season', async () => {
  const band = done(await app.call(watches.band, inSite(), { season: SEASON }))
  const forecast = band.watches[0]!
  const hours = file.split('\n').slice(1)
  const series = dailyFromHours({
    firstHour: dayNumber('2021-01-01') * 24,
    tempsC: Float64Array.from(hours, (line) => Number(line.split(',')[1])),
  })
  const model = modelOf(findOrganism('codling-moth')!)
  const weather = seasonWeather({ series, firstDay: dayNumber(SEASON), today: dayNumber('2026-06-12') })
  const heat = seasonHeat(weather, model.heat, dayNumber('2026-05-10'))
  expect(forecast.heat.segments.tails.map(({ pastSeason }) => civilDate(pastSeason))).toEqual([
    '2021-01-01',
    '2022-01-01',
    '2023-01-01',
    '2024-01-01',
    '2025-01-01',
  ])
  expect(forecast.heat).toMatchObject({ pastSeasons: 5, forecast: null })
  expect(forecast.heat.now).toBeCloseTo(heat.median[161]!, 1)
  const events = resolveEvents(model)
  const expected = windowForecast(ensembleOf(heat), reachHeat(reachOf(events, 'first', ['egg', 'young-larva'])!), 365)
  expect(forecast.windows[0]!.opens.p50! - expected.opens.p50).toBeLessThan(0.051)
  expect(Math.abs(forecast.windows[0]!.closes.p90! - expected.closes.p90)).toBeLessThan(0.051)
  expect(forecast.grade).toBe('dates')
  expect(band.heatAxis).toHaveLength(366)
  expect(band.heatAxis!.every((p, i, all) => i === 0 || p > all[i - 1]!)).toBe(true)
})

describe('a treatment', () => {
  test('keeps within label, block and past; what it was done with stays as it was', async () => {
    const planned = done(await app.call(treatments.plan, inSite(), { watchId, productId, plannedOn: '2026-06-04' }, asLead()))
    const at = { ...inSite(), treatmentId: planned.id }
    const record = (changes: object) =>
      app.call(
        treatments.record,
        at,
        { startedAt: '2026-06-04T05:00:00Z', rate: 0.1, areaHa: 4, weather: {}, rowVersion: 1, ...changes },
        asLead(),
      )
    expect((await record({ rate: 0.11 })).problem.fields).toEqual([
      { path: 'departureReason', message: 'say why: the rate is above the label' },
    ])
    expect((await record({ areaHa: 4.3 })).problem.fields?.[0]?.path).toBe('areaHa')
    expect((await record({ startedAt: '2026-06-12T20:00:00Z' })).problem.fields?.[0]?.message).toContain('lies in the future')
    const recorded = done(await record({}))
    // 5 in the morning UTC is still the evening before at the site.
    expect(recorded.done).toMatchObject({ day: '2026-06-03', reEntryUntil: '2026-06-04T09:00:00Z', rateUnit: 'L/ha' })
    expect((await app.call(treatments.move, at, { productId, plannedOn: '2026-06-05', rowVersion: 2 }, asLead())).status).toBe(409)

    const product = done(await app.call(treatments.products, inSite(), {}))[0]!
    const { id, rowVersion, ...label } = product
    done(await app.call(treatments.updateProduct, { ...inSite(), productId: id }, { ...label, reEntryHours: 48, rowVersion }, asLead()))
    const [after] = done(await app.call(treatments.list, inSite(), { season: SEASON }))
    expect(after?.done?.reEntryUntil).toBe('2026-06-04T09:00:00Z')

    // A correction is held against the label of the day, and leaves it as it was, also where the shelf would refuse it now.
    const [now] = done(await app.call(treatments.products, inSite(), {}))
    const { id: __, rowVersion: version, ...later } = now!
    const stricter = { ...later, labelRate: 0.05, effect: 0.1, stages: ['egg'], rowVersion: version }
    done(await app.call(treatments.updateProduct, { ...inSite(), productId: id }, stricter, asLead()))
    const corrected = done(await record({ areaHa: 3.8, rowVersion: after!.rowVersion }))
    expect(corrected.done).toMatchObject({ areaHa: 3.8, reEntryUntil: '2026-06-04T09:00:00Z', label: { labelRate: 0.1, reEntryHours: 4 } })
    // Above the label of its day, not above that of today's shelf alone.
    expect((await record({ rate: 0.11, rowVersion: corrected.rowVersion })).problem.fields?.[0]?.path).toBe('departureReason')
    const [outcome] = done(await app.call(outcomes.list, inSite(), { season: SEASON }))
    expect(outcome!.coverage!.p50).toBeGreaterThan(0.15)
    // Gone from the shelf it still was what was used.
    await app.database.query('UPDATE product SET deleted_at = NOW() WHERE id = ?', [id])
    expect(done(await app.call(outcomes.list, inSite(), { season: SEASON }))).toHaveLength(1)
    await app.database.query('UPDATE product SET deleted_at = NULL, label_rate = 0.1, effect = 0.6, stages = ? WHERE id = ?', [
      JSON.stringify(corrected.done!.label!.stages),
      id,
    ])
  })

  test('finds the reading of its hour', async () => {
    const read = done(await app.call(treatments.weatherAt, { ...inSite(), watchId }, { at: '2026-06-04T05:20:00Z' }))
    const line = file.split('\n').find((l) => l.startsWith('2026-06-03 21:00'))!
    expect(read).toEqual({ tempC: Number(line.split(',')[1]), humidityPct: null, windMs: null, windFrom: null })
  })
})

describe('counts and outcome', () => {
  const before = Array.from({ length: 24 }, (_, i) => ({ 'fresh-entry': i % 3 }))
  const after = Array.from({ length: 24 }, (_, i) => ({ 'fresh-entry': i % 6 === 0 ? 1 : 0, sting: 2 }))
  const checkAfter = Array.from({ length: 24 }, (_, i) => ({ 'fresh-entry': 1 + (i % 3) }))

  test('a class that is not counted, a future day and another block’s check area are refused', async () => {
    const round = (changes: object) =>
      app.call(scouting.create, inSite(), { watchId, countedOn: '2026-06-02', units: [{ 'fresh-entry': 1 }], ...changes }, asLead())
    expect((await round({ units: [{ 'fresh-entry': 1 }, { psylla: 3 }] })).problem.fields?.[0]?.path).toBe('units.1.psylla')
    expect((await round({ units: [{ 'fresh-entry': -1 }] })).problem.fields?.[0]).toEqual({
      path: 'units.0.fresh-entry',
      message: 'must be at least 0',
    })
    expect((await round({ countedOn: '2026-06-13' })).problem.fields?.[0]?.path).toBe('countedOn')
    expect((await round({ checkAreaId: place.stationId })).problem.fields?.[0]?.path).toBe('checkAreaId')
    expect((await round({ units: [] })).problem.fields?.[0]?.path).toBe('units')
  })

  test('are weighed against the threshold, and compared as far as one pair of areas allows', async () => {
    const check = done(await app.call(blocks.addCheckArea, { ...inSite(), blockId: place.blockId }, { name: 'North corner' }, asLead()))
    const count = async (countedOn: string, units: Record<string, number>[], checkAreaId: string | null = null) =>
      done(await app.call(scouting.create, inSite(), { watchId, countedOn, units, checkAreaId }, asLead()))
    const first = await count('2026-06-02', before)
    // 24 entries on 24 trees of 20 fruit each.
    expect(first.per100).toBeCloseTo(5)
    expect(first.threshold).toEqual({ per100: 2, from: 'library' })

    let outcome = done(await app.call(outcomes.list, inSite(), { season: SEASON }))[0]!
    expect(outcome.missing).toEqual(['count-after', 'check-area'])
    await count('2026-06-02', before, check.id)
    await count('2026-06-11', after)
    await count('2026-06-11', checkAfter, check.id)
    outcome = done(await app.call(outcomes.list, inSite(), { season: SEASON }))[0]!
    expect(outcome.missing).toEqual([])
    // Two weeks after it, a virus shows: this count is the first after it, and too early.
    expect(outcome).toMatchObject({ judgeFrom: '2026-06-17', isEarly: true })
    const effective = (units: Record<string, number>[]) => units.map((u) => u['fresh-entry'] ?? 0)
    const expected = compareWithCheck(
      {
        treatedBefore: effective(before),
        treatedAfter: effective(after),
        checkBefore: effective(before),
        checkAfter: effective(checkAfter),
      },
      { seed: 1979 },
    )
    expect(outcome.comparison?.hendersonTilton).toEqual(expected.hendersonTilton)
    expect(outcome.comparison?.hendersonTilton.value).toBeCloseTo(
      hendersonTilton({ treatedBefore: 24, treatedAfter: 4, checkBefore: 24, checkAfter: 48 }),
      9,
    )
    expect(outcome.comparison?.verdict).toBe('lower-than-check')
    expect(outcome.treated.before?.crossed).toBe(true)
    expect(outcome.treated.after?.crossed).toBe(false)
    expect(outcome.coverage!.p50).toBeGreaterThan(0)

    const at = { ...inSite(), blockId: place.blockId }
    const removed = done(await app.call(blocks.remove, at, { rowVersion: 1 }, asLead()))
    expect(done(await app.call(outcomes.list, inSite(), { season: SEASON }))).toEqual([])
    done(await app.call(blocks.restore, at, { rowVersion: removed.rowVersion }, asLead()))
    expect(done(await app.call(outcomes.list, inSite(), { season: SEASON }))).toHaveLength(1)
  })
})

test('a treatment on the last evening of a season belongs to it, by the day of the site', async () => {
  done(await app.call(demo.setClock, {}, { now: '2027-01-02T12:00:00Z' }, { person: place.person }))
  const planned = done(await app.call(treatments.plan, inSite(), { watchId, productId, plannedOn: '2026-12-31' }, asLead()))
  const at = { ...inSite(), treatmentId: planned.id }
  const recorded = done(
    await app.call(
      treatments.record,
      at,
      { startedAt: '2027-01-01T04:00:00Z', rate: 0.1, areaHa: 1, weather: {}, rowVersion: 1 },
      asLead(),
    ),
  )
  expect(recorded.done?.day).toBe('2026-12-31')
  done(await app.call(demo.setClock, {}, { now: '2026-06-12T14:30:00Z' }, { person: place.person }))
})

test('without weather a watch says what is missing and gives no date', async () => {
  const bare = await startSite(app, 'Bare bench')
  const person = { person: bare.person }
  done(
    await app.call(
      watches.create,
      { siteId: bare.site.id },
      { organismId: 'codling-moth', blockId: bare.blockId, season: SEASON, biofix: '2026-06-10' },
      person,
    ),
  )
  const band = done(await app.call(watches.band, { siteId: bare.site.id }, { season: SEASON }))
  expect(band.watches[0]).toMatchObject({ grade: 'calendar', basis: 'none', windows: [] })
  expect(band.watches[0]?.usual[0]).toMatchObject({ generation: 'first', months: [5, 6] })
  expect(band.heatAxis).toBeNull()

  const days = [{ day: '2026-06-11', min: 8, max: 20 }]
  done(await app.call(weather.typeDays, { siteId: bare.site.id, stationId: bare.stationId }, { days }, person))
  const read = done(await app.call(watches.band, { siteId: bare.site.id }, { season: SEASON })).watches[0]
  expect(read).toMatchObject({ grade: 'none', basis: 'station', windows: [] })
  expect(read?.heat.missing).toEqual([{ from: '2026-06-10', to: '2026-06-10' }])
})
