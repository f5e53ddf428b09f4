import type { Block, EmergenceForecast, WetEvent } from '@bocado/contract'
import {
  boundsOfDates,
  dayOfHeat,
  emergedShare,
  emergenceCurves,
  flushes,
  LEAD_DAYS,
  timeOfAll,
  type Ensemble,
  type OrganismModel,
  type SeasonWeather,
  standardDay,
} from '@bocado/core'
import { dateBounds } from './bounds.js'
import type { BlockWeather } from '../weather/blockWeather.js'

const rounded = (value: number): number => Math.round(value * 1000) / 1000

/** Where nothing is known of a site's latitude, evaporation is that of the middle ones. */
const MIDDLE_LATITUDE = 45

/** The season's weather with what was watered from above as rain. */
function watered({ weather, followed }: BlockWeather, events: readonly WetEvent[]): SeasonWeather {
  const mm = new Map<number, number>()
  for (const { startedAt, waterMm } of events) {
    const day = standardDay(Date.parse(startedAt), followed?.station.utcOffsetMinutes ?? 0) - weather.firstDay
    if (waterMm !== null) mm.set(day + LEAD_DAYS, (mm.get(day + LEAD_DAYS) ?? 0) + waterMm)
  }
  if (mm.size === 0) return weather
  const observed = weather.observed.map((day, i) => {
    const more = mm.get(i)
    return day && more !== undefined ? { ...day, rain: (Number.isNaN(day.rain) ? 0 : day.rain) + more } : day
  })
  return { ...weather, observed }
}

/** How a weed's seedlings come up over the season, with bounds over its members. */
export function forecastEmergence(
  emergence: NonNullable<OrganismModel['emergence']>,
  block: BlockWeather,
  ground: Pick<Block, 'soilTexture' | 'soilCover'>,
  start: number,
  ensemble: Omit<Ensemble, 'members'>,
  wetEvents: readonly WetEvent[],
): EmergenceForecast {
  const texture = ground.soilTexture ?? 'loam'
  const weather = watered(block, wetEvents)
  const bed = {
    texture,
    cover: ground.soilCover ?? 'bare',
    latitude: block.position?.latitude ?? MIDDLE_LATITUDE,
  }
  const curves = emergenceCurves(weather, emergence.clock, start, bed, timeOfAll(emergence))
  const shares = emergedShare(emergence, curves, ensemble)
  const p50 = shares.map(({ p50: middle }) => rounded(middle))
  const lately = block.weather.observed.slice(-30)
  const half = curves.map((curve, m) => dayOfHeat(curve, emergence.median + (ensemble.scores[m] ?? 0) * emergence.medianSe))
  return {
    clock: emergence.clock.kind,
    p10: shares.map(({ p10 }) => rounded(p10)),
    p50,
    p90: shares.map(({ p90 }) => rounded(p90)),
    flushes: flushes(p50).map((flush) => ({ ...flush, share: rounded(flush.share) })),
    half: half.length > 0 ? dateBounds(boundsOfDates(half, ensemble)) : { p10: null, p50: null, p90: null },
    rainKnown: lately.length > 0 && lately.filter((day) => day && !Number.isNaN(day.rain)).length >= 0.7 * lately.length,
    texture,
  }
}
