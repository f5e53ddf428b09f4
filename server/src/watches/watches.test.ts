import { endpoints, type InputOf, type WatchForecast } from '@bocado/contract'
import { civilDate, dayNumber, resolveEvents, scabWetHours, severityValue } from '@bocado/core'
import { modelOf, organisms } from '@bocado/library'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { jsonOf, type Row } from '../database/pool.js'
import { servingOver, startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'
import { hourlyFile, importFile, preview } from '../testing/upload.js'
import { issueForecasts } from '../worker/issueForecasts.js'

const { watches, blocks, demo, scouting, treatments } = endpoints
const SEASON = '2026-01-01'

/** Ten hours of rain on 20 April, eight on 3 June; otherwise dry leaves. Irrigation is what waters the soil. */
const rainy = (at: Date): { rain?: number } => {
  const date = at.toISOString().slice(5, 10)
  if (at.getUTCFullYear() !== 2026) return {}
  if (date === '04-20' && at.getUTCHours() >= 8 && at.getUTCHours() < 18) return { rain: 1.5 }
  return date === '06-03' && at.getUTCHours() >= 10 && at.getUTCHours() < 18 ? { rain: 2 } : {}
}

let app: Application
let place: TestSite
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  const file = hourlyFile(2020, '2026-06-12', rainy)
  await importFile(app, place, file, (await preview(app, place, file.slice(0, 200_000))).body.mapping)
})
afterAll(() => app.stop())

const at = () => ({ siteId: place.site.id })
const as = () => ({ person: place.person })
const addBlock = async (name: string): Promise<string> =>
  done(await app.call(blocks.create, at(), { name, kind: 'field', soilTexture: 'loam' }, as())).id
const watch = async (organismId: string, blockId: string, more: Partial<InputOf<typeof watches.create>> = {}) =>
  done(await app.call(watches.create, at(), { organismId, blockId, season: SEASON, ...more }, as()))
const forecastOf = async (watchId: string): Promise<WatchForecast> =>
  done(await app.call(watches.band, at(), { season: SEASON })).watches.find((f) => f.watch.id === watchId)!
const moveClock = async (now: string) => done(await app.call(demo.setClock, {}, { now }, { person: place.person }))
const index = (date: string): number => dayNumber(date) - dayNumber(SEASON)

test.each(organisms.map((o) => [o.name, o] as const))('the computation takes the model of %s', (_, organism) => {
  const model = modelOf(organism)
  const events = resolveEvents(model)
  for (const { id } of model.generations) {
    const medians = events.filter(({ generation }) => generation === id).map(({ spread }) => spread.median)
    expect(medians, id).toEqual([...medians].sort((a, b) => a - b))
  }
  const { infection } = model
  if (infection?.model.kind === 'severity-table') expect(severityValue(infection.model.table, 20, 24)).toBeGreaterThan(2)
})

