import type { Outcome, OutcomeCount, Round } from '@bocado/contract'
import { describe, expect, test } from 'vitest'
import { colour } from '../design/theme.js'
import { BeforeAfter } from '../outcomes/BeforeAfter.js'
import { RoundsChart } from '../scouting/RoundsChart.js'
import { markupOf, shapesOf, wordsOf } from '../testing/drawn.js'
import { CoverageChart } from '../windows/CoverageChart.js'

const round = (countedOn: string, per100: number, check = false): Round =>
  ({
    id: `${countedOn} ${check}`,
    checkAreaId: check ? 'north' : null,
    checkAreaName: check ? 'North corner' : null,
    countedOn,
    per100,
    crossed: per100 >= 2,
  }) as Round

describe('counts against the threshold', () => {
  const rounds = [round('2026-06-01', 1), round('2026-06-08', 3), round('2026-06-15', 2), round('2026-06-08', 6, true)]
  const markup = markupOf(<RoundsChart rounds={rounds} threshold={{ per100: 2, from: 'library' }} items="fruit" />)
  const dots = shapesOf(markup, 'circle') as { cx: number; cy: number; fill: string }[]
  const [line] = shapesOf(markup, 'line').filter(({ stroke }) => stroke === colour.beet) as { y1: number; y2: number }[]

  test('a count stands above the line where it is above the threshold, on it where it meets it, and is marked from there on', () => {
    expect(dots).toHaveLength(3)
    expect(dots[0]!.cy).toBeGreaterThan(line!.y1)
    expect(dots[1]!.cy).toBeLessThan(line!.y1)
    expect(dots[2]!.cy).toBeCloseTo(line!.y1, 9)
    expect(dots.map(({ fill }) => fill === colour.beet)).toEqual([false, true, true])
  })

  test('days stand as far apart as they are, and each area has its own shape', () => {
    expect(dots[1]!.cx - dots[0]!.cx).toBeCloseTo(dots[2]!.cx - dots[1]!.cx, 9)
    const [diamond] = shapesOf(markup, 'rect') as { x: number; y: number; width: number }[]
    expect(diamond!.x + diamond!.width / 2).toBeCloseTo(dots[1]!.cx, 9)
    expect(diamond!.y + diamond!.width / 2).toBeLessThan(dots[1]!.cy)
    expect(wordsOf(markup)).toEqual(expect.arrayContaining(['1 Jun', '15 Jun']))
  })

  test('without a threshold there is no line and no mark', () => {
    const without = markupOf(<RoundsChart rounds={[{ ...round('2026-06-01', 9), crossed: false }]} threshold={null} items="fruit" />)
    expect(shapesOf(without, 'line').filter(({ stroke }) => stroke === colour.beet)).toEqual([])
    expect(shapesOf(without, 'circle').filter(({ fill }) => fill === colour.beet)).toEqual([])
  })

  test('a single count, and one far above the threshold, stay inside the picture', () => {
    for (const per100 of [0, 0.4, 500]) {
      const [dot] = shapesOf(
        markupOf(<RoundsChart rounds={[round('2026-06-01', per100)]} threshold={{ per100: 2, from: 'library' }} items="fruit" />),
        'circle',
      ) as {
        cx: number
        cy: number
      }[]
      expect(dot!.cx).toBeGreaterThan(0)
      expect(dot!.cy).toBeGreaterThan(0)
      expect(dot!.cy).toBeLessThan(150)
    }
  })
})

