import type { Bounds } from '@bocado/core'

const finite = (value: number): number | null => (Number.isFinite(value) ? value : null)

/** Bounds as they travel: what does not happen within what is known is null. */
export const finiteBounds = ({ p10, p50, p90 }: Bounds) => ({ p10: finite(p10), p50: finite(p50), p90: finite(p90) })

/** As `finiteBounds`, to a tenth of a day: nothing that is forecast is known better. */
export const dateBounds = (b: Bounds) => finiteBounds({ p10: tenth(b.p10), p50: tenth(b.p50), p90: tenth(b.p90) })

const tenth = (value: number): number => Math.round(value * 10) / 10
