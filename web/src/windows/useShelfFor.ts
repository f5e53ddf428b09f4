import { endpoints, type Block, type Method, type Organism, type Product } from '@bocado/contract'
import { useMemo } from 'react'
import { useBlocks, useOrganisms, useProducts, useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import type { GateVerdict } from '../band/gate.js'
import { handMeans, meansGate, productMeans, type Means } from '../band/means.js'

/** What may be done with, and what it may be planned for. */
export interface Offered<V extends GateVerdict['verdict'] = GateVerdict['verdict']> {
  means: Means
  gate: Extract<GateVerdict, { verdict: V }>
}

/**
 * What one can act with against one target: products that are for it, the best first; what is done by hand; what nobody has said enough of;
 * and what is not for it.
 */
export interface ShelfFor {
  fits: Offered<'fits'>[]
  byHand: Offered<'fits'>[]
  doubtful: Offered<'doubtful'>[]
  refused: Offered<'refused'>[]
}

export function shelfFor(
  products: readonly Product[],
  methods: readonly Method[],
  organism: Organism | undefined,
  block: Block | undefined,
): ShelfFor {
  const shelf: ShelfFor = { fits: [], byHand: [], doubtful: [], refused: [] }
  if (!organism || !block) return shelf
  for (const product of products) {
    const means = productMeans(product)
    const gate = meansGate(means, organism, block)
    if (gate.verdict === 'fits') shelf.fits.push({ means, gate })
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

/** What one can act with against an organism in a block: the shelf, and what is done by hand. */
export function useShelfFor({ organismId, blockId }: { organismId: string; blockId: string }): ShelfFor & {
  block: Block | undefined
  /** All is there that it is made of. */
  known: boolean
} {
  const site = useSite()
  const { data: products } = useProducts(site.id)
  const { data: methods } = useMethods()
  const { data: organisms } = useOrganisms()
  const { data: blocks } = useBlocks(site.id)
  const block = blocks?.find(({ id }) => id === blockId)
  const organism = organisms?.find(({ id }) => id === organismId)
  const known = products !== undefined && methods !== undefined && organism !== undefined && block !== undefined
  return useMemo(
    () => ({ ...shelfFor(products ?? [], methods ?? [], organism, block), block, known }),
    [products, methods, organism, block, known],
  )
}

/** Ways to act of the library and of the site's own. */
export function useMethods() {
  const site = useSite()
  return useRead(endpoints.library.methods, { params: { siteId: site.id }, input: {} })
}
