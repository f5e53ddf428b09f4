import { spawnSync } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { endpoints, type Endpoint, type InputOf, type ParamsOf, type Problem, type ResponseOf, type Session } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { Row } from '../database/index.js'
import { besideIt, startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'

const { account, crew, sites, blocks } = endpoints
const PASSWORD = 'seven grey geese fly'

let app: Application
beforeAll(async () => void (app = await startApplication({ worker: false })))
afterAll(() => app.stop())

/** A browser: it keeps its cookie as one does, and knows nothing else. */
class Browser {
  cookie = ''
  constructor(private readonly address = app.address) {}

  async ask<E extends Endpoint>(
    e: E,
    input: InputOf<E>,
    params: ParamsOf<E> = {} as ParamsOf<E>,
    headers: Record<string, string> = {},
  ): Promise<{ status: number; body: ResponseOf<E>; problem: Problem; cookies: string[] }> {
    const path = e.path.replace(/:(\w+)/g, (_, name: string) => (params as Record<string, string>)[name] ?? '')
    const response = await fetch(`${this.address}/api/v1${path}`, {
      method: e.method.toUpperCase(),
      headers: { 'Content-Type': 'application/json', 'Idempotency-Key': crypto.randomUUID(), Cookie: this.cookie, ...headers },
      ...(e.method === 'get' ? {} : { body: JSON.stringify(input) }),
    })
    const cookies = response.headers.getSetCookie()
    for (const cookie of cookies) this.cookie = cookie.split(';')[0]!.endsWith('=') ? '' : cookie.split(';')[0]!
    const body = (await response.json()) as ResponseOf<E> & Problem
    return { status: response.status, body, problem: body, cookies }
  }
}

describe('a server on which nobody has an account', () => {
  let owner: Browser

  test('gives the first one to whoever sits at it, and to nobody after', async () => {
    owner = new Browser()
    expect((await owner.ask(account.session, {})).body).toEqual({ person: null, phone: null, demo: null, first: [] })
    const first = { name: 'Marit Solheim', signInName: 'Marit@Hollin.example', password: PASSWORD }
    for (const [field, value] of [
      ['password', 'short'],
      ['password', 'aaaaaaaaaaaa'],
      ['signInName', 'a b'],
      ['name', ' '],
    ] as const)
      expect((await owner.ask(account.begin, { ...first, [field]: value })).problem.fields?.[0]?.path).toBe(field)
    const other = new Browser()
    const both = await Promise.all([owner.ask(account.begin, first), other.ask(account.begin, { ...first, signInName: 'other' })])
    expect(both.filter(({ status }) => status === 200)).toHaveLength(1)
    const made = both.find(({ status }) => status === 200)!
    if (made === both[1]) owner = other
    expect(made.cookies[0]).toMatch(/^bocado=[\w-]{43}; Max-Age=\d+; Path=\/; Expires=[^;]+; HttpOnly; SameSite=Lax$/)
    expect((await new Browser().ask(account.begin, { ...first, signInName: 'third' })).status).toBe(409)
    // Whichever of both was first.
    const [[row]] = await app.database.query<Row[]>('SELECT COUNT(*) AS n, MAX(sign_in_name) AS name FROM account')
    expect(Number(row!['n'])).toBe(1)
    await app.database.query("UPDATE account SET sign_in_name = 'marit@hollin.example'")
  })

  test('keeps neither a password nor a sign-in so that anybody could use it', async () => {
    const [[kept]] = await app.database.query<Row[]>('SELECT password_hash FROM account')
    expect(kept!['password_hash']).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/)
    const dump = JSON.stringify((await app.database.query<Row[]>('SELECT HEX(token_hash) AS h, id, agent FROM sign_in'))[0])
    expect(dump).not.toContain(owner.cookie.replace('bocado=', ''))
    expect(dump).not.toContain(Buffer.from(owner.cookie.replace('bocado=', ''), 'base64url').toString('hex').toUpperCase())
  })
})

