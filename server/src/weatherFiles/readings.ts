import type { WeatherMapping, WeatherVariable } from '@bocado/contract'
import { civilDate, instantOfHour, meanDirection, MS_PER_HOUR, standardDay, standardHour } from '@bocado/core'
import { HOUR_VALUES, type MergeRows } from '../weather/readingStore.js'
import { HttpProblem } from '../http/problems.js'
import type { FileMoment } from './moments.js'
import { eachLine } from './text.js'
import { IN_THE_FUTURE, NO_SUCH_HOUR, Placement, readLine, REST_TAKEN, runsBackwards, type StationClock } from './understand.js'

export interface Rejection {
  line: number
  reason: string
  content: string
  /** Only a value of the line is missing; the rest of it was taken. */
  partly?: true
}

/** A file ready to be stored: rows as the tables take them, and every line that is not among them, with its reason. */
export interface FileReadings {
  rows: MergeRows
  rejections: Rejection[]
  lines: number
  repeated: number
  readingsPerHour: number
  /** Civil days in the station's standard time. */
  first: string | null
  last: string | null
}

/** Nobody reads more refused lines, and each is kept. */
const MOST_REJECTIONS = 100_000

const DAY_VALUES = ['min', 'max', 'rain'] as const

/**
 * Lines of a file with a moment, as columns of numbers; NaN is no value. A file may have a million lines, too many for an object
 * each.
 */
interface Lines {
  line: Uint32Array
  local: Float64Array
  /** Minutes east of UTC where the text says so; NaN elsewhere. */
  offset: Float64Array
  values: ReadonlyMap<WeatherVariable, Float64Array>
  problems: Map<number, string>
}

/**
 * Reads a whole file: every line becomes a row or a rejection. Lines go by one at a time, and only their numbers are kept.
 */
export function readReadings(
  text: string,
  mapping: WeatherMapping,
  clock: StationClock,
  onProgress: (share: number) => void,
): FileReadings {
  const rejections: Rejection[] = []
  const reject = (line: number, reason: string, content: string, partly = false): void => {
    if (rejections.length >= MOST_REJECTIONS)
      throw new HttpProblem(
        422,
        `More than ${MOST_REJECTIONS} lines cannot be read, so nothing was stored. Line ${line}: ${reason}. Check columns, date order and units.`,
      )
    rejections.push({ line, reason: reason.slice(0, 300), content: content.slice(0, 500), ...(partly ? { partly } : {}) })
  }
  const { lines, count } = scan(text, mapping, reject, (share) => onProgress(0.7 * share))
  const at = placed(lines, mapping, clock)
  const order = inOrder(at, lines)
  const { kept, repeated } = refuseConflicts(order, at, lines)
  // The words of a line are fetched again only where it is refused after all.
  const refused = lines.problems
  if (refused.size > 0) {
    const reasonOf = new Map([...refused].map(([i, reason]) => [lines.line[i] as number, reason]))
    eachLine(text, mapping.separator, (cells, line) => {
      const reason = reasonOf.get(line)
      if (reason !== undefined) reject(line, reason, cells.join(mapping.separator))
    })
  }
  onProgress(0.9)
  const perHour = mapping.interval === 'hourly' ? readingsPerHour(kept, at) : 1
  const offset = mapping.interval === 'daily' ? 0 : clock.utcOffsetMinutes
  const rows = mapping.interval === 'daily' ? intoDays(kept, at, lines) : intoHours(kept, at, lines, offset)
  const dayOf = (i: number | undefined): string | null => (i === undefined ? null : civilDate(standardDay(at[i] as number, offset)))
  rejections.sort((a, b) => a.line - b.line)
  return { rows, rejections, lines: count, repeated, readingsPerHour: perHour, first: dayOf(kept[0]), last: dayOf(kept.at(-1)) }
}

/** First pass: the numbers of every line that has a moment. */
function scan(
  text: string,
  mapping: WeatherMapping,
  reject: (line: number, reason: string, content: string, partly?: boolean) => void,
  onProgress: (share: number) => void,
): { lines: Lines; count: number } {
  const most = countLines(text)
  const line = new Uint32Array(most)
  const local = new Float64Array(most)
  const offset = new Float64Array(most)
  const columns = new Map(mapping.columns.map(({ variable }) => [variable, new Float64Array(most)]))
  const problems = new Map<number, string>()
  let count = 0
  let n = 0
  eachLine(
    text,
    mapping.separator,
    (cells, number) => {
      if (number <= mapping.headerLines || cells.every((cell) => cell.trim() === '')) return
      count++
      const { moment, values, unread, problem } = readLine(cells, mapping)
      if (!moment) {
        reject(number, problem ?? 'cannot be read', cells.join(mapping.separator))
        return
      }
      if (problem !== null) problems.set(n, problem)
      else if (unread !== null) reject(number, `${unread}; ${REST_TAKEN}`, cells.join(mapping.separator), true)
      line[n] = number
      local[n] = moment.local
      offset[n] = moment.offset ?? NaN
      for (const [variable, column] of columns) column[n] = values[variable] ?? NaN
      n++
    },
    onProgress,
  )
  const values = new Map([...columns].map(([variable, column]) => [variable, column.subarray(0, n)]))
  return { lines: { line: line.subarray(0, n), local: local.subarray(0, n), offset: offset.subarray(0, n), values, problems }, count }
}

function countLines(text: string): number {
  let lines = 1
  for (let i = text.indexOf('\n'); i >= 0; i = text.indexOf('\n', i + 1)) lines++
  // Files of old machines end their lines with a carriage return alone.
  return lines > 1 ? lines : text.split('\r').length
}

