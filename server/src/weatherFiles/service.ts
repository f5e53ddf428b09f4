import type { FilePreview, ImportResult, WeatherMapping, Written } from '@bocado/contract'
import type { Row, Write } from '../database/index.js'
import { HttpProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { getSite, hemisphereOf } from '../sites/service.js'
import { getStation } from '../weather/stations.js'
import { mergeDays, mergeHours } from '../weather/readingStore.js'
import { lockStation } from '../weather/store.js'
import { guessMapping, headOf, likelyUnits, saysUnit } from './guess.js'
import type { FileReadings } from './readings.js'
import { findImport, insertImport } from './store.js'
import type { WeatherFileReader } from './reader.js'
import { decodeText, requireLines, splitCells } from './text.js'
import { doubtWords, inUnit, monthsOfLines, requireLikelyUnit, storedMeans, unitDoubt, type KnownPlace } from './unitDoubt.js'
import { openQuestions, shownMoment, understandLines, type StationClock } from './understand.js'

/** The page sends this much of a file for the preview. */
export const PREVIEW_BYTES = 262_144
const SHOWN_ROWS = 6
const SHOWN_PROBLEMS = 4

/** What has to be known of a station to read its files. */
export interface FileClock extends StationClock {
  units: 'metric' | 'us'
  place: KnownPlace
}

export async function clockOf({ db, clock }: Deps, siteId: string, stationId: string): Promise<FileClock> {
  const station = await getStation(db, siteId, stationId)
  const site = await getSite(db, clock, siteId)
  return {
    timeZone: site.timeZone,
    units: site.units,
    place: {
      latitude: station.latitude ?? site.latitude,
      hemisphere: hemisphereOf(site),
      usual: await storedMeans(db, stationId),
    },
    utcOffsetMinutes: station.utcOffsetMinutes,
    now: (await clock.now(db)).getTime(),
  }
}

/** How the head of a file is understood, by the given mapping or by a guess. */
export function previewFile(bytes: Uint8Array, clock: FileClock, given: WeatherMapping | undefined, written: Written = {}): FilePreview {
  const decoded = decodeText(bytes)
  // A head that was cut off ends in half a line.
  const text = bytes.length >= PREVIEW_BYTES && decoded.includes('\n') ? decoded.slice(0, decoded.lastIndexOf('\n')) : decoded
  requireLines(text)
  const guess = guessMapping(text, clock, written)
  let mapping = given ?? guess.mapping
  const lines = splitCells(text, mapping.separator)
  let understood = understandLines(lines, mapping, clock)
  let doubt = unitDoubt(monthsOfLines(understood), mapping, clock.place)
  // Where the head of the column says nothing the place does.
  if (doubt && !given && !mapping.columns.some(({ column }) => saysUnit(guess.columns[column]?.name ?? ''))) {
    mapping = inUnit(mapping, doubt.better)
    understood = understandLines(lines, mapping, clock)
    doubt = undefined
  }
  if (!understood.some(({ at }) => at !== null) && !given) {
    throw new HttpProblem(
      422,
      'No column of this file holds dates, so it is no list of readings. Choose a file with one line per hour or day.',
    )
  }
  // The first lines, and the first ones further down that cannot be read: a wrong date order shows on the thirteenth.
  const shown = [
    ...understood.slice(0, SHOWN_ROWS),
    ...understood
      .slice(SHOWN_ROWS)
      .filter(({ problem }) => problem !== null)
      .slice(0, SHOWN_PROBLEMS),
  ]
  const columns = given ? columnsOf(lines, mapping, clock.units) : guess.columns
  return {
    mapping,
    columns,
    rows: shown.map(({ line, at, values, problem }) => ({
      line,
      at: at === null ? null : shownMoment(at, mapping, clock),
      values,
      problem,
    })),
    questions: [
      ...openQuestions(
        mapping,
        lines.slice(mapping.headerLines).map((cells) => cells[mapping.dateColumn] ?? ''),
      ),
      ...(doubt ? [{ field: 'units', message: doubtWords(doubt, mapping) }] : []),
    ],
  }
}

function columnsOf(lines: readonly string[][], mapping: WeatherMapping, units: FileClock['units']): FilePreview['columns'] {
  const body = lines.slice(mapping.headerLines, mapping.headerLines + 20)
  const width = body.reduce((most, cells) => Math.max(most, cells.length), 0)
  const header = headOf(lines, mapping.headerLines, width)
  return Array.from({ length: width }, (_, index) => ({
    index,
    name: header[index] ?? '',
    samples: body.slice(0, 3).map((cells) => cells[index] ?? ''),
    units: likelyUnits(
      header[index] ?? '',
      body.map((cells) => cells[index] ?? ''),
      mapping.decimal,
      units,
    ),
  }))
}

/** Reads a whole file. Refuses it where a question is open or most of it cannot be read. */
export async function readFile(
  readWeatherFile: WeatherFileReader,
  path: string,
  clock: FileClock,
  mapping: WeatherMapping,
  onProgress: (share: number) => void,
): Promise<FileReadings> {
  const open = openQuestions(mapping, [])
  if (open.length > 0)
    throw new HttpProblem(422, open.map(({ message }) => message).join(' '), {
      fields: open.map(({ field, message }) => ({ path: `mapping.${field}`, message })),
    })
  const { place, ...stationClock } = clock
  const readings = await readWeatherFile({ path, mapping, clock: stationClock }, onProgress)
  const refused = readings.rejections.filter(({ partly }) => !partly)
  if (refused.length * 2 > readings.lines || readings.rows.keys.length === 0) {
    const first = refused[0]
    const example = first ? ` Line ${first.line}: ${first.reason}.` : ''
    throw new HttpProblem(
      422,
      `${refused.length} of ${readings.lines} lines cannot be read, so nothing was stored.${example} Check columns, date order and units.`,
    )
  }
  requireLikelyUnit(readings.rows, mapping, place)
  return readings
}

/** Stores a file that was read: all of it in the caller's transaction, with its result and its refused lines. */
export async function storeFile(
  w: Write,
  task: { importId: string; stationId: string; fileName: string; mapping: WeatherMapping; readings: FileReadings; hash: string },
  onProgress: (share: number) => void,
): Promise<ImportResult> {
  const { importId, stationId, fileName, mapping, readings, hash } = task
  const merge = mapping.interval === 'hourly' ? mergeHours : mergeDays
  const { lines, repeated, readingsPerHour, first, last, rejections } = readings
  const unread = rejections.filter(({ partly }) => partly).length
  const shared = { interval: mapping.interval, lines, rejected: rejections.length - unread, unread, repeated, readingsPerHour, first, last }
  // The import stands before the readings that name it; its counts follow.
  await insertImport(w, { importId, stationId, fileName, mapping, rejections, hash })
  await lockStation(w, stationId)
  const counts = await merge(w, stationId, importId, readings.rows, onProgress)
  const [[typed]] = await w.tx.query<Row[]>('SELECT COUNT(*) AS n FROM typed_day WHERE station_id = ? AND day BETWEEN ? AND ?', [
    stationId,
    first,
    last,
  ])
  const typedHold = Number(typed?.['n'])
  await w.tx.query('UPDATE weather_import SET result = ? WHERE id = ?', [JSON.stringify({ ...shared, ...counts, typedHold }), importId])
  const result = await findImport(w.tx, w.siteId, importId)
  if (!result) throw new Error(`import ${importId} vanished inside its transaction`)
  return result
}
