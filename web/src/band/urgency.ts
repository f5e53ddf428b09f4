import type { WatchForecast } from '@bocado/contract'
import { byUrgency, urgencyOf, type Urgency } from '@bocado/core'

export { byUrgency, currentWindow, firstDayOffered, URGENCIES, urgencyOf, type Urgency } from '@bocado/core'

export const GROUPINGS = ['urgency', 'block', 'organism'] as const
export type Grouping = (typeof GROUPINGS)[number]

export interface Group {
  id: string
  /** A word of its own where it is one, such as a block's name; otherwise `id` is what it stands for. */
  name: string | null
  rows: WatchForecast[]
}

/** What must be looked at now, what comes, what stays quiet, and what is past. */
const URGENCY_GROUPS = [
  { id: 'now', of: ['closing', 'open'] },
  { id: 'coming', of: ['coming'] },
  { id: 'quiet', of: ['quiet', 'unknown'] },
  { id: 'past', of: ['past', 'poorly-reachable'] },
] as const satisfies readonly { id: string; of: readonly Urgency[] }[]

/** Rows in groups; within each the most pressing first. Empty groups are left out. */
export function grouped(rows: readonly WatchForecast[], by: Grouping, blockNames: ReadonlyMap<string, string>): Group[] {
  const sorted = [...rows].sort(byUrgency)
  if (by === 'urgency') {
    return URGENCY_GROUPS.map(({ id, of }) => ({
      id,
      name: null,
      rows: sorted.filter((row) => (of as readonly Urgency[]).includes(urgencyOf(row))),
    })).filter((group) => group.rows.length > 0)
  }
  const groups = new Map<string, Group>()
  for (const row of sorted) {
    const id = by === 'block' ? row.watch.blockId : row.watch.organismId
    const group = groups.get(id) ?? { id, name: by === 'block' ? (blockNames.get(id) ?? '') : row.organismName, rows: [] }
    group.rows.push(row)
    groups.set(id, group)
  }
  return [...groups.values()].sort((a, b) => (a.name ?? '').localeCompare(b.name ?? ''))
}

/** Rows whose organism, block, state or kind holds every word of a search. */
export function filtered(
  rows: readonly WatchForecast[],
  search: string,
  wordsOf: (row: WatchForecast) => string,
): readonly WatchForecast[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean)
  if (words.length === 0) return rows
  return rows.filter((row) => {
    const text = wordsOf(row).toLowerCase()
    return words.every((word) => text.includes(word))
  })
}
