import { z } from 'zod'
import { instantSchema } from './common.js'
import { downwindSchema } from './ground.js'
import { noticeSchema, permissionSchema } from './permissions.js'

/** What stops a job, or what a record departs from: nobody puts it aside. */
export const sheetStops = ['fit', 'identity', 'rule', 'policy', 'bloom', 'spacing', 'consent', 'permit', 'licence', 're-entry'] as const
/** What a record may depart from besides: it was done, and is said. */
export const departureKinds = [...sheetStops, 'rate', 'wind', 'temperature', 'lot', 'stock'] as const
/** What speaks against a job, and is weighed by whoever does it. */
export const sheetWarnings = ['notice', 'lot', 'stock', 'label-old', 'day'] as const

const said = {
  /** A sentence in English and SI; with its code and values where a page says it in its own units. */
  message: z.string(),
  code: z.string().optional(),
  values: z.record(z.string(), z.unknown()).optional(),
}
export const departureSchema = z.object({ because: z.enum(departureKinds), ...said })
export type Departure = z.infer<typeof departureSchema>

export const jobSheetSchema = z.object({
  /** When all of this was looked up, by the clock of the server. */
  asOf: instantSchema,
  stops: z.array(z.object({ because: z.enum(sheetStops), ...said })),
  warnings: z.array(z.object({ because: z.enum(sheetWarnings), ...said })),
  /** Consents and permits that hold on its day. */
  permissions: z.array(permissionSchema),
  notices: z.array(noticeSchema),
  /** What its drops must not be carried to; empty for what has none. */
  downwind: z.array(downwindSchema).default([]),
})
export type JobSheet = z.infer<typeof jobSheetSchema>
