import { codeOfBound, refusals, refusalSentence, type CodedRefusal, type Problem, type RefusalCode } from '@bocado/contract'
import { useContext, useMemo } from 'react'
import { useIntl } from 'react-intl'
import { SiteContext } from '../api/workplace.js'
import { shortWords } from '../design/dayOrder.js'
import { momentWords } from '../design/useFormat.js'
import { differenceOf, measureOf, measuresOf } from '../design/units.js'

type Field = NonNullable<Problem['fields']>[number]

const codeOf = ({ code, values, message }: Field): CodedRefusal | undefined =>
  code !== undefined && Object.hasOwn(refusals, code)
    ? { code: code as RefusalCode, values: (values ?? {}) as CodedRefusal['values'] }
    : codeOfBound(message)

/** Says why a field was refused, with its quantities in the units of the site and its days as the reader writes them. */
export function useRefusal(): (field: Field) => string {
  const { locale } = useIntl()
  const site = useContext(SiteContext)
  return useMemo(() => {
    const measures = measuresOf(site?.units ?? 'metric')
    const number = (value: number, digits: number): string => new Intl.NumberFormat(locale, { maximumFractionDigits: digits }).format(value)
    return (field) => {
      const coded = codeOf(field)
      if (!coded) return field.message
      return refusalSentence(coded, (value) => {
        if (typeof value === 'string') return value
        if (typeof value === 'number') return number(value, 4)
        if ('day' in value) return shortWords(value.day, locale)
        if ('moment' in value) return momentWords(locale, site?.timeZone)(value.moment)
        if (value.unit === '°C difference') return `${number(differenceOf(value.si, '°C', measures), 0)} ${measures.temperature.unit}`
        const measure = measureOf(value.unit, measures)
        return `${number(measure.shown(value.si), measure.digits)} ${measure.unit}`
      })
    }
  }, [locale, site?.units, site?.timeZone])
}
