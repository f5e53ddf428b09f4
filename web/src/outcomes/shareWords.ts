import type { Format } from '../design/useFormat.js'
import type { Say } from '../messages/useText.js'

/** From so many times as many on, a share in percent says nothing to anybody. */
const TIMES = 10

/** An efficacy in words: how much fewer, or where it is below 0 how much more. */
export function shareWords(efficacy: number, t: Say, f: Pick<Format, 'percent' | 'number'>): string {
  if (efficacy >= 0) return t('share.fewer', { share: f.percent(efficacy) })
  return -efficacy < TIMES ? t('share.more', { share: f.percent(-efficacy) }) : t('share.times', { times: f.number(TIMES) })
}
