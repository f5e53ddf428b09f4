import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  bankAlive,
  cleanLooks,
  coveredShare,
  flagState,
  smallerAtFlower,
  type FlagSight,
  type FlagVisit,
  type HeightClass,
} from './index.js'

const look = (day: number, sight: FlagSight, by = 'scout', isTreated = false): FlagVisit => ({ day, sight, by, isTreated })

describe('the state of a flag', () => {
  test.each<[string, FlagVisit[]]>([
    ['found', [look(1, 'standing')]],
    ['found', [look(1, 'standing'), look(9, 'standing')]],
    ['treated', [look(1, 'standing', 'scout', true)]],
    ['treated', [look(1, 'standing', 'scout', true), look(30, 'regrowing', 'scout', true)]],
    ['regrowing', [look(1, 'standing', 'scout', true), look(30, 'standing')]],
    ['regrowing', [look(1, 'standing'), look(30, 'regrowing')]],
    ['none-standing', [look(1, 'standing', 'scout', true), look(30, 'none')]],
    ['back', [look(1, 'standing'), look(30, 'none'), look(60, 'standing')]],
    ['back', [look(1, 'standing'), look(30, 'none'), look(4000, 'gone'), look(4400, 'standing')]],
    // What was worked at after it came back regrows again.
    ['regrowing', [look(1, 'standing'), look(30, 'none'), look(60, 'standing', 'scout', true), look(90, 'standing')]],
    ['gone', [look(1, 'standing'), look(30, 'none'), look(4000, 'gone')]],
  ])('is %s', (state, visits) => expect(flagState(visits)).toBe(state))

  test('is none without a look', () => expect(() => flagState([])).toThrow(RangeError))
})

describe('looks that found nothing', () => {
  test('count in a row, those of the same eyes within a fortnight once', () => {
    const visits = [look(1, 'standing'), look(20, 'none'), look(25, 'none'), look(26, 'none', 'lead'), look(60, 'none')]
    expect(cleanLooks(visits)).toBe(3)
    expect(cleanLooks([...visits, look(70, 'standing')])).toBe(0)
    expect(cleanLooks([...visits, look(70, 'standing'), look(71, 'none')])).toBe(1)
  })

  test('never say that the soil is empty before its years are over', () => {
    const visits = [look(0, 'standing'), look(400, 'none'), look(800, 'none')]
    expect(bankAlive(visits, { shortest: 2, longest: 3 })).toEqual({ from: 731, until: 1096 })
    // Each plant that stands may have fed it anew.
    expect(bankAlive([...visits, look(900, 'regrowing')], { shortest: 2, longest: 3 })?.until).toBe(900 + 1096)
    expect(bankAlive(visits, null)).toBeNull()
    expect(bankAlive([look(0, 'none')], { shortest: 2, longest: 3 })).toBeNull()
  })
})

describe('plants that flower lower and lower', () => {
  const pass = (day: number, ...seen: [number, HeightClass][]) => seen.map(([plants, height]) => ({ day, plants, height }))
  const falling = [...pass(0, [8, 'hip'], [4, 'knee']), ...pass(30, [12, 'knee']), ...pass(60, [6, 'knee'], [9, 'hand'])]

  test('are told from three passes of at least ten plants', () => {
    expect(smallerAtFlower(falling)).toEqual([0, 30, 60])
    expect(smallerAtFlower([...falling].reverse())).toEqual([0, 30, 60])
  })
  test('are not told from fewer, from small passes, nor where they do not fall each time', () => {
    expect(smallerAtFlower(falling.filter(({ day }) => day > 0))).toBeNull()
    expect(smallerAtFlower([...pass(0, [9, 'hip']), ...pass(30, [9, 'knee']), ...pass(60, [9, 'hand'])])).toBeNull()
    expect(smallerAtFlower([...falling, ...pass(90, [10, 'hip'])])).toBeNull()
    expect(smallerAtFlower([...pass(0, [20, 'knee']), ...pass(30, [20, 'knee']), ...pass(60, [20, 'hand'])])).toBeNull()
  })
  test('a pass of few plants between does not hide it', () => {
    expect(smallerAtFlower([...falling, ...pass(45, [2, 'hip'])])).toEqual([0, 30, 60])
  })
  test('more of the same heights says the same', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 50 }), (times) => {
        const more = falling.map((one) => ({ ...one, plants: one.plants * times }))
        expect(smallerAtFlower(more)).toEqual([0, 30, 60])
      }),
    )
  })
})

describe('the share of ground that was seen from a track', () => {
  const box = (w: number, h: number, at = 0): [number, number][] => [
    [at, at],
    [at + w, at],
    [at + w, at + h],
    [at, at + h],
    [at, at],
  ]
  const share = (tracks: [number, number][][], width: number, rings = [box(100, 100)]): number => coveredShare({ rings, tracks, width })

  test('is that of the strip along the way, as far as it lies on the ground', () => {
    const across: [number, number][] = [
      [-50, 50],
      [0, 50],
      [100, 50],
      [150, 50],
    ]
    expect(share([across], 10)).toBeCloseTo(0.1, 2)
    expect(share([across], 300)).toBe(1)
    // Walked twice is seen once.
    expect(share([across, across], 10)).toBeCloseTo(0.1, 2)
    expect(share([across], 10, [box(100, 100), box(40, 40, 5)])).toBeCloseTo(1000 / 8400, 2)
  })
  test('does not count what lies between two points where the signal was lost', () => {
    const lost: [number, number][] = [
      [5, 50],
      [5, 60],
      [195, 60],
      [195, 50],
    ]
    expect(share([lost], 10, [box(200, 100)])).toBeLessThan(0.03)
  })
  test('of a wide search of a large block is told in time', () => {
    const lanes = Array.from({ length: 5000 }, (_, i): [number, number] => {
      const lane = Math.floor(i / 50)
      return [(lane % 2 ? 49 - (i % 50) : i % 50) * 20, lane * 10]
    })
    expect(share([lanes], 4, [box(1000, 1000)])).toBeCloseTo(0.4, 1)
  })
  test('is refused without a width or an area', () => {
    expect(() => share([], 0)).toThrow(/width/)
    expect(() => share([], 5, [box(0, 0)])).toThrow(RangeError)
  })
})
