import { describe, expect, test } from 'vitest'
import {
  bloomDates,
  bloomEvidence,
  calibrationFromRecords,
  civilDate,
  cohortsInReach,
  dayNumber,
  dayInSeason,
  heatAxis,
  heatStart,
  namedDates,
  placeModel,
  seasonDays,
  seasonHeat,
  seasonWeather,
  stationDays,
  statement,
  treatmentReach,
  usualMonths,
  type BloomPlant,
  type BloomSighting,
  type DatedEvent,
  type OrganismModel,
  type PlaceRecord,
  type SeasonAtPlace,
} from '../index.js'
import { event, HERE, hourOf, meanOn, MODEL, OFFSET, SEASON, seasonAt, station, TODAY } from '../testing/inventedSeason.js'

/* The pipeline over invented weather, whose answer can be worked out beside it. */

const ground = { texture: null, cover: null }
const made = (at: SeasonAtPlace, more: Partial<Parameters<typeof statement>[0]> = {}) =>
  statement({ model: MODEL, confidence: 'approximate', biofix: null, at, ground, wettings: [], ...more })

const eleven = station('2015-01-01', TODAY)
const here = seasonAt(eleven)

describe('a statement', () => {
  test('has each event where its heat is reached, by a sum worked out beside it', () => {
    const { dates, grade, start, windows } = made(here)
    expect([grade, start.how, civilDate(start.day)]).toEqual(['dates', 'calendar', '2026-03-01'])
    const heat = seasonHeat(here.weather, MODEL.heat, start.day)
    const day = heat.median.findIndex((sum) => sum >= 200)
    expect(Math.abs(dates![0]!.half.p50 - day)).toBeLessThan(1.5)
    expect(windows).toHaveLength(1)
    expect(windows[0]!.beginsWith).toMatchObject({ event: 'hatch' })
    expect(windows[0]!.opens.p50).toBeGreaterThan(dates![0]!.begins.p50)
    expect(windows[0]!.closes.p50).toBeLessThan(dates![1]!.half.p50 + 30)
  })

  test('is wide with a few past seasons, and not with many', () => {
    expect(made(here).wide).toBe(false)
    expect(made(seasonAt(station('2023-06-01', TODAY))).wide).toBe(true)
  })

  test('gives no window without weather to come, and no date at all without any', () => {
    const young = seasonAt(station('2026-02-01', TODAY))
    expect(made(young)).toMatchObject({ windows: [], grade: 'dates' })
    const empty: SeasonAtPlace = {
      ...here,
      place: undefined,
      basis: 'none',
      weather: seasonWeather({
        series: { firstDay: 0, min: new Float64Array(), max: new Float64Array(), filled: new Float64Array() },
        firstDay: SEASON,
        today: TODAY,
      }),
    }
    expect(made(empty)).toMatchObject({ windows: [], dates: undefined, grade: 'calendar' })
  })

  test('counts from the day that somebody entered', () => {
    const late = made(here, { biofix: dayNumber('2026-04-20') })
    expect(late.start).toMatchObject({ how: 'entered', day: dayNumber('2026-04-20') })
    expect(late.dates![0]!.half.p50).toBeGreaterThan(made(here).dates![0]!.half.p50 + 3)
  })

  test('is made the same again, and holds what it made under the same name', () => {
    const held = new Map<string, unknown>()
    let asked = 0
    const keep = <T>(what: string, make: () => T): T => {
      asked++
      if (!held.has(what)) held.set(what, make())
      return held.get(what) as T
    }
    const first = made(here, { keep })
    const again = made(here, { keep })
    expect(again.windows).toEqual(first.windows)
    expect(again.windows).toEqual(made(here).windows)
    expect([asked > held.size, held.size]).toEqual([true, 1])
  })

  test('moves with what was seen in bloom, says how it would be without, and stays where a biofix was seen', () => {
    const bloom = { heat: -20, sd: 8, prior: 15, days: -3 }
    const moved = made(here, { bloom })
    expect(moved.moved!.heat).toBeLessThan(0)
    expect(moved.windows[0]!.opens.p50).toBeLessThan(moved.windowsWithoutBloom![0]!.opens.p50 - 1)
    expect(moved.windowsWithoutBloom).toEqual(made(here).windows)
    const seen = made(here, { bloom, biofix: dayNumber('2026-03-01') })
    expect([seen.moved, seen.windowsWithoutBloom]).toEqual([null, null])
  })

  test('expects a biofix that nobody has seen where its heat lies', () => {
    const trapped: OrganismModel = { ...MODEL, biofix: { kind: 'sustained-catch', expected: { heat: 80, heatSe: 15 } } }
    const { start, expected, dates } = made(here, { model: trapped })
    expect(start.how).toBe('expected')
    const heat = seasonHeat(here.weather, MODEL.heat, SEASON)
    expect(Math.abs(expected!.p50 - heat.median.findIndex((sum) => sum >= 80))).toBeLessThan(1.5)
    expect(dates![0]!.half.p50).toBeGreaterThan(expected!.p50)
  })
})