describe('signing in', () => {
  const right = { signInName: 'marit@hollin.example', password: PASSWORD }

  test('opens what is one’s own, whichever way the name is written; signing out closes it, everywhere where that is asked', async () => {
    const [desk, phone] = [new Browser(), new Browser()]
    expect((await desk.ask(sites.list, {})).status).toBe(401)
    expect((await desk.ask(account.signIn, { ...right, signInName: ' MARIT@hollin.example ' })).status).toBe(200)
    expect((await phone.ask(account.signIn, right, undefined, { 'User-Agent': 'a phone' })).status).toBe(200)
    expect((await desk.ask(sites.list, {})).body).toEqual([])
    const open = (await desk.ask(account.signIns, {})).body
    expect(open.filter(({ isThis }) => isThis)).toHaveLength(1)
    const there = open.find(({ agent }) => agent === 'a phone')!
    expect((await desk.ask(account.endSignIn, {}, { signInId: there.id })).status).toBe(200)
    expect((await phone.ask(sites.list, {})).status).toBe(401)
    await phone.ask(account.signIn, right)
    const before = phone.cookie
    const out = await desk.ask(account.signOut, { everywhere: true })
    expect(out.body.person).toBeNull()
    expect(desk.cookie).toBe('')
    phone.cookie = before
    expect((await phone.ask(sites.list, {})).status).toBe(401)
  })

  test('gives a new secret each time: one that was put into the browser before opens nothing after', async () => {
    const browser = new Browser()
    browser.cookie = `bocado=${'x'.repeat(43)}`
    await browser.ask(account.signIn, right)
    expect(browser.cookie).not.toContain('xxxx')
    const first = browser.cookie
    await browser.ask(account.signIn, right)
    const stolen = new Browser()
    stolen.cookie = first
    expect((await stolen.ask(sites.list, {})).status).toBe(401)
  })

  test('says nothing of which was wrong, and takes as long for a name that nobody has', async () => {
    const took: Record<string, number[]> = { known: [], unknown: [] }
    const words = new Set<string>()
    for (let i = 0; i < 3; i++)
      for (const [kind, signInName] of [
        ['known', right.signInName],
        ['unknown', `nobody-${i}@hollin.example`],
      ] as const) {
        const began = performance.now()
        const { status, problem } = await new Browser().ask(account.signIn, { signInName, password: 'wrong all the same' })
        took[kind]!.push(performance.now() - began)
        words.add(`${status} ${problem.detail}`)
      }
    expect(words.size).toBe(1)
    expect(Math.min(...took['unknown']!)).toBeGreaterThan(Math.min(...took['known']!) / 2)
    await app.database.query('DELETE FROM sign_in_attempt')
  })

  test('slows down whoever tries on, on every server, and the right password opens it after the wait', async () => {
    const beside = await besideIt(app)
    const tries: number[] = []
    for (let i = 0; i < 7; i++) {
      const browser = new Browser(i % 2 ? beside.address : app.address)
      tries.push((await browser.ask(account.signIn, { ...right, password: `guess number ${i}` })).status)
    }
    expect(tries.slice(0, 5)).toEqual([403, 403, 403, 403, 403])
    expect(tries.slice(5)).toContain(429)
    const held = await new Browser(beside.address).ask(account.signIn, right)
    expect([held.status, held.problem.detail]).toEqual([429, expect.stringMatching(/^Too many tries failed\. Wait \d+ s/)])
    await app.database.query('UPDATE sign_in_attempt SET last_at = last_at - INTERVAL 10 SECOND')
    expect((await new Browser().ask(account.signIn, right)).status).toBe(200)
    // Many at once are counted, too.
    await app.database.query('DELETE FROM sign_in_attempt')
    const atOnce = await Promise.all(Array.from({ length: 12 }, () => new Browser().ask(account.signIn, { ...right, password: 'guess' })))
    const counted = (status: number) => atOnce.filter((answer) => answer.status === status).length
    expect(counted(403) + counted(429)).toBe(12)
    // Five are free; on a machine that takes a second for twelve, one more may have waited long enough.
    expect([5, 6]).toContain(counted(403))
    await app.database.query('DELETE FROM sign_in_attempt')
    await beside.stop()
  })

  test('ends by itself, and ends elsewhere with a new password', async () => {
    const [here, there] = [new Browser(), new Browser()]
    await here.ask(account.signIn, right)
    await there.ask(account.signIn, right)
    const wrong = await here.ask(account.changePassword, { current: 'not that one', password: 'nine red foxes sleep' })
    expect(wrong.problem.fields).toEqual([{ path: 'current', message: 'is not right' }])
    expect((await here.ask(account.changePassword, { current: PASSWORD, password: 'nine red foxes sleep' })).status).toBe(200)
    expect((await here.ask(sites.list, {})).status).toBe(200)
    expect((await there.ask(sites.list, {})).status).toBe(401)
    expect((await there.ask(account.signIn, right)).status).toBe(403)
    expect((await here.ask(account.changePassword, { current: 'nine red foxes sleep', password: PASSWORD })).status).toBe(200)
    await app.database.query('UPDATE sign_in SET expires_at = UTC_TIMESTAMP() - INTERVAL 1 SECOND')
    expect((await here.ask(sites.list, {})).status).toBe(401)
  })

  test('shows nothing that is kept on the way for another', async () => {
    const browser = new Browser()
    await browser.ask(account.signIn, right)
    for (const [path, kept] of [
      ['sites', 'private, no-cache'],
      ['session', 'no-store'],
    ] as const) {
      const { headers } = await fetch(`${app.address}/api/v1/${path}`, { headers: { Cookie: browser.cookie } })
      expect(headers.get('cache-control')).toBe(kept)
    }
  })

  test('of another page, or as somebody of a demonstration that is none, is refused', async () => {
    const evil = { Origin: 'http://evil.example' }
    expect((await new Browser().ask(account.signIn, right, undefined, evil)).status).toBe(403)
    const [[row]] = await app.database.query<Row[]>('SELECT id FROM person LIMIT 1')
    expect((await new Browser().ask(account.demoSignIn, { personId: row!['id'] as string })).status).toBe(404)
  })
})

