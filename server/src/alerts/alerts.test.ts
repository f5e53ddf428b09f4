import { endpoints, type AlertSettings, type InputOf } from '@bocado/contract'
import ICAL from 'ical.js'
import { createECDH, randomBytes } from 'node:crypto'
import { createServer as createHttpServer, type Server as HttpServer } from 'node:http'
import { createServer, type Server, type Socket } from 'node:net'
import { pino } from 'pino'
import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest'
import { servingOver, startApplication, type Application } from '../testing/application.js'
import { done, GRANULE, startSite, type TestSite } from '../testing/farm.js'
import { mailLink } from '../accounts/linkMail.js'
import { longestRun } from './facts.js'
import { addDevice } from './push.js'
import { sendDue } from '../worker/sendMail.js'
import type { Row } from '../database/index.js'
import { Worker } from '../worker/worker.js'
import { tellSite } from '../worker/tellSite.js'

const { alerts, schedule, sites, treatments, watches } = endpoints
const SEASON = '2026-01-01'

let app: Application
let place: TestSite
let at: { siteId: string }
let as: { person: string }
let serving: ReturnType<typeof servingOver>
let smtp: Server
/** What a server of mail was given. */
let letters: string[] = []
/** It answers like one that is overloaded, or not at all to the next who comes. */
let refuses = false
let hangs = false
let hanging: Socket | undefined

beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z', worker: false })
  place = await startSite(app)
  at = { siteId: place.site.id }
  as = { person: place.person }
  serving = servingOver(app)
  smtp = createServer((socket) => {
    let letter: string[] | null = null
    socket.on('error', () => undefined)
    if (hangs) {
      hangs = false
      hanging = socket
      return
    }
    socket.write('220 mail.example\r\n')
    socket.on('data', (data) => {
      for (const line of data.toString().split('\r\n').slice(0, -1)) {
        if (letter) {
          if (line === '.') {
            letters.push(letter.join('\n'))
            letter = null
            socket.write('250 kept\r\n')
          } else letter.push(line)
        } else if (/^DATA/i.test(line)) {
          letter = []
          socket.write('354 go on\r\n')
        } else if (/^QUIT/i.test(line)) socket.end('221 bye\r\n')
        else socket.write(refuses && /^MAIL/i.test(line) ? '451 later\r\n' : '250 ok\r\n')
      }
    })
  })
  await new Promise<void>((resolve) => smtp.listen(0, '127.0.0.1', resolve))
  process.env['BOCADO_SMTP_URL'] = `smtp://127.0.0.1:${(smtp.address() as { port: number }).port}?ignoreTLS=true`
})
afterAll(async () => {
  delete process.env['BOCADO_SMTP_URL']
  smtp.close()
  await serving.end()
  await app.stop()
})

const PLAIN: InputOf<typeof alerts.set> = {
  mail: 'at-once',
  address: 'marit@hollin.example',
  quietFrom: null,
  quietUntil: null,
  urgentAnyway: false,
  digestHour: 6,
  muted: [],
}
const set = async (change: Partial<InputOf<typeof alerts.set>>): Promise<AlertSettings> =>
  done(await app.call(alerts.set, at, { ...PLAIN, ...change }, as))
