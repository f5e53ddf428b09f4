import type { Organism as OrganismInPages } from '@bocado/contract'
import type { Organism } from '@bocado/library'

/** A library entry as the pages need it. */
export function presentedOrganism(organism: Organism): OrganismInPages {
  const { id, version, name, scientificName, kind, crops, biofix, stages, sampling, infection, tooLate, lookAlikes, hazards } = organism
  return {
    id,
    version,
    name,
    scientificName,
    kind,
    crops,
    biofix: {
      kind: biofix.kind,
      ask: biofix.ask,
      bloom: biofix.kind === 'bloom' && biofix.event ? { plantId: biofix.plant, event: biofix.event } : null,
    },
    stages,
    sampling,
    infection: infection ? { inoculum: infection.inoculum, lookFor: infection.lookFor, curativeDays: infection.curativeDays.value } : null,
    reach: organism.about.reach.map(({ method, stages: reached, strains }) => ({
      method,
      stages: reached,
      ...(strains ? { strains } : {}),
    })),
    tooLate,
    poorlyReachable: organism.poorlyReachable ?? null,
    lookAlikes,
    hazards,
  }
}
