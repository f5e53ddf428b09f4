import { DateTime } from 'luxon'
import { useMemo } from 'react'
import { useIntl } from 'react-intl'
import { useSite } from '../api/workplace.js'
import { useText } from '../messages/useText.js'
import { measuresOf, type Measure } from './units.js'

const civil = (date: string): DateTime => DateTime.fromISO(date, { zone: 'utc' })

/** Numbers, dates and units as the site's people read them. Dates are civil days `YYYY-MM-DD`, moments ISO in UTC. */
export function useFormat() {
  const { locale } = useIntl()
  const t = useText()
  const site = useSite()
  return useMemo(() => {
    const measures = measuresOf(site.units)
    const number = (value: number, digits = 0): string =>
      new Intl.NumberFormat(locale, { maximumFractionDigits: digits, minimumFractionDigits: 0 }).format(value)
    const measured = (measure: Measure, si: number): string => `${number(measure.shown(si), measure.digits)} ${measure.unit}`
    const date = (day: string): string => civil(day).setLocale(locale).toFormat('ccc d LLL')
    const inDays = (day: string): string => {
      const days = Math.round(civil(day).diff(civil(site.today), 'days').days)
      return t('inDays', { when: days < 0 ? 'past' : 'coming', days: Math.abs(days) })
    }
    return {
      measures,
      today: site.today,
      number,
      /** With all its digits, for figures that stand below each other. */
      fixed: (value: number, digits: number): string =>
        new Intl.NumberFormat(locale, { maximumFractionDigits: digits, minimumFractionDigits: digits, signDisplay: 'negative' }).format(
          value,
        ),
      /** A difference, with its sign. */
      signed: (value: number, digits: number): string =>
        new Intl.NumberFormat(locale, { maximumFractionDigits: digits, minimumFractionDigits: digits, signDisplay: 'exceptZero' }).format(
          value,
        ),
      percent: (share: number): string => `${number(100 * share)} %`,
      date,
      /** Day and month only, for the second of two dates. */
      shortDate: (day: string): string => civil(day).setLocale(locale).toFormat('d LLL'),
      /** "11 to 14 Jun", "28 May to 3 Jun": a span of days with no month said twice. */
      span: (from: string, to: string): string => {
        const first = civil(from).setLocale(locale)
        const last = civil(to).setLocale(locale)
        return t('span', { from: first.toFormat(first.hasSame(last, 'month') ? 'd' : 'd LLL'), to: last.toFormat('d LLL') })
      },
      month: (day: string): string => civil(day).setLocale(locale).toFormat('LLLL'),
      withYear: (day: string): string => civil(day).setLocale(locale).toFormat('d LLL yyyy'),
      dateInDays: (day: string): string => `${date(day)}, ${inDays(day)}`,
      moment: (at: string): string => DateTime.fromISO(at, { zone: site.timeZone }).setLocale(locale).toFormat('ccc d LLL, HH:mm'),
      /** The day that lies `index` days after the season's start. */
      seasonDay: (start: string, index: number): string =>
        civil(start)
          .plus({ days: Math.floor(index) })
          .toISODate() ?? start,
      seasonIndex: (start: string, day: string): number => Math.round(civil(day).diff(civil(start), 'days').days),
      nudge: (day: string, days: number): string => civil(day).plus({ days }).toISODate() ?? day,
      temperature: (c: number): string => measured(measures.temperature, c),
      heat: (cd: number): string => measured(measures.heat, cd),
      rain: (mm: number): string => measured(measures.rain, mm),
      wind: (ms: number): string => measured(measures.wind, ms),
      area: (ha: number): string => measured(measures.area, ha),
    }
  }, [locale, site.units, site.today, site.timeZone, t])
}
export type Format = ReturnType<typeof useFormat>
