import { requireAtLeast, requireFinite, requireOrder, requirePositive } from '../guards.js'

/** How counts per sample unit vary: `k` is the common exponent of the negative binomial. */
export type CountModel = { kind: 'poisson' } | { kind: 'negative-binomial'; k: number } | { kind: 'binomial' }

/** Decision lines on the running total T after n units: T = slope·n + intercept. */
export interface SequentialLines {
  slope: number
  actIntercept: number
  stopIntercept: number
}

/**
 * The two lines between which a sequential count goes on, for a mean per unit (or share infested, for `binomial`) of
 * `safe` against `act` (Wald 1947). `alpha` is the risk of treating needlessly, `beta` that of missing.
 *
 * @throws RangeError unless 0 < safe < act (and act < 1 for `binomial`), k > 0, and alpha and beta are above 0 with a sum
 * below 1.
 * @example sequentialLines({ kind: 'poisson' }, 1, 2, 0.1, 0.1) // { slope: 1.443, actIntercept: 3.17, stopIntercept: -3.17 }
 */
export function sequentialLines(model: CountModel, safe: number, act: number, alpha: number, beta: number): SequentialLines {
  requirePositive('safe', safe)
  requireOrder('safe', safe, 'act', act)
  requirePositive('alpha', alpha)
  requirePositive('beta', beta)
  if (alpha + beta >= 1) throw new RangeError(`alpha + beta must be below 1, got ${alpha} + ${beta}`)
  const { scale, drift } = logLikelihood(model, safe, act)
  return {
    slope: drift / scale,
    actIntercept: Math.log((1 - beta) / alpha) / scale,
    stopIntercept: Math.log(beta / (1 - alpha)) / scale,
  }
}

/** Log likelihood ratio of act against safe: `scale` per animal found, minus `drift` per unit looked at. */
function logLikelihood(model: CountModel, safe: number, act: number): { scale: number; drift: number } {
  switch (model.kind) {
    case 'poisson':
      return { scale: Math.log(act / safe), drift: act - safe }
    case 'negative-binomial': {
      const { k } = model
      requirePositive('model.k', k)
      return { scale: Math.log((act * (k + safe)) / (safe * (k + act))), drift: k * Math.log((k + act) / (k + safe)) }
    }
    case 'binomial':
      if (act >= 1) throw new RangeError(`act must be below 1 for binomial counts, got ${act}`)
      return { scale: Math.log((act * (1 - safe)) / (safe * (1 - act))), drift: Math.log((1 - safe) / (1 - act)) }
    default:
      throw new RangeError(`model.kind must be poisson, negative-binomial or binomial, got ${String((model as { kind: unknown }).kind)}`)
  }
}

/**
 * What the running total says after `unitsSampled` units: `act` at or above the upper line, `stop` at or below the lower,
 * otherwise `continue`.
 *
 * @throws RangeError for non-finite lines, or negative units or total.
 * @example sequentialDecision({ slope: 1.44, actIntercept: 3.17, stopIntercept: -3.17 }, 10, 19) // 'act'
 */
export function sequentialDecision(lines: SequentialLines, unitsSampled: number, total: number): 'act' | 'continue' | 'stop' {
  requireFinite('lines.slope', lines.slope)
  requireFinite('lines.actIntercept', lines.actIntercept)
  requireFinite('lines.stopIntercept', lines.stopIntercept)
  requireAtLeast('unitsSampled', unitsSampled, 0)
  requireAtLeast('total', total, 0)
  const middle = lines.slope * unitsSampled
  if (total >= middle + lines.actIntercept) return 'act'
  return total <= middle + lines.stopIntercept ? 'stop' : 'continue'
}
