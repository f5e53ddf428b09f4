import { seededRandom, trialPower } from '@bocado/core'

/** Trials are played through alike each time, so that the same plan is said to find as much. */
const SEED = 20
/** From so many on, more on each unit tells no more: how they differ from each other decides. */
const MANY = 60

/** How often a trial would find an effect that is there; null where too little is said. */
export const powerOf = (pairs: number | null, mean: number | null, effect: number): number | null =>
  pairs === null || pairs < 3 || pairs > 40 || mean === null || !(mean > 0)
    ? null
    : trialPower({ pairs, mean: Math.min(mean, MANY), effect, random: seededRandom(SEED) })
