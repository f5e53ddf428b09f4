import { infectionWetHours } from './infectionWetHours.js'
import { physiologicalDay } from './physiologicalDay.js'
import { twoDayCriterion } from './twoDayCriterion.js'
import { severityValue } from './severityValue.js'
import { infectionsBy, SCAB_LONGEST_BREAK_HOURS, scabWetHours, type InfectionHours } from './spells.js'

/** How weather allows infections, as data. Temperatures in °C, rain in mm. */
export type InfectionModel =
  /** Magarey, Sutton & Russo 2005; `longestBreak` dry hours at which wetness still adds up. */
  | { kind: 'wetness'; tmin: number; topt: number; tmax: number; wmin: number; wmax: number; longestBreak: number }
  /** MacHardy & Gadoury 1989. */
  | { kind: 'apple-scab' }
  /** Severity values from noon to noon, with the accumulated value at which protection is due. */
  | { kind: 'severity-table'; table: 'late-blight' | 'early-blight'; dueAt: number }
  /** Sands et al. 1979; the first spray is due near 300 (Pscheidt & Stevenson 1988). */
  | { kind: 'physiological-days'; dueAt: number }
  /** Dancey, Skelsey & Cooke 2017. */
  | { kind: 'two-day-humidity' }
  /** Gubler et al. 1999; `dueAt` is the index from which the pressure is high. */
  | { kind: 'vine-powdery-mildew'; dueAt: number }
  /** Rain and warmth on shoots of at least 10 cm. */
  | { kind: 'vine-downy-mildew' }
  /** Steiner 1990; from first bloom on. */
  | { kind: 'fire-blight' }
  /** Jesperson & Sutton 1987. */
  | { kind: 'onion-downy-mildew' }

/** What a day's weather meant for a disease. */
export interface InfectionDay {
  day: number
  /** Whether it allowed an infection, or brought the pressure to where protection is due. */
  infection: boolean
  /** Whether that rests on known hours; an infection that does not is possible. */
  certain: boolean
  /** How much: wet hours over those needed, the day's severity value, or the index. */
  severity: number
  /** Accumulated severity values or the index, where the model has one. */
  total: number | null
}

/** The hours of one day from an hour of it on. */
interface DaySlice {
  day: number
  /** Index of its first hour; may lie outside the series. */
  from: number
  count: number
}

/** The values of a day's hours; NaN outside the series. */
const valuesOf = (values: Float64Array, { from, count }: DaySlice): number[] =>
  Array.from({ length: count }, (_, k) => at(values, from + k))

const at = (values: Float64Array, i: number): number => (i >= 0 && i < values.length ? (values[i] as number) : NaN)

/**
 * What the weather of each day from `start` to the day before `until` meant for a disease, by day number.
 *
 * @param start first day that counts: emergence, first bloom, shoots of 10 cm, or the season's start, as the model asks
 */
export function infectionDays(model: InfectionModel, hours: InfectionHours, start: number, until: number): InfectionDay[] {
  const days = Array.from({ length: Math.max(0, until - start) }, (_, d): InfectionDay => ({
    day: start + d,
    infection: false,
    certain: true,
    severity: 0,
    total: null,
  }))
  const sliceOf = (day: number): DaySlice => ({ day, from: day * 24 - hours.firstHour, count: 24 })
  switch (model.kind) {
    case 'wetness':
      return bySpells(days, hours, (t) => infectionWetHours(t, model), model.longestBreak)
    case 'apple-scab':
      return bySpells(days, hours, scabWetHours, SCAB_LONGEST_BREAK_HOURS)
    case 'severity-table':
      return bySeverity(days, hours, model.table, model.dueAt)
    case 'physiological-days':
      return byPhysiologicalDays(days, hours, sliceOf, model.dueAt)
    case 'two-day-humidity':
      return byTwoDays(days, hours, sliceOf)
    case 'vine-powdery-mildew':
      return byPowderyIndex(days, hours, sliceOf, model.dueAt)
    case 'vine-downy-mildew':
      return byRainAndWarmth(days, hours, sliceOf)
    case 'fire-blight':
      return byBlossomHeat(days, hours, sliceOf)
    case 'onion-downy-mildew':
      return byDampNight(days, hours, sliceOf)
  }
}

