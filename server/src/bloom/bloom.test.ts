import { endpoints, type InputOf } from '@bocado/contract'
import { civilDate, dayNumber } from '@bocado/core'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { servingOver, startApplication, type Application } from '../testing/application.js'
import { done, GRANULE, startSite, type TestSite } from '../testing/farm.js'
import { hourlyFile, importFile, preview } from '../testing/upload.js'
import { issueForecasts } from '../worker/issueForecasts.js'
import { readNotebook } from './notebook.js'

const { bloom, watches, library, calibration } = endpoints
const SEASON = '2026-01-01'

describe('a notebook', () => {
  const read = (text: string) => readNotebook(text, '2026-06-12')
  test.each([
    [
      '2025-05-03 common lilac full bloom',
      { plantId: 'common-lilac', event: 'full-bloom', seenFrom: '2025-05-03', seenTo: '2025-05-03', notYet: false },
    ],
    ['3 May 2025: lilac, first flower', { plantId: 'common-lilac', event: 'first-open', seenFrom: '2025-05-03' }],
    ['May 3, 2025 forsythia over', { plantId: 'forsythia', event: 'end' }],
    [
      '2025-05-03/2025-05-06, Black locust, first open, by the gate, windy',
      { plantId: 'black-locust', event: 'first-open', seenTo: '2025-05-06', place: 'by the gate', note: 'windy' },
    ],
    ['2026-06-01 catalpa not yet', { plantId: 'catalpa', event: 'first-open', notYet: true }],
    ['2024-10-12 red maple leaf colour', { plantId: 'red-maple', event: 'leaf-colour' }],
    ['12 Apr 2024 serviceberry blooming', { plantId: 'serviceberry', event: 'first-open' }],
  ])('understands "%s"', (text, expected) => {
    expect(read(text)[0]).toMatchObject({ ...expected, problem: null })
  })

  test.each([
    ['lilac in bloom', /names no day/],
    ['2026-07-01 lilac full bloom', /future/],
    ['2025-02-30 lilac full bloom', /names no day/],
    ['2025-05-03 walrus open', /no bloom plant/],
    ['2025-05-03 lilac', /what was seen/],
    ['2025-05-06 to 2025-05-03 lilac open', /ends before/],
  ])('says what is wrong with "%s"', (text, problem) => expect(read(text)[0]!.problem).toMatch(problem))

  test('as people keep it: days in any form, behind the plant, under a year or a day; nine of ten lines are read', () => {
    const page = [
      '5/3/2025 lilac first open',
      '5/17/2025 lilac full bloom',
      '04.05.2024 black locust opening',
      'may 1st 2023 serviceberry blooming',
      'Catalpa full bloom June 14, 2025',
      'apple king bloom open — 3 May 2024',
      'elderberry; full bloom; 12 June 2025; by the gate',
      '2022',
      '6/1 black locust full bloom',
      'May 3: lilac in bloom',
      '12. May apple petals falling',
      'May 8, 2021',
      'forsythia done',
      'serviceberry: not yet',
      'Redbud 3-6 May 2020 first flowers',
      'walked the lane, all quiet',
    ].join('\n')
    const lines = read(page)
    const told = lines.map(({ plantId, event, seenFrom, seenTo, problem }) =>
      problem === null ? `${seenFrom}${seenTo === seenFrom ? '' : `/${seenTo}`} ${plantId} ${event}` : '?',
    )
    expect(told).toEqual([
      '2025-05-03 common-lilac first-open',
      '2025-05-17 common-lilac full-bloom',
      '2024-05-04 black-locust first-open',
      '2023-05-01 serviceberry first-open',
      '2025-06-14 catalpa full-bloom',
      '2024-05-03 apple first-open',
      '2025-06-12 elderberry full-bloom',
      '2022-06-01 black-locust full-bloom',
      '2022-05-03 common-lilac first-open',
      '2022-05-12 apple end',
      '2021-05-08 forsythia end',
      '2021-05-08 serviceberry first-open',
      '2020-05-03/2020-05-06 redbud first-open',
      '?',
    ])
    expect(lines[6]).toMatchObject({ place: 'by the gate' })
    expect(lines.map(({ line }) => line)).toEqual([1, 2, 3, 4, 5, 6, 7, 9, 10, 11, 13, 14, 15, 16])
  })

  test('whose dates may have day or month first asks once, and takes the answer', () => {
    const text = '5/3/2025 lilac open\n6/4/2025 catalpa open'
    expect(read(text).map(({ seenFrom, orElse, problem }) => [seenFrom, orElse, problem?.includes('choose what comes first')])).toEqual([
      ['2025-03-05', '2025-05-03', true],
      ['2025-04-06', '2025-06-04', true],
    ])
    const asked = readNotebook(text, '2026-06-12', [], 'mdy')
    expect(asked.map(({ seenFrom, orElse, problem }) => [seenFrom, orElse, problem])).toEqual([
      ['2025-05-03', null, null],
      ['2025-06-04', null, null],
    ])
  })

  test('leaves out its header and blank lines, and keeps the numbers of lines', () => {
    expect(read('date,plant,event\n\n2025-05-03,forsythia,end').map(({ line }) => line)).toEqual([3])
  })
})

