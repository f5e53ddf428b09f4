/** A deed that protects, as far as it matters when the next is due. */
export interface Protection {
  /** Day number. */
  day: number
  /** Days for which its label says that it acts; null where it says none. */
  labelDays: number | null
  /** Taken up by the leaf: rain does not wash it off after its rain-fast hours. */
  systemic: boolean
}

/** What people recorded of a disease in a place and season. Hours lie on the axis of the weather's. */
export interface DiseaseRecords {
  /** Whether a source of infection is known near; `heavy` where last year's disease was. */
  source: 'yes' | 'no' | 'unknown' | 'heavy'
  /** Day number on which lesions of this season were first found. */
  lesionsFrom: number | undefined
  hail: readonly number[]
  /** Oldest first. */
  protections: readonly Protection[]
}

/** Nobody recorded anything. */
export const NO_RECORDS: DiseaseRecords = { source: 'unknown', lesionsFrom: undefined, hail: [], protections: [] }
