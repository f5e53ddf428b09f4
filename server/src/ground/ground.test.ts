import { randomUUID } from 'node:crypto'
import { endpoints, type Geometry } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'

const { ground, blocks, places, sites } = endpoints
const NEAR = { latitude: 46.2, longitude: -119.3 }

let app: Application
let place: TestSite
let at: { siteId: string }
let as: { person: string }
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  at = { siteId: place.site.id }
  as = { person: place.person }
  const site = done(await app.call(sites.list, {}, {}, as))[0]!
  done(await app.call(sites.update, at, { ...site, ...NEAR, place: 'terrace' }, as))
})
afterAll(() => app.stop())

/** A rectangle of so many metres, its south-west corner so many metres east and north of the site. */
const M = 1 / 111_195
const EAST = M / Math.cos((NEAR.latitude * Math.PI) / 180)
const box = (east: number, north: number, width: number, height: number): Geometry => {
  const [x, y] = [NEAR.longitude + east * EAST, NEAR.latitude + north * M]
  const [dx, dy] = [width * EAST, height * M]
  return {
    type: 'Polygon',
    coordinates: [
      [
        [x, y],
        [x + dx, y],
        [x + dx, y + dy],
        [x, y + dy],
        [x, y],
      ],
    ],
  }
}
const point = (longitude: number, latitude: number): Geometry => ({ type: 'Point', coordinates: [longitude, latitude] })
const block = async (name: string, areaHa: number | null = null): Promise<string> =>
  done(await app.call(blocks.create, at, { name, kind: 'field', areaHa }, as)).id
const outline = (placeId: string, geometry: Geometry, more: object = {}) =>
  app.call(ground.draw, at, { kind: 'outline', placeId, geometry, ...more }, as)
const hectares = async (id: string): Promise<number | null> =>
  done(await app.call(blocks.list, at, {})).find((one) => one.id === id)!.areaHa

describe('an outline', () => {
  test('has its area in m², which a place without one takes, and one with an area only when asked', async () => {
    const [open, typed] = [await block('Onion Flat'), await block('Long Corn', 8)]
    const drawn = done(await outline(open, box(0, 0, 200, 150)))
    expect(drawn.areaM2! / 30_000).toBeCloseTo(1, 2)
    expect(await hectares(open)).toBeCloseTo(drawn.areaM2! / 10_000, 3)
    const other = done(await outline(typed, box(300, 0, 200, 300)))
    expect(await hectares(typed)).toBe(8)
    const params = { ...at, shapeId: other.id }
    done(await app.call(ground.redraw, params, { ...other, takesArea: true }, as))
    expect(await hectares(typed)).toBeCloseTo(6, 1)
  })

  test('that crosses itself, has no area, or lies elsewhere on earth is refused with where and why', async () => {
    const id = await block('Stone Row')
    const bow = box(0, 500, 100, 100) as Extract<Geometry, { type: 'Polygon' }>
    const [a, b, c, d] = bow.coordinates[0]!
    const crossed = await outline(id, { type: 'Polygon', coordinates: [[a!, c!, b!, d!, a!]] })
    expect(crossed.problem.fields?.[0]).toMatchObject({
      path: 'geometry',
      message: expect.stringMatching(/^crosses itself at 46\.20\d+, -119\.29\d+/) as string,
    })
    expect((await outline(id, { type: 'Polygon', coordinates: [[a!, b!, a!, a!]] })).status).toBe(422)
    expect((await outline(id, point(-119.3, 46.2))).problem.fields?.[0]?.message).toBe('an outline needs at least 3 corners')
    const swapped = await app.call(ground.draw, at, { kind: 'hives', geometry: point(46.2, -89.3) }, as)
    expect(swapped.problem.fields?.[0]?.message).toMatch(/km from the site’s position$/)
    const north = await app.call(ground.draw, at, { kind: 'hives', geometry: { type: 'Point', coordinates: [46.2, -119.3] } }, as)
    expect(north.problem.fields?.[0]).toMatchObject({
      path: 'geometry.coordinates.1',
      message: expect.stringMatching(/swapped\?$/) as string,
    })
    expect(done(await app.call(ground.map, at, {})).some(({ placeId }) => placeId === id)).toBe(false)
  })

  test('of a part lies within that of its block, give or take a wheel’s width; a block is not drawn smaller than its parts', async () => {
    const id = await block('Terrace Vines')
    const whole = done(await outline(id, box(0, 1000, 200, 200)))
    const part = async (name: string) => done(await app.call(places.create, at, { parentId: id, level: 'patch', name }, as)).id
    const [inside, outside] = [await part('Upper'), await part('Lower')]
    done(await outline(inside, box(-1, 1001, 100, 100)))
    const out = await outline(outside, box(150, 1000, 100, 100))
    expect(out.problem.fields?.[0]?.message).toBe('50 % of it lies outside Terrace Vines; draw it within, or draw Terrace Vines wider')
    const small = await app.call(ground.redraw, { ...at, shapeId: whole.id }, { ...whole, geometry: box(0, 1000, 50, 200) }, as)
    expect(small.problem.fields?.[0]?.message).toMatch(/^leaves 5\d % of Upper outside/)
    // The area is shared out as it is where it is typed.
    const rest = await outline(outside, box(0, 1101, 200, 99), { takesArea: true })
    expect(done(rest).areaM2! / 19_800).toBeCloseTo(1, 2)
  })

  test('is one of its place, stored once however often it is sent, and back when it was removed by mistake', async () => {
    const id = await block('Creek Margin')
    const sent = { kind: 'outline', placeId: id, geometry: box(0, 2000, 90, 90), id: randomUUID() } as const
    const answers = await Promise.all(Array.from({ length: 12 }, () => app.call(ground.draw, at, sent, as)))
    expect(new Set(answers.map((answer) => done(answer).id))).toEqual(new Set([sent.id]))
    expect((await outline(id, sent.geometry)).problem.fields).toEqual([
      { path: 'placeId', message: 'has an outline already; change that one' },
    ])
    const gone = done(await app.call(ground.remove, { ...at, shapeId: sent.id }, { rowVersion: 1 }, as))
    expect((await app.call(ground.remove, { ...at, shapeId: sent.id }, { rowVersion: 1 }, as)).status).toBe(404)
    done(await app.call(ground.restore, { ...at, shapeId: sent.id }, { rowVersion: gone.rowVersion }, as))
    const [row] = done(await app.call(blocks.list, at, {})).filter((one) => one.id === id)
    done(await app.call(blocks.remove, { ...at, blockId: id }, { rowVersion: row!.rowVersion }, as))
    expect(done(await app.call(ground.map, at, {})).some((one) => one.id === sent.id)).toBe(false)
  })
})

