import type { Hemisphere } from '../time/civilDays.js'
import { toCelsius, type TemperatureUnit } from '../units/index.js'

/** Temperatures of a month as they were read, in °C. */
export interface MonthOfReadings {
  /** 1 to 12. */
  month: number
  mean: number
  count: number
}

/** Why the unit of temperatures is doubted, and the unit that would fit. */
export interface UnitDoubt {
  /** Months, 1 to 12, whose means are none of this place. */
  months: number[]
  /** Share of the readings that lie in them. */
  share: number
  better: TemperatureUnit
}

/** °C by which the mean of a month may differ from what the place has had. */
const FROM_USUAL = 12
/** °C that the mean of a month can have where nothing is known of the place: in the warm half of the year, in the cold one, and between. */
const USUAL_MEANS = { warm: [3, 42], cold: [-45, 26], between: [-20, 36], tropics: [-5, 42] } as const
/** Degrees of latitude within which seasons do not tell a unit. */
const TROPIC = 23.5
/** A share of readings that stops an import until somebody has looked. */
const SUSPICIOUS_SHARE = 0.2
/** Another unit has to leave at most this part of the doubt. */
const BETTER_BY = 0.25

/** In which temperatures are written, the commonest first. */
const UNITS: readonly TemperatureUnit[] = ['C', 'F', 'C/10']

/**
 * Doubts the unit of a file's temperatures where a fifth of them or more lies in months that the place cannot have had, and another
 * unit would fit: by what the station has stored of the same months, or else by the half of the year.
 *
 * @param months as read, in °C
 * @param usual mean of a month in °C by what is stored; undefined where too little is
 */
export function doubtedTemperatureUnit(
  months: readonly MonthOfReadings[],
  readAs: TemperatureUnit,
  usual: (month: number) => number | undefined,
  place: { latitude: number | null; hemisphere: Hemisphere },
): UnitDoubt | undefined {
  // Every unit is a straight line: what stands in the file is found back from what it was read as.
  const zero = toCelsius(0, readAs)
  const written = (mean: number): number => (mean - zero) / (toCelsius(1, readAs) - zero)
  const fits = (month: number, mean: number): boolean => {
    const known = usual(month)
    if (known !== undefined) return Math.abs(mean - known) <= FROM_USUAL
    const [least, most] = USUAL_MEANS[halfOf(month, place)]
    return mean >= least && mean <= most
  }
  const all = months.reduce((sum, { count }) => sum + count, 0)
  const shareOf = (wrong: readonly MonthOfReadings[]): number => wrong.reduce((sum, { count }) => sum + count, 0) / all
  const wrong = months.filter(({ month, mean }) => !fits(month, mean))
  if (all === 0 || shareOf(wrong) < SUSPICIOUS_SHARE) return undefined
  const better = UNITS.filter((unit) => unit !== readAs).find(
    (unit) => shareOf(months.filter(({ month, mean }) => !fits(month, toCelsius(written(mean), unit)))) <= BETTER_BY * shareOf(wrong),
  )
  if (!better) return undefined
  return {
    months: [...new Set(wrong.map(({ month }) => month))].sort((a, b) => a - b),
    share: shareOf(wrong),
    better,
  }
}

function halfOf(month: number, { latitude, hemisphere }: { latitude: number | null; hemisphere: Hemisphere }): keyof typeof USUAL_MEANS {
  if (latitude !== null && Math.abs(latitude) < TROPIC) return 'tropics'
  const northern = hemisphere === 'south' ? ((month + 5) % 12) + 1 : month
  if (northern >= 5 && northern <= 9) return 'warm'
  return northern >= 11 || northern <= 3 ? 'cold' : 'between'
}
