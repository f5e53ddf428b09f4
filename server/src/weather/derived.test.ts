import { endpoints } from '@bocado/contract'
import { chillPortions, dewPoint, hoursFromExtremes, dayNumber } from '@bocado/core'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, startServer, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'
import { hourlyFile, importFile, preview } from '../testing/upload.js'

const { weather } = endpoints
const SEASON = '2026-01-01'

let app: Application
let place: TestSite
let token: string
/** Hours with humidity, wind and a wet night; the last is 07:00 of today. */
function readings(): string {
  const [, ...lines] = hourlyFile(2021, '2026-06-12').split('\n')
  return [
    'time,temp C,rh,rain mm,wind m/s,soil temp C',
    ...lines.map((line) => {
      const [time, temperature] = line.split(',')
      const wet = time! >= '2026-06-10 20:00' && time! <= '2026-06-11 05:00'
      // A humidity that stood still would be doubted.
      return `${time},${temperature},${(wet ? 96 : 60) + (Number(time!.slice(11, 13)) % 3)},${time === '2026-06-10 21:00' ? 4.2 : 0},3.2,`
    }),
  ].join('\n')
}

beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  const file = readings()
  await importFile(app, place, file, (await preview(app, place, file.slice(0, 200_000))).body.mapping)
  token = done(await app.call(weather.issueToken, params(), {}, { person: place.person })).token
  const { rowVersion, name, utcOffsetMinutes } = done(await app.call(weather.stations, { siteId: place.site.id }, {}))[0]!
  done(await app.call(weather.updateStation, params(), { name, utcOffsetMinutes, sensorHeightM: 10, rowVersion }, { person: place.person }))
})
afterAll(() => app.stop())

const params = () => ({ siteId: place.site.id, stationId: place.stationId })
const season = async (address = app) => done(await address.call(weather.days, params(), { season: SEASON }))
const hours = async (day: string) => done(await app.call(weather.hours, params(), { day }))
const push = async (body: object) => {
  const response = await fetch(`${app.address}/api/v1/stations/${place.stationId}/readings`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Authorization: `Bearer ${token}` },
    body: JSON.stringify(body),
  })
  expect(response.status).toBe(200)
}

describe('a season', () => {
  test('has its wet hours, water, soil and chill beside the temperatures', async () => {
    const { days, soil, frost, usualChill, sun } = await season()
    const [tenth, eleventh] = [days[160]!, days[161]!]
    expect(tenth).toMatchObject({ day: '2026-06-10', wet: 4, wetUnknown: 0, rain: 4.2 })
    expect(eleventh).toMatchObject({ wet: 6, wetUnknown: 0 })
    expect(tenth.rootZone!).toBeGreaterThan(days[159]!.rootZone!)
    expect(tenth.surface!).toBeGreaterThan(days[159]!.surface!)
    expect(soil).toMatchObject({ source: 'estimated', texture: 'loam', assumed: true, unknownRainDays: 0 })
    expect(Math.abs(eleventh.soil! - (eleventh.min! + eleventh.max!) / 2)).toBeLessThan(2)
    expect(sun!.dayLength).toBeCloseTo(15.75, 1)
    expect(frost.seasons).toBeGreaterThanOrEqual(4)
    expect(usualChill).not.toBeNull()
    // What is yet to come is not known.
    expect(days[162]).toMatchObject({ min: null, wet: null, soil: null, chill: null })
  })

  test('counts chill from 120 days before it, as the computation does', async () => {
    const lines = readings().split('\n').slice(1)
    const from = lines.findIndex((line) => line.startsWith('2025-09-03 00:00'))
    const temps = lines.slice(from, from + 200 * 24).map((line) => Number(line.split(',')[1]))
    const expected = chillPortions(temps)
    expect((await season()).days[79]!.chill).toBeCloseTo(expected[200 * 24 - 1]!, 1)
  })

  test('takes the probe where it read', async () => {
    await push({
      readings: Array.from({ length: 24 }, (_, h) => ({
        at: new Date(Date.parse('2026-06-09T08:00:00Z') + h * 3_600_000).toISOString(),
        soil: 15 + h / 40,
      })),
    })
    const { days, soil } = await season()
    expect(days[159]!.soil).toBe(15.3)
    expect(soil.source).toBe('probe')
  })
})

