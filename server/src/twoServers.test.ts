import { randomUUID } from 'node:crypto'
import type { ChildProcess } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { setTimeout as sleep } from 'node:timers/promises'
import { endpoints, type AspectVersions } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { Row } from './database/pool.js'
import { besideIt, startApplication, type Application } from './testing/application.js'
import { done, startSite, type TestSite } from './testing/farm.js'
import { hourlyFile, importFile, preview } from './testing/upload.js'

/* Two servers beside each other on one database: what one stores the other shows, tells and finishes. */

const { blocks, sites, watches, scouting } = endpoints
const SEASON = '2026-01-01'

let one: Application
let other: Application & { process: ChildProcess }
let place: TestSite
beforeAll(async () => {
  one = await startApplication({ now: '2026-06-12T14:30:00Z' })
  other = await besideIt(one)
  place = await startSite(one)
})
afterAll(async () => {
  await other.stop()
  await one.stop()
})
const at = () => ({ siteId: place.site.id })
const as = () => ({ person: place.person })

/** What a server tells of a site, in its order. */
async function listening(app: Application, siteId: string): Promise<{ heard: AspectVersions[]; stop: () => void }> {
  const stop = new AbortController()
  const response = await app.get(`changes?sites=${siteId}`, {
    signal: stop.signal,
    headers: { Accept: 'text/event-stream' },
  })
  const heard: AspectVersions[] = []
  void (async () => {
    let text = ''
    for await (const chunk of response.body!.pipeThrough(new TextDecoderStream())) {
      text += chunk
      const events = text.split('\n\n')
      text = events.pop()!
      for (const event of events) {
        const data = /^data: (.*)$/m.exec(event)?.[1]
        const told = data ? (JSON.parse(data) as { siteId: string; versions: AspectVersions }) : undefined
        if (told?.siteId === siteId) heard.push(told.versions)
      }
    }
  })().catch(() => undefined)
  return { heard, stop: () => stop.abort() }
}
const until = async (holds: () => boolean | Promise<boolean>, ms = 5000): Promise<void> => {
  for (const end = Date.now() + ms; !(await holds()); await sleep(20)) if (Date.now() > end) throw new Error('it did not come')
}

describe('what is stored through one server', () => {
  test('is read through the other at once', async () => {
    const { id } = done(await one.call(blocks.create, at(), { name: 'New Pears', kind: 'orchard', areaHa: 1, grows: 'pear' }, as()))
    expect(done(await other.call(blocks.list, at(), {})).map((block) => block.id)).toContain(id)
  })

  test('is told to whoever listens at the other, aspect by aspect, and only of the sites in view', async () => {
    const elsewhere = await startSite(one, 'Another bench')
    await one.settled()
    const [here, there] = [await listening(other, place.site.id), await listening(other, elsewhere.site.id)]
    await until(() => here.heard.length > 0 && there.heard.length > 0)
    const [first] = here.heard
    const before = there.heard.length
    const watch = done(
      await one.call(
        watches.create,
        at(),
        { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: '2026-05-10' },
        as(),
      ),
    )
    const units = [{ larva: 1 }]
    const classes = (await one.call(watches.organisms, at(), {})).body.find(({ id }) => id === 'codling-moth')!.sampling.classes
    await until(() => here.heard.slice(1).some(({ watches: version }) => version === (first!.watches ?? 0) + 1))
    done(
      await one.call(
        scouting.create,
        at(),
        { watchId: watch.id, countedOn: '2026-06-12', checkAreaId: null, units: [{ [classes[0]!.id]: units.length }], note: '' },
        as(),
      ),
    )
    await until(() => here.heard.some(({ counts }) => counts === 1))
    expect(here.heard.find(({ counts }) => counts === 1)).not.toHaveProperty('watches')
    expect(there.heard).toHaveLength(before)
    here.stop()
    there.stop()
  })

  test('comes to the list of sites, too', async () => {
    const fresh = await startSite(one, 'A third bench')
    expect(done(await other.call(sites.list, {}, {}, { person: fresh.person })).find(({ id }) => id === fresh.site.id)).toMatchObject({
      name: 'A third bench',
    })
  })
})

