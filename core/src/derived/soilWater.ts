import { dayOfYear } from '../time/civilDays.js'
import { hasDay, type DailySeries } from '../weather/dailySeries.js'
import { ROOT_ZONE_M, SURFACE_M, waterCapacity, type SoilTexture } from './soil.js'
import { moisture, referenceEvapotranspiration } from './water.js'

/** Water in the root zone and in the upper 5 cm at the end of each day, as shares of what they hold. */
export interface SoilWater {
  root: ReturnType<typeof moisture>
  surface: ReturnType<typeof moisture>
}

/**
 * Water in the soil at the end of each day from `from` to the day before `until`.
 *
 * @param waterOn mm that reached the soil on a day; undefined where that is not known
 */
export function soilWater(
  series: DailySeries,
  waterOn: (day: number) => number | undefined,
  { from, until }: { from: number; until: number },
  latitude: number,
  texture: SoilTexture,
): SoilWater {
  const water = new Float64Array(until - from).fill(NaN)
  const et0 = new Float64Array(until - from).fill(NaN)
  for (let day = from; day < until; day++) {
    water[day - from] = waterOn(day) ?? NaN
    if (!hasDay(series, day)) continue
    const i = day - series.firstDay
    et0[day - from] = referenceEvapotranspiration({ min: series.min[i] as number, max: series.max[i] as number }, latitude, dayOfYear(day))
  }
  return {
    root: moisture(water, et0, waterCapacity(texture, ROOT_ZONE_M)),
    surface: moisture(water, et0, waterCapacity(texture, SURFACE_M)),
  }
}
