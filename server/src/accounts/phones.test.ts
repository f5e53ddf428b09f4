import {
  asksForSelf,
  endpoints,
  may,
  needOf,
  type Endpoint,
  type InputOf,
  type ParamsOf,
  type Problem,
  type ResponseOf,
} from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { Row } from '../database/index.js'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'

const { account, phones, sites, blocks, scouting, watches, weather } = endpoints

let app: Application
let place: TestSite
let other: TestSite
/** Scouts at both sites, and has no account of a computer's kind: on the phone they are by their code. */
let scout: string

/** A browser with all of its cookies. */
class Phone {
  readonly cookies = new Map<string, string>()

  async ask<E extends Endpoint>(e: E, input: InputOf<E>, params: ParamsOf<E> = {} as ParamsOf<E>) {
    const path = e.path.replace(/:(\w+)/g, (_, name: string) => (params as Record<string, string>)[name] ?? '')
    const response = await fetch(`${app.address}/api/v1${path}`, {
      method: e.method.toUpperCase(),
      headers: {
        'Content-Type': 'application/json',
        'Idempotency-Key': crypto.randomUUID(),
        Cookie: [...this.cookies].map(([name, value]) => `${name}=${value}`).join('; '),
      },
      ...(e.method === 'get' ? {} : { body: JSON.stringify(input) }),
    })
    for (const cookie of response.headers.getSetCookie()) {
      const [name = '', value = ''] = cookie.split(';')[0]!.split('=')
      if (value === '') this.cookies.delete(name)
      else this.cookies.set(name, value)
    }
    const body = (await response.json()) as ResponseOf<E> & Problem
    return { status: response.status, body, problem: body as Problem }
  }
}

const offered = async (name = 'Barn phone'): Promise<string> =>
  done(await app.call(phones.offer, { siteId: place.site.id }, { name }, { person: place.person })).token
async function paired(name?: string): Promise<Phone> {
  const phone = new Phone()
  expect((await phone.ask(phones.pair, { token: await offered(name) })).status).toBe(200)
  return phone
}
const setCode = async (person: string, code: string) => done(await app.call(account.setCode, {}, { code }, { person }))

beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z', worker: false })
  place = await startSite(app)
  other = await startSite(app, 'Lower Terrace')
  const added = { name: 'Ines Varga', role: 'scout' as const, licensed: false, personId: null }
  done(await app.call(sites.addPerson, { siteId: place.site.id }, added, { person: place.person }))
  const [[row]] = await app.database.query<Row[]>("SELECT id FROM person WHERE name = 'Ines Varga'")
  scout = row!['id'] as string
  await app.database.query("INSERT INTO site_person (site_id, person_id, role) VALUES (?, ?, 'lead')", [other.site.id, scout])
})
afterAll(() => app.stop())

