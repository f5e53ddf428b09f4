import type { DayOrder } from '@bocado/core/time'

const known = new Map<string, DayOrder>()

/** Whether readers of a locale put the day or the month first. */
export function dayOrderOfLocale(locale: string): DayOrder {
  const held = known.get(locale)
  if (held) return held
  const parts = new Intl.DateTimeFormat(locale, { day: 'numeric', month: 'numeric' }).formatToParts(0).map(({ type }) => type)
  const order = parts.indexOf('month') < parts.indexOf('day') ? 'mdy' : 'dmy'
  known.set(locale, order)
  return order
}
