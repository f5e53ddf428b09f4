import { requireFinite } from '../guards.js'

/**
 * Days for which something stood over a threshold between its first and its last count, taken along the straight line from count to count.
 * At the threshold is over it, as with a count.
 *
 * @param counts in their order; days on one axis
 * @returns 0 with fewer than two counts
 * @throws RangeError for non-finite values
 * @example daysOver([{ day: 0, value: 0 }, { day: 10, value: 4 }], 2) // 5
 */
export function daysOver(counts: readonly { day: number; value: number }[], threshold: number): number {
  requireFinite('threshold', threshold)
  counts.forEach(({ day, value }, i) => {
    requireFinite(`counts[${i}].day`, day)
    requireFinite(`counts[${i}].value`, value)
  })
  let days = 0
  for (let i = 1; i < counts.length; i++) {
    const [a, b] = [counts[i - 1] as { day: number; value: number }, counts[i] as { day: number; value: number }]
    const [from, to] = [a.value - threshold, b.value - threshold]
    const span = b.day - a.day
    if (from >= 0 && to >= 0) days += span
    else if (from >= 0 || to >= 0) days += (span * Math.max(from, to)) / (Math.abs(from) + Math.abs(to))
  }
  return days
}
