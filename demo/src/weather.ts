import { drawNormal, seededRandom, type Random, MS_PER_HOUR } from '@bocado/core'

/** One hour of an invented station: UTC milliseconds, °C, % relative humidity, mm, m/s and where it comes from; null where the station was silent. */
export interface InventedHour {
  at: number
  temperature: number | null
  humidity: number | null
  rain: number | null
  wind: number | null
  /** Degrees from which it blows; null in a calm. */
  direction: number | null
}

export interface InventedStation {
  seed: number
  /** °C by which nights are colder than at the first station. */
  coldNights: number
  doubts: boolean
}

const DAY = 24 * MS_PER_HOUR
/** Standard time of the site, eight hours behind UTC. */
export const STANDARD_OFFSET_HOURS = -8

export const FIRST_YEAR = 2015
export const CURRENT_YEAR = 2026

interface DayWeather {
  anomaly: number
  wet: boolean
  /** Hour of the first rain and hours of it. */
  rainFrom: number
  rainHours: number
  rainPerHour: number
  breeze: number
}

const dayOfYear = (ms: number): number => (ms - Date.UTC(new Date(ms).getUTCFullYear(), 0, 1)) / DAY

/** Years with a character of their own. */
function characterOf(year: number, day: number): { warmth: number; wetter: number } {
  if (year === 2022 && day > 60 && day < 150) return { warmth: -2.6, wetter: 2.2 }
  if (year === 2021 && day > 175 && day < 184) return { warmth: 8.5, wetter: 0.2 }
  if ((year === 2018 && day >= 116 && day <= 118) || (year === 2024 && day >= 124 && day <= 126)) return { warmth: -8, wetter: 0.3 }
  if (year === 2016 && day > 70 && day < 140) return { warmth: 1.8, wetter: 0.8 }
  return { warmth: 0, wetter: 1 }
}

/** The site's days: anomalies follow each other, and so do wet and dry spells. Both stations share them. */
function inventDays(random: Random, from: number, to: number): Map<number, DayWeather> {
  const days = new Map<number, DayWeather>()
  let anomaly = 0
  let wet = false
  let yearly = 0
  let year = 0
  for (let day = from; day < to; day += DAY) {
    const date = new Date(day)
    if (date.getUTCFullYear() !== year) {
      year = date.getUTCFullYear()
      yearly = drawNormal(random, 0, 0.6)
    }
    const doy = dayOfYear(day)
    const { warmth, wetter } = characterOf(year, doy)
    anomaly = 0.74 * anomaly + drawNormal(random, 0, 2.1)
    const winterShare = (1 + Math.cos((2 * Math.PI * (doy - 15)) / 365)) / 2
    const chance: number = wet ? 0.42 + 0.15 * winterShare : 0.05 + 0.2 * winterShare
    wet = random() < chance * wetter
    days.set(day, {
      anomaly: anomaly + warmth + yearly - (wet ? 1.2 : 0),
      wet,
      rainFrom: Math.floor(random() * 20),
      rainHours: 2 + Math.floor(random() * 9),
      rainPerHour: 0.2 + 1.3 * random() ** 2,
      breeze: Math.exp(drawNormal(random, 0, 0.45)),
    })
  }
  return days
}

/** Night at 4 to 5 in the morning, warmest at 15, in standard time: 0 at the minimum, 1 at the maximum. */
function dailyShape(hour: number): number {
  if (hour >= 5 && hour <= 15) return (1 - Math.cos((Math.PI * (hour - 5)) / 10)) / 2
  const afterNoon = hour > 15 ? hour - 15 : hour + 9
  return (1 + Math.cos((Math.PI * afterNoon) / 14)) / 2
}

function seasonalMean(doy: number): number {
  return 11.6 - 11.4 * Math.cos((2 * Math.PI * (doy - 20)) / 365.25)
}

const round = (value: number, digits: number): number => Number(value.toFixed(digits))

