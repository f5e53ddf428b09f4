import type { Round } from '@bocado/contract'
import { AT_SOWING, shareWithInterval } from '@bocado/core'
import type { Means } from './means.js'

export { lateHelpsBy, type LateHelp } from '@bocado/core'

/** Whether something is chosen when a crop is sown: it reaches nothing of what is there now. */
export const isAtSowing = ({ methodId }: Pick<Means, 'methodId'>): boolean => methodId !== null && AT_SOWING.includes(methodId)

/** How sure the bounds of what is whole are. */
const LEVEL = 0.8

/**
 * How many of what hangs there are whole, between bounds, by a count of which share of the items has any; undefined where it says nothing of
 * single items.
 */
export function wholeOf(
  on: number,
  { effective, measure, unit }: Pick<Round, 'effective' | 'measure' | 'unit'>,
): { low: number; high: number } | undefined {
  if (measure === 'presence' || effective.length === 0) return undefined
  const looked = effective.length * unit.items
  // An item that holds several is spoilt once; of a unit of several items each find is taken to be on another.
  const hit = effective.reduce((sum, n) => sum + Math.min(unit.items, n > 0 ? Math.ceil(n) : 0), 0)
  const { low, high } = shareWithInterval(hit, looked, LEVEL)
  return { low: Math.floor(on * (1 - high)), high: Math.ceil(on * (1 - low)) }
}
