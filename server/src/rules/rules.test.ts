import { endpoints, type InputOf } from '@bocado/contract'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, GRANULE, startSite, type TestSite } from '../testing/farm.js'

const { rules, sites, treatments, watches } = endpoints
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
  const input = { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: '2026-05-10' }
  watchId = done(await app.call(watches.create, at, input, as)).id
})
afterAll(() => app.stop())

const CLOSED = { name: 'No spraying at blossom market', kind: 'closed-days', act: 'spraying', whose: 'own' } as const
const shelf = async (change: Partial<InputOf<typeof treatments.addProduct>>) =>
  done(await app.call(treatments.addProduct, at, { ...GRANULE, ...change } as InputOf<typeof treatments.addProduct>, as)).id
const plan = (input: Partial<InputOf<typeof treatments.plan>>) =>
  app.call(treatments.plan, at, { watchId, plannedOn: '2026-06-14', ...input } as InputOf<typeof treatments.plan>, as)
const faults = (answer: { problem: { fields?: readonly { path: string; message: string }[] | undefined } }) =>
  answer.problem.fields?.map(({ path, message }) => `${path}: ${message}`)

test('a rule is kept as it was typed, corrected, removed and brought back; half of one is refused by its field', async () => {
  const refused = async (change: object) => faults(await app.call(rules.add, at, { ...CLOSED, ...change } as InputOf<typeof rules.add>, as))
  expect(await refused({})).toEqual(['fromDay: say from which day of the year until which it holds'])
  expect(await refused({ kind: 'closed-hours' })).toEqual(['fromHour: say from which hour until which it forbids'])
  expect(await refused({ kind: 'wind' })).toEqual(['amount: say how much'])
  expect((await refused({ kind: 'wind', amount: 3, fromDay: '13-40', untilDay: '04-01' }))?.[0]).toMatch(/^fromDay: /)
  expect((await refused({ kind: 'wind', amount: 3, readOn: '2026-06-13' }))?.[0]).toMatch(/^readOn: lies in the future/)
  expect(done(await app.call(rules.list, at, {}, as))).toEqual([])
  const rule = done(await app.call(rules.add, at, { ...CLOSED, fromDay: '12-20', untilDay: '01-05', amount: 7 }, as))
  const consent = { name: 'The buyer owns the ground', kind: 'consent', act: 'chemicals', whose: 'own', amount: 4 } as const
  const asked = done(await app.call(rules.add, at, consent, as))
  expect(asked).toMatchObject({ kind: 'consent', amount: null })
  done(await app.call(rules.remove, { ...at, siteRuleId: asked.id }, { rowVersion: 1 }, as))
  // What belongs to another kind is not kept.
  expect(rule).toMatchObject({ fromDay: '12-20', untilDay: '01-05', amount: null, rowVersion: 1 })
  const params = { ...at, siteRuleId: rule.id }
  const changed = { ...CLOSED, fromDay: '12-24', untilDay: '01-05', rowVersion: 1 }
  expect(done(await app.call(rules.update, params, changed, as)).fromDay).toBe('12-24')
  expect((await app.call(rules.update, params, changed, as)).status).toBe(409)
  const gone = done(await app.call(rules.remove, params, { rowVersion: 2 }, as))
  expect(done(await app.call(rules.list, at, {}, as))).toEqual([])
  done(await app.call(rules.restore, params, { rowVersion: gone.rowVersion }, as))
  done(await app.call(rules.remove, params, { rowVersion: gone.rowVersion + 1 }, as))
  expect((await app.call(rules.add, at, { ...CLOSED, fromDay: '01-01', untilDay: '01-02' }, { person: place.viewer })).status).toBe(403)
})

test('a closed day is refused when something is planned or moved there, by the name of the rule; other work is not bound by it', async () => {
  const productId = await shelf({ name: 'Granule D' })
  const other = done(await plan({ productId, plannedOn: '2026-06-20' }))
  const rule = done(await app.call(rules.add, at, { ...CLOSED, fromDay: '06-13', untilDay: '06-15' }, as))
  const said = 'plannedOn: is closed by a rule of this place, No spraying at blossom market: take another day, or another way to act'
  expect(faults(await plan({ productId }))).toEqual([said])
  const move = { productId, methodId: null, placeId: null, plannedOn: '2026-06-15', note: '', rowVersion: other.rowVersion }
  expect(faults(await app.call(treatments.move, { ...at, treatmentId: other.id }, move, as))).toEqual([said])
  expect((await plan({ methodId: 'fallen-fruit' })).status).toBe(200)
  // What was done is a fact.
  const record = { startedAt: '2026-06-12T13:00:00Z', rate: 0.1, areaHa: 1, weather: {}, note: '', rowVersion: other.rowVersion }
  done(await app.call(treatments.record, { ...at, treatmentId: other.id }, record, as))
  done(await app.call(rules.remove, { ...at, siteRuleId: rule.id }, { rowVersion: 1 }, as))
  expect((await plan({ productId })).status).toBe(200)
})

