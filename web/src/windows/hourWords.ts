import type { WatchHours } from '@bocado/contract'
import type { Format } from '../design/useFormat.js'
import type { Say } from '../messages/useText.js'
import { keepFromWords } from '../treatments/windWords.js'
import { runsOf } from './useHours.js'
import '../messages/en/board.js'

type Hour = WatchHours['hours'][number]
/** Why an hour cannot be used. */
export type Reason = WatchHours['limits'][number]['reason']

/** The reason that blocks an hour in most of the members. */
export function leading({ blocked }: Hour): Reason | null {
  const [first] = Object.entries(blocked).sort(([, a], [, b]) => b - a)
  return first ? (first[0] as Reason) : null
}

const clock = (hour: number): string => `${String(hour).padStart(2, '0')}:00`
const SHOWN_RUNS = 3

/** Under the board stand the two nearest things; all of them stand on the job sheet. */
const SHOWN_THINGS = 2

function nearestArcs(downwind: WatchHours['downwind'], t: Say, f: Format): string {
  const arcs = keepFromWords(downwind.slice(0, SHOWN_THINGS), t, f)
  const count = downwind.length - SHOWN_THINGS
  return count > 0 ? t('wind.more', { arcs, count }) : arcs
}

/** When it can next be used, and what takes most of the other hours. */
export function boardWords(hours: WatchHours, t: Say, f: Format): string {
  if (hours.members === 0) return t('board.noForecast')
  const runs = runsOf(hours)
  const costs = hours.costs.slice(0, 2).map(({ reason, hours: count }) =>
    t('board.cost', {
      reason: t(`board.reason.${reason}`),
      hours: count,
      whose: hours.limits.find((limit) => limit.reason === reason)?.from ?? 'usual',
    }),
  )
  const most = costs.length > 0 ? t('board.costs', { costs: costs.join(', ') }) : ''
  const flowers = hours.flowers.length > 0 ? t('board.flowers', { names: hours.flowers.join(', ') }) : ''
  const rules = hours.rules.length > 0 ? t('board.rules', { names: hours.rules.join(', ') }) : ''
  const away =
    hours.downwind.length === 0
      ? ''
      : t(hours.knowsDirection ? 'wind.closed' : 'wind.notForecast', { arcs: nearestArcs(hours.downwind, t, f) })
  if (runs.length === 0) {
    const [first] = hours.costs
    const out =
      first && ['bees', 'inversion', 'delta-t', 'wind', 'towards', 'rule', 'soil'].includes(first.reason)
        ? t('board.wayOut', { reason: first.reason })
        : ''
    return [t('board.nothing'), most, rules, flowers, away, out].filter(Boolean).join(' ')
  }
  const next = runs.slice(0, SHOWN_RUNS).map(({ from, until, usable }) =>
    t('board.run', {
      day: f.date(f.nudge(hours.from, Math.floor(from / 24))),
      from: clock(from % 24),
      until: clock(until % 24),
      usable,
      members: hours.members,
    }),
  )
  return [t('board.next', { runs: next.join('; ') }), most, rules, flowers, away].filter(Boolean).join(' ')
}

/** What is known of one hour. */
export function hourWords(hours: WatchHours, at: number, t: Say, f: Format): string {
  const hour = hours.hours[at]
  if (!hour) return ''
  const when = { date: f.date(f.nudge(hours.from, Math.floor(at / 24))), from: clock(at % 24), until: clock((at + 1) % 24) }
  if (at < hours.over) return t('board.over', when)
  const reasons = Object.entries(hour.blocked)
    .sort(([, a], [, b]) => b - a)
    .map(([reason, count]) => t('board.blocked', { reason: t(`board.reason.${reason as Reason}`), count }))
  return [
    t('board.usable', { ...when, usable: hour.usable, members: hours.members }),
    reasons.length > 0 ? t('board.others', { reasons: reasons.join(', ') }) : '',
    hour.unknown > 0 ? t('board.unknown', { count: hour.unknown }) : '',
  ]
    .filter(Boolean)
    .join(' ')
}
