import { MS_PER_MINUTE, standardHour } from '@bocado/core'
import type { Queryable } from '../database/index.js'
import { listCorrections, type StoredCorrection } from './correctionStore.js'
import { extentOfHours, HOUR_VALUES, readHours, type HourRow, type HourVariable } from './readingStore.js'
import { changedSince, WHOLE_HISTORY, type StoredStation } from './store.js'
import { fromSi, toSi } from './units.js'

/** Hours of a station by variable, in its standard time; NaN: no reading. */
export interface HourValues {
  firstHour: number
  length: number
  values: Record<HourVariable, Float64Array>
}

/** Readings as they came, corrections laid over them, at a version of the station's history. */
export interface RawHours extends HourValues {
  version: number
  utcOffsetMinutes: number
  /** Hours since 1970-01-01, standard time, in which somebody put a value in by hand: nothing doubts it. */
  byHand: ReadonlyMap<HourVariable, ReadonlySet<number>>
  /** The readings of an earlier version, and the first hour in which these differ from them; let go once they were checked. */
  since?: { raw: RawHours; firstHour: number } | undefined
}

const hourOf = (minutes: number, utcOffsetMinutes: number): number => standardHour(minutes * MS_PER_MINUTE, utcOffsetMinutes)

let longestNothing = new Float64Array()
const nothings = new WeakSet<ArrayBufferLike>([longestNothing.buffer])

/** Nothing for any hour, held once for all variables that a station never read; nobody may write into it. */
function nothing(length: number): Float64Array {
  if (longestNothing.length < length) {
    longestNothing = new Float64Array(length).fill(NaN)
    nothings.add(longestNothing.buffer)
  }
  return longestNothing.subarray(0, length)
}

/** Whether a variable was never read. */
export const isNothing = (values: Float64Array): boolean => nothings.has(values.buffer)

function emptyValues(length: number): Record<HourVariable, Float64Array> {
  const none = nothing(length)
  return { temperature: none, humidity: none, rain: none, wind: none, wetness: none, soil: none, direction: none }
}

/** The same hours with room from one hour to another, both inclusive. */
function withRoom(hours: HourValues, first: number, last: number): HourValues {
  const from = hours.length === 0 ? first : Math.min(first, hours.firstHour)
  const to = hours.length === 0 ? last : Math.max(last, hours.firstHour + hours.length - 1)
  if (hours.length > 0 && from === hours.firstHour && to === hours.firstHour + hours.length - 1) return hours
  const values = emptyValues(to - from + 1)
  for (const variable of HOUR_VALUES) {
    if (hours.length === 0 || isNothing(hours.values[variable])) continue
    values[variable] = new Float64Array(to - from + 1).fill(NaN)
    values[variable].set(hours.values[variable], hours.firstHour - from)
  }
  return { firstHour: from, length: to - from + 1, values }
}

/** The moment of a reading after the corrections of its clock. */
export function correctedMinutes(minutes: number, corrections: readonly StoredCorrection[]): number {
  let moved = minutes
  for (const { kind, fromMinutes, untilMinutes, shiftMinutes } of corrections)
    if (kind === 'clock' && minutes >= fromMinutes && minutes < untilMinutes) moved += shiftMinutes
  return moved
}

/** A value of a reading after the corrections of its unit. */
export function correctedValue(variable: HourVariable, minutes: number, value: number, corrections: readonly StoredCorrection[]): number {
  let corrected = value
  for (const { kind, fromMinutes, untilMinutes, variable: of, readAs, isIn } of corrections)
    if (kind === 'unit' && of === variable && readAs !== null && isIn !== null && minutes >= fromMinutes && minutes < untilMinutes)
      corrected = toSi(variable, fromSi(variable, corrected, readAs), isIn)
  return corrected
}

