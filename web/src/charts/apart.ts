/**
 * Labels one below the other without touching, as near to their places as that allows, in the order of their places.
 *
 * @param places Where each label would stand, in px; in any order. Not changed.
 * @param gap Least distance of two labels in px; less where there is no room for it.
 * @param top Least place, `bottom` the largest.
 * @returns A place for each label, in the order given.
 */
export function apart(places: readonly number[], gap: number, top: number, bottom: number): number[] {
  const least = Math.min(gap, (bottom - top) / Math.max(1, places.length - 1))
  const order = places.map((_, i) => i).sort((a, b) => (places[a] as number) - (places[b] as number) || a - b)
  const set = new Array<number>(places.length)
  // From above each moves down as far as it has to; then from below each moves up where the end was passed.
  let last = top - least
  for (const i of order) last = set[i] = Math.max(places[i] as number, last + least)
  last = bottom + least
  for (const i of order.toReversed()) last = set[i] = Math.min(set[i] as number, last - least)
  return set
}
