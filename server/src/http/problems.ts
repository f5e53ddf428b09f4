import { codeOfBound, refusalInEnglish, type CodedRefusal, type Problem, type RefusalCode } from '@bocado/contract'
import type { z } from 'zod'
import { isFull, isInTheWay, isLate, isUnreachable } from '../database/failures.js'

const TITLES: Readonly<Record<number, string>> = {
  400: 'The request cannot be read',
  401: 'Who is this?',
  403: 'Not allowed',
  404: 'Not found',
  409: 'Changed meanwhile',
  413: 'Too large',
  421: 'Not here',
  422: 'Something in it is wrong',
  429: 'Too often',
  500: 'Bocado has a fault',
  503: 'Not now',
  507: 'No room',
}

export interface FieldMessage {
  path: string
  message: string
  /** The same with its values, for a page to say it in its own units. */
  code?: RefusalCode
  values?: CodedRefusal['values']
}

/** An error that becomes an RFC 9457 problem: what is wrong, where, and what to do. */
export class HttpProblem extends Error {
  readonly status: number
  readonly fields: FieldMessage[] | undefined
  readonly current: unknown
  /** Seconds after which the same request may be sent again. */
  readonly retryAfter: number | undefined

  constructor(status: number, detail: string, more: { fields?: FieldMessage[]; current?: unknown; retryAfter?: number } = {}) {
    super(detail)
    this.status = status
    this.fields = more.fields
    this.current = more.current
    this.retryAfter = more.retryAfter
  }
}

/** One wrong field, found by the server rather than by a schema. */
export const fieldProblem = (path: string, message: string): HttpProblem =>
  new HttpProblem(422, `${path}: ${message}`, { fields: [{ path, message }] })

/** One wrong field, in a sentence with values: a page says it in its own units, everything else in English and SI. */
export function refusal(path: string, code: RefusalCode, values: CodedRefusal['values']): HttpProblem {
  const field = coded(path, code, values)
  return new HttpProblem(422, `${path}: ${field.message}`, { fields: [field] })
}

/** One of several wrong fields, in a sentence with values. */
export const coded = (path: string, code: RefusalCode, values: CodedRefusal['values']): FieldMessage => ({
  path,
  message: refusalInEnglish({ code, values }),
  code,
  values,
})

/** Nobody reads more than the first few of a thousand faults. */
const MOST_FIELDS = 30

/** A refusal of several fields at once: the first of them, and how many there are. */
export function fieldsProblem(all: readonly FieldMessage[]): HttpProblem {
  const fields = all.slice(0, MOST_FIELDS).map(({ path, message, ...said }): FieldMessage => {
    const bound = said.code ? said : codeOfBound(message)
    return { path: path.slice(0, 200), message: message.slice(0, 500), ...(bound ?? {}) }
  })
  const named = fields.map(({ path, message }) => (path ? `${path}: ${message}` : message))
  const more = all.length > MOST_FIELDS ? [`and ${all.length - MOST_FIELDS} more`] : []
  return new HttpProblem(422, [...named, ...more].join('; '), { fields })
}

/** Messages of a failed schema, each with the path of its field. */
export const schemaProblem = (error: z.ZodError): HttpProblem =>
  fieldsProblem(error.issues.map((issue) => ({ path: issue.path.join('.'), message: issue.message })))

const DUPLICATE_NAME = /Duplicate entry .* for key '(?:\w+\.)?(name_in_site|name_in_place|name_in_block|one_per_season)'/

/** Any error as a problem document. What is not the client's fault is told without inner detail. */
export function toProblem(
  error: unknown,
  doing: 'read' | 'write' = 'write',
): { problem: Problem; fault: boolean; retryAfter: number | undefined } {
  const { status, detail, fields, current, fault, retryAfter } = described(
    error,
    doing === 'write' ? 'Nothing was stored' : 'Nothing was lost',
  )
  return {
    retryAfter: retryAfter ?? (status === 503 ? 2 : undefined),
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
  retryAfter?: number | undefined
}

function described(error: unknown, outcome: string): Described {
  if (error instanceof HttpProblem)
    return {
      status: error.status,
      detail: error.message,
      fields: error.fields,
      current: error.current,
      fault: false,
      retryAfter: error.retryAfter,
    }
  const { message = '', type, status } = error as { message?: string; type?: string; status?: number }
  const duplicate = DUPLICATE_NAME.exec(message)?.[1]
  if (duplicate) {
    const [path, words] =
      duplicate === 'one_per_season'
        ? ['organismId', 'this block already has a watch for it this season']
        : ['name', 'this name is taken; choose another']
    return { status: 422, detail: `${path}: ${words}`, fields: [{ path, message: words }], fault: false }
  }
  if ((error as { code?: string }).code === 'ER_DUP_ENTRY')
    return { status: 409, detail: 'The same was entered meanwhile by somebody else. Look at it, and change that instead.', fault: false }
  if (isFull(error))
    return {
      status: 507,
      detail:
        'There is no room left on the disk of the server, so nothing was stored. Make room and try again; nothing else has to be done.',
      fault: true,
    }
  if (isUnreachable(error))
    return { status: 503, detail: `The database does not answer. ${outcome}; the page tries again by itself.`, fault: true }
  if (isInTheWay(error) || isLate(error))
    return { status: 503, detail: `Too much is asked for at once. ${outcome}; the page tries again by itself.`, fault: true }
  if (type === 'entity.too.large')
    return { status: 413, detail: 'This is larger than Bocado accepts: 2 MB for a form, 120 MB for a weather file.', fault: false }
  if (type === 'entity.parse.failed') return { status: 400, detail: 'The body is not proper JSON.', fault: false }
  if (typeof status === 'number' && status >= 400 && status < 500) return { status, detail: message, fault: false }
  return {
    status: 500,
    detail: `Something here is wrong with Bocado itself. ${outcome}, and it is written in the log; please try again.`,
    fault: true,
  }
}
