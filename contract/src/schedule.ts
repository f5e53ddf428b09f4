import { z } from 'zod'
import { civilDateSchema, id, note, number, rowVersion, text } from './common.js'
import { endpoint } from './endpoint.js'

/** Work that no watch asks for. `picking` waits for the days to harvest of labels. */
export const jobKinds = ['crop-work', 'picking', 'sowing', 'release', 'watering', 'other'] as const

export const jobSchema = z.object({
  id,
  placeId: id,
  name: z.string(),
  kind: z.enum(jobKinds),
  plannedOn: civilDateSchema,
  /** Null while it is not done. */
  doneOn: civilDateSchema.nullable(),
  note: z.string(),
  rowVersion,
})
export type Job = z.infer<typeof jobSchema>

/** Who sees to a task of the schedule, with what, and what was said to others before. */
export const arrangementSchema = z.object({
  id,
  /** The task that it is of: its kind, and the id of what it is done for, such as `deed 3b…` or `count 9a…`. */
  task: z.string(),
  personId: id.nullable(),
  machine: z.string(),
  /** Work that it takes. */
  minutes: z.number().nullable(),
  /** Civil days on which neighbours were told, and on which those whose ground it is agreed, with who that was. */
  noticeOn: civilDateSchema.nullable(),
  consentOn: civilDateSchema.nullable(),
  consentBy: z.string(),
  rowVersion,
})
export type Arrangement = z.infer<typeof arrangementSchema>

export const scheduleSchema = z.object({
  /** Work of the season, and what is planned for the next one already, the first first. */
  jobs: z.array(jobSchema),
  arrangements: z.array(arrangementSchema),
  /** What may be in flower in or beside blocks in the weeks ahead, on civil days, both included. */
  flowers: z.array(z.object({ blockId: id, name: z.string(), from: civilDateSchema, until: civilDateSchema })),
})
export type Schedule = z.infer<typeof scheduleSchema>

const jobFields = z.object({
  placeId: z.uuid({ error: 'choose where' }),
  name: text('what is done', 120),
  kind: z.enum(jobKinds, { error: 'choose what kind of work it is' }),
  plannedOn: civilDateSchema,
  doneOn: civilDateSchema.nullable().default(null),
  note,
})

const siteParams = z.object({ siteId: id })
const jobParams = z.object({ siteId: id, jobId: id })

export const schedule = {
  read: endpoint({
    method: 'get',
    path: '/sites/:siteId/schedule',
    restsOn: ['treatments', 'blooms', 'weather', 'stations', 'site', 'day'],
    summary: 'Work of the season that no watch asks for, who sees to which task, and what may be in flower in the weeks ahead',
    params: siteParams,
    input: z.object({ season: civilDateSchema }),
    response: scheduleSchema,
  }),
  addJob: endpoint({
    method: 'post',
    path: '/sites/:siteId/jobs',
    summary: 'Add work to the schedule',
    params: siteParams,
    input: jobFields,
    response: jobSchema,
  }),
  updateJob: endpoint({
    method: 'patch',
    path: '/sites/:siteId/jobs/:jobId',
    summary: 'Change or move work, or say that it is done',
    params: jobParams,
    input: jobFields.extend({ rowVersion }),
    response: jobSchema,
  }),
  removeJob: endpoint({
    method: 'delete',
    path: '/sites/:siteId/jobs/:jobId',
    summary: 'Remove work from the schedule; it can be restored',
    params: jobParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restoreJob: endpoint({
    method: 'post',
    path: '/sites/:siteId/jobs/:jobId/restore',
    summary: 'Undo the removal of work',
    params: jobParams,
    input: z.object({ rowVersion }),
    response: jobSchema,
  }),
  arrange: endpoint({
    method: 'put',
    path: '/sites/:siteId/arrangements',
    summary: 'Say who sees to a task, with what, and what was said to others before',
    params: siteParams,
    input: z.object({
      task: z.string().regex(/^(deed|job|step|count|trap|flags|plots|arrival) [\w -]{1,90}$/, { error: 'name the task' }),
      personId: z.uuid({ error: 'choose somebody of this site' }).nullable().default(null),
      machine: z.string().trim().max(80, { error: 'use at most 80 characters' }).default(''),
      minutes: number('the minutes of work', 0, 100_000).nullable().default(null),
      noticeOn: civilDateSchema.nullable().default(null),
      consentOn: civilDateSchema.nullable().default(null),
      consentBy: z.string().trim().max(120, { error: 'use at most 120 characters' }).default(''),
      /** Null where nobody has said anything of it yet. */
      rowVersion: rowVersion.nullable().default(null),
    }),
    response: arrangementSchema,
  }),
}
