/** A stage of a crop on the way: days as day numbers. */
export interface StageOnTheWay {
  id: string
  seen: number | null
  /** Between which days it is expected, where nobody saw it. */
  expected: { from: number; until: number } | null
  /** A later stage was seen. */
  isPast: boolean
}

/** A threshold that changes with the stage of the crop: `per100` before the first step. */
export interface SteppedThreshold {
  per100: number
  steps: readonly { from: string; per100: number }[]
}

/**
 * Which threshold holds on a day. Where it is not known whether the crop has come to the next stage, the lowest of those that may hold does.
 *
 * @param stages of the crop in their order
 * @returns `stage`: the step that holds, null before the first; `sure`: whether no other could
 * @example thresholdAtStage({ per100: 20, steps: [{ from: 'first-flower', per100: 5 }] }, [{ id: 'first-flower', seen: 100, expected: null, isPast: false }], 110) // { per100: 5, stage: 'first-flower', sure: true }
 */
export function thresholdAtStage(
  own: SteppedThreshold,
  stages: readonly StageOnTheWay[],
  day: number,
): { per100: number; stage: string | null; sure: boolean } {
  const isReached = ({ seen, isPast }: StageOnTheWay): boolean => (seen !== null && seen <= day) || (seen === null && isPast)
  const reached = stages.findLastIndex(isReached)
  // As long as nobody has seen any stage of it, it may be at each.
  const isUnseen = stages.every(({ seen, expected }) => seen === null && expected === null)
  const may = stages.flatMap(({ seen, expected }, i) =>
    i > reached && seen === null && (expected === null ? isUnseen : expected.from <= day) ? [i] : [],
  )
  const stepAt = (index: number) =>
    stages
      .slice(0, index + 1)
      .flatMap(({ id }) => own.steps.find(({ from }) => from === id) ?? [])
      .at(-1)
  const candidates = [reached, ...may].map((index) => stepAt(index) ?? { from: null, per100: own.per100 })
  const lowest = candidates.reduce((a, b) => (b.per100 < a.per100 ? b : a))
  return { per100: lowest.per100, stage: lowest.from, sure: candidates.every(({ per100 }) => per100 === lowest.per100) }
}
