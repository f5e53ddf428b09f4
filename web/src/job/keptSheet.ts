import { useState } from 'react'

/** What was ticked, measured and worked out on a job sheet, on the device that one has along. */
export interface KeptSheet {
  ticked: string[]
  /** m/s, as it was measured on the spot. */
  windMs: number | null
  /** Degrees from which it blew. */
  windFrom: number | null
  begunAt: string | null
  endedAt: string | null
  machineId: string | null
  rate: number | null
  amount: number | null
  waterL: number | null
  /** Why less is used than the label names. */
  lessBecause: string
}

const EMPTY: KeptSheet = {
  ticked: [],
  windMs: null,
  windFrom: null,
  begunAt: null,
  endedAt: null,
  machineId: null,
  rate: null,
  amount: null,
  waterL: null,
  lessBecause: '',
}

const keyOf = (treatmentId: string): string => `bocado.sheet.${treatmentId}`

/** What a device keeps of the sheet of a treatment; nothing where it was never opened there. */
export function keptSheet(treatmentId: string): KeptSheet {
  try {
    return { ...EMPTY, ...(JSON.parse(localStorage.getItem(keyOf(treatmentId)) ?? '{}') as Partial<KeptSheet>) }
  } catch {
    return EMPTY
  }
}

/** Lets go of it, once what was done is recorded. */
export function forgetSheet(treatmentId: string): void {
  try {
    localStorage.removeItem(keyOf(treatmentId))
  } catch {
    // A browser that keeps nothing has nothing to let go of.
  }
}

/** The sheet of a treatment as this device keeps it; it is there again when the page was closed meanwhile, with or without a signal. */
export function useKeptSheet(treatmentId: string): [KeptSheet, (changes: Partial<KeptSheet>) => void] {
  const [sheet, setSheet] = useState(() => keptSheet(treatmentId))
  const set = (changes: Partial<KeptSheet>): void =>
    setSheet((before) => {
      const next = { ...before, ...changes }
      try {
        localStorage.setItem(keyOf(treatmentId), JSON.stringify(next))
      } catch {
        // It is ticked again.
      }
      return next
    })
  return [sheet, set]
}