function bySpells(days: InfectionDay[], hours: InfectionHours, needed: (t: number) => number, longestBreak: number): InfectionDay[] {
  const first = days[0]
  if (!first) return days
  const { infections } = infectionsBy(hours, needed, longestBreak, first.day * 24 - hours.firstHour)
  for (const { at: hour, severity, certain } of infections) {
    const day = days[Math.floor(hour / 24) - first.day]
    if (!day || severity < day.severity) continue
    Object.assign(day, { infection: true, severity, certain })
  }
  return days
}

const HUMID_FROM_PCT = 90

/** Noon to noon, dated by the end: the day's value is that of the night before it. */
function bySeverity(days: InfectionDay[], hours: InfectionHours, table: 'late-blight' | 'early-blight', dueAt: number): InfectionDay[] {
  let total = 0
  return days.map((day) => {
    let n = 0
    let sum = 0
    let unknown = 0
    const noon = day.day * 24 - 12 - hours.firstHour
    for (let i = noon; i < noon + 24; i++) {
      const humid = table === 'late-blight' ? at(hours.humidity, i) : at(hours.wet, i)
      const t = at(hours.temperature, i)
      if (Number.isNaN(humid) || Number.isNaN(t)) unknown++
      else if (table === 'late-blight' ? humid >= HUMID_FROM_PCT : humid === 1) {
        n++
        sum += t
      }
    }
    const value = n === 0 ? 0 : severityValue(table, sum / n, n)
    const before = total
    total += value
    const crossed = Math.floor(total / dueAt) > Math.floor(before / dueAt)
    return { ...day, infection: crossed, certain: unknown === 0, severity: value, total }
  })
}

/** Physiological days add up from crop emergence; the day on which they reach `dueAt` is when protection is due. */
function byPhysiologicalDays(
  days: InfectionDay[],
  hours: InfectionHours,
  sliceOf: (day: number) => DaySlice,
  dueAt: number,
): InfectionDay[] {
  let total = 0
  return days.map((day) => {
    const { from, count } = sliceOf(day.day)
    let coldest = Infinity
    let hottest = -Infinity
    let read = 0
    for (let i = from; i < from + count; i++) {
      const t = at(hours.temperature, i)
      if (Number.isNaN(t)) continue
      read++
      if (t < coldest) coldest = t
      if (t > hottest) hottest = t
    }
    const enough = read >= 18
    const value = enough ? physiologicalDay(coldest, hottest) : 0
    const before = total
    total += value
    return { ...day, infection: total >= dueAt && before < dueAt, certain: enough, severity: value / 10, total }
  })
}

const UNKNOWN_MIN = -100

function byTwoDays(days: InfectionDay[], hours: InfectionHours, sliceOf: (day: number) => DaySlice): InfectionDay[] {
  const first = days[0]
  if (!first) return days
  const dayOfHours = (day: number): Parameters<typeof twoDayCriterion>[0][number] => {
    const read = valuesOf(hours.temperature, sliceOf(day)).filter((t) => !Number.isNaN(t))
    const humidHours = valuesOf(hours.humidity, sliceOf(day)).filter((rh) => rh >= HUMID_FROM_PCT).length
    // A day of which no temperature is known is not one that was warm enough.
    return { min: read.length > 0 ? Math.min(...read) : UNKNOWN_MIN, humidHours }
  }
  const met = twoDayCriterion([dayOfHours(first.day - 1), ...days.map(({ day }) => dayOfHours(day))])
  return days.map((day, i) => {
    const both = met[i + 1] === true
    const known = valuesOf(hours.humidity, sliceOf(day.day)).every((rh) => !Number.isNaN(rh))
    return { ...day, infection: both, certain: known, severity: both ? 1 : 0 }
  })
}

