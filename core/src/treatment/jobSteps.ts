/** What is done with a job, in the order in which it is done. */
export const jobSteps = [
  'read-label',
  'look-at-plants',
  'half-water',
  'water-acid',
  'slurry',
  'product',
  'adjuvant',
  'dye',
  'rest-water',
  'stir',
  'catch-test',
  'soak-ground',
  'mix-living',
  'apply',
  'keep-stirring',
  'wash-in',
  'cut',
  'paint',
  'lay-out',
  'put-out',
  'work',
  'sample',
  'rinse',
  'sign-up',
  'take-down',
  'gather',
] as const
export type JobStep = (typeof jobSteps)[number]

/** A step, and for how long it is done where that matters. */
export interface Step {
  step: JobStep
  /** null where it takes as long as it takes. */
  minutes: number | null
}

/** Minutes of stirring after everything is in the tank, and before powders go in. */
const STIR_MINUTES = 3
const SLURRY_MINUTES = 2
/** Minutes between the cut and the paint: later, the stem has closed. */
const PAINT_WITHIN_MINUTES = 1

/** What is put out, as far as its steps depend on it. */
export interface JobOf {
  /** Ways of application of its label; null: it is done by hand. */
  ways: readonly string[] | null
  formulation: string | null
  /** It is alive: nematodes, predators, parasitoids. */
  living: boolean
  /** The label asks for something in the water. */
  asksOfWater: boolean
}

const POWDERS: readonly string[] = ['powder', 'granules']
const WET: readonly string[] = ['spray', 'spot-spray', 'drench']

/**
 * The steps of a job in their order. Water goes in first, then what is stirred in, then the rest of the water; what is alive goes into the tank
 * last and is kept moving; a stem is painted within a minute of the cut.
 *
 * @example stepsOf({ ways: null, formulation: null, living: false, asksOfWater: false }).map(({ step }) => step).join() // 'look-at-plants,work,sample,gather'
 */
export function stepsOf({ ways, formulation, living, asksOfWater }: JobOf): Step[] {
  const step = (name: JobStep, minutes: number | null = null): Step => ({ step: name, minutes })
  if (ways === null) return [step('look-at-plants'), step('work'), step('sample'), step('gather')]
  const first = [step('read-label'), step('look-at-plants')]
  const last = [step('sample'), step('sign-up')]
  const isIn = (all: readonly string[]): boolean => ways.some((way) => all.includes(way))
  if (living && isIn(WET))
    return [
      ...first,
      step('soak-ground'),
      step('half-water'),
      step('mix-living'),
      step('keep-stirring'),
      step('apply'),
      step('wash-in'),
      ...last,
      step('rinse'),
    ]
  if (ways.includes('paint'))
    return [...first, ...(asksOfWater ? [step('dye')] : []), step('cut'), step('paint', PAINT_WITHIN_MINUTES), ...last, step('gather')]
  if (ways.length === 0 || isIn(WET))
    return [
      ...first,
      step('half-water'),
      ...(asksOfWater ? [step('water-acid')] : []),
      ...(formulation !== null && POWDERS.includes(formulation) ? [step('slurry', SLURRY_MINUTES)] : []),
      step('product'),
      ...(asksOfWater ? [step('adjuvant')] : []),
      step('rest-water'),
      step('stir', STIR_MINUTES),
      step('catch-test'),
      step('apply'),
      ...last,
      step('rinse'),
    ]
  if (isIn(['trap', 'dispensers'])) return [...first, step('lay-out'), step('put-out'), step('sample'), step('take-down')]
  return [...first, step('put-out'), ...last]
}
