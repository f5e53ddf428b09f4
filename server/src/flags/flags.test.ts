import { randomUUID } from 'node:crypto'
import { endpoints, type Geometry, type InputOf, type Problem } from '@bocado/contract'
import Papa from 'papaparse'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'

const { flags, ground, blocks } = endpoints

let app: Application
let place: TestSite
let at: { siteId: string }
let as: { person: string }
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  at = { siteId: place.site.id }
  as = { person: place.person }
})
afterAll(() => app.stop())

type Added = InputOf<typeof flags.add>
const set = (input: Partial<Added>) =>
  app.call(flags.add, at, { organismId: 'himalayan-balsam', placeId: place.blockId, seenOn: '2026-06-10', sight: 'standing', ...input }, as)
const look = (flagId: string, input: Partial<InputOf<typeof flags.visit>>) =>
  app.call(flags.visit, at, { flagId, seenOn: '2026-06-11', sight: 'none', ...input }, as)
const list = async (on?: string) => done(await app.call(flags.list, at, on === undefined ? {} : { on }))
const flagOf = async (id: string, on?: string) => (await list(on)).flags.find((flag) => flag.id === id)!
const refused = async (answer: Promise<{ problem: Pick<Problem, 'fields'> }>) =>
  (await answer).problem.fields?.map(({ path, message }) => `${path}: ${message}`)[0]