const told = async () => done(await app.call(alerts.list, at, {}, as))
const waiting = async () => {
  const [rows] = (await app.database.query(
    'SELECT not_before, digest, JSON_LENGTH(alerts) AS n FROM outbox WHERE sent_at IS NULL ORDER BY not_before',
  )) as unknown as [{ not_before: string; digest: number; n: number }[]]
  return rows.map(({ not_before: on, digest, n }) => `${on}${digest ? ' digest' : ''}: ${n}`)
}
/** What was done against a watch had a label of four hours, which are over. */
async function openAgain(watchId: string, name: string): Promise<void> {
  await app.database.query(
    "UPDATE deed SET product_then = JSON_OBJECT('name', ?, 'reEntryHours', 4, 'methods', JSON_ARRAY(), 'stages', JSON_ARRAY(), 'effect', 0.5, 'residualDays', 0, 'assumed', JSON_ARRAY()) WHERE watch_id = ?",
    [name, watchId],
  )
}
const MORE = ['plum-curculio', 'san-jose-scale', 'woolly-apple-aphid', 'two-spotted-mite', 'apple-maggot', 'spongy-moth']
/** Something new each time: a treatment of which the block is open again. */
let deeds = 0
async function newsOf(): Promise<void> {
  const organismId = ['codling-moth', 'oriental-fruit-moth', 'european-red-mite', 'pear-psylla', 'apple-scab', ...MORE][deeds++] as string
  const watch = done(await app.call(watches.create, at, { organismId, blockId: place.blockId, season: SEASON, biofix: null }, as))
  const input = {
    watchId: watch.id,
    methodId: 'fallen-fruit',
    startedAt: '2026-06-12T06:00:00Z',
    weather: {},
    note: '',
    deviationReason: 'by hand',
  }
  done(await app.call(treatments.recordUnplanned, at, input as never, as))
  await openAgain(watch.id, `Granule ${deeds}`)
}

test('news is told once, however often it is worked out and by however many; who has seen it is told it no more', async () => {
  await newsOf()
  const counts = await Promise.all(Array.from({ length: 6 }, () => tellSite(serving, at.siteId)))
  expect(counts.reduce((sum, n) => sum + n, 0)).toBe(1)
  expect(await told()).toMatchObject([
    { kind: 'entry', about: '2026-06-12', says: { name: 'Granule 1', place: 'Old Apples' }, seen: false },
  ])
  expect((await app.call(alerts.see, at, {}, as)).body).toMatchObject([{ seen: true }])
  // Somebody else has not seen it by that.
  expect(done(await app.call(alerts.list, at, {}, { person: place.viewer }))).toMatchObject([{ seen: false }])
  expect(await waiting()).toEqual([])
})

test('how one is told is one’s own; half of it is refused by its field', async () => {
  const faults = async (change: object) =>
    (await app.call(alerts.set, at, { ...PLAIN, ...change } as never, as)).problem.fields?.map(({ path, message }) => `${path}: ${message}`)
  expect(await faults({ address: '' })).toEqual(['address: enter a mail address'])
  expect(await faults({ address: 'marit' })).toEqual(['address: enter a mail address'])
  expect(await faults({ quietFrom: 21 })).toEqual(['quietUntil: say both hours, or neither'])
  expect(await set({ quietFrom: 21, quietUntil: 6 })).toMatchObject({ mail: 'at-once', quietFrom: 21, canMail: false })
  expect(done(await app.call(alerts.settings, at, {}, { person: place.viewer }))).toMatchObject({ mail: 'none', address: '' })
})

test('mail goes at once, after quiet hours, or with the digest: one letter for all that waits', async () => {
  // 07:30 by the clock of the site.
  await set({ quietFrom: 7, quietUntil: 9 })
  await newsOf()
  await tellSite(serving, at.siteId)
  expect(await waiting()).toEqual(['2026-06-12 16:00:00: 1'])
  await newsOf()
  await tellSite(serving, at.siteId)
  expect(await waiting()).toEqual(['2026-06-12 16:00:00: 2'])
  expect(await sendDue(serving)).toBe(0)
  await set({ mail: 'none' })
  expect(await waiting()).toEqual([])
  await set({ mail: 'digest', digestHour: 8 })
  await newsOf()
  await tellSite(serving, at.siteId)
  expect(await waiting()).toEqual(['2026-06-12 15:00:00 digest: 1'])
  await set({ mail: 'none' })
  await set({ muted: ['entry'] })
  await newsOf()
  await tellSite(serving, at.siteId)
  expect(await waiting()).toEqual([])
})

