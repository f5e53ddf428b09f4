import { MS_PER_DAY, MS_PER_HOUR } from '@bocado/core'
import { separators, weatherVariables, type FilePreview, type WeatherMapping, type WeatherVariable } from '@bocado/contract'
import { needsOrder, parseMoment, parseTime, WallClock, type DateOrder } from './moments.js'
import { splitCells } from './text.js'

export interface Guess {
  mapping: WeatherMapping
  columns: FilePreview['columns']
}

/** Words by which columns are known, tried in this order. */
const NAMES: readonly [WeatherVariable, RegExp][] = [
  ['min', /\b(min|low)/i],
  ['max', /\b(max|high)/i],
  ['wetness', /wetness|leaf.?wet/i],
  ['soil', /soil.*temp|temp.*soil/i],
  ['humidity', /hum|\brh\b/i],
  ['rain', /rain|precip/i],
  ['wind', /wind/i],
  ['temperature', /temp|\bair\b|°|\bt\b/i],
]
const NOT_WANTED =
  /dew|soil(?!.*temp)|index|chill|feels|gust|dir|bearing|heading|azimuth|vane|\bwd\b|wet.?bulb|bar|press|solar|rad|batt|in(side|door)/i

/** A number in a cell of the file; undefined for text. Blank and the usual marks for "no reading" are null. */
export function parseNumber(cell: string | undefined, decimal: '.' | ','): number | null | undefined {
  const text = (cell ?? '').trim()
  if (text === '' || /^(-+|n\/?a|nan|null|none|m|-999(9)?(\.0+)?|-99\.9+)$/i.test(text)) return null
  const plain = decimal === ',' ? text.replace(',', '.') : text
  return /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(plain) ? Number(plain) : undefined
}

function guessSeparator(text: string): WeatherMapping['separator'] {
  let best: WeatherMapping['separator'] = ','
  let bestScore = -1
  for (const separator of separators) {
    const widths = splitCells(text, separator)
      .filter((cells) => cells.length > 1 || cells[0] !== '')
      .slice(0, 60)
      .map((cells) => cells.length)
    const usual = widths.toSorted((a, b) => a - b)[Math.floor(widths.length / 2)] ?? 1
    const score = usual > 1 ? widths.filter((w) => w === usual).length * 10 + usual : 0
    if (score > bestScore) [best, bestScore] = [separator, score]
  }
  return best
}

const anyMoment = (text: string) => parseMoment(text, 'mdy') ?? parseMoment(text, 'dmy')

/** A few spoilt lines do not change what a column is. */
const MOST = 0.95
const mostly = <T>(values: readonly T[], holds: (value: T) => boolean): boolean =>
  values.length > 0 && values.filter(holds).length >= MOST * values.length

/** The order of day and month that fits the dates; null where both do and somebody must say. */
export function guessDateOrder(dates: readonly string[]): DateOrder | null {
  if (!dates.some(needsOrder)) return 'ymd'
  const fits = (['mdy', 'dmy'] as const).filter((order) => mostly(dates, (text) => parseMoment(text, order) !== undefined))
  if (fits.length < 2) return fits[0] ?? null
  // Both can be read: readings come at even steps, so the right order gives the smaller ones.
  const steps = fits.map((order) => usualStep(dates.flatMap((text) => parseMoment(text, order)?.local ?? [])))
  const [mdy, dmy] = steps as [number, number]
  const twoDays = 2 * MS_PER_DAY
  if (mdy <= twoDays && dmy > twoDays) return 'mdy'
  return dmy <= twoDays && mdy > twoDays ? 'dmy' : null
}

/** The step that nineteen of twenty neighbours keep, 0 aside. */
function usualStep(moments: readonly number[]): number {
  const steps = moments
    .slice(1)
    .map((moment, i) => Math.abs(moment - (moments[i] as number)))
    .filter((step) => step > 0)
    .sort((a, b) => a - b)
  return steps[Math.min(steps.length - 1, Math.floor(MOST * steps.length))] ?? 0
}

