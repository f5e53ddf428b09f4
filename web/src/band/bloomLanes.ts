/** About as wide as a letter of a label is, in px. */
const LETTER = 6.4
/** From a stem to the name beside it, and what a name needs before it. */
const [BEFORE, AFTER] = [6, 14]

/** A bloom that stands as a stem on the axis: where, and how far from today. */
export interface Stem {
  id: string
  name: string
  x: number
  /** Days from today, either way. */
  away: number
}

/** What a name takes of the axis. */
export const nameSpan = ({ x, name }: Pick<Stem, 'x' | 'name'>): [from: number, to: number] => [
  x - BEFORE,
  x + AFTER + LETTER * name.length,
]

/**
 * Names of blooms in two lanes, 1 the lower: those nearest to today first, none over another or over the stem of another. What finds no
 * room has no name.
 *
 * @returns The lane of each bloom that has a name, by its id.
 */
export function bloomLanes(stems: readonly Stem[]): Map<string, 0 | 1> {
  // Every stem passes the lower lane; the upper one is only passed by stems whose names stand there.
  const passing: [upper: number[], lower: number[]] = [[], stems.map(({ x }) => x)]
  const names: [upper: [number, number][], lower: [number, number][]] = [[], []]
  const lanes = new Map<string, 0 | 1>()
  for (const stem of stems.toSorted((a, b) => a.away - b.away)) {
    const span = nameSpan(stem)
    const isFree = (lane: 0 | 1): boolean =>
      passing[lane].every((x) => x === stem.x || x < span[0] || x > span[1]) &&
      names[lane].every(([from, to]) => span[1] < from || span[0] > to)
    // A name in the upper lane has its stem pass the lower one, which no name there may cover.
    const lane = ([1, 0] as const).find(isFree)
    if (lane === undefined) continue
    names[lane].push(span)
    if (lane === 0) passing[0].push(stem.x)
    lanes.set(stem.id, lane)
  }
  return lanes
}
