import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { growsAny, targetGate, type GatedProduct, type GateTarget } from './targetGate.js'

const product = (changes: Partial<GatedProduct> = {}): GatedProduct => ({
  methods: ['bt'],
  strain: 'caterpillars',
  stages: ['young-larva', 'larva'],
  targets: [],
  crops: [],
  places: [],
  ...changes,
})
const target = (changes: Partial<GateTarget> = {}): GateTarget => ({
  organism: 'grape-berry-moth',
  reach: [
    { method: 'bt', stages: ['young-larva'], strains: ['caterpillars'] },
    { method: 'bt', stages: ['pupa'], strains: ['gnats'] },
    { method: 'spinosyn', stages: ['young-larva'] },
  ],
  grows: 'wine grape',
  place: 'vineyard',
  ...changes,
})

describe('a product against a target', () => {
  test('fits with the stages that both its label and the entry name', () => {
    expect(targetGate(product(), target())).toEqual({ verdict: 'fits', methods: ['bt'], stages: ['young-larva'] })
    const both = product({ methods: ['bt', 'spinosyn'], stages: ['young-larva', 'pupa'] })
    expect(targetGate(both, target())).toEqual({ verdict: 'fits', methods: ['bt', 'spinosyn'], stages: ['young-larva'] })
  })

  test('is refused for the first thing that stands against it', () => {
    const because = (p: Partial<GatedProduct>, t: Partial<GateTarget> = {}) => {
      const verdict = targetGate(product(p), target(t))
      return verdict.verdict === 'fits' ? 'fits' : verdict.because
    }
    expect(because({ targets: ['codling-moth'] })).toBe('target-not-on-label')
    expect(because({ places: ['tunnel'] })).toBe('place-not-on-label')
    expect(because({ crops: ['apple'] })).toBe('crop-not-on-label')
    expect(because({ methods: ['sulphur'] })).toBe('no-way-to-act')
    expect(because({ strain: 'leaf-beetles' })).toBe('other-strain')
    expect(because({ stages: ['adult'] })).toBe('no-stage')
  })

  test('is doubtful where nobody has said what it is, and a label that names something else refuses all the same', () => {
    expect(targetGate(product({ methods: [] }), target())).toEqual({ verdict: 'doubtful', because: 'unmapped' })
    expect(targetGate(product({ strain: null }), target())).toEqual({ verdict: 'doubtful', because: 'strain-not-said' })
    expect(targetGate(product({ methods: [], targets: ['codling-moth'] }), target()).verdict).toBe('refused')
  })

  test('never reaches a stage that either its label or the entry does not name', () => {
    const stage = fc.constantFrom('egg', 'young-larva', 'larva', 'pupa', 'adult')
    fc.assert(
      fc.property(fc.array(stage), fc.array(stage, { minLength: 1 }), (onLabel, reached) => {
        const verdict = targetGate(
          product({ stages: onLabel }),
          target({ reach: [{ method: 'bt', stages: reached, strains: ['caterpillars'] }] }),
        )
        if (verdict.verdict !== 'fits') return !onLabel.some((s) => reached.includes(s))
        return verdict.stages.every((s) => onLabel.some((l) => l === s) && reached.some((r) => r === s)) && verdict.stages.length > 0
      }),
    )
  })
})

test.each([
  ['apple, 1988, on seedling stock', ['Apples'], true],
  ['sweet corn in three sowings', ['sweet corn'], true],
  ['corn for the mill', ['sweet corn'], false],
  ['peach, nectarine', ['nectarines', 'plums'], true],
  ['pepper and ornamentals', ['ornamental'], true],
  ['grapefruit', ['grape'], false],
  ['tomatoes', ['tomato'], true],
  ['cherries', ['cherry'], true],
  ['hay, wild flowers', ['', ' '], false],
])('%s is one of %j: %s', (grows, crops, is) => expect(growsAny(grows, crops)).toBe(is))
