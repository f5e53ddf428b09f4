import { randomUUID } from 'node:crypto'
import { endpoints } from '@bocado/contract'
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest'
import type { Row } from '../database/pool.js'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'
import { importFile, preview } from '../testing/upload.js'

const { weather } = endpoints
let app: Application
let place: TestSite
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
})
beforeEach(async () => {
  place = await startSite(app, `Hand ${randomUUID().slice(0, 8)}`)
})
afterAll(() => app.stop())

const params = () => ({ siteId: place.site.id, stationId: place.stationId })
const as = () => ({ person: place.person })
const bringIn = async (file: string) => {
  const { body } = await preview(app, place, file)
  return (await importFile(app, place, file, body.mapping)).body
}
const hourly = (days: readonly string[], temp: (hour: number) => number | string, more = ''): string =>
  [
    `time,temp C${more ? ',rain mm' : ''}`,
    ...days.flatMap((day) => Array.from({ length: 24 }, (_, h) => `${day} ${String(h).padStart(2, '0')}:00,${temp(h)}${more}`)),
  ].join('\n')
const wave = (h: number): number => 12 + Math.round(60 * Math.sin((h - 8) / 4)) / 10
const daily = (from: number, to: number, min: number, max: number): string =>
  [
    'day,min C,max C',
    ...Array.from({ length: to - from + 1 }, (_, i) => `2026-05-${String(from + i).padStart(2, '0')},${min},${max}`),
  ].join('\n')

const season = async () => done(await app.call(weather.days, params(), { season: '2026-01-01' })).days
const may = async (d: number) => (await season()).find(({ day }) => day === `2026-05-${String(d).padStart(2, '0')}`)
const hoursOf = async (day: string) => done(await app.call(weather.hours, params(), { day }))
const undo = (importId: string) => app.call(weather.undoImport, { siteId: place.site.id, importId }, {}, as())
const everything = async (): Promise<unknown> => {
  const [hours] = await app.database.query<Row[]>('SELECT * FROM reading WHERE station_id = ? ORDER BY at', [place.stationId])
  const [days] = await app.database.query<Row[]>('SELECT * FROM daily_extremes WHERE station_id = ? ORDER BY day', [place.stationId])
  return { hours, days }
}

describe('an import is taken back as a whole', () => {
  test('what it brought goes, what it replaced comes back, and the list says who did it', async () => {
    await bringIn(hourly(['2026-05-01', '2026-05-02'], wave))
    const before = await everything()
    const wrong = await bringIn(hourly(['2026-05-02', '2026-05-03'], (h) => wave(h) + 5))
    expect(wrong).toMatchObject({ new: 24, changed: 24 })
    expect((await may(3))?.max).not.toBeNull()
    expect(done(await undo(wrong.id))).toMatchObject({ undone: { by: 'Marit Solheim' }, new: 24, changed: 24 })
    expect(await everything()).toEqual(before)
    expect((await may(3))?.max ?? null).toBeNull()
    expect((await may(2))?.max).toBe((await may(1))?.max)
    const list = done(await app.call(weather.imports, { siteId: place.site.id }, {}))
    expect(list.filter(({ undone }) => undone !== null).map(({ id }) => id)).toEqual([wrong.id])
    expect((await undo(wrong.id)).problem.detail).toBe('Marit Solheim took this import back already.')
  })

  test('of days as well; a file that lies over it goes first, and nothing changes where it is refused', async () => {
    const first = await bringIn(daily(1, 20, 5, 15))
    const before = await everything()
    const second = await bringIn(daily(11, 25, 8, 22))
    expect(second).toMatchObject({ new: 5, changed: 10 })
    const between = await everything()
    expect((await undo(first.id)).problem.detail).toContain('was laid over 10 of its days. Take that file back first.')
    expect(await everything()).toEqual(between)
    done(await undo(second.id))
    expect(await everything()).toEqual(before)
    done(await undo(first.id))
    expect(await everything()).toEqual({ hours: [], days: [] })
  })

  test('an hour that a device sent later stays', async () => {
    const wrong = await bringIn(hourly(['2026-06-11'], wave))
    const { token } = done(await app.call(weather.issueToken, params(), {}, as()))
    await fetch(`${app.address}/api/v1/stations/${place.stationId}/readings`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', Authorization: `Bearer ${token}` },
      body: JSON.stringify({ at: '2026-06-11T18:00:00Z', temperature: 30.5 }),
    })
    done(await undo(wrong.id))
    const { hours } = (await everything()) as { hours: Row[] }
    expect(hours.map((row) => row['temperature'] as number)).toEqual([30.5])
  })

  test('of another site it is none', async () => {
    const brought = await bringIn(hourly(['2026-05-01'], wave))
    const other = await startSite(app, `Other ${randomUUID().slice(0, 8)}`)
    const { status } = await app.call(weather.undoImport, { siteId: other.site.id, importId: brought.id }, {}, { person: other.person })
    expect(status).toBe(404)
  })
})

