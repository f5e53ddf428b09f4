import { dewPoint, saturationPressure } from './air.js'

/** By how much plants and damp soil may raise the dew point under a cover that is shut, in °C (from practice). */
const MOST_RAISED_C = 4

/** Relative humidity under a cover without a logger, in %: at the least with its doors open, at the most with them shut. */
export interface InsideHumidity {
  drier: Float64Array
  damper: Float64Array
}

/**
 * Humidity under a cover by the dew point outside: the air inside holds at least the water of the air outside, and at most as much as a
 * dew point 4 °C higher. Wide, and known to be; a logger inside says it better.
 *
 * @param outside °C and % hour by hour; NaN where not known
 * @param insideC °C inside, on the same hours
 * @example insideHumidity({ tempC: [10], humidityPct: [80] }, [15]).drier[0] // 57.63
 */
export function insideHumidity(
  outside: { tempC: ArrayLike<number>; humidityPct: ArrayLike<number> },
  insideC: ArrayLike<number>,
): InsideHumidity {
  const { length } = outside.humidityPct
  const drier = new Float64Array(length).fill(NaN)
  const damper = new Float64Array(length).fill(NaN)
  for (let i = 0; i < length; i++) {
    const [t, rh, inside] = [outside.tempC[i] ?? NaN, outside.humidityPct[i] ?? NaN, insideC[i] ?? NaN]
    if (Number.isNaN(t) || Number.isNaN(rh) || Number.isNaN(inside)) continue
    const dew = dewPoint(t, Math.min(100, Math.max(0, rh)))
    const at = (dewC: number): number => Math.min(100, (100 * saturationPressure(dewC)) / saturationPressure(inside))
    drier[i] = at(dew)
    damper[i] = at(dew + MOST_RAISED_C)
  }
  return { drier, damper }
}
