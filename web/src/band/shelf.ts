import type { Block, Method, Organism, Product } from '@bocado/contract'
import type { GateVerdict } from './gate.js'
import { handMeans, meansGate, productMeans, type Means } from './means.js'
import { ruledMeans } from './rules.js'

/** What may be done with, and what it may be planned for. */
export interface Offered<V extends GateVerdict['verdict'] = GateVerdict['verdict']> {
  means: Means
  gate: Extract<GateVerdict, { verdict: V }>
}

/** What the site's own way with chemicals rules out. */
export interface RuledOut {
  means: Means
  gate: { verdict: 'refused'; because: 'site-uses-none' }
}

/**
 * What one can act with against one target: products that are for it, the best first; what is done by hand; what nobody has said enough of;
 * and what is not for it.
 */
export interface ShelfFor {
  fits: Offered<'fits'>[]
  byHand: Offered<'fits'>[]
  doubtful: Offered<'doubtful'>[]
  refused: (Offered<'refused'> | RuledOut)[]
}

export function shelfFor(
  products: readonly Product[],
  methods: readonly Method[],
  organism: Organism | undefined,
  block: Block | undefined,
  usesNone = false,
): ShelfFor {
  const shelf: ShelfFor = { fits: [], byHand: [], doubtful: [], refused: [] }
  if (!organism || !block) return shelf
  for (const product of products) {
    const means = productMeans(product)
    const gate = meansGate(means, organism, block)
    if (usesNone && gate.verdict !== 'refused' && ruledMeans(means, methods).chemical)
      shelf.refused.push({ means, gate: { verdict: 'refused', because: 'site-uses-none' } })
    else if (gate.verdict === 'fits') shelf.fits.push({ means, gate })
    else if (gate.verdict === 'doubtful') shelf.doubtful.push({ means, gate })
    else shelf.refused.push({ means, gate })
  }
  shelf.fits.sort((a, b) => b.means.does.effect - a.means.does.effect)
  for (const method of methods) {
    if (method.product) continue
    const means = handMeans(method)
    const gate = meansGate(means, organism, block)
    if (gate.verdict === 'fits') shelf.byHand.push({ means, gate })
  }
  return shelf
}
