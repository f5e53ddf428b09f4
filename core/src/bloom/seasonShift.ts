import { requireFinite, requirePositive } from '../guards.js'
import { combineEvidence, type Estimate } from '../phenology/combineEvidence.js'
import type { ResolvedEvent } from '../phenology/model.js'
import { normalCdf } from '../statistics/normal.js'

/** A bloom that was seen: the heat at which it came, the heat at which it was expected, and how far both may be off, all in °C·d. */
export interface SeenBloom {
  heat: number
  expected: number
  /** Standard deviation of its own difference between years and of its dating together. */
  sd: number
}

/** A bloom that has not come yet at a heat of `heat` °C·d. */
export type NotYet = SeenBloom

/** How a season differs from the model, for all that live in it. */
export interface SeasonShift {
  /** °C·d to add to what is expected; below 0 the season is ahead of the model. */
  heat: number
  sd: number
  /** Standard deviation of the shift before anything was seen. */
  prior: number
  /** Whether the evidence would have moved it further than twice the prior. */
  held: boolean
}

/** Between-year standard deviation of the shared shift where the site's own years do not tell it; a placeholder. */
export const SHIFT_PRIOR_SD = 15
/** A shift is held within this many prior standard deviations. */
const HELD_WITHIN = 2

const density = (z: number): number => Math.exp(-(z * z) / 2) / Math.sqrt(2 * Math.PI)

/** φ(z)/Φ(z); far below 0 both vanish and the ratio approaches −z. */
const mills = (z: number): number => (z < -6 ? -z - 1 / z : density(z) / normalCdf(z))

/**
 * One shift δ ~ N(0, prior²) that a season's blooms share: each bloom that was seen says H_obs − H_expected = δ + ε, and they are
 * combined by precision. The latest "not yet" of an event says that δ + ε lies above what has come so far; it is taken in by the
 * moments of the truncated normal. The result is held within twice the prior.
 *
 * @throws RangeError for a non-finite heat, or an sd or a prior not above 0
 */
export function seasonShift(seen: readonly SeenBloom[], notYet: readonly NotYet[], prior: number = SHIFT_PRIOR_SD): SeasonShift {
  requirePositive('prior', prior)
  seen.forEach((bloom, i) => requireBloom(`seen[${i}]`, bloom))
  notYet.forEach((bloom, i) => requireBloom(`notYet[${i}]`, bloom))
  let { mean, sd }: Estimate = combineEvidence(
    { mean: 0, sd: prior },
    seen.map(({ heat, expected, sd: own }) => ({ value: heat - expected, sd: own })),
  )
  for (const { heat, expected, sd: own } of notYet) {
    const whole = Math.hypot(sd, own)
    const z = (mean - (heat - expected)) / whole
    const ratio = mills(z)
    const gain = (sd * sd) / whole
    mean += gain * ratio
    sd = Math.sqrt(Math.max(1e-6, sd * sd - gain * gain * ratio * (ratio + z)))
  }
  const most = HELD_WITHIN * prior
  const held = Math.abs(mean) > most
  return { heat: Math.max(-most, Math.min(most, mean)), sd, prior, held }
}

function requireBloom(name: string, { heat, expected, sd }: SeenBloom): void {
  requireFinite(`${name}.heat`, heat)
  requireFinite(`${name}.expected`, expected)
  requirePositive(`${name}.sd`, sd)
}

/**
 * Standard deviation in °C·d of the shift between a site's own years: how much of the residuals of its blooms is shared within a
 * year. Undefined with fewer than three years of at least two blooms.
 *
 * @param years for each year the residuals H_obs − H_expected of its blooms
 */
export function sharedShiftSd(years: readonly (readonly number[])[]): number | undefined {
  const telling = years.filter((residuals) => residuals.length >= 2)
  if (telling.length < 3) return undefined
  const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length
  const means = telling.map(mean)
  const overall = mean(means)
  const between = means.reduce((sum, m) => sum + (m - overall) ** 2, 0) / (means.length - 1)
  const within =
    telling.reduce((sum, residuals, y) => sum + residuals.reduce((s, r) => s + (r - (means[y] as number)) ** 2, 0), 0) /
    telling.reduce((sum, residuals) => sum + residuals.length - 1, 0)
  const perYear = telling.length / telling.reduce((sum, residuals) => sum + 1 / residuals.length, 0)
  return Math.sqrt(Math.max(between - within / perYear, 1))
}

/** Of an event's error this much is its own at the least, however much of it the shared shift explains. */
const OWN_AT_LEAST = 0.5

/**
 * Events moved by a season's shift, in °C·d of their own scale. Each keeps its own part of the difference between years: what the
 * shift shares is taken out of its error, and the error of the shift put in. Spread between individuals stays what it is.
 */
export function moveByShift(events: readonly ResolvedEvent[], shift: Pick<SeasonShift, 'heat' | 'sd' | 'prior'>): ResolvedEvent[] {
  return events.map((event) => {
    const { spread } = event
    const median = spread.median + shift.heat
    const own = Math.sqrt(Math.max(event.heatSe ** 2 - shift.prior ** 2, (OWN_AT_LEAST * event.heatSe) ** 2))
    const moved =
      spread.kind === 'weibull'
        ? { ...spread, median, onset: spread.onset + shift.heat }
        : { ...spread, median: spread.kind === 'lognormal' ? Math.max(1, median) : median }
    return { ...event, spread: moved, heatSe: Math.hypot(own, shift.sd) }
  })
}
