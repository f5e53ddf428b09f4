import { endpoints } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'

const { scouting, watches } = endpoints
const SEASON = '2026-01-01'

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
  for (const organismId of ['codling-moth', 'bagworm', 'himalayan-balsam', 'corn-earworm', 'european-red-mite', 'colorado-potato-beetle'])
    ids[organismId] = done(await app.call(watches.create, at, { organismId, blockId: place.blockId, season: SEASON }, as)).id
})
afterAll(() => app.stop())

const count = async (organism: string, units: Record<string, number>[], countedOn = '2026-06-11') =>
  done(await app.call(scouting.create, at, { watchId: ids[organism]!, countedOn, units }, as))
const rounds = async (organism: string) =>
  done(await app.call(scouting.list, at, { season: SEASON })).filter(({ watchId }) => watchId === ids[organism])
const setThreshold = async (organism: string, per100: number | null) => {
  const all = done(await app.call(watches.list, at, { season: SEASON }))
  const watch = all.find(({ id }) => id === ids[organism])!
  const { biofix, biofixNote, sourceKnown, rowVersion } = watch
  const threshold = per100 === null ? null : { per100, reason: 'sold at the gate' }
  done(await app.call(watches.update, { ...at, watchId: watch.id }, { biofix, biofixNote, sourceKnown, threshold, rowVersion }, as))
}

describe('a count', () => {
  test('crosses nothing where the library only guesses, or counts what comes too late', async () => {
    expect(await count('bagworm', [{ bag: 90 }])).toMatchObject({ threshold: null, crossed: false })
    expect(await count('corn-earworm', [{ larva: 1 }])).toMatchObject({ per100: 100, threshold: null, crossed: false })
  })

  test('of what is to go altogether is over as soon as there is one', async () => {
    expect(await count('himalayan-balsam', [{}, {}])).toMatchObject({ threshold: { from: 'every-one' }, crossed: false })
    expect(await count('himalayan-balsam', [{}, { grown: 1 }])).toMatchObject({ crossed: true })
  })

  test('keeps the threshold of its day, whatever is thought of it later', async () => {
    const before = await count('codling-moth', [{ 'fresh-entry': 1 }, {}])
    expect(before).toMatchObject({ per100: 2.5, threshold: { per100: 2, from: 'library' }, crossed: true })
    await setThreshold('codling-moth', 5)
    await count('codling-moth', [{ 'fresh-entry': 1 }, {}], '2026-06-12')
    expect((await rounds('codling-moth')).map(({ threshold, crossed }) => [threshold, crossed])).toEqual([
      [{ per100: 2, from: 'library' }, true],
      [{ per100: 5, from: 'own' }, false],
    ])
  })

  test('keeps the minutes that its walk took, and takes none that cannot be', async () => {
    const input = { watchId: ids['bagworm']!, countedOn: '2026-06-09', units: [{}] }
    expect(done(await app.call(scouting.create, at, { ...input, minutes: 14 }, as)).minutes).toBe(14)
    expect(done(await app.call(scouting.create, at, input, as)).minutes).toBeNull()
    // What was taken on the way stands in the same record as what was counted.
    const taken = { amount: 31, unit: 'pieces' } as const
    const picked = done(await app.call(scouting.create, at, { ...input, taken }, as))
    expect(picked.taken).toEqual(taken)
    const change = { ...input, taken: null, rowVersion: picked.rowVersion }
    expect(done(await app.call(scouting.update, { ...at, roundId: picked.id }, change, as)).taken).toBeNull()
    const wrong = await app.call(scouting.create, at, { ...input, taken: { amount: 0, unit: 'pieces' } }, as)
    expect(wrong.problem.fields?.map(({ path }) => path)).toEqual(['taken.amount'])
    const refused = await app.call(scouting.create, at, { ...input, minutes: 2000 }, as)
    expect(refused.problem.fields?.map(({ path }) => path)).toEqual(['minutes'])
  })

  test('of a share has each item once, however much sits on it', async () => {
    expect(await count('european-red-mite', [{ mite: 40 }, { mite: 0 }])).toMatchObject({ effective: [5, 0], per100: 50 })
  })
})