test('the forecasts of both are the same, and made once', async () => {
  const file = hourlyFile(2022, '2026-06-12')
  await importFile(one, place, file, (await preview(one, place, file.slice(0, 200_000))).body.mapping)
  const bands = [
    done(await one.call(watches.band, at(), { season: SEASON })),
    done(await other.call(watches.band, at(), { season: SEASON })),
  ]
  expect(bands[0]!.watches[0]).toMatchObject({ grade: 'dates' })
  expect(bands[1]).toEqual(bands[0])
})

/** A rectangle beside the place of a site. */
const outline = ({ latitude, longitude }: { latitude: number | null; longitude: number | null }) => {
  const corners = [
    [0, 0],
    [0.001, 0],
    [0.001, 0.001],
    [0, 0.001],
    [0, 0],
  ]
  return { type: 'Polygon' as const, coordinates: [corners.map(([x, y]): [number, number] => [longitude! + x!, latitude! + y!])] }
}

describe('pressed twenty times together, by two people, on two servers', () => {
  const { weather } = endpoints
  let two: string
  let ground: TestSite
  beforeAll(async () => {
    ground = await startSite(one, 'Upper Terrace')
    const site = { siteId: ground.site.id }
    two = done(
      await one.call(sites.addPerson, site, { name: 'Dario Quince', role: 'scout', licensed: false }, { person: ground.person }),
    ).id
  })
  const owner = () => ({ person: ground.person })
  const station = () => ({ siteId: ground.site.id, stationId: ground.stationId })
  /** Each time with a key of its own, so that every press is one of its own. */
  const together = <T>(press: (app: Application, as: { person: string }) => Promise<T>): Promise<T[]> =>
    Promise.all(Array.from({ length: 20 }, (_, i) => press(i % 2 ? one : other, { person: i % 4 < 2 ? ground.person : two })))
  const statuses = (answers: readonly { status: number }[]): number[] => [...new Set(answers.map(({ status }) => status))].sort()
  const stored = (answers: readonly { status: number }[]): number => answers.filter(({ status }) => status === 200).length
  const bringIn = async (file: string) => (await importFile(one, ground, file, (await preview(one, ground, file)).body.mapping)).body
  const DAY = ['time,temp C', ...Array.from({ length: 24 }, (_, h) => `2026-05-02 ${String(h).padStart(2, '0')}:00,${10 + (h % 6)}`)].join(
    '\n',
  )

  test('an import is taken back once; the others are told by whom', async () => {
    const { id } = await bringIn(DAY)
    const answers = await together((app, as) => app.call(weather.undoImport, { siteId: ground.site.id, importId: id }, {}, as))
    expect([stored(answers), statuses(answers)]).toEqual([1, [200, 409]])
    expect(
      answers.filter(({ status }) => status === 409).every(({ problem }) => problem.detail.endsWith('took this import back already.')),
    ).toBe(true)
    const [[left]] = await one.database.query<Row[]>('SELECT COUNT(*) AS n FROM reading WHERE station_id = ?', [ground.stationId])
    expect(left!['n']).toBe(0)
  })

  test('an hour is put right once', async () => {
    await bringIn(DAY)
    const day = '2026-05-02'
    const input = { kind: 'value' as const, from: day, to: day, hour: 9, variable: 'temperature' as const, value: 21, note: 'sun on it' }
    const answers = await together((app, as) => app.call(weather.correct, station(), input, as))
    expect([stored(answers), statuses(answers)]).toEqual([1, [200, 422]])
    expect(done(await one.call(weather.corrections, station(), {}))).toHaveLength(1)
  })

  test('a typed day is let go once', async () => {
    const days = [{ day: '2026-05-02', min: 3, max: 30 }]
    const typed = await together((app, as) => app.call(weather.typeDays, station(), { days }, as))
    expect(statuses(typed)).toEqual([200])
    expect(typed.filter(({ body }) => body.new === 1)).toHaveLength(1)
    const answers = await together((app, as) => app.call(weather.untypeDays, station(), { days: ['2026-05-02'] }, as))
    expect([stored(answers), statuses(answers)]).toEqual([1, [200, 404]])
  })

  test('two owners leave at once: one goes, and the site is still somebody’s', async () => {
    const site = { siteId: ground.site.id }
    const { id } = done(await one.call(sites.addPerson, site, { name: 'Tovah Lindqvist', role: 'owner' }, { person: ground.person }))
    const owners = done(await one.call(sites.list, {}, {}, { person: ground.person }))
      .find((s) => s.id === ground.site.id)!
      .people.filter(({ role }) => role === 'owner')
    expect(owners).toHaveLength(2)
    const answers = await Promise.all(
      owners.map(({ id: personId, rowVersion }, i) =>
        (i ? one : other).call(sites.removePerson, { ...site, personId }, { rowVersion }, { person: personId }),
      ),
    )
    expect(stored(answers)).toBe(1)
    const left = owners.find((_, i) => answers[i]!.status === 200)!
    const stays = owners.find(({ id: personId }) => personId !== left.id)!
    const params = { ...site, personId: left.id }
    done(await one.call(sites.restorePerson, params, { rowVersion: left.rowVersion + 1 }, { person: stays.id }))
    expect([ground.person, id]).toContain(left.id)
  })

  test('somebody joins once, and nobody gives themselves more by joining again', async () => {
    const site = { siteId: ground.site.id }
    const again = { name: 'Dario Quince', role: 'lead' as const, personId: two }
    const answers = await together((app) => app.call(sites.addPerson, site, again, { person: ground.person }))
    expect([stored(answers), statuses(answers)]).toEqual([0, [422]])
    expect((await one.call(sites.addPerson, site, again, { person: two })).status).toBe(403)
  })

  test('several watches are begun once', async () => {
    const input = { organismIds: ['codling-moth', 'apple-scab', 'pear-psylla'], blockId: ground.blockId, season: SEASON }
    const answers = await together((app, as) => app.call(watches.createSeveral, { siteId: ground.site.id }, input, as))
    expect([stored(answers), statuses(answers)]).toEqual([1, [200, 422]])
    expect(done(await other.call(watches.list, { siteId: ground.site.id }, { season: SEASON }))).toHaveLength(3)
  })

  test('last season’s watches are begun once in the new one, whoever presses first', async () => {
    for (const organismId of ['codling-moth', 'apple-scab', 'oriental-fruit-moth'])
      done(await one.call(watches.create, at(), { organismId, blockId: place.blockId, season: '2024-01-01' }, as()))
    const input = { from: '2024-01-01', season: '2025-01-01' }
    const answers = await Promise.all(Array.from({ length: 20 }, (_, i) => [one, other][i % 2]!.call(watches.carryOn, at(), input, as())))
    // Who comes later finds them there.
    expect(answers.filter(({ status }) => status !== 200).map(({ status, problem }) => [status, problem.detail])).toEqual([])
    expect(answers.flatMap(({ status, body }) => (status === 200 ? body : []))).toHaveLength(3)
    expect(done(await other.call(watches.list, at(), { season: '2025-01-01' }, as()))).toHaveLength(3)
  })

  test('an outline is drawn once, and redrawn over what one sees', async () => {
    const { ground: map } = endpoints
    const site = { siteId: ground.site.id }
    const geometry = outline(ground.site)
    const draw = { kind: 'outline' as const, placeId: ground.blockId, geometry }
    const answers = await together((app) => app.call(map.draw, site, draw, owner()))
    expect([stored(answers), statuses(answers)]).toEqual([1, [200, 422]])
    const shape = answers.find(({ status }) => status === 200)!.body
    const again = await together((app) =>
      app.call(
        map.redraw,
        { ...site, shapeId: shape.id },
        { kind: 'outline', geometry, rowVersion: shape.rowVersion, takesArea: true },
        owner(),
      ),
    )
    expect([stored(again), statuses(again)]).toEqual([1, [200, 409]])
    expect(done(await other.call(map.map, site, {})).filter(({ placeId }) => placeId === ground.blockId)).toHaveLength(1)
  })

  test('a flag, a visit and a check of a trap that are sent twenty times at once are each stored once', async () => {
    const sent = [randomUUID(), randomUUID(), randomUUID()]
    const [flagId, visitId, checkId] = sent as [string, string, string]
    const { flags, traps } = endpoints
    const hung = { name: 'Gate trap', blockId: place.blockId, organismId: 'codling-moth', hungOn: '2026-04-20' }
    const trap = done(await one.call(traps.add, at(), hung, as()))
    const twenty = async (send: (app: Application) => Promise<{ status: number }>): Promise<void> => {
      const answers = await Promise.all(Array.from({ length: 20 }, (_, i) => send(i % 2 ? one : other)))
      expect(answers.map(({ status }) => status)).toEqual(Array<number>(20).fill(200))
    }
    const pin = { organismId: 'himalayan-balsam', placeId: place.blockId, seenOn: '2026-06-01', sight: 'standing' } as const
    await twenty((app) => app.call(flags.add, at(), { ...pin, id: flagId }, as()))
    await twenty((app) => app.call(flags.visit, at(), { flagId, seenOn: '2026-06-10', sight: 'none', id: visitId }, as()))
    await twenty((app) => app.call(traps.check, at(), { trapId: trap.id, day: '2026-06-10', caught: 2, id: checkId }, as()))
    const { flags: all } = done(await other.call(flags.list, at(), {}))
    expect(all.map(({ visits }) => visits.length)).toEqual([2])
    expect(done(await one.call(traps.list, at(), { season: SEASON }))[0]!.checks.map(({ id }) => id)).toEqual([checkId])
    // Two people set flags at once: no two pins have one number.
    await twenty((app) => app.call(flags.add, at(), pin, as()))
    const numbers = done(await one.call(flags.list, at(), {})).flags.map(({ number }) => number)
    expect(new Set(numbers).size).toBe(21)
  })

  test('rows are added together or not at all, and a harvest that is sent again is one harvest', async () => {
    const site = { siteId: ground.site.id }
    const parts = Array.from({ length: 40 }, (_, i) => ({ level: 'row' as const, name: `Row ${i + 1}`, plants: 6 }))
    const rows = await together((app) => app.call(endpoints.places.createSeveral, site, { parentId: ground.blockId, parts }, owner()))
    expect([stored(rows), statuses(rows)]).toEqual([1, [200, 422]])
    const inBlock = done(await other.call(endpoints.places.list, site, {})).filter(({ parentId }) => parentId === ground.blockId)
    expect(inBlock).toHaveLength(40)
    const picked = { id: crypto.randomUUID(), placeId: ground.blockId, pickedOn: '2026-06-11', kg: 3.2 }
    const sent = await together((app, as) => app.call(endpoints.harvests.add, site, picked, as))
    expect(statuses(sent)).toEqual([200])
    expect(done(await one.call(endpoints.harvests.list, site, { season: SEASON })).harvests).toHaveLength(1)
  })
})

