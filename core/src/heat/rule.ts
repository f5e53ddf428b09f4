import { requireFinite } from '../guards.js'

/** How heat above the upper threshold counts (Roltsch et al. 1999). */
export type Cutoff = 'horizontal' | 'intermediate' | 'vertical'
export const CUTOFFS: readonly Cutoff[] = ['horizontal', 'intermediate', 'vertical']

/** How a day's heat is computed from its extremes, or from its hours. */
export type HeatMethod = 'average' | 'clamped-average' | 'single-sine' | 'double-sine' | 'single-triangle' | 'double-triangle' | 'hourly'
export const HEAT_METHODS: readonly HeatMethod[] = [
  'average',
  'clamped-average',
  'single-sine',
  'double-sine',
  'single-triangle',
  'double-triangle',
  'hourly',
]

/** Thresholds in °C; `cutoff` defaults to `'horizontal'`. */
export interface HeatRule {
  method: HeatMethod
  lower: number
  upper?: number
  cutoff?: Cutoff
}

/** A day's minimum and maximum temperature in °C. */
export interface DayExtremes {
  min: number
  max: number
}

/** Throws `RangeError` unless the rule's names are known, its thresholds finite and `lower` below `upper`. */
export function requireRule(rule: HeatRule): void {
  if (!HEAT_METHODS.includes(rule.method))
    throw new RangeError(`rule.method must be one of ${HEAT_METHODS.join(', ')}, got ${String(rule.method)}`)
  requireFinite('rule.lower', rule.lower)
  if (rule.cutoff !== undefined && !CUTOFFS.includes(rule.cutoff))
    throw new RangeError(`rule.cutoff must be one of ${CUTOFFS.join(', ')}, got ${String(rule.cutoff)}`)
  if (rule.upper === undefined) return
  requireFinite('rule.upper', rule.upper)
  if (rule.upper <= rule.lower) throw new RangeError(`rule.upper must be above rule.lower, got ${rule.upper} with lower ${rule.lower}`)
}
