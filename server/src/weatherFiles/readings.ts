import { weatherVariables, type WeatherMapping } from '@bocado/contract'
import { civilDate } from '@bocado/core'
import { HOUR_VALUES } from '../weather/readingStore.js'
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
  /** Civil days in the station's standard time. */
  first: string | null
  last: string | null
}

const HOUR = 3_600_000

/** Equal in every value: the same reading written twice. */
const sameValues = (a: Values, b: Values): boolean => weatherVariables.every((v) => a[v] === b[v])

/**
 * Lines that give different values for one moment: none of them is known to be right, so all are refused. `sorted` by
 * moment, so that they stand together.
 */
function refuseConflicts(
  sorted: readonly UnderstoodLine[],
  reject: (line: UnderstoodLine, reason: string) => void,
): { kept: UnderstoodLine[]; repeated: number } {
  const kept: UnderstoodLine[] = []
  let repeated = 0
  for (let i = 0; i < sorted.length;) {
    const first = sorted[i] as UnderstoodLine
    let end = i + 1
    while (end < sorted.length && (sorted[end] as UnderstoodLine).at === first.at) end++
    const group = sorted.slice(i, end)
    i = end
    if (group.every((other) => sameValues(first.values, other.values))) {
      kept.push(first)
      repeated += group.length - 1
      continue
    }
    const lines = group.map(({ line }) => line).join(', ')
    for (const line of group) reject(line, `lines ${lines} give different values for the same moment; none was taken`)
  }
  return { kept, repeated }
}

/** The hour that a reading falls into, and its values; readings finer than an hour are averaged, rain is added up. */
function intoHours(sorted: readonly UnderstoodLine[]): { at: number; values: Values }[] {
  const hours: { at: number; values: Values }[] = []
  for (let i = 0; i < sorted.length;) {
    const at = hourOf(sorted[i] as UnderstoodLine)
    let end = i + 1
    while (end < sorted.length && hourOf(sorted[end] as UnderstoodLine) === at) end++
    hours.push({ at, values: end === i + 1 ? (sorted[i] as UnderstoodLine).values : averaged(sorted.slice(i, end)) })
    i = end
  }
  return hours
}

const hourOf = ({ at }: UnderstoodLine): number => Math.floor((at as number) / HOUR) * HOUR

function averaged(lines: readonly UnderstoodLine[]): Values {
  const values: Values = {}
  for (const variable of weatherVariables) {
    const read = lines.flatMap((line) => line.values[variable] ?? [])
    if (read.length === 0) continue
    const sum = read.reduce((a, b) => a + b, 0)
    values[variable] = variable === 'rain' ? sum : sum / read.length
  }
  return values
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
export function readingsOf(understood: readonly UnderstoodLine[], mapping: WeatherMapping, utcOffsetMinutes: number): FileReadings {
  const rejections: Rejection[] = []
  const reject = ({ line, cells }: UnderstoodLine, reason: string): void => {
    rejections.push({ line, reason: reason.slice(0, 300), content: cells.join(mapping.separator).slice(0, 500) })
  }
  const good: UnderstoodLine[] = []
  for (const line of understood) {
    if (line.problem !== null || line.at === null) reject(line, line.problem ?? 'cannot be read')
    else good.push(line)
  }
  good.sort((a, b) => (a.at as number) - (b.at as number))
  const { kept, repeated } = refuseConflicts(good, reject)
  const perHour = mapping.interval === 'hourly' ? readingsPerHour(kept) : 1
  const rows =
    mapping.interval === 'daily'
      ? kept.map(({ at, values }) => [civilDate((at as number) / 86_400_000), values.min ?? null, values.max ?? null, values.rain ?? null])
      : intoHours(kept).map(({ at, values }) => [sqlHour(at), ...HOUR_VALUES.map((variable) => values[variable] ?? null)])
  const shift = mapping.interval === 'daily' ? 0 : utcOffsetMinutes * 60_000
  const dayOf = (line: UnderstoodLine | undefined): string | null => (line ? civilDate(((line.at as number) + shift) / 86_400_000) : null)
  rejections.sort((a, b) => a.line - b.line)
  return { rows, rejections, lines: understood.length, repeated, readingsPerHour: perHour, first: dayOf(kept[0]), last: dayOf(kept.at(-1)) }
}

const sqlHour = (ms: number): string => new Date(ms).toISOString().slice(0, 19).replace('T', ' ')
