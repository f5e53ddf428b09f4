import { shareReached, type Spread } from './spread.js'

/**
 * Share of the population in each stage once `heat` °C·d have accumulated. Stage i lies between event i − 1 and event i,
 * so n events give n + 1 shares that sum to 1: before the first, between each pair, after the last.
 *
 * Where fitted spreads cross, a stage would come out negative: it is set to 0 and the rest rescaled.
 *
 * @param weights for each event the share of the population that goes through it at all, 0..1 and never rising: the part of a
 * generation that is in diapause stays in its last stage. Without it all go through every event.
 * @throws RangeError as `shareReached`.
 * @example stageShares(200, [{ kind: 'normal', median: 100, sd: 20 }, { kind: 'normal', median: 210, sd: 30 }]) // [2.867e-7, 0.6306, 0.3694]
 */
export function stageShares(heat: number, events: readonly Spread[], weights?: readonly number[]): number[] {
  const shares: number[] = []
  let previous = 1
  let total = 0
  for (let i = 0; i <= events.length; i++) {
    const reached = i < events.length ? (weights?.[i] ?? 1) * shareReached(heat, events[i] as Spread) : 0
    const share = Math.max(0, previous - reached)
    shares.push(share)
    total += share
    previous = reached
  }
  return shares.map((share) => share / total)
}
