import { requireAtLeast, requireWithin } from '../guards.js'

/** What a weed’s life is made of, per unit of area; shares are 0 to 1. */
export interface WeedLife {
  /** Share of the seeds in the soil that comes up in a year, and of the others the share that dies in it. */
  germination: number
  seedMortality: number
  /** Share of seedlings that live, and how much they hinder each other, per seedling. */
  seedlingSurvival: number
  crowding: number
  /** Seeds that a plant sheds. */
  fecundity: number
  /** Share of its seed that still ripens on a plant that was pulled and left lying. */
  ripensAfterPulling: number
}

/** What is done in a year; shares of what is there. */
export interface WeedWork {
  seedlingsTaken: number
  floweringTaken: number
  /** Of what was taken in flower the share that is left lying. */
  leftLying: number
}

function requireLife(life: WeedLife, work: WeedWork): void {
  requireWithin('germination', life.germination, 0, 1)
  requireWithin('seedMortality', life.seedMortality, 0, 1)
  requireWithin('seedlingSurvival', life.seedlingSurvival, 0, 1)
  requireAtLeast('crowding', life.crowding, 0)
  requireAtLeast('fecundity', life.fecundity, 0)
  requireWithin('ripensAfterPulling', life.ripensAfterPulling, 0, 1)
  requireWithin('seedlingsTaken', work.seedlingsTaken, 0, 1)
  requireWithin('floweringTaken', work.floweringTaken, 0, 1)
  requireWithin('leftLying', work.leftLying, 0, 1)
}

/** Seedlings that come through the year, hindering each other. */
function survivorsOf(emerged: number, { seedlingSurvival, crowding }: WeedLife, { seedlingsTaken }: WeedWork): number {
  const left = emerged * (1 - seedlingsTaken)
  return (seedlingSurvival * left) / (1 + crowding * left)
}

/** Seeds that plants in flower shed: those that stand, and those that were taken and ripen where they lie. */
function shedBy(flowering: number, { fecundity, ripensAfterPulling }: WeedLife, { floweringTaken, leftLying }: WeedWork): number {
  const taken = flowering * floweringTaken
  return fecundity * (flowering - taken + ripensAfterPulling * leftLying * taken)
}

const bankAfter = (seeds: number, shed: number, { germination, seedMortality }: WeedLife): number =>
  seeds * (1 - germination) * (1 - seedMortality) + shed

/**
 * One year of a weed that flowers in its second, in expected numbers per unit of area.
 *
 * @param state seeds in the soil, and rosettes that go into the winter
 * @throws RangeError for shares outside 0 to 1, or anything negative
 */
export function biennialYear(
  state: { seeds: number; rosettes: number },
  p: WeedLife & { winterSurvival: number },
  work: WeedWork & { rosettesTaken: number },
): { seeds: number; rosettes: number; emerged: number; flowering: number; shed: number } {
  requireAtLeast('seeds', state.seeds, 0)
  requireAtLeast('rosettes', state.rosettes, 0)
  requireLife(p, work)
  requireWithin('winterSurvival', p.winterSurvival, 0, 1)
  requireWithin('rosettesTaken', work.rosettesTaken, 0, 1)
  const emerged = p.germination * state.seeds
  const flowering = state.rosettes * p.winterSurvival
  const shed = shedBy(flowering, p, work)
  return {
    seeds: bankAfter(state.seeds, shed, p),
    rosettes: survivorsOf(emerged, p, work) * (1 - work.rosettesTaken),
    emerged,
    flowering,
    shed,
  }
}

/**
 * One year of a weed that comes up, flowers and dies in it, in expected numbers per unit of area.
 *
 * @throws RangeError for shares outside 0 to 1, or anything negative
 */
export function annualYear(
  state: { seeds: number },
  p: WeedLife,
  work: WeedWork,
): { seeds: number; emerged: number; flowering: number; shed: number } {
  requireAtLeast('seeds', state.seeds, 0)
  requireLife(p, work)
  const emerged = p.germination * state.seeds
  const flowering = survivorsOf(emerged, p, work)
  const shed = shedBy(flowering, p, work)
  return { seeds: bankAfter(state.seeds, shed, p), emerged, flowering, shed }
}
