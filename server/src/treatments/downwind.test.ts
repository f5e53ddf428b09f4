import { endpoints, type Geometry } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, GRANULE, startSite, type TestSite } from '../testing/farm.js'
import { box, there } from '../testing/ground.js'

const { blocks, ground, treatments, watches, weather } = endpoints
const NOW = '2026-06-12T14:30:00Z'

let app: Application
let place: TestSite
let at: { siteId: string }
let as: { person: string }
let token: string
let watchId: string
beforeAll(async () => {
  app = await startApplication({ now: NOW })
  place = await startSite(app)
  at = { siteId: place.site.id }
  as = { person: place.person }
  token = done(await app.call(weather.issueToken, { ...at, stationId: place.stationId }, {}, as)).token
  watchId = await watch(place.blockId)
  await draw('outline', box(0, 0, 100, 100), place.blockId)
})
afterAll(() => app.stop())

const draw = async (kind: 'outline' | 'water' | 'hives' | 'way', geometry: Geometry, placeId: string | null = null, name = '') =>
  done(await app.call(ground.draw, at, { kind, geometry, placeId, name }, as))
const watch = async (blockId: string): Promise<string> =>
  done(await app.call(watches.create, at, { organismId: 'codling-moth', blockId, season: '2026-01-01', biofix: '2026-05-10' }, as)).id
const shelf = async (name: string, more: object = {}): Promise<string> =>
  done(await app.call(treatments.addProduct, at, { ...GRANULE, methods: ['spinosyn'], name, ...more }, as)).id