describe('a flag', () => {
  test('is stored once however often it is sent, and no two pins have one number', async () => {
    const sent = { id: randomUUID(), plants: 40, areaM2: 3, stage: 'young', height: 'hand' as const, colour: 'pink' as const }
    const answers = await Promise.all([
      ...Array.from({ length: 10 }, () => set(sent)),
      ...Array.from({ length: 10 }, () => set({ organismId: 'japanese-knotweed' })),
    ])
    const ids = new Set(answers.map((answer) => done(answer).id))
    expect(ids.size).toBe(11)
    const { flags: all } = await list()
    expect(all).toHaveLength(11)
    expect(new Set(all.map(({ number }) => number)).size).toBe(11)
    const flag = await flagOf(sent.id)
    expect(flag).toMatchObject({ state: 'found', foundOn: '2026-06-10', cleanLooks: 0, last: { plants: 40, areaM2: 3, height: 'hand' } })
    expect(flag.visits).toHaveLength(1)
    expect(flag.bankAlive).toMatchObject({ of: 'seed', from: '2028-06-10', until: '2029-06-10' })
  })

  test('goes from found to treated, none standing and back; as it was on an earlier day can be read', async () => {
    const { id } = done(await set({ seenOn: '2025-05-01' }))
    done(
      await look(id, {
        seenOn: '2025-05-20',
        sight: 'standing',
        methodId: 'hand-pulling',
        taken: { amount: 3, unit: 'bags' },
        minutes: 25,
      }),
    )
    done(await look(id, { seenOn: '2025-08-20' }))
    // The phone that was there before sends later: the order is that of the days.
    done(await look(id, { seenOn: '2025-06-20', sight: 'regrowing' }))
    done(await look(id, { seenOn: '2026-06-01', sight: 'standing', dueOn: '2026-06-20' }))
    const states = ['2025-05-02', '2025-05-21', '2025-06-21', '2025-09-01', '2026-06-12'].map(async (day) => (await flagOf(id, day)).state)
    expect(await Promise.all(states)).toEqual(['found', 'treated', 'regrowing', 'none-standing', 'back'])
    expect((await flagOf(id)).dueOn).toBe('2026-06-20')
    expect((await list('2025-04-30')).flags.some((flag) => flag.id === id)).toBe(false)
    const year = (await list()).years.find(({ organismId, season }) => organismId === 'himalayan-balsam' && season === '2025-01-01')
    expect(year).toMatchObject({ standing: 1, clean: 0, areaM2: null, minutes: 25 })
  })

  test('is gone only once what lies in the soil has died', async () => {
    const { id } = done(await set({ seenOn: '2022-06-01' }))
    expect(await refused(look(id, { seenOn: '2024-06-01', sight: 'gone' }))).toMatch(/^sight: not before 2025-06-01/)
    done(await look(id, { seenOn: '2025-06-10', sight: 'gone' }))
    expect((await flagOf(id)).state).toBe('gone')
    expect(await refused(set({ sight: 'gone' }))).toMatch(/^sight: /)
  })

  test('is named later with all its visits and their photos', async () => {
    const { id } = done(await set({ organismId: null, note: 'hairy, three leaves' }))
    done(await look(id, { sight: 'standing', plants: 12 }))
    expect(await flagOf(id)).toMatchObject({ organismName: null, bankAlive: null })
    const flag = await flagOf(id)
    const named = { organismId: 'giant-hogweed', placeId: place.blockId, note: '', rowVersion: flag.rowVersion }
    done(await app.call(flags.update, { ...at, flagId: id }, named, as))
    const after = await flagOf(id)
    expect(after).toMatchObject({ organismName: 'Giant hogweed', number: flag.number, last: { plants: 12 } })
    expect(after.visits).toHaveLength(2)
    expect((await app.call(flags.update, { ...at, flagId: id }, named, as)).status).toBe(409)
  })

  test('a visit that was wrong goes, the last one only with its flag; both come back', async () => {
    const { id } = done(await set({}))
    const visit = done(await look(id, {}))
    const params = { ...at, visitId: visit.id }
    const gone = done(await app.call(flags.removeVisit, params, { rowVersion: 1 }, as))
    expect((await flagOf(id)).state).toBe('found')
    const [first] = (await flagOf(id)).visits
    expect((await app.call(flags.removeVisit, { ...at, visitId: first!.id }, { rowVersion: 1 }, as)).problem.detail).toMatch(
      /Remove the flag/,
    )
    done(await app.call(flags.restoreVisit, params, { rowVersion: gone.rowVersion }, as))
    expect((await flagOf(id)).state).toBe('none-standing')
    const removed = done(await app.call(flags.remove, { ...at, flagId: id }, { rowVersion: 1 }, as))
    expect(await flagOf(id)).toBeUndefined()
    expect(await refused(look(id, {}))).toBe('flagId: choose a flag of this site')
    done(await app.call(flags.restore, { ...at, flagId: id }, { rowVersion: removed.rowVersion }, as))
    expect((await flagOf(id)).visits).toHaveLength(2)
  })

  test('what cannot be is refused by its field, and changes nothing', async () => {
    const before = await list()
    expect(await refused(set({ seenOn: '2026-06-13' }))).toMatch(/^seenOn: /)
    expect(await refused(set({ placeId: randomUUID() }))).toBe('placeId: choose a place of this site')
    expect(await refused(set({ organismId: 'no-such-plant' }))).toMatch(/^organismId: /)
    expect(await refused(set({ stage: 'rosette' }))).toMatch(/^stage: is no stage of Himalayan balsam/)
    expect(await refused(set({ sight: 'none', plants: 3 }))).toMatch(/^plants: /)
    expect(await refused(set({ plants: -1 }))).toMatch(/^plants: must be at least 0/)
    expect(await refused(set({ areaM2: 0 }))).toMatch(/^areaM2: must be at least/)
    expect(await refused(set({ dueOn: '2026-06-10' }))).toMatch(/^dueOn: must lie after/)
    expect(await refused(set({ position: { latitude: -46.2, longitude: 119.3 } }))).toMatch(/^position: lies .* km from the site/)
    expect(await refused(set({ methodId: 'no-such-way' }))).toMatch(/^methodId: /)
    const viewer = done(await app.call(endpoints.sites.addPerson, at, { name: 'Packing-house buyer 3', role: 'viewer' }, as))
    const input = { organismId: null, placeId: place.blockId, seenOn: '2026-06-10', sight: 'standing' as const }
    expect((await app.call(flags.add, at, input, { person: viewer.id })).status).toBe(403)
    expect(await list()).toEqual(before)
  })

  test('that plants flower lower and lower is said', async () => {
    const organismId = 'wild-parsnip'
    for (const [seenOn, height] of [
      ['2025-07-01', 'hip'],
      ['2025-08-01', 'knee'],
    ] as const)
      done(await set({ organismId, seenOn, height, plants: 12, stage: 'flower' }))
    expect((await list()).smaller).toEqual([])
    done(await set({ organismId, seenOn: '2026-06-11', height: 'hand', plants: 10, stage: 'pod' }))
    expect((await list()).smaller).toEqual([
      { organismId, organismName: 'Wild parsnip', passes: ['2025-07-01', '2025-08-01', '2026-06-11'] },
    ])
  })
})

