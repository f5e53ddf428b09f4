import type { Outcome } from '@bocado/contract'
import type { Format } from '../design/useFormat.js'
import type { Say } from '../messages/useText.js'
import { shareWords } from './shareWords.js'
import '../messages/en/known.js'

/** One honest sentence. With one treated and one check area it never says more than "lower here than in the check". */
export function verdictSentence(outcome: Outcome, block: string, t: Say, f: Pick<Format, 'percent' | 'number'>): string {
  const { comparison } = outcome
  if (!comparison) return t(outcome.treated.before && outcome.treated.after ? 'verdict.noCheck' : 'verdict.noCounts')
  const { value, withAreas } = comparison.hendersonTilton
  const interval = { low: f.percent(withAreas.low), high: f.percent(withAreas.high), block, check: outcome.check?.name ?? '' }
  if (comparison.verdict === 'lower-than-check') return t('verdict.lower', { ...interval, value: f.percent(value) })
  if (comparison.verdict === 'higher-than-check') return t('verdict.higher', { ...interval, value: f.percent(-value) })
  const words = (efficacy: number): string => shareWords(efficacy, t, f)
  return t('verdict.notSeparable', { ...interval, value: words(value), low: words(withAreas.low), high: words(withAreas.high) })
}