let app: Application
let place: TestSite
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  const file = hourlyFile(2017, '2026-06-12')
  await importFile(app, place, file, (await preview(app, place, file.slice(0, 200_000))).body.mapping)
})
afterAll(() => app.stop())

const at = () => ({ siteId: place.site.id })
const as = () => ({ person: place.person })
const add = (input: InputOf<typeof bloom.add>) => app.call(bloom.add, at(), input, as())
const overview = async () => done(await app.call(bloom.overview, at(), {}))
const records = async () => done(await app.call(bloom.records, at(), {}))
const watchOf = async (id: string) =>
  done(await app.call(watches.band, at(), { season: SEASON })).watches.find(({ watch }) => watch.id === id)!

describe('the log', () => {
  test('takes a notebook whole or not at all, and the same notebook only once', async () => {
    const lines = [2018, 2019, 2020, 2021, 2022, 2023, 2024, 2025].flatMap((y) => [
      `${y}-04-10 forsythia first open`,
      `${y}-05-06 common lilac first open`,
    ])
    const text = [...lines, '2025-05-30 walrus open'].join('\n')
    const shown = done(await app.call(bloom.preview, at(), { text }, as()))
    expect(shown.filter(({ problem }) => problem !== null).map(({ line }) => line)).toEqual([17])
    const refused = await app.call(bloom.import, at(), { text }, as())
    expect(refused.status).toBe(422)
    expect(refused.problem.fields![0]).toMatchObject({ path: 'text.17', message: expect.stringContaining('no bloom plant') as string })
    expect(await records()).toEqual([])
    expect(done(await app.call(bloom.import, at(), { text, skipWrong: true }, as()))).toEqual({ added: 16, known: 0, skipped: 1 })
    expect(done(await app.call(bloom.import, at(), { text: lines.join('\n') }, as()))).toEqual({ added: 0, known: 16, skipped: 0 })
  })

  test('goes out as CSV in a form that it takes in again, and as Darwin Core', async () => {
    const csv = await (await app.get(`sites/${place.site.id}/bloom.csv`)).text()
    expect(done(await app.call(bloom.import, at(), { text: csv }, as()))).toEqual({ added: 0, known: 16, skipped: 0 })
    const dwc = await (await app.get(`sites/${place.site.id}/bloom-occurrences.csv`)).text()
    expect(dwc.split(/\r?\n/)[0]).toContain('scientificName,eventDate')
    expect(dwc).toContain('Syringa vulgaris,2025-05-06')
  })

  test.each([
    ['a plant that the library has not', { plantId: 'walrus' }, 'plantId'],
    ['a day to come', { seenFrom: '2026-06-20' }, 'seenFrom'],
    ['a range that ends before it begins', { seenFrom: '2026-05-06', seenTo: '2026-05-01' }, 'seenTo'],
  ])('refuses %s', async (_, wrong, path) => {
    const { status, problem } = await add({ plantId: 'forsythia', event: 'end', seenFrom: '2026-04-20', ...wrong })
    expect(status).toBe(422)
    expect(problem.fields![0]!.path).toBe(path)
  })

  test('removed is out of it, undone in it again; twice the same is refused', async () => {
    const kept = done(await add({ plantId: 'linden', event: 'bud', seenFrom: '2026-05-30' }))
    expect((await add({ plantId: 'linden', event: 'bud', seenFrom: '2026-05-30' })).problem.detail).toContain('in the log already')
    const params = { ...at(), recordId: kept.id }
    const { rowVersion } = done(await app.call(bloom.remove, params, { rowVersion: 1 }, as()))
    expect((await records()).some(({ id }) => id === kept.id)).toBe(false)
    done(await app.call(bloom.restore, params, { rowVersion }, as()))
    expect((await records()).some(({ id }) => id === kept.id)).toBe(true)
  })
})

