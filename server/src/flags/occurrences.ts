import type { endpoints, ResponseOf } from '@bocado/contract'
import type { Deps } from '../http/route.js'
import { organismsOf } from '../library/catalogue.js'

/** Terms of Darwin Core (Wieczorek and others 2012), in which finds of plants and animals are exchanged. */
export const OCCURRENCE_TERMS = [
  'occurrenceID',
  'eventDate',
  'occurrenceStatus',
  'scientificName',
  'vernacularName',
  'individualCount',
  'lifeStage',
  'decimalLatitude',
  'decimalLongitude',
  'coordinateUncertaintyInMeters',
  'locality',
  'samplingEffort',
  'recordedBy',
  'occurrenceRemarks',
] as const

type Cells = Record<(typeof OCCURRENCE_TERMS)[number], string | number>

/** Each visit to a flag, and each search that found nothing by what was looked for, as a line of what was there or not. */
export async function occurrences(deps: Deps, siteId: string, { flags, searches }: ResponseOf<typeof endpoints.flags.list>) {
  const organisms = new Map((await organismsOf(deps.db, siteId)).map((one) => [one.id, one]))
  const named = (id: string | null) => ({
    scientificName: organisms.get(id ?? '')?.scientificName ?? '',
    vernacularName: organisms.get(id ?? '')?.name ?? id ?? '',
  })
  const lines: Cells[] = [
    ...flags.flatMap((flag) =>
      flag.visits.map((visit): Cells => ({
        ...named(flag.organismId),
        occurrenceID: visit.id,
        eventDate: visit.seenOn,
        occurrenceStatus: visit.sight === 'standing' || visit.sight === 'regrowing' ? 'present' : 'absent',
        individualCount: visit.plants ?? '',
        lifeStage: visit.stage ?? '',
        decimalLatitude: flag.position?.latitude ?? '',
        decimalLongitude: flag.position?.longitude ?? '',
        coordinateUncertaintyInMeters: flag.position?.accuracyM ?? '',
        locality: `${flag.placeName}, flag ${flag.number}`,
        samplingEffort: visit.minutes === null ? '' : `${visit.minutes} minutes`,
        recordedBy: visit.personName,
        occurrenceRemarks: visit.note,
      })),
    ),
    ...searches
      .filter(({ found }) => !found)
      .flatMap((search) =>
        search.organismIds.map((organismId): Cells => ({
          ...named(organismId),
          occurrenceID: `${search.id}:${organismId}`,
          eventDate: search.searchedOn,
          occurrenceStatus: 'absent',
          individualCount: '',
          lifeStage: '',
          decimalLatitude: '',
          decimalLongitude: '',
          coordinateUncertaintyInMeters: '',
          locality: search.placeName,
          samplingEffort: [
            search.minutes === null ? '' : `${search.minutes} minutes`,
            search.covered === null ? '' : `${Math.round(100 * search.covered.share)} % of the place seen`,
          ]
            .filter(Boolean)
            .join('; '),
          recordedBy: search.personName,
          occurrenceRemarks: search.note,
        })),
      ),
  ]
  return lines.map((line) => OCCURRENCE_TERMS.map((term) => line[term]))
}
