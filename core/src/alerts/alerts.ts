import type { ForecastGrade } from '../forecast/grade.js'
import type { InfectionState } from '../forecast/infectionForecast.js'
import type { Urgency } from '../forecast/urgency.js'
import type { CountReason } from '../sampling/due.js'
import { hoursBetween } from '../time/index.js'

export const alertKinds = [
  'opens',
  'peak',
  'closes',
  'infection',
  'hours',
  'frost',
  'entry',
  'count',
  'bloom',
  'silent',
  'order',
  'keeps',
] as const
export type AlertKind = (typeof alertKinds)[number]

/** Something that somebody wants to be told of, once. */
export interface Alert {
  /** The same for the same matter, however often it is worked out. */
  key: string
  kind: AlertKind
  /** Day number on which it matters. */
  about: number
  /** Minutes matter: it is worth a knock at the door. */
  urgent: boolean
  /** What its words are made of: names as they are, days as day numbers, moments in ms, hours of the clock. */
  says: Readonly<Record<string, string | number>>
}

/** What is known of a watch, days as day numbers. */
export interface WatchFacts {
  id: string
  name: string
  place: string
  grade: ForecastGrade
  urgency: Urgency
  window: { generation: string; opens: number | null; best: number | null; closes: number | null } | null
  infection: { state: InfectionState; day: number | null } | null
  count: { day: number; because: CountReason; since: string } | null
}

export interface AlertFacts {
  today: number
  /** ms. */
  now: number
  watches: readonly WatchFacts[]
  /** Treatments that were done, with the moment (ms) until which nobody may go in. */
  done: readonly { id: string; name: string; place: string; entryUntil: number | null }[]
  /** Treatments that are planned for today, with the longest run of hours of today that is left for them; null: there is none. */
  planned: readonly { id: string; name: string; place: string; run: { from: number; until: number } | null }[]
  /** Blooms of which nobody wrote down that they came, with the last day on which they were expected. */
  blooms: readonly { id: string; name: string; late: number }[]
  stations: readonly { id: string; name: string; silentSince: string | null }[]
  /** Living materials that are planned: the last day to order what is not ordered yet, and the last on which what is there can be put out. */
  supplies: readonly { id: string; name: string; place: string; orderBy: number | null; usableUntil: number | null }[]
  /** Nights ahead with the share of the forecast in which it freezes, and what flowers then. */
  nights: readonly { stationId: string; station: string; day: number; share: number; flowers: string }[]
}

/** A window that opens is told so many days ahead. */
export const OPENS_AHEAD_DAYS = 2
/** That a window has opened is news for so many days. */
export const OPENED_NEWS_DAYS = 1
/** A bloom is late after so many days, and nobody is told after so many more. */
export const BLOOM_LATE_DAYS = 3
export const BLOOM_GONE_BY_DAYS = 14
/** Share of the forecast from which a frost is told. */
export const FROST_SHARE = 0.3
/** That something has to be ordered is told so many days ahead. */
export const ORDER_AHEAD_DAYS = 3
/** That something living keeps no longer is told so many days ahead. */
export const KEEPS_AHEAD_DAYS = 1
/** A re-entry that ended longer ago is no news, in hours. */
export const ENTRY_NEWS_HOURS = 24

function ofWindow({ id, name, place, urgency, window }: WatchFacts, today: number): Alert[] {
  if (!window) return []
  const { generation, opens, best, closes } = window
  const says = { name, place }
  const of = (kind: AlertKind, about: number, more: Alert['says']): Alert => ({
    key: `${kind} ${id} ${generation}`,
    kind,
    about,
    urgent: false,
    says: { ...says, ...more },
  })
  const found: Alert[] = []
  const isOpen = urgency === 'open' || urgency === 'closing'
  if (opens !== null && Math.floor(opens) - today <= OPENS_AHEAD_DAYS && Math.floor(opens) >= today - (isOpen ? OPENED_NEWS_DAYS : 0))
    found.push(of('opens', Math.floor(opens), { opens: Math.floor(opens) }))
  if (best !== null && isOpen && [today, today + 1].includes(Math.floor(best)))
    found.push(of('peak', Math.floor(best), { best: Math.floor(best) }))
  if (urgency === 'closing' && closes !== null) found.push(of('closes', Math.floor(closes), { closes: Math.floor(closes) }))
  return found
}

