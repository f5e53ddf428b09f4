import { endpoints, type Block, type WatchForecast } from '@bocado/contract'
import { useMemo } from 'react'
import { useBlocks, useOrganisms, useProducts, useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import type { Planning } from './usePlanning.js'
import { keyOf, type Means } from '../band/means.js'
import { shelfFor, type Offered, type ShelfFor } from '../band/shelf.js'

export type { Offered }

export interface ShelfHere extends ShelfFor {
  block: Block | undefined
  /** All is there that it is made of. */
  known: boolean
}

/** What one can act with against an organism in a block: the shelf, and what is done by hand. */
export function useShelfFor({ organismId, blockId }: { organismId: string; blockId: string }): ShelfHere {
  const site = useSite()
  const usesNone = site.policy.chemicals === 'never'
  const { data: products } = useProducts(site.id)
  const { data: methods } = useMethods()
  const { data: organisms } = useOrganisms()
  const { data: blocks } = useBlocks(site.id)
  const block = blocks?.find(({ id }) => id === blockId)
  const organism = organisms?.find(({ id }) => id === organismId)
  const known = products !== undefined && methods !== undefined && organism !== undefined && block !== undefined
  return useMemo(
    () => ({ ...shelfFor(products ?? [], methods ?? [], organism, block, usesNone), block, known }),
    [usesNone, products, methods, organism, block, known],
  )
}

/** Ways to act of the library and of the site's own. */
export function useMethods() {
  const site = useSite()
  return useRead(endpoints.library.methods, { params: { siteId: site.id }, input: {} })
}

/** Everything that may be taken, as it is thought of first: in a garden and on land the hand comes before the label. */
export function useOffered({ byHand, fits, doubtful }: ShelfFor): (Offered<'fits'> | Offered<'doubtful'>)[] {
  const { kind } = useSite()
  const handFirst = ['garden', 'land'].includes(kind)
  return useMemo(
    () => (handFirst ? [...byHand, ...fits, ...doubtful] : [...fits, ...byHand, ...doubtful]),
    [byHand, fits, doubtful, handFirst],
  )
}

/** What is taken of it: what somebody chose, what was used here before, or what is thought of first. */
export function chosenOf<T extends { means: Means }>(
  offered: readonly T[],
  { treatments }: Pick<WatchForecast, 'treatments'>,
  { means, moving }: Pick<Planning, 'means' | 'moving'>,
): T | undefined {
  const before = treatments.at(-1)
  const wanted = means ?? (moving ? keyOf(moving) : before ? keyOf(before) : null)
  return offered.find((one) => one.means.key === wanted) ?? offered[0]
}
