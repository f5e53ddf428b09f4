import {
  coverageForecast,
  dailyFromHours,
  dailyHeat,
  joinMembers,
  reachableCohort,
  reachHeat,
  reachOf,
  resolveEvents,
  seasonHeat,
  seasonWeather,
  dayNumber,
  type DayExtremes,
  type HeatRule,
  MS_PER_HOUR,
} from '@bocado/core'
import { findOrganism, modelOf } from '@bocado/library'
import { inventWeather, STATIONS, STANDARD_OFFSET_HOURS } from '@bocado/demo'

/*
 * How fast the heat is, each against a plain loop that does the same arithmetic in the same run. Run with npm run bench.
 */

/** Median of several runs in ms, after one to warm up. */
function time(work: () => unknown, runs = 7): number {
  work()
  const taken = Array.from({ length: runs }, () => {
    const began = performance.now()
    work()
    return performance.now() - began
  })
  return taken.sort((a, b) => a - b)[runs >> 1] as number
}

/** Single sine with a horizontal cut-off over typed arrays, written out by hand. */
function plainSine(min: Float64Array, max: Float64Array, lower: number, upper: number, out: Float64Array): void {
  for (let i = 0; i < min.length; i++) {
    const n = min[i] as number
    const x = max[i] as number
    const mean = (n + x) / 2
    const half = (x - n) / 2
    let heat = 0
    if (x > lower) {
      if (n >= lower) heat = mean - lower
      else {
        const theta = Math.asin((lower - mean) / half)
        heat = ((mean - lower) * (Math.PI / 2 - theta) + half * Math.cos(theta)) / Math.PI
      }
    }
    if (x > upper) {
      if (n >= upper) heat -= mean - upper
      else {
        const theta = Math.asin((upper - mean) / half)
        heat -= ((mean - upper) * (Math.PI / 2 - theta) + half * Math.cos(theta)) / Math.PI
      }
    }
    out[i] = heat
  }
}

function dailyHeatBench(): string[] {
  const days: DayExtremes[] = Array.from({ length: 30 * 365 }, (_, i) => {
    const mean = 11 - 11 * Math.cos((2 * Math.PI * (i - 20)) / 365) + 4 * Math.sin(i * 1.3)
    return { min: mean - 7, max: mean + 7 }
  })
  const min = Float64Array.from(days, (d) => d.min)
  const max = Float64Array.from(days, (d) => d.max)
  const out = new Float64Array(days.length)
  const rules: HeatRule[] = Array.from({ length: 50 }, (_, r) => ({ method: 'single-sine', lower: 4 + r / 6, upper: 28 + r / 12 }))
  const plain = time(() => rules.forEach((rule) => plainSine(min, max, rule.lower, rule.upper as number, out)))
  const ours = time(() => rules.forEach((rule) => dailyHeat(days, rule)))
  return [
    `daily heat, 30 years × 50 rules: ${ours.toFixed(0)} ms, plain loop ${plain.toFixed(0)} ms, ${(ours / plain).toFixed(2)} times (at most 2)`,
  ]
}

function ensembleBench(): string[] {
  const station = STATIONS[0]
  if (!station) return []
  const hours = inventWeather(station, Date.parse('2026-06-12T08:00:00Z'))
  const firstHour = Math.round((hours[0]?.at ?? 0) / MS_PER_HOUR) + STANDARD_OFFSET_HOURS
  const tempsC = new Float64Array(Math.round(((hours.at(-1)?.at ?? 0) - (hours[0]?.at ?? 0)) / MS_PER_HOUR) + 1).fill(NaN)
  for (const { at, temperature } of hours) tempsC[Math.round((at - (hours[0]?.at ?? 0)) / MS_PER_HOUR)] = temperature ?? NaN
  const series = dailyFromHours({ firstHour, tempsC })
  const organism = findOrganism('codling-moth')
  if (!organism) return []
  const model = modelOf(organism)
  const forecast = Array.from({ length: 12 }, (_, m) =>
    Array.from({ length: 10 }, (_, d) => ({ min: 10 + m / 4 + d / 9, max: 24 + m / 3 })),
  )
  const season = () => seasonWeather({ series, firstDay: dayNumber('2026-01-01'), today: dayNumber('2026-06-12'), forecast })
  const heatOf = () => seasonHeat(season(), model.heat, dayNumber('2026-05-10'))
  const made = heatOf()
  const join = time(() => Array.from({ length: 40 }, () => joinMembers(made.segments)))
  const plain = time(() =>
    Array.from({ length: 40 }, () =>
      made.members.map(({ cumulative }) => {
        const copy = new Float64Array(cumulative.length)
        let sum = 0
        for (let i = 0; i < copy.length; i++) copy[i] = sum += (cumulative[i] as number) - (i > 0 ? (cumulative[i - 1] as number) : 0)
        return copy
      }),
    ),
  )
  const whole = time(heatOf, 5)
  const reach = reachOf(resolveEvents(model), 'first', ['egg', 'young-larva'])
  const cohorts = reach ? made.members.map(({ cumulative }) => reachableCohort(reachHeat(reach), cumulative, 0)) : []
  const coverage = time(() => coverageForecast(cohorts, [{ day: 160.5, effect: 0.8, residualDays: 5 }], made))
  return [
    `ensemble curves, 40 watches × ${made.members.length} members × 365 days: ${join.toFixed(0)} ms joined, plain sums ${plain.toFixed(0)} ms (at most 60)`,
    `one watch from daily extremes to members and median: ${whole.toFixed(1)} ms`,
    `coverage of one date over ${cohorts.length} members: ${coverage.toFixed(2)} ms`,
  ]
}

export const report = (): string[] => [...dailyHeatBench(), ...ensembleBench()]