describe('a biofix', () => {
  let id: string
  test('that nobody entered is expected, with bounds, and says so', async () => {
    id = (await watch('codling-moth', await addBlock('Expected'))).id
    const forecast = await forecastOf(id)
    expect(forecast.biofix).toMatchObject({ how: 'expected', kind: 'sustained-catch', date: null })
    const { p10, p50, p90 } = forecast.biofix.expected!
    expect(p10! < p50! && p50! < p90!).toBe(true)
    expect(forecast.heat.biofixIndex).toBe(0)
    expect(forecast.grade).toBe('dates')
  })

  test('that is entered takes its place, and narrows the dates', async () => {
    const before = await forecastOf(id)
    const biofix = civilDate(dayNumber(SEASON) + Math.floor(before.biofix.expected!.p50!))
    done(await app.call(watches.update, { ...at(), watchId: id }, { ...before.watch, biofix }, as()))
    const after = await forecastOf(id)
    expect(after.biofix).toMatchObject({ how: 'entered', date: biofix, expected: null })
    const width = (f: WatchForecast) => f.events[2]!.dates.half.p90! - f.events[2]!.dates.half.p10!
    expect(width(after)).toBeLessThan(width(before))
    expect(Math.abs(after.events[2]!.dates.half.p50! - before.events[2]!.dates.half.p50!)).toBeLessThan(4)
  })

  test('by the calendar needs nobody, and one that rests on a guess gives months only', async () => {
    const calendar = await forecastOf((await watch('onion-maggot', await addBlock('Calendar'))).id)
    expect(calendar.biofix).toMatchObject({ how: 'calendar', date: '2026-01-01' })
    expect(calendar.grade).toBe('dates')
    const thrips = await watch('onion-thrips', await addBlock('Guessed'))
    expect((await forecastOf(thrips.id)).grade).toBe('months')
    done(await app.call(watches.update, { ...at(), watchId: thrips.id }, { ...thrips, biofix: '2026-05-20' }, as()))
    expect((await forecastOf(thrips.id)).grade).toBe('dates')
  })

  test('of what germinates in autumn lies before the season and counts into it', async () => {
    const forecast = await forecastOf((await watch('chickweed', await addBlock('Autumn'))).id)
    expect(forecast.biofix).toMatchObject({ how: 'calendar', date: '2025-09-15' })
    expect(forecast.heat.biofixIndex).toBe(-108)
    expect(forecast.heat.median[0]).toBeGreaterThan(300)
    expect(forecast.emergence!.p50[0]).toBeGreaterThan(0.5)
  })
})

describe('generations', () => {
  test('shrink by diapause as days shorten, and an event has dates for its begin and its middle', async () => {
    const forecast = await forecastOf((await watch('oriental-fruit-moth', await addBlock('Peaches'), { biofix: '2026-04-10' })).id)
    const [first, second, third] = forecast.generations.map(({ share }) => share)
    expect(first).toBe(1)
    expect(second).toBeGreaterThan(0.95)
    expect(third).toBeLessThan(second!)
    for (const { dates, generation } of forecast.events) if (generation === 'first') expect(dates.begins.p50!).toBeLessThan(dates.half.p50!)
    expect(forecast.events.find(({ generation }) => generation === 'third')!.weight).toBe(third)
  })
})

