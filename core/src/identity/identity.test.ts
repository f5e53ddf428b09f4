import { describe, expect, test } from 'vitest'
import {
  burningStill,
  identityVerdict,
  needsTouch,
  nextObservations,
  NONE_OF_THESE,
  rankSuspects,
  rankWithUnknown,
  type Candidate,
  toldApart,
  type Character,
  type CharacterAnswer,
} from './index.js'

const sign = (part: string, name: string, typical: number, months = [6, 7, 8]) => ({ part, sign: name, typical, months })
const borer: Candidate = { id: 'borer', prior: 1, signs: [sign('stem', 'frass', 0.9), sign('plant', 'wilt', 0.8)] }
const bug: Candidate = { id: 'bug', prior: 1, signs: [sign('leaf', 'eggs', 0.8), sign('plant', 'wilt', 0.5)] }
const drought: Candidate = { id: 'drought', prior: 2, signs: [sign('plant', 'wilt', 0.8, [5, 6, 7, 8, 9])] }
const all = [borer, bug, drought]
const wilt = { part: 'plant', sign: 'wilt', seen: true }

describe('suspects', () => {
  test('worked by hand: wilting alone speaks for what is commonest', () => {
    const ranked = rankSuspects(all, [wilt], { month: 7 })
    // 1 × 0.8, 1 × 0.5, 2 × 0.8 of 2.9
    expect(ranked.map(({ id }) => id)).toEqual(['drought', 'borer', 'bug'])
    expect(ranked[0]!.probability).toBeCloseTo(1.6 / 2.9, 9)
    expect(ranked.reduce((sum, { probability }) => sum + probability, 0)).toBeCloseTo(1, 9)
  })

  test('frass at the stem is the observation that separates them best; seen it names the borer, not seen it clears it', () => {
    const [next] = nextObservations(all, [wilt], { month: 7 })
    expect(next).toMatchObject({ part: 'stem', sign: 'frass', shownBy: ['borer'] })
    expect(next!.gain).toBeGreaterThan(0.3)
    const frass = (seen: boolean) => rankSuspects(all, [wilt, { part: 'stem', sign: 'frass', seen }], { month: 7 })
    expect(frass(true)[0]).toMatchObject({ id: 'borer' })
    expect(frass(true)[0]!.probability).toBeGreaterThan(0.85)
    expect(frass(false).find(({ id }) => id === 'borer')!.probability).toBeLessThan(0.06)
  })

  test('what was looked for is not asked again, and no gain is below nothing', () => {
    const asked = [wilt, { part: 'stem', sign: 'frass', seen: false }]
    const next = nextObservations(all, asked, { month: 7 }, 10)
    expect(next.map(({ part, sign: s }) => `${part} ${s}`)).toEqual(['leaf eggs'])
    for (const { gain } of next) expect(gain).toBeGreaterThanOrEqual(0)
  })

  test('out of season, or on another part, a sign speaks for less', () => {
    const of = (month: number, part = 'stem') =>
      rankSuspects([borer, bug], [{ part, sign: 'frass', seen: true }], { month }).find(({ id }) => id === 'borer')!.probability
    expect(of(7)).toBeGreaterThan(of(9))
    expect(of(9)).toBeGreaterThan(of(1))
    expect(of(7)).toBeGreaterThan(of(7, 'leaf'))
    expect(of(7, 'leaf')).toBeGreaterThan(0.5)
  })

  test('what lies open is asked before what has to be dug up, where both tell about as much', () => {
    const mark = (part: string, sign: string) => ({ part, sign, months: [6], typical: 0.9 })
    const pair: Candidate[] = [
      { id: 'a', prior: 1, signs: [mark('root', 'tubers'), mark('leaf', 'glossy')] },
      { id: 'b', prior: 1, signs: [mark('root', 'creeping')] },
    ]
    expect(nextObservations(pair, [], { month: 6 }).map(({ part }) => part)).toEqual(['leaf', 'root', 'root'])
    // Where only the root tells them apart, it is asked.
    const below: Candidate[] = pair.map((c) => ({ ...c, signs: c.signs.filter(({ part }) => part === 'root') }))
    expect(nextObservations(below, [], { month: 6 })[0]!.part).toBe('root')
  })

  test('names what is wrong', () => {
    expect(() => rankSuspects(all, [], { month: 13 })).toThrow(/month must be 1 to 12, got 13/)
    expect(() => rankSuspects([{ ...bug, prior: 0 }], [], { month: 5 })).toThrow(/candidate\.prior.*bug/)
  })
})

describe('look-alikes', () => {
  const characters: Character[] = [
    { id: 'stem', others: ['hemlock'], decisive: true, by: 'sight' },
    { id: 'flower', others: ['hemlock', 'cow-parsnip'], decisive: true, by: 'sight' },
    { id: 'smell', others: ['alexanders'], decisive: false, by: 'touch' },
  ]
  const likes = ['hemlock', 'cow-parsnip', 'alexanders']

  test('match only once each of them is ruled out', () => {
    expect(identityVerdict(characters, likes, {})).toEqual({
      verdict: 'unsure',
      open: likes,
      likely: [],
      ask: ['flower', 'stem', 'smell'],
      later: [],
    })
    expect(identityVerdict(characters, likes, { stem: 'here', flower: 'here' })).toMatchObject({ verdict: 'unsure', open: ['alexanders'] })
    expect(identityVerdict(characters, likes, { flower: 'here', smell: 'here' })).toMatchObject({ verdict: 'matches', ask: ['stem'] })
  })

  test('one decisive character against it settles it, and names what it may be instead', () => {
    const { verdict, likely } = identityVerdict(characters, likes, { stem: 'here', flower: 'others', smell: 'here' })
    expect(verdict).toBe('does-not-match')
    expect(likely).toEqual(['cow-parsnip'])
  })

  test('a doubt, or a weak character against it, leaves it unsure', () => {
    expect(identityVerdict(characters, likes, { stem: 'unsure', flower: 'here', smell: 'others' }).verdict).toBe('unsure')
    expect(identityVerdict(characters, likes, { stem: 'unsure', flower: 'unsure', smell: 'here' }).verdict).toBe('unsure')
  })
})

