/** Units in which quantities of a refusal are kept. */
export type RefusalUnit = '°C' | '°C·d' | 'mm' | 'm/s' | 'm' | 'ha' | 'm²' | '°C difference'

/** A value within a refusal: words, a quantity in SI, or a day. A page shows quantities in its site's units and days as its reader writes them. */
export type RefusalValue = string | number | { si: number; unit: RefusalUnit } | { day: string }

/** Sentences of refusals that hold values, by code; `{name}` stands for a value. Each follows the name of a field. */
export const refusals = {
  'number.least': 'must be at least {least}',
  'number.most': 'must be at most {most}',
  'area.more-than-left': 'is more than {place} has left: {left}',
  'area.less-than-held': 'is less than what lies within it: {held}',
  'area.less-than-parts': 'is less than its parts have: {held}',
  'area.more-than-place': 'is more than {place} has: {area}',
  'area.more-than-kept-clear': 'is more than is left of {place} where {away} are kept from what lies near it: {left}',
  'heat.no-range': 'leaves no range between the thresholds, {lower} and {upper}',
  'heat.upper-below-lower': 'must lie above the lower threshold, {lower}, got {upper}',
  'heat.out-of-order': '{event} would come at {comes}, not after {before} at {at}; put the events in their order',
  'day.future': 'lies in the future; today is {today}',
  'day.typed-future': '{day} lies in the future; enter days up to {today}',
  'day.twice': '{day} stands twice; enter each day once',
  'day.before-season': 'lies before the season, which begins on {from}',
  'day.within-season-or-before': 'must lie in the season or in the {days} days before it, {from} to {to}',
  'day.has-happened': 'lies in the future; enter it when it has happened, at the latest today, {today}',
  'licence.ended': 'ended on {until}, before this was done: note its new last day once it is renewed, or let somebody else sign',
  'label.spaced': 'the label of {name} asks for at least {days} days between two treatments, and there is one on {other}: take another day',
  'label.most-per-season':
    'the label of {name} allows {most} treatments of the same ground a season, and as many are planned or done: take another way to act',
  'label.not-within':
    'the label of {name} asks for {days} days between it and {other}, and {there} is planned or done on {on}: take another day, or another way to act',
  'label.most-amount':
    'the label of {name} allows {most} a season on the same ground, and that much has been used: take another way to act',
  'rule.closed': 'is closed by a rule of this place, {name}: take another day, or another way to act',
  'day.within-season': 'must lie in the season, {from} to {to}',
} as const
export type RefusalCode = keyof typeof refusals

/** A refusal as it goes over the wire beside its English sentence. */
export interface CodedRefusal {
  code: RefusalCode
  values: Readonly<Record<string, RefusalValue>>
}

/** The sentence of a refusal, its values by `shown`. */
export const refusalSentence = ({ code, values }: CodedRefusal, shown: (value: RefusalValue) => string): string =>
  refusals[code].replace(/\{(\w+)\}/g, (_, name: string) => {
    const value = values[name]
    return value === undefined ? '' : shown(value)
  })

const inEnglish = (value: RefusalValue): string => {
  if (typeof value === 'string') return value
  if (typeof value === 'number') return String(value)
  if ('day' in value) return value.day
  return `${Number(value.si.toFixed(6))} ${value.unit.replace(' difference', '')}`
}

/** The sentence in English and SI, for whoever reads no codes. */
export const refusalInEnglish = (refusal: CodedRefusal): string => refusalSentence(refusal, inEnglish)

const BOUND = /^must be at (least|most) (-?[\d.]+) (.+)$/

/** The code of a sentence that `number` made of a bound with a unit; undefined for any other. */
export function codeOfBound(message: string): CodedRefusal | undefined {
  const found = BOUND.exec(message)
  if (!found) return undefined
  const [, which, bound, unit] = found as unknown as [string, 'least' | 'most', string, RefusalUnit]
  return { code: `number.${which}`, values: { [which]: { si: Number(bound), unit } } }
}