describe('a search', () => {
  const CORNER = [-119.3, 46.2] as const
  const at100 = ([x, y]: readonly [number, number]): [number, number] => [
    CORNER[0] + x / (111_195 * Math.cos((CORNER[1] * Math.PI) / 180)),
    CORNER[1] + y / 111_195,
  ]
  const square: Geometry = {
    type: 'Polygon',
    coordinates: [
      (
        [
          [0, 0],
          [100, 0],
          [100, 100],
          [0, 100],
          [0, 0],
        ] as const
      ).map(at100),
    ],
  }
  const across = (
    [
      [-20, 50],
      [30, 50],
      [80, 50],
      [120, 50],
    ] as const
  ).map(at100)
  let meadow: string
  beforeAll(async () => {
    meadow = done(await app.call(blocks.create, at, { name: 'Lower Meadow', kind: 'natural-area', areaHa: 1 }, as)).id
    done(await app.call(ground.draw, at, { kind: 'outline', placeId: meadow, geometry: square }, as))
  })
  const search = (input: Partial<InputOf<typeof flags.addSearch>>) =>
    app.call(flags.addSearch, at, { placeId: meadow, organismIds: ['wild-parsnip'], searchedOn: '2026-06-11', ...input }, as)

  test('that finds nothing is a record with its effort; the track tells the share that was seen', async () => {
    const sent = { id: randomUUID(), minutes: 40, viewM: 10, track: [across] }
    for (let i = 0; i < 3; i++) done(await search(sent))
    const found = (await list()).searches.filter(({ id }) => id === sent.id)
    expect(found).toHaveLength(1)
    expect(found[0]).toMatchObject({ placeName: 'Lower Meadow', organismNames: ['Wild parsnip'], minutes: 40, found: false })
    expect(found[0]!.covered).toMatchObject({ from: 'track' })
    expect(found[0]!.covered!.share).toBeCloseTo(0.1, 2)
    expect(found[0]!.lengthM).toBeCloseTo(140, 0)
    const removed = done(await app.call(flags.removeSearch, { ...at, searchId: sent.id }, { rowVersion: 1 }, as))
    expect((await list()).searches.some(({ id }) => id === sent.id)).toBe(false)
    done(await app.call(flags.restoreSearch, { ...at, searchId: sent.id }, { rowVersion: removed.rowVersion }, as))
  })

  test('of a place that is not drawn, or without a width, has the share that somebody says', async () => {
    const said = done(await search({ placeId: place.blockId, viewM: 4, track: [across], coveredShare: 0.5 }))
    expect((await list()).searches.find(({ id }) => id === said.id)?.covered).toEqual({ share: 0.5, from: 'said' })
    const none = done(await search({ track: [across] }))
    expect((await list()).searches.find(({ id }) => id === none.id)?.covered).toBeNull()
  })

  test('what cannot be is refused', async () => {
    expect(await refused(search({ organismIds: [] }))).toBe('organismIds: say what you looked for')
    expect(await refused(search({ organismIds: ['wild-parsnip', 'nothing'] }))).toMatch(/^organismIds.1: /)
    expect(await refused(search({ searchedOn: '2026-07-01' }))).toMatch(/^searchedOn: /)
    expect(await refused(search({ viewM: 0 }))).toMatch(/^viewM: must be at least/)
  })

  test('takes its track from a file, also one that comes back to its start', async () => {
    const points = [...across, at100([0, 40])].map(([lon, lat]) => `<trkpt lat="${lat}" lon="${lon}"/>`).join('')
    const gpx = `<gpx><trk><name>morning</name><trkseg>${points}</trkseg></trk></gpx>`
    const { tracks } = done(await app.call(flags.readTrack, at, { text: gpx }, as))
    expect(tracks).toMatchObject([{ name: 'morning' }])
    expect(tracks[0]!.line.length).toBeGreaterThanOrEqual(5)
    const point = '<gpx><wpt lat="46.2" lon="-119.3"><name>a</name></wpt></gpx>'
    expect(await refused(app.call(flags.readTrack, at, { text: point }, as))).toMatch(/^text: holds no track/)
  })

  test('and the flags leave as occurrences that other programs read', async () => {
    const csv = await (await app.get(`sites/${at.siteId}/flags.csv`)).text()
    const { data, errors } = Papa.parse<Record<string, string>>(csv.trim(), { header: true })
    expect(errors).toEqual([])
    const { flags: all, searches } = await list()
    const visits = all.flatMap((flag) => flag.visits)
    expect(data).toHaveLength(visits.length + searches.filter(({ found }) => !found).flatMap((one) => one.organismIds).length)
    expect(
      data.filter((row) => row['scientificName'] === 'Pastinaca sativa' && row['occurrenceStatus'] === 'absent').length,
    ).toBeGreaterThan(0)
    const times = data.map((row) => row['eventDate'])
    expect(times.every((day) => /^\d{4}-\d\d-\d\d$/.test(day ?? ''))).toBe(true)
  })
})
