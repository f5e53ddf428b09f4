/** Heights by the hand that measures them, from the lowest. */
export const heightClasses = ['finger', 'hand', 'knee', 'hip'] as const
export type HeightClass = (typeof heightClasses)[number]

/** Plants in flower, or that carry pods, as they were seen. */
export interface Flowering {
  /** Day number. */
  day: number
  plants: number
  height: HeightClass
}

/** What is seen within so many days is one pass. */
const ONE_PASS_DAYS = 14
/** Fewer plants in flower say nothing of a pass. */
const LEAST_PLANTS = 10
/** So many passes in a row, each lower than the one before. */
const PASSES = 3
/** Height classes by which the mean has to fall from pass to pass: a little of it is chance. */
const LEAST_FALL = 0.2

/**
 * Whether plants flower lower from pass to pass: those that are overlooked are the small ones, and they seed as well. Told from the last three
 * passes on which at least ten plants were in flower.
 *
 * @param seen in any order
 * @returns the first day of each of the three passes, the newest last; null where they do not get smaller
 */
export function smallerAtFlower(seen: readonly Flowering[]): number[] | null {
  const passes: { day: number; plants: number; sum: number }[] = []
  for (const { day, plants, height } of [...seen].sort((a, b) => a.day - b.day)) {
    let pass = passes.at(-1)
    if (!pass || day - pass.day >= ONE_PASS_DAYS) passes.push((pass = { day, plants: 0, sum: 0 }))
    pass.plants += plants
    pass.sum += plants * heightClasses.indexOf(height)
  }
  const told = passes.filter(({ plants }) => plants >= LEAST_PLANTS).slice(-PASSES)
  const mean = ({ sum, plants }: { sum: number; plants: number }): number => sum / plants
  const falls = told.every((pass, i) => i === 0 || mean(told[i - 1] as typeof pass) - mean(pass) >= LEAST_FALL)
  return told.length === PASSES && falls ? told.map(({ day }) => day) : null
}