describe('bloom as evidence', () => {
  let followed: string
  let seen: string
  beforeAll(async () => {
    const watch = async (organismId: string, biofix: string | null) =>
      done(await app.call(watches.create, at(), { organismId, blockId: place.blockId, season: SEASON, biofix }, as())).id
    followed = await watch('peach-twig-borer', null)
    seen = await watch('codling-moth', '2026-05-10')
  })

  test('blooms ahead of their usual heat move the watches that count from the season, each by its days, and not those whose biofix was seen', async () => {
    const [before, other] = [await watchOf(followed), await watchOf(seen)]
    expect(before.bloom).toBeNull()
    // Nine days before their usual day: at less heat than in other years.
    done(await add({ plantId: 'forsythia', event: 'first-open', seenFrom: '2026-04-01' }))
    done(await add({ plantId: 'common-lilac', event: 'first-open', seenFrom: '2026-04-27' }))
    const [station] = (await overview()).stations
    expect(station!.shift).toMatchObject({ blooms: 2, priorOwn: true })
    expect(station!.shift!.heat).toBeLessThan(-3)
    expect(station!.used.map(({ ownYears }) => ownYears)).toEqual([8, 8])
    const after = await watchOf(followed)
    expect(after.bloom!.heat).toBeLessThan(0)
    const half = (f: typeof after): number => f.events.at(-1)!.dates.half.p50!
    expect(half(before) - half(after)).toBeGreaterThan(0.3)
    expect((await watchOf(seen)).events.at(-1)!.dates.half).toEqual(other.events.at(-1)!.dates.half)
    expect((await watchOf(seen)).bloom).toBeNull()
  })

  test('can be switched off for a watch, and then moves it no more', async () => {
    const { watch, events } = await watchOf(followed)
    done(await app.call(bloom.follow, { ...at(), watchId: followed }, { follows: false, rowVersion: watch.rowVersion }, as()))
    const off = await watchOf(followed)
    expect(off.watch.followsBloom).toBe(false)
    expect(off.bloom).toBeNull()
    expect(off.events.at(-1)!.dates.half.p50!).toBeGreaterThan(events.at(-1)!.dates.half.p50!)
    done(await app.call(bloom.follow, { ...at(), watchId: followed }, { follows: true, rowVersion: off.watch.rowVersion }, as()))
  })

  test('is one of the causes by which a forecast moved', async () => {
    done(await app.call(endpoints.demo.setClock, {}, { now: '2026-06-11T14:30:00Z' }, as()))
    const kept = (await records()).filter(({ season, notYet }) => season === SEASON && !notYet && true)
    for (const { id, rowVersion } of kept.filter(({ event }) => event === 'first-open'))
      done(await app.call(bloom.remove, { ...at(), recordId: id }, { rowVersion }, as()))
    await app.settled()
    await issueForecasts(servingOver(app), place.site.id)
    done(await app.call(endpoints.demo.setClock, {}, { now: '2026-06-12T14:30:00Z' }, as()))
    for (const { id, rowVersion, event } of kept)
      if (event === 'first-open') done(await app.call(bloom.restore, { ...at(), recordId: id }, { rowVersion: rowVersion + 1 }, as()))
    await watchOf(followed)
    const { since } = done(await app.call(watches.moves, { ...at(), watchId: followed }, {}))
    const moved = since!.windows.find(({ steps }) => steps.some(({ cause, days }) => cause === 'bloom' && days !== 0))
    expect(moved, JSON.stringify(since)).toBeDefined()
    expect(moved!.steps.reduce((sum, { days }) => sum + days, 0)).toBeCloseTo(moved!.now! - moved!.before!, 1)
  })

  test('a plant that is overdue is asked for, and "not yet" pushes the season later', async () => {
    const { ahead } = await overview()
    const overdue = ahead.find(({ overdue: late }) => late)
    expect(overdue).toBeDefined()
    const before = (await overview()).stations[0]!.shift!.heat
    done(await add({ plantId: overdue!.plantId, event: overdue!.event, seenFrom: '2026-06-12', notYet: true }))
    const after = (await overview()).stations[0]!.shift!
    expect(after.notYet, JSON.stringify(overdue)).toBe(1)
    expect(after.heat).toBeGreaterThan(before)
  })

  test('weeks in which nothing of the route blooms are named, with what would fill them', async () => {
    done(await app.call(library.addToRoute, at(), { plantId: 'forsythia' }, as()))
    const { gaps } = await overview()
    expect(gaps.length).toBeGreaterThan(0)
    expect(gaps.flatMap(({ fill }) => fill)).toContain('Common lilac')
    for (const { from, to } of gaps) expect(dayNumber(to)).toBeGreaterThan(dayNumber(from))
  })
})

