import type { Sprayer } from '../band/mix.js'

type Kept = { [K in keyof Sprayer]: number | null }

const KEY = 'bocado.sprayer'
const NOTHING: Kept = { sprayLPerHa: null, tankL: null }

const isNumber = (value: unknown): value is number => typeof value === 'number' && Number.isFinite(value) && value > 0

/** The sprayer that was used on this device last. */
export function keptSprayer(): Kept {
  try {
    const kept = JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Record<keyof Kept, unknown>>
    const { sprayLPerHa, tankL } = kept
    return { sprayLPerHa: isNumber(sprayLPerHa) ? sprayLPerHa : null, tankL: isNumber(tankL) ? tankL : null }
  } catch {
    return NOTHING
  }
}

/** Keeps it for the next time; a browser that keeps nothing loses only that. */
export function keepSprayer(sprayer: Kept): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(sprayer))
  } catch {
    // It is typed again.
  }
}
