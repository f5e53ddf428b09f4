import { randomUUID } from 'node:crypto'
import { endpoints, type InputOf, type Problem } from '@bocado/contract'
import Papa from 'papaparse'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'

const { traps, watches, calibration } = endpoints
const SEASON = '2026-01-01'

let app: Application
let place: TestSite
let at: { siteId: string }
let as: { person: string }
let watchId: string
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  at = { siteId: place.site.id }
  as = { person: place.person }
  const watch = { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: null }
  watchId = done(await app.call(watches.create, at, watch, as)).id
})
afterAll(() => app.stop())

const hang = async (input: Partial<InputOf<typeof traps.add>> = {}) =>
  app.call(traps.add, at, { name: 'Trap 1', blockId: place.blockId, organismId: 'codling-moth', hungOn: '2026-04-20', ...input }, as)
const check = (trapId: string, day: string, caught: number, more: object = {}) =>
  app.call(traps.check, at, { trapId, day, caught, ...more }, as)
const list = async (season = SEASON) => done(await app.call(traps.list, at, { season }))
const trapOf = async (id: string, season = SEASON) => (await list(season)).find((trap) => trap.id === id)!
const refused = async (answer: Promise<{ problem: Pick<Problem, 'fields'> }>) =>
  (await answer).problem.fields?.map(({ path, message }) => `${path}: ${message}`)[0]
const told = async () => done(await app.call(calibration.get, { ...at, watchId }, {}))