test('blooms correct a station that stands in a cold hollow', async () => {
  const [site, person] = [{ siteId: place.site.id }, as()]
  const hollow = done(await app.call(endpoints.weather.addStation, site, { name: 'River' }, person)).id
  const text = hourlyFile(2017, '2026-06-12', () => ({ warmer: -1 }))
  const there = { ...place, stationId: hollow }
  await importFile(app, there, text, (await preview(app, there, text.slice(0, 200_000))).body.mapping)
  const flat = done(await app.call(endpoints.blocks.create, site, { name: 'Onion Flat', kind: 'field', stationId: hollow }, person)).id
  const watch = async (blockId: string) =>
    done(await app.call(watches.create, site, { organismId: 'onion-maggot', blockId, season: SEASON }, person)).id
  const [true_, cold] = [await watch(place.blockId), await watch(flat)]
  done(await app.call(bloom.follow, { ...site, watchId: true_ }, { follows: false, rowVersion: 1 }, person))
  const half = async (id: string): Promise<number> => (await watchOf(id)).events[0]!.dates.half.p50!
  const [truth, before] = [await half(true_), await half(cold)]
  expect(before).toBeGreaterThan(truth + 1)
  // The plants on the flat bloom when the air by the lane has brought their heat, not when the hollow reads it.
  const blooms = done(await app.call(watches.band, site, { season: SEASON })).blooms.filter(
    ({ event, date }) => event === 'first-open' && date.p50 !== null && date.p50 < 160,
  )
  for (const { plant, date } of blooms)
    done(await add({ plantId: plant, event: 'first-open', blockId: flat, seenFrom: civilDate(dayNumber(SEASON) + Math.floor(date.p50!)) }))
  const after = await half(cold)
  expect((await overview()).stations.find(({ stationId }) => stationId === hollow)!.shift!.heat).toBeLessThan(0)
  expect(Math.abs(after - truth)).toBeLessThan(Math.abs(before - truth))
})

