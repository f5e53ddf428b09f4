import type { Method } from '@bocado/contract'

/** Square metres of the units in which hours of work are given by area. */
const M2: Readonly<Record<string, number>> = { ha: 10_000, '100 m²': 100, '1000 m²': 1000 }

/** Hours that a way to act takes on so much ground; undefined where its work is not told by area, or nobody has said how large that is. */
export function hoursHere({ perUnit, unit }: Pick<Method['hours'], 'perUnit' | 'unit'>, areaHa: number | null): number | undefined {
  const m2 = M2[unit]
  return m2 === undefined || areaHa === null ? undefined : (perUnit * areaHa * 10_000) / m2
}
