import type { Organism as OrganismInPages } from '@bocado/contract'
import { restsOnPlaceholder, type Organism } from '@bocado/library'
import { degreeClasses, PRESENT, type CountingRule } from '../scouting/countingRules.js'

/** A library entry as the pages need it. */
export function presentedOrganism(organism: Organism, rule?: CountingRule): OrganismInPages {
  const { id, version, name, scientificName, kind, crops, biofix, stages, infection, tooLate, lookAlikes, hazards } = organism
  return {
    id,
    version,
    name,
    scientificName,
    kind,
    crops,
    hosts: organism.about.hosts,
    gives: givenBy(organism),
    biofix: {
      kind: biofix.kind,
      ask: biofix.ask,
      bloom: biofix.kind === 'bloom' && biofix.event ? { plantId: biofix.plant, event: biofix.event } : null,
    },
    stages,
    sampling: samplingOf(organism, rule),
    infection: infection ? { inoculum: infection.inoculum, lookFor: infection.lookFor, curativeDays: infection.curativeDays.value } : null,
    reach: organism.about.reach.map(({ method, stages: reached, strains }) => ({
      method,
      stages: reached,
      ...(strains ? { strains } : {}),
    })),
    tooLate,
    poorlyReachable: organism.poorlyReachable ?? null,
    look: organism.about.look,
    lookAlikes,
    hazards,
  }
}

function givenBy(organism: Organism): OrganismInPages['gives'] {
  if (organism.infection) return 'infections'
  if (organism.emergence) return 'emergence'
  return organism.monthsOnly || restsOnPlaceholder(organism) ? 'months' : 'dates'
}

/** How it is counted: the library's way, with the site's own unit, weights, scale and frame where it has any. */
function samplingOf(
  { sampling: { decision, ...sampling }, about: { damage } }: Organism,
  rule: CountingRule | undefined,
): OrganismInPages['sampling'] {
  const byDegrees = rule?.scale === 'degrees'
  return {
    ...sampling,
    ...(decision === undefined ? {} : { decision }),
    ...(rule?.unit
      ? { unit: rule.unit.one, units: rule.unit.many, itemsPerUnit: rule.unit.items, suggestedUnits: rule.unit.suggested }
      : {}),
    classes: byDegrees
      ? degreeClasses(damage.degrees)
      : rule?.scale === 'presence'
        ? [{ ...PRESENT }]
        : sampling.classes.map((one) => ({ ...one, weight: rule?.weights[one.id] ?? one.weight })),
    // What the library counts, and the number on which it decides, are of another kind than shares of a surface.
    ...(byDegrees ? { measure: 'density' as const, threshold: { ...sampling.threshold, confidence: 'placeholder' as const } } : {}),
    ...(rule?.scale === 'presence' ? { measure: 'presence' as const } : {}),
    rule: rule
      ? {
          id: rule.id,
          frame: rule.frame,
          reason: rule.reason,
          weights: rule.weights,
          hasUnit: rule.unit !== null,
          plan: rule.plan,
          rowVersion: rule.rowVersion,
        }
      : null,
    scale: rule?.scale ?? 'classes',
    degrees: { drawing: damage.drawing, percents: damage.degrees },
  }
}