describe('coming to a site', () => {
  let place: TestSite
  let at: { siteId: string }
  let as: { person: string }
  beforeAll(async () => {
    place = await startSite(app)
    at = { siteId: place.site.id }
    as = { person: place.person }
  })
  const invite = async (role: 'owner' | 'lead' | 'scout' | 'viewer', who = as, personId: string | null = null) =>
    app.call(crew.invite, at, { name: 'Dario Quince', role, personId }, who)
  const credentials = (signInName: string) => ({ name: 'Dario Quince', signInName, password: PASSWORD })

  test('by a link that opens once', async () => {
    const { token } = done(await invite('scout'))
    const browser = new Browser()
    expect((await browser.ask(account.lookAtLink, { token })).body).toMatchObject({
      kind: 'invitation',
      site: 'Hollin Bench',
      role: 'scout',
    })
    expect((await browser.ask(account.useLink, { token, ...credentials('marit@hollin.example') })).problem.fields?.[0]?.path).toBe(
      'signInName',
    )
    const came = await browser.ask(account.useLink, { token, ...credentials('dario') })
    expect(came.body.person).toMatchObject({ name: 'Dario Quince', signInName: 'dario' })
    expect((await browser.ask(sites.list, {})).body.map(({ name }) => name)).toEqual(['Hollin Bench'])
    expect((await new Browser().ask(account.useLink, { token, ...credentials('another') })).status).toBe(410)
    expect(done(await app.call(crew.invitations, at, {}, as))).toEqual([])
    const [[kept]] = await app.database.query<Row[]>("SELECT COUNT(*) AS n FROM audit WHERE entity = 'site_person' AND action = 'create'")
    expect(Number(kept!['n'])).toBeGreaterThan(0)
  })

  test('once, though twenty press at the same moment, on two servers', async () => {
    const beside = await besideIt(app)
    const { token } = done(await invite('scout'))
    const all = await Promise.all(
      Array.from({ length: 20 }, (_, i) =>
        new Browser(i % 2 ? beside.address : app.address).ask(account.useLink, { token, ...credentials(`one-of-twenty-${i}`) }),
      ),
    )
    const statuses = all.map(({ status }) => status)
    expect(statuses.filter((status) => status === 200)).toHaveLength(1)
    expect(new Set(statuses)).toEqual(new Set([200, 410]))
    const [[made]] = await app.database.query<Row[]>("SELECT COUNT(*) AS n FROM account WHERE sign_in_name LIKE 'one-of-twenty-%'")
    expect(Number(made!['n'])).toBe(1)
    await beside.stop()
  })

  test('with the account that one has, where one is signed in', async () => {
    const second = await startSite(app, 'Lower Terrace')
    const { token } = done(
      await app.call(crew.invite, { siteId: second.site.id }, { name: 'Dario Quince', role: 'viewer' }, { person: second.person }),
    )
    const browser = new Browser()
    await browser.ask(account.signIn, { signInName: 'dario', password: PASSWORD })
    expect((await browser.ask(account.useLink, { token })).status).toBe(200)
    const mine = (await browser.ask(sites.list, {})).body
    expect(mine.map(({ name }) => name).sort()).toEqual(['Hollin Bench', 'Lower Terrace'])
    const params = { siteId: second.site.id }
    const block = { name: 'Row', kind: 'field' as const }
    expect((await browser.ask(blocks.create, block, params)).status).toBe(403)
  })

  test('not by a link that ended, was withdrawn, is not whole, or whose giver leads no more', async () => {
    const ended = done(await invite('scout')).token
    await app.database.query("UPDATE link SET expires_at = UTC_TIMESTAMP() - INTERVAL 1 DAY WHERE used_at IS NULL AND kind = 'invitation'")
    const over = await new Browser().ask(account.useLink, { token: ended, ...credentials('late') })
    expect([over.status, over.problem.detail]).toEqual([410, 'This link has ended. Ask for a new one.'])
    const [left] = done(await app.call(crew.invitations, at, {}, as))
    expect(left).toMatchObject({ isExpired: true, role: 'scout', invitedBy: 'Marit Solheim' })
    const withdrawn = done(await invite('scout')).token
    for (const { id, rowVersion } of done(await app.call(crew.invitations, at, {}, as)))
      done(await app.call(crew.withdraw, { ...at, invitationId: id }, { rowVersion }, as))
    expect((await new Browser().ask(account.useLink, { token: withdrawn, ...credentials('gone') })).status).toBe(404)
    expect((await new Browser().ask(account.lookAtLink, { token: 'x'.repeat(43) })).status).toBe(404)
    const lead = done(await app.call(sites.addPerson, at, { name: 'Tovah Lindqvist', role: 'lead' }, as))
    const { token } = done(await invite('scout', { person: lead.id }))
    done(await app.call(sites.removePerson, { ...at, personId: lead.id }, { rowVersion: lead.rowVersion }, as))
    const stale = await new Browser().ask(account.useLink, { token, ...credentials('stale') })
    expect([stale.status, stale.problem.detail]).toEqual([410, expect.stringContaining('no longer leads')])
    expect((await app.database.query<Row[]>("SELECT 1 FROM account WHERE sign_in_name IN ('late', 'gone', 'stale')"))[0]).toEqual([])
  })

  test('nobody gives more than they have, and no lead gets into an account of somebody who is more elsewhere', async () => {
    const lead = done(await app.call(sites.addPerson, at, { name: 'Tovah Lindqvist', role: 'lead' }, as)).id
    expect((await invite('owner', { person: lead })).problem.fields?.[0]?.path).toBe('role')
    expect((await invite('owner')).status).toBe(200)
    // Marit owns this site; Dario works at another that this lead does not lead.
    expect((await invite('scout', { person: lead }, place.person)).status).toBe(403)
    const dario = done(await app.call(sites.list, {}, {}, as))
      .find(({ id }) => id === at.siteId)!
      .people.find(({ name, signsIn }) => name === 'Dario Quince' && signsIn)!
    const [[who]] = await app.database.query<Row[]>("SELECT person_id FROM account WHERE sign_in_name = 'dario'")
    expect((await app.call(crew.resetLink, { ...at, personId: who!['person_id'] as string }, {}, as)).status).toBe(403)
    expect(dario).toBeDefined()
  })

  test('who works here without an account gets one, and a new password when it is forgotten', async () => {
    const person = done(await app.call(sites.addPerson, at, { name: 'Ina Berg', role: 'applicator', licensed: true }, as))
    expect(person.signsIn).toBe(false)
    expect((await app.call(crew.resetLink, { ...at, personId: person.id }, {}, as)).status).toBe(409)
    const { token } = done(await invite('viewer', as, person.id))
    const second = done(await invite('viewer', as, person.id)).token
    const browser = new Browser()
    await browser.ask(account.useLink, { token, signInName: 'ina', password: PASSWORD })
    const again = await new Browser().ask(account.useLink, { token: second, signInName: 'ina-too', password: PASSWORD })
    expect([again.status, again.problem.detail]).toEqual([410, expect.stringContaining('have an account here already')])
    expect((await browser.ask(account.session, {})).body.person).toEqual({
      id: person.id,
      name: 'Ina Berg',
      signInName: 'ina',
      byCode: false,
      settings: { units: null, dates: null },
    })
    // What she was stays: the invitation was a way in, and nothing else.
    const people = done(await app.call(sites.list, {}, {}, as)).find(({ id }) => id === at.siteId)!.people
    expect(people.find(({ id }) => id === person.id)).toMatchObject({ role: 'applicator', licensed: true, signsIn: true })
    const reset = done(await app.call(crew.resetLink, { ...at, personId: person.id }, {}, as)).token
    const left = done(await app.call(crew.resetLink, { ...at, personId: person.id }, {}, as)).token
    const elsewhere = new Browser()
    expect((await elsewhere.ask(account.lookAtLink, { token: reset })).body).toMatchObject({ kind: 'reset', signInName: 'ina' })
    expect((await elsewhere.ask(account.useLink, { token: reset, password: 'four tall herons wait' })).status).toBe(200)
    expect((await browser.ask(sites.list, {})).status).toBe(401)
    // Whoever holds another link for it does not set it once more.
    expect((await new Browser().ask(account.useLink, { token: left, password: 'two old crows call' })).status).toBe(404)
    expect((await new Browser().ask(account.signIn, { signInName: 'ina', password: PASSWORD })).status).toBe(403)
    expect((await new Browser().ask(account.signIn, { signInName: 'ina', password: 'four tall herons wait' })).status).toBe(200)
  })
})

