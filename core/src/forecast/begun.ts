import type { ResolvedEvent } from '../phenology/model.js'
import { heatAtShare } from '../phenology/spread.js'

/** An event has begun when this share of the population has reached it; what is first seen of it, too (from practice). */
export const BEGUN_SHARE = 0.03

/**
 * Heat in °C·d, from where the model counts, at which an event has begun.
 *
 * @example heatOfBegin({ spread: { kind: 'normal', median: 200, sd: 40 } }) // 124.8
 */
export const heatOfBegin = ({ spread }: Pick<ResolvedEvent, 'spread'>): number => heatAtShare(BEGUN_SHARE, spread)
