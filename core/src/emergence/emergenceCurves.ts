import { SOIL_RESPONSE, SURFACE_M, waterCapacity, type SoilCover, type SoilTexture } from '../derived/soil.js'
import { referenceEvapotranspiration } from '../derived/water.js'
import { LEAD_DAYS, type SeasonDay, type SeasonWeather } from '../weather/seasonWeather.js'
import { emergenceTime, type EmergenceClock } from './emergence.js'
import { waterPotential } from './waterPotential.js'

/** The ground in which seeds lie. */
export interface SeedBed {
  texture: SoilTexture
  cover: SoilCover
  latitude: number
}

/** Soil of one member as it goes from day to day. */
interface SoilState {
  temperature: number
  /** mm in the upper 5 cm. */
  water: number
  time: number
}

/**
 * Emergence time accumulated through each day of a season, from `startDay` on, for every member of its weather: the same pieces
 * joined as heat is, each member with a soil of its own. Soil temperature follows the air with its lag; the upper 5 cm hold water as
 * one bucket. A day whose rain is not known counts as dry.
 *
 * @returns forecast-major, °C·d or MPa·°C·d by the clock; empty where the weather has no member
 */
export function emergenceCurves(weather: SeasonWeather, clock: EmergenceClock, startDay: number, bed: SeedBed): Float64Array[] {
  const { firstDay, length, observed, forecast } = weather
  const tails: readonly { days: readonly SeasonDay[] }[] = weather.tails.length > 0 ? weather.tails : [{ days: [] }]
  const capacity = waterCapacity(bed.texture, SURFACE_M)
  const start = startDay - firstDay
  const first = observed.find((day) => day !== undefined) ?? forecast[0]?.[0] ?? tails[0]?.days[0]
  if (!first) return []
  const initial: SoilState = { temperature: (first.min + first.max) / 2, water: capacity / 2, time: 0 }

  const step = (state: SoilState, day: SeasonDay, index: number): void => {
    state.temperature += SOIL_RESPONSE[bed.cover] * ((day.min + day.max) / 2 - state.temperature)
    const date = firstDay + index
    const dayOfYear = date - Date.UTC(new Date(date * 86_400_000).getUTCFullYear(), 0, 1) / 86_400_000 + 1
    const lost = referenceEvapotranspiration(day, bed.latitude, dayOfYear) * (state.water / capacity)
    state.water = Math.max(0, Math.min(capacity, state.water + (Number.isNaN(day.rain) ? 0 : day.rain)) - lost)
    if (index >= start) state.time += emergenceTime(state.temperature, waterPotential(state.water / capacity, bed.texture), clock)
  }
  const run = (days: readonly (SeasonDay | undefined)[], from: number, state: SoilState, curve: Float64Array): SoilState => {
    const now = { ...state }
    days.forEach((day, k) => {
      const index = from + k
      if (index >= length) return
      if (day) step(now, day, index)
      if (index >= 0) curve[index] = now.time
    })
    return now
  }
  const shared = new Float64Array(length)
  const afterObserved = run(observed, -LEAD_DAYS, initial, shared)
  const open = observed.length - LEAD_DAYS
  return forecast.flatMap((ahead) => {
    const own = shared.slice()
    const afterForecast = run(ahead, open, afterObserved, own)
    return tails.map(({ days }) => {
      const curve = own.slice()
      const last = run(days, open + ahead.length, afterForecast, curve)
      curve.fill(last.time, Math.max(0, open + ahead.length + days.length))
      return curve
    })
  })
}