describe('infection', () => {
  let id: string
  test('comes on the day whose rain was long enough, and says until when it can be cured and when it shows', async () => {
    id = (await watch('apple-scab', await addBlock('Scabby'), { biofix: '2026-04-01', sourceKnown: 'yes' })).id
    await moveClock('2026-04-22T14:30:00Z')
    const { infection, watch: stored, heat } = await forecastOf(id)
    expect(stored.sourceKnown).toBe('yes')
    expect(infection!.days.map(({ day }) => day)).toEqual([index('2026-04-20')])
    const [day] = infection!.days
    expect(day).toMatchObject({ probability: 1, certain: true, curativeUntil: index('2026-04-23') })
    // Ten wet hours at the warm of the day against those that the table asks for.
    expect(day!.severity).toBeCloseTo(10 / scabWetHours(15.5), 0)
    expect(infection!.state).toBe('cure')
    expect(infection!.from).toBe(index('2026-04-01'))
    // 200 °C·d above 0 °C later, day by day.
    const shown = heat.median.findIndex((h) => h >= heat.median[day!.day]! + 200)
    expect(Math.abs(day!.symptoms.p50! - shown)).toBeLessThan(1.5)
    expect(day!.symptoms.p10!).toBeLessThan(day!.symptoms.p90!)
    // Past seasons were dry, and that is known.
    expect(infection!.usual!.byNow).toEqual({ p10: 0, p50: 0, p90: 0 })
  })

  test('is quiet when no longer curable, and over when its heat has come', async () => {
    await moveClock('2026-04-26T14:30:00Z')
    expect((await forecastOf(id)).infection!.state).toBe('quiet')
    await moveClock('2026-06-12T14:30:00Z')
    const { infection, heat } = await forecastOf(id)
    expect(infection!.state).toBe('over')
    expect(heat.median[infection!.until!]).toBeGreaterThan(600)
    expect(infection!.days).toHaveLength(1)
  })

  test('of vine downy mildew needs ten millimetres in the warm; the deposit of a spray is washed off by it', async () => {
    const vines = await watch('vine-downy-mildew', await addBlock('Vines'), { biofix: '2026-05-01' })
    const { infection } = await forecastOf(vines.id)
    expect(infection!.days.map(({ day }) => day)).toEqual([index('2026-06-03'), index('2026-06-04')])
    const product = done(
      await app.call(
        treatments.addProduct,
        at(),
        {
          name: 'Terrace copper',
          methods: ['copper', 'sulphur', 'single-site-fungicide'],
          stages: ['spore'],
          effect: 0.8,
          residualDays: 10,
          labelRate: 1,
          rateUnit: 'kg/ha',
          reEntryHours: 24,
          preHarvestDays: 21,
          bees: 'none-stated',
          protection: 'gloves, respirator',
        },
        as(),
      ),
    )
    const plan = done(
      await app.call(treatments.plan, at(), { watchId: vines.id, productId: product.id, plannedOn: '2026-06-02', note: '' }, as()),
    )
    done(
      await app.call(
        treatments.record,
        { ...at(), treatmentId: plan.id },
        { startedAt: '2026-06-02T13:00:00Z', rate: 1, areaHa: 2, weather: {}, note: '', rowVersion: plan.rowVersion },
        as(),
      ),
    )
    // 16 mm since: 2^(−16/25).
    const after = await forecastOf(vines.id)
    expect(after.treatments[0]!.depositLeft).toBeCloseTo(2 ** (-16 / 25), 2)
    // What was put on moves the day on which it is due again; it is taken up by the leaf, so that the label's ten days hold.
    expect(infection!.followUp).toBeNull()
    expect(after.infection!.followUp).toMatchObject({ since: index('2026-06-02') })
    expect(after.infection!.followUp!.due.p50! - index('2026-06-02')).toBeGreaterThan(7)
    expect(after.infection!.followUp!.due.p50! - index('2026-06-02')).toBeLessThanOrEqual(10)
  })

  test('is not over where a round has found spots of this season', async () => {
    const scab = await watch('apple-scab', await addBlock('Spotted apples'), { biofix: '2026-04-01' })
    expect((await forecastOf(scab.id)).infection!.state).toBe('over')
    const spot = organisms.find(({ id: organism }) => organism === 'apple-scab')!.sampling.classes[0]!.id
    const round = { watchId: scab.id, countedOn: '2026-06-02', units: [{ [spot]: 3 }], note: '' }
    done(await app.call(scouting.create, at(), round, as()))
    const { state, until, primaryUntil } = (await forecastOf(scab.id)).infection!
    expect(state).not.toBe('over')
    expect([until, primaryUntil! < index('2026-06-12')]).toEqual([null, true])
  })

  test('by hail asks for an answer within a day', async () => {
    const pears = await addBlock('Hailed pears')
    const { id: blight } = await watch('fire-blight', pears, { biofix: '2026-04-20' })
    expect((await forecastOf(blight)).infection!.state).toBe('over')
    const hail = { kind: 'hail' as const, startedAt: '2026-06-12T02:00:00Z', endedAt: '2026-06-12T02:30:00Z', note: '' }
    done(await app.call(blocks.addWetEvent, { ...at(), blockId: pears }, hail, as()))
    expect((await forecastOf(blight)).infection).toMatchObject({ state: 'cure', days: [{ origin: 'hail', day: index('2026-06-11') }] })
  })

  test('under a cover without a logger lies between two bounds', async () => {
    const glass = done(await app.call(blocks.create, at(), { name: 'Glass Two', kind: 'tunnel', offsetMin: 2, offsetMax: 4 }, as()))
    const { infection } = await forecastOf((await watch('grey-mould', glass.id, { biofix: '2026-05-01' })).id)
    expect(infection!.estimated!.damper).toBeGreaterThanOrEqual(infection!.estimated!.drier)
    expect(infection!.unknownShare).toBeLessThan(0.05)
  })

  test('where last year’s disease was heavy is said of a watch, and kept', async () => {
    const heavy = await watch('apple-scab', await addBlock('Heavy scab'), { biofix: '2026-04-01', sourceKnown: 'heavy' })
    expect((await forecastOf(heavy.id)).watch.sourceKnown).toBe('heavy')
  })
})

