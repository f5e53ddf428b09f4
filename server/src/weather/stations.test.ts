import { endpoints } from '@bocado/contract'
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest'
import type { Row } from '../database/pool.js'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'
import { hourlyFile, importFile, preview } from '../testing/upload.js'

const { weather, blocks } = endpoints
const SEASON = '2026-01-01'

let app: Application
let place: TestSite
let n = 0
const file = hourlyFile(2026, '2026-06-12')

beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
})
beforeEach(async () => {
  place = await startSite(app, `Bench ${++n}`)
  await importFile(app, place, file, (await preview(app, place, file.slice(0, 200_000))).body.mapping)
})
afterAll(() => app.stop())

const params = () => ({ siteId: place.site.id, stationId: place.stationId })
const as = () => ({ person: place.person })
const station = async () => done(await app.call(weather.stations, { siteId: place.site.id }, {}))[0]!
const days = async () => done(await app.call(weather.days, params(), { season: SEASON })).days.slice(0, 160)
const stored = async () => {
  const [[row]] = await app.database.query<Row[]>('SELECT SUM(temperature) AS t, COUNT(*) AS n FROM reading WHERE station_id = ?', [
    place.stationId,
  ])
  return `${row!['n']} ${Number(row!['t']).toFixed(3)}`
}

describe('a station', () => {
  test('has its place, height and sensors, and says how they fare', async () => {
    const { rowVersion, utcOffsetMinutes, name } = await station()
    const about = { place: 'by the old gate', latitude: 46.21, longitude: -119.31, elevationM: 214, sensorHeightM: 3 }
    done(await app.call(weather.updateStation, params(), { name, ...about, utcOffsetMinutes, rowVersion }, as()))
    const now = await station()
    expect(now).toMatchObject({ ...about, hours: 3888, rowVersion: rowVersion + 1 })
    expect(now.sensors.map(({ variable, share }) => [variable, share])).toEqual([
      ['temperature', 1],
      ['rain', 1],
    ])
    expect(now.sensors[0]!.lastHour).toBe('2026-06-12T07:00:00Z')
    const stale = await app.call(weather.updateStation, params(), { name, ...about, utcOffsetMinutes, rowVersion }, as())
    expect(stale.status).toBe(409)
  })

  test('keeps its clock unless somebody has seen what moves, and moves it back whole', async () => {
    const before = await days()
    const hoursBefore = done(await app.call(weather.hours, params(), { day: '2026-05-05' })).hours
    const { rowVersion, name } = await station()
    const change = (input: object, version: number) =>
      app.call(weather.updateStation, params(), { name, rowVersion: version, ...input } as never, as())
    const refused = await change({ utcOffsetMinutes: -180 }, rowVersion)
    expect(refused.status).toBe(422)
    expect(refused.problem).toMatchObject({ fields: [{ path: 'clockMovesHours', message: '3888' }] })
    expect(await days()).toEqual(before)
    done(await change({ utcOffsetMinutes: -180, clockMovesHours: 3888 }, rowVersion))
    const after = done(await app.call(weather.hours, params(), { day: '2026-05-05' })).hours
    expect(after[14]!.temperature).toBe(hoursBefore[9]!.temperature)
    done(await change({ utcOffsetMinutes: -480, clockMovesHours: 3888 }, rowVersion + 1))
    expect(await days()).toEqual(before)
  })

  test('cannot be removed under a block that chose it; removed and restored it has its readings', async () => {
    const { rowVersion } = await station()
    const block = done(await app.call(blocks.list, { siteId: place.site.id }, {}))[0]!
    const { name, kind, areaHa, grows } = block
    const choose = (stationId: string | null, version: number) =>
      app.call(
        blocks.update,
        { siteId: place.site.id, blockId: block.id },
        { name, kind, areaHa, grows, stationId, rowVersion: version },
        as(),
      )
    done(await choose(place.stationId, 1))
    const refused = await app.call(weather.removeStation, params(), { rowVersion }, as())
    expect(refused.problem.fields?.[0]?.message).toContain('Old Apples follow this station')
    done(await choose(null, 2))
    const { rowVersion: removed } = done(await app.call(weather.removeStation, params(), { rowVersion }, as()))
    expect(done(await app.call(weather.stations, { siteId: place.site.id }, {}))).toEqual([])
    done(await app.call(weather.restoreStation, params(), { rowVersion: removed }, as()))
    expect(await station()).toMatchObject({ hours: 3888 })
  })

  test('shows why the newest push was refused until one is taken', async () => {
    const { token } = done(await app.call(weather.issueToken, params(), {}, as()))
    const push = (temperature: number, bearer: string) =>
      fetch(`${app.address}/api/v1/stations/${place.stationId}/readings`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json', Authorization: `Bearer ${bearer}` },
        body: JSON.stringify({ at: '2026-06-12T13:00:00Z', temperature }),
      })
    // Whoever guesses tokens writes nothing on the card of the real device, and takes nothing of what it may send.
    for (let i = 0; i < 70; i++) expect((await push(12, 'guess')).status).toBe(401)
    expect((await station()).refused).toBeNull()
    await push(120, token)
    expect((await station()).refused).toMatchObject({ at: '2026-06-12T14:30:00Z' })
    expect((await station()).refused?.because).toContain('must be at most 58')
    expect((await push(12, token)).status).toBe(200)
    expect((await station()).refused).toBeNull()
    // A device that is sent away sends nothing more; what it sent stays, and who sent it away is on record.
    expect((await station()).device).toBe('pushed')
    done(await app.call(weather.endToken, params(), {}, as()))
    expect((await push(12, token)).status).toBe(401)
    expect((await station()).device).toBe('none')
    expect((await app.call(weather.endToken, params(), {}, as())).status).toBe(404)
    const { entries } = done(await app.call(endpoints.audit.list, { siteId: place.site.id }, {}, as()))
    expect(entries[0]).toMatchObject({ entity: 'station', changes: [{ field: 'device', before: 'pushed', after: 'none' }] })
  })
})

