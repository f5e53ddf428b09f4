import { readFileSync } from 'node:fs'
import { endpoints, type InputOf } from '@bocado/contract'
import Papa from 'papaparse'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'

const { arrivals, flags, ground, places, scouting, traps, watches, blocks } = endpoints
const SEASON = '2026-01-01'

let app: Application
let place: TestSite
let other: TestSite
let at: { siteId: string }
let as: { person: string }
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  other = await startSite(app, 'Lower Terrace')
  at = { siteId: place.site.id }
  as = { person: place.person }
})
afterAll(() => app.stop())

describe('what came in', () => {
  const came = (input: Partial<InputOf<typeof arrivals.add>>, params = at, who = as) =>
    app.call(
      arrivals.add,
      params,
      { what: 'plants', name: '12 pear trees', arrivedOn: '2026-06-01', placeId: place.blockId, ...input },
      who,
    )
  const list = async () => done(await app.call(arrivals.list, at, {}))
  const fields = async (answer: ReturnType<typeof came>) => (await answer).problem.fields?.map(({ path }) => path)

  test('is kept with its source, its looks and its time apart; signs are not let to the others without a word', async () => {
    const { id } = done(await came({ source: 'a nursery', isolatedUntil: '2026-06-22' }))
    expect((await list())[0]).toMatchObject({ id, placeName: 'Old Apples', rootLook: 'not-looked', releasedOn: null, carries: [] })
    const seen = { what: 'plants', name: '12 pear trees', arrivedOn: '2026-06-01', placeId: place.blockId, rootLook: 'signs' } as const
    const change = (more: object, rowVersion: number) =>
      app.call(arrivals.update, { ...at, arrivalId: id }, { ...seen, rowVersion, ...more }, as)
    expect((await change({ releasedOn: '2026-06-12' }, 1)).problem.fields?.map(({ path }) => path)).toEqual(['note'])
    done(await change({ releasedOn: '2026-06-12', note: 'galls cut out and burnt' }, 1))
    expect((await list())[0]).toMatchObject({ rootLook: 'signs', releasedOn: '2026-06-12', rowVersion: 2 })
    done(await app.call(arrivals.remove, { ...at, arrivalId: id }, { rowVersion: 2 }, as))
    expect(await list()).toEqual([])
    done(await app.call(arrivals.restore, { ...at, arrivalId: id }, { rowVersion: 3 }, as))
    expect(await list()).toHaveLength(1)
  })

  test('that cannot be is told by its field', async () => {
    expect(await fields(came({ arrivedOn: '2026-06-13' }))).toEqual(['arrivedOn'])
    expect(await fields(came({ isolatedUntil: '2026-05-31' }))).toEqual(['isolatedUntil'])
    expect(await fields(came({ placeId: other.blockId }))).toEqual(['placeId'])
    expect(await fields(came({ name: ' ' }))).toEqual(['name'])
  })

  test('brings along what was known where it came from, of one’s own sites and of no others', async () => {
    const there = { siteId: other.site.id }
    const they = { person: other.person }
    const pinned = { organismId: 'himalayan-balsam', placeId: other.blockId, seenOn: '2026-05-20', sight: 'standing' } as const
    done(await app.call(flags.add, there, pinned, they))
    const watch = done(await app.call(watches.create, there, { organismId: 'codling-moth', blockId: other.blockId, season: SEASON }, they))
    done(await app.call(watches.create, there, { organismId: 'apple-scab', blockId: other.blockId, season: SEASON }, they))
    done(await app.call(scouting.create, there, { watchId: watch.id, countedOn: '2026-06-03', units: [{ 'fresh-entry': 9 }] }, they))
    // To somebody who is not of that site not even that it is there is told.
    expect(await fields(came({ fromSiteId: other.site.id }))).toEqual(['fromSiteId'])
    await app.database.query(
      "INSERT INTO site_person (site_id, person_id, role) VALUES (?, ?, 'viewer') ON DUPLICATE KEY UPDATE role = 'viewer'",
      [other.site.id, place.person],
    )
    done(await came({ name: '3 whips', fromSiteId: other.site.id, fromBlockId: other.blockId }))
    const told = (await list()).find(({ name }) => name === '3 whips')!
    expect(told.carries.map(({ organismId, what, day }) => [organismId, what, day])).toEqual([
      ['codling-moth', 'over', '2026-06-03'],
      ['himalayan-balsam', 'flag', '2026-05-20'],
      ['apple-scab', 'watched', null],
    ])
    expect(await fields(came({ fromSiteId: other.site.id, fromBlockId: place.blockId }))).toEqual(['fromBlockId'])
  })
})