test('a letter goes through the server of mail once, whoever sends; one that is not taken is tried again', async () => {
  await set({})
  await app.database.query('DELETE FROM alert WHERE kind = ?', ['entry'])
  refuses = true
  await tellSite(serving, at.siteId)
  expect(await sendDue(serving)).toBe(0)
  const [[failed]] = (await app.database.query('SELECT attempts, failure, sent_at FROM outbox WHERE sent_at IS NULL')) as unknown as [
    [{ attempts: number; failure: string; sent_at: null }],
  ]
  expect(failed).toMatchObject({ attempts: 1, sent_at: null })
  expect(failed.failure).toContain('451')
  refuses = false
  await app.database.query('UPDATE outbox SET not_before = ?', ['2026-06-12 14:00:00'])
  letters = []
  await Promise.all([sendDue(serving), sendDue(serving), sendDue(serving)])
  expect(letters).toHaveLength(1)
  expect(letters[0]).toContain('To: marit@hollin.example')
  expect(letters[0]?.replaceAll('=\n', '')).toMatch(/- Old Apples: open again after Granule 1\.\n/)
  expect(await waiting()).toEqual([])
})

test('a server of mail that does not answer holds up neither other letters nor forecasts, and no letter goes twice', async () => {
  const [[alert]] = (await app.database.query('SELECT id FROM alert LIMIT 1')) as unknown as [[{ id: string }]]
  const put = (n: number) =>
    app.database.query(
      'INSERT INTO outbox (id, site_id, person_id, digest, alerts, not_before) VALUES (UUID(), ?, ?, FALSE, JSON_ARRAY(?), ?)',
      [at.siteId, place.person, alert.id, `2026-06-12 13:0${n}:00`],
    )
  await put(1)
  await put(2)
  letters = []
  hangs = true
  const told: string[] = []
  const worker = new Worker(serving, pino({ level: 'silent' }), (siteId) => told.push(siteId))
  worker.start()
  await vi.waitFor(() => expect(hanging).toBeDefined(), 20_000)
  expect(await sendDue(serving)).toBe(1)
  expect(letters).toHaveLength(1)
  told.length = 0
  await app.database.query(
    "INSERT INTO work (kind, subject, not_before) VALUES ('derive', ?, NOW(3)) ON DUPLICATE KEY UPDATE not_before = NOW(3)",
    [at.siteId],
  )
  worker.look()
  await vi.waitFor(() => expect(told).toContain(at.siteId), 20_000)
  hanging?.destroy()
  await worker.end()
  expect(await waiting()).toHaveLength(1)
  expect(letters).toHaveLength(1)
}, 60_000)

test('a link goes by mail, once; only who made it sends it, and nothing of it is left behind', async () => {
  const { crew } = endpoints
  const { token } = done(await app.call(crew.invite, at, { name: 'Dario Quince', role: 'scout' }, as))
  const ask = (to: string, who = as) => app.call(crew.mailLink, at, { token, to }, who)
  expect((await ask('dario')).problem.fields?.[0]?.path).toBe('to')
  expect((await ask('dario@hollin.example', { person: place.viewer })).status).toBe(403)
  // The server of this test was started without a server of mail; what sends here has one.
  expect((await ask('dario@hollin.example')).status).toBe(409)
  const mail = (personId: string, which = token) =>
    serving.database.write((tx) =>
      mailLink(
        { tx, siteId: at.siteId, personId, now: new Date('2026-06-12T14:30:00Z') },
        { token: which, to: 'dario@hollin.example' },
        'http://farm.example',
      ),
    )
  await expect(mail(place.person, 'nothing')).rejects.toThrow('gives nothing')
  await expect(mail(place.viewer)).rejects.toThrow('no such link of yours')
  await sendDue(serving)
  letters = []
  expect(await mail(place.person)).toEqual({ to: 'dario@hollin.example' })
  expect(await sendDue(serving)).toBe(1)
  expect(letters[0]).toContain('To: dario@hollin.example')
  expect(letters[0]?.replaceAll('=\n', '').replaceAll('=3D', '=')).toContain(`http://farm.example/come-in#${token}`)
  const [[kept]] = await app.database.query<Row[]>('SELECT recipient, body FROM outbox WHERE recipient IS NOT NULL')
  expect(kept).toMatchObject({ recipient: '', body: null })
})

