import type { BloomForecast, Living, Treatment, WatchForecast } from '@bocado/contract'
import { civilDate, currentWindow, dayNumber, urgencyOf } from '@bocado/core'
import type { StepDue } from './programme.js'
import type { Errand } from './walk.js'

/** On what a line of the morning rests. */
export type RestsOn =
  'dates' | 'infection' | 'months' | 'bloom' | 'counts' | 'traps' | 'flags' | 'plots' | 'arrivals' | 'programme' | 'supply'

/** Something of the morning: what has to be done, decided or looked at, where, by when, and on what that rests. */
export interface TodayLine {
  id: string
  kind: 'deed' | 'step' | 'decide' | 'judge' | 'bloom' | 'months' | 'supply' | Errand['kind']
  /** Civil day by which. */
  due: string
  /** Empty where it is of the whole site. */
  blockId: string
  restsOn: RestsOn
  row?: WatchForecast
  treatment?: Treatment
  errand?: Errand
  step?: StepDue
  /** Of one block, known by months alone: whoever is there looks at all of them. */
  rows?: WatchForecast[]
  blooms?: BloomForecast[]
  living?: Living
}

/** An order is pressing so many days before its last one. */
const ORDERS_AHEAD_DAYS = 3
/** Days ahead of which a morning speaks. */
export const MORNING_DAYS = 7
/** A bloom is looked for from so many days before its early date on. */
const BLOOM_DAYS = 1
/** After so many days nobody looks for a bloom any more that nobody saw. */
const BLOOM_GONE_DAYS = 10

/** On what rests what is said of a watch. */
export function restsOn(row: WatchForecast): RestsOn {
  if (row.infection) return 'infection'
  if (row.breedsOn) return 'counts'
  if (row.grade === 'dates') return row.bloom ? 'bloom' : 'dates'
  return 'months'
}

/** Planned treatments that are not done: due on their day, and still after it. */
function deedsOf(row: WatchForecast, until: string): TodayLine[] {
  return row.treatments
    .filter(({ status, plannedOn }) => status === 'planned' && plannedOn <= until)
    .map((treatment) => ({
      id: `deed ${treatment.id}`,
      kind: 'deed',
      due: treatment.plannedOn,
      blockId: row.watch.blockId,
      restsOn: restsOn(row),
      row,
      treatment,
    }))
}

/** After so many days nobody judges any more what could have been judged. */
const JUDGED_WITHIN_DAYS = 14

/** What was done and can be judged from a day on: a count is due then, where none was made since. */
function judgedOf(row: WatchForecast, today: string, judgeAfter: (methods: readonly string[]) => number): TodayLine[] {
  if (row.infection) return []
  return row.treatments.flatMap((treatment): TodayLine[] => {
    const { done } = treatment
    const days = done && treatment.deviation === null ? judgeAfter(done.does.methods) : 0
    if (!done || days <= 0) return []
    const due = civilDate(dayNumber(done.day) + days)
    const isCounted = row.rounds.some(({ checkAreaId, countedOn }) => checkAreaId === null && countedOn >= due)
    if (isCounted || due < civilDate(dayNumber(today) - JUDGED_WITHIN_DAYS)) return []
    return [{ id: `judge ${treatment.id}`, kind: 'judge', due, blockId: row.watch.blockId, restsOn: 'counts', row, treatment }]
  })
}

/** A watch that is over its threshold in an open window, or presses by infection, and of which nothing is planned, done in it, or decided. */
function decisionOf(row: WatchForecast, today: string): TodayLine[] {
  const { infection, watch, treatments, decision, grade } = row
  const begin = dayNumber(watch.season)
  const line = (due: number | null): TodayLine[] => {
    const day = due === null ? today : civilDate(begin + Math.floor(due))
    return [
      { id: `decide ${watch.id}`, kind: 'decide', due: day < today ? today : day, blockId: watch.blockId, restsOn: restsOn(row), row },
    ]
  }
  if (treatments.some(({ status }) => status === 'planned')) return []
  if (grade === 'dates' && infection) return infection.state === 'protect' || infection.state === 'cure' ? line(null) : []
  const last = row.rounds.findLast(({ checkAreaId }) => checkAreaId === null)
  if (!last?.crossed || (decision && decision.lookAgainOn >= today)) return []
  // What was done since the count answers it.
  if (treatments.some(({ done }) => done && done.day >= last.countedOn)) return []
  const window = currentWindow(row)
  if (!['open', 'closing'].includes(urgencyOf(row)) || !window) return []
  return line(window.closes.p10)
}

/** Blooms of which somebody may write down the day now, as one look. */
function bloomsOf(blooms: readonly BloomForecast[], season: string, today: string, seen: ReadonlySet<string>): TodayLine[] {
  const at = dayNumber(today) - dayNumber(season)
  const due = blooms.filter((bloom) => {
    const { p10, p50, p90 } = bloom.date
    if (p10 === null || p50 === null || seen.has(bloomKey(bloom))) return false
    return at >= p10 - BLOOM_DAYS && at <= (p90 ?? p50) + BLOOM_GONE_DAYS
  })
  return due.length === 0 ? [] : [{ id: 'blooms', kind: 'bloom', due: today, blockId: '', restsOn: 'bloom', blooms: due }]
}