test('seedlings wait for water: after a watering they come, without it they do not', async () => {
  const dry = await addBlock('Dry corn')
  const wet = await addBlock('Watered corn')
  for (const day of ['2026-05-05', '2026-05-09', '2026-05-13', '2026-05-17', '2026-05-21', '2026-05-25', '2026-05-29'])
    done(
      await app.call(
        blocks.addWetEvent,
        { ...at(), blockId: wet },
        { kind: 'overhead-watering', startedAt: `${day}T12:00:00Z`, endedAt: `${day}T15:00:00Z`, waterMm: 25, note: '' },
        as(),
      ),
    )
  const up = async (blockId: string) =>
    (await forecastOf((await watch('lambsquarters', blockId, { biofix: '2026-05-04' })).id)).emergence!.p50[index('2026-06-10')]!
  const [without, watered] = [await up(dry), await up(wet)]
  expect(watered).toBeGreaterThan(0.5)
  expect(without).toBeLessThan(watered / 2)
})

describe('beyond heat', () => {
  test('months are moved to where this place has them, and a frost ends the season of what it kills', async () => {
    const { usual, end, grade } = await forecastOf((await watch('japanese-knotweed', await addBlock('Knotweed bank'))).id)
    expect(grade).toBe('months')
    expect(usual[0]!.movedDays).not.toBeNull()
    expect(end!.by).toBe('frost')
    expect(end!.date.p10!).toBeLessThanOrEqual(end!.date.p50!)
    expect(end!.draws.length % 12).toBe(0)
  })

  test('one event is dated by a published sum of heat, though its windows stay by months', async () => {
    const forecast = await forecastOf((await watch('japanese-beetle', await addBlock('Beetle row'))).id)
    expect([forecast.grade, forecast.windows]).toEqual(['months', []])
    const { clock } = forecast.named.find(({ id }) => id === 'first-adult')!
    expect(clock).toMatchObject({ by: 'published', source: 'Herms 2004', seasons: 0 })
    expect(clock!.date.p50!).toBeGreaterThan(index('2026-06-01'))
    expect(clock!.date.p10!).toBeLessThan(clock!.date.p90!)
  })

  test('a sum that counts from something seen waits for it', async () => {
    const { id } = await watch('colorado-potato-beetle', await addBlock('Potato rows'))
    const clockOf = async () => (await forecastOf(id)).named.find((event) => event.id === 'first-young-larva')!.clock
    expect(await clockOf()).toBeNull()
    const sighting = { event: 'first-egg', kind: 'first' as const, seenOn: '2026-06-01', lookedBefore: null, note: '' }
    done(await app.call(endpoints.calibration.addSighting, { ...at(), watchId: id }, sighting, as()))
    expect((await clockOf())!.date.p50!).toBeGreaterThan(index('2026-06-01'))
  })

  test('a winter says whether tubers lived through it', async () => {
    const { winter } = await forecastOf((await watch('potato-late-blight', await addBlock('Potato field'))).id)
    expect(winter).toMatchObject([{ medium: 'soil', killedBelow: -2, read: false }])
    expect(winter[0]!.verdict === 'killed').toBe(winter[0]!.lowest <= -3.5)
  })
})

