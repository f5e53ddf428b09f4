import type { Round, Treatment, WetEvent } from '@bocado/contract'
import { dayNumber, onHourAxis, type DiseaseRecords } from '@bocado/core'
import { datedEvents, methods, type Organism } from '@bocado/library'
import type { listSightings } from './eventRecords.js'
import type { StoredWatch } from './store.js'

/** What a season knows of its diseases beside the weather. */
export interface SeasonRecords {
  treatments: readonly Treatment[]
  rounds: readonly Round[]
  sightings: Awaited<ReturnType<typeof listSightings>>
}

/** How far lesions are counted or seen as such. */
const LESION_STAGE = 'lesion'

/** What people recorded of a disease that is watched: its source, its first lesions, hail, and what was put on against it. */
export function diseaseRecords(
  watch: StoredWatch,
  organism: Organism,
  { treatments, rounds, sightings }: SeasonRecords,
  wetEvents: readonly WetEvent[],
  utcOffsetMinutes: number,
  isFoundNear = false,
): DiseaseRecords | undefined {
  if (!organism.infection) return undefined
  const lesionEvents = datedEvents(organism).flatMap(({ id, stage }) => (stage === LESION_STAGE ? [id] : []))
  const found = [
    ...rounds.filter(({ watchId, per100 }) => watchId === watch.id && per100 > 0).map(({ countedOn }) => countedOn),
    ...sightings
      .filter(
        (s) =>
          s.season === watch.season &&
          s.blockId === watch.blockId &&
          s.organismId === watch.organismId &&
          s.kind !== 'catch' &&
          lesionEvents.includes(s.event),
      )
      .map(({ seenOn }) => seenOn),
  ].sort()
  return {
    // What somebody said of the place itself stands; where nobody did, a find near by speaks for a source.
    source: watch.sourceKnown === 'unknown' && isFoundNear ? 'yes' : watch.sourceKnown,
    lesionsFrom: found[0] === undefined ? undefined : dayNumber(found[0]),
    hail: wetEvents.filter(({ kind }) => kind === 'hail').map(({ startedAt }) => onHourAxis(Date.parse(startedAt), utcOffsetMinutes)),
    protections: treatments
      .flatMap(({ watchId, done, deviation }) => {
        if (watchId !== watch.id || !done?.label || deviation) return []
        const { residualDays, methods: of } = done.label
        const systemic = of.some((id) => methods.some((method) => method.id === id && method.systemic))
        return [{ day: dayNumber(done.day), labelDays: residualDays > 0 ? residualDays : null, systemic }]
      })
      .sort((a, b) => a.day - b.day),
  }
}