test('whatever is written down in the field is stored once, though both servers get it ten times each', async () => {
  const { arrivals, flags, ground: map, library, places, traps } = endpoints
  const site = await startSite(one, 'Lower Terrace')
  const [here, by] = [{ siteId: site.site.id }, { person: site.person }]
  const jpeg = readFileSync(new URL('testing/point.jpg', import.meta.url)).toString('base64')
  const edges = { south: 46.2, west: -119.3, north: 46.21, east: -119.29 }
  const pots = done(await one.call(places.create, here, { level: 'pots', name: 'Bench pots', parentId: site.blockId, plants: 40 }, by)).id
  done(await one.call(traps.add, here, { name: 'Gate trap', blockId: site.blockId, organismId: 'codling-moth', hungOn: '2026-04-20' }, by))
  const came = { what: 'plants', name: 'Pear trees', placeId: site.blockId, arrivedOn: '2026-06-10' } as const
  const lost = { placeId: pots, happened: 'lost', plants: 3, happenedOn: '2026-06-11' } as const
  const looked = { placeId: site.blockId, organismId: 'himalayan-balsam', lookedOn: '2026-06-10', first: 8, second: 7, both: 6 }
  const file = { text: 'trap,day,caught\nGate trap,2026-05-10,2\nGate trap,2026-05-17,5\n' }
  const sent: readonly [table: string, rows: number, send: (app: Application, key: string, id: string) => Promise<{ status: number }>][] = [
    ['arrival', 1, (app, key) => app.call(arrivals.add, here, came, { ...by, key })],
    ['plant_event', 1, (app, key) => app.call(places.addEvent, here, lost, { ...by, key })],
    ['aerial_image', 1, (app, key) => app.call(map.addImage, here, { jpeg, ...edges }, { ...by, key })],
    ['second_look', 1, (app, key) => app.call(flags.addSecondLook, here, looked, { ...by, key })],
    ['event_record', 2, (app, key) => app.call(traps.takeFile, here, file, { ...by, key })],
    // Without one key, since each try of the queue has its own; under one id.
    ['unknown_find', 1, (app, _, id) => app.call(library.keepUnknown, here, { id, seen: 'leaf:holes' }, by)],
    ['identity_check', 1, (app, _, id) => app.call(library.check, here, { id, organismId: 'wild-parsnip', answers: { stem: 'here' } }, by)],
  ]
  for (const [table, rows, send] of sent) {
    const [key, id] = [randomUUID(), randomUUID()]
    const all = await Promise.all(Array.from({ length: 20 }, (_, i) => send(i % 2 ? one : other, key, id)))
    // One that comes while the first is not stored yet may be asked to come again in a moment.
    expect([table, all.filter(({ status }) => status !== 200 && status !== 409)]).toEqual([table, []])
    const [[stored]] = await one.database.query<Row[]>(`SELECT COUNT(*) AS n FROM ${table} WHERE site_id = ?`, [site.site.id])
    expect([table, Number(stored?.['n'])]).toEqual([table, rows])
  }
  // What is changed over what one sees is changed by one of them.
  const { rowVersion } = done(await one.call(sites.list, {}, {}, by)).find(({ id }) => id === site.site.id)!
  const rules = { country: 'United States', region: 'Washington', rowVersion }
  const set = await Promise.all(Array.from({ length: 20 }, (_, i) => (i % 2 ? one : other).call(sites.setRules, here, rules, by)))
  expect(set.map(({ status }) => status).sort()).toEqual([200, ...Array<number>(19).fill(409)])
})