describe("a site's own number", () => {
  let id: string
  const figures = async () => done(await app.call(watches.figures, { ...at(), watchId: id }, {}))
  const set = (path: string, value: number, reason = 'three seasons of trap counts in this row') =>
    app.call(watches.ownFigure, { ...at(), organismId: 'grape-berry-moth' }, { path, value, reason }, as())

  test('is offered to a watch, changes nothing until it is taken, and then its forecast', async () => {
    id = (await watch('grape-berry-moth', await addBlock('Grapes'), { biofix: '2026-06-01' })).id
    const before = await forecastOf(id)
    expect(before).toMatchObject({ offer: null, ownFigures: 0 })
    const listed = done(await set('eggs.heat', 95))
    expect(listed.find(({ path }) => path === 'eggs.heat')).toMatchObject({
      value: 95,
      region: 'this site',
      own: { libraryValue: 45, reason: 'three seasons of trap counts in this row' },
    })
    const offered = await forecastOf(id)
    expect(offered.offer).toEqual({ model: before.watch.model, ownFigures: 1 })
    expect(offered.windows).toEqual(before.windows)
    expect((await figures()).find(({ path }) => path === 'eggs.heat')!.value).toBe(45)
    done(await app.call(watches.takeModel, { ...at(), watchId: id }, { rowVersion: offered.watch.rowVersion }, as()))
    const taken = await forecastOf(id)
    expect(taken).toMatchObject({ offer: null, ownFigures: 1 })
    expect(taken.windows[0]!.opens.p50!).toBeGreaterThan(before.windows[0]!.opens.p50!)
    expect((await figures()).find(({ path }) => path === 'eggs.heat')!.value).toBe(95)
  })

  test('that makes no model is refused at its field and changes nothing', async () => {
    const refusal = async (path: string, value: number) => (await set(path, value)).problem.fields?.[0]
    expect(await refusal('eggs.wings', 1)).toEqual({ path: 'path', message: 'eggs.wings is no number of this organism' })
    expect((await refusal('eggs.heatSe', 0))!.message).toContain('must be above 0')
    expect((await refusal('hatch.atShare', 1.2))!.message).toContain('between 0 and 1')
    expect((await set('eggs.heat', 95, '')).problem.fields?.[0]?.path).toBe('reason')
    expect((await forecastOf(id)).offer).toBeNull()
  })

  test('for one block lies over the site’s, and other blocks are not touched', async () => {
    const block = await addBlock('Early grapes')
    const there = (await watch('grape-berry-moth', block, { biofix: '2026-06-01' })).id
    expect((await forecastOf(there)).ownFigures).toBe(1)
    const inBlock = { path: 'eggs.heat', blockId: block, value: 60, reason: 'a warm wall' }
    done(await app.call(watches.ownFigure, { ...at(), organismId: 'grape-berry-moth' }, inBlock, as()))
    expect((await forecastOf(id)).offer).toBeNull()
    const offered = await forecastOf(there)
    expect(offered.offer).toMatchObject({ ownFigures: 1 })
    done(await app.call(watches.takeModel, { ...at(), watchId: there }, { rowVersion: offered.watch.rowVersion }, as()))
    const own = async (watchId: string) =>
      done(await app.call(watches.figures, { ...at(), watchId }, {})).find(({ path }) => path === 'eggs.heat')!
    expect(await own(there)).toMatchObject({ value: 60, own: { libraryValue: 45, blockId: block } })
    expect(await own(id)).toMatchObject({ value: 95, own: { blockId: null } })
    done(await app.call(watches.dropOwnFigure, { ...at(), organismId: 'grape-berry-moth' }, { path: 'eggs.heat', blockId: block }, as()))
    expect((await forecastOf(there)).offer).toMatchObject({ ownFigures: 1 })
  })

  test('goes when it is dropped, and the library is offered again', async () => {
    done(await app.call(watches.dropOwnFigure, { ...at(), organismId: 'grape-berry-moth' }, { path: 'eggs.heat' }, as()))
    expect((await forecastOf(id)).offer).toMatchObject({ ownFigures: 0 })
    const [[row]] = await app.database.query<Row[]>("SELECT COUNT(*) AS n FROM audit WHERE entity = 'own_figure'")
    expect(row!['n']).toBe(4)
  })

  test('goes in together with others that are right only with it, or none of them does', async () => {
    const params = { ...at(), organismId: 'codling-moth' }
    const both = (lower: number, upper: number) => [
      { path: 'heat.lower', value: lower },
      { path: 'heat.upper', value: upper },
    ]
    const together = (set: ReturnType<typeof both>) =>
      app.call(watches.ownFigures, params, { figures: set, reason: 'a hot hollow, two seasons' }, as())
    const single = await app.call(watches.ownFigure, params, { path: 'heat.lower', value: 32, reason: 'a hot hollow' }, as())
    expect(single.status).toBe(422)
    const kept = done(await together(both(32, 36)))
    expect(kept.filter(({ own }) => own !== null).map(({ path, value }) => [path, value])).toEqual([
      ['heat.lower', 32],
      ['heat.upper', 36],
    ])
    const refused = await together([...both(20, 30), { path: 'eggs.wings', value: 1 }])
    expect(refused.problem.fields?.[0]).toEqual({ path: 'path', message: 'eggs.wings is no number of this organism' })
    expect((await together(both(30, 20))).problem.detail).toContain('leaves no range between the thresholds')
    const [rows] = await app.database.query<Row[]>(
      "SELECT path, value FROM own_figure WHERE organism_id = 'codling-moth' AND deleted_at IS NULL ORDER BY path",
    )
    expect(rows.map((row): [unknown, unknown] => [row['path'], row['value']])).toEqual([
      ['heat.lower', 32],
      ['heat.upper', 36],
    ])
    // The upper one cannot go first: the library's lies below the lower one of this site.
    expect((await app.call(watches.dropOwnFigure, params, { path: 'heat.upper' }, as())).problem.detail).toContain('leaves no range')
    // Nor where only a block counts with the lower one.
    const block = await addBlock('Hot hollow')
    done(await app.call(watches.dropOwnFigure, params, { path: 'heat.lower' }, as()))
    const inBlock = { path: 'heat.lower', value: 32, reason: 'a hot hollow', blockId: block }
    done(await app.call(watches.ownFigure, params, inBlock, as()))
    expect((await app.call(watches.dropOwnFigure, params, { path: 'heat.upper' }, as())).problem.detail).toContain('leaves no range')
    done(await app.call(watches.dropOwnFigure, params, { path: 'heat.lower', blockId: block }, as()))
    done(await app.call(watches.dropOwnFigure, params, { path: 'heat.upper' }, as()))
  })
})

