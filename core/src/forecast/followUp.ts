import { infectionDays, lateBlightInterval, type InfectionModel } from '../infection/infectionDays.js'
import type { InfectionFacts } from '../infection/facts.js'
import type { InfectionHours } from '../infection/spells.js'
import { residueLeft } from '../infection/washOff.js'
import { quantileSorted, type Bounds } from '../statistics/quantile.js'
import type { Protection } from './diseaseRecords.js'

/** What makes protection due again: the label's days, infection values or an index since, or what is left of it on the leaves. */
export type DueBy = 'label' | 'values' | 'index' | 'residue'

/** When protection is due again after the last deed; days of whatever scale the hours are on, Infinity: not within what is known. */
export interface FollowUp {
  since: number
  due: Bounds
  by: DueBy | null
}

/** Protection counts as gone with less than this share of the leaf surface under it (from practice). */
const LEAST_PROTECTED = 0.5
/** Heat above 5 °C, in °C·d, in which half of the leaf surface is new: while growth is at its fastest, usually, and late (from practice). */
const HALF_NEW_LEAVES = [80, 150, 300] as const
const GROWTH_FROM_C = 5
/** A day of unknown rain may have washed off as much as this, in mm (from practice). */
const UNKNOWN_RAIN_MM = 5

/** Days between protections against powdery mildew of vine by its index (Gubler et al. 1999, from memory). */
function powderyInterval(index: number, systemic: boolean): number {
  if (index >= 60) return systemic ? 14 : 7
  if (index >= 40) return systemic ? 17 : 10
  return systemic ? 21 : 14
}

/** What one way of the weather says of each day since the deed. */
interface DaySince {
  day: number
  /** mm, unknown days apart. */
  rain: number
  unknownRainHours: number
  /** °C·d above 5 °C. */
  growth: number
  severity: number
  /** Accumulated value or index. */
  total: number | null
}

/**
 * When protection is due again: the earliest of the label's days, the infection values or the index of the disease since the deed, and
 * the day on which less than half of the leaves is under what rain and growth have left of it. It counts from the last deed, never from
 * multiples. Hours of which nothing is known give the earlier date.
 *
 * @param ways for each way in which the weather may go its hours, from before the deed on; all of one length
 * @param until day number before which hours are known
 */
export function followUp(
  model: InfectionModel,
  last: Protection,
  ways: readonly InfectionHours[],
  { start, until, facts }: { start: number; until: number; facts: InfectionFacts },
): FollowUp {
  const early: number[] = []
  const usual: number[] = []
  const late: number[] = []
  let by: DueBy | null = null
  ways.forEach((hours, w) => {
    const plain = daysSince(model, hours, last, { start, until, facts })
    const wettest = hasUnknown(hours) ? daysSince(model, takenAsWet(hours), last, { start, until, facts }) : plain
    const [fast, mid, slow] = HALF_NEW_LEAVES
    early.push(dueOf(model, last, wettest, { half: fast, unknownMm: UNKNOWN_RAIN_MM, facts }).day)
    const due = dueOf(model, last, plain, { half: mid, unknownMm: 0, facts })
    usual.push(due.day)
    late.push(dueOf(model, last, plain, { half: slow, unknownMm: 0, facts }).day)
    if (w === ways.length >> 1) by = due.by
  })
  const at = (values: number[], q: number): number =>
    quantileSorted(
      [...values].sort((a, b) => a - b),
      q,
    )
  const p50 = at(usual, 0.5)
  return { since: last.day, due: { p10: Math.min(p50, at(early, 0.1)), p50, p90: Math.max(p50, at(late, 0.9)) }, by }
}

/** The first day on which one of the reasons holds, and which. */
function dueOf(
  model: InfectionModel,
  last: Protection,
  days: readonly DaySince[],
  { half, unknownMm, facts }: { half: number; unknownMm: number; facts: InfectionFacts },
): { day: number; by: DueBy | null } {
  const label = last.labelDays === null ? Infinity : last.day + last.labelDays
  let rain = 0
  let growth = 0
  for (const [i, { day, ...of }] of days.entries()) {
    if (day >= label) return { day: label, by: 'label' }
    if (asksAgain(model, last, days, i, facts)) return { day, by: model.kind === 'vine-powdery-mildew' ? 'index' : 'values' }
    rain += of.rain + (of.unknownRainHours > 0 ? unknownMm : 0)
    growth += of.growth
    const kept = last.systemic ? 1 : residueLeft(rain)
    if (kept * 2 ** (-growth / half) < LEAST_PROTECTED) return { day: day + 1, by: 'residue' }
  }
  return { day: label, by: label === Infinity ? null : 'label' }
}

function asksAgain(model: InfectionModel, last: Protection, days: readonly DaySince[], i: number, { sourceNear }: InfectionFacts): boolean {
  const { day, total } = days[i] as DaySince
  if (day <= last.day) return false
  switch (model.kind) {
    case 'severity-table': {
      if (model.table === 'early-blight') return (total ?? 0) >= (model.followUpAt ?? model.dueAt)
      const values = days.slice(Math.max(0, i - 6), i + 1).reduce((sum, { severity }) => sum + severity, 0)
      return day - last.day >= lateBlightInterval(values, sourceNear)
    }
    case 'vine-powdery-mildew':
      return day - last.day >= powderyInterval(total ?? 0, last.systemic)
    default:
      return false
  }
}

function daysSince(
  model: InfectionModel,
  hours: InfectionHours,
  { day: deed }: Protection,
  { start, until, facts }: { start: number; until: number; facts: InfectionFacts },
): DaySince[] {
  return infectionDays(model, hours, Math.min(start, deed), until, facts)
    .filter(({ day }) => day >= deed)
    .map(({ day, severity, total }) => {
      const from = day * 24 - hours.firstHour
      const of: DaySince = { day, rain: 0, unknownRainHours: 0, growth: 0, severity, total }
      for (let i = from; i < from + 24; i++) {
        const mm = hours.rain[i] ?? NaN
        const t = hours.temperature[i] ?? NaN
        if (Number.isNaN(mm)) of.unknownRainHours++
        else of.rain += mm
        if (!Number.isNaN(t)) of.growth += Math.max(0, t - GROWTH_FROM_C) / 24
      }
      return of
    })
}

const hasUnknown = ({ wet, humidity }: InfectionHours): boolean => wet.some(Number.isNaN) || humidity.some(Number.isNaN)

/** Every hour of which it is not known taken as wet. */
const takenAsWet = (hours: InfectionHours): InfectionHours => ({
  ...hours,
  wet: hours.wet.map((wet) => (Number.isNaN(wet) ? 1 : wet)),
  humidity: hours.humidity.map((rh) => (Number.isNaN(rh) ? 95 : rh)),
})
