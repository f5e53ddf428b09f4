import { describe, expect, test } from 'vitest'
import { seededRandom } from '../statistics/random.js'
import { shareWithInterval } from '../statistics/share.js'
import { varietyStandings, type VarietyLook } from './varieties.js'

const look = (variety: string, hit: number, more: Partial<VarietyLook> = {}): VarietyLook => ({
  variety,
  place: 'Old Apples 2025',
  day: 200,
  looked: 100,
  hit,
  ...more,
})
const of = (looks: readonly VarietyLook[], variety: string, areaSdLog?: number) =>
  varietyStandings(looks, areaSdLog === undefined ? {} : { areaSdLog }).find((s) => s.variety === variety)!

describe('a share with its interval', () => {
  test('agrees with the worked value of 10 in 100 at 95 %', () => {
    const { share, low, high } = shareWithInterval(10, 100, 0.95)
    expect(share).toBe(0.1)
    expect(low).toBeCloseTo(0.0552, 4)
    expect(high).toBeCloseTo(0.1744, 4)
  })

  test('of none hit it ends at 0 and does not close there; of all likewise', () => {
    expect(shareWithInterval(0, 20, 0.9)).toMatchObject({ share: 0, low: 0 })
    expect(shareWithInterval(0, 20, 0.9).high).toBeGreaterThan(0.05)
    expect(shareWithInterval(20, 20, 0.9)).toMatchObject({ share: 1, high: 1 })
  })

  test('names what is wrong', () => {
    expect(() => shareWithInterval(5, 4, 0.9)).toThrow('hit must be at most looked, 4, got 5')
    expect(() => shareWithInterval(0, 0, 0.9)).toThrow('looked must be above 0, got 0')
  })
})

describe('varieties side by side', () => {
  test('the ratio of shares is that of the counts, and the least hit stands first', () => {
    const looks = [look('Lane Russet', 10), look('Bench Early', 40)]
    expect(of(looks, 'Lane Russet').besideOthers!.ratio).toBeCloseTo(0.25, 12)
    expect(of(looks, 'Bench Early').besideOthers!.ratio).toBeCloseTo(4, 12)
    expect(varietyStandings(looks).map(({ variety }) => variety)).toEqual(['Lane Russet', 'Bench Early'])
  })

  test('one place shows little, for two plots drift apart anyway; the same again in other places shows it', () => {
    const pair = (place: string) => [look('Lane Russet', 10, { place }), look('Bench Early', 20, { place })]
    expect(of(pair('2025'), 'Lane Russet').besideOthers!.verdict).toBe('not-separable')
    expect(of(pair('2025'), 'Lane Russet', 0).besideOthers!.verdict).toBe('less')
    const many = ['2022', '2023', '2024', '2025'].flatMap(pair)
    expect(of(many, 'Lane Russet').besideOthers).toMatchObject({ verdict: 'less', places: 4 })
    expect(of(many, 'Bench Early').besideOthers!.verdict).toBe('more')
  })

  test('a place where one variety stood alone counts for its share, not for the comparison', () => {
    const looks = [look('Lane Russet', 10), look('Bench Early', 40), look('Lane Russet', 90, { place: 'Stone Row 2025' })]
    const standing = of(looks, 'Lane Russet')
    expect(standing).toMatchObject({ hit: 100, looked: 200, places: 2 })
    expect(standing.besideOthers).toMatchObject({ places: 1 })
    expect(standing.besideOthers!.ratio).toBeCloseTo(0.25, 12)
    expect(of([look('Lane Russet', 10)], 'Lane Russet').besideOthers).toBeNull()
  })

  test('damage adds up: of several looks the last that can be compared counts, and none more than a week apart is', () => {
    const looks = [
      look('Lane Russet', 1, { day: 150 }),
      look('Bench Early', 2, { day: 150 }),
      look('Lane Russet', 10, { day: 195 }),
      look('Bench Early', 40, { day: 200 }),
      look('Lane Russet', 12, { day: 230 }),
    ]
    expect(of(looks, 'Lane Russet').besideOthers!.ratio).toBeCloseTo(0.25, 12)
    expect(of(looks, 'Lane Russet').hit).toBe(12)
    expect(of([look('Lane Russet', 10), look('Bench Early', 40, { day: 208 })], 'Lane Russet').besideOthers).toBeNull()
  })

  test('a variety that nothing touched has a ratio above 0 with an interval', () => {
    const { besideOthers } = of([look('Lane Russet', 0), look('Bench Early', 40)], 'Lane Russet')
    expect(besideOthers!.ratio).toBeGreaterThan(0)
    expect(besideOthers!.interval.high).toBeLessThan(1)
  })

  test('the interval holds the true ratio about as often as it says', () => {
    const random = seededRandom(44)
    const drawn = (p: number) => Array.from({ length: 60 }, () => random()).filter((u) => u < p).length
    let [held, trials] = [0, 0]
    for (; trials < 300; trials++) {
      const looks = ['a', 'b', 'c'].flatMap((place) => [
        look('Lane Russet', drawn(0.15), { place, looked: 60 }),
        look('Bench Early', drawn(0.3), { place, looked: 60 }),
      ])
      const { low, high } = of(looks, 'Lane Russet', 0).besideOthers!.interval
      if (low <= 0.5 && 0.5 <= high) held++
    }
    expect(held / trials).toBeGreaterThan(0.86)
    expect(held / trials).toBeLessThan(0.95)
  })

  test('names the look that is wrong', () => {
    expect(() => varietyStandings([look('Lane Russet', 1), look('Bench Early', 101)])).toThrow('looks[1].hit must be at most looked')
  })
})