describe('forecasts that were issued', () => {
  let id: string
  let serving: ReturnType<typeof servingOver>
  beforeAll(() => {
    serving = servingOver(app)
  })
  const moves = async (since?: string) => done(await app.call(watches.moves, { ...at(), watchId: id }, since ? { since } : {}))

  test('are kept day by day, once for what they say, and never changed', async () => {
    await moveClock('2026-06-05T14:30:00Z')
    id = (await watch('codling-moth', await addBlock('Moving'), { biofix: '2026-05-10' })).id
    const first = await forecastOf(id)
    await issueForecasts(serving, place.site.id)
    await issueForecasts(servingOver(app), place.site.id)
    await moveClock('2026-06-12T14:30:00Z')
    await issueForecasts(serving, place.site.id)
    const { issued } = await moves()
    expect(issued.map(({ today }) => today)).toEqual(['2026-06-12', '2026-06-05'])
    expect(issued[1]!.windows[0]!.opens).toEqual(first.windows[0]!.opens)
    expect(issued[1]).toMatchObject({ biofix: '2026-05-10', model: first.watch.model })
    const [[row]] = await app.database.query<Row[]>('SELECT events FROM issued_forecast WHERE id = ?', [issued[1]!.id])
    const events = jsonOf<{ id: string }[]>(row!['events'])
    expect(events).toEqual(first.events.map(({ id: event, dates }) => ({ id: event, ...dates })))
  })

  test('one that was put right and came back on the same day is the newest again', async () => {
    const newest = async () => (await moves()).issued[0]!.biofix
    for (const biofix of ['2026-05-20', '2026-05-10', '2026-05-20', '2026-05-10']) {
      const { watch: stored } = await forecastOf(id)
      done(await app.call(watches.update, { ...at(), watchId: id }, { ...stored, biofix }, as()))
      await issueForecasts(serving, place.site.id)
      expect(await newest()).toBe(biofix)
    }
  })

  test('are kept of diseases too, with their days of infection', async () => {
    const [[row]] = await app.database.query<Row[]>(
      `SELECT f.infection FROM issued_forecast f JOIN watch w ON w.id = f.watch_id WHERE w.organism_id = 'vine-downy-mildew' LIMIT 1`,
    )
    const { days } = jsonOf<{ days: { day: number }[] }>(row!['infection'])
    expect(days.map(({ day }) => day)).toContain(index('2026-06-03'))
  })

  const total = (steps: readonly { days: number }[]): number => steps.reduce((sum, { days }) => sum + days, 0)

  test('differ by weather that came, and by nothing else where nothing else changed', async () => {
    const { since } = await moves()
    const [window] = since!.windows
    expect(total(window!.steps)).toBeCloseTo(window!.now! - window!.before!, 6)
    const days = Object.fromEntries(window!.steps.map(({ cause, days: d }) => [cause, d]))
    expect(days).toMatchObject({ readings: 0, forecast: 0, biofix: 0, model: 0 })
  })

  test('are what a row is held against: it says by how many days its window moved since last week', async () => {
    const { watch: stored, moved: stayed } = await forecastOf(id)
    expect(stayed).toBeNull()
    const late = done(await app.call(watches.update, { ...at(), watchId: id }, { ...stored, biofix: '2026-05-26' }, as()))
    const { moved } = await forecastOf(id)
    expect(moved).toMatchObject({ since: '2026-06-05' })
    expect(moved!.days).toBeGreaterThanOrEqual(2)
    done(await app.call(watches.update, { ...at(), watchId: id }, { ...late, biofix: '2026-05-10' }, as()))
  })

  test('differ by a biofix that was put right and by a model that was taken, each with its days', async () => {
    const { watch: stored } = await forecastOf(id)
    const changed = done(await app.call(watches.update, { ...at(), watchId: id }, { ...stored, biofix: '2026-05-14' }, as()))
    done(
      await app.call(
        watches.ownFigure,
        { ...at(), organismId: 'codling-moth' },
        { path: 'hatch-2.heat', value: 140, reason: 'late broods here' },
        as(),
      ),
    )
    done(await app.call(watches.takeModel, { ...at(), watchId: id }, { rowVersion: changed.rowVersion }, as()))
    const { issued, since } = await moves((await moves()).issued.at(-1)!.id)
    expect(issued).toHaveLength(2)
    const [first, second] = since!.windows
    expect(first!.steps.find(({ cause }) => cause === 'biofix')!.days).toBeGreaterThan(0)
    expect(second!.steps.find(({ cause }) => cause === 'model')!.days).toBeGreaterThan(0)
    for (const window of since!.windows) expect(total(window.steps)).toBeCloseTo(window.now! - window.before!, 6)
  })

  test('of past seasons are read from their own weather', async () => {
    const past = done(await app.call(watches.pastSeasons, { ...at(), watchId: id }, {}))
    expect(past.map(({ season }) => season)).toEqual(['2025-01-01', '2024-01-01', '2023-01-01', '2022-01-01', '2021-01-01', '2020-01-01'])
    for (const { cumulative } of past) {
      expect(cumulative[130]).toBe(0)
      expect(cumulative[300]).toBeGreaterThan(500)
    }
  })
})

