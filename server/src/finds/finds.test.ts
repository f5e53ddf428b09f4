import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { endpoints, type FindLink, type InputOf } from '@bocado/contract'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { besideIt, servingOver, startApplication, type Application } from '../testing/application.js'
import type { Row } from '../database/index.js'
import { done, startSite, type TestSite } from '../testing/farm.js'
import { sweep } from '../worker/retention.js'
import { sendFind } from './service.js'

const { finds, flags } = endpoints

let app: Application
let place: TestSite
let at: { siteId: string }
let as: { person: string }
let link: FindLink
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  at = { siteId: place.site.id }
  as = { person: place.person }
  link = done(await app.call(finds.addLink, at, { name: 'Board at the bridge', placeId: place.blockId }, as))
})
afterAll(() => app.stop())

const NOBODY = { person: '' }
const jpeg = readFileSync(new URL('../testing/point.jpg', import.meta.url)).toString('base64')
const found = (change: Partial<InputOf<typeof finds.send>> = {}): InputOf<typeof finds.send> => ({
  code: link.code,
  id: randomUUID(),
  said: 'a tall pink one',
  note: 'by the water',
  seenOn: '2026-06-11',
  ...change,
})
const send = (change: Partial<InputOf<typeof finds.send>> = {}) => app.call(finds.send, {}, found(change), NOBODY)
const inbox = async () => done(await app.call(finds.inbox, at, {}, as))

test('whoever follows the link is told the site and the board, and nothing else', async () => {
  expect(link.code).toMatch(/^[2-9a-z]{12}$/)
  expect(done(await app.call(finds.look, {}, { code: link.code }, NOBODY))).toEqual({
    site: place.site.name,
    name: 'Board at the bridge',
    today: '2026-06-12',
  })
  expect((await app.call(finds.look, {}, { code: '222222222222' }, NOBODY)).status).toBe(404)
  expect((await app.call(finds.inbox, at, {}, NOBODY)).status).toBe(401)
  expect((await app.call(finds.links, at, {}, NOBODY)).status).toBe(401)
})

test('a find waits in the inbox, counts for nothing, and sent twice is there once', async () => {
  const input = found({ photo: { jpeg, takenOn: '2026-06-11' }, position: { latitude: 44.9, longitude: -121.1, accuracyM: 12 } })
  for (let i = 0; i < 2; i++) expect(done(await app.call(finds.send, {}, input, NOBODY))).toEqual({ id: input.id })
  const [waits, ...others] = await inbox()
  expect(others).toEqual([])
  expect(waits).toMatchObject({ state: 'waits', said: 'a tall pink one', hasPhoto: true, placeId: place.blockId, linkName: link.name })
  expect(done(await app.call(flags.list, at, {}, as)).flags).toEqual([])
  const photo = await app.get(`sites/${place.site.id}/finds/${input.id}/jpeg`)
  expect([photo.status, photo.headers.get('content-type')]).toEqual([200, 'image/jpeg'])
  expect((await fetch(`${app.address}/api/v1/sites/${place.site.id}/finds/${input.id}/jpeg`)).status).toBe(401)
  expect(done(await app.call(finds.links, at, {}, as))[0]!.sent).toBe(1)
})

test('no forecast is made anew for what nobody has looked at, and one that many phones send at once is there once', async () => {
  await app.settled()
  const versions = async () => {
    const [rows] = await app.database.query<Row[]>('SELECT aspect, version FROM site_version WHERE site_id = ? ORDER BY aspect', [
      place.site.id,
    ])
    return Object.fromEntries(rows.map(({ aspect, version }) => [aspect as string, Number(version)]))
  }
  const { words = 0, ...others } = await versions()
  const second = await besideIt(app)
  const input = found({ note: 'sent by a shaky line' })
  const sent = await Promise.all(Array.from({ length: 8 }, (_, i) => (i === 0 ? app : second).call(finds.send, {}, input, NOBODY)))
  expect(sent.map(({ status, body }) => [status, body.id])).toEqual(Array.from({ length: 8 }, () => [200, input.id]))
  await second.stop()
  expect((await inbox()).filter(({ note }) => note === input.note)).toHaveLength(1)
  const after = await versions()
  expect(after).toEqual({ ...others, words: after['words'] })
  expect(after['words']).toBeGreaterThan(words)
})