describe('a trigger by bloom', () => {
  const trigger = (input: InputOf<typeof bloom.addTrigger>) => app.call(bloom.addTrigger, at(), input, as())
  const product = async (name: string, bees: 'none-stated' | 'hazardous-in-bloom') =>
    done(
      await app.call(
        endpoints.treatments.addProduct,
        at(),
        {
          name,
          methods: ['spinosyn'],
          stages: ['young-larva'],
          effect: 0.8,
          residualDays: 7,
          labelRate: 1,
          rateUnit: 'L/ha',
          reEntryHours: 12,
          preHarvestDays: 7,
          bees,
          protection: 'gloves',
        },
        as(),
      ),
    ).id
  let watchId: string
  beforeAll(async () => {
    watchId = done(await app.call(watches.band, at(), { season: SEASON })).watches.find(({ watch }) => watch.organismId === 'codling-moth')!
      .watch.id
  })

  test('is judged for bees by what flowers in or beside the treated place, not by the plant that is its sign', async () => {
    const [hazardous, sparing] = [await product('Bench twelve', 'hazardous-in-bloom'), await product('Bench thirteen', 'none-stated')]
    const lilac = { plantId: 'common-lilac', event: 'first-open' as const, watchId, action: 'treat' as const }
    // The lilac stands along the lane: nothing flowers in the orchard.
    const free = done(await trigger({ ...lilac, productId: hazardous }))
    done(await app.call(bloom.removeTrigger, { ...at(), recordId: free.id }, { rowVersion: free.rowVersion }, as()))
    const { blockId } = done(await app.call(watches.band, at(), { season: SEASON })).watches.find(
      ({ watch }) => watch.id === watchId,
    )!.watch
    const clover = done(await app.call(library.addOwnPlant, at(), { name: 'White clover in the alleys', blockId }, as()))
    // Nobody knows yet when it flowers.
    expect(done(await app.call(bloom.blooming, { ...at(), blockId }, {}))).toMatchObject([
      { name: 'White clover in the alleys', how: 'unknown' },
    ])
    const seen = { plantId: `own-${clover.id}`, event: 'first-open' as const, seenFrom: '2026-04-20', blockId }
    done(await app.call(bloom.add, at(), seen, as()))
    expect(done(await app.call(bloom.blooming, { ...at(), blockId }, {}))).toMatchObject([{ from: '2026-04-20', how: 'seen' }])
    const refused = await trigger({ ...lilac, daysAfter: 10, productId: hazardous })
    expect(refused.problem.fields![0]).toMatchObject({
      path: 'productId',
      message: expect.stringMatching(/hazardous to bees, and White clover in the alleys may flower/) as string,
    })
    done(await trigger({ ...lilac, productId: sparing }))
    expect((await trigger({ ...lilac, productId: null })).problem.fields![0]!.path).toBe('productId')
    const forbidden = done(
      await app.call(
        endpoints.treatments.addProduct,
        at(),
        { ...GRANULE, name: 'Bench fourteen', methods: ['spinosyn'], bees: 'forbidden-in-bloom' as const },
        as(),
      ),
    )
    const plan = (plannedOn: string) => app.call(endpoints.treatments.plan, at(), { watchId, productId: forbidden.id, plannedOn }, as())
    expect((await plan('2026-05-02')).problem.fields?.[0]).toMatchObject({ path: 'plannedOn' })
    // Once its end is written down the day after is free.
    done(await app.call(bloom.add, at(), { ...seen, event: 'end', seenFrom: '2026-05-04' }, as()))
    expect((await plan('2026-05-06')).status).toBe(200)
    done(await app.call(library.removeOwnPlant, { ...at(), plantRowId: clover.id }, { rowVersion: clover.rowVersion }, as()))
    expect(done(await app.call(bloom.blooming, { ...at(), blockId }, {}))).toEqual([])
  })

  test('can wait for what is watched itself, by events that it has, and is due once that was seen', async () => {
    const refused = await trigger({ plantId: null, event: 'first-open', watchId, action: 'scout' })
    expect(refused.problem.fields![0]).toMatchObject({ path: 'event', message: expect.stringContaining('hatch') as string })
    expect((await trigger({ plantId: 'common-lilac', event: 'hatch', watchId, action: 'scout' })).status).toBe(422)
    const { id } = done(await trigger({ plantId: null, event: 'flight', daysAfter: 2, watchId, action: 'scout' }))
    const one = async () => (await overview()).triggers.find((t) => t.id === id)!
    expect(await one()).toMatchObject({ eventName: 'flight begins', state: 'waiting', dueOn: null })
    const seen = { event: 'flight', kind: 'first' as const, seenOn: '2026-06-01' }
    done(await app.call(endpoints.calibration.addSighting, { ...at(), watchId }, seen, as()))
    expect(await one()).toMatchObject({ state: 'due', dueOn: '2026-06-03' })
    done(await app.call(bloom.removeTrigger, { ...at(), recordId: id }, { rowVersion: 1 }, as()))
  })

  test('is due once its bloom was seen and the days have gone by, and waits before', async () => {
    done(await trigger({ plantId: 'common-lilac', event: 'first-open', daysAfter: 20, watchId, action: 'scout' }))
    done(await trigger({ plantId: 'chicory', event: 'first-open', watchId, action: 'scout' }))
    const { triggers } = await overview()
    const scouting = triggers.filter(({ action }) => action === 'scout')
    expect(scouting.map(({ plantId, state, dueOn }) => [plantId, state, dueOn]).toSorted()).toEqual([
      ['chicory', 'waiting', null],
      ['common-lilac', 'due', '2026-05-17'],
    ])
    const gone = scouting.find(({ plantId }) => plantId === 'chicory')!
    done(await app.call(bloom.removeTrigger, { ...at(), recordId: gone.id }, { rowVersion: gone.rowVersion }, as()))
    expect((await overview()).triggers.some(({ id }) => id === gone.id)).toBe(false)
  })
})

