import { describe, expect, test } from 'vitest'
import { hoursCost, hourVerdict, usableHours, type DayLight, type HourLimits, type HourOfWeather } from './usableHours.js'

/** A June day at 46° north: short nights. */
const JUNE: DayLight = { dawn: 3.5, sunrise: 4.1, sunset: 19.9, dusk: 20.5 }
const LIGHT = [JUNE, JUNE, JUNE]
const fair: HourOfWeather = { temperature: 20, humidity: 55, rain: 0, wind: 2.5 }
const day = (change: (hour: number) => Partial<HourOfWeather> = () => ({}), hours = 48): HourOfWeather[] =>
  Array.from({ length: hours }, (_, h) => ({ ...fair, ...change(h) }))
const blocks = (weather: readonly HourOfWeather[], h: number, limits: HourLimits): string[] => hourVerdict(weather, h, limits, LIGHT).blocks

describe('what blocks an hour', () => {
  test('wind above its limit, not at it', () => {
    expect(blocks(day(), 12, { maxWind: 2.4 })).toEqual(['wind'])
    expect(blocks(day(), 12, { maxWind: 2.5 })).toEqual([])
  })

  test('wind towards what is kept clear, also across north; where nobody knows it, it is seen on the spot', () => {
    const limits: HourLimits = { towards: [{ from: 340, to: 20 }] }
    const from = (direction: number) =>
      blocks(
        day(() => ({ direction })),
        12,
        limits,
      )
    expect([339, 340, 0, 20, 21, 180].map((degrees) => from(degrees).length)).toEqual([0, 1, 1, 1, 0, 0])
    expect(from(NaN)).toEqual([])
    expect(hourVerdict(day(), 12, limits, LIGHT)).toEqual({ blocks: [], unknown: [] })
  })

  test('still air about the night, where drops are fine', () => {
    const still = day(() => ({ wind: 1.4 }))
    for (const h of [0, 5, 19, 20]) expect(blocks(still, h, { inversion: true })).toEqual(['inversion'])
    // By day the sun lifts it, and a breeze breaks it.
    for (const h of [6, 12, 17]) expect(blocks(still, h, { inversion: true })).toEqual([])
    expect(blocks(day(), 20, { inversion: true })).toEqual([])
    expect(blocks(still, 20, {})).toEqual([])
  })

  test('rain in it and within the hours in which it would wash it off', () => {
    const wet = day((h) => ({ rain: h === 15 ? 2 : 0 }))
    expect([10, 11, 12, 15, 16].map((h) => blocks(wet, h, { rainFastHours: 4 }).length)).toEqual([0, 1, 1, 1, 0])
    // A drizzle washes nothing off, and hand work minds only what pours.
    expect(
      blocks(
        day(() => ({ rain: 0.1 })),
        12,
        { rainFastHours: 4 },
      ),
    ).toEqual([])
    expect(blocks(wet, 14, { maxRain: 1 })).toEqual([])
    expect(blocks(wet, 15, { maxRain: 1 })).toEqual(['rain'])
  })

  test('a rule of the place in its hours, and re-entry until it is over', () => {
    const school: HourLimits = { closed: [[8, 16]] }
    expect([7, 8, 15, 16].map((h) => blocks(day(), h, school).join())).toEqual(['', 'rule', 'rule', ''])
    // Half an hour of it closes the hour.
    expect([7, 8].map((h) => blocks(day(), h, { entryFrom: 7.5 }).join())).toEqual(['entry', ''])
  })

  test('soil too cool for one species and warm enough for another, too warm for any; not known without soil', () => {
    const soil = (soil: number) => day(() => ({ soil }))
    expect(blocks(soil(11), 21, { soil: [14, 30] })).toEqual(['soil'])
    expect(blocks(soil(11), 21, { soil: [10, 30] })).toEqual([])
    expect(blocks(soil(31), 21, { soil: [10, 30] })).toEqual(['soil'])
    expect(hourVerdict(day(), 21, { soil: [10, 30] }, LIGHT)).toEqual({ blocks: [], unknown: ['soil'] })
  })

  test('temperature outside its limits, and air so dry or damp that drops do not arrive', () => {
    expect(
      blocks(
        day(() => ({ temperature: 31 })),
        12,
        { maxTemperature: 30 },
      ),
    ).toEqual(['temperature'])
    expect(
      blocks(
        day(() => ({ temperature: 4 })),
        12,
        { minTemperature: 5 },
      ),
    ).toEqual(['temperature'])
    expect(
      blocks(
        day(() => ({ temperature: 34, humidity: 20 })),
        12,
        { deltaT: [2, 8] },
      ),
    ).toEqual(['delta-t'])
    expect(
      blocks(
        day(() => ({ humidity: 98 })),
        12,
        { deltaT: [2, 8] },
      ),
    ).toEqual(['delta-t'])
    expect(blocks(day(), 12, { deltaT: [2, 8] })).toEqual([])
  })

  test('light: hand work wants to see, nematodes want the dark', () => {
    expect([2, 3, 4, 12, 20, 21].map((h) => blocks(day(), h, { daylight: true }).length)).toEqual([1, 0, 0, 0, 0, 1])
    expect([2, 3, 12, 20, 21].map((h) => blocks(day(), h, { dark: true }).length)).toEqual([0, 1, 1, 1, 0])
  })
})

