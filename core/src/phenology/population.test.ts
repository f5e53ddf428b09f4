import { describe, expect, test } from 'vitest'
import { seasonHeat, seasonWeather, type DailySeries } from '../weather/index.js'
import { dayNumber } from '../time/index.js'
import { drawNormal, seededRandom } from '../statistics/index.js'
import { boundsOfDates, dayOfHeat, ensembleOf, resolveEvents, shareInDiapause, stageShares, type OrganismModel } from './index.js'

const model: OrganismModel = {
  heat: { method: 'single-sine', lower: 10 },
  generations: [
    {
      id: 'first',
      reachableStages: ['egg'],
      events: [
        { id: 'flight', stage: 'adult', heat: 60, atShare: 0.5, spread: 20, heatSe: 6, distribution: 'normal' },
        { id: 'egg', stage: 'egg', heat: 50, atShare: 0.5, spread: 15, heatSe: 4, distribution: 'lognormal', countedFrom: 'flight' },
        { id: 'hatch', stage: 'larva', heat: 90, atShare: 0.5, spread: 18, heatSe: 5, distribution: 'lognormal', countedFrom: 'egg' },
      ],
    },
  ],
}

describe('a simulated population', () => {
  test('has the stage shares of the model: each animal draws its own heat for each step', () => {
    const random = seededRandom(12)
    const events = resolveEvents(model)
    const lognormal = (median: number, sd: number): number => {
      const w = (1 + Math.sqrt(1 + (4 * sd * sd) / (median * median))) / 2
      return median * Math.exp(Math.sqrt(Math.log(w)) * drawNormal(random))
    }
    const animals = Array.from({ length: 40_000 }, () => {
      const flight = drawNormal(random, 60, 20)
      const egg = flight + lognormal(50, 15)
      return { flight, egg, hatch: egg + lognormal(90, 18) }
    })
    for (const heat of [40, 70, 110, 160, 200, 240]) {
      const reached = (of: (a: (typeof animals)[number]) => number): number => animals.filter((a) => of(a) <= heat).length / animals.length
      const simulated = [
        1 - reached((a) => a.flight),
        reached((a) => a.flight) - reached((a) => a.egg),
        reached((a) => a.egg) - reached((a) => a.hatch),
        reached((a) => a.hatch),
      ]
      const shares = stageShares(
        heat,
        events.map(({ spread }) => spread),
      )
      // Sums of lognormals are taken as lognormal again: close, not exact.
      shares.forEach((share, i) => expect(Math.abs(share - simulated[i]!), `stage ${i} at ${heat}`).toBeLessThan(0.045))
    }
  })
})

describe('the bounds of a forecast date', () => {
  test('hold about 80 % of seasons that were left out', () => {
    const random = seededRandom(77)
    const first = dayNumber('1980-01-01')
    const length = dayNumber('2026-12-31') - first + 1
    const series: DailySeries = {
      firstDay: first,
      min: new Float64Array(length),
      max: new Float64Array(length),
      filled: new Float64Array(length),
    }
    let anomaly = 0
    let yearly = 0
    for (let i = 0; i < length; i++) {
      const day = first + i
      const doy = day - Date.UTC(new Date(day * 86_400_000).getUTCFullYear(), 0, 1) / 86_400_000
      if (doy === 0) yearly = drawNormal(random, 0, 0.8)
      anomaly = 0.75 * anomaly + drawNormal(random, 0, 2)
      const mean = 11 - 12 * Math.cos((2 * Math.PI * (doy - 20)) / 365.25) + anomaly + yearly
      series.min[i] = mean - 6
      series.max[i] = mean + 6
    }
    const event = resolveEvents(model)[2]!
    let inside = 0
    let seasons = 0
    for (let year = 1990; year <= 2025; year++) {
      const firstDay = dayNumber(`${year}-01-01`)
      // Weather known to the first of May; the rest of this season and all later ones are cut off.
      const known = dayNumber(`${year}-05-01`) - first
      const cut: DailySeries = {
        ...series,
        min: series.min.slice(0, known),
        max: series.max.slice(0, known),
        filled: series.filled.slice(0, known),
      }
      const heat = seasonHeat(seasonWeather({ series: cut, firstDay, today: first + known }), model.heat, firstDay + 90)
      const ensemble = ensembleOf(heat, seededRandom(1))
      const { scores } = ensemble
      const dates = boundsOfDates(
        heat.members.map(({ cumulative }, m) =>
          dayOfHeat(cumulative, event.spread.kind === 'weibull' ? 0 : event.spread.median + scores[m]! * event.heatSe),
        ),
        ensemble,
      )
      const came = seasonHeat(
        seasonWeather({
          series: {
            ...series,
            min: series.min.slice(0, firstDay - first + 365),
            max: series.max.slice(0, firstDay - first + 365),
            filled: series.filled.slice(0, firstDay - first + 365),
          },
          firstDay,
          today: firstDay + 365,
        }),
        model.heat,
        firstDay + 90,
      )
      // The season's own figure differs from the published one by its standard error.
      const truth = dayOfHeat(
        came.members[0]!.cumulative,
        (event.spread as { median: number }).median + drawNormal(random, 0, event.heatSe),
      )
      seasons++
      if (truth >= dates.p10 - 0.5 && truth <= dates.p90 + 0.5) inside++
    }
    // 36 seasons: a binomial standard error of 7 %.
    expect(inside / seasons).toBeGreaterThan(0.8 - 2.5 * 0.067)
    expect(inside / seasons).toBeLessThanOrEqual(1)
  })
})

describe('diapause', () => {
  test('takes half at the critical day length and nearly all as days shorten', () => {
    const at = (hours: number): number => shareInDiapause(hours, { criticalHours: 14.5, slope: 0.6 })
    expect(at(14.5)).toBe(0.5)
    expect(at(14.2)).toBeCloseTo(0.75, 1)
    expect(at(13)).toBeGreaterThan(0.99)
    expect(at(16)).toBeLessThan(0.01)
    expect(() => at(25)).toThrow('dayLengthHours')
  })
})
