import { describe, expect, test } from 'vitest'
import {
  civilDate,
  dayNumber,
  dewPoint,
  infectionForecast,
  infectionState,
  insideHumidity,
  placeModel,
  type DiseaseRecords,
  type OrganismModel,
  type PlaceRecord,
  type Protection,
} from '../index.js'
import { MODEL, SEASON, seasonAt, station, TODAY } from '../testing/inventedSeason.js'

const eleven = station('2015-01-01', TODAY)

describe('infections', () => {
  const scab: NonNullable<OrganismModel['infection']> = {
    model: { kind: 'apple-scab' },
    latent: { heat: 150, heatSe: 20 },
    curativeDays: 4,
  }
  /** A wet day and night from a noon on. */
  const wetFrom = (date: string, hours: number) => {
    const from = dayNumber(date) * 24 + 12
    return (hour: number) => (hour >= from && hour < from + hours ? 0.4 : 0)
  }
  const forecast = (place: PlaceRecord, start: string | undefined, more: object = {}) => {
    const at = seasonAt(place)
    const { heat, ensemble } = placeModel({ ...MODEL, biofix: { kind: 'date', month: 4, day: 1 } }, null, at)
    return infectionForecast({
      infection: scab,
      at,
      wettings: [],
      heat,
      scores: ensemble.scores,
      start: start === undefined ? undefined : dayNumber(start),
      ...more,
    })
  }

  test('are the days whose wetness was long enough for their warmth', () => {
    const { days, state } = forecast(
      station('2026-01-01', TODAY, () => 60, wetFrom('2026-05-20', 30)),
      '2026-04-15',
    )
    expect(days).toHaveLength(1)
    expect(civilDate(SEASON + days[0]!.day)).toMatch(/2026-05-2[01]/)
    expect(days[0]).toMatchObject({ probability: 1, certain: true, curativeUntil: days[0]!.day + 4 })
    expect(state).toBe('quiet')
  })
  test('that can still be cured ask for it', () => {
    expect(
      forecast(
        station('2026-01-01', TODAY, () => 60, wetFrom('2026-06-10', 30)),
        '2026-04-15',
      ).state,
    ).toBe('cure')
  })
  test('by watering are infections, too', () => {
    const dry = station('2026-01-01', TODAY)
    expect(forecast(dry, '2026-04-15').days).toHaveLength(0)
    const from = dayNumber('2026-05-20') * 24
    const { days } = forecast(dry, '2026-04-15', { wettings: [{ from, until: from + 30, waterMm: 8 }] })
    expect(days.map(({ day }) => civilDate(SEASON + day))[0]).toMatch(/2026-05-2[01]/)
  })
  test('are not looked for before the start, and nothing is said while it is not known', () => {
    expect(
      forecast(
        station('2026-01-01', TODAY, () => 60, wetFrom('2026-05-20', 30)),
        '2026-06-01',
      ).days,
    ).toHaveLength(0)
    expect(forecast(eleven, undefined)).toMatchObject({ state: 'coming', from: null, days: [] })
  })
  test('have a usual number where past seasons know their hours', () => {
    const wetEachMay = (hour: number) => (/-05-20/.test(civilDate(Math.floor(hour / 24))) ? 0.4 : 0)
    const { usual } = forecast(
      station('2018-01-01', TODAY, () => 60, wetEachMay),
      '2026-04-15',
    )
    expect(usual!.byNow).toEqual({ p10: 1, p50: 1, p90: 1 })
    expect(usual!.perWeek.reduce((a, b) => a + b, 0)).toBeCloseTo(1)
    expect(forecast(station('2026-01-01', TODAY), '2026-04-15').usual).toBeNull()
  })
})

