/**
 * Conversions between the internal SI units and the units people read and type. Conversion happens once, at the edge.
 * Factors are exact by definition (international foot, acre, US gallon) unless said otherwise.
 */

export * from './compass.js'

export type TemperatureUnit = 'C' | 'F' | 'C/10'
export type RainUnit = 'mm' | 'in' | 'mm/10'
export type WindUnit = 'm/s' | 'km/h' | 'mph'

const SQUARE_METRES_PER_HECTARE = 10_000
const SQUARE_METRES_PER_SQUARE_FOOT = 0.09290304
const SQUARE_METRES_PER_ACRE = 4046.8564224
const LITRES_PER_US_GALLON = 3.785411784
const METRES_PER_SECOND_PER_MPH = 0.44704

/** °F to °C. */
export const celsiusFromFahrenheit = (f: number): number => ((f - 32) * 5) / 9
/** °C to °F. */
export const fahrenheitFromCelsius = (c: number): number => (c * 9) / 5 + 32
/** °C·d to °F·d: a sum of differences has no offset. */
export const fahrenheitDaysFromCelsiusDays = (cd: number): number => cd * 1.8
/** °F·d to °C·d. */
export const celsiusDaysFromFahrenheitDays = (fd: number): number => fd / 1.8

/** Temperature in `unit` to °C. */
export const toCelsius = (value: number, unit: TemperatureUnit): number =>
  unit === 'F' ? celsiusFromFahrenheit(value) : unit === 'C/10' ? value / 10 : value
/** Rain in `unit` to mm. */
export const toMillimetres = (value: number, unit: RainUnit): number =>
  unit === 'in' ? value * 25.4 : unit === 'mm/10' ? value / 10 : value
/** Wind speed in `unit` to m/s. */
export function toMetresPerSecond(value: number, unit: WindUnit): number {
  if (unit === 'km/h') return value / 3.6
  return unit === 'mph' ? value * METRES_PER_SECOND_PER_MPH : value
}

/** mm to inches. */
export const inchesFromMillimetres = (mm: number): number => mm / 25.4
/** m/s to mph. */
export const mphFromMetresPerSecond = (ms: number): number => ms / METRES_PER_SECOND_PER_MPH
/** ha to acres. */
export const acresFromHectares = (ha: number): number => squareMetresFromHectares(ha) / SQUARE_METRES_PER_ACRE
/** Acres to ha. */
export const hectaresFromAcres = (acres: number): number => hectaresFromSquareMetres(acres * SQUARE_METRES_PER_ACRE)
/** ha to m². */
export const squareMetresFromHectares = (ha: number): number => ha * SQUARE_METRES_PER_HECTARE
/** m² to ha. */
export const hectaresFromSquareMetres = (m2: number): number => m2 / SQUARE_METRES_PER_HECTARE
/** m² to square feet. */
export const squareFeetFromSquareMetres = (m2: number): number => m2 / SQUARE_METRES_PER_SQUARE_FOOT
/** Square feet to m². */
export const squareMetresFromSquareFeet = (ft2: number): number => ft2 * SQUARE_METRES_PER_SQUARE_FOOT
/** L/ha to US gallons per acre. */
export const gallonsPerAcreFromLitresPerHectare = (lha: number): number => ((lha / LITRES_PER_US_GALLON) * SQUARE_METRES_PER_ACRE) / 10_000

/** US gallons per acre to L/ha. */
export const litresPerHectareFromGallonsPerAcre = (gpa: number): number => (gpa * LITRES_PER_US_GALLON * 10_000) / SQUARE_METRES_PER_ACRE
/** L to US gallons, and back. */
export const gallonsFromLitres = (litres: number): number => litres / LITRES_PER_US_GALLON
export const litresFromGallons = (gallons: number): number => gallons * LITRES_PER_US_GALLON

const METRES_PER_FOOT = 0.3048
export const feetFromMetres = (m: number): number => m / METRES_PER_FOOT
export const metresFromFeet = (ft: number): number => ft * METRES_PER_FOOT

/** International avoirdupois pound, exact. */
const KILOGRAMS_PER_POUND = 0.45359237
export const poundsFromKilograms = (kg: number): number => kg / KILOGRAMS_PER_POUND
export const kilogramsFromPounds = (lb: number): number => lb * KILOGRAMS_PER_POUND