test('the ladder ranks blooms by how well they foretell what was seen, each year without itself', async () => {
  const watch = done(await app.call(watches.band, at(), { season: SEASON })).watches.find(
    ({ watch: w }) => w.organismId === 'codling-moth',
  )!
  for (const year of [2019, 2020, 2021, 2022, 2023])
    done(
      await app.call(
        calibration.addSighting,
        { ...at(), watchId: watch.watch.id },
        {
          event: 'hatch',
          kind: 'first',
          seenOn: civilDate(dayNumber(`${year}-05-06`) + 24),
          lookedBefore: civilDate(dayNumber(`${year}-05-06`) + 22),
        },
        as(),
      ),
    )
  const { blooms, pests } = done(await app.call(bloom.ladder, at(), {}))
  expect(blooms.find(({ plantId }) => plantId === 'common-lilac')!.dots.length).toBeGreaterThanOrEqual(8)
  const hatch = pests.find(({ dots }) => dots.length === 5)
  expect(hatch).toMatchObject({ organismId: 'codling-moth', event: 'hatch' })
  expect(hatch!.indicators.map(({ years }) => years)).toEqual([5, 5])
  const lilac = hatch!.indicators.find(({ plantId }) => plantId === 'common-lilac')!
  expect(lilac.leadDays).toBeGreaterThan(20)
  expect(lilac.error).toBeLessThan(5)
  // Of what nobody has dated yet the library speaks, and says that it does.
  const unknown = pests.find(({ organismId }) => organismId === 'peach-twig-borer')!
  expect(unknown).toMatchObject({ dots: [], indicators: [] })
  expect(unknown.byLibrary.length).toBeGreaterThan(0)
})

describe('a plant of the site’s own', () => {
  test('has three fields, stands in the log, on the ladder and in the notebook, and learns its heat from its dates', async () => {
    const { id } = done(await app.call(library.addOwnPlant, at(), { name: 'Corn silk', tell: 'half of the ears show silk' }, as()))
    expect((await app.call(library.addOwnPlant, at(), { name: 'Corn silk' }, as())).problem.fields?.[0]?.path).toBe('name')
    expect((await app.call(library.addOwnPlant, at(), { name: 'Common lilac' }, as())).problem.fields?.[0]?.message).toContain('library')
    const plantId = `own-${id}`
    const note = '2023-06-20 corn silk first open\n2024-06-18 Corn silk first open\n2025-06-22 corn silk first open'
    expect(done(await app.call(bloom.import, at(), { text: note }, as()))).toMatchObject({ added: 3 })
    const plant = done(await app.call(library.indicators, at(), {})).find((p) => p.id === plantId)!
    expect(plant.own!.learnt).toMatchObject([{ event: 'first-open', seasons: 3 }])
    const rung = done(await app.call(bloom.ladder, at(), {})).blooms.find((b) => b.plantId === plantId)!
    expect([rung.dots.length, rung.expected]).toEqual([3, null])
    const wrong = await app.call(bloom.add, at(), { plantId: 'own-nothing', event: 'end', seenFrom: '2026-04-01' }, as())
    expect(wrong.problem.fields?.[0]?.path).toBe('plantId')
    const { rowVersion } = done(await app.call(library.removeOwnPlant, { ...at(), plantRowId: id }, { rowVersion: 1 }, as()))
    expect(done(await app.call(library.indicators, at(), {})).some((p) => p.id === plantId)).toBe(false)
    // Its dates keep their name.
    expect(done(await app.call(bloom.records, at(), {})).find((r) => r.plantId === plantId)!.plantName).toBe('Corn silk')
    done(await app.call(library.restoreOwnPlant, { ...at(), plantRowId: id }, { rowVersion }, as()))
    const change = { name: 'Corn silk, first sowing', tell: '', rowVersion: rowVersion + 1 }
    done(await app.call(library.changeOwnPlant, { ...at(), plantRowId: id }, change, as()))
    expect(done(await app.call(library.indicators, at(), {})).find((p) => p.id === plantId)!.name).toBe('Corn silk, first sowing')
  })
})