test('what a server was doing when it was killed the other finishes', async () => {
  // A server that has claimed work and dies.
  const third = await besideIt(one)
  await one.database.query("INSERT INTO work (kind, subject, not_before) VALUES ('derive', ?, NOW(3) + INTERVAL 1 HOUR)", [place.site.id])
  third.process.kill('SIGKILL')
  await one.database.query(
    "UPDATE work SET claimed_by = 'the third', lease_until = NOW(3) + INTERVAL 2 SECOND, not_before = NOW(3) WHERE subject = ?",
    [place.site.id],
  )
  const [[row]] = (await one.database.query('SELECT COUNT(*) AS n FROM work WHERE claimed_by IS NOT NULL')) as unknown as [[{ n: number }]]
  expect(Number(row.n)).toBe(1)
  await one.settled()
  expect(done(await other.call(watches.derived, at(), {})).state).toBe('fresh')
})

test('when one is killed the other goes on, and has what was acknowledged', async () => {
  const told = await listening(other, place.site.id)
  await until(() => told.heard.length > 0)
  const stored: string[] = []
  const writing = (async () => {
    for (let i = 0; ; i++) {
      const answer = await one
        .call(blocks.create, at(), { name: `Row ${i}`, kind: 'bed', areaHa: null, grows: '' }, as())
        .catch(() => undefined)
      if (!answer) return
      stored.push(done(answer).id)
    }
  })()
  await until(() => stored.length > 5)
  one.process.kill('SIGKILL')
  await writing
  const found = new Set(done(await other.call(blocks.list, at(), {})).map(({ id }) => id))
  expect(stored.filter((id) => !found.has(id))).toEqual([])
  await other.settled()
  expect(done(await other.call(watches.derived, at(), {})).state).toBe('fresh')
  told.stop()
})