function ofWatch(facts: WatchFacts, today: number): Alert[] {
  const { id, name, place, grade, infection, count } = facts
  const found: Alert[] = []
  // What rests on a placeholder raises no alarm: of it nothing is told but what somebody decided to look at again.
  if (grade === 'dates') {
    if (infection && infection.day !== null && (infection.state === 'cure' || infection.state === 'protect'))
      found.push({
        key: `infection ${id} ${infection.state} ${infection.day}`,
        kind: 'infection',
        about: infection.day,
        urgent: infection.state === 'cure',
        says: { name, place, state: infection.state, day: infection.day },
      })
    if (!infection) found.push(...ofWindow(facts, today))
  }
  if (count && count.day <= today && (grade === 'dates' || count.because === 'look-again'))
    found.push({
      key: `count ${id} ${count.since}`,
      kind: 'count',
      about: count.day,
      urgent: false,
      says: { name, place, because: count.because },
    })
  return found
}

/**
 * Everything that is to be told today. Each has a key of its own, by which it is told once.
 *
 * @returns watch by watch, then deeds, blooms, stations and nights
 */
export function alertsOf({ today, now, watches, done, planned, blooms, stations, nights, supplies }: AlertFacts): Alert[] {
  return [
    ...watches.flatMap((facts) => ofWatch(facts, today)),
    ...done
      .filter(({ entryUntil }) => entryUntil !== null && entryUntil <= now && hoursBetween(entryUntil, now) <= ENTRY_NEWS_HOURS)
      .map(({ id, name, place, entryUntil }): Alert => ({
        key: `entry ${id}`,
        kind: 'entry',
        about: today,
        urgent: false,
        says: { name, place, since: entryUntil ?? 0 },
      })),
    ...planned.map(({ id, name, place, run }): Alert => ({
      key: `hours ${id} ${today}`,
      kind: 'hours',
      about: today,
      urgent: true,
      says: { name, place, from: run?.from ?? -1, until: run?.until ?? -1 },
    })),
    ...blooms
      .filter(({ late }) => today > late + BLOOM_LATE_DAYS && today <= late + BLOOM_LATE_DAYS + BLOOM_GONE_BY_DAYS)
      .map(({ id, name, late }): Alert => ({ key: `bloom ${id}`, kind: 'bloom', about: today, urgent: false, says: { name, late } })),
    ...stations.flatMap(({ id, name, silentSince }): Alert[] =>
      silentSince === null
        ? []
        : [{ key: `silent ${id} ${silentSince}`, kind: 'silent', about: today, urgent: false, says: { name, since: silentSince } }],
    ),
    ...supplies.flatMap(({ id, name, place, orderBy, usableUntil }): Alert[] => {
      const of = (kind: 'order' | 'keeps', about: number): Alert => ({
        key: `${kind} ${id} ${about}`,
        kind,
        about,
        urgent: false,
        says: { name, place, by: about },
      })
      const orders = orderBy !== null && today >= orderBy - ORDER_AHEAD_DAYS && today <= orderBy + 1
      const ends = usableUntil !== null && today >= usableUntil - KEEPS_AHEAD_DAYS && today <= usableUntil
      return [...(orders ? [of('order', orderBy)] : []), ...(ends ? [of('keeps', usableUntil)] : [])]
    }),
    ...nights
      .filter(({ share, flowers, day }) => share >= FROST_SHARE && flowers !== '' && day >= today)
      .map(({ stationId, station, day, share, flowers }): Alert => ({
        key: `frost ${stationId} ${day}`,
        kind: 'frost',
        about: day,
        urgent: true,
        says: { name: station, day, share, flowers },
      })),
  ]
}
