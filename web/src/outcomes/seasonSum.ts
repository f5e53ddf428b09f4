import type { Outcome } from '@bocado/contract'

/** What reaches less than this of a generation met nothing. */
const NOTHING = 0.005

/** Deeds of a season by what they met, by the weather that came, and the work that went into those that met nothing. */
export interface SeasonSum {
  deeds: number
  /** Met some of a generation for which it was meant. */
  met: number
  /** Nothing that it reaches was there. */
  nothing: number
  /** Nothing can be said: no dates are known of it, or the use was named by nobody. */
  unknown: number
  /** Minutes of those that met nothing, where somebody measured; null where nobody did. */
  minutesForNothing: number | null
  names: string[]
}

export function seasonSum(outcomes: readonly Pick<Outcome, 'coverage' | 'minutes' | 'productName'>[]): SeasonSum {
  const nothing = outcomes.filter(({ coverage }) => coverage !== null && coverage.p90 < NOTHING)
  const unknown = outcomes.filter(({ coverage }) => coverage === null).length
  const measured = nothing.flatMap(({ minutes }) => (minutes === null ? [] : [minutes]))
  return {
    deeds: outcomes.length,
    met: outcomes.length - nothing.length - unknown,
    nothing: nothing.length,
    unknown,
    minutesForNothing: measured.length === 0 ? null : measured.reduce((sum, one) => sum + one, 0),
    names: [...new Set(nothing.map(({ productName }) => productName))],
  }
}