describe('before and after', () => {
  const count = (countedOn: string, per100: number, crossed = false): OutcomeCount => ({
    roundId: `${countedOn} ${per100}`,
    countedOn,
    units: 24,
    per100,
    low: per100 * 0.7,
    high: per100 * 1.4,
    crossed,
  })
  const outcome = (changes: Partial<Outcome> = {}): Outcome =>
    ({
      threshold: 2,
      item: 'fruit',
      treated: { before: count('2026-06-02', 4, true), after: count('2026-06-16', 1) },
      check: { name: 'North corner', before: count('2026-06-02', 5, true), after: count('2026-06-16', 3, true) },
      comparison: { expectedWithoutTreatment: 2.4 },
      ...changes,
    }) as Outcome
  const draw = (changes?: Partial<Outcome>): string => markupOf(<BeforeAfter outcome={outcome(changes)} block="Old Apples" />)

  test('what would have gone anyway is the part from before to the hollow ring; only the rest is the treatment’s', () => {
    const markup = draw()
    const circles = shapesOf(markup, 'circle') as { cx: number; cy: number; fill: string }[]
    const [before, after, hollow] = circles as [(typeof circles)[0], (typeof circles)[0], (typeof circles)[0]]
    expect(hollow.fill).toBe('none')
    expect(hollow.cx).toBe(after.cx)
    // 4 before, 2.4 had it gone the way of the check, 1 after: in proportion.
    expect((hollow.cy - before.cy) / (after.cy - before.cy)).toBeCloseTo((4 - 2.4) / (4 - 1), 6)
    const [gain] = shapesOf(markup, 'line').filter((l) => l['stroke-width'] === 5) as { y1: number; y2: number }[]
    expect(gain!.y1).toBeCloseTo(hollow.cy, 9)
    expect(gain!.y2).toBeCloseTo(after.cy, 9)
    expect(wordsOf(markup)).toContain('4')
  })

  test('each count carries its interval, and a crossed threshold is told by fill', () => {
    const markup = draw()
    const bars = shapesOf(markup, 'line').filter((l) => l['x1'] === l['x2'] && l['stroke-width'] === 2) as { y1: number; y2: number }[]
    expect(bars).toHaveLength(4)
    for (const { y1, y2 } of bars) expect(y1).toBeGreaterThan(y2)
    const diamonds = shapesOf(markup, 'rect').map(({ fill }) => fill === colour.beet)
    expect(diamonds).toEqual([true, true])
  })

  test('without a check nothing is said of what would have gone anyway', () => {
    const markup = draw({ check: null, comparison: null })
    expect(shapesOf(markup, 'circle').every(({ fill }) => fill !== 'none')).toBe(true)
    expect(wordsOf(markup)).toContain('no check area counted')
  })

  test('with only one count there is no line to draw', () => {
    const markup = draw({ treated: { before: count('2026-06-02', 4), after: null }, check: null, comparison: null })
    expect(shapesOf(markup, 'circle')).toHaveLength(1)
    expect(shapesOf(markup, 'line').filter((l) => l['stroke-width'] === 1.6)).toEqual([])
  })
})

describe('what a treatment reaches, day by day', () => {
  const bounds = (p50: number) => ({ p10: p50 * 0.8, p50, p90: Math.min(1, p50 * 1.2) })
  const days = [0.1, 0.4, 0.6, 0.3].map((p50, i) => ({ day: 160 + i, coverage: { generation: 'first', bounds: bounds(p50) } }))
  const draw = (chosen: number): string =>
    markupOf(<CoverageChart days={days as never} chosen={chosen} today={161} start="2026-01-01" onChoose={() => undefined} />)

  test('the chosen day stands on its line, the best day highest, today at its own place', () => {
    const heights = days.map(({ day }) => (shapesOf(draw(day), 'circle')[0] as { cx: number; cy: number }).cy)
    expect(heights.indexOf(Math.min(...heights))).toBe(2)
    const [today] = shapesOf(draw(163), 'line').filter(({ stroke }) => stroke === colour.beet) as { x1: number }[]
    const [there] = shapesOf(draw(161), 'circle') as { cx: number }[]
    expect(today!.x1).toBeCloseTo(there!.cx, 9)
  })

  test('a day outside what is known is not marked', () => {
    expect(shapesOf(draw(10), 'circle')).toEqual([])
    expect(shapesOf(draw(999), 'circle')).toEqual([])
  })
})
