import type { PlantingDate } from './plantingDates.js'

/** A frost that came in more of the known seasons than this makes a day too early or too late. */
export const FROST_BORNE = 0.2

/** Sowings that follow each other lie at least so many days apart: nearer ones ripen together. */
const BETWEEN_SOWINGS_DAYS = 14

/** Of so many sowings a succession is made. */
const SOWINGS = 3

/** A way to choose a date, as people have them: as early as frost lets, as late as it ripens, where least is met, or several. */
export const sowingPlanKinds = ['early', 'late', 'least', 'succession'] as const
export type SowingPlanKind = (typeof sowingPlanKinds)[number]

export interface SowingPlan {
  kind: SowingPlanKind
  /** Days of the season, the first first. */
  days: number[]
  /** The most that any of what is looked at takes a share of, by its median; the mean over the sowings. */
  met: number
}

/** How much a day meets of whatever it meets most of, by the median. */
const mostMet = ({ met }: PlantingDate): number => Math.max(0, ...met.map(({ share }) => share.p50))

/**
 * The dates that each way of choosing comes to. A day counts where frost is borne, it is warm enough to grow, and something ripens before the
 * season's end; days before
 * `first` have passed.
 *
 * @param dates in their order, as `plantingDates` gives them, with what is to be looked at
 * @param first day of the season from which something can still be done
 * @param length days of the season
 * @returns none where no day is left; a succession only where three sowings fit in
 */
export function sowingPlans(dates: readonly PlantingDate[], first: number, length: number): SowingPlan[] {
  const fit = dates.filter(
    ({ day, harvest, springFrost, autumnFrost, grows }) =>
      day >= first &&
      grows &&
      (harvest === null || harvest.p50 < length) &&
      (springFrost ?? 0) <= FROST_BORNE &&
      (autumnFrost ?? 0) <= FROST_BORNE,
  )
  const [early, late] = [fit[0], fit.at(-1)]
  if (!early || !late) return []
  const least = fit.reduce((best, date) => (mostMet(date) < mostMet(best) - 1e-9 ? date : best))
  const one = (kind: SowingPlanKind, date: PlantingDate): SowingPlan => ({ kind, days: [date.day], met: mostMet(date) })
  const following = succession(fit)
  return [one('early', early), one('late', late), one('least', least), ...(following ? [following] : [])]
}

/** The three sowings, far enough apart, that meet the least by their mean; exact. */
function succession(fit: readonly PlantingDate[]): SowingPlan | undefined {
  // The least that so many sowings meet up to each date, with the days that do: a way from the left.
  let best: ({ sum: number; days: number[] } | undefined)[] = fit.map((date) => ({ sum: mostMet(date), days: [date.day] }))
  for (let k = 1; k < SOWINGS; k++) {
    const before = best
    let least: { sum: number; days: number[] } | undefined
    let behind = 0
    best = fit.map((date) => {
      for (; behind < fit.length && (fit[behind] as PlantingDate).day <= date.day - BETWEEN_SOWINGS_DAYS; behind++) {
        const one = before[behind]
        if (one && (!least || one.sum < least.sum - 1e-12)) least = one
      }
      return least && { sum: least.sum + mostMet(date), days: [...least.days, date.day] }
    })
  }
  const found = best.reduce<(typeof best)[number]>((a, b) => (b && (!a || b.sum < a.sum - 1e-12) ? b : a), undefined)
  return found && { kind: 'succession', days: found.days, met: found.sum / SOWINGS }
}