test('blooms come by heat in their order, the apple after its chill', async () => {
  const { blooms } = done(await app.call(watches.band, at(), { season: SEASON }))
  const first = (plant: string) => blooms.find((b) => b.plant === plant && b.event === 'first-open')!.date.p50!
  expect(first('forsythia') < first('common-lilac') && first('common-lilac') < first('linden')).toBe(true)
  expect(first('apple')).toBeGreaterThan(40)
  // What blooms last of all does so in warm seasons only.
  expect(blooms.every(({ date }) => date.p90 === null || date.p10! <= date.p90)).toBe(true)
})

test('in the southern hemisphere a season starts in July, and its calendar with it', async () => {
  const south = await startSite(app, 'South Bench')
  const { sites } = endpoints
  const { rowVersion: _, ...about } = south.site
  done(
    await app.call(
      sites.update,
      { siteId: south.site.id },
      { ...about, latitude: -38, longitude: 145, rowVersion: south.site.rowVersion },
      { person: south.person },
    ),
  )
  // The northern file half a year later: its January is July here.
  const file = hourlyFile(2019, '2026-12-13')
    .split('\n')
    .map((line, i) =>
      i === 0
        ? line
        : `${new Date(Date.parse(`${line.slice(0, 10)}T00:00:00Z`) - 184 * 86_400_000).toISOString().slice(0, 10)}${line.slice(10)}`,
    )
    .join('\n')
  await importFile(app, south, file, (await preview(app, south, file.slice(0, 200_000))).body.mapping)
  const fly = done(
    await app.call(
      watches.create,
      { siteId: south.site.id },
      { organismId: 'cherry-fruit-fly', blockId: south.blockId, season: '2025-07-01' },
      { person: south.person },
    ),
  )
  const band = done(await app.call(watches.band, { siteId: south.site.id }, { season: '2025-07-01' }))
  const forecast = band.watches.find((f) => f.watch.id === fly.id)!
  expect(band.season).toMatchObject({ days: 365, todayIndex: 346 })
  expect(forecast.biofix).toMatchObject({ how: 'calendar', date: '2025-09-01' })
  const begins = civilDate(dayNumber('2025-07-01') + Math.floor(forecast.events[0]!.dates.half.p50!))
  expect(begins >= '2025-11-01' && begins <= '2026-01-31', begins).toBe(true)
  expect(forecast.usual.flatMap(({ months }) => months)).toEqual([11, 12])
})