/**
 * Hourly weather of an invented station from 1 January 2015 (standard time) until `until`, the same for the same seed.
 * Seasonal and daily cycle, autocorrelated anomalies, wet and dry spells, a few late frosts, one cold wet spring (2022),
 * one heat wave (2021); where asked, a stuck sensor, a gap of nine hours and a spike in the current year.
 */
export function inventWeather(station: InventedStation, until: number): InventedHour[] {
  const siteRandom = seededRandom(4711)
  const random = seededRandom(station.seed)
  const first = Date.UTC(FIRST_YEAR, 0, 1)
  const last = Date.UTC(CURRENT_YEAR + 1, 0, 1)
  const days = inventDays(siteRandom, first, last)
  // From a generator of its own: that a vane was put up changes nothing of what was read before.
  const turning = seededRandom(station.seed + 1)
  const hours: InventedHour[] = []
  let noise = 0
  for (let day = first; day < last; day += DAY) {
    const today = days.get(day) as DayWeather
    const tomorrow = days.get(day + DAY) ?? today
    const doy = dayOfYear(day)
    const range = (today.wet ? 6.5 : 12.5) * (0.55 + 0.45 * Math.sin((Math.PI * (doy + 10)) / 365) ** 2)
    for (let hour = 0; hour < 24; hour++) {
      const at = day + hour * MS_PER_HOUR - STANDARD_OFFSET_HOURS * MS_PER_HOUR
      const shape = dailyShape(hour)
      noise = 0.7 * noise + drawNormal(random, 0, 0.25)
      const anomaly = today.anomaly + ((tomorrow.anomaly - today.anomaly) * hour) / 24
      const temperature = seasonalMean(doy + hour / 24) + anomaly + range * (shape - 0.5) + noise - station.coldNights * (1 - shape)
      const raining = today.wet && hour >= today.rainFrom && hour < today.rainFrom + today.rainHours
      const rain = raining ? today.rainPerHour * (0.4 + 1.2 * random()) : 0
      const dewPoint = seasonalMean(doy) + today.anomaly - range / 2 - (today.wet ? 0.5 : 3.2) + (raining ? 2.5 : 0)
      const wind = (0.5 + 2.6 * shape) * today.breeze * (0.7 + 0.6 * random())
      const direction = directionOf(turning, today, hour)
      if (at > until) return withDoubts(hours, station)
      hours.push({
        at,
        temperature: round(temperature, 1),
        humidity: raining
          ? Math.round(92 + 6 * random())
          : Math.min(99, Math.round(relativeHumidity(temperature, Math.min(dewPoint, temperature)))),
        rain: round(rain, 1),
        wind: round(wind, 1),
        direction: wind < CALM ? null : direction,
      })
    }
  }
  return withDoubts(hours, station)
}

/** m/s below which a vane rests. */
const CALM = 0.3

/** Up the valley by day, down it by night, from the south-west before and in rain; degrees. */
function directionOf(random: Random, { wet }: DayWeather, hour: number): number {
  const from = wet ? 225 : hour >= 9 && hour < 19 ? 300 : 120
  return (Math.round(from + drawNormal(random, 0, wet ? 20 : 28)) + 720) % 360
}

function relativeHumidity(tempC: number, dewPointC: number): number {
  const pressure = (t: number): number => Math.exp((17.625 * t) / (t + 243.04))
  return (100 * pressure(dewPointC)) / pressure(tempC)
}

function withDoubts(hours: InventedHour[], station: InventedStation): InventedHour[] {
  if (!station.doubts) return hours
  const standard = (month: number, day: number, hour: number): number =>
    Date.UTC(CURRENT_YEAR, month - 1, day, hour - STANDARD_OFFSET_HOURS)
  const stuck = hours.find(({ at }) => at === standard(3, 10, 2))?.temperature ?? null
  return hours
    .filter(({ at }) => at < standard(4, 21, 3) || at >= standard(4, 21, 12))
    .map((hour) => {
      if (hour.at >= standard(3, 10, 2) && hour.at < standard(3, 10, 14)) return { ...hour, temperature: stuck }
      return hour.at === standard(2, 14, 13) ? { ...hour, temperature: 47.3 } : hour
    })
}
