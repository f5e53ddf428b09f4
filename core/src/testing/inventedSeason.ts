import { dayNumber, seasonWeather, stationDays, weatherBasis, type OrganismModel, type PlaceRecord, type SeasonAtPlace } from '../index.js'

/* Invented weather for tests, whose answers can be worked out beside it. */

export const SEASON = dayNumber('2026-01-01')
export const TODAY = dayNumber('2026-06-12')
export const HERE = { latitude: 46.2, longitude: -119.3 }
export const OFFSET = -480

/** Mean of a day: a year's wave about 11 °C, a little warmer each year; days swing by 6 °C about it. */
export const meanOn = (day: number): number =>
  11 - 12 * Math.cos((2 * Math.PI * (day - dayNumber('2000-01-20'))) / 365.25) + (Math.floor((day - SEASON) / 365.25) + 6) * 0.15
export const hourOf = (hour: number): number => meanOn(Math.floor(hour / 24)) - 6 * Math.cos((2 * Math.PI * ((hour % 24) - 3)) / 24)

export function station(from: string, until: number, humid: (hour: number) => number = () => 60, rain: (hour: number) => number = () => 0) {
  const firstHour = dayNumber(from) * 24
  const length = until * 24 - firstHour
  const hours = {
    firstHour,
    length,
    values: {
      temperature: Float64Array.from({ length }, (_, i) => hourOf(firstHour + i)),
      humidity: Float64Array.from({ length }, (_, i) => humid(firstHour + i)),
      rain: Float64Array.from({ length }, (_, i) => rain(firstHour + i)),
      wetness: new Float64Array(length).fill(NaN),
      soil: new Float64Array(length).fill(NaN),
    },
    filled: new Uint8Array(length),
  }
  const place: PlaceRecord = { ...stationDays(hours, [], HERE, OFFSET), hours, offset: { min: 0, max: 0 }, covered: false }
  return place
}

export function seasonAt(place: PlaceRecord, today = TODAY): SeasonAtPlace {
  const weather = seasonWeather({ series: place.series, firstDay: SEASON, today, rain: place.rain, alone: true })
  return { weather, basis: weatherBasis(weather), hemisphere: 'north', position: HERE, utcOffsetMinutes: OFFSET, place, ahead: undefined }
}

export const event = (id: string, stage: string, heat: number, more: object = {}) =>
  ({
    id,
    stage,
    heat,
    atShare: 0.5,
    distribution: 'normal',
    spread: 30,
    heatSe: 10,
    ...more,
  }) as OrganismModel['generations'][number]['events'][number]
export const MODEL: OrganismModel = {
  heat: { method: 'single-sine', lower: 10, upper: 31 },
  biofix: { kind: 'date', month: 3, day: 1 },
  generations: [{ id: 'first', reachableStages: ['larva'], events: [event('hatch', 'larva', 200), event('pupa', 'pupa', 330)] }],
}
