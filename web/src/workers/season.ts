import { schools, seasonUnder, type School, type SeasonPlan, type SeasonSources } from '../band/season.js'

/**
 * Plans a season under every school, the wanted one first; each is told as soon as it is there. What is told goes to another thread: it is
 * waited for, so that nothing of it comes after the end.
 */
export async function planAll(
  sources: SeasonSources,
  first: School,
  told: (plan: SeasonPlan) => unknown,
  step: (done: number) => unknown,
): Promise<void> {
  const order = [first, ...schools.filter((school) => school !== first)]
  for (const [i, school] of order.entries()) await told(seasonUnder(sources, school, (done) => void step((i + done) / order.length)))
}
