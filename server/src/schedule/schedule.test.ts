import { endpoints } from '@bocado/contract'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'

const { schedule, sites } = endpoints
const SEASON = '2026-01-01'

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

const faults = (answer: { problem: { fields?: readonly { path: string; message: string }[] | undefined } }) =>
  answer.problem.fields?.map(({ path, message }) => `${path}: ${message}`)
const read = async () => done(await app.call(schedule.read, at, { season: SEASON }, as))

test('work is kept, moved, done, removed and brought back; what cannot be is refused by its field', async () => {
  const work = { placeId: place.blockId, name: 'Mow the alleys', kind: 'crop-work', plannedOn: '2026-06-14' } as const
  const nowhere = await app.call(schedule.addJob, at, { ...work, placeId: place.person }, as)
  expect(faults(nowhere)).toEqual(['placeId: choose a place of this site'])
  expect(faults(await app.call(schedule.addJob, at, { ...work, name: ' ' }, as))?.[0]).toMatch(/^name: /)
  const job = done(await app.call(schedule.addJob, at, work, as))
  const params = { ...at, jobId: job.id }
  const moved = done(await app.call(schedule.updateJob, params, { ...work, plannedOn: '2026-06-16', rowVersion: 1 }, as))
  expect((await app.call(schedule.updateJob, params, { ...work, rowVersion: 1 }, as)).status).toBe(409)
  const early = await app.call(schedule.updateJob, params, { ...work, doneOn: '2026-06-13', rowVersion: 2 }, as)
  expect(faults(early)?.[0]).toMatch(/^doneOn: lies in the future/)
  expect((await read()).jobs).toEqual([moved])
  const gone = done(await app.call(schedule.removeJob, params, { rowVersion: 2 }, as))
  expect((await read()).jobs).toEqual([])
  done(await app.call(schedule.restoreJob, params, { rowVersion: gone.rowVersion }, as))
  expect((await read()).jobs).toMatchObject([{ name: 'Mow the alleys', plannedOn: '2026-06-16' }])
  expect((await app.call(schedule.addJob, at, work, { person: place.viewer })).status).toBe(403)
})

test('of a task one thing is said, whoever says it at the same moment; what another said is not overwritten unseen', async () => {
  const task = `deed ${place.blockId}`
  const say = (change: object) => app.call(schedule.arrange, at, { task, personId: place.person, ...change } as never, as)
  expect(faults(await say({ personId: place.blockId }))).toEqual(['personId: choose somebody of this site'])
  expect(faults(await say({ noticeOn: '2026-06-13' }))?.[0]).toMatch(/^noticeOn: lies in the future/)
  expect((await say({ task: 'moon 1' })).status).toBe(422)
  const answers = await Promise.all(Array.from({ length: 8 }, () => say({ machine: 'mist blower' })))
  expect(answers.filter(({ status }) => status === 200)).toHaveLength(1)
  expect(answers.every(({ status }) => status === 200 || status === 409)).toBe(true)
  const [stored] = (await read()).arrangements
  expect(stored).toMatchObject({ task, personId: place.person, machine: 'mist blower', rowVersion: 1 })
  expect((await say({ minutes: 90 })).status).toBe(409)
  done(await say({ minutes: 90, noticeOn: '2026-06-10', consentOn: '2026-06-11', consentBy: 'packing-house buyer', rowVersion: 1 }))
  expect((await read()).arrangements).toMatchObject([{ minutes: 90, machine: '', noticeOn: '2026-06-10', rowVersion: 2 }])
})

test('what flowers in a block in the weeks ahead is told with its days; nobody sees another site’s', async () => {
  const other = await startSite(app, 'Terrace')
  expect((await app.call(schedule.read, at, { season: SEASON }, { person: other.person })).status).toBe(404)
  const planted = { placeId: place.blockId, crop: 'apple', standsFrom: '1988-04-01' }
  done(await app.call(endpoints.crops.add, at, planted, as))
  const { flowers } = await read()
  expect(flowers.every(({ from, until }) => from <= until && until >= '2026-06-12')).toBe(true)
  expect(done(await app.call(sites.list, {}, {}, as)).length).toBeGreaterThan(0)
})
