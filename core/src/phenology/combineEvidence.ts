import { requireFinite, requirePositive } from '../guards.js'

/** A value with its standard deviation, in one unit throughout. */
export interface Estimate {
  mean: number
  sd: number
}

/**
 * Posterior of a normal mean from a normal prior and independent normal observations: precisions add, means are weighted
 * by them (normal–normal conjugacy; Gelman et al. 2013).
 *
 * @throws RangeError for a non-finite value or an sd not above 0, naming the observation.
 * @example combineEvidence({ mean: 0, sd: 15 }, [{ value: -12, sd: 10 }]) // { mean: -8.308, sd: 8.321 }
 */
export function combineEvidence(prior: Estimate, observations: readonly { value: number; sd: number }[]): Estimate {
  requireFinite('prior.mean', prior.mean)
  requirePositive('prior.sd', prior.sd)
  let precision = 1 / prior.sd ** 2
  let weighted = prior.mean * precision
  observations.forEach((observation, i) => {
    requireFinite(`observations[${i}].value`, observation.value)
    requirePositive(`observations[${i}].sd`, observation.sd)
    const weight = 1 / observation.sd ** 2
    precision += weight
    weighted += observation.value * weight
  })
  return { mean: weighted / precision, sd: Math.sqrt(1 / precision) }
}
