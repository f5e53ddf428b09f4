import { SOIL_RESPONSE, SURFACE_M, waterCapacity, type SoilCover, type SoilTexture } from '../derived/soil.js'
import { referenceEvapotranspiration } from '../derived/water.js'
import { dayOfYear } from '../time/civilDays.js'
import { drawn } from '../weather/draws.js'
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
 * @param enough time beyond which nothing more is asked for: a curve that has reached it stays there
 * @returns one curve a draw, in the order of `drawn`, °C·d or MPa·°C·d by the clock; empty where the weather has no member
 */
export function emergenceCurves(
  weather: SeasonWeather,
  clock: EmergenceClock,
  startDay: number,
  bed: SeedBed,
  enough = Infinity,
): Float64Array[] {
  const { firstDay, length, observed, forecast } = weather
  const tails: readonly { days: readonly SeasonDay[] }[] = weather.tails.length > 0 ? weather.tails : [{ days: [] }]
  const capacity = waterCapacity(bed.texture, SURFACE_M)
  const start = startDay - firstDay
  const first = observed.find((day) => day !== undefined) ?? forecast[0]?.[0] ?? tails[0]?.days[0]
  if (!first) return []
  const initial: SoilState = { temperature: (first.min + first.max) / 2, water: capacity / 2, time: 0 }
  const response = SOIL_RESPONSE[bed.cover]

  const run = (days: readonly (Demand | undefined)[], from: number, state: SoilState, curve: Float64Array): SoilState => {
    const now = { ...state }
    for (let k = 0; k < days.length && from + k < length; k++) {
      const index = from + k
      if (now.time >= enough) {
        curve.fill(now.time, Math.max(0, index))
        return now
      }
      const day = days[k]
      if (day) {
        now.temperature += response * (day.mean - now.temperature)
        const lost = day.evaporation * (now.water / capacity)
        now.water = Math.max(0, Math.min(capacity, now.water + day.rain) - lost)
        if (index >= start) now.time += emergenceTime(now.temperature, waterPotential(now.water / capacity, bed.texture), clock)
      }
      if (index >= 0) curve[index] = now.time
    }
    return now
  }
  // What a day asks of the soil is the same for every member that has it.
  const open = observed.length - LEAD_DAYS
  const ahead = forecast[0]?.length ?? 0
  const demands = (days: readonly (SeasonDay | undefined)[], from: number) =>
    days.map((day, k) => day && demandOf(day, firstDay + from + k, bed.latitude))
  const tailDemands = tails.map(({ days }) => demands(days, open + ahead))
  const shared = new Float64Array(length)
  const afterObserved = run(demands(observed, -LEAD_DAYS), -LEAD_DAYS, initial, shared)
  const once = forecast.flatMap((days) => {
    const own = shared.slice()
    const afterForecast = run(demands(days, open), open, afterObserved, own)
    return tailDemands.map((tail) => {
      const curve = own.slice()
      const last = run(tail, open + ahead, afterForecast, curve)
      curve.fill(last.time, Math.max(0, open + ahead + tail.length))
      return curve
    })
  })
  return drawn(once, forecast.length, tails.length)
}

/** What a day brings to the soil: mean temperature in °C, rain and potential evaporation in mm. */
interface Demand {
  mean: number
  rain: number
  evaporation: number
}

function demandOf(day: SeasonDay, date: number, latitude: number): Demand {
  return {
    mean: (day.min + day.max) / 2,
    rain: Number.isNaN(day.rain) ? 0 : day.rain,
    evaporation: referenceEvapotranspiration(day, latitude, dayOfYear(date)),
  }
}
