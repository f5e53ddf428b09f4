import type { Block, Label, Organism } from '@bocado/contract'
import { rateFor, targetGate, type GateVerdict } from '@bocado/core'

export type { GateVerdict }
export { rateFor }

/** Whether a product is for an organism in a block, by the library and by what its label names. */
export const gateOf = (
  product: Pick<Label, 'methods' | 'strain' | 'stages' | 'targets' | 'crops' | 'places'>,
  organism: Pick<Organism, 'id' | 'reach'>,
  block: Pick<Block, 'grows' | 'kind'>,
): GateVerdict => targetGate(product, { organism: organism.id, reach: organism.reach, grows: block.grows, place: block.kind })