test('what nobody can look at is refused, with its field, and nothing is kept', async () => {
  const fields = async (change: Partial<InputOf<typeof finds.send>>) => (await send(change)).problem.fields?.map(({ path }) => path)
  const before = (await inbox()).length
  expect(await fields({ said: '', note: ' ' })).toEqual(['said'])
  expect(await fields({ seenOn: '2026-06-13' })).toEqual(['seenOn'])
  expect(await fields({ photo: { jpeg: '/9j/AAAA', takenOn: '2026-06-11' } })).toEqual(['photo.jpeg'])
  expect(await fields({ code: 'HELLO' })).toEqual(['code'])
  expect(await inbox()).toHaveLength(before)
})

test('let in it is a flag with its photo and its words; once only', async () => {
  const [waits] = await inbox()
  const letIn = (rowVersion: number, withPosition = false) =>
    app.call(
      finds.flag,
      { ...at, findId: waits!.id },
      { organismId: 'himalayan-balsam', placeId: place.blockId, plants: 4, withPosition, rowVersion },
      as,
    )
  // What a phone sent from far off cannot be where it stands.
  expect((await letIn(waits!.rowVersion, true)).problem.fields?.map(({ path }) => path)).toEqual(['position'])
  const stale = await letIn(waits!.rowVersion + 3)
  expect(stale.status).toBe(409)
  expect(done(await app.call(flags.list, at, {}, as)).flags).toEqual([])
  const answers = await Promise.all([letIn(waits!.rowVersion), letIn(waits!.rowVersion)])
  expect(answers.map(({ status }) => status).sort()).toEqual([200, 409])
  const [flag, ...others] = done(await app.call(flags.list, at, {}, as)).flags
  expect(others).toEqual([])
  expect(flag).toMatchObject({ organismId: 'himalayan-balsam', placeId: place.blockId, last: { plants: 4, seenOn: '2026-06-11' } })
  expect(flag!.last.note).toBe('Board at the bridge: a tall pink one: by the water')
  expect(flag!.last.photoId).not.toBeNull()
  expect(answers.find(({ status }) => status === 200)!.body).toMatchObject({ state: 'flagged', flagId: flag!.id })
  // The inbox is done with it.
  expect((await inbox()).map(({ id }) => id)).not.toContain(waits!.id)
})

test('put away it is out of the inbox, and can be taken back; its photo goes after a month', async () => {
  const { id } = done(await send({ photo: { jpeg, takenOn: '2026-06-11' } }))
  const move = async (refused: boolean) => {
    const { rowVersion } = (await inbox()).find((one) => one.id === id)!
    return done(await app.call(finds.refuse, { ...at, findId: id }, { refused, rowVersion }, as))
  }
  expect(await move(true)).toMatchObject({ state: 'refused', hasPhoto: true })
  expect(await move(false)).toMatchObject({ state: 'waits' })
  await move(true)
  await app.database.query('UPDATE public_find SET changed_at = UTC_TIMESTAMP() - INTERVAL 31 DAY WHERE id = ?', [id])
  const serving = servingOver(app)
  await sweep(serving)
  await serving.end()
  expect((await inbox()).find((one) => one.id === id)).toMatchObject({ state: 'refused', hasPhoto: false })
})

test('a board takes so many a day, however many send at once; an ended one takes none', async () => {
  const busy = done(await app.call(finds.addLink, at, { name: 'Busy gate' }, as))
  const serving = servingOver(app)
  const sent = await Promise.allSettled(
    Array.from({ length: 60 }, () =>
      serving.database.write((tx) => sendFind({ ...serving, db: tx, version: 0 } as never, found({ code: busy.code }) as never)),
    ),
  )
  expect(sent.filter(({ status }) => status === 'fulfilled')).toHaveLength(40)
  expect(sent.find((one) => one.status === 'rejected')).toMatchObject({ reason: { status: 429 } })
  await serving.end()
  const gone = done(await app.call(finds.removeLink, { ...at, findLinkId: busy.id }, { rowVersion: busy.rowVersion }, as))
  expect((await app.call(finds.look, {}, { code: busy.code }, NOBODY)).status).toBe(404)
  done(await app.call(finds.restoreLink, { ...at, findLinkId: busy.id }, { rowVersion: gone.rowVersion }, as))
  await app.database.query("UPDATE find_link SET ends_on = '2026-06-11' WHERE id = ?", [busy.id])
  expect((await app.call(finds.look, {}, { code: busy.code }, NOBODY)).status).toBe(410)
})

test('one address is held back before it can guess codes or fill an inbox', async () => {
  const answers = await Promise.all(Array.from({ length: 30 }, () => send({ code: '333333333333' })))
  expect(answers.some(({ status }) => status === 429)).toBe(true)
})
