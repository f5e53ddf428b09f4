import type { Block, Method, Organism, Product, Treatment } from '@bocado/contract'
import { assumedAction } from '@bocado/core'
import { gateOf, type GateVerdict } from './gate.js'

type Does = Pick<NonNullable<Treatment['done']>['does'], 'effect' | 'residualDays' | 'assumed'>

/** What a deed is done with: a product of the shelf, or a method by hand. */
export interface Means {
  /** One id for both, as a list of choices takes it. */
  key: string
  name: string
  /** Null where it is done by hand. */
  product: Product | null
  methodId: string | null
  does: Does
}

export const productMeans = (product: Product): Means => ({
  key: `product ${product.id}`,
  name: product.name,
  product,
  methodId: null,
  does: product,
})

export const handMeans = (method: Pick<Method, 'id' | 'name' | 'kind' | 'lasting' | 'lasts'>): Means => ({
  key: keyOfMethod(method.id),
  name: method.name,
  product: null,
  methodId: method.id,
  does: {
    ...assumedAction([{ kind: method.kind, lasting: method.lasting, lastsDays: method.lasts?.value ?? null }]),
    assumed: ['effect', 'residualDays'],
  },
})

export const keyOfMethod = (methodId: string): string => `method ${methodId}`

/** The key of what a planned deed is done with. */
export const keyOf = ({ productId, methodId }: Pick<Treatment, 'productId' | 'methodId'>): string =>
  productId === null ? keyOfMethod(methodId ?? '') : `product ${productId}`

/** What is stored of it. */
export const idsOf = (means: Means | undefined): { productId: string | null; methodId: string | null } => ({
  productId: means?.product?.id ?? null,
  methodId: means?.methodId ?? null,
})

/** Whether it is for an organism in a block; what is done by hand is, wherever its entry names the way. */
export function meansGate(
  means: Means,
  organism: Pick<Organism, 'id' | 'reach' | 'stages'>,
  block: Pick<Block, 'grows' | 'kind'>,
): GateVerdict {
  if (means.product) return gateOf(means.product, organism, block)
  const stages = organism.stages.map(({ id }) => id)
  return gateOf({ methods: [means.methodId ?? ''], strain: null, stages, targets: [], crops: [], places: [] }, organism, block)
}

/** Which of the two numbers is a guess, as the sentence that says so takes it. */
export const whichAssumed = (assumed: Does['assumed']): 'both' | 'effect' | 'residualDays' =>
  assumed.length > 1 ? 'both' : (assumed[0] ?? 'both')