describe('a day', () => {
  test('opens to its hours with what follows from them, wind at 2 m', async () => {
    const { source, sun, hours: of } = await hours('2026-06-11')
    expect(source).toBe('read')
    expect(sun!.sunrise).toBeGreaterThan(3)
    expect(of).toHaveLength(24)
    expect(of.map(({ wet }) => wet).lastIndexOf(true)).toBe(5)
    const noon = of[12]!
    expect(noon.dewPoint).toBeCloseTo(dewPoint(noon.temperature!, noon.humidity!), 0)
    expect(noon.wind).toBeCloseTo(2.4, 1)
    expect(noon.vpd).toBeGreaterThan(0)
    expect(noon.deltaT).toBeGreaterThan(2)
  })

  test('of which only extremes were typed has hours made from them', async () => {
    const typed = { day: '2020-07-04', min: 11, max: 29 }
    done(await app.call(weather.typeDays, params(), { days: [typed] }, { person: place.person }))
    const { source, hours: of } = await hours('2020-07-04')
    const expected = hoursFromExtremes([typed], dayNumber('2020-07-04'), { latitude: 46.2, longitude: -119.3 }, -480)
    expect(source).toBe('typed')
    expect(of[15]!.temperature).toBeCloseTo(expected[15]!, 1)
    expect(of[15]).toMatchObject({ humidity: null, dewPoint: null, wet: null })
  })

  test('that nobody knows says so', async () => expect((await hours('2019-01-01')).source).toBe('none'))
})

describe('a new hour', () => {
  test('is fetched by itself and leaves the same as reading everything anew', async () => {
    await season()
    await push({ at: '2026-06-12T12:00:00Z', temperature: 3.1, humidity: 97, rain: 0.4, wind: 1 })
    await push({ at: '2026-06-11T20:00:00Z', temperature: 41.5 })
    await push({ at: '2026-06-12T14:00:00Z', temperature: 9 })
    const grown = { season: await season(), doubts: done(await app.call(weather.doubts, params(), { season: SEASON })) }
    expect(grown.season.days[161]!.max).not.toBe(41.5)
    expect(grown.doubts.map(({ flag }) => flag)).toContain('spike')
    expect((await hours('2026-06-12')).hours[4]!.temperature).toBe(3.1)

    const port = 24_000 + Math.floor(Math.random() * 8000)
    const other = await startServer(app.databaseUrl, port)
    const anew = async (e: { path: string }): Promise<unknown> =>
      (
        await fetch(
          `http://127.0.0.1:${port}/api/v1${e.path.replace(':siteId', place.site.id).replace(':stationId', place.stationId)}?season=${SEASON}`,
          { headers: { Cookie: await app.cookieOf(place.person) } },
        )
      ).json()
    expect(await anew(weather.days)).toEqual(grown.season)
    expect(await anew(weather.doubts)).toEqual(grown.doubts)
    other.kill()
  })
})

describe('what is taken out as CSV', () => {
  const csv = async (kind: 'days' | 'hours' | 'heat', query: string) => {
    const response = await app.get(`sites/${place.site.id}/stations/${place.stationId}/${kind}.csv?${query}`)
    return { status: response.status, type: response.headers.get('content-type'), text: await response.text() }
  }
  test('can be taken in again and is the same', async () => {
    const { text, type } = await csv('hours', 'from=2026-06-01&to=2026-06-11')
    expect(type).toContain('text/csv')
    const copy = {
      ...place,
      stationId: done(await app.call(weather.addStation, { siteId: place.site.id }, { name: 'Copy' }, { person: place.person })).id,
    }
    const { mapping } = (await preview(app, copy, text)).body
    expect(mapping).toMatchObject({ clock: 'utc', interval: 'hourly', dateOrder: 'ymd' })
    const result = await importFile(app, copy, text, mapping)
    expect(result.body).toMatchObject({ new: 264, rejected: 0 })
    const { days } = done(await app.call(weather.days, { siteId: place.site.id, stationId: copy.stationId }, { season: SEASON }))
    const own = (await season()).days
    for (let d = 152; d < 162; d++) {
      expect(days[d]!.min).toBeCloseTo(own[d]!.min!, 2)
      expect(days[d]!.max).toBeCloseTo(own[d]!.max!, 2)
      expect(days[d]!.wet).toBe(own[d]!.wet)
    }
  })
  test('has a line a day up to yesterday', async () => {
    const { text } = await csv('days', `season=${SEASON}`)
    const lines = text.trim().split('\n')
    expect(lines).toHaveLength(163)
    expect(lines[0]).toContain('date,min_temperature_F,max_temperature_F,rain_in')
    expect(lines.at(-1)).toMatch(/^2026-06-11,/)
  })
  test('has the heat by any rule, day by day, with past seasons beside it', async () => {
    const query = { season: SEASON, from: '2026-03-01', method: 'single-sine', lower: '10', target: '140' } as const
    const { text } = await csv('heat', new URLSearchParams(query).toString())
    const [head, ...lines] = text.trim().split(/\r?\n/)
    expect(head).toMatch(/^date,heat_Fd,heat_sum_Fd/)
    expect(lines[0]).toMatch(/^2026-03-01,/)
    const { current } = done(await app.call(weather.heat, { siteId: place.site.id, stationId: place.stationId }, query as never))
    expect(lines).toHaveLength(current.length)
    const sum = lines.reduce((total, line) => total + Number(line.split(',')[1]), 0)
    expect(sum / 1.8).toBeCloseTo(current.at(-1)!, 1)
  })
  test('asks for days in order', async () => expect((await csv('hours', 'from=2026-06-11&to=2026-06-01')).status).toBe(422))
})