describe('whether a count decides', () => {
  const trees = (many: number, mites: number) => Array.from({ length: many }, () => ({ mite: mites }))
  const verdict = async (organism: string, units: Record<string, number>[]) => (await count(organism, units)).verdict

  test('is said by how far it is from the threshold, and only from ten sample units on', async () => {
    expect(await verdict('european-red-mite', trees(9, 5))).toBe('too-few')
    expect(await verdict('european-red-mite', trees(12, 5))).toBe('act')
    expect(await verdict('european-red-mite', trees(12, 0))).toBe('stop')
    // As much as lies in the middle between safe and the threshold, however long it is counted.
    expect(await verdict('european-red-mite', [...trees(24, 2), ...trees(6, 3)])).toBe('undecided')
  })

  test('is not said without a threshold, where classes weigh differently, nor of an untreated check area', async () => {
    expect(await verdict('bagworm', [{ bag: 90 }])).toBeNull()
    const beetles = await count('colorado-potato-beetle', [{ small: 8 }])
    expect(beetles.verdict).toBeNull()
    done(await app.call(scouting.remove, { ...at, roundId: beetles.id }, { rowVersion: beetles.rowVersion }, as))
    const area = done(await app.call(endpoints.blocks.addCheckArea, { ...at, blockId: place.blockId }, { name: 'East end', note: '' }, as))
    const watchId = ids['european-red-mite']!
    const inCheck = { watchId, countedOn: '2026-06-11', checkAreaId: area.id, units: trees(12, 5) }
    expect(done(await app.call(scouting.create, at, inCheck, as))).toMatchObject({ crossed: true, verdict: null })
  })
})

describe('a site that counts by its own rule', () => {
  const rule = (weights: Record<string, number>, rowVersion: number | null = null) =>
    app.call(
      scouting.setRule,
      { ...at, organismId: 'colorado-potato-beetle' },
      { weights, frame: 'the upper two thirds of a plant', reason: 'beetles fly in from next door', rowVersion },
      as,
    )

  test('has its past rounds reckoned by it, and its instruction in place of the library’s', async () => {
    expect((await count('colorado-potato-beetle', [{ small: 8, adult: 1, egg: 3 }])).effective).toEqual([6])
    const set = done(await rule({ small: 0, large: 1, adult: 2, egg: 0 }))
    expect((await rounds('colorado-potato-beetle'))[0]).toMatchObject({ effective: [2], units: [{ small: 8, adult: 1, egg: 3 }] })
    const potato = async () => done(await app.call(watches.organisms, at, {})).find(({ id }) => id === 'colorado-potato-beetle')!.sampling
    expect(await potato()).toMatchObject({ rule: { frame: 'the upper two thirds of a plant' } })
    expect((await potato()).classes.map(({ id, weight }) => [id, weight])).toContainEqual(['adult', 2])
    const removed = done(await app.call(scouting.removeRule, { ...at, ruleId: set.id }, { rowVersion: set.rowVersion }, as))
    expect((await rounds('colorado-potato-beetle'))[0]).toMatchObject({ effective: [6] })
    done(await app.call(scouting.restoreRule, { ...at, ruleId: set.id }, { rowVersion: removed.rowVersion }, as))
    expect((await potato()).rule).not.toBeNull()
  })

  test('looks at units of its own from then on; what was counted before stays with the unit of its day', async () => {
    const library = (await rounds('codling-moth')).at(-1)!
    const weights = { 'fresh-entry': 1 }
    const unit = { one: 'single fruit', many: 'single fruits', items: 1, suggested: 10 }
    const input = { weights, unit, reason: 'two young trees', rowVersion: null }
    const params = { ...at, organismId: 'codling-moth' }
    done(await app.call(scouting.setRule, params, input, as))
    const sampling = done(await app.call(watches.organisms, at, {})).find(({ id }) => id === 'codling-moth')!.sampling
    expect(sampling).toMatchObject({ unit: 'single fruit', units: 'single fruits', itemsPerUnit: 1, suggestedUnits: 10 })
    const ten = Array.from({ length: 10 }, (_, i) => (i === 0 ? { 'fresh-entry': 1 } : {}))
    expect(await count('codling-moth', ten, '2026-06-12')).toMatchObject({ per100: 10, unit: { one: 'single fruit', items: 1 } })
    expect(await rounds('codling-moth')).toContainEqual(library)
    expect(library.unit.items).toBeGreaterThan(1)
    // Whoever began to count by the tree before the rule was set has counted trees.
    const [moth] = (await rounds('codling-moth')).map(({ watchId }) => watchId)
    const trees = { watchId: moth!, countedOn: '2026-06-12', units: [{ 'fresh-entry': 1 }], unit: library.unit }
    expect(done(await app.call(scouting.create, at, trees, as))).toMatchObject({ per100: 100 / library.unit.items, unit: library.unit })
    // Of single fruits a hundred found on one are still one fruit of one.
    expect(
      done(await app.call(scouting.setRule, { ...at, organismId: 'european-red-mite' }, { ...input, weights: {} }, as)).rowVersion,
    ).toBe(1)
    expect(await count('european-red-mite', [{ mite: 40 }, { mite: 0 }])).toMatchObject({ effective: [1, 0], per100: 50 })
  })

  test('is told what is wrong with it', async () => {
    expect((await rule({ grub: 1 }, 3)).problem.fields?.[0]?.path).toBe('weights.grub')
    expect((await rule({ small: 0, large: 0, adult: 0, egg: 0 }, 3)).problem.fields?.[0]?.message).toBe('let at least one class count')
    expect((await rule({ small: 1 })).status).toBe(409)
  })
})

