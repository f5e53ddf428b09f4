import type { Arrangement, Job, ParsedInputOf, Schedule, schedule } from '@bocado/contract'
import { civilDate, dayNumber, seasonLater } from '@bocado/core'
import { bloomingBySite } from '../bloom/blooming.js'
import { insertOnce, insertRow, restoreRow, updateRow, type Write } from '../database/index.js'
import { fieldProblem, HttpProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { tree } from '../places/store.js'
import { getSite } from '../sites/service.js'
import { peopleOf } from '../sites/store.js'
import { findArrangement, findJob, listArrangements, listJobs } from './store.js'

/** What flowers is told so far ahead; where nobody knows until when, it is taken to flower to the end of that. */
const WEEKS_AHEAD = 8

type JobInput = ParsedInputOf<typeof schedule.addJob>

/** Everything of a season's schedule that is not already told with its watches. */
export async function readSchedule(deps: Deps, siteId: string, season: string): Promise<Schedule> {
  const { db, clock } = deps
  const { today } = await getSite(db, clock, siteId)
  // What is planned for the next season already, such as a sowing, is there, too.
  const end = civilDate(seasonLater(dayNumber(season), 2))
  const [jobs, arrangements] = [await listJobs(db, siteId, season, end), await listArrangements(db, siteId)]
  const last = civilDate(dayNumber(today) + WEEKS_AHEAD * 7)
  const flowers: Schedule['flowers'] = []
  for (const { blockId, flowers: all } of await bloomingBySite(deps, siteId))
    for (const { name, from, until, how } of all) {
      // Of what nobody knows when it flowers nothing is told here: the plan of the day says so.
      if (how === 'unknown' || from === null || from > last || (until !== null && until < today)) continue
      flowers.push({ blockId, name, from, until: until === null || until > last ? last : until })
    }
  return { jobs, arrangements, flowers }
}

const columnsOf = ({ placeId, name, kind, plannedOn, doneOn, note }: JobInput) => ({
  place_id: placeId,
  name,
  kind,
  planned_on: plannedOn,
  done_on: doneOn,
  note,
})

async function requirePlace(w: Write, placeId: string): Promise<void> {
  if (!(await tree(w.tx, w.siteId)).has(placeId)) throw fieldProblem('placeId', 'choose a place of this site')
}

async function getJob(w: Write, jobId: string): Promise<Job> {
  const found = await findJob(w.tx, w.siteId, jobId)
  if (!found) throw new HttpProblem(404, 'There is no such work at this site.')
  return found
}

export async function addJob(w: Write, input: JobInput): Promise<Job> {
  await requirePlace(w, input.placeId)
  return getJob(w, await insertRow(w, 'job', columnsOf(input)))
}

export async function changeJob(w: Write, deps: Deps, jobId: string, input: ParsedInputOf<typeof schedule.updateJob>): Promise<Job> {
  await requirePlace(w, input.placeId)
  const { today } = await getSite(w.tx, deps.clock, w.siteId)
  if (input.doneOn !== null && input.doneOn > today) throw refusal('doneOn', 'day.future', { today: { day: today } })
  await updateRow(w, 'job', jobId, input.rowVersion, columnsOf(input))
  return getJob(w, jobId)
}

export async function restoreJob(w: Write, jobId: string, rowVersion: number): Promise<Job> {
  await restoreRow(w, 'job', jobId, rowVersion)
  return getJob(w, jobId)
}

/** Keeps who sees to a task. Who says it at the same moment as another is told of theirs. */
export async function arrange(w: Write, deps: Deps, input: ParsedInputOf<typeof schedule.arrange>): Promise<Arrangement> {
  const { today } = await getSite(w.tx, deps.clock, w.siteId)
  for (const path of ['noticeOn', 'consentOn'] as const) {
    const day = input[path]
    if (day !== null && day > today) throw refusal(path, 'day.future', { today: { day: today } })
  }
  if (input.personId !== null) {
    const people = (await peopleOf(w.tx, [w.siteId])).get(w.siteId) ?? []
    if (!people.some(({ id }) => id === input.personId)) throw fieldProblem('personId', 'choose somebody of this site')
  }
  const columns = {
    person_id: input.personId,
    machine: input.machine,
    minutes: input.minutes,
    notice_on: input.noticeOn,
    consent_on: input.consentOn,
    consent_by: input.consentBy,
  }
  const before = await findArrangement(w.tx, w.siteId, input.task)
  if (before) await updateRow(w, 'arrangement', before.id, input.rowVersion ?? 0, columns)
  else
    await insertOnce(
      w,
      'arrangement',
      { task: input.task, ...columns },
      () => new HttpProblem(409, 'Somebody else has just said who sees to this. Look at what they said, and say it again.'),
    )
  return (await findArrangement(w.tx, w.siteId, input.task)) as Arrangement
}
