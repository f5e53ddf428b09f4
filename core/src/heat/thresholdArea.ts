/**
 * A day's temperature curve above one threshold, by shape of the curve. `area` is in °C·d for the whole day,
 * `shareAbove` the share of the day spent strictly above the threshold. A flat day (min = max) is allowed.
 */
export interface DayCurve {
  area(min: number, max: number, threshold: number): number
  shareAbove(min: number, max: number, threshold: number): number
}

/** One sine wave through the extremes (Baskerville & Emin 1969). */
export const sineCurve: DayCurve = {
  area(min, max, threshold) {
    if (max <= threshold) return 0
    const mean = (min + max) / 2
    if (min >= threshold) return mean - threshold
    const half = (max - min) / 2
    const theta = Math.asin((threshold - mean) / half)
    return ((mean - threshold) * (Math.PI / 2 - theta) + half * Math.cos(theta)) / Math.PI
  },
  shareAbove(min, max, threshold) {
    if (max <= threshold) return 0
    if (min >= threshold) return 1
    return (Math.PI / 2 - Math.asin((2 * threshold - min - max) / (max - min))) / Math.PI
  },
}

/** Straight lines between the extremes (Lindsey & Newman 1956; Sevacherian et al. 1977). */
export const triangleCurve: DayCurve = {
  area(min, max, threshold) {
    if (max <= threshold) return 0
    if (min >= threshold) return (min + max) / 2 - threshold
    return (max - threshold) ** 2 / (2 * (max - min))
  },
  shareAbove(min, max, threshold) {
    if (max <= threshold) return 0
    if (min >= threshold) return 1
    return (max - threshold) / (max - min)
  },
}
