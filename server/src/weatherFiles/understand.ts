import type { FilePreview, WeatherMapping, WeatherVariable } from '@bocado/contract'
import {
  civilDate,
  DAILY_RAIN_LIMITS,
  instantShown,
  MS_PER_DAY,
  READING_LIMITS,
  shownAt,
  standardDay,
  type ReadingLimits,
} from '@bocado/core'
import { toSi } from '../weather/units.js'
import { needsOrder, parseMoment, WallClock, type DateOrder, type FileMoment } from './moments.js'
import { parseDirection, parseNumber } from './guess.js'

/** What the file's clock has to be set against. */
export interface StationClock {
  timeZone: string
  utcOffsetMinutes: number
  /** Milliseconds; a reading that begins after this lies in the future. */
  now: number
}

export type Values = Partial<Record<WeatherVariable, number>>

export interface UnderstoodLine {
  line: number
  cells: string[]
  /** Milliseconds UTC of an hourly reading; for daily ones the day as if its midnight were UTC. */
  at: number | null
  values: Values
  problem: string | null
}

const UNITS: Readonly<Record<WeatherVariable, string>> = {
  temperature: '°C',
  min: '°C',
  max: '°C',
  humidity: '%',
  rain: 'mm',
  wind: 'm/s',
  direction: '°',
  wetness: 'of the hour',
  soil: '°C',
}

const TRACE = /^\s*t(r|race)?\.?\s*$/i

function limitsOf(variable: WeatherVariable, interval: WeatherMapping['interval']): ReadingLimits {
  if (variable === 'min' || variable === 'max') return READING_LIMITS.temperature
  return variable === 'rain' && interval === 'daily' ? DAILY_RAIN_LIMITS : READING_LIMITS[variable]
}

function numberIn(cell: string | undefined, variable: WeatherVariable, unit: string, decimal: '.' | ','): number | null | undefined {
  if (variable === 'direction') return parseDirection(cell, unit, decimal)
  // A trace: it rained, and less than a gauge can tell.
  return variable === 'rain' && TRACE.test(cell ?? '') ? 0 : parseNumber(cell, decimal)
}

function readValues(cells: readonly string[], mapping: WeatherMapping): Omit<ReadLine, 'moment'> {
  const values: Values = {}
  let unread: string | null = null
  for (const { variable, column, unit } of mapping.columns) {
    const number = numberIn(cells[column], variable, unit, mapping.decimal)
    if (number === null) continue
    // One cell that cannot be read is one value that is missing; the rest of the line stands.
    if (number === undefined) {
      unread ??= `${variable} "${cells[column]}" is ${variable === 'direction' ? 'neither degrees nor a point of the compass' : 'not a number'}`
      continue
    }
    // A circle has no outside: degrees are looked at before they are turned into it.
    const si = variable === 'direction' ? number : toSi(variable, number, unit)
    const { least, most } = limitsOf(variable, mapping.interval)
    if (si < least || si > most)
      return {
        values,
        unread,
        problem: `${variable} ${cells[column]} is outside ${least} to ${most} ${UNITS[variable]}; is the unit right?`,
      }
    values[variable] = variable === 'direction' ? toSi(variable, number, unit) : si
  }
  if (Object.keys(values).length === 0) return { values, unread, problem: unread ?? 'no reading on this line' }
  if (mapping.interval === 'daily') {
    if (values.min === undefined || values.max === undefined)
      return { values, unread, problem: unread ?? 'a day needs both minimum and maximum' }
    if (values.min > values.max) return { values, unread, problem: 'the minimum is above the maximum' }
  }
  return { values, unread, problem: null }
}

function momentOf(cells: readonly string[], mapping: WeatherMapping, order: DateOrder): FileMoment | undefined {
  const time = mapping.timeColumn === null ? '' : ` ${cells[mapping.timeColumn] ?? ''}`
  return parseMoment(`${cells[mapping.dateColumn] ?? ''}${time}`, order)
}

/** What a line says, before its moment is placed in time. */
export interface ReadLine {
  /** undefined where the line has no moment that can be used; `problem` then says why. */
  moment: FileMoment | undefined
  values: Values
  /** A value that cannot be read and is missing, where the rest of the line can. */
  unread: string | null
  problem: string | null
}

/** Reads the cells of one line. */
export function readLine(cells: readonly string[], mapping: WeatherMapping): ReadLine {
  const order = mapping.dateOrder ?? 'mdy'
  const moment = momentOf(cells, mapping, order)
  if (!moment) {
    const text = `${cells[mapping.dateColumn] ?? ''} ${mapping.timeColumn === null ? '' : (cells[mapping.timeColumn] ?? '')}`.trim()
    const hint = needsOrder(text) && mapping.dateOrder ? ` in the order ${ORDER_WORDS[mapping.dateOrder]}` : ''
    return { moment: undefined, values: {}, unread: null, problem: `"${text.slice(0, 40)}" is not a date${hint}` }
  }
  // A day that is written with 24:00 is the one that ends then.
  if (mapping.interval === 'daily' && moment.endsDay) moment.local -= MS_PER_DAY
  const { values, unread, problem } = readValues(cells, mapping)
  if (mapping.interval === 'hourly' && !moment.hasTime)
    return { moment: undefined, values, unread, problem: 'has a date but no time of day' }
  return { moment, values, unread, problem }
}

