import {
  acresFromHectares,
  celsiusFromFahrenheit,
  fahrenheitDaysFromCelsiusDays,
  fahrenheitFromCelsius,
  feetFromMetres,
  gallonsFromLitres,
  gallonsPerAcreFromLitresPerHectare,
  hectaresFromAcres,
  hectaresFromSquareMetres,
  squareMetresFromHectares,
  inchesFromMillimetres,
  kilogramsFromPounds,
  litresFromGallons,
  litresPerHectareFromGallonsPerAcre,
  metresFromFeet,
  mphFromMetresPerSecond,
  poundsFromKilograms,
  squareFeetFromSquareMetres,
  squareMetresFromSquareFeet,
  toMetresPerSecond,
} from '@bocado/core/units'

export { acresFromHectares, hectaresFromSquareMetres, kilogramsFromPounds, squareMetresFromHectares }

/** A quantity as the site's people read and type it; stored values stay SI. The one place where the page converts. */
export interface Measure {
  unit: string
  digits: number
  shown: (si: number) => number
  stored: (shown: number) => number
}

export interface Measures {
  temperature: Measure
  heat: Measure
  rain: Measure
  wind: Measure
  area: Measure
  /** Parts of a block, too small for hectares. */
  ground: Measure
  /** Above the sea, or above the ground. */
  height: Measure
  /** How much vapour the air lacks; kept in hPa. */
  vapour: Measure
  /** What was picked. */
  weight: Measure
  /** Of a tank, and of spray on ground; kept in L and L/ha. */
  volume: Measure
  sprayVolume: Measure
}

/** A share that is read and typed in per cent. */
export const PERCENT: Pick<Measure, 'shown' | 'stored'> = { shown: (share) => share * 100, stored: (percent) => percent / 100 }

const same = (x: number): number => x

const METRIC: Measures = {
  temperature: { unit: '°C', digits: 1, shown: same, stored: same },
  heat: { unit: '°C·d', digits: 0, shown: same, stored: same },
  rain: { unit: 'mm', digits: 1, shown: same, stored: same },
  wind: { unit: 'm/s', digits: 1, shown: same, stored: same },
  area: { unit: 'ha', digits: 2, shown: same, stored: same },
  ground: { unit: 'm²', digits: 1, shown: same, stored: same },
  height: { unit: 'm', digits: 1, shown: same, stored: same },
  vapour: { unit: 'hPa', digits: 1, shown: same, stored: same },
  weight: { unit: 'kg', digits: 1, shown: same, stored: same },
  volume: { unit: 'L', digits: 1, shown: same, stored: same },
  sprayVolume: { unit: 'L/ha', digits: 0, shown: same, stored: same },
}

const US: Measures = {
  temperature: { unit: '°F', digits: 0, shown: fahrenheitFromCelsius, stored: celsiusFromFahrenheit },
  heat: { unit: '°F·d', digits: 0, shown: fahrenheitDaysFromCelsiusDays, stored: (f) => f / 1.8 },
  rain: { unit: 'in', digits: 2, shown: inchesFromMillimetres, stored: (inches) => inches * 25.4 },
  wind: { unit: 'mph', digits: 0, shown: mphFromMetresPerSecond, stored: (mph) => toMetresPerSecond(mph, 'mph') },
  area: { unit: 'acres', digits: 2, shown: acresFromHectares, stored: hectaresFromAcres },
  ground: { unit: 'ft²', digits: 0, shown: squareFeetFromSquareMetres, stored: squareMetresFromSquareFeet },
  height: { unit: 'ft', digits: 0, shown: feetFromMetres, stored: metresFromFeet },
  vapour: { unit: 'kPa', digits: 2, shown: (hPa) => hPa / 10, stored: (kPa) => kPa * 10 },
  weight: { unit: 'lb', digits: 1, shown: poundsFromKilograms, stored: kilogramsFromPounds },
  volume: { unit: 'gal', digits: 1, shown: gallonsFromLitres, stored: litresFromGallons },
  sprayVolume: { unit: 'gal/acre', digits: 1, shown: gallonsPerAcreFromLitresPerHectare, stored: litresPerHectareFromGallonsPerAcre },
}

/** How a number of a model is shown that has a unit of the library; what no site has its own unit for stays as it is. */
export function measureOf(unit: string, { temperature, heat, rain, wind, area, ground, height }: Measures): Measure {
  if (unit === '°C') return { ...temperature, digits: 1 }
  if (unit === '°C·d') return { ...heat, digits: 1 }
  if (unit === 'mm') return rain
  if (unit === 'm') return height
  if (unit === 'ha') return area
  if (unit === 'm²') return ground
  if (unit === 'm/s') return { ...wind, digits: 1 }
  return { unit: unit === '1' ? '' : unit, digits: 2, shown: same, stored: same }
}

/** A difference in a unit of the library, without the zero that a scale of temperature begins from. */
export function differenceOf(difference: number, unit: string, measures: Measures): number {
  const { shown } = measureOf(unit, measures)
  return shown(difference) - shown(0)
}

/** Below this an area is told in the small unit, in ha. */
const SMALL_HA = 0.1

/** How an area in hectares is shown: in the small unit where it is small. */
export function groundOf(ha: number | null, { area, ground }: Measures): Measure & { isSmall: boolean } {
  if (ha === null || Math.abs(ha) >= SMALL_HA) return { ...area, isSmall: false }
  return {
    unit: ground.unit,
    digits: ground.digits,
    shown: (hectares) => ground.shown(hectares * 10_000),
    stored: (shown) => hectaresFromSquareMetres(ground.stored(shown)),
    isSmall: true,
  }
}

export const measuresOf = (units: 'metric' | 'us'): Measures => (units === 'us' ? US : METRIC)
