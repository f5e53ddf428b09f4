import { endpoints } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { Row } from '../database/pool.js'
import { servingOver, startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'
import { hourlyFile, importFile, preview } from '../testing/upload.js'
import { tendStations } from '../worker/tendStations.js'

const { weather, watches } = endpoints
const SEASON = '2026-01-01'

let app: Application
let place: TestSite
let river: TestSite

/** Lines of a good file with the doubts of a bad spring: a stuck sensor, a spike, nine hours missing. */
function doubted(): string {
  const lines = hourlyFile(2022, '2026-06-12').split('\n')
  const at = (start: string): number => lines.findIndex((line) => line.startsWith(start))
  const set = (i: number, temperature: number): void => {
    lines[i] = `${lines[i]!.split(',')[0]},${temperature},0`
  }
  for (let i = at('2026-05-20 02:00'), k = 0; k < 12; k++) set(i + k, 4.1)
  set(at('2026-05-26 13:00'), 47.3)
  lines.splice(at('2026-06-03 03:00'), 9)
  return lines.join('\n')
}

beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  const other = done(await app.call(weather.addStation, { siteId: place.site.id }, { name: 'River' }, { person: place.person }))
  river = { ...place, stationId: other.id }
  const file = doubted()
  await importFile(app, place, file, (await preview(app, place, file.slice(0, 200_000))).body.mapping)
})
afterAll(() => app.stop())

const params = () => ({ siteId: place.site.id, stationId: place.stationId })
const doubts = async () => done(await app.call(weather.doubts, params(), { season: SEASON }))
const temperatures = async () => (await doubts()).filter(({ variable }) => variable === 'temperature')
const heatNow = async () => done(await app.call(watches.band, { siteId: place.site.id }, { season: SEASON })).watches[0]!.heat

describe('what is doubted', () => {
  test('is found, said with its reading, and filled from other years where the station is alone', async () => {
    const found = await temperatures()
    expect(found.map(({ flag, hours, from }) => [flag, hours, from])).toEqual([
      ['gap', 9, '2026-06-03T11:00:00Z'],
      ['spike', 1, '2026-05-26T21:00:00Z'],
      ['flat-line', 12, '2026-05-20T10:00:00Z'],
    ])
    expect(found.map(({ methods }) => methods)).toEqual([['climatology'], ['interpolated'], ['climatology']])
    expect(found[1]!.read).toEqual({ low: 47.3, high: 47.3 })
    expect(found[1]!.standsIn!.high).toBeLessThan(30)
    expect(found[0]!.read).toBeNull()
  })

  test('is filled from a second station as soon as there is one, and rain is not invented', async () => {
    const file = hourlyFile(2022, '2026-06-12')
    await importFile(app, river, file, (await preview(app, river, file.slice(0, 200_000))).body.mapping)
    await tendStations(servingOver(app), place.site.id)
    const found = await temperatures()
    expect(found.map(({ methods }) => methods)).toEqual([['neighbour'], ['interpolated'], ['neighbour']])
    const rain = (await doubts()).filter(({ variable }) => variable === 'rain')
    expect(rain).toMatchObject([{ flag: 'gap', hours: 9, methods: ['neighbour'], standsIn: { low: 0, high: 0 } }])
  })

  test('leaves the readings as they came', async () => {
    const [[row]] = await app.database.query<Row[]>("SELECT temperature FROM reading WHERE station_id = ? AND at = '2026-05-26 21:00:00'", [
      place.stationId,
    ])
    expect(row).toMatchObject({ temperature: 47.3 })
  })
})