describe('what flowers there', () => {
  test('keeps what is forbidden in bloom out altogether, at night too', () => {
    expect([0, 12, 22].map((h) => blocks(day(), h, { bees: 'never' }))).toEqual([['bees'], ['bees'], ['bees']])
  })

  test('leaves the night to what harms nobody once it is dry', () => {
    const open = Array.from({ length: 24 }, (_, h) => h).filter((h) => blocks(day(), h, { bees: 0 }).length === 0)
    expect(open).toEqual([0, 1, 2, 21, 22, 23])
  })

  test('leaves of the night only what ends before dawn: a residue that lasts into the morning leaves none', () => {
    const open = (hours: number) => Array.from({ length: 24 }, (_, h) => h).filter((h) => blocks(day(), h, { bees: hours }).length === 0)
    expect(open(3)).toEqual([21, 22, 23])
    expect(open(5)).toEqual([21])
    expect(open(8)).toEqual([])
  })

  test('outranks the rest: an hour may be blocked by several', () => {
    expect(
      blocks(
        day(() => ({ wind: 9 })),
        12,
        { bees: 0, maxWind: 5 },
      ),
    ).toEqual(['bees', 'wind'])
  })
})

describe('what is not known', () => {
  test('is never taken as usable, and only where it matters', () => {
    const calmUnknown = day(() => ({ wind: NaN }))
    expect(hourVerdict(calmUnknown, 12, { maxWind: 5 }, LIGHT)).toEqual({ blocks: [], unknown: ['wind'] })
    expect(hourVerdict(calmUnknown, 12, { daylight: true }, LIGHT)).toEqual({ blocks: [], unknown: [] })
    expect(hourVerdict(day(), 12, { daylight: true }, [])).toEqual({ blocks: [], unknown: ['sun'] })
    // That it will rain is enough; that it will not has to be known of every hour.
    expect(
      hourVerdict(
        day((h) => ({ rain: h === 14 ? NaN : h === 13 ? 3 : 0 })),
        12,
        { rainFastHours: 2 },
        LIGHT,
      ).blocks,
    ).toEqual(['rain'])
    expect(
      hourVerdict(
        day((h) => ({ rain: h === 14 ? NaN : 0 })),
        12,
        { rainFastHours: 2 },
        LIGHT,
      ).unknown,
    ).toEqual(['rain'])
  })

  test('where the sun neither dims nor rises there is no night, or nothing else', () => {
    const polar: DayLight = { dawn: null, sunrise: null, sunset: null, dusk: null }
    expect(hourVerdict(day(), 12, { dark: true }, [polar, polar]).blocks).toEqual([])
    const midsummer: DayLight = { dawn: null, sunrise: 2, sunset: 23, dusk: null }
    expect(hourVerdict(day(), 0, { bees: 0 }, [midsummer, midsummer]).blocks).toEqual(['bees'])
  })
})

describe('hours over the members of a forecast', () => {
  const limits: HourLimits = { maxWind: 5, rainFastHours: 4 }
  const members = [day(), day((h) => ({ wind: h < 24 ? 7 : 2 })), day((h) => ({ rain: h === 30 ? 5 : 0 }))]

  test('count in how many each can be used, and what blocks it in the others', () => {
    const { hours, days } = usableHours(members, () => limits, LIGHT)
    expect(hours[12]).toEqual({ usable: 2, unknown: 0, blocked: { wind: 1 } })
    expect(hours[28]).toEqual({ usable: 2, unknown: 0, blocked: { rain: 1 } })
    expect(days).toEqual([2, 3])
    expect(usableHours(members, () => limits, LIGHT, 24).days).toEqual([0, 3])
  })

  test('may be bound otherwise on each day, as what flowers there comes and goes', () => {
    const { days, hours } = usableHours([day()], (d) => (d === 0 ? { bees: 'never' } : {}), LIGHT)
    expect([hours[12], hours[36]]).toEqual([
      { usable: 0, unknown: 0, blocked: { bees: 1 } },
      { usable: 1, unknown: 0, blocked: {} },
    ])
    expect(days).toEqual([0, 1])
  })

  test('tighter limits never leave more of them', () => {
    const gusty = Array.from({ length: 8 }, (_, m) =>
      day((h) => ({
        wind: (h * 7 + m * 5) % 9,
        rain: (h + m) % 11 === 0 ? 1 : 0,
        temperature: 10 + ((h * 3 + m) % 25),
        humidity: 30 + ((h + m) % 60),
      })),
    )
    const all: HourLimits[] = [
      {},
      { maxWind: 6 },
      { maxWind: 4 },
      { maxWind: 4, rainFastHours: 2 },
      { maxWind: 4, rainFastHours: 6 },
      { maxWind: 4, rainFastHours: 6, deltaT: [2, 8] },
      { maxWind: 4, rainFastHours: 6, deltaT: [2, 8], bees: 0 },
      { maxWind: 4, rainFastHours: 6, deltaT: [2, 8], bees: 4 },
      { maxWind: 4, rainFastHours: 6, deltaT: [2, 8], bees: 'never' },
    ]
    const counts = all.map((one) => usableHours(gusty, () => one, LIGHT).hours.map(({ usable }) => usable))
    for (let i = 1; i < counts.length; i++) counts[i]!.forEach((usable, h) => expect(usable).toBeLessThanOrEqual(counts[i - 1]![h]!))
    expect(counts.at(-1)!.every((usable) => usable === 0)).toBe(true)
  })

  test('say which limit costs how many, where it alone does', () => {
    const { hours } = usableHours([day((h) => ({ wind: h < 10 ? 8 : 2 }))], () => ({ maxWind: 5, daylight: true }), LIGHT)
    // Of the ten windy hours three are dark as well, and so are the nights.
    expect(hoursCost(hours.slice(0, 24), 1)).toEqual([
      { reason: 'wind', hours: 7 },
      { reason: 'dark', hours: 3 },
    ])
  })
})