describe('a passkey', () => {
  test('is asked for at a name and not at a number, and an answer that nobody asked for opens nothing', async () => {
    const browser = new Browser()
    expect((await browser.ask(account.askPasskey, {})).status).toBe(409)
    const named = new Browser(app.address.replace('127.0.0.1', 'localhost'))
    const { body } = await named.ask(account.askPasskey, {})
    expect(body).toMatchObject({ rpId: 'localhost', userVerification: 'required' })
    const made = { id: 'AAAA', rawId: 'AAAA', type: 'public-key', response: {}, clientExtensionResults: {} }
    for (const response of [made, {}, { id: 'x'.repeat(5000) }, { id: 7 }]) {
      const { status, problem } = await named.ask(account.signInByPasskey, { response })
      expect([status, problem.detail]).toEqual([403, expect.stringContaining('opens nothing here')])
    }
    await named.ask(account.signIn, { signInName: 'marit@hollin.example', password: PASSWORD })
    const asked = await named.ask(account.newPasskey, {})
    expect(asked.body).toMatchObject({ rp: { id: 'localhost' }, attestation: 'none' })
    expect((await named.ask(account.addPasskey, { name: 'the desk', response: made })).status).toBe(422)
    expect((await named.ask(account.passkeys, {})).body).toEqual([])
    expect((await new Browser().ask(account.newPasskey, {})).status).toBe(401)
  })
})

