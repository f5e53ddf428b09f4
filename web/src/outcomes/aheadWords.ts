import type { Format } from '../design/useFormat.js'
import type { Say } from '../messages/useText.js'
import type { WayAhead } from '../workers/weeds.js'

const MINUTES_PER_HOUR = 60
/** A pass that leaves more than this share above what no work leaves is worse than none. */
const WORSE_BY = 1.1

/** What one way of working brings, in sentences; a caution where it is worse than leaving it. */
export function aheadSays(
  p: {
    one: WayAhead
    all: readonly WayAhead[]
    arrivals: number
    /** For a plant. */
    minutes: number
    /** Money that an hour of work costs; null where nobody said. */
    hourly: number | null
    /** Plants that go into a bag; null where nobody filled one. */
    plantsPerBag: number | null
  },
  t: Say,
  f: Pick<Format, 'number' | 'percent'>,
): { sentences: string[]; caution: string | null } {
  const { way, ahead, missed } = p.one
  const { yearsToFew: few, plants } = ahead
  const years = plants.length
  const hours = (taken: number): string => f.number((taken * p.minutes) / MINUTES_PER_HOUR, 1)
  const money = (taken: number, hourly: number): string => f.number((taken * p.minutes * hourly) / MINUTES_PER_HOUR)
  const later = missed ? (missed.yearsToFew.p50 ?? years) - (few.p50 ?? years) : 0
  const idle = p.all.find((one) => one.way === 'none')?.ahead.plants.at(-1)?.p50 ?? Infinity
  const left = plants.at(-1)?.p50 ?? 0
  return {
    sentences: [
      few.p50 === null
        ? t('ahead.notFew', { years })
        : t('ahead.few', { p50: few.p50, from: f.number(few.p10 ?? few.p50), to: few.p90 === null ? t('ahead.later') : f.number(few.p90) }),
      t('ahead.next', { low: f.number(Math.floor(ahead.next.plants.low)), high: f.number(Math.ceil(ahead.next.plants.high)) }),
      p.arrivals > 0 ? t('ahead.watch') : t('ahead.gone', { years, share: f.percent(ahead.gone) }),
      ...(p.arrivals > 0 ? [] : [ahead.bankAliveYears === null ? t('ahead.bankLong') : t('ahead.bank', { years: ahead.bankAliveYears })]),
      ...(way === 'none'
        ? []
        : [
            t('ahead.work', {
              all: f.number(ahead.taken),
              first: f.number(ahead.takenFirst),
              hours: hours(ahead.taken),
              firstHours: hours(ahead.takenFirst),
            }),
            ...(p.plantsPerBag === null
              ? []
              : [t('ahead.bags', { all: Math.ceil(ahead.taken / p.plantsPerBag), first: Math.ceil(ahead.takenFirst / p.plantsPerBag) })]),
            ...(p.hourly === null
              ? []
              : [t('ahead.money', { all: money(ahead.taken, p.hourly), first: money(ahead.takenFirst, p.hourly) })]),
          ]),
      ...(missed && missed.taken > ahead.taken
        ? [t('ahead.missed', { more: f.number(missed.taken - ahead.taken), later: Math.max(0, later) })]
        : []),
    ],
    caution: way !== 'none' && left > idle * WORSE_BY ? t('ahead.half') : null,
  }
}
