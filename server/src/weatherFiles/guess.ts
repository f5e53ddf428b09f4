import { degreesOfPoint, MS_PER_DAY, MS_PER_HOUR, type CompassLetters } from '@bocado/core'
import { separators, weatherVariables, type FilePreview, type WeatherMapping, type WeatherVariable, type Written } from '@bocado/contract'
import { needsOrder, parseMoment, parseTime, WallClock, type DateOrder, type FileMoment } from './moments.js'
import { splitCells } from './text.js'

export interface Guess {
  mapping: WeatherMapping
  columns: FilePreview['columns']
}

/** Soil in the languages that are read; its temperature is wanted, its water is not. */
const SOIL = '(?:soil|boden|\\bsol\\b|suelo|suolo|\\bsolo\\b)'

/**
 * Words by which columns are known, tried in this order; in English, German, French, Spanish, Italian and Portuguese, in small letters without
 * accents, as `plainName` makes them.
 */
const NAMES: readonly [WeatherVariable, RegExp][] = [
  ['direction', /\bdir|direc|direz|richtung|vane|bearing|heading|\b(wd|wdir)\b|^dd$/],
  ['wetness', /wetness|leaf ?wet|blatt ?(nass|feucht)|mouillage|humectation|mojado|bagnatura|molhamento/],
  ['soil', new RegExp(`${SOIL}.*(temp|\\bt\\b|°)|(temp|\\bt\\b).*${SOIL}`)],
  ['min', /\b(t ?min|tn|tmn|min(im(um|al|ale|a|o|os))?|mini|lo|low(est)?|tiefst\w*|minimal\w*)\b|(temp\w*) ?min/],
  ['max', /\b(t ?max|tx|tmx|max(im(um|al|ale|a|o|os))?|maxi|massim[ao]|hi|high(est)?|hochst\w*|maximal\w*)\b|(temp\w*) ?max/],
  ['humidity', /hum|\b(rh|hr|ur|rf|lf)\b|feuchte|umid|hygro/],
  ['rain', /rain|precip|prcp|\b(pcp|ppt|rr)\b|niederschlag|regen|pluie|pioggia|lluvia|chuva/],
  ['wind', /wind|\bvent\b|viento|vento|\b(ws|wspd|ff|u2)\b/],
  ['temperature', /temp|\bair\b|°|\b(t|ta|tair|tl|t2m)\b/],
]
const NOT_WANTED =
  /dew|index|chill|feels|gust|azimuth|wet.?bulb|bar|press|solar|rad(iat|iac|iaz)|\brad\b|batt|in(side|door)|taupunkt|rosee|rocio|rugiada|orvalho|rafale|boe\w*|racha|raffica|rajada|luftdruck|presion|strahlung|rayonnement|akku|qual|flag/
const NOT_THE_AIR = new RegExp(`${SOIL}(?!.*(temp|\\bt\\b|°))|boden ?feucht|moist|\\bvwc\\b`)

/** A name of a column in small letters, without accents and marks, its words apart: `Temp_Min`, `AirTemp`, `TMAX`. */
function plainName(name: string): string {
  return name
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .replace(/[_.,;:/()[\]-]+/g, ' ')
}