describe('a decision to leave it', () => {
  const decision = async (organism: string) =>
    done(await app.call(watches.band, at, { season: SEASON })).watches.find(({ watch }) => watch.id === ids[organism])!.decision
  const leave = (roundId: string, more: object = {}) =>
    app.call(scouting.decide, at, { roundId, kind: 'tolerate', reason: 'sold for juice', lookAgainOn: '2026-06-19', ...more }, as)

  beforeAll(async () => {
    await app.database.query("REPLACE INTO demo_clock (only_row, now_at) VALUES (1, '2026-06-14 14:30:00')")
    await setThreshold('codling-moth', 2)
  })

  test('rests on its last count and holds until there is a later one', async () => {
    const over = await count('codling-moth', [{ 'fresh-entry': 6 }], '2026-06-13')
    const { id } = done(await leave(over.id))
    expect(await decision('codling-moth')).toMatchObject({
      id,
      kind: 'tolerate',
      reason: 'sold for juice',
      decidedOn: '2026-06-14',
    })
    const later = await count('codling-moth', [{ 'fresh-entry': 7 }], '2026-06-14')
    expect(await decision('codling-moth')).toBeNull()
    done(await app.call(scouting.remove, { ...at, roundId: later.id }, { rowVersion: 1 }, as))
    expect(await decision('codling-moth')).toMatchObject({ id })
    done(await app.call(scouting.removeDecision, { ...at, decisionId: id }, { rowVersion: 1 }, as))
    expect(await decision('codling-moth')).toBeNull()
    done(await app.call(scouting.restoreDecision, { ...at, decisionId: id }, { rowVersion: 2 }, as))
    expect(await decision('codling-moth')).toMatchObject({ id, rowVersion: 3 })
  })

  test('is refused where there is nothing to leave, where all is to go, without a day soon, and twice', async () => {
    const fields = async (answer: ReturnType<typeof leave>) => (await answer).problem.fields?.map(({ path }) => path)
    const [under, over] = [
      await count('codling-moth', [{}], '2026-06-12'),
      await count('codling-moth', [{ 'fresh-entry': 8 }], '2026-06-12'),
    ]
    expect(await fields(leave(under.id))).toEqual(['roundId'])
    const balsam = await count('himalayan-balsam', [{ grown: 1 }], '2026-06-12')
    expect(await fields(leave(balsam.id))).toEqual(['kind'])
    expect(await fields(leave(over.id, { lookAgainOn: '2026-06-14' }))).toEqual(['lookAgainOn'])
    expect(await fields(leave(over.id, { lookAgainOn: '2026-09-01' }))).toEqual(['lookAgainOn'])
    expect(await fields(leave(over.id, { reason: '' }))).toEqual(['reason'])
    done(await leave(over.id, { kind: 'enemies', reason: 'lady beetle larvae on every second plant' }))
    expect(await fields(leave(over.id))).toEqual(['roundId'])
  })
})
