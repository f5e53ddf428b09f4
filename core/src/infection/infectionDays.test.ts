import { describe, expect, test } from 'vitest'
import { dayNumber } from '../time/index.js'
import {
  infectionDays,
  infectionsBy,
  lateBlightInterval,
  residueLeft,
  scabWetHours,
  type InfectionFacts,
  type InfectionHours,
  type InfectionModel,
} from './index.js'

const MAY_1 = dayNumber('2026-05-01')

/** Days of hours in which everything is dry and mild, then changed by what a test says of an hour. */
function hoursOf(
  days: number,
  change: (day: number, hour: number) => Partial<{ t: number; wet: number; rh: number; rain: number }> = () => ({}),
): InfectionHours {
  const n = days * 24
  const hours: InfectionHours = {
    firstHour: MAY_1 * 24,
    temperature: new Float64Array(n).fill(15),
    wet: new Float64Array(n),
    humidity: new Float64Array(n).fill(70),
    rain: new Float64Array(n),
  }
  for (let i = 0; i < n; i++) {
    const { t, wet, rh, rain } = change(Math.floor(i / 24), i % 24)
    if (t !== undefined) hours.temperature[i] = t
    if (wet !== undefined) hours.wet[i] = wet
    if (rh !== undefined) hours.humidity[i] = rh
    if (rain !== undefined) hours.rain[i] = rain
  }
  return hours
}
const run = (model: InfectionModel, hours: InfectionHours, facts?: InfectionFacts) =>
  infectionDays(model, hours, MAY_1, MAY_1 + hours.wet.length / 24, facts)
const infected = (model: InfectionModel, hours: InfectionHours, facts?: InfectionFacts) =>
  run(model, hours, facts).flatMap((d, i) => (d.infection ? [i] : []))
/** The sun is up from 5 to 21. */
const sun = () => ({ sunrise: 5, sunset: 21 })

describe('wet spells', () => {
  test('a night is one spell, over midnight, dated when enough hours have come', () => {
    const night = hoursOf(3, (day, hour) => ({ wet: (day === 0 && hour >= 20) || (day === 1 && hour < 4) ? 1 : 0 }))
    const { spells, infections } = infectionsBy(night, () => 6, 4)
    expect(spells).toHaveLength(1)
    expect(spells[0]).toMatchObject({ wetHours: 8, until: (MAY_1 + 1) * 24 + 4 })
    expect(infections[0]).toMatchObject({ at: (MAY_1 + 1) * 24 + 1, certain: true })
    expect(infections[0]!.severity).toBeCloseTo(8 / 6)
  })
  test('a short break adds up, a long one ends the spell', () => {
    const broken = (gap: number) =>
      hoursOf(2, (day, hour) => ({ wet: day === 0 && ((hour >= 2 && hour < 5) || (hour >= 5 + gap && hour < 8 + gap)) ? 1 : 0 }))
    expect(infectionsBy(broken(3), () => 6, 4).infections).toHaveLength(1)
    expect(infectionsBy(broken(5), () => 6, 4).infections).toHaveLength(0)
    expect(infectionsBy(broken(5), () => 6, 4).spells).toHaveLength(2)
  })
  test('hours that are not known make an infection possible, never certain', () => {
    const doubtful = hoursOf(2, (day, hour) => (day > 0 ? {} : { wet: hour === 4 || hour === 10 ? 1 : hour > 4 && hour < 10 ? NaN : 0 }))
    expect(infectionsBy(doubtful, () => 6, 4).infections).toMatchObject([{ certain: false, severity: 1 }])
    expect(infectionsBy(doubtful, () => 9, 4).infections).toHaveLength(0)
  })
})

