import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { dirname, join, relative } from 'node:path'
import { fileURLToPath } from 'node:url'
import { expect, test } from 'vitest'
import { en } from './en.js'

/* The messages of a screen come with its code: whoever says something has its group in what is loaded with it. */

const src = fileURLToPath(new URL('..', import.meta.url))
const files = (readdirSync(src, { recursive: true }) as string[]).filter((name) => /\.tsx?$/.test(name) && !/test/.test(name))
const text = new Map(files.map((name) => [name, readFileSync(join(src, name), 'utf8')]))

function resolved(from: string, to: string): string | undefined {
  const path = relative(src, join(src, dirname(from), to)).replace(/\.js$/, '')
  return [`${path}.ts`, `${path}.tsx`].find((name) => existsSync(join(src, name)))
}
/** What a file imports at once, values only. */
const importsOf = (name: string): string[] =>
  [...(text.get(name) ?? '').matchAll(/^(?:import|export)(?! type)[^'";]*?(?:from )?'(\.[^']+)'/gms)].flatMap(
    ([, to = '']) => resolved(name, to) ?? [],
  )
/** What a file loads when it is needed. */
const laterOf = (name: string): string[] =>
  [...(text.get(name) ?? '').matchAll(/import\('(\.[^']+)'\)/g)].flatMap(([, to = '']) => resolved(name, to) ?? [])

function graph(entry: string, known = new Set<string>()): Set<string> {
  if (known.has(entry)) return known
  known.add(entry)
  for (const next of importsOf(entry)) graph(next, known)
  return known
}

const groupOf = new Map(
  files
    .filter((name) => /^messages\/en\/\w+\.ts$/.test(name))
    .flatMap((name) => [...text.get(name)!.matchAll(/^ {2}'?([\w.-]+)'?:/gm)].map(([, id = '']) => [id, name] as const)),
)
const ids = Object.keys(en)
/** The messages that a file says, by their name or by the beginning of it. */
function saidIn(name: string): string[] {
  if (name.startsWith('messages/')) return []
  const source = text.get(name) ?? ''
  const beginnings = [...source.matchAll(/`([\w.-]+\.)\$\{/g)].map(([, beginning = '']) => beginning)
  return ids.filter((id) => source.includes(`'${id}'`) || beginnings.some((beginning) => id.startsWith(beginning)))
}

const frame = graph('main.tsx')
const entries = [...new Set([...text.keys()].flatMap(laterOf))]

test('no message stands in two groups, where one would take the place of the other', () => {
  const all = files
    .filter((name) => /^messages\/en\/\w+\.ts$/.test(name))
    .flatMap((name) => [...text.get(name)!.matchAll(/^ {2}'?([\w.-]+)'?:/gm)].map(([, id = '']) => id))
  expect(all.filter((id, i) => all.indexOf(id) !== i)).toEqual([])
})

test('each message belongs to one group', () => {
  expect(ids.filter((id) => !groupOf.has(id))).toEqual([])
})

test.each([['main.tsx'], ...entries.map((entry) => [entry])])('what %s says comes with it', (entry) => {
  const loaded = new Set([...frame, ...graph(entry)])
  const missing = new Map<string, string[]>()
  for (const name of graph(entry))
    for (const id of saidIn(name)) {
      const group = groupOf.get(id)
      if (group && !loaded.has(group)) missing.set(group, [...(missing.get(group) ?? []), `${id} in ${name}`])
    }
  expect(Object.fromEntries([...missing].map(([group, where]) => [group, where.slice(0, 3)]))).toEqual({})
})

test('the frame says little: of the groups only its own', () => {
  expect([...frame].filter((name) => name.startsWith('messages/en/'))).toEqual(['messages/en/shell.ts'])
})
