import { endpoints, type InputOf } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'

const { scouting, watches, crops } = endpoints
const SEASON = '2026-01-01'
const THRIPS = 'onion-thrips'

let app: Application
let place: TestSite
let at: { siteId: string }
let as: { person: string }
const ids: Record<string, string> = {}
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  at = { siteId: place.site.id }
  as = { person: place.person }
  for (const organismId of [THRIPS, 'codling-moth', 'onion-downy-mildew'])
    ids[organismId] = done(await app.call(watches.create, at, { organismId, blockId: place.blockId, season: SEASON }, as)).id
})
afterAll(() => app.stop())

type Units = Record<string, number>[]
const counted = (organism: string, units: Units, more: object = {}) =>
  app.call(scouting.create, at, { watchId: ids[organism]!, countedOn: '2026-06-11', units, ...more }, as)
const plants = (many: number, each: number): Units => Array.from({ length: many }, () => ({ thrips: each }))
const placesAt = (froms: readonly number[], edge: boolean | null = null) => froms.map((from) => ({ from, edge }))
const fields = async (answer: ReturnType<typeof counted>) => (await answer).problem.fields?.map(({ path }) => path)
const samplingOf = async (organism: string) => done(await app.call(watches.organisms, at, {})).find(({ id }) => id === organism)!.sampling

describe('places of a count', () => {
  test('are kept with it, and without five of them nothing is decided', async () => {
    const units = plants(12, 30)
    const few = done(await counted(THRIPS, units, { places: placesAt([0, 2, 4, 6]) }))
    expect(few).toMatchObject({ verdict: 'too-few', crossed: true, places: placesAt([0, 2, 4, 6]) })
    const enough = done(await counted(THRIPS, units, { places: placesAt([0, 2, 4, 6, 8]) }))
    expect(enough.verdict).toBe('act')
    expect(done(await counted(THRIPS, units)).places).toBeNull()
    const change = { countedOn: few.countedOn, units, places: placesAt([0, 1, 2, 3, 4]), rowVersion: few.rowVersion }
    expect(done(await app.call(scouting.update, { ...at, roundId: few.id }, change, as)).verdict).toBe('act')
  })

  test('that cannot be are told, each by its field', async () => {
    const units = plants(4, 1)
    expect(await fields(counted(THRIPS, units, { places: placesAt([1, 2]) }))).toEqual(['places'])
    expect(await fields(counted(THRIPS, units, { places: placesAt([0, 2, 2]) }))).toEqual(['places'])
    expect(await fields(counted(THRIPS, units, { places: placesAt([0, 4]) }))).toEqual(['places.1.from'])
    expect(await fields(counted(THRIPS, units, { enemies: { spiders: -1 } }))).toEqual(['enemies.spiders'])
  })

  test('say where on the plant each sample unit was, and what each height holds', async () => {
    const units = [...plants(6, 8), ...plants(6, 2)]
    const heights = units.map((_, i) => (i < 6 ? 'low' : i < 11 ? 'top' : null))
    const round = done(await counted(THRIPS, units, { heights }))
    expect(round.heights).toEqual(heights)
    expect(round.byHeight).toEqual([
      { height: 'low', units: 6, per100: 80 },
      { height: 'top', units: 5, per100: 20 },
    ])
    expect(done(await counted(THRIPS, units))).toMatchObject({ heights: null, byHeight: [] })
    expect(done(await counted(THRIPS, plants(2, 1), { heights: [null, null] })).heights).toBeNull()
    expect(await fields(counted(THRIPS, units, { heights: ['low'] }))).toEqual(['heights'])
    expect(await fields(counted(THRIPS, plants(1, 1), { heights: ['roof'] }))).toEqual(['heights.0'])
  })

  test('let edge and inside answer by themselves, and name the part that is enough to treat', async () => {
    const units = [...plants(10, 40), ...plants(12, 3)]
    const places = [...placesAt([0, 2, 4, 6, 8], true), ...placesAt([10, 12, 14, 16, 18, 20], false)]
    const round = done(await counted(THRIPS, units, { places, enemies: { lacewings: 3 } }))
    expect(round).toMatchObject({ spot: 'edge', enemies: { lacewings: 3 } })
    expect(round.strata.map(({ edge, per100, verdict }) => [edge, per100, verdict])).toEqual([
      [true, 400, 'act'],
      [false, 30, 'stop'],
    ])
    // Where the inside is over it as well, a part is not enough.
    expect(done(await counted(THRIPS, plants(22, 40), { places })).spot).toBeNull()
  })
})