describe('a decision', () => {
  test('to believe the readings moves the heat and is kept through later imports; to leave it open moves it back', async () => {
    done(
      await app.call(
        watches.create,
        { siteId: place.site.id },
        { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: '2026-05-10' },
        { person: place.person },
      ),
    )
    const before = await heatNow()
    expect(before.filledShare).toBeGreaterThan(0)
    const stuck = (await temperatures()).find(({ flag }) => flag === 'flat-line')!
    const decide = (decision: 'open' | 'accepted' | 'overruled') =>
      app.call(
        weather.decideDoubts,
        params(),
        { decision, doubts: [{ variable: 'temperature', from: stuck.from, to: stuck.to }] },
        { person: place.person },
      )
    expect(done(await decide('overruled')).hours).toBe(12)
    const believed = await heatNow()
    expect(believed.now).toBeLessThan(before.now)
    expect(believed.filledShare).toBeLessThan(before.filledShare)

    const later = 'time,temp C\n2026-06-12 01:00,12.5'
    await importFile(app, place, later, (await preview(app, place, later)).body.mapping)
    expect((await temperatures()).find(({ flag }) => flag === 'flat-line')).toMatchObject({
      decision: 'overruled',
      decidedBy: 'Marit Solheim',
      hours: 12,
    })
    done(await decide('open'))
    expect((await heatNow()).now).toBeCloseTo(before.now, 6)
    done(await decide('accepted'))
    expect((await temperatures()).find(({ flag }) => flag === 'flat-line')?.decision).toBe('accepted')
  })

  test('on what is not doubted is refused whole', async () => {
    const spike = (await temperatures()).find(({ flag }) => flag === 'spike')!
    const answer = await app.call(
      weather.decideDoubts,
      params(),
      {
        decision: 'overruled',
        doubts: [
          { variable: 'temperature', from: spike.from, to: spike.to },
          { variable: 'wind', from: spike.from, to: spike.to },
        ],
      },
      { person: place.person },
    )
    expect(answer.problem.fields?.[0]?.path).toBe('doubts.1')
    expect((await temperatures()).find(({ flag }) => flag === 'spike')?.decision).toBe('open')
  })
})

describe('a sensor that drifts', () => {
  test('is a suspicion: the readings are used until somebody accepts it', async () => {
    const lines = hourlyFile(2025, '2026-06-12').split('\n')
    const from = lines.findIndex((line) => line.startsWith('2026-05-01 00:00'))
    for (let i = from; i < lines.length; i++) {
      const [time, temperature, rain] = lines[i]!.split(',')
      lines[i] = `${time},${(Number(temperature) + Math.min(6, (i - from) / 100)).toFixed(2)},${rain}`
    }
    const hill = {
      ...place,
      stationId: done(await app.call(weather.addStation, { siteId: place.site.id }, { name: 'Hill' }, { person: place.person })).id,
    }
    const file = lines.join('\n')
    await importFile(app, hill, file, (await preview(app, hill, file.slice(0, 200_000))).body.mapping)
    const ask = { siteId: place.site.id, stationId: hill.stationId }
    const drift = async () => done(await app.call(weather.doubts, ask, { season: SEASON })).filter(({ flag }) => flag === 'drift')
    const maxOf = async () => done(await app.call(weather.days, ask, { season: SEASON })).days.find(({ day }) => day === '2026-06-10')!.max!
    const found = await drift()
    expect(found).toHaveLength(1)
    expect(found[0]!.from.slice(0, 7)).toBe('2026-05')
    expect(found[0]!.standsIn!.high).toBeLessThan(found[0]!.read!.high)
    const drifting = await maxOf()
    const decide = (decision: 'accepted' | 'overruled') =>
      app.call(
        weather.decideDoubts,
        ask,
        { decision, doubts: [{ variable: 'temperature', from: found[0]!.from, to: found[0]!.to }] },
        { person: place.person },
      )
    done(await decide('accepted'))
    expect(drifting - (await maxOf())).toBeGreaterThan(5)
    done(await decide('overruled'))
    expect(await maxOf()).toBe(drifting)
  })
})

