import type { Site } from '@bocado/contract'
import { MS_PER_DAY } from '@bocado/core/time'
import { compassPoint } from '@bocado/core/compass'
import { useIntl } from 'react-intl'
import { useSite } from '../api/workplace.js'
import { useText, type Say } from '../messages/useText.js'
import { dayOrderOfLocale } from './dayOrder.js'
import { groundOf, measureOf, measuresOf, type Measure } from './units.js'

/** What was made for a day or a number of digits is made once: pictures ask for the same again and again. */
function remembered<K, V>(make: (key: K) => V): (key: K) => V {
  const made = new Map<K, V>()
  return (key) => {
    const known = made.get(key)
    if (known !== undefined) return known
    const value = make(key)
    made.set(key, value)
    return value
  }
}

type Parts = Record<Intl.DateTimeFormatPartTypes, string> & { dayMonth: string }

/** Words of a moment, put together by us; day and month in the order in which the reader has them. */
function worded(locale: string, options: Intl.DateTimeFormatOptions, put: (part: Parts) => string): (moment: string) => string {
  const monthFirst = dayOrderOfLocale(locale) === 'mdy'
  // Most screens ask for few of them, and each costs a phone several milliseconds.
  let format: Intl.DateTimeFormat | undefined
  return remembered((moment: string) => {
    const at = Date.parse(moment)
    format ??= new Intl.DateTimeFormat(locale, { timeZone: 'UTC', ...options })
    // A day that nobody has finished typing is shown as missing.
    if (Number.isNaN(at)) return '–'
    const parts = Object.fromEntries(format.formatToParts(at).map(({ type, value }) => [type, value])) as Parts
    return put({ ...parts, dayMonth: monthFirst ? `${parts.month} ${parts.day}` : `${parts.day} ${parts.month}` })
  })
}

/** Twelve hours or twenty-four, as the reader's clocks have them. */
export const hasTwelveHours = (locale: string): boolean =>
  new Intl.DateTimeFormat(locale, { hour: 'numeric' }).resolvedOptions().hour12 === true
