import { infectionWetHours } from './infectionWetHours.js'
import { physiologicalDay } from './physiologicalDay.js'
import { twoDayCriterion } from './twoDayCriterion.js'
import { severityValue } from './severityValue.js'
import { isDaylight, nextDaylight, type InfectionFacts, type InfectionOrigin } from './facts.js'
import { infectionsBy, SCAB_LONGEST_BREAK_HOURS, scabWetHours, type InfectionHours, type SpellRule } from './spells.js'

/** How weather allows infections, as data. Temperatures in °C, rain in mm. */
export type InfectionModel =
  /** Magarey, Sutton & Russo 2005; `longestBreak` dry hours at which wetness still adds up. */
  | { kind: 'wetness'; tmin: number; topt: number; tmax: number; wmin: number; wmax: number; longestBreak: number }
  /** MacHardy & Gadoury 1989; what wintered infects after rain and by daylight, later lesions with any wetness. */
  | { kind: 'apple-scab' }
  /** Severity values from noon to noon, with the accumulated value at which protection is due first, and that since the last treatment. */
  | { kind: 'severity-table'; table: 'late-blight' | 'early-blight'; dueAt: number; followUpAt?: number | undefined }
  /** Sands et al. 1979; the first spray is due near 300 (Pscheidt & Stevenson 1988). */
  | { kind: 'physiological-days'; dueAt: number }
  /** Dancey, Skelsey & Cooke 2017. */
  | { kind: 'two-day-humidity' }
  /** Gubler et al. 1999; `dueAt` is the index from which the pressure is high. */
  | { kind: 'vine-powdery-mildew'; dueAt: number }
  /** Rain and warmth on shoots of at least 10 cm; once oil spots are there, damp nights (Blaeser & Weltzien 1979). */
  | { kind: 'vine-downy-mildew' }
  /** Steiner 1990; over the life of a blossom, from first bloom on. */
  | { kind: 'fire-blight' }
  /** Jesperson & Sutton 1987. */
  | { kind: 'onion-downy-mildew' }

