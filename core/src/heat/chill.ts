/**
 * Chill portions accumulated by the end of each hour, from hourly temperatures in °C (dynamic model; Fishman, Erez &
 * Couvillon 1987). The intermediate product starts at 0 and carries over from hour to hour.
 *
 * @throws RangeError naming the hour, as `tempsC[7]`, for a non-finite temperature or one at or below −273 °C.
 * @example chillPortions(Array(200).fill(6)).at(-1) // 6.844
 */
export function chillPortions(tempsC: ArrayLike<number>): Float64Array {
  const e0 = 4153.5
  const e1 = 12888.8
  const a0 = 139500
  const a1 = 2.567e18
  const slope = 1.6
  const transition = 277
  const result = new Float64Array(tempsC.length)
  let product = 0
  let portions = 0
  for (let i = 0; i < tempsC.length; i++) {
    const kelvin = (tempsC[i] as number) + 273
    if (!Number.isFinite(kelvin) || kelvin <= 0) throw new RangeError(`tempsC[${i}] must be a finite temperature, got ${tempsC[i]}`)
    const balance = (a0 / a1) * Math.exp((e1 - e0) / kelvin)
    const rate = a1 * Math.exp(-e1 / kelvin)
    product = balance - (balance - product) * Math.exp(-rate)
    if (product >= 1) {
      const z = (slope * transition * (kelvin - transition)) / kelvin
      const fixed = 1 / (1 + Math.exp(-z))
      portions += fixed * product
      product *= 1 - fixed
    }
    result[i] = portions
  }
  return result
}