test('of an archived site nothing is told', async () => {
  const other = await startSite(app, 'Terrace')
  const there = { siteId: other.site.id }
  const watch = done(
    await app.call(
      watches.create,
      there,
      { organismId: 'codling-moth', blockId: other.blockId, season: SEASON, biofix: null },
      { person: other.person },
    ),
  )
  const did = {
    watchId: watch.id,
    methodId: 'fallen-fruit',
    startedAt: '2026-06-12T06:00:00Z',
    weather: {},
    note: '',
    deviationReason: 'by hand',
  }
  done(await app.call(treatments.recordUnplanned, there, did as never, { person: other.person }))
  await openAgain(watch.id, 'Granule T')
  const { rowVersion } = done(await app.call(sites.list, {}, {}, { person: other.person })).find(({ id }) => id === there.siteId)!
  const archived = done(await app.call(sites.archive, there, { archived: true, rowVersion }, { person: other.person }))
  expect(await tellSite(serving, there.siteId)).toBe(0)
  done(await app.call(sites.archive, there, { archived: false, rowVersion: archived.rowVersion }, { person: other.person }))
  expect(await tellSite(serving, there.siteId)).toBe(1)
})

test('a calendar reads what lies two days ahead or more, on days of the site, until its link is ended', async () => {
  const product = done(await app.call(treatments.addProduct, at, { ...GRANULE, ways: ['spray'] }, as))
  const watchId = done(await app.call(watches.list, at, { season: SEASON }, as)).find(({ organismId }) => organismId === 'codling-moth')!.id
  for (const plannedOn of ['2026-06-13', '2026-06-20'])
    done(await app.call(treatments.plan, at, { watchId, productId: product.id, plannedOn, note: 'evening; "gate" side, café' }, as))
  // The clocks are put back in the night to the first of November.
  for (const plannedOn of ['2026-06-13', '2026-06-14', '2026-10-09'])
    done(await app.call(schedule.addJob, at, { placeId: place.blockId, name: `Work of ${plannedOn}`, kind: 'crop-work', plannedOn }, as))
  const made = done(await app.call(alerts.makeCalendar, at, {}, as))
  const read = (token: string) => fetch(`${app.address}/api/v1/calendar/${token}.ics`)
  const answer = await read(made.token)
  expect(answer.headers.get('content-type')).toContain('text/calendar')
  const events = new ICAL.Component(ICAL.parse(await answer.text()) as never)
    .getAllSubcomponents('vevent')
    .map((one) => new ICAL.Event(one))
  const days = events.map(({ summary, startDate }) => `${startDate.toString()} ${summary}`)
  expect(days).toContain('2026-06-14 Work of 2026-06-14')
  expect(days).toContain('2026-10-09 Work of 2026-10-09')
  expect(days.find((day) => day.startsWith('2026-06-20'))).toContain(', Old Apples')
  expect(events.find(({ startDate }) => startDate.toString() === '2026-06-20')?.description).toContain('evening; "gate" side, café')
  expect(days.some((day) => day.startsWith('2026-06-13'))).toBe(false)
  expect(events.every(({ startDate }) => startDate.isDate)).toBe(true)
  expect(new Set(events.map(({ uid }) => uid)).size).toBe(events.length)
  const again = done(await app.call(alerts.makeCalendar, at, {}, as))
  expect((await read(made.token)).status).toBe(404)
  expect((await read(again.token)).status).toBe(200)
  expect(done(await app.call(alerts.endCalendar, at, {}, as)).calendarSince).toBeNull()
  expect((await read(again.token)).status).toBe(404)
  expect((await read('nothing')).status).toBe(404)
})

test('the longest run of hours is found, and none where there is none', () => {
  const hours = (text: string) => [...text].map((one) => one === 'x')
  expect(longestRun(hours('..xx.xxx'))).toEqual({ from: 5, until: 8 })
  expect(longestRun(hours('....'))).toBeNull()
  expect(longestRun(hours('xx.xx'))).toEqual({ from: 0, until: 2 })
})

