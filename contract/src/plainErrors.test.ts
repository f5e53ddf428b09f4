import { describe, expect, test } from 'vitest'
import { z } from 'zod'
import { endpoints, type Endpoint } from './index.js'

const said = (schema: z.ZodType, value: unknown): string[] => {
  const { error } = schema.safeParse(value)
  return error?.issues.map(({ path, message }) => (path.length > 0 ? `${path.join('.')} ${message}` : message)) ?? []
}

describe('what a schema says where it has no words of its own', () => {
  const schema = z.strictObject({
    name: z.string().min(3),
    share: z.number().gt(0).max(1),
    count: z.int(),
    list: z.array(z.string()).min(2),
    side: z.enum(['left', 'right']),
    on: z.boolean(),
    id: z.string().regex(/^[a-z]+$/),
  })
  const good = { name: 'moth', share: 0.5, count: 3, list: ['a', 'b'], side: 'left', on: true, id: 'moth' }

  test.each([
    [{ name: undefined }, ['name is missing; enter a text']],
    [{ name: 4 }, ['name must be a text, got 4']],
    [{ name: null }, ['name must be a text, got null']],
    [{ name: 'ab' }, ['name must have at least 3 characters']],
    [{ share: '0.5' }, ['share must be a number, got a text']],
    [{ share: 0 }, ['share must be more than 0']],
    [{ share: 2 }, ['share must be at most 1']],
    [{ count: 1.5 }, ['count must be a whole number, got 1.5']],
    [{ list: {} }, ['list must be a list, got an object with fields']],
    [{ list: ['a'] }, ['list must have at least 2 entries']],
    [{ side: 'up' }, ['side must be one of left, right, got "up"']],
    [{ side: undefined }, ['side is missing; must be one of left, right']],
    [{ on: 'yes' }, ['on must be true or false, got a text']],
    [{ hazzard: 1 }, ['has no field called hazzard; take it out or mend its spelling']],
    [{ id: 'A1' }, ['id must be written by the pattern /^[a-z]+$/, got "A1"']],
  ])('%j', (change, words) => expect(said(schema, { ...good, ...change })).toEqual(words))

  test('its own words come first', () => {
    expect(said(z.number({ error: 'enter the rate' }), undefined)).toEqual(['enter the rate'])
  })

  test('what was typed is not repeated without end', () => {
    expect(said(z.enum(['a']), 'x'.repeat(500))[0]!.length).toBeLessThan(70)
  })
})

/** Values of every kind, of which each field refuses some. */
const ODD: readonly unknown[] = [undefined, null, '', 'x', '2026-02-30', -1, 1e12, 1.5, Number.NaN, true, [], {}, [1], { a: 1 }]

const shapeOf = (schema: z.ZodType): readonly string[] => Object.keys((schema as unknown as { shape?: object }).shape ?? {})

describe.each(Object.entries(endpoints))('writes to %s', (_, group) => {
  const writes = Object.entries<Endpoint>(group).filter(([, { method }]) => method !== 'get')
  test('refuse every odd value in words that a person understands, and never fail otherwise', () => {
    for (const [name, { input }] of writes)
      for (const value of ODD) {
        const body = Object.fromEntries(shapeOf(input).map((field) => [field, value]))
        for (const message of said(input, body)) {
          expect(message, `${name} with ${JSON.stringify(value)}`).not.toMatch(
            /Invalid (input|option|string)|Too (small|big)|Unrecognized|expected/,
          )
          expect(message.length, message).toBeLessThan(400)
        }
      }
  })
  test('refuse what is no object at all', () => {
    for (const [name, { input }] of writes) {
      if (shapeOf(input).length === 0) continue
      for (const value of [null, 'x', 3, []]) expect(input.safeParse(value).success, name).toBe(false)
    }
  })
})
