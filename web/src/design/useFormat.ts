import { DateTime } from 'luxon'
import { useMemo } from 'react'
import { useIntl } from 'react-intl'
import { useSite } from '../api/workplace.js'
import { useText } from '../messages/useText.js'
import { measureOf, measuresOf, type Measure } from './units.js'

const DAY_MS = 86_400_000

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

const civil = (date: string): DateTime => DateTime.fromISO(date, { zone: 'utc' })

/** The civil day that lies some days after another. */
const nudged = (day: string, days: number): string => new Date(Date.parse(day) + days * DAY_MS).toISOString().slice(0, 10)

/** Numbers, dates and units as the site's people read them. Dates are civil days `YYYY-MM-DD`, moments ISO in UTC. */
export function useFormat() {
  const { locale } = useIntl()
  const t = useText()
  const site = useSite()
  return useMemo(() => {
    const measures = measuresOf(site.units)
    const upTo = remembered(
      (digits: number) =>
        new Intl.NumberFormat(locale, { maximumFractionDigits: digits, minimumFractionDigits: 0, signDisplay: 'negative' }),
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
    const inWords = (format: string) => remembered((day: string) => civil(day).setLocale(locale).toFormat(format))
    const date = inWords('ccc d LLL')
    const shortDate = inWords('d LLL')
    const dayOfMonth = inWords('d')
    const inDays = (day: string): string => {
      const days = Math.round(civil(day).diff(civil(site.today), 'days').days)
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
      /** "11 to 14 Jun", "28 May to 3 Jun": a span of days with no month said twice. */
      span: (from: string, to: string): string =>
        t('span', { from: from.slice(0, 7) === to.slice(0, 7) ? dayOfMonth(from) : shortDate(from), to: shortDate(to) }),
      month: inWords('LLLL'),
      withYear: inWords('d LLL yyyy'),
      dateInDays: (day: string): string => `${date(day)}, ${inDays(day)}`,
      moment: (at: string): string => DateTime.fromISO(at, { zone: site.timeZone }).setLocale(locale).toFormat('ccc d LLL, HH:mm'),
      /** The day that lies `index` days after the season's start. */
      seasonDay: (start: string, index: number): string => nudged(start, Math.floor(index)),
      seasonIndex: (start: string, day: string): number => Math.round((Date.parse(day) - Date.parse(start)) / DAY_MS),
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
      area: (ha: number): string => measured(measures.area, ha),
    }
  }, [locale, site.units, site.today, site.timeZone, t])
}
export type Format = ReturnType<typeof useFormat>