function lay(rows: readonly HourRow[], hours: HourValues, utcOffsetMinutes: number, corrections: readonly StoredCorrection[]): void {
  for (const row of rows) {
    const i = hourOf(correctedMinutes(row[0], corrections), utcOffsetMinutes) - hours.firstHour
    if (i < 0 || i >= hours.length) continue
    HOUR_VALUES.forEach((variable, v) => {
      const value = row[v + 1]
      if (value === null || value === undefined) return
      if (isNothing(hours.values[variable])) hours.values[variable] = hours.values[variable].slice()
      hours.values[variable][i] = correctedValue(variable, row[0], value, corrections)
    })
  }
}

/** Lays single hours that somebody put right over everything else. */
function layByHand(hours: HourValues, utcOffsetMinutes: number, corrections: readonly StoredCorrection[]): RawHours['byHand'] {
  const byHand = new Map<HourVariable, Set<number>>()
  for (const { kind, variable, value, fromMinutes } of corrections) {
    if (kind !== 'value' || variable === null || value === null) continue
    const hour = hourOf(fromMinutes, utcOffsetMinutes)
    const i = hour - hours.firstHour
    if (i < 0 || i >= hours.length) continue
    if (isNothing(hours.values[variable])) hours.values[variable] = hours.values[variable].slice()
    hours.values[variable][i] = value
    byHand.set(variable, (byHand.get(variable) ?? new Set<number>()).add(hour))
  }
  return byHand
}

const copied = (hours: HourValues): HourValues => {
  const values = { ...hours.values }
  for (const variable of HOUR_VALUES) if (!isNothing(values[variable])) values[variable] = values[variable].slice()
  return { ...hours, values }
}

/** The readings of a station at its version. With those of an earlier version only the hours changed since are fetched. */
export async function rawHours(db: Queryable, station: StoredStation, held: RawHours | undefined): Promise<RawHours> {
  const { historyVersion: version, utcOffsetMinutes } = station
  if (held && held.version === version && held.utcOffsetMinutes === utcOffsetMinutes) return held
  const changed = held && held.utcOffsetMinutes === utcOffsetMinutes ? await changedSince(db, station, held.version) : undefined
  const corrections = await listCorrections(db, station.id)
  const whole = !held || changed === undefined || (changed !== null && changed.first <= WHOLE_HISTORY.first)
  if (!whole && changed === null) return { ...held, version }

  const range = whole || !changed ? WHOLE_HISTORY : changed
  // A correction of the clock may move an hour by up to a day.
  const DAY = 24
  let hours: HourValues = whole ? { firstHour: 0, length: 0, values: emptyValues(0) } : copied(held)
  if (whole) {
    const extent = await extentOfHours(db, station.id)
    if (!extent) return { ...hours, version, utcOffsetMinutes, byHand: new Map() }
    const room = corrections.some(({ kind }) => kind !== 'unit') ? DAY : 0
    hours = withRoom(hours, hourOf(extent.first, utcOffsetMinutes) - room, hourOf(extent.last, utcOffsetMinutes) + room)
  }
  await readHours(db, station.id, range, (rows) => {
    const [first, last] = [rows[0], rows.at(-1)]
    if (!first || !last) return
    if (!whole) {
      const at = (row: HourRow): number => hourOf(correctedMinutes(row[0], corrections), utcOffsetMinutes)
      hours = withRoom(hours, Math.min(at(first), at(last)), Math.max(at(first), at(last)))
    }
    lay(rows, hours, utcOffsetMinutes, corrections)
  })
  const byHand = layByHand(hours, utcOffsetMinutes, corrections)
  if (whole) return { ...hours, version, utcOffsetMinutes, byHand }
  held.since = undefined
  // A clock that was corrected may have moved an hour by up to a day.
  const firstHour = standardHour(Date.parse(`${changed!.first.replace(' ', 'T')}Z`), utcOffsetMinutes) - DAY
  return { ...hours, version, utcOffsetMinutes, byHand, since: { raw: held, firstHour } }
}
