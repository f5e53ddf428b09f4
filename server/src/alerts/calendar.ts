import { civilDate, currentWindow, dayNumber, urgencyOf } from '@bocado/core'
import ical from 'ical-generator'
import { hashOf } from '../accounts/tokens.js'
import type { Row } from '../database/index.js'
import { listBlocks } from '../blocks/store.js'
import { HttpProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { listJobs } from '../schedule/store.js'
import { getSite } from '../sites/service.js'
import { getBand } from '../watches/band.js'
import { dayWords } from './words.js'

/** Calendars read again after hours, some after a day: what is nearer stands in no calendar. */
const NEAREST_DAYS = 2
const FURTHEST_DAYS = 120
/** s. */
const READ_AGAIN = 6 * 3600

interface Entry {
  id: string
  day: string
  title: string
  more: string
}

/** Everything of a site that a calendar may hold: what is planned, other work, and when windows open, with how sure that is. */
async function entriesOf(deps: Deps, siteId: string): Promise<{ name: string; entries: Entry[] }> {
  const { db, clock } = deps
  const site = await getSite(db, clock, siteId)
  const today = dayNumber(site.today)
  const [from, until] = [civilDate(today + NEAREST_DAYS), civilDate(today + FURTHEST_DAYS)]
  const band = await getBand(deps, siteId, site.season.start)
  const blocks = await listBlocks(db, siteId)
  const placeOf = (blockId: string): string => blocks.find(({ id }) => id === blockId)?.name ?? ''
  const deeds = band.watches.flatMap(({ organismName, treatments }) =>
    treatments
      .filter(({ status }) => status === 'planned')
      .map(({ id, plannedOn, name, placeName, note }) => ({
        id: `deed-${id}`,
        day: plannedOn,
        title: `${name}, ${placeName}`,
        more: [organismName, note].filter(Boolean).join('\n'),
      })),
  )
  const windows = band.watches.flatMap((row): Entry[] => {
    // What rests on a placeholder has no day.
    const window = row.grade === 'dates' && !row.infection && urgencyOf(row) === 'coming' ? currentWindow(row) : undefined
    if (window?.opens.p50 == null) return []
    const begin = dayNumber(row.watch.season)
    const on = (day: number): string => civilDate(begin + Math.floor(day))
    const { p10, p50, p90 } = window.opens
    return [
      {
        id: `opens-${row.watch.id}-${window.generation}`,
        day: on(p50),
        title: `${row.organismName}, ${placeOf(row.watch.blockId)}: window opens`,
        more:
          p10 === null || p90 === null
            ? ''
            : `Between ${dayWords(on(p10))} and ${dayWords(on(p90))}. It may move with the weather: look in Bocado before you act.`,
      },
    ]
  })
  const work = (await listJobs(db, siteId, from, civilDate(today + FURTHEST_DAYS + 1)))
    .filter(({ doneOn }) => doneOn === null)
    .map(({ id, plannedOn, name, note }) => ({ id: `job-${id}`, day: plannedOn, title: name, more: note }))
  return { name: site.name, entries: [...deeds, ...work, ...windows].filter(({ day }) => day >= from && day <= until) }
}

/**
 * What lies two days ahead or more, as a calendar reads it: days of the site, whatever zone the calendar is in.
 *
 * @param token secret of somebody's link
 * @throws HttpProblem 404 where it opens nothing: it was ended, or they left
 */
export async function calendarOf(deps: Deps, token: string): Promise<string> {
  const [[row]] = await deps.db.query<Row[]>(
    `SELECT s.site_id FROM alert_setting s JOIN site_person p ON p.site_id = s.site_id AND p.person_id = s.person_id AND p.left_at IS NULL
     WHERE s.calendar_hash = ? AND p.role <> 'volunteer'`,
    [hashOf(token)],
  )
  if (!row) throw new HttpProblem(404, 'This link opens no calendar. Make a new one under Alerts.')
  const { name, entries } = await entriesOf(deps, row['site_id'] as string)
  const calendar = ical({ name, prodId: { company: 'bocado', product: 'schedule' }, ttl: READ_AGAIN })
  const stamp = await deps.clock.now(deps.db)
  for (const { id, day, title, more } of entries)
    calendar.createEvent({
      id: `${id}@bocado`,
      stamp,
      start: `${day}T00:00:00Z`,
      timezone: 'UTC',
      allDay: true,
      summary: title,
      ...(more ? { description: more } : {}),
    })
  return calendar.toString()
}
