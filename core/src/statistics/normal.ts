import { requireFinite, requirePositive } from '../guards.js'

/**
 * Distribution function of the standard normal, to about 1e-15.
 * Series near the centre, continued fraction in the tails (Abramowitz & Stegun 1964, 26.2.11 and 26.2.14).
 *
 * @example normalCdf(1) // 0.8413
 */
export function normalCdf(z: number): number {
  if (z === Infinity) return 1
  if (z === -Infinity) return 0
  requireFinite('z', z)
  const x = Math.abs(z)
  const density = Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI)
  let upperTail: number
  if (x < 3.5) {
    let term = x
    let sum = x
    for (let k = 3; term > sum * 1e-17; k += 2) {
      term *= (x * x) / k
      sum += term
    }
    upperTail = 0.5 - density * sum
  } else {
    let fraction = 0
    for (let k = 60; k >= 1; k--) fraction = k / (x + fraction)
    upperTail = density / (x + fraction)
  }
  return z > 0 ? 1 - upperTail : upperTail
}

/**
 * Quantile of the standard normal: the z below which a share `p` lies, 0 < p < 1.
 * Bisection on `normalCdf`: slow beside a rational approximation, exact, and called a few hundred times at most.
 *
 * @example normalQuantile(0.9) // 1.282
 */
export function normalQuantile(p: number): number {
  requireFinite('p', p)
  if (p <= 0 || p >= 1) throw new RangeError(`p must be between 0 and 1, got ${p}`)
  let low = -9
  let high = 9
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2
    if (normalCdf(middle) < p) low = middle
    else high = middle
  }
  return (low + high) / 2
}

/**
 * Quantile of Student's t with `freedom` degrees of freedom (Hill 1970, algorithm 396); above 0.5 by symmetry.
 * Error below 1e-4 from 3 degrees of freedom on; 1 and 2 are in closed form.
 *
 * @example studentQuantile(0.9, 4) // 1.533
 */
export function studentQuantile(p: number, freedom: number): number {
  requirePositive('freedom', freedom)
  if (p <= 0 || p >= 1) throw new RangeError(`p must be between 0 and 1, got ${p}`)
  if (p < 0.5) return -studentQuantile(1 - p, freedom)
  const twoTailed = 2 * (1 - p)
  if (twoTailed === 1) return 0
  const n = freedom
  if (n === 1) return 1 / Math.tan((twoTailed * Math.PI) / 2)
  if (n === 2) return Math.sqrt(2 / (twoTailed * (2 - twoTailed)) - 2)
  const a = 1 / (n - 0.5)
  const b = 48 / (a * a)
  let c = (((20700 * a) / b - 98) * a - 16) * a + 96.36
  const d = ((94.5 / (b + c) - 3) / b + 1) * Math.sqrt((a * Math.PI) / 2) * n
  let y = (d * twoTailed) ** (2 / n)
  if (y > 0.05 + a) {
    const x = normalQuantile(twoTailed / 2)
    y = x * x
    if (n < 5) c += 0.3 * (n - 4.5) * (x + 0.6)
    c = (((0.05 * d * x - 5) * x - 7) * x - 2) * x + b + c
    y = (((((0.4 * y + 6.3) * y + 36) * y + 94.5) / c - y - 3) / b + 1) * x
    y = Math.expm1(a * y * y)
  } else {
    y = ((1 / (((n + 6) / (n * y) - 0.089 * d - 0.822) * (n + 2) * 3) + 0.5 / (n + 4)) * y - 1) * ((n + 1) / (n + 2)) + 1 / y
  }
  return Math.sqrt(n * y)
}
