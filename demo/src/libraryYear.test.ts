import {
  dailyFromHours,
  dayNumber,
  monthOf,
  seasonWeather,
  statement,
  stationDays,
  weatherBasis,
  bloomDates,
  type SeasonAtPlace,
} from '@bocado/core'
import { indicatorModel, indicators, modelOf, organisms, restsOnPlaceholder, type Organism } from '@bocado/library'
import { expect, test } from 'vitest'
import { STATIONS } from './site.js'
import { CURRENT_YEAR, inventWeather, STANDARD_OFFSET_HOURS, type InventedStation } from './weather.js'

/* What the library says of the same thing in two places is held against itself, on the climate of the demonstration. */

const SEASON = dayNumber(`${CURRENT_YEAR}-01-01`)
const HERE = { latitude: 46.2, longitude: -119.3 }

/** The demonstration's place at the turn of the year: all of its past seasons, and nothing of this one. */
function placeAtNewYear(): SeasonAtPlace {
  const read = inventWeather(STATIONS[0] as InventedStation, Date.UTC(CURRENT_YEAR, 0, 1))
  const first = Math.floor((read[0]?.at ?? 0) / 3_600_000) + STANDARD_OFFSET_HOURS
  const length = SEASON * 24 - first
  const temperature = new Float64Array(length).fill(NaN)
  for (const { at, temperature: t } of read) {
    const i = Math.floor(at / 3_600_000) + STANDARD_OFFSET_HOURS - first
    if (i < length) temperature[i] = t ?? NaN
  }
  const unknown = new Float64Array(length).fill(NaN)
  const values = { temperature, humidity: unknown, rain: unknown, wetness: unknown, soil: unknown }
  const hours = { firstHour: first, length, values, filled: new Uint8Array(length) }
  const place = { ...stationDays(hours, [], HERE, STANDARD_OFFSET_HOURS * 60), hours, offset: { min: 0, max: 0 }, covered: false }
  // Half the winter is over, so that its chill is known.
  const weather = seasonWeather({
    series: dailyFromHours({ firstHour: first, tempsC: temperature }),
    firstDay: SEASON,
    today: SEASON,
    alone: true,
  })
  return {
    weather,
    basis: weatherBasis(weather),
    hemisphere: 'north',
    position: HERE,
    utcOffsetMinutes: STANDARD_OFFSET_HOURS * 60,
    place,
    ahead: undefined,
  }
}
const here = placeAtNewYear()
const dated = organisms.filter((organism) => !organism.monthsOnly && !restsOnPlaceholder(organism))

const stated = (organism: Organism) =>
  statement({
    model: modelOf(organism),
    confidence: 'approximate',
    biofix: null,
    at: here,
    ground: { texture: 'loam', cover: 'bare' },
    wettings: [],
  })

test('a biofix that waits for a bloom of the log is expected within three days of that bloom', () => {
  const apart = dated.concat(organisms.filter(({ infection }) => infection)).flatMap((organism) => {
    const { biofix } = organism
    const plant = biofix.kind === 'bloom' ? indicators.find(({ id }) => id === biofix.plant) : undefined
    if (biofix.kind !== 'bloom' || !plant || !biofix.event) return []
    const dates = bloomDates({ ...indicatorModel(plant) }, here, SEASON)
    const bloom = dates?.[plant.events.findIndex(({ id }) => id === biofix.event)]?.p50
    const { expected } = placeModelOf(organism)
    if (bloom === undefined || expected === undefined) return []
    return Math.abs(bloom - expected) > 3
      ? [`${organism.name}: ${biofix.event} of ${plant.name} on day ${bloom.toFixed(0)}, expected on ${expected.toFixed(0)}`]
      : []
  })
  expect(apart).toEqual([])
})

function placeModelOf(organism: Organism): { expected: number | undefined } {
  const made = stated(organism)
  return { expected: made.expected?.p50 }
}

test('the months of a generation agree with what its heat makes of them, within a month', () => {
  const apart = dated.flatMap((organism) => {
    const { windows } = stated(organism)
    return organism.generations.flatMap(({ id, name, usual }) => {
      const window = windows.find(({ generation }) => generation === id)
      if (!usual || !window || window.state === 'not-this-season') return []
      const month = (day: number): number => monthOf(SEASON + Math.min(364, Math.floor(day))) + 1
      const [from, to] = [month(window.opens.p50), month(window.closes.p50)]
      const [first, last] = [usual.months[0] ?? 1, usual.months.at(-1) ?? 12]
      return from < first - 1 || to > last + 1 || from > last + 1 || to < first - 1
        ? [`${organism.name}, ${name}: months ${first} to ${last}, by heat ${from} to ${to}`]
        : []
    })
  })
  expect(apart).toEqual([])
})
