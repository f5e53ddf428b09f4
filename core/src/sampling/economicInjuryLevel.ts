import { requireAtLeast, requirePositive } from '../guards.js'

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

/**
 * The count from which on to act so that it still works in time: where the loss equals the cost, less what breeds until it acts (Pedigo,
 * Hutchins & Higley 1986).
 *
 * @param p money per hectare and per kilogram, kilograms lost per hectare for each one per hundred items, share of it that is prevented, days
 * until it acts and in which they double; null where they do not breed on
 * @returns per hundred items, the level where loss and cost meet and the threshold
 * @throws RangeError as `economicInjuryLevel`, and for days below 0
 * @example actionPer100({ cost: 80, price: 0.5, loss: 40, control: 0.8, lagDays: 3, doublingDays: 6 }) // { injury: 5, action: 3.536 }
 */
export function actionPer100(p: {
  cost: number
  price: number
  loss: number
  control: number
  lagDays: number
  doublingDays: number | null
}): { injury: number; action: number } {
  const injury = economicInjuryLevel({ cost: p.cost, value: p.price, injuryPerPest: p.loss, lossPerInjury: 1, control: p.control })
  requireAtLeast('p.lagDays', p.lagDays, 0)
  if (p.doublingDays !== null) requirePositive('p.doublingDays', p.doublingDays)
  const grown = p.doublingDays === null ? 1 : 2 ** (p.lagDays / p.doublingDays)
  return { injury, action: injury / grown }
}
