import type { WatchForecast, WindowForecast } from '@bocado/contract'

/** What a watch asks for, most pressing first. */
export const URGENCIES = ['closing', 'open', 'coming', 'quiet', 'poorly-reachable', 'past', 'unknown'] as const
export type Urgency = (typeof URGENCIES)[number]

/** The window that matters now: the one open, else the next to come, else the last one past. */
export function currentWindow(forecast: WatchForecast): WindowForecast | undefined {
  const { windows } = forecast
  return (
    windows.find(({ state }) => state === 'open' || state === 'closing') ??
    windows.find(({ state }) => state === 'coming') ??
    windows.findLast(({ state }) => state === 'past') ??
    windows[0]
  )
}

const OF_INFECTION = {
  cure: 'closing',
  protect: 'open',
  coming: 'coming',
  quiet: 'quiet',
  over: 'past',
  unknown: 'unknown',
} as const satisfies Record<NonNullable<WatchForecast['infection']>['state'], Urgency>

export function urgencyOf(forecast: WatchForecast): Urgency {
  // What rests on a placeholder, or on no weather, raises no alarm.
  if (forecast.grade !== 'dates') return 'unknown'
  if (forecast.infection) return OF_INFECTION[forecast.infection.state]
  const state = currentWindow(forecast)?.state
  return state === undefined ? 'unknown' : state === 'not-this-season' ? 'past' : state
}

/** The day of the season on which that changes; late where nothing is known. */
function nextChange(forecast: WatchForecast): number {
  const { infection } = forecast
  if (infection) {
    const ahead = infection.days.find(({ day }) => day >= forecast.heat.todayIndex)
    return ahead?.day ?? infection.from ?? 999
  }
  const window = currentWindow(forecast)
  return (window?.state === 'coming' ? window.opens.p50 : window?.closes.p50) ?? 999
}

/** Most pressing first: by what is asked for, then by when that ends. */
export function byUrgency(a: WatchForecast, b: WatchForecast): number {
  return URGENCIES.indexOf(urgencyOf(a)) - URGENCIES.indexOf(urgencyOf(b)) || nextChange(a) - nextChange(b)
}

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
