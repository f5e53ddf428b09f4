/* An entry of the site's own while it is written: plain JSON, changed by path, so that nothing that the form does not show is lost. */

export type Json = string | number | boolean | null | Json[] | { [key: string]: Json }
export type Entry = { [key: string]: Json }

const isObject = (node: Json | undefined): node is { [key: string]: Json } =>
  typeof node === 'object' && node !== null && !Array.isArray(node)

/** What stands at a path, such as `generations.0.events.2.heat`. */
export function at(entry: Json, path: string): Json | undefined {
  let node: Json | undefined = entry
  for (const part of path.split('.')) {
    if (Array.isArray(node)) node = node[Number(part)]
    else if (isObject(node)) node = node[part]
    else return undefined
  }
  return node
}

/** The entry with something else at a path; everything beside it stays the same. */
export function put<T extends Json>(entry: T, path: string, value: Json): T {
  const [first = '', ...rest] = path.split('.')
  const inner = (node: Json | undefined): Json => (rest.length === 0 ? value : put(node ?? {}, rest.join('.'), value))
  if (Array.isArray(entry)) return entry.map((node, i) => (i === Number(first) ? inner(node) : node)) as T
  return { ...(entry as Entry), [first]: inner((entry as Entry)[first]) } as unknown as T
}

export const textAt = (entry: Json, path: string): string => {
  const node = at(entry, path)
  return typeof node === 'string' ? node : ''
}

export const listAt = (entry: Json, path: string): Json[] => {
  const node = at(entry, path)
  return Array.isArray(node) ? node : []
}

/** A figure at a path: a bare number, or one with what it rests on. */
export function figureAt(entry: Json, path: string): number | null {
  const node = at(entry, path)
  if (typeof node === 'number') return node
  if (isObject(node) && typeof node['value'] === 'number') return node['value']
  return null
}

/** Puts another value for a figure. Whoever writes it answers for it: it no longer rests on what the old one rested on. */
export function putFigure(entry: Entry, path: string, value: number): Entry {
  const node = at(entry, path)
  if (!isObject(node)) return put(entry, path, value)
  if (node['value'] === value) return entry
  return put(entry, path, { ...node, value, confidence: 'approximate', region: 'this site', source: { kind: 'none' } })
}

/** Lines of a text, without those that are blank. */
export const linesOf = (text: string): string[] =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)

/** `5-9, 11` as months; undefined where it is none. */
export function monthsOf(text: string): number[] | undefined {
  const months: number[] = []
  for (const part of text.split(',').map((p) => p.trim())) {
    const span = /^(\d{1,2})(?:\s*-\s*(\d{1,2}))?$/.exec(part)
    if (!span) return undefined
    const [from, to] = [Number(span[1]), Number(span[2] ?? span[1])]
    if (from < 1 || from > 12 || to < 1 || to > 12) return undefined
    for (let m = from; ; m = (m % 12) + 1) {
      months.push(m)
      if (m === to) break
    }
  }
  return months
}

/** Months as they are typed: `5-9, 11`. */
export function typedMonths(months: readonly Json[]): string {
  const runs: [number, number][] = []
  for (const month of months.map(Number)) {
    const last = runs.at(-1)
    if (last && (last[1] % 12) + 1 === month) last[1] = month
    else runs.push([month, month])
  }
  return runs.map(([from, to]) => (from === to ? String(from) : `${from}-${to}`)).join(', ')
}