/** A disease on invented weather with what people recorded of it. */
function diseased(infection: NonNullable<OrganismModel['infection']>, place: PlaceRecord, records: Partial<DiseaseRecords>, today = TODAY) {
  const at = seasonAt(place, today)
  const { heat, ensemble } = placeModel({ ...MODEL, biofix: { kind: 'date', month: 4, day: 1 } }, null, at)
  return infectionForecast({
    infection,
    at,
    wettings: [],
    records: { source: 'unknown', lesionsFrom: undefined, hail: [], protections: [], ...records },
    heat,
    scores: ensemble.scores,
    start: dayNumber('2026-04-15'),
  })
}
const index = (date: string) => dayNumber(date) - SEASON
const protection = (date: string, more: Partial<Protection> = {}): Protection => ({
  day: dayNumber(date),
  labelDays: null,
  systemic: false,
  ...more,
})
const latent = { heat: 150, heatSe: 20 }
/** Rain by date, in mm over the day's first ten hours. */
const rainOn = (mm: Record<string, number>) => (hour: number) => (hour % 24 < 10 ? (mm[civilDate(Math.floor(hour / 24))] ?? 0) / 10 : 0)

describe('after what wintered is spent', () => {
  const scab = { model: { kind: 'apple-scab' } as const, ends: 40, latent, curativeDays: 3 }
  const dewy = station('2026-01-01', TODAY, (hour) => (hour % 24 < 16 && civilDate(Math.floor(hour / 24)) === '2026-06-08' ? 95 : 60))
  test('it is over where no spots were found, and goes on from them where they were', () => {
    expect(diseased(scab, dewy, {})).toMatchObject({ state: 'over', days: [] })
    const spots = diseased(scab, dewy, { lesionsFrom: dayNumber('2026-06-01') })
    expect(spots.days).toMatchObject([{ day: index('2026-06-08'), origin: 'secondary' }])
    expect(spots.primaryUntil).toBeLessThan(index('2026-06-08'))
    expect(diseased(scab, dewy, { lesionsFrom: dayNumber('2026-06-09') }).days).toEqual([])
  })
})

describe('hail', () => {
  const blight = { model: { kind: 'fire-blight' } as const, ends: 40, latent, curativeDays: 0 }
  const hailOn = (date: string) => ({ hail: [dayNumber(date) * 24 + 15] })
  test('asks for an answer within a day, after bloom as well, and no longer', () => {
    expect(diseased(blight, eleven, hailOn('2026-06-12'))).toMatchObject({ state: 'cure', days: [{ origin: 'hail' }] })
    expect(diseased(blight, eleven, hailOn('2026-06-11')).state).toBe('cure')
    expect(diseased(blight, eleven, hailOn('2026-06-10')).state).toBe('over')
  })
  test('is answered by what was put on after it', () => {
    expect(diseased(blight, eleven, { ...hailOn('2026-06-11'), protections: [protection('2026-06-12')] }).state).toBe('over')
  })
  test('means nothing to a disease that needs no wounds', () => {
    expect(diseased({ ...blight, model: { kind: 'apple-scab' } }, eleven, hailOn('2026-06-11')).days).toEqual([])
  })
})