describe('what is typed by hand wins', () => {
  test('over the hours of a station: the day has its extremes and says so, and taken away the hours stand again', async () => {
    await bringIn(hourly(['2026-05-01', '2026-05-02'], wave))
    const before = await may(2)
    done(await app.call(weather.typeDays, params(), { days: [{ day: '2026-05-02', min: 3, max: 27, rain: 4 }] }, as()))
    expect(await may(2)).toMatchObject({ min: 3, max: 27, rain: 4 })
    const typed = await hoursOf('2026-05-02')
    expect(typed).toMatchObject({ source: 'typed', typed: { min: 3, max: 27, rain: 4, by: 'Marit Solheim' } })
    expect(Math.max(...typed.hours.map(({ temperature }) => temperature ?? 0))).toBeCloseTo(27, 0)
    done(await app.call(weather.untypeDays, params(), { days: ['2026-05-02'] }, as()))
    expect(await may(2)).toEqual(before)
    expect(await hoursOf('2026-05-02')).toMatchObject({ source: 'read', typed: null })
    expect((await app.call(weather.untypeDays, params(), { days: ['2026-05-02'] }, as())).status).toBe(404)
  })

  test('over a file of days that comes later, which counts how many days keep what was typed', async () => {
    done(await app.call(weather.typeDays, params(), { days: [{ day: '2026-05-02', min: 3, max: 27 }] }, as()))
    expect(await bringIn(daily(1, 20, 5, 15))).toMatchObject({ new: 20, typedHold: 1 })
    expect(await may(2)).toMatchObject({ min: 3, max: 27 })
    done(await app.call(weather.untypeDays, params(), { days: ['2026-05-02'] }, as()))
    expect(await may(2)).toMatchObject({ min: 5, max: 15 })
  })
})

describe('a single hour put right by hand', () => {
  const hour = { kind: 'value' as const, from: '2026-05-02', to: '2026-05-02', hour: 14, variable: 'temperature' as const }
  const FILE = hourly(['2026-05-01', '2026-05-02', '2026-05-03'], wave).replace(/2026-05-02 14:00,[^\n]*/, '2026-05-02 14:00,48')

  test('holds against the reading and its doubt, says who and why, and can be taken off', async () => {
    await bringIn(FILE)
    const read = await hoursOf('2026-05-02')
    expect(read.hours[14]!.doubts).toMatchObject([{ flag: 'spike', read: 48 }])
    const input = { ...hour, value: 19.5, note: 'sun on the sensor' }
    expect(done(await app.call(weather.previewCorrection, params(), input))).toMatchObject({
      hours: 1,
      examples: [{ before: 48, after: 19.5 }],
    })
    const made = done(await app.call(weather.correct, params(), input, as()))
    expect(made).toMatchObject({ kind: 'value', hour: 14, value: 19.5, from: '2026-05-02', to: '2026-05-02' })
    const after = await hoursOf('2026-05-02')
    expect(after.hours[14]).toMatchObject({ temperature: 19.5, doubts: [] })
    expect(after.byHand).toMatchObject([
      { hour: 14, variable: 'temperature', value: 19.5, read: 48, by: 'Marit Solheim', note: 'sun on the sensor' },
    ])
    expect((await may(2))?.max).toBe(19.5)
    done(await app.call(weather.removeCorrection, { siteId: place.site.id, correctionId: made.id }, { rowVersion: 1 }, as()))
    expect(await hoursOf('2026-05-02')).toEqual(read)
  })

  test('fills an hour that was never read, also of a sensor that reads nothing else, and outlives a later file', async () => {
    await bringIn(FILE.replace(/2026-05-02 09:00[^\n]*\n/, ''))
    done(await app.call(weather.correct, params(), { ...hour, hour: 9, value: 11, note: 'read off the dial' }, as()))
    done(await app.call(weather.correct, params(), { ...hour, hour: 9, variable: 'humidity', value: 71, note: 'read off the dial' }, as()))
    await bringIn(FILE)
    expect((await hoursOf('2026-05-02')).hours[9]).toMatchObject({ temperature: 11, humidity: 71 })
  })

  test('has one value at a time: a second is refused with who put it right, and so is bringing an older one back', async () => {
    await bringIn(FILE)
    const input = { ...hour, value: 19.5, note: 'sun on the sensor' }
    const first = done(await app.call(weather.correct, params(), input, as()))
    const again = await app.call(weather.correct, params(), { ...input, value: 20 }, as())
    expect(again.problem.fields).toEqual([{ path: 'hour', message: 'is put right already, by Marit Solheim: take that off first' }])
    const at = { siteId: place.site.id, correctionId: first.id }
    const { rowVersion } = done(await app.call(weather.removeCorrection, at, { rowVersion: 1 }, as()))
    done(await app.call(weather.correct, params(), { ...input, value: 20 }, as()))
    expect((await app.call(weather.restoreCorrection, at, { rowVersion }, as())).status).toBe(422)
    expect((await hoursOf('2026-05-02')).hours[14]!.temperature).toBe(20)
  })

  test('that is none, impossible or without a reason is refused by its field, and nothing changes', async () => {
    await bringIn(FILE)
    const before = await hoursOf('2026-05-02')
    const path = async (input: object): Promise<string | undefined> =>
      (await app.call(weather.correct, params(), { ...hour, value: 19, note: 'x', ...input } as never, as())).problem.fields?.[0]?.path
    expect(await path({ note: ' ' })).toBe('note')
    expect(await path({ value: 90 })).toBe('value')
    expect(await path({ value: null })).toBe('value')
    expect(await path({ hour: null })).toBe('hour')
    expect(await path({ to: '2026-05-03' })).toBe('to')
    expect(await path({ variable: null })).toBe('variable')
    const ahead = { ...hour, from: '2026-06-12', to: '2026-06-12', hour: 23, value: 19, note: 'x' }
    expect((await app.call(weather.correct, params(), ahead, as())).problem.detail).toContain('lies in the future')
    const far = await app.call(weather.correct, params(), { ...hour, from: '2026-06-10', to: '2026-06-10', value: 19, note: 'x' }, as())
    expect(far.problem.detail).toContain('no hours around this one')
    expect(await hoursOf('2026-05-02')).toEqual(before)
  })
})
