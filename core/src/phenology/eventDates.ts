/**
 * The moment on a season's axis, in days with the fraction of the day, at which heat first reaches `heat` °C·d: day i runs
 * from i to i + 1 and its heat comes evenly over it. Infinity where the season ends before. Heat at or below 0 is reached with the
 * first day that brings any: nothing happens before heat counts.
 *
 * @param cumulative °C·d through each day, never decreasing
 * @example dayOfHeat([5, 12, 20], 14) // 2.25
 */
export function dayOfHeat(cumulative: ArrayLike<number>, heat: number): number {
  const wanted = Math.max(heat, Number.MIN_VALUE)
  let low = 0
  let high = cumulative.length
  while (low < high) {
    const middle = (low + high) >> 1
    if ((cumulative[middle] as number) >= wanted) high = middle
    else low = middle + 1
  }
  if (low === cumulative.length) return Infinity
  const before = low > 0 ? (cumulative[low - 1] as number) : 0
  const gained = (cumulative[low] as number) - before
  return gained > 0 ? low + Math.max(0, (heat - before) / gained) : low
}
