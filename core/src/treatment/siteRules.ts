import { requireWithin } from '../guards.js'

/** Kinds of work that a rule may bind. */
export const ruleActs = ['everything', 'spraying', 'chemicals', 'cutting', 'burning', 'soil-work'] as const
export type RuleAct = (typeof ruleActs)[number]
/** What a rule says: days or hours on which it forbids, the most wind, days of notice before, consent that it needs, or a distance that is kept. */
export const ruleKinds = ['closed-days', 'closed-hours', 'wind', 'notice', 'consent', 'kept-clear'] as const
export type RuleKind = (typeof ruleKinds)[number]

/** A rule of a site: its owner's own, or that of a law or a permit. */
export interface SiteRule {
  name: string
  kind: RuleKind
  act: RuleAct
  whose: 'own' | 'law'
  /** First and last day of the year, as MM-DD, on which it holds; null: all year. It may go over the turn of the year. */
  fromDay: string | null
  untilDay: string | null
  /** Hours of the clock between which it forbids, for `closed-hours`; they may go over midnight. */
  fromHour: number | null
  untilHour: number | null
  /** The block that it binds; null: the whole site. */
  blockId?: string | null
  /** Highest wind, m/s; days of notice; metres kept clear: for the kinds of those names. */
  amount: number | null
}

/** Methods by which plants are cut, fire is laid, and soil is moved. */
const CUTTING: readonly string[] = ['repeated-mowing', 'timed-mowing', 'prune-out', 'open-canopy', 'cut-flower-heads', 'grazing']
const BURNING: readonly string[] = ['flaming']
const SOIL_WORK: readonly string[] = ['tillage', 'stale-seedbed', 'digging-roots', 'soil-mound']
/** Ways of application that make drops or dust. */
const SPRAYING: readonly string[] = ['spray', 'spot-spray', 'dusting']

/** With what something is done, as far as rules tell it apart. */
export interface RuledMeans {
  /** Ways of application of its label; null: it is done by hand. */
  ways: readonly string[] | null
  methods: readonly string[]
  /** Any of its methods is chemical. */
  chemical: boolean
}

/**
 * Which kinds of work something is. Where nobody has said how a product is applied it is taken to be sprayed.
 *
 * @example actsOf({ ways: null, methods: ['timed-mowing'], chemical: false }).join() // 'everything,cutting'
 */
export function actsOf({ ways, methods, chemical }: RuledMeans): RuleAct[] {
  const some = (of: readonly string[]): boolean => methods.some((method) => of.includes(method))
  const is: Record<RuleAct, boolean> = {
    everything: true,
    spraying: ways !== null && (ways.length === 0 || ways.some((way) => SPRAYING.includes(way))),
    chemicals: chemical,
    cutting: some(CUTTING),
    burning: some(BURNING),
    'soil-work': some(SOIL_WORK),
  }
  return ruleActs.filter((act) => is[act])
}

/**
 * Whether a rule holds on a day of the year.
 *
 * @param day civil day, YYYY-MM-DD
 * @example holdsOn({ fromDay: '11-15', untilDay: '02-10' }, '2026-01-03') // true
 */
export function holdsOn({ fromDay, untilDay }: Pick<SiteRule, 'fromDay' | 'untilDay'>, day: string): boolean {
  if (fromDay === null || untilDay === null) return true
  const at = day.slice(5)
  return fromDay <= untilDay ? at >= fromDay && at <= untilDay : at >= fromDay || at <= untilDay
}

/**
 * Hours of a day, counted from midnight, in which a rule forbids; none where it does not.
 *
 * @throws RangeError for hours outside 0 to 24
 */
export function closedBy(rule: SiteRule, day: string): [from: number, until: number][] {
  if (!holdsOn(rule, day)) return []
  if (rule.kind === 'closed-days') return [[0, 24]]
  const { fromHour: from, untilHour: until } = rule
  if (rule.kind !== 'closed-hours' || from === null || until === null) return []
  requireWithin('fromHour', from, 0, 24)
  requireWithin('untilHour', until, 0, 24)
  if (from < until) return [[from, until]]
  return [
    [0, until],
    [from, 24],
  ]
}

/** The rules that bind a block, of those of a site. */
export const rulesThere = <R extends Pick<SiteRule, 'blockId'>>(rules: readonly R[], blockId: string): R[] =>
  rules.filter((rule) => rule.blockId == null || rule.blockId === blockId)

/** The rules that bind what is done, of those of a site. */
export const rulesFor = <R extends Pick<SiteRule, 'act'>>(rules: readonly R[], means: RuledMeans): R[] => {
  const acts = actsOf(means)
  return rules.filter(({ act }) => acts.includes(act))
}
