import { MOST_PARTS, type Place } from '@bocado/contract'

/** Parts that a line asks for, in their order. */
export type Part = Pick<Place, 'level' | 'name' | 'plants'>

const LEVELS: readonly [RegExp, Place['level']][] = [
  [/^rows?$/i, 'row'],
  [/^(beds?|bays?)$/i, 'bed'],
  [/^(patch(es)?|plots?|strips?)$/i, 'patch'],
  [/^(pots?|tubs?|trays?)$/i, 'pots'],
]
const levelOf = (word: string): Place['level'] | undefined => LEVELS.find(([form]) => form.test(word))?.[1]
const singular = (word: string): string => word.replace(/(?<=(?:t|s|x|z|ch|sh))es$|(?<!s)s$/i, '')
const capital = (word: string): string => word.charAt(0).toUpperCase() + word.slice(1).toLowerCase()

/** The names "Row 5", "Row 6" and so on, behind those that are there. */
function numbered(word: string, count: number, taken: readonly string[]): string[] {
  const name = capital(singular(word))
  const last = Math.max(0, ...taken.map((one) => (one.startsWith(`${name} `) ? Number(one.slice(name.length + 1)) || 0 : 0)))
  return Array.from({ length: count }, (_, i) => `${name} ${last + i + 1}`)
}

/**
 * Reads what stands somewhere: plants shared out over rows or beds, rows alone, or plants and pots that are kept as one.
 *
 * @param taken names that are used there already
 * @returns the parts; undefined where it cannot be read, or asks for too many
 * @example readParts('24 plants in 4 rows', []) // four rows of six plants
 */
export function readParts(text: string, taken: readonly string[]): Part[] | undefined {
  const said = text.trim().replace(/[.!]$/, '')
  const shared = /^(\d+)\s+(\p{L}+)\s+(?:in|on|over)\s+(\d+)\s+(\p{L}+)$/iu.exec(said)
  if (shared) {
    const [, all = '', , into = '', word = ''] = shared
    const [plants, count] = [Number(all), Number(into)]
    const level = levelOf(word)
    if (level === undefined || level === 'pots' || count < 1 || count > MOST_PARTS || plants < count) return undefined
    // What does not share out evenly stands in the first ones.
    return numbered(word, count, taken).map((name, i) => ({
      level,
      name,
      plants: Math.floor(plants / count) + (i < plants % count ? 1 : 0),
    }))
  }
  const each = /^(\d+)\s+(\p{L}+)\s+(?:of|with|à|each)\s+(\d+)(?:\s+\p{L}+)?$/iu.exec(said)
  const alone = each ?? /^(\d+)\s+(\p{L}+)$/u.exec(said)
  if (!alone) return undefined
  const [, number = '', word = '', plants] = alone
  const count = Number(number)
  const level = levelOf(word)
  if (count < 1 || (plants !== undefined && Number(plants) < 1)) return undefined
  if (level !== undefined && level !== 'pots') {
    if (count > MOST_PARTS) return undefined
    return numbered(word, count, taken).map((name) => ({ level, name, plants: plants === undefined ? null : Number(plants) }))
  }
  if (each) return undefined
  const name = capital(word)
  return [{ level: level ?? 'plants', name: taken.includes(name) ? (numbered(word, 1, taken)[0] ?? name) : name, plants: count }]
}