describe('a shared phone', () => {
  test('is paired once, in its time, and then names who comes in on it', async () => {
    await setCode(scout, '2749')
    const token = await offered()
    const [one, two] = [new Phone(), new Phone()]
    const both = await Promise.all([one.ask(phones.pair, { token }), two.ask(phones.pair, { token })])
    expect(both.map(({ status }) => status).sort()).toEqual([200, 410])
    const { body } = both.find(({ status }) => status === 200)!
    expect(body).toMatchObject({ person: null, phone: { name: 'Barn phone', site: place.site.name } })
    expect(body.phone?.people).toEqual([{ id: scout, name: 'Ines Varga', role: 'scout', site: place.site.name }])
    const late = await offered()
    await app.database.query('UPDATE phone SET pair_until = UTC_TIMESTAMP() - INTERVAL 1 MINUTE WHERE paired_at IS NULL')
    expect((await two.ask(phones.pair, { token: late })).status).toBe(410)
    expect((await two.ask(phones.pair, { token: 'x'.repeat(43) })).status).toBe(404)
    const [kept] = await app.database.query<Row[]>('SELECT HEX(pair_hash) AS p, HEX(secret_hash) AS s FROM phone')
    for (const secret of [token, late, ...one.cookies.values(), ...two.cookies.values()])
      expect(JSON.stringify(kept)).not.toContain(Buffer.from(secret, 'base64url').toString('hex').toUpperCase())
  })

  test('is opened by four digits, there only; a code that is tried first is none', async () => {
    for (const code of ['1234', '0000', '987', 'abcd'])
      expect((await app.call(account.setCode, {}, { code }, { person: scout })).problem.fields?.[0]?.path, code).toBe('code')
    await setCode(scout, '2749')
    const bare = new Phone()
    expect((await bare.ask(account.signInByCode, { personId: scout, code: '2749' })).status).toBe(403)
    const phone = await paired()
    expect((await phone.ask(account.signInByCode, { personId: scout, code: '2748' })).problem.fields?.[0]?.path).toBe('code')
    // Of who has no code, or does not work there, it says no more.
    expect((await phone.ask(account.signInByCode, { personId: other.person, code: '2749' })).problem.fields?.[0]?.path).toBe('code')
    const { body } = await phone.ask(account.signInByCode, { personId: scout, code: '2749' })
    expect(body.person).toMatchObject({ id: scout, name: 'Ines Varga', byCode: true })
    // What is recorded there is theirs.
    const at = { siteId: place.site.id }
    const watch = done(
      await app.call(
        watches.create,
        at,
        { organismId: 'codling-moth', blockId: place.blockId, season: '2026-01-01', biofix: null },
        { person: place.person },
      ),
    )
    const round = await phone.ask(
      scouting.create,
      { watchId: watch.id, countedOn: '2026-06-10', units: [{ 'fresh-entry': 1 }] } as never,
      at,
    )
    expect(round.status).toBe(200)
    const [[row]] = await app.database.query<Row[]>('SELECT changed_by FROM round WHERE id = ?', [(round.body as { id: string }).id])
    expect(row!['changed_by']).toBe(scout)
  })

  test('gives nobody more than the work of the field, and of its own site only', async () => {
    const phone = await paired()
    await setCode(place.person, '5081')
    expect((await phone.ask(account.signInByCode, { personId: place.person, code: '5081' })).body.person?.byCode).toBe(true)
    const ids = { siteId: place.site.id, blockId: place.blockId, stationId: place.stationId }
    const all = Object.values(endpoints).flatMap((group) => Object.values<Endpoint>(group))
    const more = all.filter((e) => asksForSelf(needOf(e)))
    expect(more.length).toBeGreaterThan(30)
    for (const e of more) {
      const params = Object.fromEntries(
        [...e.path.matchAll(/:(\w+)/g)].map(([, name]): [string, string] => [name!, ids[name as 'siteId'] ?? place.site.id]),
      )
      const answer = await phone.ask(e, {} as never, params as never)
      expect([e.path, answer.status, answer.problem.detail]).toEqual([e.path, 403, expect.stringContaining('password or passkey')])
    }
    // At the other site they lead; not from here.
    await phone.ask(account.signInByCode, { personId: scout, code: '2749' })
    expect((await phone.ask(sites.list, {})).body.map(({ id }) => id)).toEqual([place.site.id])
    expect((await phone.ask(blocks.list, {}, { siteId: other.site.id })).status).toBe(404)
    expect(may('scout', 'observe')).toBe(true)
    const stream = await fetch(`${app.address}/api/v1/changes?sites=${other.site.id}`, {
      headers: { Cookie: [...phone.cookies].map(([name, value]) => `${name}=${value}`).join('; ') },
    })
    expect(stream.status).toBe(404)
  })

  test('is handed on: the one before is out, and the next is in', async () => {
    const phone = await paired()
    await phone.ask(account.signInByCode, { personId: place.person, code: '5081' })
    const before = new Map(phone.cookies)
    expect((await phone.ask(account.signOut, {})).body).toMatchObject({ person: null, phone: { name: 'Barn phone' } })
    expect((await phone.ask(account.signInByCode, { personId: scout, code: '2749' })).body.person?.id).toBe(scout)
    const old = new Phone()
    for (const [name, value] of before) old.cookies.set(name, value)
    expect((await old.ask(account.session, {})).body.person).toBeNull()
  })

  test('that is sent away opens nothing, and whoever is in on it is out; what they send then is refused and can be sent again', async () => {
    const phone = await paired('Van phone')
    await phone.ask(account.signInByCode, { personId: scout, code: '2749' })
    const listed = done(await app.call(phones.list, { siteId: place.site.id }, {}, { person: place.person }))
    const mine = listed.find(({ name }) => name === 'Van phone')!
    expect(mine).toMatchObject({ pairUntil: null, pairedBy: 'Marit Solheim' })
    const gone = { siteId: place.site.id, phoneId: mine.id }
    expect((await app.call(phones.sendAway, gone, { rowVersion: mine.rowVersion + 1 }, { person: place.person })).status).toBe(409)
    done(await app.call(phones.sendAway, gone, { rowVersion: mine.rowVersion }, { person: place.person }))
    expect((await app.call(phones.sendAway, gone, { rowVersion: mine.rowVersion }, { person: place.person })).status).toBe(404)
    const days = { days: [{ day: '2026-06-10', min: 9, max: 24 }] }
    const to = { siteId: place.site.id, stationId: place.stationId }
    expect((await phone.ask(weather.typeDays, days as never, to)).status).toBe(401)
    expect((await phone.ask(account.session, {})).body).toMatchObject({ person: null, phone: null })
    expect((await phone.ask(account.signInByCode, { personId: scout, code: '2749' })).status).toBe(403)
  })
})

