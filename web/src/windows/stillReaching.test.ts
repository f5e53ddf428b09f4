import { describe, expect, test } from 'vitest'
import type { Means } from '../band/means.js'
import { byReach, missingKinds } from './StillReaching.js'
import type { WayThen } from './wayThen.js'

const way = (name: string, share: number | null, more: { other?: number; doubtful?: boolean } = {}): WayThen => {
  const bounds = (p50: number) => ({ generation: 'first', bounds: { p10: p50, p50, p90: p50 } })
  const means = { key: name, name } as Means
  const offer: WayThen['offer'] = more.doubtful
    ? { means, gate: { verdict: 'doubtful' as const, because: 'unmapped' as const } }
    : { means, gate: { verdict: 'fits' as const, methods: [], stages: ['egg'] } }
  return {
    offer,
    reached: share === null ? undefined : bounds(share),
    other: more.other === undefined ? undefined : bounds(more.other),
  }
}
const kinds = { spray: 'chemical', virus: 'biological', sweep: 'cultural', cover: 'prevention' } as const
const sorted = (ways: WayThen[]): string[] =>
  byReach(ways, ({ name }) => kinds[name as keyof typeof kinds]).map(({ offer }) => offer.means.name)

describe('ways to act', () => {
  test('stand by what they reach', () => {
    expect(sorted([way('cover', 0.1), way('spray', 0.4), way('sweep', 0.25)])).toEqual(['spray', 'sweep', 'cover'])
  })

  test('of two that reach as much the gentler stands first', () => {
    expect(sorted([way('spray', 0.301), way('virus', 0.299), way('cover', 0.3)])).toEqual(['cover', 'virus', 'spray'])
  })

  test('a chemical stands behind everything else that reaches it where the site uses them last', () => {
    const ways = [way('spray', 0.9), way('sweep', 0.1), way('cover', null)]
    const names = byReach(ways, ({ name }) => kinds[name as keyof typeof kinds], true).map(({ offer }) => offer.means.name)
    expect(names).toEqual(['sweep', 'cover', 'spray'])
  })

  test('what reaches another generation stands before what reaches none, and what nobody has said enough of is last', () => {
    expect(
      sorted([way('unknown', null, { doubtful: true }), way('sweep', null), way('virus', null, { other: 0.9 }), way('spray', 0.01)]),
    ).toEqual(['spray', 'virus', 'sweep', 'unknown'])
  })
})

test('kinds of product that reach it and are not on the shelf are named; what is done by hand is not', () => {
  const method = (id: string, product = true) => ({ id, name: `the ${id}`, product })
  const reach = (ids: readonly string[]) => ids.map((id) => ({ method: id, stages: ['egg'] }))
  const shelf = [{ means: { product: { methods: ['spray'] } } as never }, { means: { product: null } }]
  const methods = [method('spray'), method('virus'), method('oil'), method('sweep', false)]
  expect(missingKinds({ reach: reach(['spray', 'virus', 'sweep']) } as never, shelf, methods)).toEqual(['the virus'])
  expect(missingKinds({ reach: reach(['spray']) } as never, shelf, methods)).toEqual([])
})
