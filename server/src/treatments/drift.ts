import type { Block } from '@bocado/contract'
import { driftReach, type ActingMeans } from '@bocado/core'

/** How far down the wind of a block what is used there matters, m; null for what has no drops, and under a cover, out of which none come. */
export const driftOf = ({ kind }: Pick<Block, 'kind'>, product: ActingMeans['product']): number | null =>
  kind === 'tunnel' ? null : driftReach(product)
