/** A way to act as an entry lists it: which of the organism's stages it reaches, and which strains or species of it do. */
export interface WayToAct {
  method: string
  stages: readonly string[]
  /** Without any, whatever bears the method's name reaches them. */
  strains?: readonly string[] | undefined
}

/** What a label says, as far as it decides whether a product is for a target. An empty list: nothing of it was entered. */
export interface GatedProduct {
  /** Methods of the library that it is for; none: nobody has said what it is. */
  methods: readonly string[]
  /** Strain, species, lure or group of it; null: not said. */
  strain: string | null
  stages: readonly string[]
  /** Organisms that the label names. */
  targets: readonly string[]
  crops: readonly string[]
  /** Kinds of place that the label names. */
  places: readonly string[]
}

/** What is to be treated, and where. */
export interface GateTarget {
  organism: string
  reach: readonly WayToAct[]
  /** What grows in the block, in the user's words; an empty text where nothing was entered. */
  grows: string
  place: string
}

/** Why a product is not for a target. */
export type GateRefusal = 'no-way-to-act' | 'other-strain' | 'no-stage' | 'target-not-on-label' | 'crop-not-on-label' | 'place-not-on-label'
/** What nobody has entered, so that nothing can be said of what it reaches. */
export type GateDoubt = 'unmapped' | 'strain-not-said'

export type GateVerdict =
  /** It is for this: the stages that it reaches, and the method by which it does. */
  | { verdict: 'fits'; methods: string[]; stages: string[] }
  /** It may be planned with a warning, and no coverage is computed. */
  | { verdict: 'doubtful'; because: GateDoubt }
  /** It is not offered, and nothing is computed. */
  | { verdict: 'refused'; because: GateRefusal }

const letters = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[^\p{L}]+/u)
    .filter(Boolean)

/** A word without the ending of its plural. */
const singular = (word: string): string => {
  if (word.endsWith('ies')) return `${word.slice(0, -3)}y`
  if (/(oes|ches|shes|sses|xes)$/.test(word)) return word.slice(0, -2)
  return word.endsWith('s') && !word.endsWith('ss') ? word.slice(0, -1) : word
}

/**
 * Whether what grows somewhere is one of the crops of a label; each word of the crop's name has to be there, in whatever number.
 *
 * @example growsAny('apple, 1988, on seedling stock', ['apples', 'pears']) // true
 * @example growsAny('sweet corn in three sowings', ['sweet corn']) // true
 */
export function growsAny(grows: string, crops: readonly string[]): boolean {
  const there = new Set(letters(grows).map(singular))
  return crops.some((crop) => letters(crop).length > 0 && letters(crop).every((word) => there.has(singular(word))))
}

/**
 * Whether a product is for a target: product → method of the library, with its strain → organism and stage → what the label names. What
 * neither the entry nor the label names is refused; what nobody has entered leaves a doubt.
 *
 * @returns the stages that both the label and the entry name, in the entry's order; or why there are none
 * @example targetGate({ methods: ['sulphur'], strain: null, stages: ['spore'], targets: [], crops: [], places: [] },
 *   { organism: 'vine-downy-mildew', reach: [{ method: 'copper', stages: ['spore'] }], grows: 'wine grape', place: 'vineyard' }).verdict // 'refused'
 */
export function targetGate(product: GatedProduct, target: GateTarget): GateVerdict {
  const refused = (because: GateRefusal): GateVerdict => ({ verdict: 'refused', because })
  const named = (of: readonly string[], what: string): boolean => of.length === 0 || of.includes(what)
  if (!named(product.targets, target.organism)) return refused('target-not-on-label')
  if (!named(product.places, target.place)) return refused('place-not-on-label')
  if (product.crops.length > 0 && target.grows !== '' && !growsAny(target.grows, product.crops)) return refused('crop-not-on-label')
  if (product.methods.length === 0) return { verdict: 'doubtful', because: 'unmapped' }
  const ways = target.reach.filter(({ method }) => product.methods.includes(method))
  if (ways.length === 0) return refused('no-way-to-act')
  const { strain } = product
  const ofStrain = ways.filter(({ strains }) => !strains || (strain !== null && strains.includes(strain)))
  if (ofStrain.length === 0) return strain === null ? { verdict: 'doubtful', because: 'strain-not-said' } : refused('other-strain')
  const reached = ofStrain.filter(({ stages }) => stages.some((stage) => product.stages.includes(stage)))
  if (reached.length === 0) return refused('no-stage')
  const stages = [...new Set(reached.flatMap((way) => way.stages))].filter((stage) => product.stages.includes(stage))
  return { verdict: 'fits', methods: [...new Set(reached.map(({ method }) => method))], stages }
}
