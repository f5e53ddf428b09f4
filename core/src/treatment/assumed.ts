/** Kinds of ways to act, as the library has them. */
export type WayKind = 'prevention' | 'cultural' | 'mechanical' | 'biological' | 'chemical'

/** What is known of a way to act without anybody's label. */
export interface KnownWay {
  kind: WayKind
  /** It stands or works for as long as the stage does. */
  lasting: boolean
  /** Days for which what was put on goes on acting; null: it does not, or nobody knows. */
  lastsDays: number | null
}

/** Share of the stages it reaches that a way takes, where neither a label nor the user says it. */
export const EFFECT_BY_KIND: Readonly<Record<WayKind, number>> = {
  prevention: 0.7,
  cultural: 0.5,
  mechanical: 0.8,
  biological: 0.7,
  chemical: 0.85,
}

/** Days for which what stands for as long as the stage does is taken to stand. */
export const LASTING_DAYS = 120

/**
 * What a way to act does where no label and nobody says it: the share it takes, 0..1, and the days for which it goes on. Of several ways in
 * one product the strongest and the longest counts. These are guesses by kind, and are marked as such wherever they are shown.
 *
 * @throws RangeError for no ways at all.
 * @example assumedAction([{ kind: 'mechanical', lasting: false, lastsDays: null }]) // { effect: 0.8, residualDays: 0 }
 */
export function assumedAction(ways: readonly KnownWay[]): { effect: number; residualDays: number } {
  if (ways.length === 0) throw new RangeError('ways must hold at least one way to act, got 0')
  return {
    effect: Math.max(...ways.map(({ kind }) => EFFECT_BY_KIND[kind])),
    residualDays: Math.max(...ways.map(({ lasting, lastsDays }) => lastsDays ?? (lasting ? LASTING_DAYS : 0))),
  }
}
