import { z } from 'zod'
import { civilDateSchema, id } from './common.js'
import { endpoint } from './endpoint.js'

/** Something that was first seen at another site this season: never where, nor by whom. */
export const firstSeenSchema = z.object({
  kind: z.enum(['find', 'catch', 'bloom']),
  /** Organism or bloom plant of the library. */
  what: z.string(),
  name: z.string(),
  /** What of it was seen, in words; null where it is the organism itself. */
  event: z.string().nullable(),
  day: civilDateSchema,
  /** It lies within so many kilometres. */
  withinKm: z.int(),
})
export type FirstSeen = z.infer<typeof firstSeenSchema>

export const around = {
  read: endpoint({
    method: 'get',
    path: '/sites/:siteId/around',
    restsOn: ['site', 'watches', 'counts', 'blooms', 'day'],
    summary:
      'What was first found, caught and in bloom at other sites of this server that agreed to tell it, for a site that does the same',
    params: z.object({ siteId: id }),
    input: z.object({}),
    response: z.object({ others: z.int(), found: z.array(firstSeenSchema) }),
  }),
}