/** The unit behind a number, which its column says as well. */
const WITH_UNIT = /^([+-]?[\d.,]+)\s*(?:%|°\s*[cf]?|mm|in|"|m\/s|km\/h|mph|c|f)$/i

/** A number in a cell of the file; undefined for text. Blank and the usual marks for "no reading" are null. */
export function parseNumber(cell: string | undefined, decimal: '.' | ','): number | null | undefined {
  const text = (cell ?? '').trim()
  if (text === '' || /^(-+|n\/?a|nan|null|none|m|-999(9)?(\.0+)?|-99\.9+)$/i.test(text)) return null
  const bare = WITH_UNIT.exec(text)?.[1] ?? text
  const plain = decimal === ',' ? bare.replace(',', '.') : bare
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

/** Cells by which stations say that there was no wind, or none from one side. */
const NO_SIDE = /^(calm|vrb|variable|var|still)$/i
const LETTERS = ['NESW', 'NOSW', 'NESO'] as const satisfies readonly CompassLetters[]

/**
 * Degrees in a cell of a direction: a number, or a point of the compass where the column has those; null for none, undefined for what cannot be
 * read.
 */
export function parseDirection(cell: string | undefined, unit: string, decimal: '.' | ','): number | null | undefined {
  const text = (cell ?? '').trim()
  if (NO_SIDE.test(text)) return null
  const letters = LETTERS.find((one) => one === unit)
  return (letters && degreesOfPoint(text, letters)) ?? parseNumber(text.replace(/\s*(°|deg)\.?$/i, ''), decimal)
}

/** How a column of directions is written: in degrees, or with the letters for east and west of its language. */
function directionUnit(cells: readonly string[], decimal: '.' | ','): string {
  const words = cells.map((cell) => cell.trim()).filter((cell) => cell !== '' && parseDirection(cell, 'deg', decimal) === undefined)
  if (words.length === 0) return 'deg'
  const read = (letters: CompassLetters): number => words.filter((word) => degreesOfPoint(word, letters) !== undefined).length
  // What two languages read alike is taken as English has it.
  const best = LETTERS.reduce((a, b) => (read(b) > read(a) ? b : a))
  return read(best) === 0 ? 'deg' : best
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
  // Points stand between day, month and year, in this order, wherever they are used.
  if (mostly(dates.filter(needsOrder), (text) => /^\s*\d{1,2}\.\d{1,2}\./.test(text))) return 'dmy'
  // Both can be read: readings come at even steps, so the right order gives the smaller ones.
  const steps = fits.map((order) => usualStep(dates.flatMap((text) => parseMoment(text, order)?.local ?? [])))
  const [mdy, dmy] = steps as [number, number]
  const twoDays = 2 * MS_PER_DAY
  if (mdy <= twoDays && dmy > twoDays) return 'mdy'
  if (dmy <= twoDays && mdy > twoDays) return 'dmy'
  // Readings follow each other: the wrong order spreads a week over months.
  const spans = fits.map((order) => spanOf(dates.flatMap((text) => parseMoment(text, order)?.local ?? [])))
  const [asMdy, asDmy] = spans as [number, number]
  if (asMdy * SPREAD < asDmy) return 'mdy'
  return asDmy * SPREAD < asMdy ? 'dmy' : null
}

/** Days that follow each other lie, read in the wrong order, a month apart: this much farther. */
const SPREAD = 5

function spanOf(moments: readonly number[]): number {
  let [first, last] = [Infinity, -Infinity]
  for (const moment of moments) {
    first = Math.min(first, moment)
    last = Math.max(last, moment)
  }
  return last - first
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

/** A head that says that its numbers are tenths. */
const TENTHS = /tenth|1\/10|\b0[.,]1\s*(°|mm|deg)|zehntel|dixieme|dixième|decim/i

/** Whole numbers that no thermometer shows in degrees: tenths of a degree. */
const areTenths = (samples: readonly number[]): boolean =>
  samples.length > 2 && samples.every(Number.isInteger) && samples.some((t) => Math.abs(t) > 130)

function unitFor(
  variable: WeatherVariable,
  name: string,
  samples: readonly number[],
  units: 'metric' | 'us',
  direction: () => string,
): string {
  const us = units === 'us'
  switch (variable) {
    case 'humidity':
      return '%'
    case 'direction':
      return direction()
    case 'wetness':
      if (/%|pct|percent/i.test(name)) return '%'
      return /min/i.test(name) || samples.some((v) => v > 1) ? 'min' : 'share'
    case 'rain':
      if (TENTHS.test(name) && !/inch|\bin\b/i.test(name)) return 'mm/10'
      if (/mm|millim/i.test(name)) return 'mm'
      return /inch|\bin\b|\(in|_in\b|"/i.test(name) || us ? 'in' : 'mm'
    case 'wind':
      if (/mph|mi\/h/i.test(name)) return 'mph'
      if (/km\/?h|kph/i.test(name)) return 'km/h'
      if (/m\/s|\bms\b|_ms\b|m s-1/i.test(name)) return 'm/s'
      return us ? 'mph' : 'm/s'
    default:
      if (TENTHS.test(name) || areTenths(samples)) return 'C/10'
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
  const direction = (): string => directionUnit(cells, decimal)
  return Object.fromEntries(weatherVariables.map((variable) => [variable, unitFor(variable, name, samples, units, direction)]))
}

/** Whether the head of a column says the unit of a temperature itself. */
export const saysUnit = (name: string): boolean => /°\s*[fc]|deg\.?\s*[fc]|fahr|cels|[(_[ ][fc][)\]]?$/i.test(name)

/** Rows of a head that say more of a column: its unit, or how it was averaged. */
const MOST_HEAD_ROWS = 3

/** The name of each column: what the rows above the readings say of it, from the top, as far as they have a cell for most columns. */
export function headOf(lines: readonly string[][], headerLines: number, width: number): string[] {
  const rows: string[][] = []
  for (let i = headerLines - 1; i >= 0 && rows.length < MOST_HEAD_ROWS; i--) {
    const cells = lines[i] ?? []
    const filled = cells.filter((cell) => cell.trim() !== '').length
    if (rows.length > 0 && (filled < 2 || filled * 2 < Math.min(width, rows[0]?.length ?? width))) break
    rows.unshift(cells)
    // One row of names is enough where it names what is wanted; a row of units alone is not.
    if (cells.some((cell) => NAMES.some(([, pattern]) => /[a-z]{3}/i.test(cell) && pattern.test(plainName(cell))))) break
  }
  return Array.from({ length: width }, (_, c) =>
    rows
      .map((cells) => (cells[c] ?? '').trim())
      .filter((cell) => cell !== '')
      .join(' '),
  )
}

/** The clock as the head says it: "UTC", "GMT+1", "Local Time (UTC-8)". */
function clockOfHead(
  head: string,
  stationOffset: number | undefined,
): { clock: WeatherMapping['clock']; offsetMinutes: number | null } | undefined {
  const said = /\b(?:utc|gmt)\s*(?:([+−-])\s*(\d{1,2})(?::?(\d{2}))?)?/i.exec(head)
  if (!said) return undefined
  const minutes = (Number(said[2] ?? 0) * 60 + Number(said[3] ?? 0)) * (said[1] === '+' || said[1] === undefined ? 1 : -1)
  if (minutes === 0) return { clock: 'utc', offsetMinutes: null }
  if (minutes === stationOffset) return { clock: 'standard', offsetMinutes: null }
  return { clock: 'fixed', offsetMinutes: minutes }
}

const MOST_HOURS_APART = 1.5 * MS_PER_HOUR

/** Whether the times of a file end their hours: where its head says so, or its days run from 01:00 to 24:00. */
function guessStamp(moments: readonly FileMoment[], head: string): WeatherMapping['stamp'] {
  if (/hour ending|period ending|interval end|end of (the )?(hour|interval|period)|\bhe\b/i.test(head)) return 'ends'
  if (moments.some(({ endsDay }) => endsDay)) return 'ends'
  const [first, last] = [moments[0], moments.at(-1)]
  if (!first || !last || moments.length < 48) return 'begins'
  const isHourly = Math.abs((moments[1]?.local ?? 0) - first.local) <= MOST_HOURS_APART
  const hourOf = ({ local }: FileMoment): number => (((local % MS_PER_DAY) + MS_PER_DAY) % MS_PER_DAY) / MS_PER_HOUR
  return isHourly && moments.length % 24 === 0 && hourOf(first) === 1 && hourOf(last) === 0 ? 'ends' : 'begins'
}

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
export function guessMapping(
  text: string,
  site: { timeZone: string; units: 'metric' | 'us'; utcOffsetMinutes?: number },
  written: Written = {},
): Guess {
  const separator = written.separator ?? guessSeparator(text)
  const lines = splitCells(text, separator)
  const firstReading = lines.findIndex(
    (cells) => cells.some((cell) => anyMoment(cell)) && cells.filter((cell) => /\d/.test(cell)).length > 1,
  )
  const headerLines = written.headerLines ?? Math.max(0, firstReading)
  const body = lines.slice(headerLines).filter((cells) => cells.some((cell) => cell.trim() !== ''))
  const width = body.reduce((most, cells) => Math.max(most, cells.length), 0)
  const header = headOf(lines, headerLines, width)
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
    if (c === dateColumn || c === timeColumn || NOT_WANTED.test(plainName(name)) || NOT_THE_AIR.test(plainName(name))) continue
    const samples = column(c).flatMap((cell) => parseNumber(cell, decimal) ?? [])
    const plain = plainName(name)
    const variable = NAMES.find(
      ([v, pattern]) => pattern.test(plain) && (interval === 'daily' ? v !== 'temperature' : v !== 'min' && v !== 'max'),
    )?.[0]
    if (!variable || columns.some((known) => known.variable === variable)) continue
    const unit = unitFor(variable, name, samples, site.units, () => directionUnit(column(c), decimal))
    // Points of the compass are no numbers.
    if (samples.length > 0 || (variable === 'direction' && unit !== 'deg')) columns.push({ variable, column: c, unit })
  }
  // One thermometer, one unit; and who writes tenths of a degree writes tenths of a millimetre.
  if (columns.some(({ unit }) => unit === 'C/10'))
    for (const one of columns) {
      if (['temperature', 'min', 'max'].includes(one.variable)) one.unit = 'C/10'
      const samples = column(one.column).flatMap((cell) => parseNumber(cell, decimal) ?? [])
      if (one.variable === 'rain' && one.unit === 'mm' && samples.every(Number.isInteger)) one.unit = 'mm/10'
    }
  const hourly = interval === 'hourly'
  const above = lines.slice(0, headerLines).flat().join(' ')
  const clock = hourly ? clockOfHead(above, site.utcOffsetMinutes) : undefined
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
        clock?.clock ??
        (hourly
          ? guessClock(
              moments.map(({ local }) => local),
              site.timeZone,
              moments.some(({ offset }) => offset !== null),
            )
          : 'standard'),
      offsetMinutes: clock?.offsetMinutes ?? null,
      stamp: hourly ? guessStamp(moments, above) : 'begins',
      columns,
    },
    columns: Array.from({ length: width }, (_, index) => ({
      index,
      name: header[index] ?? '',
      samples: column(index).slice(0, 3),
      units: likelyUnits(header[index] ?? '', column(index), decimal, site.units),
    })),
  }
}