describe('several watches at once', () => {
  const at = () => ({ siteId: place.site.id })
  const several = (organismIds: string[]) =>
    app.call(watches.createSeveral, at(), { organismIds, blockId: place.blockId, season: SEASON }, { person: place.person })
  const names = async () => done(await app.call(watches.list, at(), { season: SEASON })).map(({ organismId }) => organismId)

  test('are all made, or none where one is watched already or is none', async () => {
    const before = await names()
    const fresh = ['onion-maggot', 'fungus-gnats', 'pear-psylla'].filter((id) => !before.includes(id))
    expect(done(await several(fresh)).map(({ organismId }) => organismId)).toEqual(fresh)
    const { problem } = await several(['peach-twig-borer', 'fungus-gnats'])
    expect(problem.fields).toEqual([{ path: 'organismIds.1', message: 'Fungus gnats: this block is watched for it already' }])
    expect((await several(['peach-twig-borer', 'unicorn'])).status).toBe(422)
    expect((await several(['peach-twig-borer', 'peach-twig-borer'])).problem.fields?.[0]?.message).toBe('each once')
    expect((await names()).sort()).toEqual([...before, ...fresh].sort())
    const organisms = done(await app.call(watches.organisms, at(), {}))
    const gives = (id: string) => organisms.find((organism) => organism.id === id)?.gives
    expect([gives('codling-moth'), gives('scotch-broom'), gives('apple-scab'), gives('lambsquarters')]).toEqual([
      'dates',
      'months',
      'infections',
      'emergence',
    ])
  })
})