describe('what is not in the library', () => {
  const seen = (part: string, name: string) => ({ part, sign: name, seen: true })

  test('is a suspect of its own: small while something fits, first where nothing does', () => {
    const fitting = rankWithUnknown(all, [seen('stem', 'frass'), seen('plant', 'wilt')], { month: 7 })
    expect(fitting.nothingFits).toBe(false)
    expect(fitting.ranked[0]!.id).toBe('borer')
    expect(fitting.ranked.find(({ id }) => id === NONE_OF_THESE)!.probability).toBeLessThan(0.05)
    const strange = rankWithUnknown(all, [seen('root', 'gall'), seen('leaf', 'mines')], { month: 7 })
    expect(strange).toMatchObject({ nothingFits: true, ranked: [{ id: NONE_OF_THESE }, {}, {}, {}] })
    expect(strange.ranked.reduce((sum, { probability }) => sum + probability, 0)).toBeCloseTo(1, 9)
  })

  test('is not claimed after a single sign', () => {
    expect(rankWithUnknown(all, [seen('fruit', 'scars')], { month: 7 }).nothingFits).toBe(false)
  })
})

describe('what has to be touched', () => {
  const mark = (part: string, name: string, typical = 0.9) => ({ part, sign: name, months: [6], typical })
  const harmless: Candidate = { id: 'harmless', prior: 1, signs: [mark('root', 'tubers'), mark('leaf', 'glossy')] }
  const burning: Candidate = { id: 'burning', prior: 1, burns: true, signs: [mark('root', 'tap-root'), mark('stem', 'angled')] }
  const pair = [harmless, burning]

  test('is asked only once everything that burns is excluded by sight', () => {
    expect(burningStill(pair, [], { month: 6 })).toEqual(['burning'])
    expect(nextObservations(pair, [], { month: 6 }, 10).some(needsTouch)).toBe(false)
    const looked = [
      { part: 'leaf', sign: 'glossy', seen: true },
      { part: 'stem', sign: 'angled', seen: false },
    ]
    expect(burningStill(pair, looked, { month: 6 })).toEqual([])
    expect(nextObservations(pair, looked, { month: 6 }, 10).some(needsTouch)).toBe(true)
  })

  test('of an organism that burns, or may be one that does, comes later', () => {
    const two: Character[] = [
      { id: 'stem', others: ['hemlock'], decisive: true, by: 'sight' },
      { id: 'smell', others: ['hemlock', 'alexanders'], decisive: true, by: 'touch' },
    ]
    const may = { itself: false, lookAlikes: ['hemlock'] }
    const likely = ['hemlock', 'alexanders']
    expect(identityVerdict(two, likely, {}, may)).toMatchObject({ ask: ['stem'], later: ['smell'] })
    expect(identityVerdict(two, likely, { stem: 'unsure' }, may)).toMatchObject({ ask: [], later: ['smell'] })
    expect(identityVerdict(two, likely, { stem: 'here' }, may)).toMatchObject({ ask: ['smell'], later: [] })
    const itself = { itself: true, lookAlikes: [] }
    expect(identityVerdict(two, likely, { stem: 'here' }, itself)).toMatchObject({ ask: [], later: ['smell'] })
    expect(identityVerdict(two, likely, { stem: 'others' }, itself)).toMatchObject({ later: [] })
  })
})

describe('a look-alike that is to be protected', () => {
  const character = (id: string, others: string[], more: Partial<Character> = {}): Character => ({
    id,
    others,
    decisive: true,
    by: 'sight',
    ...more,
  })
  const stem = character('stem', ['native-thistles'])
  const sap = character('sap', ['sow-thistle'], { by: 'touch' })
  const root = character('root', ['native-thistles'], { by: 'touch' })
  const lookAlikes = [
    { id: 'native-thistles', status: 'native' },
    { id: 'sow-thistle', status: 'weed' },
  ]
  const told = (answers: Record<string, CharacterAnswer>, characters = [sap, root, stem], mayTouch = true) =>
    toldApart(characters, lookAlikes, answers, mayTouch)

  test('is asked for by the one character that decides, by sight where that can be', () => {
    expect(told({})).toMatchObject({ state: 'ask', character: { id: 'stem' }, open: ['native-thistles'] })
    expect(told({ sap: 'here' })).toMatchObject({ state: 'ask' })
    expect(told({ stem: 'here' })).toMatchObject({ state: 'clear' })
  })
  test('stops what is planned where a character speaks for it, or nobody can tell', () => {
    expect(told({ stem: 'others' })).toMatchObject({ state: 'other', open: ['native-thistles'] })
    expect(told({ stem: 'unsure' })).toMatchObject({ state: 'ask', character: { id: 'root' } })
    expect(told({ stem: 'unsure', root: 'unsure' })).toMatchObject({ state: 'unsure' })
  })
  test('is never asked for by touch while something may burn', () => {
    expect(told({}, [sap, root], false)).toMatchObject({ state: 'unsure' })
  })
  test('is not there: nothing is asked', () => {
    expect(toldApart([sap], [{ id: 'sow-thistle', status: 'weed' }], {}, true).state).toBe('clear')
  })
})