describe('whoever runs the machine', () => {
  const CLI = fileURLToPath(new URL('../../dist/package.js', import.meta.url))
  const run = (...args: string[]) => {
    const { status, stdout, stderr } = spawnSync(process.execPath, [CLI, ...args], {
      env: { ...process.env, BOCADO_DATABASE_URL: app.databaseUrl },
      encoding: 'utf8',
    })
    return { status, said: (stdout + stderr).trim() }
  }

  test('makes somebody an owner of a site that nobody here can open, and gives a link to who forgot', async () => {
    const restored = await startSite(app, 'Restored bench')
    const marit = new Browser()
    await marit.ask(account.signIn, { signInName: 'marit@hollin.example', password: PASSWORD })
    const mine = async () => (await marit.ask(sites.list, {})).body.map(({ name }) => name)
    expect(await mine()).not.toContain('Restored bench')
    expect(run('owner', 'Restored bench', 'nobody-at-all')).toEqual({ status: 1, said: 'nobody signs in with the name nobody-at-all' })
    expect(run('owner', 'No such bench', 'marit@hollin.example').said).toBe('there is no site No such bench')
    expect(run('owner', restored.site.id, 'Marit@Hollin.example').status).toBe(0)
    expect(await mine()).toContain('Restored bench')
    const { said } = run('new-password', 'marit@hollin.example')
    const token = said.slice(said.indexOf('#') + 1)
    const { status } = await new Browser().ask(account.useLink, { token, password: 'nine red foxes sleep' })
    expect(status).toBe(200)
    expect((await marit.ask(sites.list, {})).status).toBe(401)
  })
})

describe('a demonstration', () => {
  test('signs its people in by one press', async () => {
    const demo = await startApplication({ demo: true, worker: false })
    const { person } = await startSite(demo)
    const browser = new Browser(demo.address)
    const { body } = await browser.ask(account.session, {})
    expect((body as Session).demo?.map(({ name, role }) => `${name}, ${role}`)).toEqual([
      'Marit Solheim, owner',
      'Packing-house buyer, viewer',
    ])
    expect((await browser.ask(account.demoSignIn, { personId: crypto.randomUUID() })).status).toBe(422)
    expect((await browser.ask(account.demoSignIn, { personId: person })).body.person?.name).toBe('Marit Solheim')
    expect((await browser.ask(sites.list, {})).body).toHaveLength(1)
    await demo.stop()
  })
})
