import type { Block, Organism, Product } from '@bocado/contract'
import { useMemo } from 'react'
import { useBlocks, useOrganisms, useProducts } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { gateOf, type GateVerdict } from '../band/gate.js'

/** A product with what it may be planned for. */
export interface Shelved<V extends GateVerdict['verdict'] = GateVerdict['verdict']> {
  product: Product
  gate: Extract<GateVerdict, { verdict: V }>
}

/** The shelf as it stands to one target: what is for it, the best first; what nobody has said enough of; and what is not for it. */
export interface ShelfFor {
  fits: Shelved<'fits'>[]
  doubtful: Shelved<'doubtful'>[]
  refused: Shelved<'refused'>[]
}

export function shelfFor(products: readonly Product[], organism: Organism | undefined, block: Block | undefined): ShelfFor {
  const shelf: ShelfFor = { fits: [], doubtful: [], refused: [] }
  if (!organism || !block) return shelf
  for (const product of products) {
    const gate = gateOf(product, organism, block)
    if (gate.verdict === 'fits') shelf.fits.push({ product, gate })
    else if (gate.verdict === 'doubtful') shelf.doubtful.push({ product, gate })
    else shelf.refused.push({ product, gate })
  }
  shelf.fits.sort((a, b) => b.product.effect - a.product.effect)
  return shelf
}

/** The shelf of the site as it stands to an organism in a block. */
export function useShelfFor({ organismId, blockId }: { organismId: string; blockId: string }): ShelfFor & { block: Block | undefined } {
  const site = useSite()
  const { data: products } = useProducts(site.id)
  const { data: organisms } = useOrganisms()
  const { data: blocks } = useBlocks(site.id)
  const block = blocks?.find(({ id }) => id === blockId)
  const organism = organisms?.find(({ id }) => id === organismId)
  return useMemo(() => ({ ...shelfFor(products ?? [], organism, block), block }), [products, organism, block])
}
