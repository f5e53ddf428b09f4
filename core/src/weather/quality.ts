import { READING_LIMITS } from './readingLimits.js'

/** Variables of an hourly reading that are checked. */
export type CheckedVariable = keyof typeof READING_LIMITS

/**
 * Why a reading is not believed: outside what there can be, a jump from the hour before, stuck at one value, alone against
 * both its neighbours, not there at all, running away from the stations around it (`checkDrift`), or of a day such as the place has never
 * had (`unseenDays`).
 */
export type ReadingFlag = 'range' | 'step' | 'flat-line' | 'spike' | 'gap' | 'drift' | 'unseen'

/** One hour that is not believed; `hour` is an index into the series that was checked. */
export interface Doubt {
  hour: number
  flag: ReadingFlag
}

interface Behaviour {
  /** Largest believable change from one hour to the next. */
  step: number
  /** How far an hour may stand from both neighbours while these agree within half of it. */
  spike: number
  /** Values that may stand still for long: a saturated or a dead-calm hour is not doubted. */
  mayStand: (value: number) => boolean
}

/** How a reading may move, in °C, %, mm/h, m/s, degrees and share of the hour (from practice). */
const BEHAVIOUR: Readonly<Record<CheckedVariable, Behaviour>> = {
  temperature: { step: 16, spike: 10, mayStand: () => false },
  humidity: { step: 70, spike: 50, mayStand: (v) => v >= 99 },
  rain: { step: Infinity, spike: Infinity, mayStand: () => true },
  wind: { step: 30, spike: 20, mayStand: () => true },
  // A vane turns as it likes, and rests in a calm.
  direction: { step: Infinity, spike: Infinity, mayStand: () => true },
  wetness: { step: Infinity, spike: Infinity, mayStand: () => true },
  // Under snow and in freezing ground a soil stands at 0 °C for weeks.
  soil: { step: 8, spike: 5, mayStand: (v) => Math.abs(v) <= 0.5 },
}

/** The same value for this long is a stuck sensor. */
const FLAT_LINE_HOURS = 8

/** Longer than this without readings is nothing to doubt: the station was away, or has no such sensor. */
const LONGEST_GAP_HOURS = 14 * 24

/**
 * Doubts of an hourly series, in order. NaN is no reading: hours without one between readings are flagged as `gap`, those
 * before the first, after the last and in gaps of more than fourteen days are not, nor those without a direction of the wind. A flat line is looked for in temperature, soil away
 * from freezing, and humidity below 99 %.
 *
 * @param values °C, %, mm in the hour, m/s, degrees or share of the hour by `variable`
 */
export function checkHours(values: ArrayLike<number>, variable: CheckedVariable): Doubt[] {
  const { least, most } = READING_LIMITS[variable]
  const limits = BEHAVIOUR[variable]
  const flags = new Map<number, ReadingFlag>()
  const read = (i: number): number => (i >= 0 && i < values.length ? (values[i] as number) : NaN)
  let first = 0
  let last = values.length - 1
  while (first <= last && Number.isNaN(read(first))) first++
  while (last >= first && Number.isNaN(read(last))) last--

  for (let i = first; i <= last; i++) {
    const value = read(i)
    if (Number.isNaN(value)) continue
    if (value < least || value > most) flags.set(i, 'range')
    else if (isSpike(read(i - 1), value, read(i + 1), limits.spike)) flags.set(i, 'spike')
  }
  // A calm has no direction: that nothing was read is no gap.
  if (variable !== 'direction') flagGaps(values, first, last, flags)
  flagFlatLines(values, first, last, limits, flags)
  for (let i = first + 1; i <= last; i++) {
    // A jump away from a reading that is itself not believed says nothing about this one.
    if (flags.has(i) || flags.has(i - 1)) continue
    if (Math.abs(read(i) - read(i - 1)) > limits.step) flags.set(i, 'step')
  }
  return [...flags].map(([hour, flag]) => ({ hour, flag })).sort((a, b) => a.hour - b.hour)
}

function isSpike(before: number, value: number, after: number, limit: number): boolean {
  if (Number.isNaN(before) || Number.isNaN(after) || Math.abs(after - before) > limit / 2) return false
  return Math.abs(value - before) > limit && Math.abs(value - after) > limit
}

function flagGaps(values: ArrayLike<number>, first: number, last: number, flags: Map<number, ReadingFlag>): void {
  for (let i = first; i <= last; i++) {
    let end = i
    while (end <= last && Number.isNaN(values[end] as number)) end++
    if (end - i <= LONGEST_GAP_HOURS) for (let k = i; k < end; k++) flags.set(k, 'gap')
    i = end
  }
}

function flagFlatLines(values: ArrayLike<number>, first: number, last: number, limits: Behaviour, flags: Map<number, ReadingFlag>): void {
  for (let i = first; i <= last;) {
    const value = values[i] as number
    let end = i + 1
    while (end <= last && values[end] === value) end++
    if (end - i >= FLAT_LINE_HOURS && !limits.mayStand(value)) for (let k = i; k < end; k++) if (!flags.has(k)) flags.set(k, 'flat-line')
    i = end
  }
}
