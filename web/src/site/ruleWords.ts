import type { SiteRule } from '@bocado/contract'
import type { Format } from '../design/useFormat.js'
import type { Say } from '../messages/useText.js'
import '../messages/en/rules.js'

const clock = (hour: number): string =>
  `${String(Math.floor(hour)).padStart(2, '0')}:${String(Math.round((hour % 1) * 60)).padStart(2, '0')}`

/** Days of the year on which a rule holds, as words; undefined where it does all year. */
export function ruleDays(
  { fromDay, untilDay }: Pick<SiteRule, 'fromDay' | 'untilDay'>,
  year: string,
  t: Say,
  f: Format,
): string | undefined {
  if (fromDay === null || untilDay === null) return undefined
  const on = (day: string): string => f.shortDate(`${year}-${day}`)
  return t('house.between', { from: on(fromDay), to: on(untilDay) })
}

/** Hours in which a rule forbids, as words. */
export const ruleHours = ({ fromHour, untilHour }: Pick<SiteRule, 'fromHour' | 'untilHour'>, t: Say): string =>
  t('house.between', { from: clock(fromHour ?? 0), to: clock(untilHour ?? 24) })

/** What a rule sets, in one sentence. */
export function ruleSays(rule: SiteRule, year: string, t: Say, f: Format): string {
  const { kind, amount } = rule
  const quantity = (): string => {
    if (amount === null) return ''
    if (kind === 'wind') return f.wind(amount)
    return kind === 'notice' ? t('house.days', { days: amount }) : f.height(amount)
  }
  return t(`house.says.${kind}`, {
    act: t(`house.act.${rule.act}`),
    hours: ruleHours(rule, t),
    amount: quantity(),
    days: ruleDays(rule, year, t, f) ?? 'all',
  })
}
