import type { Trial } from '@bocado/contract'
import type { Format } from '../design/useFormat.js'
import type { Say } from '../messages/useText.js'
import '../messages/en/trials.js'

/** Where a trial stands, or what it says: one sentence, and no more than it can say. */
export function trialSays(trial: Trial, today: string, t: Say, f: Format): string {
  const { result, before, treatedOn, judgeFrom, measure } = trial
  if (!result) {
    if (measure === 'count' && !before) return t('trials.next.before')
    if (treatedOn === null) return t('trials.next.treat')
    return judgeFrom !== null && judgeFrom > today ? t('trials.next.wait', { date: f.dateInDays(judgeFrom) }) : t('trials.next.after')
  }
  const { verdict, shown, survival, leftOut } = result
  const left = leftOut > 0 ? ` ${t('trials.leftOut', { count: leftOut })}` : ''
  if (verdict === 'too-few') return `${t('trials.tooFew')}${left}`
  if (survival)
    return t(`trials.alive.${verdict}`, { treated: survival.onlyTreated, check: survival.onlyCheck, chance: f.percent(survival.p) })
  if (!shown) return ''
  const changed = (by: number): string => t('trials.change', { share: f.percent(Math.abs(by)), way: by < 0 ? 'more' : 'fewer' })
  if (verdict === 'cannot-tell')
    return `${t('trials.says.cannot-tell', { was: changed(shown.effect), low: changed(shown.low), high: changed(shown.high) })}${left}`
  const effect = {
    effect: f.percent(verdict === 'worse' ? -shown.effect : shown.effect),
    low: f.percent(verdict === 'worse' ? -shown.high : shown.low),
    high: f.percent(verdict === 'worse' ? -shown.low : shown.high),
    least: shown.atLeast ? 'yes' : 'no',
  }
  // What drives off or draws is not what takes away.
  const says = trial.moves && verdict === 'worked' ? t('trials.says.moved', effect) : t(`trials.says.${verdict}`, effect)
  return `${says}${left}`
}
