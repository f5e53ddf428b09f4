import type { HourlySeries } from './fillHours.js'

/** Days, as day numbers, on which a sensor runs away from its neighbours. */
export interface Drift {
  days: number[]
  /** How far off, at the most, in the unit of the variable. */
  departure: number
}

const BASELINE_DAYS = 45
const LEAST_BASELINE_DAYS = 20
const TESTED_DAYS = 10
const LEAST_HOURS = 18
const LONGEST_UNCOMPARED_DAYS = 3
/** Departure that is a drift: well above what weather makes between stations of one site. °C, % humidity. */
const LIMITS = { temperature: 2, humidity: 15 } as const

export type DriftingVariable = keyof typeof LIMITS

/**
 * Days on which a series has run away from every neighbour: the mean difference over ten days departs from the median of the 45
 * days before them, drifting days left out, by more than 2 °C or 15 % humidity. With one neighbour it cannot be told which of the
 * two drifts: both are suspects, and people decide. Nothing is found without a neighbour or without twenty days to compare with.
 *
 * @param trusted day numbers that somebody has looked at and believes
 */
export function checkDrift(
  series: HourlySeries,
  neighbours: readonly HourlySeries[],
  variable: DriftingVariable,
  trusted: ReadonlySet<number> = new Set(),
): Drift | undefined {
  const own = dailyMeans(series)
  const departures = neighbours
    .map((neighbour) => departuresFrom(own, dailyMeans(neighbour), LIMITS[variable], trusted))
    .filter((found): found is Map<number, number> => found !== undefined)
  const [first, ...others] = departures
  if (!first) return undefined
  const days = joined([...first.keys()].filter((day) => others.every((other) => other.has(day))).sort((a, b) => a - b)).filter(
    (day) => !trusted.has(day),
  )
  if (days.length === 0) return undefined
  return { days, departure: Math.max(...days.map((day) => Math.abs(first.get(day) ?? 0))) }
}

/** Days of a drift with those between them that could not be compared. */
function joined(days: readonly number[]): number[] {
  return days.flatMap((day, i) => {
    const next = days[i + 1]
    const between = next !== undefined && next - day <= LONGEST_UNCOMPARED_DAYS + 1 ? next - day : 1
    return Array.from({ length: between }, (_, k) => day + k)
  })
}

/** Means are asked for once for each station that a series is held against; hours are never changed in place. */
const means = new WeakMap<Float64Array, { firstHour: number; byDay: ReadonlyMap<number, number> }>()

/** Mean of each day with at least eighteen hours, by day number; the same object as long as the hours are the same. */
export function dailyMeans(series: HourlySeries): ReadonlyMap<number, number> {
  const known = means.get(series.values)
  if (known?.firstHour === series.firstHour) return known.byDay
  const byDay = meansByDay(series)
  means.set(series.values, { firstHour: series.firstHour, byDay })
  return byDay
}

function meansByDay({ firstHour, values }: HourlySeries): Map<number, number> {
  const found = new Map<number, number>()
  const lead = ((firstHour % 24) + 24) % 24
  for (let start = -lead; start < values.length; start += 24) {
    let sum = 0
    let n = 0
    for (let i = Math.max(0, start); i < Math.min(values.length, start + 24); i++) {
      const value = values[i] as number
      if (Number.isNaN(value)) continue
      sum += value
      n++
    }
    if (n >= LEAST_HOURS) found.set((firstHour + start) / 24, sum / n)
  }
  return found
}

function departuresFrom(
  own: ReadonlyMap<number, number>,
  neighbour: ReadonlyMap<number, number>,
  limit: number,
  trusted: ReadonlySet<number>,
): Map<number, number> | undefined {
  const differences: { day: number; difference: number }[] = []
  for (const [day, mean] of own) {
    const other = neighbour.get(day)
    if (other !== undefined) differences.push({ day, difference: mean - other })
  }
  if (differences.length < LEAST_BASELINE_DAYS + TESTED_DAYS) return undefined
  const drifting = new Map<number, number>()
  const baseline: number[] = []
  const inOrder: number[] = []
  let lately = 0
  // Differences in the order of days; the last ten are tested, those before them and not drifting are what they are held against.
  for (let k = 0; k < differences.length; k++) {
    lately += (differences[k] as { difference: number }).difference - (differences[k - TESTED_DAYS]?.difference ?? 0)
    const leaving = differences[k - TESTED_DAYS]
    if (leaving && !drifting.has(leaving.day)) {
      baseline.push(leaving.difference)
      inOrder.splice(placeOf(inOrder, leaving.difference), 0, leaving.difference)
      if (baseline.length > BASELINE_DAYS) inOrder.splice(placeOf(inOrder, baseline.shift() as number), 1)
    }
    if (baseline.length < LEAST_BASELINE_DAYS) continue
    const usual = inOrder[inOrder.length >> 1] as number
    if (Math.abs(lately / TESTED_DAYS - usual) <= limit) continue
    for (const { day, difference } of differences.slice(k - TESTED_DAYS + 1, k + 1))
      if (!trusted.has(day) && Math.abs(difference - usual) > limit / 2) drifting.set(day, difference - usual)
  }
  return drifting
}

/** Where a value stands, or would stand, in values in order. */
function placeOf(inOrder: readonly number[], value: number): number {
  let low = 0
  let high = inOrder.length
  while (low < high) {
    const middle = (low + high) >> 1
    if ((inOrder[middle] as number) < value) low = middle + 1
    else high = middle
  }
  return low
}