test('what treatments keep away from is named with each block that it is near to, with the metres', async () => {
  const id = await block('Lower Meadow')
  const meadow = done(await outline(id, box(0, 5000, 100, 100)))
  const [x, y] = [NEAR.longitude, NEAR.latitude]
  const there = (east: number, north: number): [number, number] => [x + east * EAST, y + north * M]
  const draw = async (kind: 'water' | 'hives' | 'neighbour' | 'way', geometry: Geometry): Promise<string> =>
    done(await app.call(ground.draw, at, { kind, geometry, name: kind }, as)).id
  const brook = await draw('water', { type: 'LineString', coordinates: [there(-50, 5120), there(150, 5120)] })
  const through = await draw('water', { type: 'LineString', coordinates: [there(-50, 5050), there(150, 5060)] })
  const hives = await draw('hives', { type: 'Point', coordinates: there(140, 5130) })
  const within = await draw('hives', { type: 'Point', coordinates: there(20, 5020) })
  const house = await draw('neighbour', box(100, 4700, 50, 250))
  await draw('neighbour', box(500, 5000, 50, 50))
  await draw('way', { type: 'LineString', coordinates: [there(0, 4990), there(100, 4990)] })
  const { near } = done(await app.call(ground.map, at, {})).find((one) => one.id === meadow.id)!
  expect(Object.fromEntries(near.map(({ shapeId, metres }) => [shapeId, metres]))).toEqual({
    [through]: 0,
    [within]: 0,
    [brook]: 20,
    [hives]: 50,
    [house]: 50,
  })
  const clear = async (metres: number) => app.call(ground.keptClear, { ...at, placeId: id }, { metres }, as)
  // 10 m on both sides of the brook that runs through it, and a round of 10 m about the hives in it.
  const ten = done(await clear(10))
  expect(new Set(ten.from)).toEqual(new Set([through, within]))
  expect((ten.wholeM2 - ten.leftM2) / (100 * 20 + Math.PI * 100)).toBeCloseTo(1, 1)
  expect(ten.left).toMatchObject({ type: 'MultiPolygon' })
  const more = done(await clear(30))
  expect(more.leftM2).toBeLessThan(ten.leftM2)
  expect(done(await clear(200))).toMatchObject({ leftM2: 0, left: null })
  expect((await clear(400)).status).toBe(422)
  const open = await block('Not drawn')
  expect((await app.call(ground.keptClear, { ...at, placeId: open }, { metres: 10 }, as)).problem.detail).toBe(
    'This place is not drawn on the map.',
  )
})

