import { endpoints, type Way, type YearsOf } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { besideIt, startApplication, type Application } from '../testing/application.js'
import { done, GRANULE, startSite, type TestSite } from '../testing/farm.js'
import { hourlyFile, importFile, preview } from '../testing/upload.js'

/* What is known after several seasons: of each way, of each organism, of the forecasts, and what is watched again. */

const { blocks, calibration, flags, harvests, outcomes, scouting, treatments, watches } = endpoints
const SEASONS = ['2024-01-01', '2025-01-01', '2026-01-01'] as const

let app: Application
let place: TestSite
let productId: string
const at = () => ({ siteId: place.site.id })
const as = () => ({ person: place.person })
const watched = new Map<string, string>()
const blockIds = new Map<string, string>()

const count = (watchId: string, checkAreaId: string | null, countedOn: string, perTree: (tree: number) => number) =>
  app
    .call(
      scouting.create,
      at(),
      { watchId, checkAreaId, countedOn, units: Array.from({ length: 24 }, (_, i) => ({ 'fresh-entry': perTree(i) })) },
      as(),
    )
    .then(done)

/** A season in a block: alike before in both, then a fifth of the check where it was treated, judged two weeks later. */
async function seasonOf(block: string, checkId: string, year: string, left: number): Promise<void> {
  const watchId = watched.get(`${block} ${year}`) as string
  const few = (i: number): number => (i % 3 === 0 ? 1 : 0)
  const many = (i: number): number => 2 + (i % 3)
  await count(watchId, null, `${year}-06-04`, few)
  await count(watchId, checkId, `${year}-06-04`, few)
  await app
    .call(
      treatments.recordUnplanned,
      at(),
      { watchId, productId, startedAt: `${year}-06-05T04:00:00Z`, endedAt: `${year}-06-05T05:30:00Z`, rate: 0.1, areaHa: 4, weather: {} },
      as(),
    )
    .then(done)
  await count(watchId, null, `${year}-06-20`, (i) => (i % Math.round(1 / left) === 0 ? many(i) : 0))
  await count(watchId, checkId, `${year}-06-20`, many)
}

beforeAll(async () => {
  app = await startApplication({ now: '2026-06-30T14:30:00Z' })
  place = await startSite(app)
  const file = hourlyFile(2021, '2026-06-30')
  await importFile(app, place, file, (await preview(app, place, file.slice(0, 200_000))).body.mapping)
  productId = done(await app.call(treatments.addProduct, at(), GRANULE, as())).id
  blockIds.set('Old Apples', place.blockId)
  for (const name of ['Ladder Pears', 'Stone Row'])
    blockIds.set(
      name,
      done(await app.call(blocks.create, at(), { name, kind: 'orchard', areaHa: 4, grows: 'apple', stationId: place.stationId }, as())).id,
    )
  const checks = new Map<string, string>()
  for (const [name, blockId] of blockIds) {
    checks.set(name, done(await app.call(blocks.addCheckArea, { ...at(), blockId }, { name: `${name} corner` }, as())).id)
    for (const season of SEASONS)
      watched.set(
        `${name} ${season.slice(0, 4)}`,
        done(
          await app.call(
            watches.create,
            at(),
            {
              organismId: 'codling-moth',
              blockId,
              season,
              biofix: `${season.slice(0, 4)}-05-10`,
              threshold: { per100: 2, reason: 'fruit for the shop' },
            },
            as(),
          ),
        ).id,
      )
  }
  const check = (name: string): string => checks.get(name) as string
  await seasonOf('Old Apples', check('Old Apples'), '2024', 0.2)
  await seasonOf('Old Apples', check('Old Apples'), '2025', 0.25)
  await seasonOf('Ladder Pears', check('Ladder Pears'), '2025', 0.2)
}, 120_000)
afterAll(() => app.stop())

const ways = async (): Promise<Way[]> => done(await app.call(outcomes.ways, at(), {}, as()))

