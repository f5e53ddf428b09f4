import codlingMoth from '../organisms/codling-moth.json' with { type: 'json' }
import grapeBerryMoth from '../organisms/grape-berry-moth.json' with { type: 'json' }
import { organismSchema, type Organism, type Quantity } from './schema.js'

export * from './schema.js'

/** Every organism of the library, checked; a bad entry stops the program at start. */
export const organisms: readonly Organism[] = [codlingMoth, grapeBerryMoth].map((entry) => organismSchema.parse(entry))

/** The entry with this id, if the library has it. */
export function findOrganism(id: string): Organism | undefined {
  return organisms.find((organism) => organism.id === id)
}

/** The numbers that a forecast of dates rests on. */
export function forecastQuantities(organism: Organism): Quantity[] {
  const { lower, upper } = organism.heat
  const events = organism.generations.flatMap((g) => g.events.flatMap((e) => [e.heat, e.atShare, e.spread, e.heatSe]))
  return [lower, ...(upper ? [upper] : []), ...events]
}

/** A forecast that rests on a placeholder is given in months, without dates. */
export function restsOnPlaceholder(organism: Organism): boolean {
  return organism.heat.confidence === 'placeholder' || forecastQuantities(organism).some((q) => q.confidence === 'placeholder')
}

/** The organism's year as plain numbers, in the form that the computation takes. */
export function modelOf(organism: Organism) {
  const { method, lower, upper, cutoff } = organism.heat
  return {
    heat: { method, lower: lower.value, ...(upper ? { upper: upper.value } : {}), ...(cutoff ? { cutoff } : {}) },
    generations: organism.generations.map((generation) => ({
      id: generation.id,
      reachableStages: generation.reachableStages,
      events: generation.events.map((e) => ({
        id: e.id,
        stage: e.stage,
        heat: e.heat.value,
        atShare: e.atShare.value,
        spread: e.spread.value,
        heatSe: e.heatSe.value,
        distribution: e.distribution,
        ...(e.countedFrom ? { countedFrom: e.countedFrom } : {}),
      })),
    })),
  }
}
