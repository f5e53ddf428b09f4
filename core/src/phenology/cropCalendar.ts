/** A stage of a crop, and by how many days it follows stages before it. */
export interface CropStageRule {
  id: string
  /** Bounds from practice, in days; several where it may be counted from several stages. */
  after: readonly { stage: string; days: readonly [number, number] }[]
}

/** When a stage of a crop came, or is expected between two day numbers. */
export interface CropStageDate {
  id: string
  seen: number | null
  /** null where nothing that it follows is known, or where it is behind. */
  expected: { from: number; until: number } | null
  /** A later stage was seen: it has come, though nobody wrote its day down. */
  isPast: boolean
}

/**
 * The calendar of a planting: what was seen, and what is still expected. A stage is counted from the nearest stage before it of which
 * something is known, seen rather than expected; bounds add up, so that what lies far ahead is told widely. One that has come without anybody
 * writing its day down is bounded backwards, by what was seen after it.
 *
 * @param stages in their order
 * @param seen day numbers by stage
 * @returns one for each stage, in the same order
 * @example
 * cropCalendar([{ id: 'planted', after: [] }, { id: 'first-flower', after: [{ stage: 'planted', days: [15, 45] }] }], new Map([['planted', 100]]))
 * // first-flower: expected { from: 115, until: 145 }
 */
export function cropCalendar(stages: readonly CropStageRule[], seen: ReadonlyMap<string, number>): CropStageDate[] {
  const lastSeen = stages.findLastIndex(({ id }) => seen.has(id))
  const known = pastBounds(stages, seen, lastSeen)
  return stages.map(({ id, after }, i) => {
    const on = seen.get(id) ?? null
    const isPast = on === null && i < lastSeen
    const expected = on === null && !isPast ? expectedAfter(stages, after, known) : null
    const span = on === null ? expected : { from: on, until: on }
    if (span) known.set(id, span)
    return { id, seen: on, expected, isPast }
  })
}

interface Span {
  from: number
  until: number
}

/** When stages came that nobody wrote down, told by those that were seen to follow them. */
function pastBounds(stages: readonly CropStageRule[], seen: ReadonlyMap<string, number>, lastSeen: number): Map<string, Span> {
  const known = new Map<string, Span>()
  for (const { id } of stages.slice(0, lastSeen + 1).toReversed()) {
    const on = seen.get(id)
    if (on !== undefined) {
      known.set(id, { from: on, until: on })
      continue
    }
    const spans = stages.flatMap(({ id: later, after }) => {
      const rule = after.find(({ stage }) => stage === id)
      const span = known.get(later)
      return rule && span ? [{ from: span.from - rule.days[1], until: span.until - rule.days[0] }] : []
    })
    const narrowest = spans.sort((a, b) => a.until - a.from - (b.until - b.from))[0]
    if (narrowest) known.set(id, narrowest)
  }
  return known
}

function expectedAfter(stages: readonly CropStageRule[], after: CropStageRule['after'], known: ReadonlyMap<string, Span>): Span | null {
  const bases = after.flatMap(({ stage, days }) => {
    const span = known.get(stage)
    return span ? [{ span, days, isSeen: span.from === span.until, at: stages.findIndex(({ id }) => id === stage) }] : []
  })
  const [best] = bases.sort((a, b) => Number(b.isSeen) - Number(a.isSeen) || b.at - a.at)
  return best ? { from: best.span.from + best.days[0], until: best.span.until + best.days[1] } : null
}

/** Years for which same-family crops in the same soil are named: what feeds on the family may winter there so long (from practice). */
export const ROTATION_YEARS = 3

/** Days of its season after which an annual that is begun grows through the winter. */
const AUTUMN_FROM_DAYS = 240

/**
 * The last day on which an annual crop is taken to stand that nobody has said to be cleared: the end of the season in which it began, or of the
 * next where it was begun in autumn.
 *
 * @param from day number on which it was sown or planted
 * @param seasons first days of its season and of the two after it, as day numbers
 * @example annualStandsUntil(118, [0, 365, 730]) // 364
 */
export function annualStandsUntil(from: number, [begin, next, afterNext]: readonly [number, number, number]): number {
  return (from - begin >= AUTUMN_FROM_DAYS ? afterNext : next) - 1
}