/** Second pass, in the order of time: the UTC moment of each line. What cannot be placed or is yet to come becomes a problem. */
function placed({ local, offset, problems }: Lines, mapping: WeatherMapping, clock: StationClock): Float64Array {
  const at = new Float64Array(local.length)
  const momentOf = (i: number): FileMoment => ({
    local: local[i] as number,
    hasTime: true,
    offset: Number.isNaN(offset[i]) ? null : (offset[i] as number),
  })
  const n = local.length
  const backwards = n > 0 && runsBackwards(momentOf(0), momentOf(n - 1))
  const placement = new Placement(mapping, clock)
  for (let k = 0; k < n; k++) {
    const i = backwards ? n - 1 - k : k
    const moment = placement.place(momentOf(i))
    at[i] = moment ?? NaN
    if (moment === undefined) problems.set(i, NO_SUCH_HOUR)
    else if (!problems.has(i) && placement.isFuture(moment)) problems.set(i, IN_THE_FUTURE)
  }
  return at
}

/** The good lines in the order of their moments; lines of one moment keep that of the file. */
function inOrder(at: Float64Array, { problems }: Lines): Uint32Array {
  const good = new Uint32Array(at.length - problems.size)
  let n = 0
  let sorted = true
  for (let i = 0; i < at.length; i++) {
    if (problems.has(i)) continue
    if (n > 0 && (at[i] as number) < (at[good[n - 1] as number] as number)) sorted = false
    good[n++] = i
  }
  return sorted ? good : good.sort((a, b) => (at[a] as number) - (at[b] as number) || a - b)
}

/**
 * Lines that give different values for one moment: none of them is known to be right, so all are refused. A reading written twice
 * is kept once.
 */
function refuseConflicts(order: Uint32Array, at: Float64Array, lines: Lines): { kept: Uint32Array; repeated: number } {
  const columns = [...lines.values.values()]
  const same = (a: number, b: number): boolean => columns.every((column) => Object.is(column[a], column[b]))
  const kept = new Uint32Array(order.length)
  let n = 0
  let repeated = 0
  for (let k = 0; k < order.length;) {
    const first = order[k] as number
    let end = k + 1
    while (end < order.length && at[order[end] as number] === at[first]) end++
    if (end === k + 1) {
      kept[n++] = first
      k = end
      continue
    }
    const group = order.subarray(k, end)
    k = end
    if (group.every((other) => same(first, other))) {
      kept[n++] = first
      repeated += group.length - 1
      continue
    }
    const numbers = Array.from(group, (i) => lines.line[i]).join(', ')
    for (const i of group) lines.problems.set(i, `lines ${numbers} give different values for the same moment; none was taken`)
  }
  return { kept: kept.slice(0, n), repeated }
}

/** The hours of the station's standard time that readings fall into, and their values; readings finer than an hour are averaged, directions as vectors, rain is added up. */
function intoHours(kept: Uint32Array, at: Float64Array, lines: Lines, utcOffsetMinutes: number): MergeRows {
  const hourOf = (moment: number): number => instantOfHour(standardHour(moment, utcOffsetMinutes), utcOffsetMinutes)
  let hours = 0
  for (let k = 0; k < kept.length; k++)
    if (k === 0 || hourOf(at[kept[k] as number] as number) !== hourOf(at[kept[k - 1] as number] as number)) hours++
  const keys = new Float64Array(hours)
  // A variable that the file does not hold needs no column.
  const columns = HOUR_VALUES.map((variable) => new Float64Array(lines.values.has(variable) ? hours : 0))
  let n = 0
  for (let k = 0; k < kept.length;) {
    const hour = hourOf(at[kept[k] as number] as number)
    let end = k + 1
    while (end < kept.length && hourOf(at[kept[end] as number] as number) === hour) end++
    keys[n] = hour
    HOUR_VALUES.forEach((variable, v) => {
      const column = lines.values.get(variable)
      if (!column) return
      if (variable === 'direction') {
        const speeds = lines.values.get('wind')
        const within = kept.subarray(k, end)
        const of = (values: Float64Array): number[] => Array.from(within, (i) => values[i] as number)
        ;(columns[v] as Float64Array)[n] = meanDirection(of(column), speeds && of(speeds))
        return
      }
      let sum = 0
      let read = 0
      for (let j = k; j < end; j++) {
        const value = column[kept[j] as number] as number
        if (Number.isNaN(value)) continue
        sum += value
        read++
      }
      ;(columns[v] as Float64Array)[n] = read === 0 ? NaN : variable === 'rain' ? sum : sum / read
    })
    n++
    k = end
  }
  return { keys, columns }
}

function intoDays(kept: Uint32Array, at: Float64Array, lines: Lines): MergeRows {
  const pick = (column: Float64Array | undefined): Float64Array => Float64Array.from(kept, (i) => column?.[i] ?? NaN)
  return { keys: Float64Array.from(kept, (i) => at[i] as number), columns: DAY_VALUES.map((variable) => pick(lines.values.get(variable))) }
}

/** How many readings fall into an hour, from the commonest step between neighbours. */
function readingsPerHour(kept: Uint32Array, at: Float64Array): number {
  const steps = new Map<number, number>()
  for (let k = 1; k < kept.length; k++) {
    const step = (at[kept[k] as number] as number) - (at[kept[k - 1] as number] as number)
    if (step > 0) steps.set(step, (steps.get(step) ?? 0) + 1)
  }
  const usual = [...steps].sort((a, b) => b[1] - a[1])[0]?.[0] ?? MS_PER_HOUR
  return usual < MS_PER_HOUR ? Math.max(1, Math.round(MS_PER_HOUR / usual)) : 1
}
