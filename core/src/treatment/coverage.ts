import { requireAtLeast, requireFinite, requireWithin } from '../guards.js'

/** One quantile of a population: the days, on any one axis, at which it enters and leaves the reachable stage. */
export interface CohortQuantile {
  enter: number
  exit: number
}

/** A treatment on that axis. `effect` is the share killed on contact; a residue goes on acting for `residualDays`. */
export interface TreatmentAction {
  day: number
  effect: number
  residualDays: number
  decayPerDay?: number
}

/**
 * Share of a cohort killed by a set of treatments, 0..1. A quantile is missed where its [enter, exit) does not meet
 * [day, day + residualDays] (without residue: enter ≤ day < exit); otherwise the kill is effect·exp(−decayPerDay·max(0,
 * enter − day)). Treatments combine as 1 − Π(1 − kill); the result is the mean over the cohort.
 *
 * @throws RangeError for an empty cohort, an exit before its enter, an effect outside 0..1, or negative days or decay.
 * @example coverage([{ enter: 10, exit: 20 }, { enter: 14, exit: 24 }], [{ day: 12, effect: 0.8, residualDays: 0 }]) // 0.4
 */
export function coverage(cohort: readonly CohortQuantile[], treatments: readonly TreatmentAction[]): number {
  if (cohort.length === 0) throw new RangeError('cohort must hold at least one quantile, got 0')
  treatments.forEach((treatment, i) => {
    requireFinite(`treatments[${i}].day`, treatment.day)
    requireWithin(`treatments[${i}].effect`, treatment.effect, 0, 1)
    requireAtLeast(`treatments[${i}].residualDays`, treatment.residualDays, 0)
    if (treatment.decayPerDay !== undefined) requireAtLeast(`treatments[${i}].decayPerDay`, treatment.decayPerDay, 0)
  })
  let killed = 0
  for (let i = 0; i < cohort.length; i++) {
    const { enter, exit } = cohort[i] as CohortQuantile
    if (!Number.isFinite(enter) || !Number.isFinite(exit) || exit < enter) throw badQuantile(i, enter, exit)
    let alive = 1
    for (const treatment of treatments) alive *= survivalOf(cohort[i] as CohortQuantile, treatment)
    killed += 1 - alive
  }
  return killed / cohort.length
}

/** Share of a quantile that a treatment leaves alive; both are held to be good already. */
export function survivalOf({ enter, exit }: CohortQuantile, { day, effect, residualDays, decayPerDay = 0 }: TreatmentAction): number {
  // A half-open stage of no length is never met.
  if (enter > day + residualDays || exit <= day || exit === enter) return 1
  return 1 - effect * (decayPerDay > 0 ? Math.exp(-decayPerDay * Math.max(0, enter - day)) : 1)
}

function badQuantile(i: number, enter: number, exit: number): RangeError {
  if (!Number.isFinite(enter)) return new RangeError(`cohort[${i}].enter must be a finite number, got ${enter}`)
  if (!Number.isFinite(exit)) return new RangeError(`cohort[${i}].exit must be a finite number, got ${exit}`)
  return new RangeError(`cohort[${i}].exit must not be before cohort[${i}].enter, got ${exit} and ${enter}`)
}
