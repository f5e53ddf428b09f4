/** Why what was typed is no number that could be taken without asking. */
export type NumberProblem = 'fraction' | 'either' | 'not-a-number'

/** What was typed, read; null where nothing was. */
export type ReadNumber = { value: number | null } | { problem: NumberProblem }

const SPACES = /[\s\u00a0\u202f\u2009'’]/g
const FRACTION = /[¼½¾⅐-⅞]|\d\s*[/⁄]\s*\d/

/**
 * Reads a number as people type it: with a point or a comma before the decimals, thousands apart, the unit behind it. What may mean two
 * numbers is not guessed: "1,250" is asked about.
 *
 * @param unit what may stand behind it, such as "ha" or "%"
 * @example readNumber('2,5') // { value: 2.5 }
 */
export function readNumber(text: string, unit = ''): ReadNumber {
  const typed = text.trim()
  if (typed === '') return { value: null }
  if (FRACTION.test(typed)) return { problem: 'fraction' }
  const bare = (unit !== '' && typed.toLowerCase().endsWith(unit.toLowerCase()) ? typed.slice(0, -unit.length) : typed)
    .replace(SPACES, '')
    .replace(/^[−–]/, '-')
    .replace(/^\+/, '')
  const match = /^(-?)([\d.,]*\d[.,]?|\d*)$/.exec(bare)
  if (!match || bare === '' || bare === '-') return { problem: 'not-a-number' }
  const [, sign = '', digits = ''] = match
  const unsigned = unsignedOf(digits)
  if (typeof unsigned === 'string') return { problem: unsigned }
  return { value: sign === '-' ? -unsigned : unsigned }
}

function unsignedOf(digits: string): number | NumberProblem {
  const [points, commas] = [digits.split('.').length - 1, digits.split(',').length - 1]
  const grouped = (sign: string): boolean => new RegExp(`^\\d{1,3}(\\${sign}\\d{3})+$`).test(digits)
  if (points > 0 && commas > 0) {
    // Both signs: the last one stands before the decimals, the other between thousands.
    const [decimal, thousands] = digits.lastIndexOf('.') > digits.lastIndexOf(',') ? ['.', ','] : [',', '.']
    const [whole = '', part = '', more] = digits.split(decimal)
    const isGrouped = new RegExp(`^\\d{1,3}(\\${thousands}\\d{3})+$`).test(whole)
    return more !== undefined || !isGrouped || part.includes(thousands)
      ? 'not-a-number'
      : Number(`${whole.replaceAll(thousands, '')}.${part}`)
  }
  if (commas > 1 || points > 1) {
    const sign = commas > 1 ? ',' : '.'
    return grouped(sign) ? Number(digits.replaceAll(sign, '')) : 'not-a-number'
  }
  // A thousand and a quarter, or one and a quarter: nobody can tell.
  if (commas === 1 && /^[1-9]\d{0,2},\d{3}$/.test(digits)) return 'either'
  return Number(digits.replace(',', '.'))
}
