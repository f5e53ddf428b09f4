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

/** A civil day in words, its parts in the order of the locale: "12 Jun 2026", "Jun 12, 2026". */
export function shortWords(day: string, locale: string): string {
  const parts = new Intl.DateTimeFormat(locale, { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' }).formatToParts(
    Date.parse(day),
  )
  const of = (type: string): string => parts.find((part) => part.type === type)?.value ?? ''
  return dayOrderOfLocale(locale) === 'mdy' ? `${of('month')} ${of('day')}, ${of('year')}` : `${of('day')} ${of('month')} ${of('year')}`
}