/** What a day's weather meant for a disease. */
export interface InfectionDay {
  day: number
  origin: InfectionOrigin
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
export function infectionDays(
  model: InfectionModel,
  hours: InfectionHours,
  start: number,
  until: number,
  facts: InfectionFacts = {},
): InfectionDay[] {
  const days = Array.from({ length: Math.max(0, until - start) }, (_, d): InfectionDay => ({
    day: start + d,
    origin: 'primary',
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
      return byScab(days, hours, facts)
    case 'severity-table':
      return bySeverity(days, hours, model, facts)
    case 'physiological-days':
      return byPhysiologicalDays(days, hours, sliceOf, model.dueAt)
    case 'two-day-humidity':
      return byTwoDays(days, hours, sliceOf)
    case 'vine-powdery-mildew':
      return byPowderyIndex(days, hours, sliceOf, model.dueAt)
    case 'vine-downy-mildew':
      return withSecondary(byRainAndWarmth(days, hours, sliceOf), byNightsOfSpots(days, hours, facts), facts)
    case 'fire-blight':
      return byBlossomHeat(days, hours, sliceOf, start * 24 - hours.firstHour)
    case 'onion-downy-mildew':
      return byDampNight(days, hours, sliceOf)
  }
}

function bySpells(
  days: readonly InfectionDay[],
  hours: InfectionHours,
  needed: (t: number) => number,
  longestBreak: number,
  rule?: SpellRule,
): InfectionDay[] {
  const found = days.map((day) => ({ ...day }))
  const first = found[0]
  if (!first) return found
  const { infections } = infectionsBy(hours, needed, longestBreak, first.day * 24 - hours.firstHour, rule)
  for (const { at: hour, severity, certain } of infections) {
    const day = found[Math.floor(hour / 24) - first.day]
    if (!day || severity < day.severity) continue
    Object.assign(day, { infection: true, severity, certain })
  }
  return found
}

/**
 * Ascospores leave the leaves on the ground with rain, dew alone frees none, and by day: a spell that begins by night counts from
 * sunrise, unless last year's scab was heavy. Lesions of this season infect whenever leaves are wet for long enough.
 */
function byScab(days: readonly InfectionDay[], hours: InfectionHours, facts: InfectionFacts): InfectionDay[] {
  const spells = (rule?: SpellRule): InfectionDay[] => bySpells(days, hours, scabWetHours, SCAB_LONGEST_BREAK_HOURS, rule)
  const { sun } = facts
  const primary = spells({
    begins: (i) => {
      const mm = at(hours.rain, i)
      return Number.isNaN(mm) ? undefined : mm > 0
    },
    countsFrom: (i) => (facts.heavySource ? i : nextDaylight(hours.firstHour + i, sun) - hours.firstHour),
  })
  return withSecondary(primary, facts.lesionsFrom === undefined ? [] : spells(), facts)
}

/** Days of what wintered until it is spent, and of this season's lesions from the day on which they were found. */
function withSecondary(primary: readonly InfectionDay[], secondary: readonly InfectionDay[], facts: InfectionFacts): InfectionDay[] {
  const { primaryUntil = Infinity, lesionsFrom = Infinity } = facts
  return primary.map((day, i) => {
    const first: InfectionDay = day.day < primaryUntil ? day : { ...day, infection: false, severity: 0, certain: true }
    const later = secondary[i]
    if (!later?.infection || later.day < lesionsFrom || (first.infection && first.certain)) return first
    return { ...later, origin: 'secondary' }
  })
}

/** Spores on oil spots (Blaeser & Weltzien 1979, from memory). */
const SPOTS_HUMID_FROM_PCT = 95
/** Spores on oil spots (Blaeser & Weltzien 1979, from memory). */
const SPOTS_WARM_FROM = 12
/** Spores on oil spots (Blaeser & Weltzien 1979, from memory). */
const SPOTS_DARK_HOURS = 4
/** °C·h of wetness that let them infect (Blaeser & Weltzien 1979, from memory). */
const SPOTS_WET_DEGREE_HOURS = 50

/**
 * Oil spots bear spores in at least four hours of darkness at 95 % humidity and 12 °C; those infect with about 50 °C·h of wetness
 * that follow (Blaeser & Weltzien 1979).
 */
function byNightsOfSpots(days: readonly InfectionDay[], hours: InfectionHours, { sun, lesionsFrom }: InfectionFacts): InfectionDay[] {
  if (lesionsFrom === undefined) return []
  return days.map((day) => {
    const noon = day.day * 24 - 12 - hours.firstHour
    let dark = 0
    let doubtful = 0
    let wetHeat = 0
    let possible = 0
    for (let i = noon; i < noon + 24; i++) {
      const t = at(hours.temperature, i)
      const rh = at(hours.humidity, i)
      if (dark < SPOTS_DARK_HOURS) {
        if (!isDark(hours.firstHour + i, sun)) continue
        if (Number.isNaN(rh) || Number.isNaN(t)) doubtful++
        else if (rh >= SPOTS_HUMID_FROM_PCT && t >= SPOTS_WARM_FROM) dark++
        continue
      }
      const wet = at(hours.wet, i)
      if (wet === 1) wetHeat += Math.max(0, t)
      else if (Number.isNaN(wet)) possible += Math.max(0, Number.isNaN(t) ? 0 : t)
      else if (wetHeat > 0) break
    }
    const sure = dark >= SPOTS_DARK_HOURS && wetHeat >= SPOTS_WET_DEGREE_HOURS
    const maybe = dark + doubtful >= SPOTS_DARK_HOURS && (doubtful > 0 || wetHeat + possible >= SPOTS_WET_DEGREE_HOURS)
    return {
      ...day,
      infection: sure || (maybe && doubtful + possible > 0),
      certain: sure,
      severity: sure ? wetHeat / SPOTS_WET_DEGREE_HOURS : 0,
    }
  })
}

/** Without a place the night is from 21 to 5. */
const isDark = (hour: number, sun: InfectionFacts['sun']): boolean => {
  if (sun) return !isDaylight(hour, sun)
  const ofDay = ((hour % 24) + 24) % 24
  return ofDay >= 21 || ofDay < 5
}

const HUMID_FROM_PCT = 90

/** Days whose values say how soon protection against late blight is due again (Krause, Massie & Hyre 1975). */
const LATE_BLIGHT_DAYS = 7

/**
 * Days from one protection against late blight to the next by the severity values of the last seven days (Krause, Massie & Hyre 1975,
 * from memory); a day less with a known source near, never below five. Infinity where the weather asks for none.
 */
export function lateBlightInterval(valuesOfSevenDays: number, sourceNear = false): number {
  const days = valuesOfSevenDays >= 6 ? 5 : valuesOfSevenDays >= 4 ? 6 : valuesOfSevenDays >= 3 ? 7 : Infinity
  return sourceNear ? Math.max(5, days - 1) : days
}

/**
 * Noon to noon, dated by the end: the day's value is that of the night before it. The first protection is due at the accumulated value of
 * the model; each later one counts from the last deed, and never from multiples. `total` are the values since then.
 */
function bySeverity(
  days: InfectionDay[],
  hours: InfectionHours,
  { table, dueAt, followUpAt = dueAt }: Extract<InfectionModel, { kind: 'severity-table' }>,
  { protectedOn = [], sourceNear }: InfectionFacts,
): InfectionDay[] {
  const values: number[] = []
  let total = 0
  let last: number | undefined
  let asked = false
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
    values.push(value)
    total += value
    const deed = protectedOn.findLast((done) => done <= day.day)
    if (deed !== last) {
      last = deed
      total = deed === day.day ? 0 : value
      asked = false
    }
    const interval = lateBlightInterval(
      values.slice(-LATE_BLIGHT_DAYS).reduce((a, b) => a + b, 0),
      sourceNear,
    )
    const due = last === undefined ? total >= dueAt : table === 'late-blight' ? day.day - last >= interval : total >= followUpAt
    const infection = due && !asked
    asked ||= due
    return { ...day, infection, certain: unknown === 0, severity: value, total }
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
/** The life of a blossom, °C·d above 4.4 °C (Steiner 1990, from memory). */
const BLOSSOM_LIFE = 44.4
/** Steiner 1990, from memory. */
const BLOSSOM_LIFE_FROM = 4.4

/**
 * Open blossom, 110 °C·h above 18.3 °C, wetting, and a day's mean of at least 15.6 °C: all four. The heat counts over the life of a
 * blossom, the last 44.4 °C·d above 4.4 °C: what petals long fallen have had does not.
 *
 * @param bloom index of the hour at which the first blossoms opened
 */
function byBlossomHeat(days: InfectionDay[], hours: InfectionHours, sliceOf: (day: number) => DaySlice, bloom: number): InfectionDay[] {
  let oldest = Math.max(0, bloom)
  let heat = 0
  let life = 0
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
      life += Math.max(0, t - BLOSSOM_LIFE_FROM) / 24
      sum += t
      n++
    }
    for (; life > BLOSSOM_LIFE && oldest < from; oldest++) {
      const t = at(hours.temperature, oldest)
      if (Number.isNaN(t)) continue
      heat -= Math.max(0, t - BLOSSOM_HEAT_FROM)
      life -= Math.max(0, t - BLOSSOM_LIFE_FROM) / 24
    }
    const warm = heat >= BLOSSOM_DEGREE_HOURS && n > 0 && sum / n >= 15.6
    return {
      ...day,
      infection: warm && (wet || unknown > 0),
      certain: wet || unknown === 0,
      severity: warm && wet ? heat / BLOSSOM_DEGREE_HOURS : 0,
      total: Math.max(0, heat),
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
