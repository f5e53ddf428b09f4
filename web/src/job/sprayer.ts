import type { Sprayer } from '../band/mix.js'

/** The sprayer that was used on this device last, and which of the site's machines it was. */
export type KeptSprayer = { [K in keyof Sprayer]: number | null } & { machineId: string | null }

const KEY = 'bocado.sprayer'
const NOTHING: KeptSprayer = { sprayLPerHa: null, tankL: null, concentrate: null, machineId: null }

const amount = (value: unknown): number | null => (typeof value === 'number' && Number.isFinite(value) && value > 0 ? value : null)

/** The sprayer that was used on this device last. */
export function keptSprayer(): KeptSprayer {
  try {
    const kept = JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Record<keyof KeptSprayer, unknown>>
    const { sprayLPerHa, tankL, concentrate, machineId } = kept
    return {
      sprayLPerHa: amount(sprayLPerHa),
      tankL: amount(tankL),
      concentrate: amount(concentrate),
      machineId: typeof machineId === 'string' ? machineId : null,
    }
  } catch {
    return NOTHING
  }
}

/** Keeps it for the next time; a browser that keeps nothing loses only that. */
export function keepSprayer(sprayer: KeptSprayer): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(sprayer))
  } catch {
    // It is typed again.
  }
}
