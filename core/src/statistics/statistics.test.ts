import { expect, test } from 'vitest'
import { bounds, drawNormal, drawPoisson, normalCdf, normalQuantile, seededRandom, studentQuantile } from './index.js'

test('normal distribution and its inverse agree with tables', () => {
  expect(normalCdf(1.959963984540054)).toBeCloseTo(0.975, 12)
  expect(normalCdf(-4)).toBeCloseTo(3.167124183311986e-5, 14)
  for (const p of [0.001, 0.1, 0.5, 0.77, 0.9999]) expect(normalCdf(normalQuantile(p))).toBeCloseTo(p, 12)
})

test('Student quantiles agree with tables', () => {
  const table = [
    [1, 6.3138],
    [2, 2.92],
    [5, 2.015],
    [11, 1.7959],
    [23, 1.7139],
  ] as const
  for (const [freedom, t] of table) expect(studentQuantile(0.95, freedom), `${freedom} degrees of freedom`).toBeCloseTo(t, 3)
  expect(studentQuantile(0.05, 11)).toBeCloseTo(-1.7959, 3)
})

test('an event that some members never reach pushes its late bound out of the season, not the early one', () => {
  const b = bounds([150, 152, 154, 156, 158, 160, 162, 164, 166, Infinity, Infinity])
  expect(b.p10).toBe(152)
  expect(b.p50).toBe(160)
  expect(b.p90).toBe(Infinity)
})

test('a seed gives the same draws, with the mean and variance of their distribution', () => {
  const [a, b] = [seededRandom(7), seededRandom(7)]
  expect([a(), a(), a()]).toEqual([b(), b(), b()])
  const random = seededRandom(3)
  const normals = Array.from({ length: 20_000 }, () => drawNormal(random, 5, 2))
  const mean = normals.reduce((x, y) => x + y, 0) / normals.length
  expect(mean).toBeCloseTo(5, 1)
  expect(normals.reduce((x, y) => x + (y - mean) ** 2, 0) / normals.length).toBeCloseTo(4, 0)
  const counts = Array.from({ length: 5_000 }, () => drawPoisson(random, 42))
  expect(counts.reduce((x, y) => x + y, 0) / counts.length).toBeCloseTo(42, 0)
})
