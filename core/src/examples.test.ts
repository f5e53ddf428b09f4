import { readdirSync, readFileSync } from 'node:fs'
import { expect, test } from 'vitest'
import * as core from './index.js'

/* The examples of the docstrings say what they say: `@example expression // result`, numbers to four digits. */

const src = new URL('./', import.meta.url)
const examples = (readdirSync(src, { recursive: true }) as string[])
  .filter((file) => file.endsWith('.ts') && !file.endsWith('.test.ts'))
  .flatMap((file) =>
    [...readFileSync(new URL(file, src), 'utf8').matchAll(/^ \* @example (.+) \/\/ (.+)$/gm)].map(([, expression = '', result = '']) => ({
      file,
      expression,
      result,
    })),
  )

/** Evaluates an expression of a docstring over the public surface. */
function evaluated(expression: string): unknown {
  // eslint-disable-next-line @typescript-eslint/no-implied-eval
  const run = new Function(...Object.keys(core), `return (${expression})`) as (...values: unknown[]) => unknown
  return run(...Object.values(core))
}

/** A value as an example shows it. */
function shown(value: unknown): unknown {
  if (typeof value === 'number') return Number(value.toPrecision(4))
  if (ArrayBuffer.isView(value) || Array.isArray(value)) return Array.from(value as ArrayLike<unknown>, shown)
  if (value !== null && typeof value === 'object') return Object.fromEntries(Object.entries(value).map(([name, one]) => [name, shown(one)]))
  return value
}

test.each(examples)('$expression', ({ expression, result }) => {
  expect(shown(evaluated(expression))).toEqual(evaluated(result))
})

test('every formula of the public surface that stands by itself has one', () => {
  expect(examples.length).toBeGreaterThanOrEqual(57)
})
