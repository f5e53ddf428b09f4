import { z } from 'zod'
import { civilDateSchema, id, madeElsewhere, note, rowVersion, takenInput } from './common.js'
import { endpoint } from './endpoint.js'
import { flagColours, flagPosition, flagStates, plantCount, workMinutes } from './flags.js'
import { geometrySchema, shapeKinds } from './ground.js'
import { photoInput } from './library.js'
import { blockKinds } from './sites.js'

/** What whoever helps for a day sees where something stands, or has done there. */
export const helpSights = ['standing', 'none'] as const

/** The work of a day, as it is told to whoever helps with it: where, what stands there, how to know it, and what may harm. No history. */
export const helpDaySchema = z.object({
  on: civilDateSchema,
  blocks: z.array(z.object({ id, name: z.string(), kind: z.enum(blockKinds), outline: geometrySchema.nullable() })),
  /** What lies in these blocks or beside them that one keeps away from. */
  keepOff: z.array(z.object({ name: z.string(), kind: z.enum(shapeKinds) })),
  /** Plants in these blocks that must not be harmed, and from when to when they are above the ground, MM-DD; their notes are for who works here. */
  stays: z.array(z.object({ name: z.string(), where: z.string(), from: z.string(), until: z.string() })),
  flags: z.array(
    z.object({
      id,
      number: z.int(),
      colour: z.enum(flagColours).nullable(),
      blockId: id,
      blockName: z.string(),
      organismId: z.string().nullable(),
      organismName: z.string().nullable(),
      position: z.object({ latitude: z.number(), longitude: z.number() }).nullable(),
      state: z.enum(flagStates),
      plants: z.int().nullable(),
      /** Somebody was there today. */
      isDone: z.boolean(),
    }),
  ),
  organisms: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      scientificName: z.string(),
      /** What tells it from what looks like it; only what is seen, nothing that has to be touched. */
      characters: z.array(z.object({ ask: z.string(), here: z.string(), others: z.string() })),
      /** It is taken out by hand, and may be touched; otherwise one looks only. */
      byHand: z.boolean(),
      doesNotWork: z.array(z.object({ what: z.string(), why: z.string() })),
      hazards: z.array(z.object({ group: z.string(), text: z.string() })),
    }),
  ),
})
export type HelpDay = z.infer<typeof helpDaySchema>

const siteParams = z.object({ siteId: id })
const ok = z.object({ id, rowVersion })
const day = { helpedOn: civilDateSchema, plants: plantCount('the plants'), photo: photoInput.nullable().default(null), note }

/** What is shown to whoever helps for a day, and what they write down. */
export const helping = {
  day: endpoint({
    method: 'get',
    path: '/sites/:siteId/helping',
    restsOn: ['counts', 'site', 'library', 'blooms', 'day'],
    summary:
      'The work of a day for whoever helps with it; who works here always sees it as it will be shown, for the blocks that are named',
    params: siteParams,
    input: z.object({
      /** Ids of blocks, by commas; of a volunteer they are given. */
      blocks: z.string().max(2000).default(''),
    }),
    response: helpDaySchema,
  }),
  find: endpoint({
    method: 'post',
    path: '/sites/:siteId/helping/finds',
    summary: 'Flag what was found while helping; unnamed where one is not sure',
    params: siteParams,
    input: z.object({
      blockId: z.uuid({ error: 'choose where it stands' }),
      organismId: z.string().max(80).nullable().default(null),
      position: flagPosition,
      ...day,
      ...madeElsewhere,
    }),
    response: ok,
  }),
  work: endpoint({
    method: 'post',
    path: '/sites/:siteId/helping/work',
    summary: 'Record what was seen and taken at a flag while helping',
    params: siteParams,
    input: z
      .object({
        flagId: z.uuid({ error: 'choose the flag' }),
        sight: z.enum(helpSights, { error: 'say what is seen there' }),
        taken: takenInput(0.01),
        minutes: workMinutes,
        ...day,
        ...madeElsewhere,
      })
      .refine(({ sight, plants }) => sight === 'standing' || !plants, {
        path: ['plants'],
        error: 'where nothing stands there are no plants',
      }),
    response: ok,
  }),
}
