import { requireWithin } from '../guards.js'

/**
 * How likely it is that something is not there after passes that found nothing (Bayes).
 *
 * @param p.prior how likely its absence was before them, 0 to 1
 * @param p.detection for each pass the chance of seeing it if it is there, 0 to 1; without any the prior stands
 * @throws RangeError for shares outside 0 to 1, and for a prior of 0 with a detection of 1, which cannot both be
 * @example probabilityAbsent({ prior: 0.5, detection: [0.5] }) // 0.6667
 */
export function probabilityAbsent({ prior, detection }: { prior: number; detection: readonly number[] }): number {
  requireWithin('prior', prior, 0, 1)
  detection.forEach((share, i) => requireWithin(`detection[${i}]`, share, 0, 1))
  const overlooked = detection.reduce((product, share) => product * (1 - share), 1)
  const both = prior + (1 - prior) * overlooked
  if (both === 0) throw new RangeError('prior is 0 and a pass that misses nothing found nothing: one of them is wrong')
  return prior / both
}