describe('apple scab', () => {
  test('needs the hours of the table, and between its rows those of the line', () => {
    expect([scabWetHours(5), scabWetHours(16), scabWetHours(20), scabWetHours(24)]).toEqual([21, 6, 6, 6])
    expect(scabWetHours(2.5)).toBeCloseTo(32.5)
    expect([scabWetHours(0.9), scabWetHours(26.1)]).toEqual([Infinity, Infinity])
  })
  const SCAB = { kind: 'apple-scab' } as const
  /** Wet from one hour of the axis to another, with rain in the given hours. */
  const wetWith = (from: number, until: number, rain: readonly number[], t = 15) =>
    hoursOf(3, (day, hour) => {
      const h = day * 24 + hour
      return { t, wet: h >= from && h < until ? 1 : 0, rain: rain.includes(h) ? 0.6 : 0 }
    })

  test('seven wet hours at 15 °C infect, six do not; warmer they do', () => {
    expect(infected(SCAB, wetWith(6, 13, [6]), { sun })).toEqual([0])
    expect(infected(SCAB, wetWith(6, 12, [6]), { sun })).toEqual([])
    expect(infected(SCAB, wetWith(6, 12, [6], 18), { sun })).toEqual([0])
  })
  test('dew alone frees no spores; rain within the dew begins the spell', () => {
    expect(infected(SCAB, wetWith(6, 20, []), { sun })).toEqual([])
    expect(infected(SCAB, wetWith(6, 20, [13]), { sun })).toEqual([0])
    expect(infected(SCAB, wetWith(6, 20, [14]), { sun })).toEqual([])
  })
  test('a spell that begins by night counts from sunrise, unless last year’s scab was heavy', () => {
    const night = wetWith(22, 24 + 10, [22])
    expect(infected(SCAB, night, { sun })).toEqual([])
    expect(infected(SCAB, night, { sun, heavySource: true })).toEqual([1])
    expect(infected(SCAB, wetWith(22, 24 + 12, [22]), { sun })).toEqual([1])
  })
  test('where rain is not known a spell may have begun, and is never certain', () => {
    const hours = wetWith(6, 20, [])
    hours.rain.fill(NaN)
    expect(run(SCAB, hours, { sun })[0]).toMatchObject({ infection: true, certain: false })
  })
  test('once spores are spent only lesions that were found infect, and dew is enough for those', () => {
    const dew = wetWith(24 + 6, 24 + 20, [])
    const spent = { sun, primaryUntil: MAY_1 }
    expect(infected(SCAB, wetWith(24 + 6, 24 + 20, [24 + 6]), spent)).toEqual([])
    expect(infected(SCAB, dew, { ...spent, lesionsFrom: MAY_1 + 2 })).toEqual([])
    expect(run(SCAB, dew, { ...spent, lesionsFrom: MAY_1 })[1]).toMatchObject({ infection: true, origin: 'secondary' })
  })
})

describe('oil spots of vine downy mildew', () => {
  const VINE = { kind: 'vine-downy-mildew' } as const
  /** A damp night, and leaves wet for some hours after its spores are there. */
  const night = (humidHours: number, wetHours: number, t = 14) =>
    hoursOf(3, (day, hour) => {
      const h = day * 24 + hour - 22
      return { t, rh: h >= 0 && h < humidHours ? 97 : 70, wet: h >= humidHours && h < humidHours + wetHours ? 1 : 0 }
    })
  test('infect after four dark damp hours and 50 °C·h of wetness, once they are known', () => {
    expect(run(VINE, night(4, 4), { sun, lesionsFrom: MAY_1 })[1]).toMatchObject({ infection: true, certain: true, origin: 'secondary' })
    expect(infected(VINE, night(4, 4), { sun })).toEqual([])
    expect(infected(VINE, night(4, 4), { sun, lesionsFrom: MAY_1 + 2 })).toEqual([])
  })
  test('not with too little darkness, warmth or wetness', () => {
    expect(infected(VINE, night(3, 4), { sun, lesionsFrom: MAY_1 })).toEqual([])
    expect(infected(VINE, night(4, 3), { sun, lesionsFrom: MAY_1 })).toEqual([])
    expect(infected(VINE, night(6, 6, 11), { sun, lesionsFrom: MAY_1 })).toEqual([])
  })
})

test('the general model dates an infection and says how strong it was', () => {
  const model = { kind: 'wetness', tmin: 5, topt: 20, tmax: 30, wmin: 6, wmax: 40, longestBreak: 2 } as const
  const days = run(
    model,
    hoursOf(3, (day, hour) => ({ t: 20, wet: day === 1 && hour >= 1 && hour < 13 ? 1 : 0 })),
  )
  expect(days.map((d) => d.infection)).toEqual([false, true, false])
  expect(days[1]!.severity).toBeCloseTo(2)
})

test('severity values run from noon to noon and call for protection when they add up', () => {
  // Sixteen humid hours a night at 16 °C: a value of 3 by the table.
  const humid = hoursOf(8, (_, hour) => ({ t: 16, rh: hour >= 18 || hour < 10 ? 95 : 60 }))
  const LATE = { kind: 'severity-table', table: 'late-blight', dueAt: 9 } as const
  const days = run(LATE, humid)
  expect(days.slice(1, 5).map((d) => d.severity)).toEqual([3, 3, 3, 3])
  expect(days[0]!.certain).toBe(false)
  // It stays due until somebody does something: multiples of it are no reason.
  expect(infected(LATE, humid)).toEqual([3])
  // After a treatment on day 1 the seven damp days before ask for the next one five days later.
  expect(infected(LATE, humid, { protectedOn: [MAY_1 + 1] })).toEqual([6])
  expect([2, 3, 4, 6, 12].map((values) => lateBlightInterval(values))).toEqual([Infinity, 7, 6, 5, 5])
  expect(lateBlightInterval(4, true)).toBe(5)
})

