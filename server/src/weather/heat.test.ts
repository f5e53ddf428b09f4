import { endpoints } from '@bocado/contract'
import { dailyFromHours, dayNumber, seasonSum } from '@bocado/core'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'
import { hourlyFile, importFile, preview } from '../testing/upload.js'

const { weather } = endpoints
let app: Application
let place: TestSite
const file = hourlyFile(2021, '2026-06-12')

beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  await importFile(app, place, file, (await preview(app, place, file.slice(0, 200_000))).body.mapping)
})
afterAll(() => app.stop())

const ask = (changes: object = {}) =>
  app.call(weather.heat, { siteId: place.site.id, stationId: place.stationId }, {
    season: '2026-01-01',
    from: '2026-03-01',
    method: 'single-sine',
    lower: 10,
    upper: 31.1,
    cutoff: 'vertical',
    target: 150,
    ...changes,
  } as never)

test('the sums are those of the computation, for days and for hours', async () => {
  const tempsC = Float64Array.from(file.split('\n').slice(1), (line) => Number(line.split(',')[1]))
  const firstHour = dayNumber('2021-01-01') * 24
  const own = { days: dailyFromHours({ firstHour, tempsC }), hours: { firstHour, values: tempsC } }
  for (const method of ['single-sine', 'hourly'] as const) {
    const rule = { method, lower: 10, upper: 31.1, cutoff: 'vertical' } as const
    const expected = seasonSum(own, rule, dayNumber('2026-01-01'), dayNumber('2026-03-01'), dayNumber('2026-06-12')).cumulative
    const { current, past } = done(await ask({ method }))
    expect(current).toHaveLength(103)
    expect(current.at(-1)).toBeCloseTo(expected.at(-1)!, 1)
    expect(past.map(({ season }) => season.slice(0, 4))).toEqual(['2021', '2022', '2023', '2024', '2025'])
  }
})

test('every method is compared with the one that was asked for', async () => {
  const { methods, aheadDays } = done(await ask({ method: 'double-sine' }))
  expect(methods).toHaveLength(7)
  expect(methods[0]).toMatchObject({ method: 'double-sine', laterBy: 0 })
  expect(methods.every(({ day }) => day !== null)).toBe(true)
  expect(aheadDays).not.toBeNull()
})

test('thresholds the wrong way round, a start outside the season and no number are refused by field', async () => {
  expect((await ask({ upper: 9 })).problem.fields).toEqual([{ path: 'upper', message: 'must be above the lower threshold' }])
  expect((await ask({ from: '2025-12-31' })).problem.fields?.[0]?.path).toBe('from')
  expect((await ask({ lower: 'warm' })).problem.fields?.[0]?.path).toBe('lower')
})
