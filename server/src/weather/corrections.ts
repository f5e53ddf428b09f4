import type { Correction, ParsedInputOf, ResponseOf, weather } from '@bocado/contract'
import { checkHours, dayNumber, instantOfDay, isoInstant, MS_PER_MINUTE } from '@bocado/core'
import { insertRow, liveRow, removeRow, restoreRow, sqlInstant, type Queryable, type Row, type Write } from '../database/index.js'
import { fieldProblem, HttpProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { listCorrections, presentedCorrection, type StoredCorrection } from './correctionStore.js'
import { extentOfHours, HOUR_VALUES, readHours, type HourRow, type HourVariable } from './readingStore.js'
import { correctedMinutes, correctedValue } from './stationHours.js'
import { getStation } from './stations.js'
import { lockStation, raiseVersion, WHOLE_HISTORY, type StoredStation } from './store.js'

type Input = ParsedInputOf<typeof weather.correct>

/** First minute and the minute after the last, UTC, of days in the station's standard time. */
function rangeOf({ kind, from, to, hour }: Input, station: StoredStation): { fromMinutes: number; untilMinutes: number } {
  const minutes = (day: number): number => instantOfDay(day, station.utcOffsetMinutes) / MS_PER_MINUTE
  if (kind === 'value') {
    const at = minutes(dayNumber(from)) + (hour ?? 0) * MINUTES_PER_HOUR
    return { fromMinutes: at, untilMinutes: at + MINUTES_PER_HOUR }
  }
  return { fromMinutes: minutes(dayNumber(from)), untilMinutes: minutes(dayNumber(to) + 1) }
}

const MINUTES_PER_HOUR = 60

const sqlOf = (minutes: number): string => sqlInstant(new Date(minutes * MS_PER_MINUTE))
const instant = (minutes: number): string => isoInstant(minutes * MS_PER_MINUTE)

const asStored = (input: Input, station: StoredStation): StoredCorrection => ({
  id: '',
  kind: input.kind,
  ...rangeOf(input, station),
  shiftMinutes: input.shiftMinutes ?? 0,
  variable: input.kind === 'clock' ? null : input.variable,
  value: input.kind === 'value' ? input.value : null,
  readAs: input.readAs,
  isIn: input.isIn,
  note: input.note,
  by: '',
  rowVersion: 1,
})

export async function getCorrections(db: Queryable, siteId: string, stationId: string): Promise<Correction[]> {
  const station = await getStation(db, siteId, stationId)
  return (await listCorrections(db, stationId)).map((correction) => presentedCorrection(correction, station))
}

const EXAMPLES = 4

/** What a correction would do to the hours that it covers, the corrections so far under it. */
export async function previewCorrection(
  deps: Deps,
  siteId: string,
  stationId: string,
  input: Input,
): Promise<ResponseOf<typeof weather.previewCorrection>> {
  const { db } = deps
  const station = await getStation(db, siteId, stationId)
  const earlier = await listCorrections(db, stationId)
  if (input.kind === 'value') return previewOfHour(db, station, earlier, input)
  const corrections = [...earlier, asStored(input, station)]
  const variable = input.kind === 'unit' && input.variable ? input.variable : 'temperature'
  const column = HOUR_VALUES.indexOf(variable) + 1
  const { fromMinutes, untilMinutes } = rangeOf(input, station)
  let hours = 0
  const after: number[] = []
  const examples: ResponseOf<typeof weather.previewCorrection>['examples'] = []
  const take = (rows: readonly HourRow[]): void => {
    for (const row of rows) {
      const value = row[column]
      if (value === null || value === undefined) continue
      hours++
      const corrected = correctedValue(variable, row[0], value, corrections)
      after.push(corrected)
      if (examples.length < EXAMPLES && (hours - 1) % 6 === 0)
        examples.push({
          at: instant(correctedMinutes(row[0], earlier)),
          before: correctedValue(variable, row[0], value, earlier),
          movesTo: instant(correctedMinutes(row[0], corrections)),
          after: corrected,
        })
    }
  }
  await readHours(db, stationId, { first: sqlOf(fromMinutes), last: sqlOf(untilMinutes - 1) }, take)
  const impossible = checkHours(after, variable).filter(({ flag }) => flag === 'range').length
  return { hours, impossible, examples }
}

/** What was read in hours of a station, once clocks and units are right: by variable and the minute in which an hour begins; undefined where nothing was. */
export type ReadingOf = (variable: HourVariable, minutes: number) => number | undefined

/** The readings between two moments in minutes, without what was put in by hand. */
export async function readingsBetween(
  db: Queryable,
  stationId: string,
  fromMinutes: number,
  untilMinutes: number,
  corrections: readonly StoredCorrection[],
): Promise<ReadingOf> {
  const rows: HourRow[] = []
  // A clock may have been off by up to a day.
  const range = { first: sqlOf(fromMinutes - MINUTES_PER_DAY), last: sqlOf(untilMinutes + MINUTES_PER_DAY) }
  await readHours(db, stationId, range, (part) => rows.push(...part))
  const moved = rows.map((row) => ({ row, at: correctedMinutes(row[0], corrections) }))
  return (variable, minutes) => {
    const column = HOUR_VALUES.indexOf(variable) + 1
    const last = moved.findLast(({ row, at }) => at >= minutes && at < minutes + MINUTES_PER_HOUR && row[column] != null)
    return last && correctedValue(variable, last.row[0], last.row[column] as number, corrections)
  }
}

const MINUTES_PER_DAY = 24 * MINUTES_PER_HOUR

async function previewOfHour(
  db: Queryable,
  station: StoredStation,
  corrections: readonly StoredCorrection[],
  input: Input,
): Promise<ResponseOf<typeof weather.previewCorrection>> {
  const { fromMinutes } = rangeOf(input, station)
  const { variable, value } = input
  if (variable === null || value === null) return { hours: 0, impossible: 0, examples: [] }
  const extent = await extentOfHours(db, station.id)
  if (!extent || fromMinutes < extent.first - MINUTES_PER_DAY || fromMinutes > extent.last) return { hours: 0, impossible: 0, examples: [] }
  const before = (await readingsBetween(db, station.id, fromMinutes, fromMinutes + MINUTES_PER_HOUR, corrections))(variable, fromMinutes)
  const at = instant(fromMinutes)
  return { hours: 1, impossible: 0, examples: before === undefined ? [] : [{ at, before, movesTo: at, after: value }] }
}

/** Lays a correction over the readings. Nothing stored changes, so taking it off again puts everything back. */
export async function correctReadings(w: Write, deps: Deps, stationId: string, input: Input): Promise<Correction> {
  await lockStation(w, stationId)
  const station = await getStation(w.tx, w.siteId, stationId)
  if (input.kind === 'value' && rangeOf(input, station).fromMinutes * MS_PER_MINUTE > (await deps.clock.now(w.tx)).getTime())
    throw fieldProblem('hour', 'lies in the future; put an hour right once it has come')
  requireNoneAlike(asStored(input, station), await listCorrections(w.tx, stationId))
  const { hours, impossible } = await previewCorrection(deps, w.siteId, stationId, input)
  if (hours === 0)
    throw new HttpProblem(
      422,
      input.kind === 'value'
        ? 'The station has no hours around this one. Type the day instead, under “Bring readings in”.'
        : 'The station has no such readings on these days. Choose the days that were read wrongly.',
    )
  if (impossible > hours / 2)
    throw new HttpProblem(
      422,
      `${impossible} of ${hours} hours would then lie outside what there can be, so nothing was changed. Look at the unit again.`,
    )
  const { fromMinutes, untilMinutes } = rangeOf(input, station)
  const id = await insertRow(w, 'station_correction', {
    station_id: stationId,
    kind: input.kind,
    variable: input.kind === 'clock' ? null : input.variable,
    value: input.kind === 'value' ? input.value : null,
    from_at: sqlOf(fromMinutes),
    until_at: sqlOf(untilMinutes),
    shift_minutes: input.kind === 'clock' ? input.shiftMinutes : null,
    read_as: input.kind === 'unit' ? input.readAs : null,
    is_in: input.kind === 'unit' ? input.isIn : null,
    note: input.note,
  })
  await raiseVersion(w.tx, { siteId: w.siteId, stationId }, WHOLE_HISTORY)
  return correctionNow(w, id)
}

/**
 * Refuses a correction that lies there already, so that two people who press at once do not convert twice; and a second value for one hour.
 */
function requireNoneAlike(wanted: StoredCorrection, standing: readonly StoredCorrection[]): void {
  const { kind, variable, fromMinutes, untilMinutes, shiftMinutes, readAs, isIn } = wanted
  const alike = standing.find(
    (one) =>
      one.id !== wanted.id &&
      one.kind === kind &&
      one.variable === variable &&
      one.fromMinutes === fromMinutes &&
      (kind === 'value' ||
        (one.untilMinutes === untilMinutes && one.shiftMinutes === shiftMinutes && one.readAs === readAs && one.isIn === isIn)),
  )
  if (alike && kind === 'value') throw fieldProblem('hour', `is put right already, by ${alike.by}: take that off first`)
  if (alike) throw new HttpProblem(422, `${alike.by} has put the same right already. Take that off first, if it is to be another.`)
}

async function stationOf(w: Write, correctionId: string): Promise<string> {
  const [[row]] = await w.tx.query<Row[]>('SELECT station_id FROM station_correction WHERE id = ? AND site_id = ?', [
    correctionId,
    w.siteId,
  ])
  if (!row) throw new HttpProblem(404, 'There is no such correction at this site.')
  return row['station_id'] as string
}

async function correctionNow(w: Write, id: string): Promise<Correction> {
  await liveRow(w.tx, w.siteId, 'station_correction', id)
  const found = (await getCorrections(w.tx, w.siteId, await stationOf(w, id))).find((correction) => correction.id === id)
  if (!found) throw new Error(`correction ${id} vanished inside its transaction`)
  return found
}

export async function removeCorrection(w: Write, id: string, rowVersion: number): Promise<{ id: string; rowVersion: number }> {
  const stationId = await stationOf(w, id)
  await lockStation(w, stationId)
  const removed = await removeRow(w, 'station_correction', id, rowVersion)
  await raiseVersion(w.tx, { siteId: w.siteId, stationId }, WHOLE_HISTORY)
  return removed
}

export async function restoreCorrection(w: Write, id: string, rowVersion: number): Promise<Correction> {
  const stationId = await stationOf(w, id)
  await lockStation(w, stationId)
  await restoreRow(w, 'station_correction', id, rowVersion)
  const standing = await listCorrections(w.tx, stationId)
  const restored = standing.find((correction) => correction.id === id)
  if (restored) requireNoneAlike(restored, standing)
  await raiseVersion(w.tx, { siteId: w.siteId, stationId }, WHOLE_HISTORY)
  return correctionNow(w, id)
}
