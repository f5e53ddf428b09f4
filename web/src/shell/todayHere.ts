import type { Site } from '@bocado/contract'
import { civilDate, dayNumber } from '@bocado/core/time'

const dayIn = (ms: number, timeZone: string): number =>
  dayNumber(new Intl.DateTimeFormat('en-CA', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' }).format(ms))

/**
 * A site with its day as it is now. The server says which day it is; where it has not been heard for a while, as many days as have gone by
 * since then by the clock of the device are added, so that what is recorded in the field carries the day on which it was.
 *
 * @param readAt when the site was read, in ms
 */
export function withToday(site: Site, readAt: number, now: number): Site {
  const gone = readAt === 0 ? 0 : dayIn(now, site.timeZone) - dayIn(readAt, site.timeZone)
  return gone > 0 ? { ...site, today: civilDate(dayNumber(site.today) + gone) } : site
}
