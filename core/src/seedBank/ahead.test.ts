import { describe, expect, test } from 'vitest'
import { drawNormal, seededRandom } from '../statistics/index.js'
import { yearsAhead, YEARS_AHEAD, type WeedForm, type WeedStand, type YearsWork } from './index.js'

const none: YearsWork = { passes: 0, found: 0.85, seedersOnly: false, leftLying: 0 }
const times = (passes: number, more: Partial<YearsWork> = {}): YearsWork => ({ ...none, passes, ...more })
const stand = (form: WeedForm, plants: readonly number[], more: Partial<WeedStand> = {}): WeedStand => ({
  form,
  counts: plants.map((count, i) => ({ year: 2026 - plants.length + i, plants: count })),
  areaM2: 120,
  bankYears: { shortest: 3, longest: 5 },
  arrivals: 0,
  doneSoFar: times(1),
  ...more,
})
const middles = (s: WeedStand, works: readonly YearsWork[], runs = 300) => yearsAhead(s, works, runs, 11)
const last = (one: { plants: { p50: number }[] }): number => one.plants.at(-1)!.p50

describe('what the years would bring', () => {
  test.each(['annual', 'biennial', 'clonal', 'woody'] as const)(
    'more passes never leave more of %s, by the middle of the same runs',
    (form) => {
      const [idle, one, two, three] = middles(stand(form, [80, 70, 75, 68]), [none, times(1), times(2), times(3)])
      expect(last(one!)).toBeLessThanOrEqual(last(idle!) + 1)
      expect(last(two!)).toBeLessThanOrEqual(last(one!) + 1)
      expect(last(three!)).toBeLessThanOrEqual(last(two!) + 1)
      expect(idle!.plants).toHaveLength(YEARS_AHEAD)
      expect(idle!.taken).toBe(0)
    },
  )

  test('no plant comes without seed, root or arrival', () => {
    for (const form of ['annual', 'biennial', 'clonal', 'woody'] as const) {
      const [idle] = middles(stand(form, [0, 0, 0]), [none])
      expect(idle!.plants.every(({ p90 }) => p90 === 0)).toBe(true)
    }
  })

  test('where something arrives nothing is gone, however much is taken', () => {
    const [closed] = middles(stand('annual', [200, 80, 30]), [times(3)])
    const [open] = middles(stand('annual', [200, 80, 30], { arrivals: 40 }), [times(3)])
    expect(closed!.gone).toBeGreaterThan(0.5)
    expect(open!.gone).toBe(0)
    expect(open!.bankAliveYears).toBeNull()
  })

  test('own counts decide: of two stands with the same today, the one that grew under the same work goes on growing', () => {
    const [grew] = middles(stand('clonal', [30, 42, 60, 90]), [times(1)])
    const [fell] = middles(stand('clonal', [270, 190, 130, 90]), [times(1)])
    expect(grew!.plants[3]!.p50).toBeGreaterThan(1.5 * fell!.plants[3]!.p50)
  })

  test('passes by year are those of each year, the last goes on', () => {
    const of = stand('annual', [300, 280, 300])
    const [two, alike, front, late] = middles(of, [
      times(2),
      times(0, { passesByYear: [2] }),
      times(0, { passesByYear: [4, 4, 1] }),
      times(0, { passesByYear: [0, 0, 3] }),
    ])
    expect(alike).toEqual(two)
    expect(front!.plants[1]!.p50).toBeLessThan(two!.plants[1]!.p50)
    expect(late!.takenFirst).toBe(0)
    expect(late!.plants[2]!.p50).toBeGreaterThan(front!.plants[2]!.p50)
  })

  test('a season that nobody came costs plants, and years', () => {
    const [kept, missed] = middles(stand('biennial', [60, 50, 40]), [times(2), times(2, { missedIn: 1 })])
    expect(missed!.taken).toBeGreaterThan(kept!.taken)
    expect(missed!.yearsToFew.p50 ?? Infinity).toBeGreaterThanOrEqual(kept!.yearsToFew.p50 ?? Infinity)
  })

  test('what is left lying in flower ripens: it takes longer', () => {
    const [away, lying] = middles(stand('annual', [300, 280, 300]), [times(2), times(2, { leftLying: 1 })])
    expect(last(lying!) + lying!.taken).toBeGreaterThan(last(away!) + away!.taken)
  })

  test('of two hundred hidden stands the sixth year and its change lie within nine in ten about as often as said', () => {
    // Truths are lives as they are drawn; of five of their years counts are shown that are off as counts are.
    const random = seededRandom(99)
    const held = { plants: 0, rate: 0 }
    const each = 50
    for (const form of ['annual', 'biennial', 'clonal', 'woody'] as const)
      for (let i = 0; i < each; i++) {
        const truth = yearsAhead(stand(form, [60]), [times(1)], 1, 5000 + i)[0]!.plants.map(({ p50 }) => p50)
        const shown = truth.slice(0, 5).map((plants) => Math.round(plants * Math.exp(drawNormal(random, 0, 0.35))))
        const { plants, rate } = yearsAhead(stand(form, shown), [times(1)], 150, 3)[0]!.next
        const [before, next] = [truth[4]!, truth[5]!]
        if (next >= Math.floor(plants.low) && next <= Math.ceil(plants.high)) held.plants++
        const changed = next / Math.max(1, before)
        if (changed >= rate.low - 1e-9 && changed <= rate.high + 1e-9) held.rate++
      }
    for (const count of Object.values(held)) {
      expect(count / (4 * each)).toBeGreaterThanOrEqual(0.84)
      expect(count / (4 * each)).toBeLessThanOrEqual(0.96)
    }
  }, 120_000)

  test('nothing is made up where nothing was counted, and impossible shares are refused by name', () => {
    expect(() => yearsAhead(stand('annual', []), [none], 10, 1)).toThrow('stand.counts')
    expect(() => yearsAhead(stand('annual', [5]), [times(1, { found: 1.2 })], 10, 1)).toThrow('found')
    expect(() => yearsAhead(stand('annual', [5], { arrivals: -1 }), [none], 10, 1)).toThrow('stand.arrivals')
  })
})