describe('protection is due again', () => {
  const early = { model: { kind: 'severity-table', table: 'early-blight', dueAt: 35, followUpAt: 15 } as const, latent, curativeDays: 0 }
  const dry = eleven
  test('when the label’s days are over, where nothing asks for it sooner', () => {
    const { followUp, state } = diseased(early, dry, { protections: [protection('2026-06-08', { labelDays: 7 })] })
    expect(followUp).toMatchObject({ since: index('2026-06-08'), by: 'label' })
    expect(followUp!.due.p50).toBe(index('2026-06-15'))
    expect(state).toBe('protected')
  })
  test('when rain has washed it off; not what the plant has taken up', () => {
    const wet = station('2026-01-01', TODAY, () => 60, rainOn({ '2026-06-09': 30 }))
    const due = (systemic: boolean) =>
      diseased(early, wet, { protections: [protection('2026-06-08', { labelDays: 14, systemic })] }).followUp!
    expect([due(false).by, due(false).due.p50]).toEqual(['residue', index('2026-06-10')])
    expect(due(true).due.p50).toBe(index('2026-06-22'))
  })
  test('when leaves have outgrown it, sooner in warmth than in the cold', () => {
    const due = (treated: string) => diseased(early, dry, { protections: [protection(treated)] }, dayNumber('2026-06-12')).followUp!
    const may = due('2026-04-16')
    expect(may.by).toBe('residue')
    expect(may.due.p10).toBeLessThan(may.due.p50)
    expect(may.due.p50).toBeLessThan(may.due.p90)
    expect(due('2026-05-20').due.p50 - index('2026-05-20')).toBeLessThan(may.due.p50 - index('2026-04-16'))
  })
  test('when the values since then have added up, and it is then asked for', () => {
    const damp = station('2026-01-01', TODAY, (hour) => (hour % 24 < 14 || hour % 24 > 16 ? 95 : 60))
    const { followUp, state, dueAt } = diseased(early, damp, { protections: [protection('2026-06-01', { systemic: true })] })
    expect(followUp!.by).toBe('values')
    expect(followUp!.due.p50).toBeLessThan(index('2026-06-12'))
    expect([state, dueAt]).toEqual(['protect', 15])
  })
  test('at the earlier date where wet hours are not known', () => {
    const unread = station('2026-01-01', TODAY, (hour) => (hour >= dayNumber('2026-06-02') * 24 ? NaN : 60))
    const { due } = diseased(early, unread, { protections: [protection('2026-06-01', { systemic: true, labelDays: 8 })] }).followUp!
    expect(due.p10).toBeLessThan(due.p50)
    expect(due.p50).toBe(index('2026-06-09'))
  })
  test('by the index of vine powdery mildew, shorter where it stands high', () => {
    const mildew = { model: { kind: 'vine-powdery-mildew', dueAt: 60 } as const, latent, curativeDays: 1 }
    const { followUp } = diseased(mildew, eleven, { protections: [protection('2026-06-01', { systemic: true })] })
    expect(followUp).toMatchObject({ by: expect.stringMatching(/index|residue/) as string })
  })
})

test('an infection under protection asks for no cure, one before it does', () => {
  const due = { p10: 168, p50: 170, p90: 172 }
  const asked = (day: number) =>
    infectionState({
      days: [{ day, probability: 1, curativeUntil: day + 4, origin: 'primary' }],
      todayIndex: 162,
      from: 120,
      until: 240,
      pressing: false,
      unknownShare: 0,
      followUp: { since: 160, due, by: 'label' },
    })
  expect([asked(161), asked(159)]).toEqual(['protected', 'cure'])
})

describe('under a cover without a logger', () => {
  const wetness = { kind: 'wetness', tmin: 5, topt: 20, tmax: 32, wmin: 5, wmax: 40, longestBreak: 3 } as const
  const covered = (humidity: (hour: number) => number) => {
    const outside = station('2026-01-01', TODAY, humidity)
    const { values } = outside.hours
    return {
      ...outside,
      covered: true,
      hours: { ...outside.hours, values: { ...values, humidity: values.humidity.map(() => NaN), rain: values.rain.map(() => NaN) } },
      inside: insideHumidity({ tempC: values.temperature, humidityPct: values.humidity }, values.temperature),
    }
  }
  test('humidity lies between the air outside and what plants may add', () => {
    const { drier, damper } = insideHumidity({ tempC: [10], humidityPct: [80] }, [15])
    expect(dewPoint(15, drier[0]!)).toBeCloseTo(dewPoint(10, 80), 6)
    expect(dewPoint(15, damper[0]!)).toBeCloseTo(dewPoint(10, 80) + 4, 6)
    expect(insideHumidity({ tempC: [NaN], humidityPct: [80] }, [15]).drier[0]).toBeNaN()
  })
  test('infections lie between two bounds; certain where even the drier one infects', () => {
    const night = (most: number) => (hour: number) => (civilDate(Math.floor(hour / 24)) === '2026-06-01' && hour % 24 < 14 ? most : 50)
    const infection = { model: wetness, latent, curativeDays: 0 }
    expect(diseased(infection, covered(night(95)), {})).toMatchObject({ estimated: { drier: 1, damper: 1 }, days: [{ certain: true }] })
    expect(diseased(infection, covered(night(75)), {})).toMatchObject({ estimated: { drier: 0, damper: 1 }, days: [{ certain: false }] })
    expect(diseased(infection, covered(night(50)), {})).toMatchObject({ estimated: { drier: 0, damper: 0 }, days: [], state: 'quiet' })
    expect(diseased(infection, eleven, {}).estimated).toBeNull()
  })
})
