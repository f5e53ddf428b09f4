import type { Block, Label } from '@bocado/contract'
import { targetGate, type GateDoubt, type GateRefusal, type GateVerdict } from '@bocado/core'
import { findMethod, type Organism } from '@bocado/library'
import type { ParsedInputOf, treatments } from '@bocado/contract'
import type { Queryable } from '../database/index.js'
import { methodsByIds, organismAt } from '../library/catalogue.js'
import { fieldsProblem, type FieldMessage } from '../http/problems.js'

type Gated = Pick<Label, 'methods' | 'strain' | 'stages' | 'targets' | 'crops' | 'places'>

/** What a product may be planned for and credited with, against an organism in a block. */
export const gateFor = (product: Gated, organism: Organism, block: Pick<Block, 'grows' | 'kind'>): GateVerdict =>
  targetGate(product, { organism: organism.id, reach: organism.about.reach, grows: block.grows, place: block.kind })

/** Why a product is not for a target, as a sentence without its subject. */
export const REFUSALS: Readonly<Record<GateRefusal, string>> = {
  'no-way-to-act': 'is not for this: nothing here says that it works against it',
  'other-strain': 'is of another strain, which does nothing against this',
  'no-stage': 'reaches, by its label, none of the stages that such a product can reach here',
  'target-not-on-label': 'does not name this on its label',
  'crop-not-on-label': 'does not name on its label what grows here',
  'place-not-on-label': 'is not for such a place by its label',
}

export const DOUBTS: Readonly<Record<GateDoubt, string>> = {
  unmapped: 'say on the shelf what it is',
  'strain-not-said': 'say on the shelf which strain it is',
}

type ProductInput = ParsedInputOf<typeof treatments.addProduct>

/** Refuses methods that are no products, strains that no method has, and targets that nobody knows. */
export async function requireKnownLabel(db: Queryable, siteId: string, input: ProductInput): Promise<void> {
  const methods = await methodsByIds(db, siteId, input.methods)
  const faults: FieldMessage[] = []
  for (const id of input.methods) {
    const method = findMethod(id) ?? methods.find((m) => m.id === id)
    if (!method) faults.push({ path: 'methods', message: `there is no method ${id} in the library or among your own` })
    else if (!method.product) faults.push({ path: 'methods', message: `${method.name} is done by hand and has no label` })
  }
  if (input.strain !== null && !methods.some(({ strains }) => strains.some(({ id }) => id === input.strain)))
    faults.push({ path: 'strain', message: 'choose a strain of what it is' })
  for (const id of input.targets)
    if (!(await organismAt(db, siteId, id)))
      faults.push({ path: 'targets', message: `there is no organism ${id} in the library or among your own` })
  if (faults.length > 0) throw fieldsProblem(faults)
}