describe('a plan of the site’s own', () => {
  const plan = {
    kind: 'sequential',
    safeShare: 0.5,
    needless: 0.1,
    missed: 0.1,
    relativeSe: 0.25,
    leastUnits: 10,
    leastPlaces: 5,
    mostUnits: 40,
    clumping: null,
  } as const
  const rule = (more: object, rowVersion: number | null = null) =>
    app.call(
      scouting.setRule,
      { ...at, organismId: THRIPS },
      { weights: {}, reason: 'as the adviser showed us', plan, rowVersion, ...more },
      as,
    )

  test('ends its counts, those from before, too', async () => {
    const before = done(await counted(THRIPS, plants(12, 9), { places: placesAt([0, 2, 4, 6, 8]) }))
    expect(before.verdict).toBe('undecided')
    const verdict = async () => done(await app.call(scouting.list, at, { season: SEASON })).find(({ id }) => id === before.id)!.verdict
    const set = done(await rule({ plan: { ...plan, kind: 'fixed', mostUnits: 12 } }))
    expect(await verdict()).toBe('stop')
    expect((await samplingOf(THRIPS)).rule?.plan).toMatchObject({ kind: 'fixed', mostUnits: 12 })
    done(await rule({ plan: { ...plan, kind: 'fixed', mostUnits: 20 } }, set.rowVersion))
    expect(await verdict()).toBe('too-few')
    done(await rule({ plan: null }, set.rowVersion + 1))
    expect(await verdict()).toBe('undecided')
  })

  test('is refused where what it rests on is not known, or nothing fits between its bounds', async () => {
    expect((await rule({ plan: { ...plan, kind: 'crowding' } }, 3)).problem.fields?.[0]?.path).toBe('plan.kind')
    expect((await rule({ plan: { ...plan, kind: 'precision' } }, 3)).problem.fields?.[0]?.path).toBe('plan.kind')
    expect((await rule({ plan: { ...plan, mostUnits: 5 } }, 3)).problem.fields?.[0]?.path).toBe('plan.mostUnits')
    expect((await rule({ plan: { ...plan, needless: 0.9 } }, 3)).problem.fields?.[0]?.path).toBe('plan.needless')
  })

  test('goes by how animals sit together, as the counts here tell it', async () => {
    const spread = async () => done(await app.call(scouting.spread, { ...at, organismId: THRIPS }, {}))
    const before = await spread()
    for (const mean of [1, 2, 4, 8, 16]) await counted(THRIPS, [...plants(6, 0), ...plants(6, 2 * mean)], { countedOn: '2026-05-20' })
    const { clumping, counts } = await spread()
    expect(counts).toBe(before.counts + 5)
    expect(clumping!.taylor!.b).toBeGreaterThan(1)
    const { rowVersion } = done(await rule({ plan: { ...plan, kind: 'crowding', clumping } }, 3))
    expect((await samplingOf(THRIPS)).rule?.plan?.clumping?.counts).toBe(clumping!.counts)
    done(await rule({ plan: null }, rowVersion))
  })
})

