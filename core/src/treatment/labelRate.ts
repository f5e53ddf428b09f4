import { growsAny } from './targetGate.js'

/** Rates of a label: the highest of all, and lower ones for a crop, a target, or both. */
export interface LabelRates {
  labelRate: number
  rates: readonly { crop: string; target: string | null; rate: number }[]
}

/**
 * The highest rate that a label allows for a target in what grows somewhere: that which names both, else the crop, else the target; else the
 * highest of all.
 *
 * @param grows what grows there, in the user's words; an empty text where nobody said
 * @returns in the unit of the label
 * @example rateFor({ labelRate: 10, rates: [{ crop: 'pear', target: null, rate: 6 }] }, 'codling-moth', 'pear') // 6
 */
export function rateFor({ labelRate, rates }: LabelRates, target: string, grows: string): number {
  const fits = rates.filter((one) => (one.target === null || one.target === target) && (one.crop === '' || growsAny(grows, [one.crop])))
  const said = ({ crop, target: named }: LabelRates['rates'][number]): number => (crop === '' ? 0 : 2) + (named === null ? 0 : 1)
  const [best] = [...fits].sort((a, b) => said(b) - said(a) || a.rate - b.rate)
  return best?.rate ?? labelRate
}