describe('a file of shapes', () => {
  const read = (text: string) => app.call(ground.readFile, at, { text }, as)
  const feature = (name: string, geometry: Geometry | object) => ({ type: 'Feature', properties: { name }, geometry })
  const collection = (...features: object[]): string => JSON.stringify({ type: 'FeatureCollection', features })

  test('in GeoJSON finds the blocks by their names and is taken whole, or not at all', async () => {
    const id = await block('Ladder Pears')
    const text = collection(
      feature('ladder pears', box(0, 3000, 100, 260)),
      feature('Glass Two', box(200, 3000, 60, 50)),
      feature('Well', point(-119.3, 46.22)),
      {
        type: 'Feature',
        properties: null,
        geometry: null,
      },
    )
    const found = done(await read(text))
    expect(found).toMatchObject({ format: 'geojson', leftOut: 1, isSwapped: false })
    expect(found.shapes.map(({ name, placeId, problem }) => [name, placeId, problem])).toEqual([
      ['ladder pears', id, null],
      ['Glass Two', null, null],
      ['Well', null, null],
    ])
    const [pears, glass, well] = found.shapes
    const wrong = await app.call(
      ground.takeFile,
      at,
      {
        shapes: [
          { ...glass!, kind: 'block', blockKind: 'tunnel' },
          { ...well!, placeId: null, kind: 'outline' },
        ],
      },
      as,
    )
    expect(wrong.status).toBe(422)
    expect(wrong.problem.fields?.[0]?.path).toBe('shapes.1.geometry')
    expect(done(await app.call(blocks.list, at, {})).map(({ name }) => name)).not.toContain('Glass Two')
    const taken = await app.call(
      ground.takeFile,
      at,
      {
        shapes: [
          { ...pears!, kind: 'outline' },
          { ...glass!, kind: 'block', blockKind: 'tunnel' },
          { ...well!, kind: 'water' },
        ],
      },
      as,
    )
    expect(done(taken)).toEqual({ shapes: 3, blocks: 1 })
    const glassTwo = done(await app.call(blocks.list, at, {})).find(({ name }) => name === 'Glass Two')!
    expect(glassTwo).toMatchObject({ kind: 'tunnel', areaHa: expect.closeTo(0.3, 2) as number })
  })

  test('with latitude and longitude the wrong way round is put right, in metres of a grid it is refused with the way on', async () => {
    const turned = done(await read(collection(feature('Hives', { type: 'Point', coordinates: [46.21, -119.31] }))))
    expect(turned.isSwapped).toBe(true)
    expect(turned.shapes[0]!.geometry).toEqual(point(-119.31, 46.21))
    const grid = await read(collection(feature('Hives', { type: 'Point', coordinates: [322_512.4, 5_118_220.9] })))
    expect(grid.problem.fields?.[0]?.message).toContain('export it again as WGS 84 (EPSG:4326)')
  })

  test('in GPX is a way, an outline where the walk comes back to its start, and points', async () => {
    const walk = (points: [number, number][], name: string): string =>
      `<trk><name>${name}</name><trkseg>${points.map(([lat, lon]) => `<trkpt lat="${lat}" lon="${lon}"/>`).join('')}</trkseg></trk>`
    const around: [number, number][] = [
      [46.2, -119.3],
      [46.2, -119.298],
      [46.201, -119.298],
      [46.201, -119.3],
      [46.2001, -119.3001],
    ]
    const found = done(
      await read(
        `<?xml version="1.0"?><gpx version="1.1"><wpt lat="46.2" lon="-119.3"><name>Gate &amp; well</name></wpt>${walk(around, 'Round')}${walk(around.slice(0, 3), 'Lane')}</gpx>`,
      ),
    )
    expect(found.format).toBe('gpx')
    expect(found.shapes.map(({ name, geometry }) => [name, geometry.type])).toEqual([
      ['Round', 'Polygon'],
      ['Lane', 'LineString'],
      ['Gate & well', 'Point'],
    ])
    expect(found.shapes[1]!.lengthM).toBeCloseTo(265, -1)
  })

  test('as a table has its corners by name, with decimal commas as well; a file that is none says so', async () => {
    const table = 'Block;Lat;Lon\nA;46,2;-119,3\nA;46,2;-119,299\nA;46,201;-119,299\nPump;46,2;-119,3\n;x;y\n'
    const found = done(await read(table))
    expect(found).toMatchObject({ format: 'csv', leftOut: 1 })
    expect(found.shapes.map(({ name, geometry }) => [name, geometry.type])).toEqual([
      ['A', 'Polygon'],
      ['Pump', 'Point'],
    ])
    for (const [text, said] of [
      ['['.repeat(200_000), 'is nested more than 20 deep, as no GeoJSON of shapes is'],
      ['some words', 'is neither GeoJSON nor GPX, and no table with the columns latitude and longitude'],
      ['{"type": "FeatureColl', 'begins as GeoJSON and breaks off; fetch the file again'],
      ['<html></html>', 'holds nothing that can be drawn: no outline, way or point'],
      ['lat,lon\n5118220,322512\n', 'row 2 holds metres of a grid, not degrees: export it again as WGS 84 (EPSG:4326)'],
    ] as const)
      expect((await read(text)).problem.fields?.[0]?.message).toBe(said)
  })

  test('goes out as GeoJSON and comes in again as it was; as GPX it opens on a device', async () => {
    const before = done(await app.call(ground.map, at, {}))
    const response = await app.get(`sites/${at.siteId}/map.geojson`)
    expect(response.headers.get('content-type')).toContain('application/geo+json')
    const again = done(await read(await response.text()))
    expect(again.shapes.map(({ geometry }) => geometry)).toEqual(before.map(({ geometry }) => geometry))
    const gpx = done(await read(await (await app.get(`sites/${at.siteId}/map.gpx`)).text()))
    expect(gpx.shapes).toHaveLength(before.length)
  })
})