const hours = async (productId: string, of = watchId) => done(await app.call(treatments.hours, { ...at, watchId: of }, { productId }))
const post = (path: string, body: object) =>
  fetch(`${app.address}/api/v1/stations/${place.stationId}/${path}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Authorization: `Bearer ${token}` },
    body: JSON.stringify(body),
  })

/** Fair weather with a light wind, in each member from its own side hour by hour; without a direction where that is undefined. */
async function deliver(minute: number, directions: ((hour: number) => number | null)[] | undefined): Promise<void> {
  const each = <T>(value: (hour: number) => T) => Array.from({ length: 258 }, (_, h) => value(h))
  const air = { temperature: each(() => 20), humidity: each(() => 60), rain: each(() => 0), wind: each(() => 2) }
  const members = directions ? directions.map((direction) => ({ ...air, direction: each(direction) })) : [air]
  const issuedAt = `2026-06-12T14:0${minute}:00Z`
  expect((await post('forecast-issues', { issuedAt, firstHour: '2026-06-12T14:00:00Z', members })).status).toBe(200)
}

describe('where the wind must not carry drops', () => {
  test('closes the hours in which it blows there, in the members in which it does', async () => {
    // 40 m east of the block, and seen from it between north-east and south-east.
    await draw('hives', { type: 'Point', coordinates: there(140, 50) }, null, 'Six hives')
    // From west until noon, then from north; the second member from east all day.
    await deliver(0, [(h) => (h < 6 ? 270 : 0), () => 90])
    const spray = await shelf('Fine', { ways: ['spray'] })
    const board = await hours(spray)
    expect(board.knowsDirection).toBe(true)
    expect(board.downwind).toMatchObject([{ name: 'Six hives', kind: 'hives', metres: 40 }])
    // Hour 7 by the wall is the forecast's first; what blows from the west is carried east.
    expect(board.hours[9]).toEqual({ usable: 1, unknown: 0, blocked: { towards: 1 } })
    expect(board.hours[14]).toEqual({ usable: 2, unknown: 0, blocked: {} })
    expect(board.limits).toContainEqual({ reason: 'towards', from: 'usual' })
    const { from } = board.downwind[0]!
    // Seen from the corners beside it under atan(40/50) and its mirror, each with what a wind wanders.
    expect(from).toEqual({ from: 189, to: 351 })
  })

  test('coarse drops fall before they come so far, and what has no drops is carried nowhere', async () => {
    expect(await hours(await shelf('Spot', { ways: ['spot-spray'] }))).toMatchObject({ downwind: [] })
    expect(await hours(await shelf('Drench', { ways: ['drench'] }))).toMatchObject({ downwind: [] })
    const asks = await shelf('Asks for more', { ways: ['spot-spray'], bufferM: 60 })
    expect((await hours(asks)).downwind).toHaveLength(1)
    // No bee takes harm from a virus of moths.
    expect((await hours(await shelf('Virus', { ways: ['spray'], methods: GRANULE.methods }))).downwind).toEqual([])
    const byHand = done(await app.call(treatments.hours, { ...at, watchId }, { methodId: 'fallen-fruit' }))
    expect(byHand.downwind).toEqual([])
  })

  test('without a direction nothing is closed, and the board says where it must not blow to', async () => {
    await deliver(1, undefined)
    const board = await hours(await shelf('Not told', { ways: ['spray'] }))
    // Hours that the newest forecast leaves open are those of the one before.
    expect(board.downwind).toHaveLength(1)
    expect(board.hours[9]!.unknown).toBe(0)
    expect(
      (await post('forecast-issues', { issuedAt: '2026-06-12T14:02:00Z', firstHour: '2026-06-12T14:00:00Z', members: [] })).status,
    ).toBe(422)
  })

  test('what lies within a block is named, and no wind keeps it clear', async () => {
    const id = done(await app.call(blocks.create, at, { name: 'Hive Pears', kind: 'orchard', areaHa: 1, grows: 'pear' }, as)).id
    await draw('outline', box(1000, 0, 100, 100), id)
    await draw('hives', { type: 'Point', coordinates: there(1050, 50) })
    await draw('way', { type: 'Point', coordinates: there(1110, 50) })
    const psylla = done(await app.call(watches.create, at, { organismId: 'codling-moth', blockId: id, season: '2026-01-01' }, as)).id
    await deliver(3, [() => 90])
    const board = await hours(await shelf('Inside', { ways: ['spray'] }), psylla)
    expect(board.downwind).toEqual([{ name: '', kind: 'hives', metres: 0, from: null }])
    expect(board.hours[9]!.blocked.towards).toBeUndefined()
  })
})

describe('the direction of a record', () => {
  test('is that of the station in its hour, stands in the book, and is refused outside the circle', async () => {
    const readings = ['00', '20', '40'].map((m, i) => ({
      at: `2026-06-12T13:${m}:00Z`,
      temperature: 18,
      wind: 2,
      direction: [350, 0, 10][i],
    }))
    expect((await post('readings', { readings })).status).toBe(200)
    const moment = '2026-06-12T13:30:00Z'
    const then = done(await app.call(treatments.weatherAt, { ...at, watchId }, { at: moment }))
    expect(then).toMatchObject({ windMs: 2, windFrom: 0 })
    const productId = await shelf('Booked', { ways: ['spray'] })
    const did = { watchId, productId, startedAt: moment, rate: 0.1, areaHa: 1, weather: then }
    const made = done(await app.call(treatments.recordUnplanned, at, did, as))
    expect(made.done?.weather).toEqual(then)
    const wrong = { ...did, weather: { ...then, windFrom: 400 } }
    expect((await app.call(treatments.recordUnplanned, at, wrong, as)).problem.fields?.[0]?.path).toBe('weather.windFrom')
  })

  test('of a job stands on its sheet with what it must not be carried to', async () => {
    const productId = await shelf('Planned', { ways: ['spray'] })
    const planned = done(await app.call(treatments.plan, at, { watchId, productId, plannedOn: '2026-06-13' }, as))
    const sheet = done(await app.call(treatments.sheet, { ...at, treatmentId: planned.id }, {}))
    expect(sheet.downwind).toMatchObject([{ name: 'Six hives', metres: 40 }])
    // A part that is not drawn lies somewhere in its block; one that is tells where.
    const part = async (name: string) =>
      done(await app.call(endpoints.places.create, at, { parentId: place.blockId, level: 'row', name, areaM2: 100 }, as)).id
    const of = async (placeId: string) => {
      const { id } = done(await app.call(treatments.plan, at, { watchId, productId, placeId, plannedOn: '2026-06-13' }, as))
      return done(await app.call(treatments.sheet, { ...at, treatmentId: id }, {})).downwind
    }
    expect(await of(await part('Row 1'))).toMatchObject([{ metres: 40 }])
    const far = await part('Row 9')
    await draw('outline', box(0, 0, 10, 100), far)
    expect(await of(far)).toEqual([])
  })

  test('out of a tunnel nothing is carried', async () => {
    const id = done(await app.call(blocks.create, at, { name: 'Glass Two', kind: 'tunnel', areaHa: 0.1, grows: 'apple' }, as)).id
    await draw('outline', box(60, 110, 20, 20), id)
    const productId = await shelf('Under glass', { ways: ['spray'] })
    const inside = await watch(id)
    expect(await hours(productId, inside)).toMatchObject({ downwind: [] })
    const planned = done(await app.call(treatments.plan, at, { watchId: inside, productId, plannedOn: '2026-06-13' }, as))
    expect(done(await app.call(treatments.sheet, { ...at, treatmentId: planned.id }, {})).downwind).toEqual([])
  })

  test('a vane that rests is no gap, and what cannot be is not believed', async () => {
    const far = Array.from({ length: 5 }, (_, h) => ({
      at: `2026-06-0${h + 1}T12:00:00Z`,
      temperature: 15,
      direction: h === 2 ? 361 : 200,
    }))
    expect((await post('readings', { readings: far })).status).toBe(422)
    const calm = Array.from({ length: 6 }, (_, h) => ({
      at: `2026-06-10T0${h}:00:00Z`,
      temperature: 12 + h / 10,
      ...(h % 2 === 0 ? { direction: 90 } : {}),
    }))
    expect((await post('readings', { readings: calm })).status).toBe(200)
    const doubts = done(await app.call(weather.doubts, { ...at, stationId: place.stationId }, { season: '2026-01-01' }))
    expect(doubts.filter(({ variable }) => variable === 'direction')).toEqual([])
    const day = done(await app.call(weather.hours, { ...at, stationId: place.stationId }, { day: '2026-06-09' }))
    expect(day.hours.filter(({ direction }) => direction === 90)).toHaveLength(3)
  })
})
