import { requireFinite, requirePositive } from '../guards.js'

/** Coefficients of the logarithm of the gamma function (Lanczos 1964, g = 7, nine terms). */
const LANCZOS = [
  0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059, 12.507343278686905,
  -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
]

function logGamma(x: number): number {
  let sum = LANCZOS[0] as number
  for (let i = 1; i < LANCZOS.length; i++) sum += (LANCZOS[i] as number) / (x - 1 + i)
  const t = x + 6.5
  return 0.5 * Math.log(2 * Math.PI) + (x - 0.5) * Math.log(t) - t + Math.log(sum)
}

const normings = new Map<number, number>()

/** 1 / (b · B(a, b)) for the two shapes of a t distribution; the same few degrees of freedom are asked for again and again. */
function norming(freedom: number): number {
  const known = normings.get(freedom)
  if (known !== undefined) return known
  const made = Math.exp(logGamma((freedom + 1) / 2) - logGamma(freedom / 2) - logGamma(0.5))
  if (normings.size < 1000) normings.set(freedom, made)
  return made
}

/** Continued fraction of the incomplete beta function (Lentz 1976). */
function betaFraction(a: number, b: number, x: number): number {
  const tiny = 1e-300
  const notZero = (value: number): number => (Math.abs(value) < tiny ? tiny : value)
  let c = 1
  let d = 1 / notZero(1 - ((a + b) * x) / (a + 1))
  let h = d
  for (let m = 1; m <= 300; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m))
    d = 1 / notZero(1 + even * d)
    c = notZero(1 + even / c)
    h *= d * c
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1))
    d = 1 / notZero(1 + odd * d)
    c = notZero(1 + odd / c)
    const by = d * c
    h *= by
    if (Math.abs(by - 1) < 1e-14) break
  }
  return h
}

const MOST_TERMS = 60
const FAR_TAIL = 0.25

/** Probability between −t and t for whole degrees of freedom (Abramowitz & Stegun 1964, 26.7.3 and 26.7.4); x is the squared cosine. */
function shareInside(t: number, freedom: number, x: number): number {
  const sine = Math.sqrt(1 - x)
  let term = 1
  let sum = 1
  if (freedom % 2 === 0) {
    for (let k = 2; k < freedom; k += 2) sum += term *= (x * (k - 1)) / k
    return sine * sum
  }
  const angle = Math.atan(t / Math.sqrt(freedom))
  if (freedom === 1) return (2 / Math.PI) * angle
  for (let k = 3; k < freedom; k += 2) sum += term *= (x * (k - 1)) / k
  return (2 / Math.PI) * (angle + sine * Math.sqrt(x) * sum)
}

/**
 * Distribution function of Student's t, to about 1e-13, by the incomplete beta function (Abramowitz & Stegun 1964, 26.7.1).
 *
 * @param freedom degrees of freedom, above 0; they need not be whole
 * @throws RangeError for a t that is no number, or degrees of freedom not above 0
 */
export function studentCdf(t: number, freedom: number): number {
  if (t === Infinity) return 1
  if (t === -Infinity) return 0
  requireFinite('t', t)
  requirePositive('freedom', freedom)
  if (t === 0) return 0.5
  const x = freedom / (freedom + t * t)
  // The finite series loses its last digits in the far tail, where 1 is taken from nearly 1.
  if (Number.isInteger(freedom) && freedom <= MOST_TERMS && x > FAR_TAIL) {
    const inside = shareInside(Math.abs(t), freedom, x)
    return t > 0 ? (1 + inside) / 2 : (1 - inside) / 2
  }
  const a = freedom / 2
  // Both tails together; the fraction is taken on the side on which it ends soon.
  const front = norming(freedom) * Math.pow(x, a) * Math.sqrt(1 - x)
  const twoTails = x < (a + 1) / (a + 2.5) ? (front * betaFraction(a, 0.5, x)) / a : 1 - (front * betaFraction(0.5, a, 1 - x)) / 0.5
  return t > 0 ? 1 - twoTails / 2 : twoTails / 2
}

/** Halvings that leave no more than rounding. */
const HALVINGS = 200

/**
 * Quantile of Student's t as exact as its distribution function: for results that are held against worked numbers.
 *
 * @throws RangeError for p not between 0 and 1, or degrees of freedom not above 0
 * @example studentQuantileExact(0.95, 18) // 1.734
 */
export function studentQuantileExact(p: number, freedom: number): number {
  requirePositive('freedom', freedom)
  if (!(p > 0 && p < 1)) throw new RangeError(`p must be between 0 and 1, got ${p}`)
  if (p < 0.5) return -studentQuantileExact(1 - p, freedom)
  let [low, high] = [0, 1]
  while (studentCdf(high, freedom) < p) high *= 2
  for (let i = 0; i < HALVINGS && high - low > Number.EPSILON * high; i++) {
    const middle = (low + high) / 2
    if (studentCdf(middle, freedom) < p) low = middle
    else high = middle
  }
  return (low + high) / 2
}