describe('what ends a season beside heat', () => {
  const late: OrganismModel = {
    ...MODEL,
    generations: [{ id: 'late', reachableStages: ['larva'], events: [event('hatch', 'larva', 500), event('pupa', 'pupa', 3000)] }],
  }
  test('frost ends it on the first cold night of each year, and its window with it', () => {
    const open = made(here, { model: late })
    expect(open.end).toBeNull()
    expect(open.windows[0]!.closes.p50).toBeCloseTo(364, 3)
    const { end, windows } = made(here, { model: { ...late, ends: [{ by: 'frost', limit: 0 }] } })
    // The invented night is 6 °C below its day's mean: the first with a mean of 6 °C.
    const nights = Array.from({ length: 364 - 200 }, (_, i) => 200 + i)
    const frost = nights.find((i) => meanOn(SEASON - 365 + i) - 6 <= 0)!
    expect(Math.abs(end!.date.p50 - frost)).toBeLessThan(6)
    expect(end!.by).toBe('frost')
    expect(windows[0]!.closes.p50).toBeLessThanOrEqual(end!.date.p50)
    expect(windows[0]!.opens.p50).toBe(open.windows[0]!.opens.p50)
  })
  test('short days end it where they come before the frost; what would begin after that does not come', () => {
    const { end, windows } = made(here, {
      model: {
        ...late,
        ends: [
          { by: 'frost', limit: 0 },
          { by: 'day-length', limit: 14.5 },
        ],
      },
    })
    expect(end!.by).toBe('day-length')
    expect(civilDate(SEASON + end!.date.p50)).toMatch(/2026-08-0\d/)
    expect(windows[0]!.closes.p50).toBeLessThanOrEqual(end!.date.p50)
    const later = {
      ...late,
      generations: [{ ...late.generations[0]!, events: [event('hatch', 'larva', 1300), event('pupa', 'pupa', 3000)] }],
    }
    const none = made(here, { model: { ...later, ends: [{ by: 'day-length', limit: 15.6 }] } })
    expect(none.windows[0]!.state).toBe('not-this-season')
  })
})

describe('a published sum of heat to one event', () => {
  const figure = { rule: { method: 'single-sine' as const, lower: 10 }, heat: 200, heatSe: 20 }
  test('dates it where its heat lies, wider for a figure that is less sure', () => {
    const dates = namedDates(figure, SEASON, here)!
    const { median } = seasonHeat(here.weather, figure.rule, SEASON)
    expect(Math.abs(dates.p50 - median.findIndex((sum) => sum >= 200))).toBeLessThan(1.5)
    const sure = namedDates({ ...figure, heatSe: 1 }, SEASON, here)!
    expect(dates.p90 - dates.p10).toBeGreaterThan(sure.p90 - sure.p10)
    expect(namedDates(figure, SEASON, seasonAt(station('2026-06-11', TODAY)))).toBeUndefined()
  })
  test('counts from a day of the northern year, or from half a year later in the south', () => {
    expect(civilDate(dayInSeason(4, 1, SEASON, 'north'))).toBe('2026-04-01')
    expect(civilDate(dayInSeason(4, 1, dayNumber('2026-07-01'), 'south'))).toBe('2026-10-01')
    expect(civilDate(dayInSeason(10, 1, dayNumber('2026-07-01'), 'south'))).toBe('2027-04-01')
  })
})

