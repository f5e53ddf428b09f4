import type { WeatherMapping } from '@bocado/contract'
import { civilDate } from '@bocado/core'
import type { UnderstoodLine, Values } from './understand.js'

export interface Rejection {
  line: number
  reason: string
  content: string
}

/** A file ready to be stored: rows as the tables take them, and every line that is not among them, with its reason. */
export interface FileReadings {
  rows: (readonly (string | number | null)[])[]
  rejections: Rejection[]
  lines: number
  repeated: number
  readingsPerHour: number
  first: string | null
  last: string | null
}

const HOUR = 3_600_000

/** Equal in every value: the same reading written twice. */
const sameValues = (a: Values, b: Values): boolean => {
  const keys = new Set([...Object.keys(a), ...Object.keys(b)])
  return [...keys].every((key) => a[key as keyof Values] === b[key as keyof Values])
}

/** Lines that give different values for one moment: none of them is known to be right, so all are refused. */
function refuseConflicts(
  good: readonly UnderstoodLine[],
  reject: (line: UnderstoodLine, reason: string) => void,
): { kept: UnderstoodLine[]; repeated: number } {
  const byMoment = new Map<number, UnderstoodLine[]>()
  for (const line of good) {
    const group = byMoment.get(line.at as number)
    if (group) group.push(line)
    else byMoment.set(line.at as number, [line])
  }
  const kept: UnderstoodLine[] = []
  let repeated = 0
  for (const group of byMoment.values()) {
    const [first, ...others] = group as [UnderstoodLine, ...UnderstoodLine[]]
    const conflict = others.find((other) => !sameValues(first.values, other.values))
    if (!conflict) {
      kept.push(first)
      repeated += others.length
      continue
    }
    const lines = group.map(({ line }) => line).join(', ')
    for (const line of group) reject(line, `lines ${lines} give different values for the same moment; none was taken`)
  }
  return { kept, repeated }
}

/** Averages readings finer than an hour into hours; rain is added up. */
function intoHours(lines: readonly UnderstoodLine[]): { at: number; values: Values }[] {
  const hours = new Map<number, { sums: Values; counts: Values }>()
  for (const { at, values } of lines) {
    const hour = Math.floor((at as number) / HOUR) * HOUR
    let held = hours.get(hour)
    if (!held) hours.set(hour, (held = { sums: {}, counts: {} }))
    for (const [key, value] of Object.entries(values) as [keyof Values, number][]) {
      held.sums[key] = (held.sums[key] ?? 0) + value
      held.counts[key] = (held.counts[key] ?? 0) + 1
    }
  }
  return [...hours].map(([at, { sums, counts }]) => {
    const values: Values = {}
    for (const [key, sum] of Object.entries(sums) as [keyof Values, number][])
      values[key] = key === 'rain' ? sum : sum / (counts[key] as number)
    return { at, values }
  })
}

/** How many readings fall into an hour, from the commonest step between neighbours. */
function readingsPerHour(lines: readonly UnderstoodLine[]): number {
  const steps = new Map<number, number>()
  for (let i = 1; i < lines.length; i++) {
    const step = ((lines[i] as UnderstoodLine).at as number) - ((lines[i - 1] as UnderstoodLine).at as number)
    if (step > 0) steps.set(step, (steps.get(step) ?? 0) + 1)
  }
  const usual = [...steps].sort((a, b) => b[1] - a[1])[0]?.[0] ?? HOUR
  return usual < HOUR ? Math.max(1, Math.round(HOUR / usual)) : 1
}

/** Sorts understood lines into what is stored and what is refused. */
export function readingsOf(understood: readonly UnderstoodLine[], mapping: WeatherMapping): FileReadings {
  const rejections: Rejection[] = []
  const reject = ({ line, cells }: UnderstoodLine, reason: string): void => {
    rejections.push({ line, reason: reason.slice(0, 300), content: cells.join(mapping.separator).slice(0, 500) })
  }
  const good: UnderstoodLine[] = []
  for (const line of understood) {
    if (line.problem !== null || line.at === null) reject(line, line.problem ?? 'cannot be read')
    else good.push(line)
  }
  const { kept, repeated } = refuseConflicts(good, reject)
  kept.sort((a, b) => (a.at as number) - (b.at as number))
  const perHour = mapping.interval === 'hourly' ? readingsPerHour(kept) : 1
  const rows =
    mapping.interval === 'daily'
      ? kept.map(({ at, values }) => [civilDate((at as number) / 86_400_000), values.min ?? null, values.max ?? null, values.rain ?? null])
      : intoHours(kept).map(({ at, values }) => [
          sqlHour(at),
          values.temperature ?? null,
          values.humidity ?? null,
          values.rain ?? null,
          values.wind ?? null,
        ])
  const day = (row: readonly unknown[] | undefined): string | null => (row ? String(row[0]).slice(0, 10) : null)
  rejections.sort((a, b) => a.line - b.line)
  return { rows, rejections, lines: understood.length, repeated, readingsPerHour: perHour, first: day(rows[0]), last: day(rows.at(-1)) }
}

const sqlHour = (ms: number): string => new Date(ms).toISOString().slice(0, 19).replace('T', ' ')