describe('a code', () => {
  test('is slowed down, and after twenty wrong ones opens nothing; a new one does', async () => {
    const phone = await paired()
    await setCode(scout, '2749')
    const statuses: number[] = []
    for (let i = 0; i < 7; i++) statuses.push((await phone.ask(account.signInByCode, { personId: scout, code: '6602' })).status)
    expect(statuses).toEqual([422, 422, 422, 422, 422, 429, 429])
    await app.database.query('DELETE FROM sign_in_attempt')
    await app.database.query('UPDATE hand_code SET tries = 20 WHERE person_id = ?', [scout])
    const ended = await phone.ask(account.signInByCode, { personId: scout, code: '2749' })
    expect([ended.status, ended.problem.detail]).toEqual([403, expect.stringContaining('set a new one')])
    await setCode(scout, '3961')
    expect((await phone.ask(account.signInByCode, { personId: scout, code: '3961' })).status).toBe(200)
  })

  test('ends what was opened by the one before, and the day’s work by itself', async () => {
    const phone = await paired()
    await phone.ask(account.signInByCode, { personId: scout, code: '3961' })
    await setCode(scout, '2749')
    expect((await phone.ask(account.session, {})).body.person).toBeNull()
    await phone.ask(account.signInByCode, { personId: scout, code: '2749' })
    await app.database.query("UPDATE sign_in SET seen_at = UTC_TIMESTAMP() - INTERVAL 13 HOUR WHERE how = 'code'")
    expect((await phone.ask(account.session, {})).body).toMatchObject({ person: null, phone: { name: 'Barn phone' } })
    done(await app.call(account.removeCode, {}, {}, { person: scout }))
    expect((await phone.ask(account.signInByCode, { personId: scout, code: '2749' })).status).toBe(422)
  })
})

test('twenty presses of everything at once answer, and do it once', async () => {
  const times = <T>(act: () => Promise<T>): Promise<T[]> => Promise.all(Array.from({ length: 20 }, act))
  await setCode(scout, '3961')
  const phone = await paired('Press phone')
  const listed = done(await app.call(phones.list, { siteId: place.site.id }, {}, { person: place.person }))
  const { id, rowVersion } = listed.find(({ name }) => name === 'Press phone')!
  // Tries are counted before they are looked at, so of many at once some are asked to wait; none is wrong.
  const came = await times(() => {
    const same = new Phone()
    for (const [name, value] of phone.cookies) same.cookies.set(name, value)
    return same.ask(account.signInByCode, { personId: scout, code: '3961' })
  })
  expect(came.some(({ status }) => status === 200)).toBe(true)
  expect(came.every(({ status }) => [200, 429, 503].includes(status))).toBe(true)
  const codes = await times(() => app.call(account.setCode, {}, { code: '2749' }, { person: scout }))
  expect(codes.every(({ status }) => [200, 503].includes(status))).toBe(true)
  const away = await times(() =>
    app.call(phones.sendAway, { siteId: place.site.id, phoneId: id }, { rowVersion }, { person: place.person }),
  )
  expect(away.filter(({ status }) => status === 200)).toHaveLength(1)
  expect(away.every(({ status }) => [200, 404, 409, 503].includes(status))).toBe(true)
  expect((await phone.ask(account.session, {})).body.phone).toBeNull()
})