describe('usual months', () => {
  /** Twelve normals of a year that is warmer than the invented one by so much. */
  const region = (warmer: number) =>
    Array.from({ length: 12 }, (_, m) => {
      const mean = meanOn(dayNumber(`2020-${String(m + 1).padStart(2, '0')}-15`)) + warmer
      return { min: mean - 6, max: mean + 6, rain: 40 }
    })
  test('stay where the place is like their region, come later where it is colder, earlier where it is warmer', () => {
    const same = usualMonths([5, 6], region(0), here)
    expect(same.months).toEqual([5, 6])
    expect(Math.abs(same.movedDays!)).toBeLessThan(7)
    const colder = usualMonths([5, 6], region(5), here)
    expect(colder.movedDays).toBeGreaterThan(20)
    expect(colder.months).toEqual([6, 7])
    const warmer = usualMonths([5, 6], region(-5), here)
    expect(warmer.movedDays).toBeLessThan(-14)
    expect(warmer.months[0]).toBeLessThan(6)
  })
  test('of winter, or without weather to the season’s end, are not moved', () => {
    expect(usualMonths([11, 12, 1], region(5), here)).toEqual({ months: [11, 12, 1], movedDays: null })
    expect(usualMonths([5], region(5), seasonAt(station('2026-02-01', TODAY)))).toEqual({ months: [5], movedDays: null })
  })
  test('in the south are those of half a year later', () => {
    const young = { ...seasonAt(station('2026-02-01', TODAY)), hemisphere: 'south' as const }
    expect(usualMonths([6, 7], region(0), young).months).toEqual([12, 1])
  })
})

describe('where heat starts', () => {
  const at = { firstDay: SEASON, today: TODAY, hemisphere: 'north' as const, temperatures: eleven.temperatures }
  test.each([
    ['at the day entered, whatever else is known', { kind: 'chill' as const, portions: 40 }, dayNumber('2026-02-03'), 'entered'],
    ['by the calendar', { kind: 'date' as const, month: 4, day: 1 }, null, 'calendar'],
    ['by chill that was met', { kind: 'chill' as const, portions: 30 }, null, 'chill'],
    ['nowhere where chill never comes', { kind: 'chill' as const, portions: 900 }, null, 'none'],
    ['nowhere without a biofix', undefined, null, 'none'],
  ])('%s', (_, biofix, entered, how) => {
    expect(heatStart(biofix ? { biofix } : {}, entered, at).how).toBe(how)
  })
  test('by chill is known only where hours are', () => {
    expect(heatStart({ biofix: { kind: 'chill', portions: 30 } }, null, { ...at, temperatures: undefined }).how).toBe('none')
  })
  test('in the south half a year later', () => {
    const south = heatStart({ biofix: { kind: 'date', month: 3, day: 1 } }, null, {
      ...at,
      firstDay: dayNumber('2026-07-01'),
      hemisphere: 'south',
    })
    expect(civilDate(south.day)).toBe('2026-09-01')
  })
})

describe('a treatment', () => {
  test('reaches most around the middle of its window, little before, and nothing long after', () => {
    const { events, ensemble } = placeModel(MODEL, null, here)
    const [window] = made(here).windows
    const cohorts = cohortsInReach(events, ['first'], ['larva'], ensemble)
    const on = (day: number) => treatmentReach(cohorts, { effect: 1, residualDays: 0 }, Math.round(day), ensemble)!.bounds.p50
    expect(on(window!.bestDay.p50)).toBeGreaterThan(0.75)
    expect(on(window!.bestDay.p50 - 30)).toBeLessThan(0.1)
    expect(on(window!.closes.p90 + 40)).toBe(0)
    expect(cohortsInReach(events, ['first'], ['adult'], ensemble)).toEqual([])
    expect(treatmentReach([], { effect: 1, residualDays: 0 }, 150, ensemble)).toBeUndefined()
  })
})

