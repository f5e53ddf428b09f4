import { z } from 'zod'
import { hazardGroups } from './vocabulary.js'

/** Where a number comes from. A paper is named only where it is certain; most practice knowledge has none. */
export const sourceSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('paper'), authors: z.string().min(3), year: z.int().min(1850).max(2026) }),
  z.strictObject({ kind: z.literal('common-knowledge') }),
  z.strictObject({ kind: z.literal('none') }),
])

export const confidenceSchema = z.enum(['established', 'approximate', 'placeholder'])

export const provenance = { confidence: confidenceSchema, region: z.string().min(3), source: sourceSchema }

/** What may harm whom. `none-known` says that somebody looked. */
export const hazardSchema = z.strictObject({
  group: z.enum(hazardGroups),
  text: z.string().min(10),
  /** Harms whoever touches it unprotected: said before anybody is asked to look closer. */
  touch: z.boolean().optional(),
})

/** Month of the year in the northern hemisphere; the southern one is half a year later. */
export const monthSchema = z.int().min(1).max(12)

export const units = ['°C', '°C·d', 'MPa', 'MPa·°C·d', 'share', 'per 100', 'h', 'd', 'years', 'portions', '1'] as const

/** A number with its unit, how sure it is, where it holds and where it is from. */
export const quantitySchema = z
  .strictObject({ value: z.number(), unit: z.enum(units), ...provenance })
  .refine((q) => q.confidence !== 'established' || q.source.kind === 'paper', {
    error: 'an established value needs a paper',
    path: ['source'],
  })