/** Of a line of which one value cannot be read. */
export const REST_TAKEN = 'the rest of the line is taken'
export const NO_SUCH_HOUR = 'this hour does not exist: the wall clock skips it in spring'
export const IN_THE_FUTURE = 'lies in the future'

/** Places moments of a file in time, in the order of time: of a wall clock's repeated autumn hour the first is summer time. */
export class Placement {
  private readonly wall: WallClock
  private previous = -Infinity

  constructor(
    private readonly mapping: WeatherMapping,
    private readonly clock: StationClock,
  ) {
    this.wall = new WallClock(clock.timeZone)
  }

  /** Milliseconds UTC; of daily readings the day as if its midnight were UTC. undefined for an hour that the clock skips. */
  place(moment: Pick<FileMoment, 'local' | 'offset'>): number | undefined {
    if (this.mapping.interval === 'daily') return moment.local - (moment.local % MS_PER_DAY)
    const at = utcOf(moment, this.mapping, this.clock, this.wall, this.previous)
    if (at === undefined) return undefined
    this.previous = at
    // What ends at a full hour belongs to the hour before.
    return this.mapping.stamp === 'ends' ? at - 1 : at
  }

  /** Whether a moment that was placed has not come yet. */
  isFuture(at: number): boolean {
    return at > (this.mapping.interval === 'daily' ? shownAt(this.clock.now, this.clock.utcOffsetMinutes) : this.clock.now)
  }
}

/** Whether lines run from the newest to the oldest, so that their hours run backwards. */
export const runsBackwards = (first: FileMoment | undefined, last: FileMoment | undefined): boolean =>
  first !== undefined && last !== undefined && first.local > last.local

/** Understands the first lines of a file after its header, for people to check; `lines` are all lines of the text. */
export function understandLines(lines: readonly string[][], mapping: WeatherMapping, clock: StationClock): UnderstoodLine[] {
  const numbered = lines
    .map((cells, i) => ({ line: i + 1, cells, read: readLine(cells, mapping) }))
    .slice(mapping.headerLines)
    .filter(({ cells }) => cells.some((cell) => cell.trim() !== ''))
  const withMoment = numbered.filter(({ read }) => read.moment)
  if (runsBackwards(withMoment[0]?.read.moment, withMoment.at(-1)?.read.moment)) numbered.reverse()
  const placement = new Placement(mapping, clock)
  return numbered.map(({ line, cells, read: { moment, values, unread, problem } }): UnderstoodLine => {
    if (!moment) return { line, cells, at: null, values, problem }
    const at = placement.place(moment)
    if (at === undefined) return { line, cells, at: null, values, problem: NO_SUCH_HOUR }
    return { line, cells, at, values, problem: problem ?? (placement.isFuture(at) ? IN_THE_FUTURE : unread && `${unread}; ${REST_TAKEN}`) }
  })
}

const ORDER_WORDS = { ymd: 'year, month, day', mdy: 'month, day, year', dmy: 'day, month, year' } as const

function utcOf(
  moment: { local: number; offset: number | null },
  mapping: WeatherMapping,
  clock: StationClock,
  wall: WallClock,
  previous: number,
): number | undefined {
  if (moment.offset !== null) return instantShown(moment.local, moment.offset)
  if (mapping.clock === 'utc') return moment.local
  if (mapping.clock === 'fixed') return instantShown(moment.local, mapping.offsetMinutes ?? 0)
  if (mapping.clock === 'standard') return instantShown(moment.local, clock.utcOffsetMinutes)
  const moments = wall.momentsOf(moment.local)
  return moments.find((utc) => utc > previous) ?? moments.at(-1)
}

/** Standard time of the station as shown to people: YYYY-MM-DD, with HH:MM for hourly readings. */
export function shownMoment(at: number, mapping: WeatherMapping, clock: StationClock): string {
  if (mapping.interval === 'daily') return civilDate(standardDay(at, 0))
  return new Date(shownAt(at, clock.utcOffsetMinutes)).toISOString().slice(0, 16).replace('T', ' ')
}

/** What somebody must settle before a file can be imported with this mapping. */
export function openQuestions(mapping: WeatherMapping, dates: readonly string[]): FilePreview['questions'] {
  const questions: FilePreview['questions'] = []
  if (mapping.dateOrder === null) {
    const example = dates.find(needsOrder) ?? ''
    questions.push({ field: 'dateOrder', message: `"${example.trim()}" can be read as day or month first. Choose the order of its dates.` })
  }
  const has = (variable: WeatherVariable): boolean => mapping.columns.some((c) => c.variable === variable)
  if (mapping.interval === 'daily' && !(has('min') && has('max')))
    questions.push({ field: 'columns', message: 'Choose the columns of the daily minimum and maximum temperature.' })
  const units = mapping.columns.filter(({ variable }) => variable === 'min' || variable === 'max').map(({ unit }) => unit)
  if (mapping.interval === 'daily' && new Set(units).size > 1 && !mapping.unitsChecked)
    questions.push({
      field: 'units',
      message: 'Minimum and maximum are read in different units. Choose one, or say that the units are right.',
    })
  if (mapping.interval === 'hourly' && mapping.clock === 'fixed' && mapping.offsetMinutes === null)
    questions.push({ field: 'clock', message: 'Say by how many hours the logger’s clock lies before or after UTC.' })
  if (mapping.interval === 'hourly' && !has('temperature') && !has('rain') && !has('humidity') && !has('wind')) {
    questions.push({ field: 'columns', message: 'Choose at least one column: temperature, humidity, rain or wind.' })
  }
  return questions
}
