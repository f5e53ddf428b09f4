import { bestDays, TREATMENT_HOUR_OF_DAY, type CohortQuantile } from '@bocado/core'

/** What is asked of the best days: a generation as draws of the season have it, and what each treatment does. */
export interface DaysAsked {
  cohorts: CohortQuantile[][]
  /** First and last day of the season on which one may treat. */
  from: number
  to: number
  effect: number
  residualDays: number
  /** Days that lie at least between two. */
  minInterval: number
  /** Days between on which nobody can or may treat. */
  without: readonly number[]
}

/** Days of the season that together reach most, by how many there are. */
export interface DaysFound {
  days: number[]
  mean: number
}

/** So many draws are enough to choose days by; what they reach is told over all. */
const DRAWS = 13
const MOST = 3

/** Some of the draws, as far from each other as they lie. */
const thinned = <T>(draws: readonly T[]): T[] =>
  draws.length <= DRAWS ? [...draws] : Array.from({ length: DRAWS }, (_, i) => draws[Math.floor((i * draws.length) / DRAWS)] as T)

/** The best one, two and three days; those that would reach no more than fewer are left out. */
export function bestByNumber({ cohorts, from, to, minInterval, without, ...action }: DaysAsked): DaysFound[] {
  const left = Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => from + i).filter((day) => !without.includes(day))
  const candidates = left.map((day) => day + TREATMENT_HOUR_OF_DAY)
  if (candidates.length === 0 || cohorts.length === 0) return []
  const draws = thinned(cohorts)
  return Array.from({ length: MOST }, (_, i) => bestDays(draws, { candidates, k: i + 1, minInterval, ...action }))
    .filter(({ days }, i) => days.length === i + 1)
    .map(({ days, mean }) => ({ days: days.map(Math.floor), mean }))
}
