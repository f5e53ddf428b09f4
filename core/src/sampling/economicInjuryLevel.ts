import { requirePositive } from '../guards.js'

/**
 * Pests per unit at which the loss equals the cost of control, C/(V·I·D·K) (Pedigo, Hutchins & Higley 1986): `cost` of
 * control per area, `value` of the crop per unit of yield, `injuryPerPest`, `lossPerInjury`, and the share of injury that
 * `control` prevents.
 *
 * @throws RangeError for anything not above 0, or `control` above 1.
 * @example economicInjuryLevel({ cost: 40, value: 200, injuryPerPest: 0.05, lossPerInjury: 0.8, control: 0.8 }) // 6.25
 */
export function economicInjuryLevel(p: {
  cost: number
  value: number
  injuryPerPest: number
  lossPerInjury: number
  control: number
}): number {
  requirePositive('p.cost', p.cost)
  requirePositive('p.value', p.value)
  requirePositive('p.injuryPerPest', p.injuryPerPest)
  requirePositive('p.lossPerInjury', p.lossPerInjury)
  requirePositive('p.control', p.control)
  if (p.control > 1) throw new RangeError(`p.control must be at most 1, got ${p.control}`)
  return p.cost / (p.value * p.injuryPerPest * p.lossPerInjury * p.control)
}