function unitFor(variable: WeatherVariable, name: string, samples: readonly number[], units: 'metric' | 'us'): string {
  const us = units === 'us'
  switch (variable) {
    case 'humidity':
      return '%'
    case 'wetness':
      if (/%|pct|percent/i.test(name)) return '%'
      return /min/i.test(name) || samples.some((v) => v > 1) ? 'min' : 'share'
    case 'rain':
      if (/mm|millim/i.test(name)) return 'mm'
      return /inch|\bin\b|\(in|_in\b|"/i.test(name) || us ? 'in' : 'mm'
    case 'wind':
      if (/mph|mi\/h/i.test(name)) return 'mph'
      if (/km\/?h|kph/i.test(name)) return 'km/h'
      if (/m\/s|\bms\b|_ms\b|m s-1/i.test(name)) return 'm/s'
      return us ? 'mph' : 'm/s'
    default:
      if (/°\s*f|deg\.?\s*f|fahr|[(_[ ]f[)\]]?$/i.test(name)) return 'F'
      if (/°\s*c|deg\.?\s*c|cels|[(_[ ]c[)\]]?$/i.test(name)) return 'C'
      if (samples.some((t) => t > 55)) return 'F'
      return us ? 'F' : 'C'
  }
}

/** The likely unit of each variable, should a column hold it. */
export function likelyUnits(
  name: string,
  cells: readonly string[],
  decimal: '.' | ',',
  units: 'metric' | 'us',
): FilePreview['columns'][number]['units'] {
  const samples = cells.flatMap((cell) => parseNumber(cell, decimal) ?? [])
  return Object.fromEntries(weatherVariables.map((variable) => [variable, unitFor(variable, name, samples, units)]))
}

/** Whether the head of a column says the unit of a temperature itself. */
export const saysUnit = (name: string): boolean => /°\s*[fc]|deg\.?\s*[fc]|fahr|cels|[(_[ ][fc][)\]]?$/i.test(name)

/** The clock that a file shows: wall clock where an hour is repeated or skipped just when the zone does. */
function guessClock(moments: readonly number[], timeZone: string, explicit: boolean): WeatherMapping['clock'] {
  if (explicit) return 'utc'
  const wall = new WallClock(timeZone)
  let repeated = false
  let skipped = false
  for (let i = 1; i < moments.length; i++) {
    const [before, now] = [moments[i - 1] as number, moments[i] as number]
    const step = now - before
    if (step <= 0 && wall.momentsOf(now).length === 2) repeated = true
    if (step > MS_PER_HOUR && step <= 2 * MS_PER_HOUR && wall.momentsOf(before + MS_PER_HOUR).length === 0) skipped = true
  }
  return repeated || skipped ? 'wall' : 'standard'
}

/**
 * Reads the head of a file and guesses how it is meant. Everything can be changed afterwards; what cannot be guessed is
 * left open and asked for.
 */
export function guessMapping(text: string, site: { timeZone: string; units: 'metric' | 'us' }): Guess {
  const separator = guessSeparator(text)
  const lines = splitCells(text, separator)
  const firstReading = lines.findIndex(
    (cells) => cells.some((cell) => anyMoment(cell)) && cells.filter((cell) => /\d/.test(cell)).length > 1,
  )
  const headerLines = Math.max(0, firstReading)
  const body = lines.slice(headerLines).filter((cells) => cells.some((cell) => cell.trim() !== ''))
  const width = body.reduce((most, cells) => Math.max(most, cells.length), 0)
  const header = headerLines > 0 ? (lines[headerLines - 1] as string[]) : []
  const column = (c: number): string[] => body.map((cells) => cells[c] ?? '')

  const datesIn = Array.from({ length: width }, (_, c) => column(c).filter((cell) => anyMoment(cell)).length)
  const dateColumn = Math.max(0, datesIn.indexOf(Math.max(0, ...datesIn)))
  const dates = column(dateColumn).filter((cell) => anyMoment(cell))
  const withTime = dates.some((cell) => anyMoment(cell)?.hasTime)
  const timeColumn = withTime
    ? -1
    : Array.from({ length: width }, (_, c) => c).findIndex(
        (c) => c !== dateColumn && mostly(column(c), (cell) => /:/.test(cell) && parseTime(cell) !== undefined),
      )
  const dateOrder = guessDateOrder(dates)
  const decimal = separator !== ',' && body.some((cells) => cells.some((cell) => /^-?\d+,\d+$/.test(cell.trim()))) ? ',' : '.'
  const moments = body.flatMap((cells) => {
    const moment = parseMoment(`${cells[dateColumn] ?? ''}${timeColumn >= 0 ? ` ${cells[timeColumn] ?? ''}` : ''}`, dateOrder ?? 'mdy')
    return moment ? [moment] : []
  })
  const interval = withTime || timeColumn >= 0 ? 'hourly' : 'daily'

  const columns: WeatherMapping['columns'] = []
  for (let c = 0; c < width; c++) {
    const name = header[c] ?? ''
    if (c === dateColumn || c === timeColumn || NOT_WANTED.test(name)) continue
    const samples = column(c).flatMap((cell) => parseNumber(cell, decimal) ?? [])
    if (samples.length === 0) continue
    const variable = NAMES.find(
      ([v, pattern]) => pattern.test(name.replace(/_/g, ' ')) && (interval === 'daily' ? v !== 'temperature' : v !== 'min' && v !== 'max'),
    )?.[0]
    if (!variable || columns.some((known) => known.variable === variable)) continue
    columns.push({ variable, column: c, unit: unitFor(variable, name, samples, site.units) })
  }
  return {
    mapping: {
      separator,
      decimal,
      headerLines,
      interval,
      dateColumn,
      timeColumn: timeColumn < 0 ? null : timeColumn,
      dateOrder,
      clock:
        interval === 'hourly'
          ? guessClock(
              moments.map(({ local }) => local),
              site.timeZone,
              moments.some(({ offset }) => offset !== null),
            )
          : 'standard',
      columns,
    },
    columns: Array.from({ length: width }, (_, index) => ({
      index,
      name: (header[index] ?? '').trim(),
      samples: column(index).slice(0, 3),
      units: likelyUnits(header[index] ?? '', column(index), decimal, site.units),
    })),
  }
}
