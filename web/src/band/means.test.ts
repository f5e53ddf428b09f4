import type { Method, Organism, Product } from '@bocado/contract'
import { describe, expect, test } from 'vitest'
import { handMeans, idsOf, keyOf, meansGate, productMeans } from './means.js'
import { shelfFor } from './shelf.js'

const moth = {
  id: 'codling-moth',
  stages: [{ id: 'young-larva' }, { id: 'larva' }],
  reach: [
    { method: 'granulosis-virus', stages: ['young-larva'] },
    { method: 'fallen-fruit', stages: ['larva'] },
  ],
} as unknown as Organism
const orchard = { grows: 'apple', kind: 'orchard' } as const
const method = (id: string, changes: Partial<Method> = {}): Method =>
  ({ id, name: id, kind: 'cultural', lasting: false, product: false, ...changes }) as Method
const product = (changes: Partial<Product> = {}): Product =>
  ({
    id: 'p1',
    name: 'Granule C',
    methods: ['granulosis-virus'],
    strain: null,
    stages: ['young-larva'],
    targets: [],
    crops: [],
    places: [],
    effect: 0.75,
    residualDays: 8,
    assumed: [],
    ...changes,
  }) as Product

describe('what a deed is done with', () => {
  test('by hand reaches the stages that the entry names for it, whatever stands on the shelf', () => {
    expect(meansGate(handMeans(method('fallen-fruit')), moth, orchard)).toMatchObject({ verdict: 'fits', stages: ['larva'] })
    expect(meansGate(handMeans(method('tillage')), moth, orchard)).toEqual({ verdict: 'refused', because: 'no-way-to-act' })
  })

  test('goes by one key, and is stored as one of both', () => {
    const hand = handMeans(method('fallen-fruit'))
    expect(keyOf({ productId: null, methodId: 'fallen-fruit' })).toBe(hand.key)
    expect(idsOf(hand)).toEqual({ productId: null, methodId: 'fallen-fruit' })
    expect(idsOf(productMeans(product()))).toEqual({ productId: 'p1', methodId: null })
    expect(keyOf({ productId: 'p1', methodId: null })).toBe(productMeans(product()).key)
  })

  test('by hand says that its effect is a guess; by a label it does not', () => {
    expect(handMeans(method('fallen-fruit')).does.assumed).toEqual(['effect', 'residualDays'])
    expect(productMeans(product()).does.assumed).toEqual([])
  })
})

test('what is offered against a target: products that are for it, then what is done by hand; a method with a label only as a product', () => {
  const methods = [method('fallen-fruit'), method('tillage'), method('granulosis-virus', { product: true })]
  const shelf = shelfFor([product(), product({ id: 'p2', name: 'Terrace sulphur', methods: ['sulphur'] })], methods, moth, orchard as never)
  expect(shelf.fits.map(({ means }) => means.name)).toEqual(['Granule C'])
  expect(shelf.byHand.map(({ means }) => means.name)).toEqual(['fallen-fruit'])
  expect(shelf.refused.map(({ means }) => means.name)).toEqual(['Terrace sulphur'])
})