/** Orders of what is living: to be sent, looked for, looked at, or put out before it dies. */
function suppliesOf(rows: readonly WatchForecast[], living: readonly Living[], today: string): TodayLine[] {
  return living.flatMap((one): TodayLine[] => {
    const row = rows.find(({ treatments }) => treatments.some(({ id }) => id === one.treatmentId))
    const { state, orderBy, usableUntil, supply } = one
    const due =
      state === 'order' || state === 'late'
        ? orderBy
        : state === 'due' || state === 'dead' || state === 'stale'
          ? today
          : state === 'there' && supply?.alive === null
            ? (usableUntil ?? today)
            : null
    if (!row || due === null) return []
    return [{ id: `supply ${one.treatmentId}`, kind: 'supply', due, blockId: row.watch.blockId, restsOn: 'supply', row, living: one }]
  })
}

/** Counts that only months ask for are one look for each block: whoever is there sees all of them. */
function byBlock(lines: readonly TodayLine[]): TodayLine[] {
  const isLook = ({ kind, restsOn: rests, row }: TodayLine): boolean => kind === 'count' && rests === 'months' && row !== undefined
  const blocks = [...new Set(lines.filter(isLook).map(({ blockId }) => blockId))]
  return [
    ...lines.filter((line) => !isLook(line)),
    ...blocks.map((blockId): TodayLine => {
      const own = lines.filter((line) => isLook(line) && line.blockId === blockId)
      const due = own.map((line) => line.due).sort()[0] ?? ''
      return { id: `months ${blockId}`, kind: 'months', due, blockId, restsOn: 'months', rows: own.flatMap(({ row }) => row ?? []) }
    }),
  ]
}

/** A bloom's name among those that were seen. */
export const bloomKey = ({ plant, event }: { plant: string; event: string }): string => `${plant} ${event}`

/** What is looked at in the order of a morning: deeds before decisions, those before what is looked at. */
const ORDER: readonly TodayLine['kind'][] = [
  'deed',
  'supply',
  'step',
  'decide',
  'judge',
  'count',
  'arrival',
  'trap',
  'flags',
  'plots',
  'months',
  'bloom',
]

const ERRAND_RESTS: Readonly<Record<Errand['kind'], RestsOn>> = {
  count: 'counts',
  trap: 'traps',
  flags: 'flags',
  plots: 'plots',
  arrival: 'arrivals',
}

/** Everything that asks for somebody within a week, the most pressing first. */
export function todayLines(p: {
  rows: readonly WatchForecast[]
  errands: readonly Errand[]
  /** Steps of followed programmes that come up. */
  steps?: readonly StepDue[]
  living?: readonly Living[]
  /** Days after which what was done by some methods shows. */
  judgeAfter?: (methods: readonly string[]) => number
  blooms: readonly BloomForecast[]
  /** Blooms that were seen this season, by `bloomKey`. */
  seen: ReadonlySet<string>
  season: string
  today: string
}): TodayLine[] {
  const until = civilDate(dayNumber(p.today) + MORNING_DAYS)
  const lines: TodayLine[] = byBlock([
    ...p.rows.flatMap((row) => [
      ...deedsOf(row, until),
      ...decisionOf(row, p.today),
      ...(p.judgeAfter ? judgedOf(row, p.today, p.judgeAfter) : []),
    ]),
    ...suppliesOf(p.rows, p.living ?? [], p.today),
    ...(p.steps ?? []).map((step): TodayLine => ({
      id: `step ${step.programme.id} ${step.at}`,
      kind: 'step',
      due: step.day,
      blockId: step.row.watch.blockId,
      restsOn: 'programme',
      row: step.row,
      step,
    })),
    ...p.errands.map((errand): TodayLine => {
      const { id, kind, due, blockId, row } = errand
      return {
        id,
        kind,
        due,
        blockId,
        restsOn: row && kind === 'count' ? restsOn(row) : ERRAND_RESTS[kind],
        errand,
        ...(row ? { row } : {}),
      }
    }),
    ...bloomsOf(p.blooms, p.season, p.today, p.seen),
  ]).filter(({ due }) => due <= until)
  // What is overdue presses as much as what is due today, and so does a deed of tomorrow: it has to be made ready.
  const tomorrow = civilDate(dayNumber(p.today) + 1)
  // An order is no matter of its last day: shops are shut then.
  const soon = civilDate(dayNumber(p.today) + ORDERS_AHEAD_DAYS)
  const pressing = ({ due, kind }: TodayLine): string =>
    due < p.today || (due === tomorrow && (kind === 'deed' || kind === 'decide')) || (kind === 'supply' && due <= soon) ? p.today : due
  return lines.sort(
    (a, b) => pressing(a).localeCompare(pressing(b)) || ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind) || a.due.localeCompare(b.due),
  )
}

/** Watches of which nothing is asked within a week, and whose windows do not open soon. */
export function notShown(rows: readonly WatchForecast[], lines: readonly TodayLine[], soon: readonly WatchForecast[]): number {
  const shown = new Set([
    ...lines.flatMap(({ row, rows: several = [] }) => [row, ...several].flatMap((one) => one?.watch.id ?? [])),
    ...soon.map(({ watch }) => watch.id),
  ])
  return rows.filter(({ watch }) => !shown.has(watch.id)).length
}

/** What opens within so many days, the first first. */
export function opensSoon(rows: readonly WatchForecast[], today: string, days: number): WatchForecast[] {
  const opens = (row: WatchForecast): number | null => {
    const window = row.grade === 'dates' && !row.infection ? currentWindow(row) : undefined
    return window?.opens.p50 == null ? null : dayNumber(row.watch.season) + window.opens.p50 - dayNumber(today)
  }
  return rows
    .filter((row) => urgencyOf(row) === 'coming' && (opens(row) ?? Infinity) <= days)
    .sort((a, b) => (opens(a) ?? 0) - (opens(b) ?? 0))
}