describe('what each way did here', () => {
  test('three deeds in two areas are lower here, and no more; a third area tells', async () => {
    const [two] = await ways()
    expect(two).toMatchObject({ name: 'Granule C', organismId: 'codling-moth', productId })
    expect(two!.deeds.map(({ season, blockName }) => [season, blockName])).toEqual([
      ['2025-01-01', expect.any(String)],
      ['2025-01-01', expect.any(String)],
      ['2024-01-01', 'Old Apples'],
    ])
    expect(two!.evidence).toMatchObject({ verdict: 'lower-here', deeds: 3, areas: 2 })
    const corner = done(await app.call(blocks.list, at(), {}, as())).find(({ name }) => name === 'Stone Row')?.checkAreas[0]?.id
    await seasonOf('Stone Row', corner as string, '2025', 0.2)
    const [three] = await ways()
    expect(three!.evidence).toMatchObject({ deeds: 4, areas: 3 })
    expect(three!.evidence!.effect.value).toBeGreaterThan(0.7)
    expect(three!.evidence!.effect.low).toBeLessThan(three!.evidence!.effect.value)
  })

  test('what came between the counts is said, and what is judged too early is no result yet', async () => {
    const watchId = watched.get('Stone Row 2026') as string
    await count(watchId, null, '2026-06-12', () => 1)
    const input = { watchId, productId, rate: 0.1, areaHa: 4, weather: {} }
    for (const startedAt of ['2026-06-13T04:00:00Z', '2026-06-21T04:00:00Z'])
      done(await app.call(treatments.recordUnplanned, at(), { ...input, startedAt }, as()))
    await count(watchId, null, '2026-06-24', () => 1)
    const all = done(await app.call(outcomes.list, at(), { season: '2026-01-01' }, as())).sort((a, b) =>
      a.treatedOn.localeCompare(b.treatedOn),
    )
    expect(all.map(({ isEarly, alsoDone }) => ({ isEarly, alsoDone }))).toEqual([
      { isEarly: true, alsoDone: [{ name: 'Granule C', on: '2026-06-20' }] },
      { isEarly: true, alsoDone: [{ name: 'Granule C', on: '2026-06-12' }] },
    ])
    const [way] = await ways()
    expect(way!.deeds.filter(({ season }) => season === '2026-01-01').map(({ effect }) => effect)).toEqual([null, null])
    expect(way!.evidence!.deeds).toBe(4)
  })
})

