import { requireWithin } from '../guards.js'
import { dayNumber } from '../time/index.js'

/** When a plant that must not be harmed is above the ground: first and last day of the year, as MM-DD; it may go over the turn of the year. */
export interface Awake {
  from: string
  until: string
}

const DAYS = 365
const MONTH_STARTS = [0, 31, 59, 90, 120, 151, 181, 212, 243, 273, 304, 334]

/** Day of a year without a leap day; 29 February is taken as the 28th. */
function indexOf(day: string): number {
  const [month, date] = day.split('-').map(Number) as [number, number]
  requireWithin('month', month, 1, 12)
  requireWithin('date', date, 1, 31)
  const start = MONTH_STARTS[month - 1] as number
  return Math.min(start + date - 1, (MONTH_STARTS[month] ?? DAYS) - 1)
}

function dayOf(index: number): string {
  const at = ((index % DAYS) + DAYS) % DAYS
  const month = MONTH_STARTS.findLastIndex((start) => start <= at)
  return `${String(month + 1).padStart(2, '0')}-${String(at - (MONTH_STARTS[month] as number) + 1).padStart(2, '0')}`
}

/** Days from one day of the year to another, forward. */
const ahead = (from: number, to: number): number => (to - from + DAYS) % DAYS

/**
 * When a plant is awake, by what is said of it and by days on which it was seen awake, of any year: a day outside moves the end that lies
 * nearer, so that nothing that was once awake counts as asleep.
 *
 * @param seen days of the year, as MM-DD
 * @throws RangeError for what is no day of the year
 * @example awakeWith({ from: '03-10', until: '06-20' }, ['02-26', '05-01']) // { from: '02-26', until: '06-20' }
 */
export function awakeWith({ from, until }: Awake, seen: readonly string[]): Awake {
  let [first, last] = [indexOf(from), indexOf(until)]
  for (const day of seen) {
    const at = indexOf(day)
    if (ahead(first, at) <= ahead(first, last)) continue
    if (ahead(at, first) <= ahead(last, at)) first = at
    else last = at
  }
  return { from: dayOf(first), until: dayOf(last) }
}

/**
 * When a plant is awake, of which somebody saw on a day that nothing of it was left above the ground: it sleeps from then on, until by what is
 * usual of it it has woken again.
 *
 * @param usual by what is said and seen of all years
 * @param asleepOn civil day, YYYY-MM-DD; null where nobody saw it so
 * @param today civil day
 * @example awakeNow({ from: '02-20', until: '06-10' }, '2026-06-02', '2026-11-01') // { from: '02-20', until: '06-01' }
 */
export function awakeNow(usual: Awake, asleepOn: string | null, today: string): Awake {
  if (asleepOn === null || asleepOn > today || dayNumber(today) - dayNumber(asleepOn) > DAYS) return usual
  const [slept, wakes] = [indexOf(asleepOn.slice(5)), indexOf(usual.from)]
  const hasWoken = ahead(slept, wakes) > 0 && ahead(slept, wakes) <= dayNumber(today) - dayNumber(asleepOn)
  const isAwakeThen = ahead(wakes, slept) <= ahead(wakes, indexOf(usual.until))
  return hasWoken || !isAwakeThen ? usual : { from: usual.from, until: dayOf(slept - 1) }
}

/**
 * Runs of days on which all of some plants are asleep: the last to fall asleep opens one, the first to wake closes it. First and last day, as
 * MM-DD; none where something is always awake, and undefined without a plant.
 *
 * @throws RangeError for what is no day of the year
 * @example asleepSpans([{ from: '03-10', until: '06-20' }, { from: '04-01', until: '10-04' }]) // [{ from: '10-05', until: '03-09' }]
 */
export function asleepSpans(companions: readonly Awake[]): Awake[] | undefined {
  if (companions.length === 0) return undefined
  const isAwake = new Array<boolean>(DAYS).fill(false)
  for (const { from, until } of companions) {
    const first = indexOf(from)
    for (let d = 0; d <= ahead(first, indexOf(until)); d++) isAwake[(first + d) % DAYS] = true
  }
  // From a day on which something is awake once around the year.
  const begin = isAwake.indexOf(true)
  const spans: Awake[] = []
  let opened: number | null = null
  for (let d = 1; d <= DAYS; d++) {
    const at = (begin + d) % DAYS
    if (!isAwake[at]) opened ??= begin + d
    else if (opened !== null) {
      spans.push({ from: dayOf(opened), until: dayOf(begin + d - 1) })
      opened = null
    }
  }
  return spans
}