describe('a season day by day', () => {
  const rainy = station(
    '2024-01-01',
    TODAY,
    () => 60,
    (hour) => (civilDate(Math.floor(hour / 24)) === '2026-05-10' ? 1 : 0),
  )
  const days = (place: PlaceRecord, wettings: { from: number; until: number; waterMm: number | null }[] = []) =>
    seasonDays({ place, position: HERE, ground: { texture: 'loam', cover: 'bare' }, wettings, season: SEASON, today: TODAY })
  const on = (made: ReturnType<typeof days>, date: string) => made.days[dayNumber(date) - SEASON]!

  test('has the extremes of its hours, its rain, its wet hours, and nothing from today on', () => {
    const made = days(rainy)
    expect(made.days).toHaveLength(365)
    const may = on(made, '2026-05-10')
    expect(may.max - may.min).toBeCloseTo(12, 0)
    expect([may.rain, may.wet, may.wetUnknown]).toEqual([24, 24, 0])
    expect(on(made, '2026-06-12')).toMatchObject({ min: NaN, rain: NaN, chill: NaN })
    expect(on(made, '2026-05-11').rootZone).toBeGreaterThan(on(made, '2026-05-09').rootZone)
    expect(on(made, '2026-03-01').chill).toBeGreaterThan(on(made, '2026-02-01').chill)
  })
  test('under a cover knows no rain, and of water only what was given', () => {
    const covered = { ...rainy, covered: true }
    expect(on(days(covered), '2026-05-10')).toMatchObject({ rain: NaN, rootZone: NaN })
    const from = dayNumber('2026-05-01') * 24
    const watered = days(covered, [{ from, until: from + 1, waterMm: 20 }])
    expect(on(watered, '2026-04-30').rootZone).toBeNaN()
    expect(on(watered, '2026-05-02').rootZone).toBeGreaterThan(0)
  })
  test('without a position says nothing of water', () => {
    const made = seasonDays({
      place: rainy,
      position: undefined,
      ground: { texture: 'loam', cover: 'bare' },
      wettings: [],
      season: SEASON,
      today: TODAY,
    })
    expect(on(made, '2026-05-11').rootZone).toBeNaN()
  })
})

test('days that were typed fill what hours do not know, and get hours of their own', () => {
  const length = 48
  const firstHour = dayNumber('2026-05-01') * 24
  const temperature = Float64Array.from({ length }, (_, i) => hourOf(firstHour + i))
  const hours = { firstHour, length, values: { temperature, rain: new Float64Array(length).fill(NaN) }, filled: new Uint8Array(length) }
  const typed = [
    { day: dayNumber('2026-05-02'), min: 0, max: 40, rain: 3 },
    { day: dayNumber('2026-05-03'), min: 8, max: 21, rain: null },
  ]
  const { series, rain, temperatures } = stationDays(hours, typed, HERE, OFFSET)
  expect(series.max[2]).toBe(21)
  expect(series.max[1]).toBeLessThan(40)
  expect([rain.get(dayNumber('2026-05-02')), rain.get(dayNumber('2026-05-03'))]).toEqual([3, undefined])
  const third = temperatures.values.subarray(48, 72)
  expect(Math.min(...third)).toBeGreaterThanOrEqual(7.9)
  expect(Math.max(...third)).toBeCloseTo(21, 0)
  expect([...new Set(temperatures.made.subarray(0, 48)), ...new Set(temperatures.made.subarray(48))]).toEqual([0, 1])
})

test('the axis that is even in heat gives each day its share, winter a little, and ends at the end', () => {
  const axis = heatAxis(here.weather)!
  expect(axis).toHaveLength(366)
  expect([axis[0], axis[365]]).toEqual([0, 1])
  expect(axis.every((at, i) => i === 0 || at > axis[i - 1]!)).toBe(true)
  const width = (date: string): number => axis[dayNumber(date) - SEASON + 1]! - axis[dayNumber(date) - SEASON]!
  expect(width('2026-07-15')).toBeGreaterThan(8 * width('2026-01-10'))
  expect(heatAxis(seasonAt(station('2026-02-01', TODAY)).weather)).toBeUndefined()
})

