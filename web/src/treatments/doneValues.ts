import type { Label, Product, Taken, Treatment } from '@bocado/contract'
import { hoursAfter, momentOf } from '../design/moments.js'

/** What is typed of a treatment that was done. */
export type DoneValues = {
  day: string | null
  time: string
  endTime: string
  rate: number | null
  areaHa: number | null
  /** m kept clear of what lies near. */
  keptClearM: number | null
  minutes: number | null
  /** Who did it; null: whoever records it. */
  doneById: string | null
  /** What was picked, pulled or caught, where it is done by hand. */
  taken: number | null
  takenUnit: string
  weather: { tempC: number | null; humidityPct: number | null; windMs: number | null; windFrom: number | null }
  way: Product['ways'][number] | null
  machineId: string | null
  lotId: string | null
  amountUsed: number | null
  waterL: number | null
  cropStage: string
  targetStage: string
  bags: number | null
  waste: NonNullable<Treatment['done']>['waste']
  departureReason: string
  note: string
}

/** What was taken, as the form holds it. */
export const takenOf = (taken: { amount: number; unit: string } | null): Pick<DoneValues, 'taken' | 'takenUnit'> => ({
  taken: taken?.amount ?? null,
  takenUnit: taken?.unit ?? 'pieces',
})

export const NO_WEATHER: DoneValues['weather'] = { tempC: null, humidityPct: null, windMs: null, windFrom: null }

/** What nobody has said yet. */
export const NOTHING_MORE: Pick<
  DoneValues,
  'endTime' | 'way' | 'machineId' | 'lotId' | 'amountUsed' | 'waterL' | 'cropStage' | 'targetStage' | 'bags' | 'waste' | 'departureReason'
> = {
  endTime: '',
  way: null,
  machineId: null,
  lotId: null,
  amountUsed: null,
  waterL: null,
  cropStage: '',
  targetStage: '',
  bags: null,
  waste: null,
  departureReason: '',
}

/** A rate above that of its label here: it is recorded, with how it came to that. */
export const isAboveLabel = ({ rate }: Pick<DoneValues, 'rate'>, label: Label | null, most: number | null): boolean =>
  label !== null && rate !== null && rate > (most ?? label.labelRate)

/** Whether anybody said how it came to that. */
export const saysWhy = ({ departureReason }: Pick<DoneValues, 'departureReason'>): boolean => departureReason.trim().length >= 3

const DAY_HOURS = 24

/** When it ended: on the day of its begin, or after midnight where the clock says less. */
export function endOf(day: string | null, time: string, endTime: string, zone: string): string | null {
  const [begun, ended] = [momentOf(day, time, zone), momentOf(day, endTime, zone)]
  if (begun === null || ended === null) return null
  return ended < begun ? hoursAfter(ended, DAY_HOURS) : ended
}

/** What was typed, as the endpoint takes it. */
export function doneInput({ day, time, endTime, taken, takenUnit, ...rest }: DoneValues, zone: string) {
  return {
    ...rest,
    startedAt: momentOf(day, time, zone) ?? undefined,
    endedAt: endTime.trim() === '' ? null : (endOf(day, time, endTime, zone) ?? undefined),
    taken: taken === null ? null : { amount: taken, unit: takenUnit as Taken['unit'] },
  }
}
