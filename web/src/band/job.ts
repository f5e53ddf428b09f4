import type { Method, SiteRule } from '@bocado/contract'
import { disposalOf, stepsOf, type Disposal, type DisposalBar, type Step, type Waste } from '@bocado/core'
import { rulesOn, ruledMeans } from './rules.js'
import type { Means } from './means.js'

export { stepsOf, disposalOf }
export type { Disposal, DisposalBar, Step, Waste }

/** The most wind that a label and rules of the place allow on a day, m/s; null where neither says anything. */
export function mostWind(
  rules: readonly SiteRule[],
  means: Pick<Means, 'product' | 'methodId'>,
  methods: readonly Pick<Method, 'id' | 'kind'>[],
  day: string,
): number | null {
  const asked = rulesOn(rules, ruledMeans(means, methods), day).flatMap(({ kind, amount }) =>
    kind === 'wind' && amount !== null ? [amount] : [],
  )
  const most = Math.min(means.product?.maxWindMs ?? Infinity, ...asked)
  return Number.isFinite(most) ? most : null
}

/** Whether a rule of the place closes fire on a day. */
export const isFireClosed = (rules: readonly SiteRule[], day: string): boolean =>
  rulesOn(rules, { ways: null, methods: ['flaming'], chemical: false }, day).some(
    ({ kind, act }) => kind === 'closed-days' && act === 'burning',
  )

/** What is ticked before and after a job. */
export const CHECKS = ['gear', 'neighbours', 'children', 'bees', 'water', 'boots'] as const
export type Check = (typeof CHECKS)[number]

/** The checks of a job: with a product all of them, by hand those that are about people and about what is carried on. */
export const checksOf = (byHand: boolean): readonly Check[] => (byHand ? ['gear', 'children', 'boots'] : CHECKS)
