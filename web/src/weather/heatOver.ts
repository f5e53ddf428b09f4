import type { endpoints, ResponseOf } from '@bocado/contract'

type Heat = Pick<ResponseOf<typeof endpoints.weather.heat>, 'current' | 'past'>

/** A share of less than this is as in other seasons. */
const EVEN_SHARE = 0.01

function middleOf(values: readonly number[]): number | undefined {
  const sorted = values.toSorted((a, b) => a - b)
  const half = (sorted.length - 1) / 2
  const [below, above] = [sorted[Math.floor(half)], sorted[Math.ceil(half)]]
  return below === undefined || above === undefined ? undefined : (below + above) / 2
}

/**
 * How much more heat a season that is over had than the middle one of those before it, as a proportion; below 0 where it had less. Days tell
 * nothing of it: in winter hardly any heat comes, and a little less of it would look like many days.
 *
 * @returns null where none is known
 */
export function heatOver({ current, past }: Heat): { share: number; way: 'more' | 'less' | 'even' } | null {
  const sum = current.at(-1)
  const middle = middleOf(past.flatMap(({ cumulative }) => cumulative.at(-1) ?? []))
  if (sum === undefined || middle === undefined || middle <= 0) return null
  const share = sum / middle - 1
  return { share, way: share < -EVEN_SHARE ? 'less' : share > EVEN_SHARE ? 'more' : 'even' }
}
