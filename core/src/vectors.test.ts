import { readFileSync, readdirSync } from 'node:fs'
import { describe, expect, test } from 'vitest'
import * as core from './index.js'

interface VectorCase {
  call: string
  args: unknown[]
  expect?: unknown
  tolerance?: number
  throws?: boolean
}

/** The files spell the numbers that JSON lacks as strings. */
function restore(value: unknown): unknown {
  if (value === 'NaN') return NaN
  if (value === 'Infinity') return Infinity
  if (Array.isArray(value)) return value.map(restore)
  if (value && typeof value === 'object') return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, restore(v)]))
  return value
}

function expectClose(actual: unknown, expected: unknown, tolerance: number, path: string): void {
  if (typeof expected === 'number') {
    if (expected === Infinity) expect(actual, path).toBe(Infinity)
    else expect(Math.abs((actual as number) - expected), `${path}: ${String(actual)} against ${expected}`).toBeLessThanOrEqual(tolerance)
  } else if (expected && typeof expected === 'object') {
    const keys = Object.keys(expected)
    if (Array.isArray(expected)) expect((actual as ArrayLike<unknown>).length, path).toBe(expected.length)
    for (const key of keys)
      expectClose((actual as Record<string, unknown>)[key], (expected as Record<string, unknown>)[key], tolerance, `${path}.${key}`)
  } else expect(actual, path).toBe(expected)
}

function frozen<T>(value: T): T {
  if (value && typeof value === 'object') Object.values(value).forEach(frozen)
  return Object.freeze(value)
}

const folder = new URL('../fixtures/', import.meta.url)
describe.each(readdirSync(folder))('worked numbers of %s', (file) => {
  const { cases } = JSON.parse(readFileSync(new URL(file, folder), 'utf8')) as { cases: VectorCase[] }
  test.each(cases.map((c, i) => [`${i} ${c.call}`, c] as const))('%s', (_, c) => {
    const call = (core as unknown as Record<string, (...args: unknown[]) => unknown>)[c.call] as (...args: unknown[]) => unknown
    const args = frozen(c.args.map(restore))
    if (c.throws) expect(() => call(...args)).toThrow(RangeError)
    else expectClose(call(...args), restore(c.expect), c.tolerance ?? 0, c.call)
  })
})