describe('year by year', () => {
  const lines = async (): Promise<YearsOf[]> => done(await app.call(outcomes.years, at(), {}, as())).lines

  test('holds the most that was counted, what stood untreated, days over, deeds and hours', async () => {
    const line = (await lines()).find(({ blockName }) => blockName === 'Old Apples')!
    expect(line.years.map(({ season, treatments: n, minutes }) => [season, n, minutes])).toEqual([
      ['2024-01-01', 1, 90],
      ['2025-01-01', 1, 90],
      ['2026-01-01', 0, 0],
    ])
    const [first] = line.years
    expect(first).toMatchObject({ threshold: 2, highest: { counts: 2 }, check: 15 })
    expect(first!.highest!.per100).toBeLessThan(5)
    expect(first!.daysOver).toBeLessThanOrEqual(16)
    // Two seasons that are over are no trend.
    expect(line.trend).toBeNull()
  })

  test('patches count once a season, by their most; a season that goes on is no part of the trend', async () => {
    const found = async (seenOn: string, plants: number) =>
      done(
        await app.call(
          flags.add,
          at(),
          { organismId: 'himalayan-balsam', placeId: place.blockId, seenOn, sight: 'standing', plants },
          as(),
        ),
      )
    const patch = await found('2023-06-01', 80)
    for (const [seenOn, plants] of [
      ['2023-07-01', 10],
      ['2024-06-01', 40],
      ['2025-06-01', 20],
      ['2026-06-01', 19],
    ] as const)
      done(await app.call(flags.visit, at(), { flagId: patch.id, seenOn, sight: 'standing', plants }, as()))
    const line = (await lines()).find(({ organismId }) => organismId === 'himalayan-balsam')!
    expect(line.years.map(({ season, patches, plants }) => [season, patches, plants])).toEqual([
      ['2023-01-01', 1, 80],
      ['2024-01-01', 1, 40],
      ['2025-01-01', 1, 20],
      ['2026-01-01', 1, 19],
    ])
    expect(line.trend).toMatchObject({ of: 'plants', years: 3 })
    expect(line.trend!.yearly).toBeCloseTo(-0.5, 6)
  })

  test('bags and minutes are those of the visits that noted both; a visit without plants tells of neither', async () => {
    expect((await lines()).find(({ organismId }) => organismId === 'himalayan-balsam')!.weed).toMatchObject({ plantsPerBag: null })
    const list = done(await app.call(flags.list, at(), {}, as()))
    const pull = async (seenOn: string, plants: number | null, bags: number) => {
      const taken = { amount: bags, unit: 'bags' as const }
      const seen = { flagId: list.flags[0]!.id, seenOn, sight: 'standing' as const, plants, methodId: 'hand-pulling', taken, minutes: 10 }
      done(await app.call(flags.visit, at(), seen, as()))
    }
    await pull('2025-06-02', 15, 1)
    await pull('2025-06-03', 5, 1)
    await pull('2025-06-04', null, 9)
    const { weed } = (await lines()).find(({ organismId }) => organismId === 'himalayan-balsam')!
    expect(weed).toMatchObject({ form: 'annual', plantsPerBag: 10, minutesPerPlant: 10 / 15 })
  })

  test('what was picked is summed by block, and spoilt fruit against those that were looked at', async () => {
    for (const picked of [{ kg: 100 }, { kg: 50, pieces: 400, spoilt: 12 }])
      done(await app.call(harvests.add, at(), { placeId: place.blockId, pickedOn: '2025-09-10', ...picked }, as()))
    const { picked } = done(await app.call(outcomes.years, at(), {}, as()))
    expect(picked).toEqual([{ blockId: place.blockId, season: '2025-01-01', kg: 150, pieces: 400, spoilt: 12, lookedAt: 400 }])
  })
})

describe('forecasts against what was seen', () => {
  test('nothing dated, nothing told; what was dated is told by library, own records and calendar', async () => {
    expect(done(await app.call(outcomes.skill, at(), {}, as()))).toEqual([])
    const watch = { ...at(), watchId: watched.get('Old Apples 2026') as string }
    for (const [seenOn, lookedBefore] of [
      ['2024-06-05', '2024-06-02'],
      ['2025-06-03', '2025-05-31'],
      ['2026-06-06', '2026-06-04'],
    ])
      done(
        await app.call(
          calibration.addSighting,
          watch,
          { event: 'hatch', kind: 'first', seenOn: seenOn as string, lookedBefore: lookedBefore as string },
          as(),
        ),
      )
    const [hatch] = done(await app.call(outcomes.skill, at(), {}, as()))
    expect(hatch).toMatchObject({ organismId: 'codling-moth', event: 'hatch', seen: 'begins', ownAccepted: false, byBloom: null })
    expect(hatch!.seasons).toHaveLength(3)
    for (const told of [hatch!.byLibrary, hatch!.byOwn, hatch!.byCalendar]) expect(told).toMatchObject({ forecasts: 3 })
    expect(hatch!.byCalendar!.error).toBeLessThan(3)
    expect(Math.abs(hatch!.byLibrary!.bias!)).toBeLessThanOrEqual(hatch!.byLibrary!.error)
  })
})