describe('a trap', () => {
  test('says what it caught a day, when its lure is to be changed, and the biofix that its catches show', async () => {
    const { id } = done(await hang({ lure: 'pheromone', lureLoad: '1 mg', lureOn: '2026-04-20', lureWeeks: 6 }))
    for (const [day, caught] of [
      ['2026-04-27', 0],
      ['2026-05-04', 7],
      ['2026-05-11', 14],
    ] as const)
      done(await check(id, day, caught))
    const trap = await trapOf(id)
    expect(trap).toMatchObject({ lureUntil: '2026-06-01', watch: { id: watchId, biofix: null, waits: true } })
    expect(trap.checks.map(({ since, perDay }) => [since, perDay])).toEqual([
      ['2026-04-20', 0],
      ['2026-04-27', 1],
      ['2026-05-04', 2],
    ])
    expect(trap.biofix).toEqual({ day: '2026-05-01', halfInterval: 3.5, checks: ['2026-05-04', '2026-05-11'] })
    expect((await told()).caughtBiofix).toEqual(trap.biofix)
  })

  test('a check that comes late takes its place, and what was caught after it is since it; one that goes gives its days back', async () => {
    const { id } = done(await hang({ name: 'Trap 2' }))
    done(await check(id, '2026-05-18', 6))
    const late = { id: randomUUID(), made: { at: '2026-05-11T15:00:00Z', order: 3, by: place.person } }
    for (let i = 0; i < 3; i++) done(await check(id, '2026-05-11', 2, late))
    const days = async () => (await trapOf(id)).checks.map(({ since, day, caught }) => `${since} ${day} ${caught}`)
    expect(await days()).toEqual(['2026-04-20 2026-05-11 2', '2026-05-11 2026-05-18 6'])
    const gone = done(await app.call(traps.removeCheck, { ...at, checkId: late.id }, { rowVersion: 1 }, as))
    expect(await days()).toEqual(['2026-04-20 2026-05-18 6'])
    done(await app.call(traps.restoreCheck, { ...at, checkId: late.id }, { rowVersion: gone.rowVersion }, as))
    expect(await days()).toEqual(['2026-04-20 2026-05-11 2', '2026-05-11 2026-05-18 6'])
    // Who counted later stays who counted, at the version that their page knows.
    expect((await trapOf(id)).checks.at(-1)).toMatchObject({ caught: 6, rowVersion: 1 })
    expect(await refused(check(id, '2026-05-11', 1))).toMatch(/^day: 2026-05-11 is recorded already/)
  })

  test('where mating is disrupted tells no biofix, however much or little it catches', async () => {
    const { id } = done(await hang({ name: 'Trap 3', inDisruption: true }))
    for (const day of ['2026-04-23', '2026-04-27']) done(await check(id, day, 30))
    expect((await trapOf(id)).biofix).toBeNull()
    // The earlier catches of the one in disruption do not move what the others show.
    expect((await told()).caughtBiofix?.day).toBe('2026-05-01')
  })

  test('two traps of one block may be checked on one day; each stays by itself', async () => {
    const [a, b] = [done(await hang({ name: 'Trap 4' })), done(await hang({ name: 'Trap 5' }))]
    done(await check(a.id, '2026-05-20', 1))
    done(await check(b.id, '2026-05-20', 4))
    expect((await trapOf(a.id)).checks).toHaveLength(1)
    expect((await trapOf(b.id)).checks[0]).toMatchObject({ caught: 4 })
  })

  test('of several checks all are taken or none', async () => {
    const { id } = done(await hang({ name: 'Trap 6' }))
    const params = { ...at, trapId: id }
    const checks = [
      { day: '2026-05-01', caught: 1 },
      { day: '2026-06-30', caught: 1 },
    ]
    expect(await refused(app.call(traps.paste, params, { checks }, as))).toMatch(/^checks.1.day: /)
    expect((await trapOf(id)).checks).toEqual([])
    expect(done(await app.call(traps.paste, params, { checks: checks.slice(0, 1) }, as))).toEqual({ checks: 1 })
  })

  test('a trap of last year begins the season anew', async () => {
    const { id } = done(await hang({ name: 'Trap 7', hungOn: '2025-08-01' }))
    done(await check(id, '2025-08-08', 3))
    done(await check(id, '2026-04-10', 1))
    expect((await trapOf(id)).checks).toMatchObject([{ since: '2026-01-01', day: '2026-04-10' }])
    expect((await trapOf(id, '2025-01-01')).checks).toMatchObject([{ since: '2025-08-01' }])
  })

  test('what cannot be is refused by its field', async () => {
    const { id } = done(await hang({ name: 'Trap 8', takenDownOn: '2026-06-01' }))
    expect(await refused(check(id, '2026-06-13', 1))).toMatch(/^day: /)
    expect(await refused(check(id, '2026-06-02', 1))).toMatch(/^day: lies after 2026-06-01/)
    expect(await refused(check(id, '2026-04-20', 1))).toMatch(/^day: must lie after 2026-04-20/)
    expect(await refused(check(id, '2026-05-01', -1))).toMatch(/^caught: must be at least 0/)
    expect(await refused(check(randomUUID(), '2026-05-01', 1))).toBe('trapId: choose a trap of this site')
    expect(await refused(hang({ event: 'no-such-event' }))).toMatch(/^event: must be an event of Codling moth/)
    expect(await refused(hang({ hungOn: '2026-07-01' }))).toMatch(/^hungOn: /)
    expect(await refused(hang({ takenDownOn: '2026-04-01' }))).toMatch(/^takenDownOn: must not lie before/)
    done(await check(id, '2026-05-08', 2))
    const change = { name: 'Trap 8', blockId: place.blockId, hungOn: '2026-04-20', rowVersion: 1 }
    const params = { ...at, trapId: id }
    expect(await refused(app.call(traps.update, params, { ...change, organismId: 'peach-twig-borer' }, as))).toMatch(/^organismId: /)
    expect(await refused(app.call(traps.update, params, { ...change, organismId: 'codling-moth', takenDownOn: '2026-05-01' }, as))).toMatch(
      /^takenDownOn: was still checked/,
    )
    done(await app.call(traps.update, params, { ...change, organismId: 'codling-moth', lureOn: '2026-06-01' }, as))
    expect((await trapOf(id)).lureOn).toBe('2026-06-01')
  })

  test('its checks leave as a table', async () => {
    const csv = await (await app.get(`sites/${at.siteId}/traps.csv?season=${SEASON}`)).text()
    const { data } = Papa.parse<Record<string, string>>(csv.trim(), { header: true })
    expect(data).toHaveLength((await list()).flatMap(({ checks }) => checks).length)
    expect(data.find((row) => row['trap'] === 'Trap 1' && row['day'] === '2026-05-11')).toMatchObject({ caught: '14', per_day: '2' })
  })
})

