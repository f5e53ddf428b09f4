import { endpoints } from '@bocado/contract'
import { dailyFromHours, dayNumber, hasDay, seededRandom, varietyStandings } from '@bocado/core'
import { findOrganism } from '@bocado/library'
import { areaOf, metresBetween } from '@bocado/server/ground/geometry'
import { describe, expect, test } from 'vitest'
import { OUTLINES } from './ground.js'
import {
  BLOCKS,
  CURRENT_YEAR,
  DEMO_NOW,
  drawRound,
  FIRST_YEAR,
  LANE,
  BLOOM_SEASONS,
  inventBlooms,
  inventPastRecords,
  inventThistleDates,
  inventVarietyLooks,
  inventWeather,
  PAST_RECORDS,
  THISTLE_SEASONS,
  PRODUCTS,
  STANDARD_OFFSET_HOURS,
  VARIETY_YEARS,
  type InventedHour,
} from './index.js'

const until = Date.parse(DEMO_NOW)
const bench = inventWeather({ seed: 11, coldNights: 0, doubts: true }, until)
const river = inventWeather({ seed: 12, coldNights: 1.5, doubts: false }, until)

const standard = (at: number): Date => new Date(at + STANDARD_OFFSET_HOURS * 3_600_000)
const mean = (hours: readonly InventedHour[]): number => hours.reduce((sum, { temperature }) => sum + (temperature ?? 0), 0) / hours.length

describe('the invented weather', () => {
  test('is the same for the same seed, and ends with the demonstration’s now', () => {
    expect(inventWeather({ seed: 11, coldNights: 0, doubts: true }, until).slice(-50)).toEqual(bench.slice(-50))
    expect(bench.at(-1)!.at).toBeLessThanOrEqual(until)
  })

  test('has eleven complete seasons before the current one', () => {
    const days = dailyFromHours({
      firstHour: Math.floor(river[0]!.at / 3_600_000) + STANDARD_OFFSET_HOURS,
      tempsC: Float64Array.from(river, ({ temperature }) => temperature ?? NaN),
    })
    for (let day = dayNumber(`${FIRST_YEAR}-01-01`); day < dayNumber(`${CURRENT_YEAR}-06-12`); day++)
      expect(hasDay(days, day), String(day)).toBe(true)
    expect(CURRENT_YEAR - FIRST_YEAR).toBe(11)
  })

  test('is colder by the river at night and not by day', () => {
    const at = (hours: readonly InventedHour[], hour: number) => hours.filter(({ at: t }) => standard(t).getUTCHours() === hour)
    expect(mean(at(bench, 4)) - mean(at(river, 4))).toBeCloseTo(1.5, 0)
    expect(Math.abs(mean(at(bench, 15)) - mean(at(river, 15)))).toBeLessThan(0.2)
  })

  test('has its cold wet spring, its heat wave and its late frosts', () => {
    const spring = (year: number) =>
      mean(bench.filter(({ at }) => standard(at).getUTCFullYear() === year && [2, 3, 4].includes(standard(at).getUTCMonth())))
    const others = [2015, 2017, 2019, 2020, 2023, 2025].map(spring)
    expect(spring(2022)).toBeLessThan(Math.min(...others))
    const hottest = bench.reduce((a, b) =>
      (b.temperature ?? 0) > (a.temperature ?? 0) && standard(b.at).getUTCFullYear() < CURRENT_YEAR ? b : a,
    )
    expect(standard(hottest.at).toISOString().slice(0, 7)).toMatch(/2021-0[67]/)
    const frost = bench.filter(({ at, temperature }) => standard(at).getUTCMonth() === 4 && (temperature ?? 9) < 0)
    expect(frost.length).toBeGreaterThan(0)
  })

  test('holds the doubts that were planted: a gap of nine hours, a stuck sensor, a spike', () => {
    const longest = Math.max(...bench.slice(1).map(({ at }, i) => (at - bench[i]!.at) / 3_600_000))
    expect(longest).toBe(10)
    expect(bench.some(({ temperature }) => temperature === 47.3)).toBe(true)
    let run = 0
    let longestRun = 0
    bench.forEach(({ temperature }, i) => {
      run = temperature === bench[i - 1]?.temperature ? run + 1 : 1
      longestRun = Math.max(longestRun, run)
    })
    expect(longestRun).toBeGreaterThanOrEqual(12)
  })

  test('is damp while it rains and never outside what a sensor shows', () => {
    for (const { humidity, rain, wind } of bench) {
      expect(humidity! >= 0 && humidity! <= 100 && wind! >= 0 && rain! >= 0).toBe(true)
      if (rain! > 0) expect(humidity).toBeGreaterThanOrEqual(90)
    }
  })
})

