import { dayOfHeat } from '../phenology/eventDates.js'
import { quantileSorted } from '../statistics/quantile.js'

/** A year in which both an event and a bloom were dated. */
export interface IndicatorYear {
  /** °C·d from the season's start at the event and at the bloom. */
  eventHeat: number
  bloomHeat: number
  /** Days of the season. */
  eventDay: number
  bloomDay: number
  /** °C·d through each day of that season. */
  cumulative: ArrayLike<number>
}

/** How well something tells when an event comes, over years that it does not rest on. */
export interface Foretelling {
  /** Mean absolute error in days, each year predicted without itself; a far outlier counts as three times the middle error. */
  error: number
  years: number
}

export interface IndicatorRank extends Foretelling {
  /** Middle of the leads in °C·d and in days, from bloom to event. */
  leadHeat: number
  leadDays: number
  /** Standard deviation of the leads in °C·d; robust, from the middle deviation. */
  spread: number
  /** The same event told by its heat alone, and by the calendar alone, in the same years. */
  byHeat: Foretelling
  byCalendar: Foretelling
  /** Whether the bloom tells it better than heat does here. */
  better: boolean
}

const middle = (values: readonly number[]): number => quantileSorted(Float64Array.from(values).sort(), 0.5)
/** From the middle absolute deviation to a standard deviation of a normal distribution. */
const FROM_MIDDLE = 1.4826
const OUTLIER = 3
/** With fewer years the site's own records say too little. */
export const LEAST_YEARS = 3

function errorOf(errors: readonly number[]): number {
  const sizes = errors.map(Math.abs)
  const most = Math.max(OUTLIER * middle(sizes), 1)
  return sizes.reduce((sum, size) => sum + Math.min(size, most), 0) / sizes.length
}

/**
 * How well a bloom foretells an event: each year is predicted from the others, by the heat between bloom and event from the day of
 * that year's bloom on; beside it by the event's own heat, and by its date. The middle of the other years is used, so that one year
 * that was written down wrongly does not decide. Undefined with fewer than three years.
 */
export function rankIndicator(years: readonly IndicatorYear[]): IndicatorRank | undefined {
  if (years.length < LEAST_YEARS) return undefined
  const leads = years.map(({ eventHeat, bloomHeat }) => eventHeat - bloomHeat)
  const without = <T>(values: readonly T[], i: number): T[] => values.filter((_, k) => k !== i)
  const bloom: number[] = []
  const heat: number[] = []
  const calendar: number[] = []
  years.forEach((year, i) => {
    const others = without(years, i)
    const last = year.cumulative.length
    const on = (wanted: number): number => Math.min(last, dayOfHeat(year.cumulative, wanted))
    bloom.push(on(year.bloomHeat + middle(without(leads, i))) - year.eventDay)
    heat.push(on(middle(others.map(({ eventHeat }) => eventHeat))) - year.eventDay)
    calendar.push(middle(others.map(({ eventDay }) => eventDay)) - year.eventDay)
  })
  const leadHeat = middle(leads)
  const of = (errors: readonly number[]): Foretelling => ({ error: errorOf(errors), years: years.length })
  const own = of(bloom)
  const byHeat = of(heat)
  return {
    ...own,
    leadHeat,
    leadDays: middle(years.map(({ eventDay, bloomDay }) => eventDay - bloomDay)),
    spread: FROM_MIDDLE * middle(leads.map((lead) => Math.abs(lead - leadHeat))),
    byHeat,
    byCalendar: of(calendar),
    better: own.error < byHeat.error,
  }
}