describe('a counter', () => {
  const push = (trapId: string, token: string, catches: unknown) =>
    fetch(`${app.address}/api/v1/traps/${trapId}/catches`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', Authorization: `Bearer ${token}` },
      body: JSON.stringify({ catches }),
    })

  test('sends days by its token; a day sent again is put right, what a person counted stays theirs', async () => {
    const { id } = done(await hang({ name: 'Counter' }))
    const params = { ...at, trapId: id }
    const { token } = done(await app.call(traps.issueToken, params, {}, as))
    done(await check(id, '2026-05-03', 9))
    const day = (date: string, caught: number) => ({ day: date, caught })
    expect(await (await push(id, token, [day('2026-05-01', 0), day('2026-05-02', 3), day('2026-05-03', 1)])).json()).toEqual({
      new: 2,
      changed: 0,
      unchanged: 1,
    })
    expect(await (await push(id, token, [day('2026-05-02', 4)])).json()).toEqual({ new: 0, changed: 1, unchanged: 0 })
    const trap = await trapOf(id)
    expect(trap.hasCounter).toBe(true)
    expect(trap.checks.map(({ since, caught, countedBy }) => [since, caught, countedBy])).toEqual([
      ['2026-04-20', 0, 'device'],
      ['2026-05-01', 4, 'device'],
      ['2026-05-02', 9, 'person'],
    ])
    // All or nothing.
    expect((await push(id, token, [day('2026-05-04', 1), day('2026-12-01', 1)])).status).toBe(422)
    expect((await trapOf(id)).checks).toHaveLength(3)
    expect((await push(id, 'guessed', [day('2026-05-04', 1)])).status).toBe(401)
    const other = done(await hang({ name: 'Another' }))
    expect((await push(other.id, token, [day('2026-05-04', 1)])).status).toBe(401)
    done(await app.call(traps.endToken, params, {}, as))
    expect((await push(id, token, [day('2026-05-04', 1)])).status).toBe(401)
    // The list never shows the token, nor its hash.
    expect(JSON.stringify(await list())).not.toMatch(/token/i)
  })
})

describe('checks of a file', () => {
  const take = (text: string) => app.call(traps.takeFile, at, { text }, as)

  test('go each into the trap of its name, and those that are recorded already stay', async () => {
    const { id } = done(await hang({ name: 'North gate' }))
    done(await check(id, '2026-05-10', 2))
    const file = '\uFEFFTrap;Day;Caught\r\nNorth gate;2026-05-17;5\r\nNorth gate;2026-05-10;2\r\n\r\nNorth gate;2026-05-24;0\r\n'
    expect(done(await take(file))).toEqual({ checks: 2, known: 1 })
    expect((await trapOf(id)).checks.map(({ since, day, caught }) => [since, day, caught])).toEqual([
      ['2026-04-20', '2026-05-10', 2],
      ['2026-05-10', '2026-05-17', 5],
      ['2026-05-17', '2026-05-24', 0],
    ])
  })

  test.each([
    ['trap,day\nNorth row,2026-05-10', 'text', /has no column caught/],
    ['trap,day,caught\n', 'text', /has no rows/],
    ['trap,day,caught\nNorth row,2026-05-10,2\nSouth row,2026-05-11,1', 'row 3', /there is no trap called South row/],
    ['trap,day,caught\nNorth row,10 May,2', 'row 2', /^day: 10 May is no day/],
    ['trap,day,caught\nNorth row,2026-05-10,2.5', 'row 2', /^caught: 2\.5 is no whole number/],
    ['trap,day,caught\nNorth row,2026-05-10,-1', 'row 2', /^caught: -1 is no whole number/],
    ['trap,day,caught\nNorth row,2026-05-10,2\nNorth row,2026-05-10,3', 'row 3', /is recorded with 2 already/],
    ['trap,day,caught\nNorth row,2026-05-10,2\nNorth row,2026-12-01,3', 'row 3', /future/],
    ['trap,day,caught\nNorth row,2026-05-10,2\nNorth row,2026-01-03,3', 'row 3', /./],
  ])('that cannot be are told by their row, and change nothing: %j', async (text, path, message) => {
    const known = (await list()).find(({ name }) => name === 'North row')?.id ?? done(await hang({ name: 'North row' })).id
    const [field] = (await take(text)).problem.fields ?? []
    expect(field?.path).toBe(path)
    expect(field?.message).toMatch(message)
    expect((await trapOf(known)).checks).toEqual([])
  })

  test('of two traps of one name need the block', async () => {
    const two = [done(await hang({ name: 'Twin' })), done(await hang({ name: 'Twin' }))]
    expect((await take('trap,day,caught\nTwin,2026-05-10,2')).problem.fields?.[0]).toEqual({
      path: 'row 2',
      message: 'Twin is the name of 2 traps; add a column block',
    })
    expect(two.length).toBe(2)
  })
})
