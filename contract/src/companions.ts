import { z } from 'zod'
import { id, note, rowVersion, text, civilDateSchema } from './common.js'
import { endpoint } from './endpoint.js'
import { monthDaySchema, ruleActs } from './rules.js'

/** A plant of a place that must not be harmed by what is done against its neighbours. */
export const companionSchema = z.object({
  id,
  placeId: id,
  placeName: z.string(),
  blockId: id,
  name: z.string(),
  /** First and last day of the year on which it is above the ground, as its user says; MM-DD. */
  wakesOn: z.string(),
  sleepsOn: z.string(),
  /** What would harm it while it is awake. */
  harmedBy: z.array(z.enum(ruleActs)),
  /** The plant of the bloom list that it is: its own blooms tell when it is awake. */
  plantId: z.string().nullable(),
  /** Last time that somebody saw that nothing of it is left above the ground. */
  asleepOn: civilDateSchema.nullable(),
  /** By what is said, by its own blooms, and by what was seen: what rules go by. */
  awake: z.object({ from: z.string(), until: z.string() }),
  /** Own blooms that it rests on. */
  blooms: z.int(),
  note: z.string(),
  rowVersion,
})
export type Companion = z.infer<typeof companionSchema>

const fields = z.object({
  placeId: z.uuid({ error: 'choose where it grows' }),
  name: text('the plant', 80),
  wakesOn: monthDaySchema,
  sleepsOn: monthDaySchema,
  harmedBy: z.array(z.enum(ruleActs)).min(1, { error: 'say what would harm it' }).max(ruleActs.length),
  plantId: z.string().max(80).nullable().default(null),
  asleepOn: civilDateSchema.nullable().default(null),
  note,
})

const siteParams = z.object({ siteId: id })
const companionParams = z.object({ siteId: id, companionId: id })

export const companions = {
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/companions',
    restsOn: ['site', 'blooms', 'day'],
    summary: 'Plants that must not be harmed, when each is awake, and when all of a block are asleep',
    params: siteParams,
    input: z.object({}),
    response: z.object({
      companions: z.array(companionSchema),
      /** By block: runs of days on which all of its companions are asleep, first and last day; none where one is always awake. */
      asleep: z.array(
        z.object({
          blockId: id,
          spans: z.array(
            z.object({
              from: z.string(),
              until: z.string(),
              /** The last to fall asleep, and the first to wake. */
              openedBy: z.string(),
              closedBy: z.string(),
            }),
          ),
        }),
      ),
    }),
  }),
  add: endpoint({
    method: 'post',
    path: '/sites/:siteId/companions',
    summary: 'Name a plant that must not be harmed; what would harm it is closed while it is awake',
    params: siteParams,
    input: fields,
    response: companionSchema,
  }),
  update: endpoint({
    method: 'patch',
    path: '/sites/:siteId/companions/:companionId',
    summary: 'Change when a plant that must not be harmed wakes and sleeps, or say that it sleeps',
    params: companionParams,
    input: fields.extend({ rowVersion }),
    response: companionSchema,
  }),
  remove: endpoint({
    method: 'delete',
    path: '/sites/:siteId/companions/:companionId',
    summary: 'Remove a plant from those that must not be harmed; it can be restored',
    params: companionParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restore: endpoint({
    method: 'post',
    path: '/sites/:siteId/companions/:companionId/restore',
    summary: 'Undo the removal of a plant that must not be harmed',
    params: companionParams,
    input: z.object({ rowVersion }),
    response: companionSchema,
  }),
}
