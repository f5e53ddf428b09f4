/** Where what was taken can go. */
export const disposals = ['leave', 'dry', 'compost-hot', 'bag', 'bury', 'burn', 'waste-site'] as const
export type Disposal = (typeof disposals)[number]

/** What was taken, as far as it decides where it can go. */
export interface Waste {
  /** It bears seed, or will ripen it where it lies. */
  ripens: boolean
  /** Pieces of it root again. */
  regrows: boolean
  /** It is diseased, or what harms is alive in it. */
  carries: boolean
  /** The law names it: it is not moved without a permit. */
  listed: boolean
  /** A rule of the place forbids fire on that day. */
  noFire: boolean
}

/** Why somewhere is no place for it. */
export type DisposalBar = 'ripens' | 'regrows' | 'carries' | 'listed' | 'fire-closed'

/**
 * Where what was taken can go, and what keeps it from elsewhere. What ripens or is diseased is neither left nor dried in the open; pieces that
 * root again are not left on the ground nor buried; hot compost takes what is not listed and does not root; fire is what the place allows; what
 * the law names goes to a waste site only, with a permit to move it.
 *
 * @returns one line for each place, in the order of least work
 * @example disposalOf({ ripens: true, regrows: true, carries: false, listed: false, noFire: true })[0].bars.join() // 'ripens,regrows'
 */
export function disposalOf({ ripens, regrows, carries, listed, noFire }: Waste): { way: Disposal; bars: DisposalBar[] }[] {
  const bars: Record<Disposal, [DisposalBar, boolean][]> = {
    leave: [
      ['ripens', ripens],
      ['regrows', regrows],
      ['carries', carries],
    ],
    dry: [
      ['ripens', ripens],
      ['carries', carries],
    ],
    'compost-hot': [
      ['regrows', regrows],
      ['listed', listed],
    ],
    bag: [],
    bury: [
      ['regrows', regrows],
      ['listed', listed],
    ],
    burn: [['fire-closed', noFire]],
    'waste-site': [],
  }
  return disposals.map((way) => ({ way, bars: bars[way].flatMap(([bar, holds]) => (holds ? [bar] : [])) }))
}
