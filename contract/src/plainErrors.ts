import { z } from 'zod'

const KINDS: Readonly<Record<string, string>> = {
  string: 'a text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'true or false',
  array: 'a list',
  object: 'an object with fields',
  record: 'an object with fields',
  null: 'null',
  date: 'a date',
}
const SHOWN = 40

const kindOf = (value: unknown): string => (value === null ? 'null' : Array.isArray(value) ? 'array' : typeof value)
const shown = (value: unknown): string => {
  const text = JSON.stringify(value) ?? String(value)
  return text.length > SHOWN ? `${text.slice(0, SHOWN)}…` : text
}
const COUNTED: Readonly<Record<string, [one: string, many: string]>> = {
  string: ['character', 'characters'],
  array: ['entry', 'entries'],
  set: ['entry', 'entries'],
  map: ['entry', 'entries'],
  object: ['field', 'fields'],
}
/** "be at least 3", "have at most 1 entry": a bound of a number, or of how many there are. */
function bound(origin: string, words: string, limit: number | bigint): string {
  const unit = COUNTED[origin]
  return unit ? `must have ${words} ${limit} ${Number(limit) === 1 ? unit[0] : unit[1]}` : `must be ${words} ${limit}`
}

/** What is wrong and what to enter instead, for issues of which the schema says nothing itself. */
export function plainMessage(issue: z.core.$ZodRawIssue): string | undefined {
  switch (issue.code) {
    case 'invalid_type': {
      const wanted = KINDS[issue.expected] ?? issue.expected
      if (issue.input === undefined) return `is missing; enter ${wanted}`
      return `must be ${wanted}, got ${typeof issue.input === 'number' ? shown(issue.input) : (KINDS[kindOf(issue.input)] ?? kindOf(issue.input))}`
    }
    case 'invalid_value': {
      const values = issue.values.map(String)
      const wanted = values.length === 1 ? `must be ${values[0]}` : `must be one of ${values.join(', ')}`
      return issue.input === undefined ? `is missing; ${wanted}` : `${wanted}, got ${shown(issue.input)}`
    }
    case 'too_small':
      return bound(issue.origin, issue.inclusive ? 'at least' : 'more than', issue.minimum)
    case 'too_big':
      return bound(issue.origin, issue.inclusive ? 'at most' : 'less than', issue.maximum)
    case 'unrecognized_keys':
      return `has no field called ${issue.keys.join(', ')}; take it out or mend its spelling`
    case 'invalid_format':
      return issue.format === 'regex'
        ? `must be written by the pattern ${issue.pattern}, got ${shown(issue.input)}`
        : `is not written as it should be (${issue.format}), got ${shown(issue.input)}`
    case 'not_multiple_of':
      return `must be a multiple of ${issue.divisor}`
    case 'invalid_union':
      return 'fits none of the forms that are taken here'
    default:
      return undefined
  }
}

z.config({ customError: plainMessage })