describe('the next season', () => {
  test('watches again what was watched, with its threshold and without its biofix; what is there stays, twice adds nothing', async () => {
    const carry = (from: string, season: string, who = place.person) => app.call(watches.carryOn, at(), { from, season }, { person: who })
    const watch = (block: string, season: string, more: object = {}) =>
      app
        .call(watches.create, at(), { organismId: 'oriental-fruit-moth', blockId: blockIds.get(block) as string, season, ...more }, as())
        .then(done)
    await watch('Old Apples', '2025-01-01', { biofix: '2025-04-20', threshold: { per100: 5, reason: 'young trees' }, sourceKnown: 'heavy' })
    await watch('Stone Row', '2025-01-01')
    const own = await watch('Stone Row', '2026-01-01', { biofix: '2026-04-18' })
    expect((await carry('2026-01-01', '2026-01-01')).status).toBe(422)
    expect((await carry('2025-01-01', '2025-02-01')).status).toBe(422)
    expect((await carry('2025-01-01', '2026-01-01', place.viewer)).status).toBe(403)
    // What has not begun can hold nothing yet.
    expect((await carry('2026-01-01', '2027-01-01')).problem.fields?.[0]?.path).toBe('season')
    const made = done(await carry('2025-01-01', '2026-01-01'))
    expect(made).toMatchObject([
      { organismId: 'oriental-fruit-moth', blockId: place.blockId, biofix: null, sourceKnown: 'unknown', threshold: { per100: 5 } },
    ])
    expect(done(await carry('2025-01-01', '2026-01-01'))).toEqual([])
    const all = done(await app.call(watches.list, at(), { season: '2026-01-01' }, as()))
    expect(all.find(({ id }) => id === own.id)).toEqual(own)
    expect(all).toHaveLength(5)
  })

  test('has its windows by the seasons of weather that are known', async () => {
    const { season, windows } = done(await app.call(outcomes.ahead, at(), { season: '2026-01-01' }, as()))
    expect(season).toBe('2027-01-01')
    expect(windows.length).toBeGreaterThan(0)
    for (const { opens, closes } of windows) {
      expect(opens.p10!).toBeLessThanOrEqual(opens.p50!)
      expect(opens.p50!).toBeLessThanOrEqual(closes.p50 ?? Infinity)
      expect(opens.p50!).toBeGreaterThan(60)
    }
  })
})

test('the timing of a deed names the day on which the same would have reached more', async () => {
  const watchId = watched.get('Ladder Pears 2024') as string
  const input = { watchId, productId, rate: 0.1, areaHa: 4, weather: {} }
  done(await app.call(treatments.recordUnplanned, at(), { ...input, startedAt: '2024-05-22T04:00:00Z' }, as()))
  const [early] = done(await app.call(outcomes.list, at(), { season: '2024-01-01' }, as())).filter((one) => one.watchId === watchId)
  expect(early!.betterOn!.day > early!.treatedOn).toBe(true)
  expect(early!.betterOn!.coverage).toBeGreaterThan(early!.coverage!.p50 + 0.05)
})

test('what is said of a season in own words is kept by block, put right, and never written over unseen', async () => {
  const [blockId] = blockIds.values()
  const say = (said: string, rowVersion: number | null) =>
    app.call(outcomes.keepNote, { ...at(), blockId: blockId as string }, { season: '2025-01-01', said, rowVersion }, as())
  // Twenty at once on two servers: one is kept, the others are told that somebody wrote.
  const second = await besideIt(app)
  const said = await Promise.all(
    Array.from({ length: 20 }, (_, i) =>
      [app, second][i % 2]!.call(
        outcomes.keepNote,
        { ...at(), blockId: blockId as string },
        { season: '2025-01-01', said: `Cold May ${i}`, rowVersion: null },
        as(),
      ),
    ),
  )
  await second.stop()
  expect(said.map(({ status }) => status).sort()).toEqual([200, ...Array.from({ length: 19 }, () => 409)])
  const first = said.find(({ status }) => status === 200)!.body
  expect((await say('Another one at the same time', null)).status).toBe(409)
  expect((await say('By an old page', 7)).status).toBe(409)
  const put = done(await say('Cold May.\nBegin a week later.', first.rowVersion))
  expect(put).toMatchObject({ said: 'Cold May.\nBegin a week later.', blockId })
  expect(done(await app.call(outcomes.notes, at(), { season: '2025-01-01' }, as()))).toEqual([put])
  expect(done(await app.call(outcomes.notes, at(), { season: '2024-01-01' }, as()))).toEqual([])
  const wrong = await app.call(
    outcomes.keepNote,
    { ...at(), blockId: blockId as string },
    { season: '2025-02-01', said: '', rowVersion: null },
    as(),
  )
  expect(wrong.problem.fields?.map(({ path }) => path)).toEqual(['season'])
})