describe('what became of single plants', () => {
  test('is kept by place, and refused where there are no such plants', async () => {
    const event = { placeId: place.blockId, happened: 'lost', plants: 3, organismId: 'codling-moth', happenedOn: '2026-06-02' } as const
    const { id } = done(await app.call(places.addEvent, at, event, as))
    const list = async () => done(await app.call(places.events, at, {}))
    expect(await list()).toMatchObject([{ id, plants: 3, organismName: 'Codling moth' }])
    const refused = await app.call(places.addEvent, at, { ...event, plants: 0 }, as)
    expect(refused.problem.fields?.map(({ path }) => path)).toEqual(['plants'])
    done(await app.call(places.removeEvent, { ...at, plantEventId: id }, { rowVersion: 1 }, as))
    expect(await list()).toEqual([])
    done(await app.call(places.restoreEvent, { ...at, plantEventId: id }, { rowVersion: 2 }, as))
    expect(await list()).toHaveLength(1)
  })

  test('ranks say what comes first, of blocks as of their parts', async () => {
    const [block] = done(await app.call(blocks.list, at, {}))
    const params = { ...at, placeId: block!.id }
    done(await app.call(places.rank, params, { rank: 1, spreads: true, rowVersion: block!.rowVersion }, as))
    expect(done(await app.call(blocks.list, at, {}))[0]).toMatchObject({ rank: 1, spreads: true, rowVersion: block!.rowVersion + 1 })
    const wrong = await app.call(places.rank, params, { rank: 4, spreads: true, rowVersion: 9 }, as)
    expect(wrong.problem.fields?.map(({ path }) => path)).toEqual(['rank'])
    expect((await app.call(places.rank, params, { rank: 2, spreads: false, rowVersion: 1 }, as)).status).toBe(409)
  })
})

describe('a picture under the map', () => {
  const jpeg = readFileSync(new URL('../testing/point.jpg', import.meta.url)).toString('base64')
  const { latitude, longitude } = { latitude: 46.2, longitude: -119.3 }
  const edges = { south: latitude - 0.01, north: latitude + 0.01, west: longitude - 0.01, east: longitude + 0.01 }

  test('is stored, moved, taken away and brought back; it comes as it was', async () => {
    const image = done(await app.call(ground.addImage, at, { name: 'from above', jpeg, ...edges }, as))
    const file = await app.get(`sites/${at.siteId}/aerial-images/${image.id}/jpeg`)
    expect(file.headers.get('content-type')).toBe('image/jpeg')
    expect(Buffer.from(await file.arrayBuffer()).toString('base64')).toBe(jpeg)
    const moved = done(
      await app.call(ground.moveImage, { ...at, aerialId: image.id }, { ...edges, north: latitude + 0.02, rowVersion: 1 }, as),
    )
    expect(moved).toMatchObject({ north: latitude + 0.02, rowVersion: 2 })
    done(await app.call(ground.removeImage, { ...at, aerialId: image.id }, { rowVersion: 2 }, as))
    expect((await app.get(`sites/${at.siteId}/aerial-images/${image.id}/jpeg`)).status).toBe(404)
    done(await app.call(ground.restoreImage, { ...at, aerialId: image.id }, { rowVersion: 3 }, as))
    expect(done(await app.call(ground.images, at, {}))).toHaveLength(1)
  })

  test('that lies elsewhere, stands on its head or is no picture is refused', async () => {
    const refused = async (change: object) =>
      (await app.call(ground.addImage, at, { name: '', jpeg, ...edges, ...change }, as)).problem.fields?.map(({ path }) => path)
    expect(await refused({ north: edges.south })).toEqual(['north'])
    expect(await refused({ east: edges.west - 1 })).toEqual(['east'])
    expect(await refused({ south: 10, north: 10.1 })).toEqual(['south'])
    expect(await refused({ jpeg: 'iVBORw0KGgo=' })).toEqual(['jpeg'])
  })
})

describe('a look that found nothing', () => {
  test('at the ground around a flag makes it clean, unless it went past out of sight', async () => {
    const pinned = { organismId: 'wild-parsnip', placeId: place.blockId, seenOn: '2026-05-01', sight: 'standing' } as const
    const position = { latitude: 46.2, longitude: -119.3 }
    const { id } = done(await app.call(flags.add, at, { ...pinned, position }, as))
    const state = async () => {
      const { flags: all } = done(await app.call(flags.list, at, {}))
      const { state: now, cleanLooks, absent } = all.find((flag) => flag.id === id)!
      return { now, cleanLooks, absent }
    }
    const search = (more: object) =>
      app.call(flags.addSearch, at, { placeId: place.blockId, organismIds: ['wild-parsnip'], searchedOn: '2026-05-20', ...more }, as)
    done(await search({ found: true }))
    expect(await state()).toMatchObject({ now: 'found', cleanLooks: 0 })
    // A hundred metres away nobody saw it.
    const far = [
      [
        [-119.2985, 46.2],
        [-119.2985, 46.201],
      ],
    ]
    done(await search({ track: far, viewM: 4 }))
    expect(await state()).toMatchObject({ now: 'found' })
    done(
      await search({
        track: [
          [
            [-119.3, 46.1995],
            [-119.3, 46.2005],
          ],
        ],
        viewM: 4,
      }),
    )
    expect(await state()).toEqual({ now: 'none-standing', cleanLooks: 1, absent: null })

    // How sure that is, is said once it was measured how much a look overlooks.
    const looked = { placeId: place.blockId, organismId: 'wild-parsnip', lookedOn: '2026-05-02', first: 20, second: 20, both: 17 }
    const second = done(await app.call(flags.addSecondLook, at, looked, as))
    const { absent } = await state()
    expect(absent).toMatchObject({ looks: 1 })
    expect(absent!.probability).toBeGreaterThan(0.4)
    const flag = done(await app.call(flags.list, at, {})).flags.find((one) => one.id === id)!
    const { organismId, placeId, number, colour } = flag
    done(
      await app.call(
        flags.update,
        { ...at, flagId: id },
        { organismId, placeId, number, colour, position, note: '', prior: 'unlikely', rowVersion: flag.rowVersion },
        as,
      ),
    )
    expect((await state()).absent!.probability).toBeGreaterThan(absent!.probability)
    const wrong = await app.call(flags.addSecondLook, at, { ...looked, both: 21 }, as)
    expect(wrong.problem.fields?.map(({ path }) => path)).toEqual(['both'])
    done(await app.call(flags.removeSecondLook, { ...at, secondLookId: second.id }, { rowVersion: 1 }, as))
    expect((await state()).absent).toBeNull()
    // Whoever sees it again knows better.
    done(await app.call(flags.visit, at, { flagId: id, seenOn: '2026-06-01', sight: 'regrowing' }, as))
    expect(await state()).toMatchObject({ cleanLooks: 0 })
  })
})