const timeOf = (locale: string): Intl.DateTimeFormatOptions =>
  hasTwelveHours(locale) ? { hour: 'numeric', minute: '2-digit', hour12: true } : { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' }
/** "22:05", "10:05 PM". */
const clockWords = ({ hour, minute, dayPeriod }: Pick<Parts, 'hour' | 'minute'> & { dayPeriod?: string }): string =>
  `${hour}:${minute}${dayPeriod ? ` ${dayPeriod.toUpperCase()}` : ''}`

/** The civil day that lies some days after another. */
const nudged = (day: string, days: number): string => new Date(Date.parse(day) + days * MS_PER_DAY).toISOString().slice(0, 10)

/** Day and time of a moment by the clock of a zone; by the device's own where none is given. */
export const momentWords = (locale: string, timeZone?: string): ((moment: string) => string) =>
  worded(
    locale,
    { weekday: 'short', day: 'numeric', month: 'short', ...timeOf(locale), timeZone },
    ({ weekday, dayMonth, ...at }) => `${weekday} ${dayMonth}, ${clockWords(at)}`,
  )

/** What was made for a site and a reader is made once, however many parts of a screen ask for it. */
const made = new WeakMap<Say, Map<string, Format>>()

/** Numbers, dates and units as the site's people read them. Dates are civil days `YYYY-MM-DD`, moments ISO in UTC. */
export function useFormat(): Format {
  const { locale } = useIntl()
  const t = useText()
  const { units, today, timeZone } = useSite()
  const known = made.get(t) ?? new Map<string, Format>()
  made.set(t, known)
  const key = [locale, units, today, timeZone].join(' ')
  const format = known.get(key) ?? makeFormat(locale, { units, today, timeZone }, t)
  known.set(key, format)
  return format
}

function makeFormat(locale: string, site: Pick<Site, 'units' | 'today' | 'timeZone'>, t: Say) {
  const measures = measuresOf(site.units)
  const upTo = remembered(
    (digits: number) => new Intl.NumberFormat(locale, { maximumFractionDigits: digits, minimumFractionDigits: 0, signDisplay: 'negative' }),
  )
  const exactly = remembered(
    (digits: number) =>
      new Intl.NumberFormat(locale, { maximumFractionDigits: digits, minimumFractionDigits: digits, signDisplay: 'negative' }),
  )
  const withSign = remembered(
    (digits: number) =>
      new Intl.NumberFormat(locale, { maximumFractionDigits: digits, minimumFractionDigits: digits, signDisplay: 'exceptZero' }),
  )
  const number = (value: number, digits = 0): string => upTo(digits).format(value)
  const measured = (measure: Measure, si: number): string => `${number(measure.shown(si), measure.digits)} ${measure.unit}`
  const date = worded(locale, { weekday: 'short', day: 'numeric', month: 'short' }, ({ weekday, dayMonth }) => `${weekday} ${dayMonth}`)
  const shortDate = worded(locale, { day: 'numeric', month: 'short' }, ({ dayMonth }) => dayMonth)
  const dayOfMonth = worded(locale, { day: 'numeric' }, ({ day }) => day)
  const daysBetween = (from: string, to: string): number => Math.round((Date.parse(to) - Date.parse(from)) / MS_PER_DAY)
  const inDays = (day: string): string => {
    const days = daysBetween(site.today, day)
    return t('inDays', { when: days < 0 ? 'past' : 'coming', days: Math.abs(days) })
  }
  return {
    measures,
    today: site.today,
    number,
    /** With all its digits, for figures that stand below each other. */
    fixed: (value: number, digits: number): string => exactly(digits).format(value),
    /** A difference, with its sign. */
    signed: (value: number, digits: number): string => withSign(digits).format(value),
    percent: (share: number): string => `${number(100 * share)} %`,
    date,
    /** Day and month only, for the second of two dates. */
    shortDate,
    /** A day of every year, MM-DD; of a leap year, so that it has them all. */
    monthDay: (day: string): string => shortDate(`2024-${day}`),
    /** "11 to 14 Jun", "28 May to 3 Jun": a span of days with no month said twice. */
    span: (from: string, to: string): string => {
      if (from.slice(0, 7) !== to.slice(0, 7)) return t('span', { from: shortDate(from), to: shortDate(to) })
      if (dayOrderOfLocale(locale) === 'mdy') return t('span', { from: shortDate(from), to: dayOfMonth(to) })
      return t('span', { from: dayOfMonth(from), to: shortDate(to) })
    },
    month: worded(locale, { month: 'long' }, ({ month }) => month),
    withYear: worded(locale, { day: 'numeric', month: 'short', year: 'numeric' }, ({ dayMonth, year }) =>
      dayOrderOfLocale(locale) === 'mdy' ? `${dayMonth}, ${year}` : `${dayMonth} ${year}`,
    ),
    dateInDays: (day: string): string => `${date(day)}, ${inDays(day)}`,
    moment: momentWords(locale, site.timeZone),
    /** The time of a moment by the site's clock. */
    clock: worded(locale, { ...timeOf(locale), timeZone: site.timeZone }, clockWords),
    /** The day that lies `index` days after the season's start. */
    seasonDay: (start: string, index: number): string => nudged(start, Math.floor(index)),
    seasonIndex: daysBetween,
    nudge: nudged,
    /** A number of a model by its unit in the library, in the site's units. */
    figure: (value: number, unit: string): string => {
      const measure = measureOf(unit, measures)
      return `${number(measure.shown(value), measure.digits)} ${measure.unit}`.trim()
    },
    temperature: (c: number): string => measured(measures.temperature, c),
    heat: (cd: number): string => measured(measures.heat, cd),
    rain: (mm: number): string => measured(measures.rain, mm),
    wind: (ms: number): string => measured(measures.wind, ms),
    /** A bearing as the nearest of sixteen points of the compass. */
    compass: (degrees: number): string => t('compass', { point: compassPoint(degrees) }),
    area: (ha: number): string => measured(groundOf(ha, measures), ha),
    height: (m: number): string => measured(measures.height, m),
    weight: (kg: number): string => measured(measures.weight, kg),
    volume: (litres: number): string => measured(measures.volume, litres),
    sprayVolume: (lha: number): string => measured(measures.sprayVolume, lha),
  }
}
export type Format = ReturnType<typeof makeFormat>
