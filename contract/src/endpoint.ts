import type { z } from 'zod'
import type { Aspect } from './aspects.js'

/**
 * One operation of the HTTP interface: the one place that says its path, what goes in and what comes out. The server
 * validates with it, the page types its calls by it, and the OpenAPI document is generated from it.
 */
export interface Endpoint<P extends z.ZodType = z.ZodType, B extends z.ZodType = z.ZodType, R extends z.ZodType = z.ZodType> {
  method: 'get' | 'post' | 'put' | 'patch' | 'delete'
  /** Under /api/v1, with :names for path parameters. */
  path: string
  summary: string
  /** Of a read: the aspects of a site that its answer changes with. */
  restsOn?: readonly Aspect[]
  params: P
  /** Query parameters of a read, body of a write. */
  input: B
  response: R
  /** What the body is, where it is not JSON. */
  upload?: 'application/octet-stream'
}

export const endpoint = <P extends z.ZodType, B extends z.ZodType, R extends z.ZodType>(e: Endpoint<P, B, R>): Endpoint<P, B, R> => e

export type ParamsOf<E> = E extends Endpoint<infer P, z.ZodType, z.ZodType> ? z.infer<P> : never
export type InputOf<E> = E extends Endpoint<z.ZodType, infer B, z.ZodType> ? z.input<B> : never
export type ParsedInputOf<E> = E extends Endpoint<z.ZodType, infer B, z.ZodType> ? z.output<B> : never
export type ResponseOf<E> = E extends Endpoint<z.ZodType, z.ZodType, infer R> ? z.infer<R> : never
