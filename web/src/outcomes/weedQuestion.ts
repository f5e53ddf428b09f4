import type { YearsOf } from '@bocado/contract'
import type { WeedQuestion } from '../workers/weeds.js'

/** Of a patch of which nobody said how large it is. */
const UNKNOWN_AREA_M2 = 100
/** By what people say of their own passes, and for a plant that is pulled, where nobody measured. */
export const FOUND_PERCENT = 85
export const MINUTES_PER_PLANT = 0.5

/** Plants by season, of the seasons that are over; of the first alone where no other is. */
export function countsOf({ years }: Pick<YearsOf, 'years'>, current: string): { year: number; plants: number }[] {
  const known = years.flatMap(({ season, plants }) => (plants === null ? [] : [{ season, year: Number(season.slice(0, 4)), plants }]))
  const over = known.filter(({ season }) => season < current)
  return (over.length > 0 ? over : known).map(({ year, plants }) => ({ year, plants }))
}

/** The stand of a weed in a block, by its counts of the years; the ground on which it stood at its widest could bear it again. */
export const standOf = (
  weed: NonNullable<YearsOf['weed']>,
  years: YearsOf['years'],
  counts: WeedQuestion['stand']['counts'],
  arrivals: number,
): WeedQuestion['stand'] => ({
  form: weed.form,
  counts,
  areaM2: Math.max(...years.map((year) => year.areaM2 ?? 0)) || UNKNOWN_AREA_M2,
  bankYears: weed.bankYears,
  arrivals,
})
