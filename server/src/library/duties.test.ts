import { endpoints } from '@bocado/contract'
import { organisms } from '@bocado/library'
import { protectedOf } from '@bocado/core'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, GRANULE, startSite, type TestSite } from '../testing/farm.js'

const { blocks, library, treatments, watches } = endpoints
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

describe('what has a look-alike that is to be protected', () => {
  let watchId: string
  let productId: string
  const meadow = async (name: string): Promise<string> =>
    done(await app.call(blocks.create, at, { name, kind: 'natural-area', grows: 'hay, wild flowers' }, as)).id
  const thistle = async (blockId: string): Promise<string> =>
    done(await app.call(watches.create, at, { organismId: 'creeping-thistle', blockId, season: SEASON }, as)).id
  beforeAll(async () => {
    watchId = await thistle(await meadow('Lower Meadow'))
    const label = { ...GRANULE, name: 'Meadow systemic', methods: ['foliar-systemic'], strain: 'broad-leaved', stages: ['bolt'] }
    productId = done(await app.call(treatments.addProduct, at, label, as)).id
  })
  const plan = (of = watchId) => app.call(treatments.plan, at, { watchId: of, productId, plannedOn: '2026-06-20' }, as)
  const told = async (of = watchId) => done(await app.call(library.toldApart, { ...at, watchId: of }, {}))
  const say = async (characterId: string, answer: 'here' | 'others' | 'unsure', of = watchId) =>
    done(await app.call(library.tellApart, { ...at, watchId: of }, { characterId, answer }, as))

  test('is asked by its one deciding character before anything is planned, and refused until then', async () => {
    expect(await told()).toMatchObject({ state: 'ask', open: ['native thistles'], character: { id: 'stem' }, checkedOn: null })
    const { status, problem } = await plan()
    expect([status, problem.fields?.[0]?.path]).toEqual([422, 'identity'])
    expect(problem.fields?.[0]?.message).toContain('native thistles')
  })

  test('is not planned against where what was seen speaks for the other, or nobody can tell', async () => {
    expect(await say('stem', 'others')).toMatchObject({ state: 'other', character: { id: 'stem' } })
    expect((await plan()).problem.fields?.[0]?.message).toContain('leave it')
    await say('stem', 'unsure')
    expect(await say('root', 'unsure')).toMatchObject({ state: 'unsure' })
    expect((await plan()).problem.fields?.[0]?.message).toContain('ask somebody who knows')
  })

  test('is planned against once it has been told apart, in that place and no other, and the check is kept as evidence', async () => {
    expect(await say('stem', 'here')).toMatchObject({ state: 'clear', checkedOn: '2026-06-12' })
    done(await plan())
    const elsewhere = await thistle(await meadow('Upper Meadow'))
    expect((await told(elsewhere)).state).toBe('ask')
    const checks = done(await app.call(library.checks, at, { organismId: 'creeping-thistle' }))
    expect(checks.length).toBe(4)
  })

  test('can be recorded as done whatever was told: a record accepts it', async () => {
    const elsewhere = await thistle(await meadow('Far Meadow'))
    const deed = { watchId: elsewhere, productId, startedAt: '2026-06-11T14:00:00Z', rate: 0.1, areaHa: 1, weather: {}, note: '' }
    expect((await app.call(treatments.recordUnplanned, at, deed, as)).status).toBe(200)
  })

  test('is asked nothing where no look-alike is to be protected, and is refused a character that it does not have', async () => {
    const moth = done(await app.call(watches.create, at, { organismId: 'codling-moth', blockId: place.blockId, season: SEASON }, as))
    expect(await told(moth.id)).toMatchObject({ state: 'clear', character: null })
    const wrong = await app.call(library.tellApart, { ...at, watchId }, { characterId: 'wings', answer: 'here' }, as)
    expect(wrong.problem.fields?.[0]).toMatchObject({ path: 'characterId' })
  })

  test.each(organisms.map((o) => [o.id, o] as const))(
    '%s: each protected look-alike is told by a character that decides',
    (_, { about }) => {
      const { lookAlikes, characters } = about.identity
      for (const id of protectedOf(lookAlikes))
        expect(
          characters.some(({ others, decisive }) => decisive && others.of.includes(id)),
          id,
        ).toBe(true)
    },
  )
})

describe('what must be reported', () => {
  const duties = async () => done(await app.call(library.reportDuties, at, {}))
  const put = (organismId: string, input: object) =>
    app.call(library.setReportable, { ...at, organismId }, { whom: 'the plant-protection office', rowVersion: null, ...input }, as)

  test('is the list of the site; what the library knows of is to be checked', async () => {
    const before = await duties()
    expect(before.listed).toEqual([])
    expect(before.toCheck.map(({ organismId }) => organismId)).toContain('giant-hogweed')
    const listed = done(await put('giant-hogweed', { note: 'by photo' }))
    const after = await duties()
    expect(after.listed).toEqual([listed])
    expect(after.toCheck.map(({ organismId }) => organismId)).not.toContain('giant-hogweed')
  })

  test('is changed, refused without whom to tell, put on once, taken off and brought back', async () => {
    expect((await put('giant-hogweed', {})).status).toBe(409)
    expect((await put('apple-scab', { whom: ' ' })).problem.fields?.[0]?.path).toBe('whom')
    expect((await put('no-such-thing', {})).status).toBe(404)
    const [one] = (await duties()).listed
    const changed = done(await put('giant-hogweed', { whom: 'the county office', rowVersion: one!.rowVersion }))
    expect(changed).toMatchObject({ whom: 'the county office', rowVersion: 2 })
    const params = { ...at, reportableId: one!.id }
    const removed = done(await app.call(library.removeReportable, params, { rowVersion: 2 }, as))
    expect((await duties()).listed).toEqual([])
    done(await app.call(library.restoreReportable, params, { rowVersion: removed.rowVersion }, as))
    expect((await duties()).listed).toMatchObject([{ whom: 'the county office' }])
  })
})