describe('a count by degrees of damage', () => {
  const MILDEW = 'onion-downy-mildew'
  test('is per cent of the surface, with a threshold of its own or none', async () => {
    const library = await samplingOf(MILDEW)
    const set = done(
      await app.call(
        scouting.setRule,
        { ...at, organismId: MILDEW },
        { weights: {}, scale: 'degrees', reason: 'we judge how much of a leaf is gone', rowVersion: null },
        as,
      ),
    )
    const sampling = await samplingOf(MILDEW)
    expect(sampling).toMatchObject({ scale: 'degrees', measure: 'density', degrees: library.degrees })
    expect(sampling.classes.map(({ weight }) => weight)).toEqual(library.degrees.percents.map((percent) => percent / 100))
    const [, low, high] = sampling.classes.map(({ id }) => id)
    const units = [{ [low!]: 1 }, { [high!]: 2 }, {}]
    const round = done(await counted(MILDEW, units, { scale: 'degrees' }))
    const [, lower, higher] = library.degrees.percents
    expect(round.per100).toBeCloseTo((lower! + 2 * higher!) / (3 * round.unit.items), 9)
    expect(round).toMatchObject({ threshold: null, verdict: null, scale: 'degrees', measure: 'density' })
    // It is corrected by all the degrees that there were to choose from, not by those that were seen only.
    expect(round.classes.map(({ weight }) => weight)).toEqual(library.degrees.percents.map((percent) => percent / 100))
    const before = done(await app.call(scouting.list, at, { season: SEASON })).find(({ scale }) => scale === 'classes')!
    expect(before.classes.map(({ id }) => id)).toContain('thrips')
    expect(await fields(counted(MILDEW, [{ [library.classes[0]!.id]: 1 }], { scale: 'degrees' }))).toEqual([
      `units.0.${library.classes[0]!.id}`,
    ])
    // The classes of the entry stay usable, as a page does that was opened before.
    expect(done(await counted(MILDEW, [{ [library.classes[0]!.id]: 1 }])).scale).toBe('classes')
    done(await app.call(scouting.removeRule, { ...at, ruleId: set.id }, { rowVersion: set.rowVersion }, as))
    const [again] = done(await app.call(scouting.list, at, { season: SEASON })).filter(({ id }) => id === round.id)
    expect(again!.per100).toBeCloseTo(round.per100, 12)
  })
})

describe('a count by presence', () => {
  const units = (any: number, of: number): Units =>
    Array.from({ length: of }, (_, i): Record<string, number> => (i < any ? { present: 1 } : {}))
  const rule = (organismId: string, more: object) =>
    app.call(
      scouting.setRule,
      { ...at, organismId },
      { weights: {}, scale: 'presence', reason: 'a hand lens on every plant takes too long', rowVersion: null, ...more },
      as,
    )

  test('is held against the same threshold, by what so large a share means', async () => {
    const before = done(await app.call(scouting.list, at, { season: SEASON })).filter(({ watchId }) => watchId === ids[THRIPS])
    const { rowVersion } = (await samplingOf(THRIPS)).rule!
    done(await rule(THRIPS, { rowVersion }))
    expect(await samplingOf(THRIPS)).toMatchObject({ scale: 'presence', measure: 'presence', classes: [{ id: 'present', weight: 1 }] })
    const round = done(await counted(THRIPS, units(10, 20), { scale: 'presence' }))
    // Half of them have any: with k 1 one on each plant, ten leaves a plant.
    expect(round.per100).toBeCloseTo(10, 9)
    expect(round).toMatchObject({
      threshold: { per100: 100 },
      crossed: false,
      effective: Array.from({ length: 20 }, (_, i) => Number(i < 10)),
    })
    expect(done(await counted(THRIPS, units(0, 20), { scale: 'presence' })).verdict).toBe('stop')
    // At so high a threshold nearly every plant has some long before: presence alone tells little there.
    expect(done(await counted(THRIPS, units(20, 20), { scale: 'presence' })).verdict).toBe('undecided')
    expect(await fields(counted(THRIPS, [{ thrips: 1 }], { scale: 'presence' }))).toEqual(['units.0.thrips'])
    // What was counted in numbers before stays what it was.
    const after = done(await app.call(scouting.list, at, { season: SEASON })).filter(({ id }) => before.some((one) => one.id === id))
    expect(after.map(({ per100 }) => per100)).toEqual(before.map(({ per100 }) => per100))
  })

  test('is not offered where a share is counted already, nor ended by curves that need numbers', async () => {
    const refused = async (organismId: string, more: object) => (await rule(organismId, more)).problem.fields?.map(({ path }) => path)
    expect(await refused('codling-moth', {})).toEqual(['scale'])
    const clumping = { k: 1, taylor: { a: 1, b: 1.2 }, crowding: { alpha: 0, beta: 2 }, counts: 6 }
    const plan = { safeShare: 0.5, needless: 0.1, missed: 0.1, relativeSe: 0.25, leastUnits: 10, leastPlaces: 5, mostUnits: 40, clumping }
    expect(await refused(THRIPS, { plan: { ...plan, kind: 'crowding' } })).toEqual(['plan.kind'])
  })
})

