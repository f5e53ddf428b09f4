import type { Method, SiteRule } from '@bocado/contract'
import { closedBy, holdsOn, rulesFor, rulesThere, type RuledMeans } from '@bocado/core'
import type { Means } from './means.js'

export { rulesThere }

/** What something is done with, as rules of the place tell it apart. */
export function ruledMeans(
  { product, methodId }: Pick<Means, 'product' | 'methodId'>,
  methods: readonly Pick<Method, 'id' | 'kind'>[],
): RuledMeans {
  const own = product ? product.methods : [methodId ?? '']
  return {
    ways: product ? product.ways : null,
    methods: own,
    chemical: methods.some(({ id, kind }) => kind === 'chemical' && own.includes(id)),
  }
}

/** Rules that bind something, and hold on a day. */
export const rulesOn = (rules: readonly SiteRule[], means: RuledMeans, day: string): SiteRule[] =>
  rulesFor(rules, means).filter((rule) => holdsOn(rule, day))

/** Whether a rule closes a day wholly. */
export const closesDay = (rule: SiteRule, day: string): boolean => closedBy(rule, day).some(([from, until]) => from === 0 && until === 24)

/** The widest distance that rules of the place and a label ask to keep; null for none. */
export function keptClearBy(rules: readonly SiteRule[], means: RuledMeans, bufferM: number | null, day: string): number | null {
  const asked = rulesOn(rules, means, day).flatMap(({ kind, amount }) => (kind === 'kept-clear' && amount !== null ? [amount] : []))
  const widest = Math.max(bufferM ?? 0, ...asked, 0)
  return widest > 0 ? widest : null
}
