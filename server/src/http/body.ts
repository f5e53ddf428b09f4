import { json, type RequestHandler } from 'express'
import { HttpProblem } from './problems.js'

const MOST_BYTES = 2 * 2 ** 20
/** Nothing that is entered is nested deeper, or has longer lists. */
const MOST_DEPTH = 40
const MOST_VALUES = 200_000
const MOST_ENTRIES = 50_000

/** Depth of nesting and number of values of a text in JSON, without making anything of it. */
function shapeOf(text: Buffer): { depth: number; values: number } {
  let depth = 0
  let deepest = 0
  let values = 1
  let quoted = false
  for (let i = 0; i < text.length; i++) {
    const byte = text[i]
    if (quoted) {
      if (byte === 0x5c) i++
      else if (byte === 0x22) quoted = false
    } else if (byte === 0x22) quoted = true
    else if (byte === 0x5b || byte === 0x7b) deepest = Math.max(deepest, ++depth)
    else if (byte === 0x5d || byte === 0x7d) depth--
    else if (byte === 0x2c) values++
  }
  return { depth: deepest, values }
}

/** Where a body holds half of a character, or a list longer than anything that is entered. */
function oddPlace(value: unknown, path: string): { path: string; message: string } | undefined {
  if (typeof value === 'string') return isWellFormed(value) ? undefined : { path, message: 'holds half of a character; type it again' }
  if (typeof value !== 'object' || value === null) return undefined
  if (Array.isArray(value) && value.length > MOST_ENTRIES)
    return { path, message: `holds ${value.length} entries; send at most ${MOST_ENTRIES}` }
  for (const [name, one] of Object.entries(value)) {
    if (!isWellFormed(name)) return { path, message: 'has a name with half of a character; type it again' }
    const odd = oddPlace(one, path === '' ? name : `${path}.${name}`)
    if (odd) return odd
  }
  return undefined
}

/** Half of a pair that makes one character cannot be stored or sent. */
const HALF = /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/
const isWellFormed = (text: string): boolean => !HALF.test(text)

/** Reads a body in JSON. What is nested or long beyond anything that is entered is refused before it is taken apart. */
export const jsonBody: RequestHandler[] = [
  json({
    limit: MOST_BYTES,
    verify: (_req, _res, body) => {
      const { depth, values } = shapeOf(body)
      if (depth > MOST_DEPTH)
        throw new HttpProblem(422, `The body is nested ${depth} deep; nothing that is entered is deeper than ${MOST_DEPTH}.`)
      if (values > MOST_VALUES)
        throw new HttpProblem(
          422,
          `The body holds ${values} values; nothing that is entered has more than ${MOST_VALUES}. Send it in parts.`,
        )
    },
  }),
  (req, _res, next) => {
    const odd = oddPlace(req.body, '')
    if (odd) throw new HttpProblem(422, odd.path ? `${odd.path}: ${odd.message}` : odd.message, { fields: [odd] })
    next()
  },
]