test('a follow-up against early blight counts the values since the last deed', () => {
  // Nine wet hours a night at 22 °C: a value of 2.
  const wet = hoursOf(20, (_, hour) => ({ t: 22, wet: hour < 9 ? 1 : 0 }))
  const EARLY = { kind: 'severity-table', table: 'early-blight', dueAt: 20, followUpAt: 10 } as const
  const due = infected(EARLY, wet)
  expect(due).toEqual([9])
  const treated = MAY_1 + 11
  const days = run(EARLY, wet, { protectedOn: [treated] })
  expect(days[11]!.total).toBe(0)
  expect(infected(EARLY, wet, { protectedOn: [treated] })).toEqual([9, 16])
})

test('the two-day criterion asks for two days of warmth and damp in a row', () => {
  const hours = hoursOf(5, (day, hour) => ({ t: 12, rh: day !== 2 && hour < 6 ? 92 : 60 }))
  expect(infected({ kind: 'two-day-humidity' }, hours)).toEqual([1, 4])
})

test('the index of vine powdery mildew starts after three good days, rises by 20 and falls by 10', () => {
  const good = new Set([1, 2, 3, 4, 6])
  const hours = hoursOf(8, (day, hour) => ({ t: good.has(day) && hour >= 10 && hour < 16 ? 25 : day === 7 && hour === 14 ? 36 : 15 }))
  const days = run({ kind: 'vine-powdery-mildew', dueAt: 60 }, hours)
  expect(days.map((d) => d.total)).toEqual([0, 0, 0, 60, 80, 70, 90, 70])
  expect(days.flatMap((d, i) => (d.infection ? [i] : []))).toEqual([3])
})

test('vine downy mildew needs 10 mm and 10 °C over 48 hours', () => {
  const rain = (t: number) => hoursOf(4, (day, hour) => ({ t, rain: (day === 1 || day === 2) && hour === 5 ? 5.5 : 0 }))
  expect(infected({ kind: 'vine-downy-mildew' }, rain(12))).toEqual([2])
  expect(infected({ kind: 'vine-downy-mildew' }, rain(9))).toEqual([])
})

test('fire blight needs heat since first bloom, a warm day and wetness, all of them', () => {
  const hours = hoursOf(5, (day, hour) => ({ t: hour >= 9 && hour < 19 ? 24 : 14, wet: (day === 0 || day === 3) && hour === 6 ? 1 : 0 }))
  expect(infected({ kind: 'fire-blight' }, hours)).toEqual([3])
})

test('fire blight counts heat over the life of a blossom: a long cool bloom does not add up', () => {
  // Four warm hours a day bring 23 °C·h; a blossom lives some four days here, so that no more than about 100 count at once.
  const cool = hoursOf(12, (day, hour) => ({ t: hour >= 12 && hour < 16 ? 24 : 14, wet: day === 11 ? 1 : 0 }))
  const days = run({ kind: 'fire-blight' }, cool)
  expect(days.some((d) => d.infection)).toBe(false)
  expect(Math.max(...days.map((d) => d.total!))).toBeLessThan(110)
  expect(days[11]!.total).toBeCloseTo(days[6]!.total!, 0)
})

test('onion downy mildew needs a damp mild night without rain after a day that was not hot', () => {
  const night = (changes: (day: number, hour: number) => object) =>
    hoursOf(3, (day, hour) => ({ t: 14, rh: day === 1 && hour >= 2 && hour <= 6 ? 97 : 70, ...changes(day, hour) }))
  const model = { kind: 'onion-downy-mildew' } as const
  expect(
    infected(
      model,
      night(() => ({})),
    ),
  ).toEqual([1])
  expect(
    infected(
      model,
      night((day, hour) => (day === 1 && hour === 3 ? { rain: 0.4 } : {})),
    ),
  ).toEqual([])
  expect(
    infected(
      model,
      night((day, hour) => (day === 0 && hour === 14 ? { t: 31 } : {})),
    ),
  ).toEqual([])
})

test('half of a protectant is left after 25 mm of rain', () => {
  expect(residueLeft(25)).toBeCloseTo(0.5)
  expect(residueLeft(0)).toBe(1)
  expect(() => residueLeft(-1)).toThrow('rainMm')
})

test('physiological days of early blight add up, and protection is due on the day that they reach 300', () => {
  // At a steady 21 °C a day adds ten: the thirtieth reaches 300.
  const steady = hoursOf(40, () => ({ t: 21 }))
  expect(infected({ kind: 'physiological-days', dueAt: 300 }, steady)).toEqual([29])
  expect(run({ kind: 'physiological-days', dueAt: 300 }, steady)[9]!.total).toBeCloseTo(100, 6)
  const cold = hoursOf(40, () => ({ t: 5 }))
  expect(infected({ kind: 'physiological-days', dueAt: 300 }, cold)).toEqual([])
})
