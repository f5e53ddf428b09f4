import { describe, expect, it } from 'vitest'
import { seededRandom } from '../statistics/index.js'
import { arcAround, COMPASS_POINTS, compassPoint, degreesOfPoint, isOnArc, withinCircle } from '../units/compass.js'
import { meanDirection } from './windDirection.js'

describe('the direction of the wind', () => {
  it('is the mean of vectors: across north it stays north, and stronger wind weighs more', () => {
    expect(meanDirection([350, 10])).toBe(0)
    expect(meanDirection([90, NaN, 180])).toBeCloseTo(135, 6)
    // 3 m/s from east and 1 m/s from south: atan(1/3) beyond east.
    expect(meanDirection([90, 180], [3, 1])).toBeCloseTo(90 + (Math.atan(1 / 3) * 180) / Math.PI, 5)
    // A calm has no direction, whatever its vane shows.
    expect(meanDirection([0, 200], [0, 2])).toBe(200)
    // One speed that is not known takes the weights from all.
    expect(meanDirection([90, 180], [3, NaN])).toBeCloseTo(135, 6)
  })
  it('is none where nothing was read, it was calm, or it came from all around', () => {
    expect(meanDirection([])).toBeNaN()
    expect(meanDirection([NaN])).toBeNaN()
    expect(meanDirection([120], [0])).toBeNaN()
    expect(meanDirection([0, 90, 180, 270])).toBeNaN()
    expect(meanDirection([10, 190])).toBeNaN()
  })
  it('turns with what it is made of', () => {
    const next = seededRandom(7)
    for (let k = 0; k < 200; k++) {
      const [some, turn] = [Array.from({ length: 5 }, () => 60 * next()), 360 * next()]
      const gap = withinCircle(meanDirection(some.map((d) => withinCircle(d + turn))) - meanDirection(some) - turn)
      expect(Math.min(gap, 360 - gap)).toBeLessThan(1e-5)
    }
  })
  it('is read from the letters of three families of languages', () => {
    for (const point of COMPASS_POINTS) expect(compassPoint(degreesOfPoint(point, 'NESW') as number)).toBe(point)
    expect(degreesOfPoint('O', 'NOSW')).toBe(90)
    expect(degreesOfPoint('O', 'NESO')).toBe(270)
    expect(degreesOfPoint(' nno ', 'NOSW')).toBe(22.5)
    expect(degreesOfPoint('O', 'NESW')).toBeUndefined()
    expect(degreesOfPoint('W', 'NESO')).toBeUndefined()
    expect(degreesOfPoint('calm', 'NESW')).toBeUndefined()
    expect(degreesOfPoint('', 'NESW')).toBeUndefined()
  })
  it('names the nearest point', () => {
    expect([compassPoint(348), compassPoint(349), compassPoint(11), compassPoint(-12)]).toEqual(['NNW', 'N', 'N', 'NNW'])
  })
})

describe('an arc', () => {
  it('is the smallest that holds all, also across north', () => {
    expect(arcAround([100, 140, 120])).toEqual({ from: 100, to: 140 })
    expect(arcAround([350, 20], 10)).toEqual({ from: 340, to: 30 })
    expect(arcAround([90], 30)).toEqual({ from: 60, to: 120 })
    expect(arcAround([90, 90])).toEqual({ from: 90, to: 90 })
  })
  it('is the whole circle where what it holds lies all around', () => {
    const around = arcAround([0, 90, 180, 270], 45)
    for (let bearing = 0; bearing < 360; bearing++) expect(isOnArc(bearing, around)).toBe(true)
  })
  it('holds every bearing that it was made of and its margin, and is no wider than it must be', () => {
    const next = seededRandom(3)
    for (let k = 0; k < 300; k++) {
      const some = Array.from({ length: 1 + Math.floor(4 * next()) }, () => Math.floor(360 * next()))
      const margin = Math.floor(20 * next())
      const arc = arcAround(some, margin)
      for (const bearing of some) for (const side of [-margin, 0, margin]) expect(isOnArc(bearing + side, arc)).toBe(true)
      const held = Array.from({ length: 360 }, (_, b) => isOnArc(b, arc)).filter(Boolean).length
      // Brute force: the arc from each bearing on that reaches the others.
      const least = Math.min(...some.map((from) => Math.max(...some.map((to) => withinCircle(to - from)))))
      expect(held).toBeLessThanOrEqual(Math.min(360, least + 2 * margin + 1))
    }
  })
})