/** Rises by 20 on a day with six hours in a row at 21 to 30 °C, falls by 10 otherwise and by 10 on a day that reaches 35 °C. */
function byPowderyIndex(days: InfectionDay[], hours: InfectionHours, sliceOf: (day: number) => DaySlice, dueAt: number): InfectionDay[] {
  let index = 0
  let inARow = 0
  let started = false
  return days.map((day) => {
    let run = 0
    let longest = 0
    let hottest = -Infinity
    let unknown = 0
    const { from, count } = sliceOf(day.day)
    for (let i = from; i < from + count; i++) {
      const t = at(hours.temperature, i)
      if (Number.isNaN(t)) unknown++
      else hottest = Math.max(hottest, t)
      run = t >= 21 && t <= 30 ? run + 1 : 0
      longest = Math.max(longest, run)
    }
    const good = longest >= 6
    inARow = good ? inARow + 1 : 0
    const before = index
    if (!started) {
      if (inARow === 3) {
        started = true
        index = 60
      }
    } else index = Math.min(100, Math.max(0, index + (good ? 20 : -10) - (hottest >= 35 ? 10 : 0)))
    return { ...day, infection: index >= dueAt && before < dueAt, certain: unknown === 0, severity: index / 100, total: index }
  })
}

/** At least 10 mm of rain in 48 hours, at a mean of at least 10 °C over the same time. */
function byRainAndWarmth(days: InfectionDay[], hours: InfectionHours, sliceOf: (day: number) => DaySlice): InfectionDay[] {
  return days.map((day) => {
    const { from } = sliceOf(day.day)
    let rain = 0
    let sum = 0
    let n = 0
    let unknown = 0
    for (let i = from - 24; i < from + 24; i++) {
      const mm = at(hours.rain, i)
      const t = at(hours.temperature, i)
      if (Number.isNaN(mm)) unknown++
      else rain += mm
      if (!Number.isNaN(t)) {
        sum += t
        n++
      }
    }
    const infection = rain >= 10 && n > 0 && sum / n >= 10
    return { ...day, infection, certain: infection || unknown === 0, severity: infection ? rain / 10 : 0 }
  })
}

const BLOSSOM_HEAT_FROM = 18.3
const BLOSSOM_DEGREE_HOURS = 110

/** Open blossom, 110 °C·h above 18.3 °C since first bloom, wetting, and a day's mean of at least 15.6 °C: all four. */
function byBlossomHeat(days: InfectionDay[], hours: InfectionHours, sliceOf: (day: number) => DaySlice): InfectionDay[] {
  let heat = 0
  return days.map((day) => {
    let wet = false
    let unknown = 0
    let sum = 0
    let n = 0
    const { from, count } = sliceOf(day.day)
    for (let i = from; i < from + count; i++) {
      const t = at(hours.temperature, i)
      const isWet = at(hours.wet, i)
      if (isWet === 1) wet = true
      if (Number.isNaN(isWet)) unknown++
      if (Number.isNaN(t)) continue
      heat += Math.max(0, t - BLOSSOM_HEAT_FROM)
      sum += t
      n++
    }
    const warm = heat >= BLOSSOM_DEGREE_HOURS && n > 0 && sum / n >= 15.6
    return {
      ...day,
      infection: warm && (wet || unknown > 0),
      certain: wet || unknown === 0,
      severity: warm && wet ? heat / BLOSSOM_DEGREE_HOURS : 0,
      total: heat,
    }
  })
}

const HOT_DAY_FROM = 27

/** A night of 4 to 24 °C, humidity of at least 95 % from 02 to 06, no rain after 01, and no hot day before it. */
function byDampNight(days: InfectionDay[], hours: InfectionHours, sliceOf: (day: number) => DaySlice): InfectionDay[] {
  return days.map((day) => {
    const { from } = sliceOf(day.day)
    let favourable = true
    let unknown = 0
    for (let i = from - 16; i < from - 4; i++) if (at(hours.temperature, i) > HOT_DAY_FROM) favourable = false
    for (let i = from - 2; i <= from + 6; i++) {
      const t = at(hours.temperature, i)
      if (Number.isNaN(t)) unknown++
      else if (t < 4 || t > 24) favourable = false
    }
    for (let h = 1; h <= 6; h++) {
      const mm = at(hours.rain, from + h)
      if (mm > 0) favourable = false
      if (Number.isNaN(mm)) unknown++
      if (h < 2) continue
      const rh = at(hours.humidity, from + h)
      if (Number.isNaN(rh)) unknown++
      else if (rh < 95) favourable = false
    }
    return { ...day, infection: favourable && unknown < 9, certain: unknown === 0, severity: favourable ? 1 : 0 }
  })
}
