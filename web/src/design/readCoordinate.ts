export type Axis = 'latitude' | 'longitude'

const MOST = { latitude: 90, longitude: 180 } as const
const LETTERS = { latitude: 'NS', longitude: 'EW' } as const

/** Degrees of one coordinate, or nothing where it is none. */
type OneRead = { value: number; axis: Axis | undefined }

/**
 * Reads coordinates as maps, receivers and phones give them: decimal degrees with a point or a comma, degrees with minutes and seconds,
 * the quarter before or behind, one or both at once.
 *
 * @returns what was found of each axis; undefined where it cannot be read, or does not lie on the earth
 * @example readCoordinate('42° 27\' N', 'latitude') // { latitude: 42.45 }
 */
export function readCoordinate(text: string, asked: Axis): Partial<Record<Axis, number>> | undefined {
  const typed = text.trim().replace(/[−–]/g, '-')
  const halves = halvesOf(typed)
  const read = halves.map(oneOf)
  if (read.length === 0 || read.some((one) => one === undefined)) return undefined
  const [first, second] = read as OneRead[]
  if (!first) return undefined
  if (!second) return placed([{ value: first.value, axis: first.axis ?? asked }])
  // Two at once: latitude comes first, unless a letter says otherwise.
  const firstAxis = first.axis ?? (second.axis === 'latitude' ? 'longitude' : 'latitude')
  const secondAxis = second.axis ?? (firstAxis === 'latitude' ? 'longitude' : 'latitude')
  return firstAxis === secondAxis
    ? undefined
    : placed([
        { value: first.value, axis: firstAxis },
        { value: second.value, axis: secondAxis },
      ])
}

const placed = (all: readonly { value: number; axis: Axis }[]): Partial<Record<Axis, number>> | undefined =>
  all.some(({ value, axis }) => Math.abs(value) > MOST[axis]) ? undefined : Object.fromEntries(all.map(({ value, axis }) => [axis, value]))

/** One or two coordinates of a text. */
function halvesOf(text: string): string[] {
  if (text === '') return []
  const byLetters = /^(.*?\d.*?[NSEW])[\s,;]+(.*\d.*[NSEW])$/i.exec(text) ?? /^([NSEW].*?\d.*?)[\s,;]+([NSEW].*\d.*)$/i.exec(text)
  if (byLetters) return [byLetters[1] as string, byLetters[2] as string]
  const apart = text.split(/\s*;\s*|\s*,\s+|\s+,\s*/)
  if (apart.length === 2) return apart
  const points = /^(-?\d+\.\d+)\s*,\s*(-?\d+\.\d+)$/.exec(text) ?? /^(-?\d+[.,]\d+)\s+(-?\d+[.,]\d+)$/.exec(text)
  return points ? [points[1] as string, points[2] as string] : [text]
}

function oneOf(text: string): OneRead | undefined {
  const match = /^([NSEW])?\s*(-?)\s*(.+?)\s*([NSEW])?$/i.exec(text.trim())
  if (!match) return undefined
  const [, before, minus, figures = '', behind] = match
  if (before && behind) return undefined
  const letter = (before ?? behind)?.toUpperCase()
  const parts = figures
    .replace(/(\d),(\d)/g, '$1.$2')
    .split(/[°º˚d:'’′"”″\s]+/i)
    .filter(Boolean)
  if (parts.length === 0 || parts.length > 3 || parts.some((part) => !/^\d+(\.\d+)?$/.test(part))) return undefined
  // Only the last part has decimals; minutes and seconds stay below 60.
  if (parts.slice(0, -1).some((part) => part.includes('.')) || parts.slice(1).some((part) => Number(part) >= 60)) return undefined
  const degrees = parts.reduce((sum, part, i) => sum + Number(part) / 60 ** i, 0)
  if (minus && letter) return undefined
  const value = Math.round((minus || letter === 'S' || letter === 'W' ? -degrees : degrees) * 1e6) / 1e6
  return { value, axis: letter ? (LETTERS.latitude.includes(letter) ? 'latitude' : 'longitude') : undefined }
}
