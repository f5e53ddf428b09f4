/** Units in which quantities of a refusal are kept. */
export type RefusalUnit = '°C' | '°C·d' | 'mm' | 'm/s' | 'm' | 'ha' | 'm²' | '°C difference'

/** A value within a refusal: words, a quantity in SI, or a day. A page shows quantities in its site's units and days as its reader writes them. */
export type RefusalValue = string | number | { si: number; unit: RefusalUnit } | { day: string } | { moment: string }

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
  'label.rate-above': 'is above the label of {name}: at most {most}',
  'label.wind-above': 'wind of {wind} is above the most that the label or a rule allows, {most}',
  'label.temperature-outside': 'the label of {name} is for {from} to {to}, and it was {was}',
  'consent.missing': '{rule}: no consent is noted that holds on {day}; ask for it, and note who gave it until when',
  'consent.ended': '{rule}: the consent of {who} ended on {until}; ask for it again',
  'permit.missing': 'the law lets {name} be used with a permit only, and none is noted that holds on {day}',
  'permit.ended': 'the permit for {name} ended on {until}; ask for a new one, and note it',
  'licence.missing': 'the label of {name} is for licensed applicators, and nobody of this site has a licence that holds on {day}',
  're-entry.running': 'nobody may enter {place} before {until}, by what was used there',
  'notice.missing': '{rule}: nobody was told yet; the notice has to be given by {by}',
  'lot.ended': 'lot {lot} of {name} could be used until {until}: take another lot',
  'stock.short': '{left} of {name} are left by the book, and more is needed',
  'label.read-long-ago': 'the numbers of {name} were read from its label on {on}: read it again before you mix',
  'trial.before-lot': 'lies before the lot was drawn, on {drawn}: what was done before it is no part of the trial',
  'trial.before-count': 'lies before the count that it is held against, of {counted}',
  'trial.after-treated': 'lies after it was treated, on {treated}: it has to be counted before',
  'trial.too-early': 'is too early: what was done shows from {from} on',
  'day.over': 'the planned day, {day}, is over: move it, or record what was done',
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
  if ('moment' in value) return value.moment
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