describe('blooms', () => {
  const plant: BloomPlant = {
    id: 'lilac',
    heat: { method: 'single-sine', lower: 5 },
    biofix: { kind: 'date', month: 1, day: 1 },
    events: [event('first-open', '', 300, { spread: 15, heatSe: 20 })],
  }
  /** The day of a season on which its heat reaches a sum. */
  function dayOf(year: number, heat: number): number {
    const season = dayNumber(`${year}-01-01`)
    const then = seasonWeather({ series: eleven.series, firstDay: season, today: Math.min(TODAY, dayNumber(`${year + 1}-01-01`)) })
    return season + seasonHeat(then, plant.heat, season).median.findIndex((sum) => sum >= heat)
  }
  const sighting = (year: number, heat: number, notYet = false): BloomSighting => {
    const day = dayOf(year, heat)
    return { plantId: 'lilac', event: 'first-open', season: dayNumber(`${year}-01-01`), seenFrom: day, seenTo: day, notYet }
  }

  test('come where heat brings them', () => {
    const [date] = bloomDates(plant, here, TODAY)!
    expect(Math.abs(date!.p50 - (dayOf(2026, 300) - SEASON))).toBeLessThan(1.5)
    const [later] = bloomDates(plant, here, TODAY, { heat: 40, sd: 5, prior: 15 })!
    expect(later!.p50).toBeGreaterThan(date!.p50 + 1)
  })
  test('that came early say that the season is ahead, more surely by own years than by the library', () => {
    const early = bloomEvidence([plant], [sighting(2026, 270)], here, TODAY)
    expect(early.shift!.heat).toBeLessThan(0)
    expect(early.used[0]).toMatchObject({ ownYears: 0, expected: 300 })
    const own = bloomEvidence(
      [plant],
      [2021, 2022, 2023, 2024, 2025].map((year) => sighting(year, 330)).concat(sighting(2026, 300)),
      here,
      TODAY,
    )
    expect(own.used[0]!.ownYears).toBe(5)
    expect(own.used[0]!.expected).toBeGreaterThan(305)
    expect(own.shift!.heat).toBeLessThan(0)
    expect(own.placed).toHaveLength(6)
  })
  test('looked for and not there say something, too; without any of this season nothing is said', () => {
    const late = bloomEvidence([plant], [sighting(2026, 360, true)], here, TODAY)
    expect(late.shift).toMatchObject({ blooms: 0, notYet: 1 })
    expect(late.shift!.heat).toBeGreaterThan(0)
    expect(bloomEvidence([plant], [sighting(2025, 300)], here, TODAY).shift).toBeUndefined()
    expect(bloomEvidence([plant], [{ ...sighting(2026, 300), plantId: 'unknown' }], here, TODAY).placed).toEqual([])
  })
})

describe('records of past seasons', () => {
  const hatchOn = (year: number, heat: number): number => {
    const season = dayNumber(`${year}-01-01`)
    const then = seasonWeather({ series: eleven.series, firstDay: season, today: dayNumber(`${year + 1}-01-01`) })
    return season + seasonHeat(then, MODEL.heat, dayNumber(`${year}-03-01`)).median.findIndex((sum) => sum >= heat)
  }
  const record = (year: number, heat: number, more: Partial<DatedEvent> = {}): DatedEvent => {
    const seenOn = hatchOn(year, heat)
    return { event: 'hatch', season: dayNumber(`${year}-01-01`), kind: 'half', seenOn, lookedBefore: seenOn - 2, caught: null, ...more }
  }
  const calibrated = (records: DatedEvent[]) =>
    calibrationFromRecords({ model: MODEL, records, biofixes: new Map(), at: here, today: TODAY })

  test('move a figure towards what they say, further with every season', () => {
    const years = [2020, 2021, 2022, 2023, 2024, 2025]
    const figures = [1, 3, 6].map((n) => calibrated(years.slice(0, n).map((year) => record(year, 240)))[0]!.posterior!.figure.mean)
    expect(figures[0]).toBeGreaterThan(200)
    expect(figures[1]).toBeGreaterThan(figures[0]!)
    expect(figures[2]).toBeGreaterThan(figures[1]!)
    expect(figures[2]).toBeLessThan(245)
  })
  test('without weather, or before heat began to count, are left out and say why', () => {
    const [one] = calibrated([
      record(2022, 240),
      { ...record(2022, 240), season: dayNumber('2009-01-01'), seenOn: dayNumber('2009-06-01'), lookedBefore: null },
      { ...record(2023, 240), seenOn: dayNumber('2023-02-10'), lookedBefore: dayNumber('2023-02-08') },
    ])
    expect(one!.left.map(({ season, reason }) => [civilDate(season), reason])).toEqual([
      ['2009-01-01', 'weather'],
      ['2023-01-01', 'before-biofix'],
    ])
    expect(one!.fitted).toHaveLength(1)
  })
  test('of an event that the model does not have say nothing', () => {
    expect(calibrated([record(2022, 240, { event: 'flight' })])).toEqual([])
  })
})
