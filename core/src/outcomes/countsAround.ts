/** When something was counted, and in which check area; null: where treated. */
export interface DatedCount {
  /** Day number. */
  day: number
  checkAreaId: string | null
}

/** A count before a treatment is not too old, and one after it not too late, within this many days (from practice). */
export const COUNT_REACH_DAYS = 28

/** The counts that tell of a treatment on one piece of ground. */
export interface BeforeAfter<C> {
  before: C | undefined
  after: C | undefined
}

/**
 * The last count on or before the day of a treatment, within four weeks, and the one by which it is judged: the first from the day on from which
 * what was done shows, within four weeks of that; while there is none, the first after the treatment. Counts are oldest first.
 *
 * @param judgeAfterDays days after a treatment from which it shows; 0 where nobody knows
 */
export function countsAround<C extends Pick<DatedCount, 'day'>>(counts: readonly C[], day: number, judgeAfterDays = 0): BeforeAfter<C> {
  const isNear = (from: number, count: C): boolean => Math.abs(count.day - from) <= COUNT_REACH_DAYS
  const shows = day + judgeAfterDays
  return {
    before: counts.findLast((count) => count.day <= day && isNear(day, count)),
    after:
      counts.find((count) => count.day > day && count.day >= shows && isNear(shows, count)) ??
      counts.find((count) => count.day > day && isNear(day, count)),
  }
}

/** The counts where it was treated. */
export const treatedCounts = <C extends DatedCount>(counts: readonly C[], day: number, judgeAfterDays = 0): BeforeAfter<C> =>
  countsAround(
    counts.filter(({ checkAreaId }) => checkAreaId === null),
    day,
    judgeAfterDays,
  )

/**
 * The check area that tells most of a treatment: the one counted both before and after, otherwise one that was counted once; the first
 * of equals. Undefined where no check area was counted near it.
 */
export function tellingCheck<C extends DatedCount>(
  counts: readonly C[],
  day: number,
  judgeAfterDays = 0,
): (BeforeAfter<C> & { checkAreaId: string }) | undefined {
  const areas = [...new Set(counts.flatMap(({ checkAreaId }) => checkAreaId ?? []))].map((checkAreaId) => ({
    checkAreaId,
    ...countsAround(
      counts.filter((count) => count.checkAreaId === checkAreaId),
      day,
      judgeAfterDays,
    ),
  }))
  const told = ({ before, after }: BeforeAfter<C>): number => Number(before !== undefined) + Number(after !== undefined)
  return areas.filter((area) => told(area) > 0).sort((a, b) => told(b) - told(a))[0]
}