describe('a correction', () => {
  const unit = { kind: 'unit' as const, from: '2026-01-05', to: '2026-02-09', variable: 'temperature' as const, readAs: 'F', isIn: 'C' }

  test('of a unit is seen before it is made, lies over the readings and can be taken off', async () => {
    const [before, raw] = [await days(), await stored()]
    const seen = done(await app.call(weather.previewCorrection, params(), unit))
    expect(seen.hours).toBe(36 * 24)
    // A reading of 12 °C that was taken for °F was 53.6.
    expect(seen.examples[0]!.after).toBeCloseTo(seen.examples[0]!.before * 1.8 + 32, 6)
    const made = done(await app.call(weather.correct, params(), unit, as()))
    const corrected = await days()
    expect(corrected[2]!.min).toBe(before[2]!.min)
    expect(corrected[20]!.min).toBeCloseTo(before[20]!.min! * 1.8 + 32, 1)
    expect(await stored()).toBe(raw)
    expect(done(await app.call(weather.corrections, params(), {}))).toMatchObject([
      { kind: 'unit', from: '2026-01-05', to: '2026-02-09', by: 'Marit Solheim' },
    ])
    const at = { siteId: place.site.id, correctionId: made.id }
    const { rowVersion } = done(await app.call(weather.removeCorrection, at, { rowVersion: 1 }, as()))
    expect(await days()).toEqual(before)
    done(await app.call(weather.restoreCorrection, at, { rowVersion }, as()))
    expect(await days()).toEqual(corrected)
  })

  test('of a clock moves hours, also those that come later within its days', async () => {
    const shift = {
      kind: 'clock' as const,
      from: '2026-06-01',
      to: '2026-06-30',
      shiftMinutes: -180,
      note: 'clock of the logger ran ahead',
    }
    const hours = async (day: string) => done(await app.call(weather.hours, params(), { day })).hours
    const before = await hours('2026-06-05')
    done(await app.call(weather.correct, params(), shift, as()))
    const after = await hours('2026-06-05')
    expect(after[6]!.temperature).toBe(before[9]!.temperature)
    const { token } = done(await app.call(weather.issueToken, params(), {}, as()))
    await fetch(`${app.address}/api/v1/stations/${place.stationId}/readings`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', Authorization: `Bearer ${token}` },
      body: JSON.stringify({ at: '2026-06-12T13:00:00Z', temperature: 11.5 }),
    })
    expect((await hours('2026-06-12'))[2]!.temperature).toBe(11.5)
  })

  test('that would make nonsense, covers nothing or is none is refused, and nothing changes', async () => {
    const raw = await stored()
    const ask = (input: object) => app.call(weather.correct, params(), { ...unit, ...input } as never, as())
    expect((await ask({ from: '2026-05-20', to: '2026-06-11' })).problem.detail).toContain('outside what there can be')
    expect((await ask({ variable: 'wind', readAs: 'mph', isIn: 'm/s' })).problem.detail).toContain('no such readings')
    expect((await ask({ isIn: 'F' })).problem.fields?.[0]).toEqual({ path: 'isIn', message: 'is the unit that was taken already' })
    expect((await ask({ kind: 'clock', shiftMinutes: 90 })).problem.fields?.[0]?.path).toBe('shiftMinutes')
    expect((await ask({ to: '2025-12-01' })).problem.fields?.[0]?.path).toBe('to')
    expect(done(await app.call(weather.corrections, params(), {}))).toEqual([])
    expect(await stored()).toBe(raw)
  })
})
