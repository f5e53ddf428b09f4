/** Use of a material, as the pressure that it puts on resistance goes. */
export interface RotationUse {
  id: string
  /** Day number. */
  day: number
  /** First civil day of its season. */
  season: string
  organism: string
  /** Against a disease: then spray after spray counts, whatever the disease; of animals and weeds generation after generation. */
  disease: boolean
  /** Generation that it meets; null where nobody can say. */
  generation: string | null
  /** Group of its mode of action; empty where it is not known. */
  group: string
}

export interface RotationFault {
  kind: 'next-generation' | 'in-a-row' | 'share' | 'over-winter'
  /** The use that it follows, or that follows it; null for a share. */
  with: string | null
  group: string
  /** Share of the season's sprays, for that kind. */
  share: number | null
}

/**
 * Methods that work at many sites at once, by their body, or as living helpers: nothing becomes resistant to them soon. Whatever else comes
 * with a label is held to its group.
 */
export const EXEMPT_FROM_ROTATION: readonly string[] = [
  'copper',
  'sulphur',
  'multi-site-fungicide',
  'horticultural-oil',
  'insecticidal-soap',
  'kaolin',
  'diatomaceous-earth',
  'mating-disruption',
  'mass-trapping',
  'sticky-traps',
  'row-cover',
  'lacewings',
  'nematodes',
  'parasitoids',
  'predatory-mites',
]

/** Share of a season's sprays against diseases above which a single-site group is used too often, from three sprays on. */
export const MOST_SHARE_OF_GROUP = 0.5
const LEAST_SPRAYS = 3

/**
 * The group to which a material is held: that of its label, or else its only method, which has one mode of action. Empty where it is exempt, or
 * nobody can say.
 *
 * @example rotationGroup({ actionGroup: ' 5 ', methods: ['spinosyn'] }) // '5'
 * @example rotationGroup({ actionGroup: '', methods: ['spinosyn'] }) // 'spinosyn'
 * @example rotationGroup({ actionGroup: 'M02', methods: ['sulphur'] }) // ''
 */
export function rotationGroup({ actionGroup, methods }: { actionGroup: string; methods: readonly string[] }): string {
  if (methods.length > 0 && methods.every((method) => EXEMPT_FROM_ROTATION.includes(method))) return ''
  const group = actionGroup.trim().toUpperCase()
  return group === '' && methods.length === 1 ? (methods[0] ?? '') : group
}

const byDay = (a: RotationUse, b: RotationUse): number => a.day - b.day

/** The neighbours of a use among others, by a condition: the last one before it and the first one after it. */
function around(use: RotationUse, others: readonly RotationUse[], is: (other: RotationUse) => boolean): RotationUse[] {
  const fits = others.filter((other) => other.id !== use.id && is(other)).sort(byDay)
  const before = fits.findLast(({ day }) => day <= use.day)
  const after = fits.find(({ day }) => day > use.day)
  return [before, after].filter((one) => one !== undefined)
}

/**
 * What a use of a material does to the rotation of groups on one ground: the same group against two generations in a row, on two sprays in a
 * row against diseases, on more than half of a season's sprays, or on both sides of a winter.
 *
 * @param others uses on the same ground, those of the season before among them; those of exempt materials with an empty group
 * @returns null where it keeps the rotation, or where nobody can say
 */
export function rotationFault(use: RotationUse, others: readonly RotationUse[]): RotationFault | null {
  const { group, season } = use
  if (group === '') return null
  const said = (kind: RotationFault['kind'], other: RotationUse | null, share: number | null = null): RotationFault => ({
    kind,
    with: other?.id ?? null,
    group,
    share,
  })
  if (use.disease) {
    const sprays = others.filter(({ disease, id }) => disease && id !== use.id)
    const same = around(use, sprays, () => true).find((other) => other.group === group)
    if (same) return said(same.season === season ? 'in-a-row' : 'over-winter', same)
    const ofSeason = [...sprays.filter((other) => other.season === season), use]
    const share = ofSeason.filter((other) => other.group === group).length / ofSeason.length
    return ofSeason.length >= LEAST_SPRAYS && share > MOST_SHARE_OF_GROUP ? said('share', null, share) : null
  }
  const another = (other: RotationUse): boolean =>
    !other.disease &&
    other.organism === use.organism &&
    other.group !== '' &&
    (other.season !== season || (other.generation !== use.generation && other.generation !== null && use.generation !== null))
  const same = around(use, others, another).find((other) => other.group === group)
  return same ? said(same.season === season ? 'next-generation' : 'over-winter', same) : null
}