test('a site without chemicals plans none; an organic one names its certificate', async () => {
  const chemical = await shelf({ name: 'Tanager 240', methods: ['spinosyn'] })
  const { rowVersion } = done(await app.call(sites.list, {}, {}, as)).find(({ id }) => id === at.siteId)!
  const nameless = await app.call(sites.setPolicy, at, { chemicals: 'organic', rowVersion }, as)
  expect(faults(nameless)).toEqual(['certificate: name the certificate'])
  const never = done(await app.call(sites.setPolicy, at, { chemicals: 'never', certificate: 'lost', rowVersion }, as))
  expect(never.policy).toEqual({ chemicals: 'never', certificate: '', certifiedOn: null })
  expect(faults(await plan({ productId: chemical, plannedOn: '2026-06-25' }))?.[0]).toMatch(/^productId: Tanager 240 is a chemical/)
  const virus = await shelf({ name: 'Granule E' })
  expect((await plan({ productId: virus, plannedOn: '2026-06-25' })).status).toBe(200)
  done(await app.call(sites.setPolicy, at, { chemicals: 'any', rowVersion: never.rowVersion }, as))
  expect((await plan({ productId: chemical, plannedOn: '2026-06-26' })).status).toBe(200)
})

test('a label keeps days between it and another material, either way round, ends at its amount a season, and has its own rate for a crop', async () => {
  const oil = await shelf({
    name: 'Summer oil Lind',
    methods: ['horticultural-oil'],
    stages: ['egg'],
    labelRate: 10,
    notWithin: [{ method: 'sulphur', days: 21 }],
    rates: [{ crop: 'apple', target: null, rate: 6 }],
    mostAmount: 6,
  })
  const sulphur = await shelf({ name: 'Terrace sulphur', methods: ['sulphur'], stages: ['spore'], labelRate: 5 })
  const scab = done(
    await app.call(watches.create, at, { organismId: 'apple-scab', blockId: place.blockId, season: SEASON, biofix: null }, as),
  )
  const psylla = { organismId: 'pear-psylla', blockId: place.blockId, season: SEASON, biofix: null }
  const onEggs = done(await app.call(watches.create, at, psylla, as)).id
  const spread = done(await plan({ watchId: scab.id, productId: sulphur, plannedOn: '2026-08-01' }))
  const said = (on: string) =>
    `plannedOn: the label of Summer oil Lind asks for 21 days between it and Terrace sulphur, and Terrace sulphur is planned or done on ${on}: take another day, or another way to act`
  expect(faults(await plan({ watchId: onEggs, productId: oil, plannedOn: '2026-07-12' }))).toEqual([said('2026-08-01')])
  const sprayed = done(await plan({ watchId: onEggs, productId: oil, plannedOn: '2026-07-11' }))
  // The other label asks for nothing, and is held to it all the same.
  const nearer = { productId: sulphur, methodId: null, placeId: null, plannedOn: '2026-07-20', note: '', rowVersion: spread.rowVersion }
  const moved = await app.call(treatments.move, { ...at, treatmentId: spread.id }, nearer, as)
  expect(faults(moved)?.[0]).toContain('between it and Terrace sulphur, and Summer oil Lind is planned or done on 2026-07-11')
  const record = { startedAt: '2026-06-12T13:00:00Z', rate: 7, areaHa: 1, weather: {}, note: '', rowVersion: sprayed.rowVersion }
  const params = { ...at, treatmentId: sprayed.id }
  expect(faults(await app.call(treatments.record, params, record, as))).toEqual(['departureReason: say why: the rate is above the label'])
  done(await app.call(treatments.record, params, { ...record, rate: 6 }, as))
  expect(faults(await plan({ watchId: onEggs, productId: oil, plannedOn: '2026-06-30' }))?.[0]).toMatch(
    /^productId: .* allows 6 L\/ha a season/,
  )
})
