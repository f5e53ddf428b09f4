import { z } from 'zod'
import { civilDateSchema, id } from './common.js'
import { thresholdSchema } from './scouting.js'
import { endpoint } from './endpoint.js'
import { gateRefusals } from './treatments.js'

const interval = z.object({ low: z.number(), high: z.number() })
const efficacy = z.object({ value: z.number(), sampling: interval, withAreas: interval })

/** A count as the picture shows it, per 100 items. */
export const outcomeCountSchema = z.object({
  roundId: id,
  countedOn: civilDateSchema,
  units: z.int(),
  per100: z.number(),
  low: z.number(),
  high: z.number(),
  crossed: z.boolean(),
})
export type OutcomeCount = z.infer<typeof outcomeCountSchema>

export const outcomeSchema = z.object({
  treatmentId: id,
  watchId: id,
  productName: z.string(),
  treatedOn: civilDateSchema,
  /** Of work; null where nobody measured. */
  minutes: z.number().nullable(),
  threshold: thresholdSchema.nullable(),
  item: z.string(),
  units: z.string(),
  treated: z.object({ before: outcomeCountSchema.nullable(), after: outcomeCountSchema.nullable() }),
  check: z.object({ name: z.string(), before: outcomeCountSchema.nullable(), after: outcomeCountSchema.nullable() }).nullable(),
  comparison: z
    .object({
      abbott: efficacy,
      hendersonTilton: efficacy,
      method: z.enum(['bootstrap', 'few-units', 'unvarying', 'totals']),
      zeroAdjusted: z.boolean(),
      verdict: z.enum(['lower-than-check', 'not-separable', 'higher-than-check']),
      /** Per 100: what the treated area would hold had it gone the way of the check. */
      expectedWithoutTreatment: z.number(),
      areaSdLog: z.number(),
    })
    .nullable(),
  /** Coverage recomputed with the weather that came, over the members. */
  coverage: z.object({ p10: z.number(), p50: z.number(), p90: z.number() }).nullable(),
  /** Why no coverage is reckoned: it was done although neither the library nor the label names this use. */
  deviation: z.enum(gateRefusals).nullable(),
  /** What is still missing before more can be said. */
  /** First day on which what was done shows; null where nobody knows of its kind. */
  judgeFrom: civilDateSchema.nullable(),
  /** It was counted since, but not yet from that day on. */
  isEarly: z.boolean(),
  missing: z.array(z.enum(['count-before', 'count-after', 'check-area', 'check-before', 'check-after'])),
})
export type Outcome = z.infer<typeof outcomeSchema>

export const outcomes = {
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/outcomes',
    restsOn: ['treatments', 'counts', 'watches', 'weather', 'stations', 'site', 'library'],
    summary: 'What can be said of each treatment of a season',
    params: z.object({ siteId: id }),
    input: z.object({ season: civilDateSchema }),
    response: z.array(outcomeSchema),
  }),
}
