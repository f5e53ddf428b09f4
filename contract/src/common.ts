import { z } from 'zod'
import type { RefusalUnit } from './refusals.js'

export const id = z.uuid({ error: 'must be an identifier' })

const CALENDAR_DAY = /^\d{4}-\d{2}-\d{2}$/
/** Years of which there may be weather or plans: while a year is typed digit by digit, 2 and 202 are none. */
const FIRST_YEAR = '1800'
const LAST_YEAR = '2199'

/** A day of the calendar; 2026-02-30 is none. */
export const civilDateSchema = z
  .string({ error: 'enter a date' })
  .refine((s) => CALENDAR_DAY.test(s) && !Number.isNaN(Date.parse(s)) && new Date(s).toISOString().startsWith(s), {
    error: 'enter a day of the calendar, as 2026-06-12',
    abort: true,
  })
  .refine((s) => s.slice(0, 4) >= FIRST_YEAR && s.slice(0, 4) <= LAST_YEAR, { error: 'enter the year with four digits, as 2026' })

/** A moment, always in UTC. */
export const instantSchema = z.iso.datetime({ error: 'enter a moment with date and time' })

export const text = (what: string, most: number) =>
  z
    .string({ error: `enter ${what}` })
    .trim()
    .min(1, { error: `enter ${what}` })
    .max(most, { error: `use at most ${most} characters` })

export const note = z.string().trim().max(2000, { error: 'use at most 2000 characters' }).default('')

/** When, in which order and by whom a device made a record, which it may have kept until there was a signal. */
export const madeSchema = z
  .object({ at: instantSchema, order: z.int().min(0), by: id.optional() })
  .nullable()
  .default(null)
export type Made = z.infer<typeof madeSchema>

/** A record may come long after it was made: `id` is its device's own, by which it is stored once however often it is sent. */
export const madeElsewhere = { id: z.uuid().optional(), made: madeSchema }

/** The version of a row, sent back with an edit: a stale edit is refused with both versions. */
export const rowVersion = z.int().min(1)

/** A number within bounds; `unit` where a page may show the bounds in another one. */
export const number = (what: string, least: number, most: number, unit?: RefusalUnit) => {
  const behind = unit ? ` ${unit}` : ''
  return z
    .number({ error: `enter ${what} as a number` })
    .min(least, { error: `must be at least ${least}${behind}` })
    .max(most, { error: `must be at most ${most}${behind}` })
}

/** In what is counted what was picked, pulled or caught. */
export const takenUnits = ['pieces', 'kg', 'L', 'bags'] as const
export const takenSchema = z.object({ amount: z.number(), unit: z.enum(takenUnits) })
export type Taken = z.infer<typeof takenSchema>
/** The same as it is typed, from a least amount on. */
export const takenInput = (least: number) =>
  z
    .object({
      amount: number('what was taken', least, 1_000_000),
      unit: z.enum(takenUnits, { error: 'choose the unit of what was taken' }),
    })
    .nullable()
    .default(null)

export const boundsSchema = z.object({ p10: z.number().nullable(), p50: z.number().nullable(), p90: z.number().nullable() })

/** RFC 9457 problem details, with a message for each field that is wrong. */
export const problemSchema = z.object({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  detail: z.string(),
  fields: z
    .array(
      z.object({
        path: z.string(),
        message: z.string(),
        /** The sentence as a code with its values, quantities in SI, where it holds any. */
        code: z.string().optional(),
        values: z.record(z.string(), z.unknown()).optional(),
      }),
    )
    .optional(),
  /** With 409: the row as it is now. */
  current: z.unknown().optional(),
})
export type Problem = z.infer<typeof problemSchema>
