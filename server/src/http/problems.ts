import type { Problem } from '@bocado/contract'
import type { z } from 'zod'
import { isUnreachable } from '../database/pool.js'

const TITLES: Readonly<Record<number, string>> = {
  400: 'The request cannot be read',
  401: 'Who is this?',
  403: 'Not allowed',
  404: 'Not found',
  409: 'Changed by somebody else',
  413: 'Too large',
  422: 'Something in it is wrong',
  429: 'Too often',
  500: 'Bocado has a fault',
  503: 'The database cannot be reached',
}

export interface FieldMessage {
  path: string
  message: string
}

/** An error that becomes an RFC 9457 problem: what is wrong, where, and what to do. */
export class HttpProblem extends Error {
  readonly status: number
  readonly fields: FieldMessage[] | undefined
  readonly current: unknown

  constructor(status: number, detail: string, more: { fields?: FieldMessage[]; current?: unknown } = {}) {
    super(detail)
    this.status = status
    this.fields = more.fields
    this.current = more.current
  }
}

/** One wrong field, found by the server rather than by a schema. */
export const fieldProblem = (path: string, message: string): HttpProblem =>
  new HttpProblem(422, `${path}: ${message}`, { fields: [{ path, message }] })

/** Messages of a failed schema, each with the path of its field. */
export function schemaProblem(error: z.ZodError): HttpProblem {
  const fields = error.issues.map((issue) => ({ path: issue.path.join('.'), message: issue.message }))
  const named = fields.map(({ path, message }) => (path ? `${path}: ${message}` : message))
  return new HttpProblem(422, named.join('; '), { fields })
}

const DUPLICATE_NAME = /Duplicate entry .* for key '(?:\w+\.)?(name_in_site|name_in_block|one_per_season)'/

/** Any error as a problem document. What is not the client's fault is told without inner detail. */
export function toProblem(error: unknown): { problem: Problem; fault: boolean } {
  const { status, detail, fields, current, fault } = described(error)
  return {
    problem: {
      type: 'about:blank',
      title: TITLES[status] ?? 'Error',
      status,
      detail,
      ...(fields ? { fields } : {}),
      ...(current !== undefined ? { current } : {}),
    },
    fault,
  }
}

interface Described {
  status: number
  detail: string
  fields?: FieldMessage[] | undefined
  current?: unknown
  fault: boolean
}

function described(error: unknown): Described {
  if (error instanceof HttpProblem)
    return { status: error.status, detail: error.message, fields: error.fields, current: error.current, fault: false }
  const { message = '', type, status } = error as { message?: string; type?: string; status?: number }
  const duplicate = DUPLICATE_NAME.exec(message)?.[1]
  if (duplicate) {
    const [path, words] =
      duplicate === 'one_per_season'
        ? ['organismId', 'this block already has a watch for it this season']
        : ['name', 'this name is taken; choose another']
    return { status: 422, detail: `${path}: ${words}`, fields: [{ path, message: words }], fault: false }
  }
  if (isUnreachable(error))
    return { status: 503, detail: 'The database does not answer. Nothing was stored; the page tries again by itself.', fault: true }
  if (type === 'entity.too.large')
    return { status: 413, detail: 'This is larger than Bocado accepts: 2 MB for a form, 120 MB for a weather file.', fault: false }
  if (type === 'entity.parse.failed') return { status: 400, detail: 'The body is not proper JSON.', fault: false }
  if (typeof status === 'number' && status >= 400 && status < 500) return { status, detail: message, fault: false }
  return { status: 500, detail: 'This was not stored. It is written in the log; please try again.', fault: true }
}
