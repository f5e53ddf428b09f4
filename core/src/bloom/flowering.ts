/** When a plant is in flower in a season; day numbers, null where nobody knows. */
export interface FlowerSpan {
  from: number | null
  until: number | null
  /** Whether it was seen to open, is only expected to, or neither is known. */
  how: 'seen' | 'expected' | 'unknown'
}

/** A bloom of which nobody saw the end, and whose end nothing tells, is held for this long (from practice). */
const LONGEST_BLOOM_DAYS = 60

/**
 * The days between which a plant is in flower, as bees need it: from where it was seen to open, or at the earliest is expected to; to where
 * its end was seen, or at the latest is expected.
 *
 * @param seen day numbers of the first open flowers and of the end of bloom, as they were written down
 * @param expected the earliest day on which it may open, and the latest on which it may end
 */
export function flowerSpan(
  seen: { opened: number | null; ended: number | null },
  expected: { from: number | null; until: number | null },
): FlowerSpan {
  const { opened, ended } = seen
  if (opened !== null) {
    const late = expected.until !== null && expected.until > opened ? expected.until : opened + LONGEST_BLOOM_DAYS
    return { from: opened, until: ended ?? late, how: 'seen' }
  }
  // An end that was seen without its beginning: it is over.
  if (ended !== null) return { from: expected.from !== null && expected.from < ended ? expected.from : null, until: ended, how: 'seen' }
  if (expected.from === null) return { from: null, until: null, how: 'unknown' }
  return { from: expected.from, until: expected.until ?? expected.from + LONGEST_BLOOM_DAYS, how: 'expected' }
}

/**
 * Whether a plant may be in flower on a day; undefined where nobody knows when it flowers.
 *
 * @example mayFlowerOn({ from: 100, until: 120, how: 'seen' }, 110) // true
 */
export function mayFlowerOn({ from, until, how }: FlowerSpan, day: number): boolean | undefined {
  if (how === 'unknown') return undefined
  return (from === null || day >= from) && until !== null && day <= until
}
