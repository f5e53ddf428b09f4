import { z } from 'zod'
import { id, instantSchema, rowVersion } from './common.js'
import { endpoint } from './endpoint.js'

export const leftSchema = z.object({
  id,
  name: z.string(),
  leftAt: instantSchema,
  /** Whether the name is a number already. */
  isErased: z.boolean(),
  /** Records of treatments that keep the name: law asks who did or signed them. */
  keeps: z.int(),
  rowVersion,
})
export type LeftPerson = z.infer<typeof leftSchema>

const personParams = z.object({ siteId: id, personId: id })

/** What is kept of people: who left, and the end of a name. What is kept of oneself comes as a file, `/account/data.json`. */
export const privacy = {
  left: endpoint({
    method: 'get',
    path: '/sites/:siteId/left',
    restsOn: ['site', 'treatments'],
    summary: 'Who worked at a site and left',
    params: z.object({ siteId: id }),
    input: z.object({}),
    response: z.array(leftSchema),
  }),
  erase: endpoint({
    method: 'post',
    path: '/sites/:siteId/left/:personId/erase',
    summary: 'Put a number in place of the name of somebody who left, and take away what else is kept of them; cannot be undone',
    params: personParams,
    input: z.object({ rowVersion }),
    response: leftSchema,
  }),
}
