import { requireAtLeast, requireFinite, requireOrder } from '../guards.js'

/**
 * Development per day at a temperature in °C: a·T·(T − t0)·√(tl − T), 0 at and outside t0 and tl (Brière et al. 1999).
 *
 * @throws RangeError for non-finite numbers, a negative `p.a`, or `p.t0` not below `p.tl`.
 * @example briereRate(25, { a: 0.00014, t0: 9, tl: 35 }) // 0.1771
 */
export function briereRate(tempC: number, p: { a: number; t0: number; tl: number }): number {
  requireFinite('tempC', tempC)
  requireAtLeast('p.a', p.a, 0)
  requireOrder('p.t0', p.t0, 'p.tl', p.tl)
  if (tempC <= p.t0 || tempC >= p.tl) return 0
  return Math.max(0, p.a * tempC * (tempC - p.t0) * Math.sqrt(p.tl - tempC))
}

/**
 * Development per day at a temperature in °C by the beta function, `rmax` at `topt`, 0 at and outside `tmin` and `tmax`
 * (Yan & Hunt 1999).
 *
 * @throws RangeError for non-finite numbers or temperatures not in the order tmin < topt < tmax.
 * @example betaRate(25, { rmax: 0.09, tmin: 8, topt: 27, tmax: 36 }) // 0.08698
 */
export function betaRate(tempC: number, p: { rmax: number; tmin: number; topt: number; tmax: number }): number {
  requireFinite('tempC', tempC)
  requireAtLeast('p.rmax', p.rmax, 0)
  return p.rmax * betaResponse(tempC, p)
}

/**
 * The beta function scaled to 1 at `topt`; shared with the wetness models (Magarey, Sutton & Russo 2005).
 *
 * @example betaResponse(20, { tmin: 5, topt: 25, tmax: 35 }) // 0.8438
 */
export function betaResponse(tempC: number, p: { tmin: number; topt: number; tmax: number }): number {
  requireOrder('p.tmin', p.tmin, 'p.topt', p.topt)
  requireOrder('p.topt', p.topt, 'p.tmax', p.tmax)
  if (tempC <= p.tmin || tempC >= p.tmax) return 0
  const falling = (p.tmax - tempC) / (p.tmax - p.topt)
  const rising = (tempC - p.tmin) / (p.topt - p.tmin)
  return falling * rising ** ((p.topt - p.tmin) / (p.tmax - p.topt))
}