test('the blocks add up to the 34 hectares of the site, and every label is complete', () => {
  expect(BLOCKS.reduce((sum, { areaHa }) => sum + (areaHa ?? 0), 0)).toBeCloseTo(34)
  for (const product of PRODUCTS) expect(endpoints.treatments.addProduct.input.safeParse(product).success, product.name).toBe(true)
})

test('the blocks are drawn as large as they are said to be, beside each other', () => {
  for (const { name, areaHa } of BLOCKS)
    expect((areaOf(OUTLINES[name]!)! / 10_000 / areaHa!).toFixed(2), name).toMatch(/^(0\.9[89]|1\.0[012])$/)
  const all = Object.values(OUTLINES)
  for (const [i, one] of all.entries()) for (const other of all.slice(i + 1)) expect(metresBetween(one, other)).toBeGreaterThan(0)
})

test('invented counts use the classes of the library and come near the density that they are drawn from', () => {
  const { sampling } = findOrganism('codling-moth')!
  const units = drawRound(seededRandom(4), 6, 3000, sampling.itemsPerUnit)
  const classes = sampling.classes.map(({ id }) => id)
  for (const unit of units) for (const name of Object.keys(unit)) expect(classes).toContain(name)
  const entries = units.reduce((sum, unit) => sum + (unit['fresh-entry'] ?? 0), 0)
  expect((100 * entries) / (units.length * sampling.itemsPerUnit)).toBeCloseTo(6, 0)
})

test('past records are of seasons with a flight that the trap saw from its begin to its end, and a hatch after it', () => {
  const seasons = inventPastRecords({ seed: 11, coldNights: 0, doubts: true }, PAST_RECORDS)
  expect(seasons.map(({ season }) => season)).toEqual(PAST_RECORDS)
  for (const { hungOn, checks, hatch } of seasons) {
    expect([hungOn, ...checks.map(({ day }) => day)]).toEqual([hungOn, ...checks.map(({ day }) => day)].toSorted())
    const caught = checks.map((check) => check.caught)
    expect(caught.reduce((sum, n) => sum + n, 0)).toBeGreaterThan(100)
    expect(caught[0]).toBeLessThan(4)
    const first = checks.find((check) => check.caught > 1)!.day
    expect(hatch.seenOn > first && hatch.lookedBefore < hatch.seenOn).toBe(true)
  }
})

test('thistle dates keep the heat of the truth within what looks and years differ, in seasons that differ by more than that', () => {
  const seen = inventThistleDates({ seed: 11, coldNights: 0, doubts: true }, THISTLE_SEASONS)
  const days = seen.map(({ seenOn }) => dayNumber(seenOn) - dayNumber(`${seenOn.slice(0, 4)}-01-01`))
  for (const { seenOn, lookedBefore } of seen) expect(dayNumber(seenOn) - dayNumber(lookedBefore)).toBe(3)
  expect(Math.min(...days)).toBeGreaterThan(120)
  expect(Math.max(...days) - Math.min(...days)).toBeGreaterThan(5)
})

test('the notebook of the lane has eight seasons with gaps, in the order of the lane but for two days written down wrongly', () => {
  const { past, current } = inventBlooms({ seed: 11, coldNights: 0, doubts: true })
  expect(new Set(past.map(({ seenFrom }) => Number(seenFrom.slice(0, 4))))).toEqual(new Set(BLOOM_SEASONS))
  expect(past.length).toBeGreaterThan(100)
  expect(past.length).toBeLessThan(BLOOM_SEASONS.length * LANE.length * 2)
  const of = (plantId: string, year: number) =>
    past.find((b) => b.plantId === plantId && b.event === 'first-open' && b.seenFrom.startsWith(String(year)))
  const usual = BLOOM_SEASONS.flatMap((year) => {
    const [lilac, locust] = [of('common-lilac', year), of('black-locust', year)]
    return lilac && locust && year !== 2020 && year !== 2023 ? [dayNumber(locust.seenFrom) - dayNumber(lilac.seenFrom)] : []
  })
  expect(Math.min(...usual)).toBeGreaterThan(0)
  expect(current.every(({ seenFrom }) => seenFrom.startsWith(String(CURRENT_YEAR)) && seenFrom < `${CURRENT_YEAR}-06-12`)).toBe(true)
})

test('the varieties of the orchard show what was hidden in them, where it is large', () => {
  const looks = inventVarietyLooks(VARIETY_YEARS).filter(({ organism }) => organism === 'apple-scab')
  const standings = varietyStandings(looks.map((look) => ({ ...look, place: look.lookedOn.slice(0, 4), day: dayNumber(look.lookedOn) })))
  expect(standings.map(({ variety, besideOthers }) => [variety, besideOthers!.verdict])).toEqual([
    ['Lane Russet', 'less'],
    ['Old Keeper', 'not-separable'],
    ['Bench Early', 'more'],
  ])
})