describe('to devices', () => {
  let pushes: { path: string; encoding: string | undefined; from: string | undefined; bytes: number }[] = []
  let answer = 201
  let service: HttpServer
  let endpoint: string
  beforeAll(async () => {
    service = createHttpServer((req, res) => {
      const parts: Buffer[] = []
      req.on('data', (part: Buffer) => parts.push(part))
      req.on('end', () => {
        const { 'content-encoding': encoding, authorization: from } = req.headers
        pushes.push({ path: req.url ?? '', encoding, from, bytes: Buffer.concat(parts).length })
        res.writeHead(answer).end()
      })
    })
    await new Promise<void>((resolve) => service.listen(0, '127.0.0.1', resolve))
    process.env['BOCADO_PUSH_HOSTS'] = '127.0.0.1'
    endpoint = `http://127.0.0.1:${(service.address() as { port: number }).port}`
  })
  afterAll(() => {
    delete process.env['BOCADO_PUSH_HOSTS']
    service.close()
  })
  /** The keys of a browser, as it gives them. */
  function browserKeys() {
    const pair = createECDH('prime256v1')
    pair.generateKeys()
    return { p256dh: pair.getPublicKey('base64url'), auth: randomBytes(16).toString('base64url') }
  }
  const add = (at_: string, person = as) => app.call(alerts.addDevice, {}, { endpoint: at_, ...browserKeys() }, person)
  const due = () => app.database.query("UPDATE outbox SET not_before = '2026-06-12 10:00:00' WHERE sent_at IS NULL")

  test('only addresses of makers of browsers are called', async () => {
    const refused = async (at_: string) => (await add(at_)).problem.fields?.map(({ path }) => path)
    // The server itself knows none but the public ones.
    expect(await refused(`${endpoint}/one`)).toEqual(['endpoint'])
    expect(await refused('https://hollin.example/push')).toEqual(['endpoint'])
    expect(await refused('http://fcm.googleapis.com/x')).toEqual(['endpoint'])
    expect((await add('https://fcm.googleapis.com/fcm/send/abc')).status).toBe(200)
    const gone = { endpoint: 'https://fcm.googleapis.com/fcm/send/abc' }
    expect(done(await app.call(alerts.removeDevice, {}, gone, as))).toEqual({ devices: 0 })
  })

  test('the key of the server is made once', async () => {
    const keys = await Promise.all(Array.from({ length: 4 }, () => app.call(alerts.pushKey, {}, {}, as)))
    expect(new Set(keys.map((one) => done(one).key)).size).toBe(1)
  })

  test('what cannot wait goes to each device, encrypted and signed; one that is gone is told no more', async () => {
    const here = [`${endpoint}/one`, `${endpoint}/two`]
    await serving.database.write(async (tx) => {
      for (const one of here) await addDevice(tx, place.person, { endpoint: one, ...browserKeys() })
    })
    expect((await set({ mail: 'none', address: '', push: 'all' })).devices).toBe(2)
    await newsOf()
    await tellSite(serving, at.siteId)
    await due()
    pushes = []
    expect(await sendDue(serving)).toBe(1)
    expect(pushes.map(({ path, encoding }) => [path, encoding]).sort()).toEqual([
      ['/one', 'aes128gcm'],
      ['/two', 'aes128gcm'],
    ])
    expect(pushes.every(({ from, bytes }) => from?.startsWith('vapid ') && bytes > 60)).toBe(true)
    answer = 410
    await newsOf()
    await tellSite(serving, at.siteId)
    await due()
    await sendDue(serving)
    expect((await set({ mail: 'none', address: '', push: 'all' })).devices).toBe(0)
  })

  test('a service that fails is tried again, and who wants none gets none', async () => {
    answer = 500
    await serving.database.write((tx) => addDevice(tx, place.person, { endpoint: `${endpoint}/three`, ...browserKeys() }))
    await newsOf()
    await tellSite(serving, at.siteId)
    await due()
    pushes = []
    expect(await sendDue(serving)).toBe(0)
    expect(pushes).toHaveLength(1)
    answer = 201
    await due()
    expect(await sendDue(serving)).toBe(1)
    await set({ mail: 'none', address: '', push: 'none' })
    await newsOf()
    await tellSite(serving, at.siteId)
    expect(await waiting()).toEqual([])
  })
})