describe('checks of traps from a file', () => {
  const take = (text: string) => app.call(traps.takeFile, at, { text }, as)
  const refused = async (text: string) => (await take(text)).problem.fields?.map(({ path, message }) => `${path}: ${message}`)

  test('go each into the trap of its name, and come back as they went out', async () => {
    const hung = { blockId: place.blockId, organismId: 'codling-moth', hungOn: '2026-04-20', lure: 'red septa', lureOn: '2026-04-20' }
    for (const name of ['Trap 1', '=Trap 2']) done(await app.call(traps.add, at, { ...hung, name }, as))
    const file = [
      '\uFEFFDay,Trap,Caught,note',
      '2026-05-08,Trap 1,3,',
      '2026-05-01,Trap 1,0,"cold, wet"',
      "2026-05-01,'=Trap 2,7,",
      '',
    ].join('\r\n')
    expect(done(await take(file))).toEqual({ checks: 3, known: 0 })
    expect(done(await take(file))).toEqual({ checks: 0, known: 3 })
    const all = done(await app.call(traps.list, at, { season: SEASON }))
    expect(all.map(({ name, checks }) => [name, checks.map(({ since, day, caught }) => [since, day, caught])])).toEqual([
      ['=Trap 2', [['2026-04-20', '2026-05-01', 7]]],
      [
        'Trap 1',
        [
          ['2026-04-20', '2026-05-01', 0],
          ['2026-05-01', '2026-05-08', 3],
        ],
      ],
    ])
    const csv = await (await app.get(`sites/${at.siteId}/traps.csv?season=${SEASON}`)).text()
    expect(Papa.parse(csv.trim(), { header: true }).data).toHaveLength(3)
    expect(done(await take(csv))).toEqual({ checks: 0, known: 3 })
  })

  test('are refused as a whole, by row and with what to do', async () => {
    const before = JSON.stringify(done(await app.call(traps.list, at, { season: SEASON })))
    expect(await refused('trap,day\nTrap 1,2026-05-09')).toEqual([expect.stringContaining('the file has no column caught')])
    const rows = (row: string) => `trap,day,caught\nTrap 1,2026-05-20,4\n${row}`
    expect(await refused(rows('Trap 9,2026-05-21,1'))).toEqual([expect.stringMatching(/^row 3: there is no trap called Trap 9/)])
    expect(await refused(rows('Trap 1,21.5.,1'))).toEqual([expect.stringMatching(/^row 3: day: 21\.5\./)])
    expect(await refused(rows('Trap 1,2026-05-21,many'))).toEqual([expect.stringMatching(/^row 3: caught: many/)])
    expect(await refused(rows('Trap 1,2026-05-08,9'))).toEqual([expect.stringMatching(/^row 3: 2026-05-08 is recorded with 3 already/)])
    expect(await refused(rows('Trap 1,2026-07-01,9'))).toHaveLength(1)
    expect(JSON.stringify(done(await app.call(traps.list, at, { season: SEASON })))).toBe(before)
  })

  test('every lure that hung is known, the newest first', async () => {
    const [, trap] = done(await app.call(traps.list, at, { season: SEASON }))
    const { name, blockId, organismId, hungOn, event, rowVersion } = trap!
    const change = { name, blockId, organismId, hungOn, event, lure: 'red septa', lureLoad: '1 mg', lureOn: '2026-06-01', rowVersion }
    done(await app.call(traps.update, { ...at, trapId: trap!.id }, change, as))
    const [, after] = done(await app.call(traps.list, at, { season: SEASON }))
    expect(after!.lures).toEqual([
      { lure: 'red septa', load: '1 mg', on: '2026-06-01' },
      { lure: 'red septa', load: '', on: '2026-04-20' },
    ])
  })
})
