import type { SoilCover, SoilTexture } from '../derived/soil.js'
import { emergenceCurves } from '../emergence/emergenceCurves.js'
import { emergedShare, flushes, timeOfAll, type EmergenceModel, type Flush } from '../emergence/share.js'
import { boundsOfDates, type Ensemble } from '../phenology/ensemble.js'
import { dayOfHeat } from '../phenology/eventDates.js'
import type { Bounds } from '../statistics/quantile.js'
import { LEAD_DAYS, type SeasonWeather } from '../weather/seasonWeather.js'
import type { SeasonAtPlace, Wetting } from './seasonAtPlace.js'

/** How a weed's seedlings come up over a season. */
export interface EmergenceForecast {
  clock: EmergenceModel['clock']['kind']
  /** Share up by the end of each day of the season, 0..1. */
  shares: Bounds[]
  /** Runs of days on which many come up, by the median. */
  flushes: Flush[]
  /** Day of the season by which half are up; null where no weather says so. */
  half: Bounds | null
  /** Whether rain of the last weeks is known; days without it count as dry. */
  rainKnown: boolean
  texture: SoilTexture
}

/** Where nothing is known of a site's latitude, evaporation is that of the middle ones. */
const MIDDLE_LATITUDE = 45
/** Rain counts as known where it is on this share of the last thirty days (from practice). */
const LEAST_KNOWN = 0.7
const LATELY_DAYS = 30

/** The season's weather with what was watered from above as rain. */
function watered(weather: SeasonWeather, wettings: readonly Wetting[]): SeasonWeather {
  const mm = new Map<number, number>()
  for (const { from, waterMm } of wettings) {
    const i = Math.floor(from / 24) - weather.firstDay + LEAD_DAYS
    if (waterMm !== null) mm.set(i, (mm.get(i) ?? 0) + waterMm)
  }
  if (mm.size === 0) return weather
  const observed = weather.observed.map((day, i) => {
    const more = mm.get(i)
    return day && more !== undefined ? { ...day, rain: (Number.isNaN(day.rain) ? 0 : day.rain) + more } : day
  })
  return { ...weather, observed }
}

/** How a weed's seedlings come up over a season, with bounds over its draws. */
export function emergenceForecast(
  emergence: EmergenceModel,
  at: Pick<SeasonAtPlace, 'weather' | 'position'>,
  ground: { texture: SoilTexture | null; cover: SoilCover | null },
  start: number,
  ensemble: Omit<Ensemble, 'members'>,
  wettings: readonly Wetting[],
): EmergenceForecast {
  const texture = ground.texture ?? 'loam'
  const bed = { texture, cover: ground.cover ?? 'bare', latitude: at.position?.latitude ?? MIDDLE_LATITUDE }
  const curves = emergenceCurves(watered(at.weather, wettings), emergence.clock, start, bed, timeOfAll(emergence))
  const shares = emergedShare(emergence, curves, ensemble)
  const lately = at.weather.observed.slice(-LATELY_DAYS)
  const half = curves.map((curve, m) => dayOfHeat(curve, emergence.median + (ensemble.scores[m] ?? 0) * emergence.medianSe))
  return {
    clock: emergence.clock.kind,
    shares,
    flushes: flushes(shares.map(({ p50 }) => Math.round(p50 * 1000) / 1000)),
    half: half.length > 0 ? boundsOfDates(half, ensemble) : null,
    rainKnown: lately.length > 0 && lately.filter((day) => day && !Number.isNaN(day.rain)).length >= LEAST_KNOWN * lately.length,
    texture,
  }
}
