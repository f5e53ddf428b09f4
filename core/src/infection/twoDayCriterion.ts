import { requireFinite, requireWithin } from '../guards.js'

/**
 * For each day whether it completes two consecutive days that each have a minimum of at least 10 °C and at least six hours
 * at a relative humidity of 90 % or more (Dancey, Skelsey & Cooke 2017). `min` in °C, `humidHours` 0..24.
 *
 * @throws RangeError naming the day for non-finite values or hours outside 0..24.
 * @example twoDayCriterion([{ min: 11, humidHours: 7 }, { min: 12, humidHours: 8 }, { min: 9, humidHours: 9 }]) // [false, true, false]
 */
export function twoDayCriterion(days: readonly { min: number; humidHours: number }[]): boolean[] {
  const favourable = days.map(({ min, humidHours }, i) => {
    requireFinite(`days[${i}].min`, min)
    requireWithin(`days[${i}].humidHours`, humidHours, 0, 24)
    return min >= 10 && humidHours >= 6
  })
  return favourable.map((today, i) => today && favourable[i - 1] === true)
}