describe('a threshold that changes with the crop', () => {
  const MOTH = 'codling-moth'
  const set = async (threshold: InputOf<typeof watches.update>['threshold']) => {
    const watch = done(await app.call(watches.list, at, { season: SEASON })).find(({ id }) => id === ids[MOTH])!
    const { biofix, biofixNote, sourceKnown, rowVersion } = watch
    return app.call(watches.update, { ...at, watchId: watch.id }, { biofix, biofixNote, sourceKnown, threshold, rowVersion }, as)
  }
  const now = async () =>
    done(await app.call(watches.band, at, { season: SEASON })).watches.find(({ watch }) => watch.id === ids[MOTH])!.watch.threshold?.now
  const OWN = { per100: 6, reason: 'few boxes are packed early', steps: [{ from: 'petal-fall' as const, per100: 1.5 }] }

  test('holds as far as the crop is, for a count of any day', async () => {
    done(await set(OWN))
    expect(await now()).toEqual({ per100: 6, stage: null, sure: true })
    const planting = { placeId: place.blockId, crop: 'apple', standsFrom: '2015-03-01' }
    const { id } = done(await app.call(crops.add, at, planting, as))
    // Nobody has seen how far it is: the lower one holds, and says that it is not sure.
    expect(await now()).toMatchObject({ per100: 1.5, stage: 'petal-fall', sure: false })
    done(await app.call(crops.addStage, at, { plantingId: id, stage: 'petal-fall', seenOn: '2026-05-02' }, as))
    expect(await now()).toEqual({ per100: 1.5, stage: 'petal-fall', sure: true })
    const threshold = async (countedOn: string) => done(await counted(MOTH, [{}], { countedOn })).threshold
    expect([await threshold('2026-05-01'), await threshold('2026-05-02')]).toEqual([
      { per100: 6, from: 'own' },
      { per100: 1.5, from: 'own' },
    ])
  })

  test('keeps what it was reckoned from, and refuses stages twice and shares above all', async () => {
    const economics = { cost: 80, price: 0.5, loss: 40, control: 0.8, lagDays: 3, doublingDays: null }
    const saved = done(await set({ ...OWN, economics }))
    expect(saved.threshold).toMatchObject({ economics, steps: OWN.steps })
    expect((await set({ ...OWN, steps: [...OWN.steps, ...OWN.steps] })).problem.fields?.[0]?.path).toBe('threshold.steps')
    expect((await set({ ...OWN, economics: { ...economics, control: 1.2 } })).problem.fields?.[0]?.path).toBe('threshold.economics.control')
  })

  test('holds for nothing else than what was counted when it was set', async () => {
    done(await set({ ...OWN, scale: 'degrees' }))
    expect(done(await counted(MOTH, [{}])).threshold).toEqual({ per100: 2, from: 'library' })
    done(await set(null))
  })
})
