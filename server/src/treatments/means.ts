import type { Label, ParsedInputOf, Treatment, treatments } from '@bocado/contract'
import { assumedAction, type GateVerdict } from '@bocado/core'
import type { Method, Organism } from '@bocado/library'
import type { Queryable } from '../database/index.js'
import { fieldProblem } from '../http/problems.js'
import { methodsByIds } from '../library/catalogue.js'
import { gateFor } from './gate.js'

export type Does = NonNullable<Treatment['done']>['does']

/** What was kept of a method when it was done by hand. */
export type MethodThen = { name: string } & Does

/** What a method does against nobody's label: guesses by its kind. */
export function doesByKind(methods: readonly Method[]): Does {
  return {
    methods: methods.map(({ id }) => id),
    ...assumedAction(methods.map(({ kind, lasting, lasts }) => ({ kind, lasting, lastsDays: lasts?.value ?? null }))),
    assumed: ['effect', 'residualDays'],
  }
}

export const doesByLabel = ({ methods, effect, residualDays, assumed }: Label): Does => ({ methods, effect, residualDays, assumed })

/** The effect and residue of a product as they were given; a guess by what it is where nobody gave them. */
export async function actionOf(
  db: Queryable,
  siteId: string,
  { methods: ids, effect, residualDays }: Pick<ParsedInputOf<typeof treatments.addProduct>, 'methods' | 'effect' | 'residualDays'>,
): Promise<Pick<Does, 'effect' | 'residualDays' | 'assumed'>> {
  if (effect !== null && residualDays !== null) return { effect, residualDays, assumed: [] }
  const methods = await methodsByIds(db, siteId, ids)
  if (methods.length === 0) throw fieldProblem('methods', 'say what it is: a guess of what it does comes from that')
  const guess = doesByKind(methods)
  return {
    effect: effect ?? guess.effect,
    residualDays: residualDays ?? guess.residualDays,
    assumed: [...(effect === null ? (['effect'] as const) : []), ...(residualDays === null ? (['residualDays'] as const) : [])],
  }
}

/** A method that is done by hand: one with a label is planned as the product that stands on the shelf. */
export async function requireHandMethod(db: Queryable, siteId: string, methodId: string): Promise<Method> {
  const [method] = await methodsByIds(db, siteId, [methodId])
  if (!method) throw fieldProblem('methodId', 'choose a method of the library, or one of your own')
  if (method.product) throw fieldProblem('methodId', `${method.name} comes with a label: put the product on the shelf and choose that`)
  return method
}

/** What a method by hand reaches of an organism: whatever stages the entry names for it. */
export const handGate = (methodId: string, organism: Organism): GateVerdict =>
  gateFor(
    { methods: [methodId], strain: null, stages: organism.stages.map(({ id }) => id), targets: [], crops: [], places: [] },
    organism,
    { grows: '', kind: 'field' },
  )

/** What a deed is done with: a product by its label, or a method by hand. */
export type Means = { product: Label; method: null } | { product: null; method: { id: string; then: MethodThen } }

export const nameOf = ({ product, method }: Means): string => product?.name ?? method?.then.name ?? ''