describe('a January such as the place has never had', () => {
  test('is doubted where it was stored in the wrong unit, and not once the hours were put right', async () => {
    const stand = {
      ...place,
      stationId: done(await app.call(weather.addStation, { siteId: place.site.id }, { name: 'Old Barn' }, { person: place.person })).id,
    }
    // Of six Januaries one was read as °C though it was °F.
    const file = hourlyFile(2020, '2026-06-12')
      .split('\n')
      .map((line) => {
        const [time, temperature, rain] = line.split(',')
        return line.startsWith('2026-01') ? `${time},${(Number(temperature) * 1.8 + 32).toFixed(2)},${rain}` : line
      })
      .join('\n')
    await importFile(app, stand, file, (await preview(app, stand, file.slice(0, 200_000))).body.mapping)
    const ask = { siteId: place.site.id, stationId: stand.stationId }
    const unseen = async () => done(await app.call(weather.doubts, ask, { season: SEASON })).filter(({ flag }) => flag === 'unseen')
    const found = await unseen()
    expect(found.reduce((sum, { hours }) => sum + hours, 0)).toBeGreaterThan(25 * 24)
    expect(found.every(({ from }) => /^2026-0(1|2-01)/.test(from))).toBe(true)
    // It is kept as every doubt is, so that somebody can decide on it.
    await tendStations(servingOver(app), place.site.id)
    const [[kept]] = await app.database.query<Row[]>("SELECT COUNT(*) AS n FROM reading_fix WHERE station_id = ? AND flag = 'unseen'", [
      stand.stationId,
    ])
    expect(Number(kept!['n'])).toBeGreaterThan(25 * 24)
    // The other stations of the site stand in for it.
    expect(found[0]!.standsIn!.high).toBeLessThan(20)
    const correction = {
      kind: 'unit' as const,
      from: '2026-01-01',
      to: '2026-01-31',
      variable: 'temperature' as const,
      readAs: 'C' as const,
      isIn: 'F' as const,
      note: 'the file was in °F',
    }
    done(await app.call(weather.correct, ask, correction, { person: place.person }))
    expect(await unseen()).toEqual([])
  })

  test('is doubted in a file of days as well; a day that somebody believes is used again', async () => {
    const barn = {
      ...place,
      stationId: done(await app.call(weather.addStation, { siteId: place.site.id }, { name: 'Barn Book' }, { person: place.person })).id,
    }
    const days = new Map<string, number[]>()
    for (const line of hourlyFile(2020, '2026-06-12').split('\n').slice(1)) {
      const [time = '', temperature] = line.split(',')
      const c = Number(temperature) * (time.startsWith('2026-01') ? 1.8 : 1) + (time.startsWith('2026-01') ? 32 : 0)
      days.set(time.slice(0, 10), [...(days.get(time.slice(0, 10)) ?? []), c])
    }
    const file = [
      'date,tmax,tmin',
      ...[...days]
        .filter(([, of]) => of.length === 24)
        .map(([day, of]) => `${day},${Math.max(...of).toFixed(1)},${Math.min(...of).toFixed(1)}`),
    ].join('\n')
    await importFile(app, barn, file, (await preview(app, barn, file.slice(0, 200_000))).body.mapping)
    const ask = { siteId: place.site.id, stationId: barn.stationId }
    const unseen = async () => done(await app.call(weather.doubts, ask, { season: SEASON })).filter(({ flag }) => flag === 'unseen')
    const dayOf = async (day: string) => done(await app.call(weather.days, ask, { season: SEASON })).days.find((one) => one.day === day)
    const found = await unseen()
    expect(found.reduce((sum, { hours }) => sum + hours, 0)).toBeGreaterThan(25 * 24)
    expect(found.every(({ from, read }) => /^2026-0(1|2-01)/.test(from) && read!.high > 30)).toBe(true)
    expect((await dayOf('2026-01-15'))?.max ?? 0).toBeLessThan(20)
    const decide = (decision: 'overruled' | 'open') =>
      app.call(
        weather.decideDoubts,
        ask,
        { decision, doubts: found.map(({ variable, from, to }) => ({ variable, from, to })) },
        { person: place.person },
      )
    done(await decide('overruled'))
    expect((await unseen()).map(({ decision, decidedBy }) => ({ decision, decidedBy }))).toContainEqual({
      decision: 'overruled',
      decidedBy: expect.any(String) as string,
    })
    expect((await dayOf('2026-01-15'))!.max).toBeGreaterThan(30)
    done(await decide('open'))
    expect((await dayOf('2026-01-15'))?.max ?? 0).toBeLessThan(20)
    // Typed by hand it is nobody's doubt.
    const typed = { days: [{ day: '2026-01-15', min: 41, max: 44, rain: null }] }
    done(await app.call(weather.typeDays, ask, typed, { person: place.person }))
    expect((await dayOf('2026-01-15'))!.max).toBe(44)
  })
})
