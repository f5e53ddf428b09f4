import { kilogramsFromPounds } from '../design/units.js'

/** A line about a harvest as it is understood. */
export interface ReadHarvest {
  kg: number | null
  pieces: number | null
  spoilt: number | null
  spoiltBy: string | null
  placeId: string | null
  /** What is left of the line once everything else was taken from it. */
  note: string
}

export interface Named {
  id: string
  name: string
}

const KILOGRAMS: Readonly<Record<string, number>> = { kg: 1, kilo: 1, kilos: 1, g: 0.001, gram: 0.001, grams: 0.001, t: 1000 }
const OUNCES_PER_POUND = 16
const POUNDS: Readonly<Record<string, number>> = {
  lb: 1,
  lbs: 1,
  pound: 1,
  pounds: 1,
  oz: 1 / OUNCES_PER_POUND,
  ounces: 1 / OUNCES_PER_POUND,
}
const NUMBER = String.raw`(\d+(?:[.,]\d+)?)`
const WEIGHT = new RegExp(String.raw`${NUMBER}\s*(${[...Object.keys(KILOGRAMS), ...Object.keys(POUNDS)].join('|')})\b`, 'i')
const SPOILT =
  /(\d+|none|nothing)\s+(?:of them\s+)?(?:spoilt|spoiled|rotten|wormy|damaged|eaten|bad|lost|unsaleable)\b(?:\s+(?:by|from|with)\s+([^,;.]+))?/i
const PIECES = /(?<![\d.,])(\d+)\s+(?!of\b)(\p{L}+)/iu

/** Three digits behind a comma are thousands: nobody weighs to the gram and writes a comma. */
const numberOf = (text: string): number => Number(/,\d{3}$/.test(text) ? text.replace(',', '') : text.replace(',', '.'))

const plain = (text: string): string =>
  text
    .toLowerCase()
    .replaceAll(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()

/** The one whose name is in the text, the longest first: "Row 12" before "Row 1". */
function namedIn<N extends Named>(text: string, all: readonly N[]): N | undefined {
  const said = ` ${plain(text)} `
  return [...all].sort((a, b) => b.name.length - a.name.length).find(({ name }) => said.includes(` ${plain(name)} `))
}

/** Words by which an organism is said, its whole name or the last word of it. */
function organismIn<N extends Named>(text: string, all: readonly N[]): N | undefined {
  const whole = namedIn(text, all)
  if (whole) return whole
  const said = plain(text).replace(/s$/, '')
  const same = all.filter(({ name }) => plain(name).split(' ').at(-1)?.replace(/s$/, '') === said)
  return same.length === 1 ? same[0] : undefined
}

/**
 * Reads what was picked as people write it down: how much, how many, where, what of it was spoilt and by what.
 *
 * @example readHarvest('3.2 kg, 14 fruit, Old Apples, 3 spoilt by codling moth', places, organisms)
 */
export function readHarvest(text: string, places: readonly Named[], organisms: readonly Named[]): ReadHarvest {
  let rest = text
  const cut = (match: RegExpExecArray | null): RegExpExecArray | null => {
    if (match) rest = `${rest.slice(0, match.index)},${rest.slice(match.index + match[0].length)}`
    return match
  }
  const spoiltAt = cut(SPOILT.exec(rest))
  const spoilt = spoiltAt ? (/^\d/.test(spoiltAt[1] ?? '') ? Number(spoiltAt[1]) : 0) : null
  const by = spoiltAt?.[2] === undefined ? undefined : organismIn(spoiltAt[2], organisms)
  // A place may have a number of its own, which is no count.
  const place = namedIn(rest, places)
  if (place) {
    const words = plain(place.name)
      .split(' ')
      .map((word) => word.replaceAll(/[^\p{L}\p{N}]/gu, ''))
      .join(String.raw`[^\p{L}\p{N}]+`)
    cut(new RegExp(String.raw`(?:\b(?:in|from|at)\s+)?(?<![\p{L}\p{N}])${words}(?![\p{L}\p{N}])`, 'iu').exec(rest))
  }
  const weighed = cut(WEIGHT.exec(rest))
  const amount = weighed ? numberOf(weighed[1] ?? '') : null
  const unit = weighed?.[2]?.toLowerCase() ?? ''
  const kilograms = KILOGRAMS[unit]
  const kg =
    amount === null || amount === 0
      ? null
      : kilograms === undefined
        ? kilogramsFromPounds(amount * (POUNDS[unit] ?? 0))
        : amount * kilograms
  const counted = cut(PIECES.exec(rest))
  const pieces = counted && Number(counted[1]) > 0 ? Number(counted[1]) : null
  const unknownBy = spoiltAt?.[2] !== undefined && !by ? [`spoilt by ${spoiltAt[2].trim()}`] : []
  const left = rest
    .replace(/^\s*picked\b/i, '')
    .split(/[,;.:]/)
    .map((part) => part.replaceAll(/\s+/g, ' ').trim())
    .filter((part) => part !== '' && !/^(and|in|from|of|at|picked)$/i.test(part))
  return { kg, pieces, spoilt, spoiltBy: by?.id ?? null, placeId: place?.id ?? null, note: [...left, ...unknownBy].join(', ') }
}
