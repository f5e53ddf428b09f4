import { endpoints, type Product } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { besideIt, startApplication, type Application } from '../testing/application.js'
import { done, GRANULE, startSite, type TestSite } from '../testing/farm.js'

const { blocks, equipment, permissions, rules, treatments, watches } = endpoints
const SEASON = '2026-01-01'

let app: Application
let place: TestSite
let at: { siteId: string }
let as: { person: string }
let moth: string
let granule: Product
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  at = { siteId: place.site.id }
  as = { person: place.person }
  moth = done(await app.call(watches.create, at, { organismId: 'codling-moth', blockId: place.blockId, season: SEASON }, as)).id
  granule = await shelf({})
})
afterAll(() => app.stop())

const shelf = async (label: object): Promise<Product> =>
  done(await app.call(treatments.addProduct, at, { ...GRANULE, targets: ['codling-moth'], crops: ['apple'], ...label }, as))
const plan = async (productId: string, plannedOn = '2026-06-14', watchId = moth) =>
  done(await app.call(treatments.plan, at, { watchId, productId, plannedOn }, as))
const sheet = async (treatmentId: string) => done(await app.call(treatments.sheet, { ...at, treatmentId }, {}, as))
const stopsOf = async (treatmentId: string) => (await sheet(treatmentId)).stops.map(({ because }) => because)
const record = (treatmentId: string, rowVersion: number, more: object = {}) =>
  app.call(
    treatments.record,
    { ...at, treatmentId },
    { startedAt: '2026-06-12T12:00:00Z', rate: 0.1, areaHa: 1, weather: {}, note: '', rowVersion, ...more } as never,
    as,
  )
/** A block of its own, with what is watched there. */
const ownBlock = async (name: string) => {
  const blockId = done(await app.call(blocks.create, at, { name, kind: 'orchard', areaHa: 2, grows: 'apple' }, as)).id
  return done(await app.call(watches.create, at, { organismId: 'codling-moth', blockId, season: SEASON }, as))
}

describe('a job sheet', () => {
  test('of what nothing speaks against says so, and when that was looked up', async () => {
    const planned = await plan(granule.id)
    const found = await sheet(planned.id)
    expect(found).toMatchObject({ stops: [], warnings: [], permissions: [], notices: [], asOf: '2026-06-12T14:30:00.000Z' })
    done(await app.call(treatments.remove, { ...at, treatmentId: planned.id }, { rowVersion: planned.rowVersion }, as))
  })

  test('is stopped while a consent that a rule asks for is missing, elsewhere, or over', async () => {
    const there = await ownBlock('Leased Apples')
    const planned = await plan(granule.id, '2026-06-14', there.id)
    const rule = { name: 'The owner of the ground is asked', kind: 'consent', act: 'everything', whose: 'own' } as const
    const { id: ruleId, rowVersion } = done(await app.call(rules.add, at, rule, as))
    expect((await sheet(planned.id)).stops).toEqual([
      expect.objectContaining({
        because: 'consent',
        code: 'consent.missing',
        values: { rule: 'The owner of the ground is asked', day: { day: '2026-06-14' } },
      }),
    ])
    const consent = { kind: 'consent', byWhom: 'the owner', ruleId, placeId: place.blockId, validFrom: '2026-04-01' } as const
    const given = done(await app.call(permissions.add, at, consent, as))
    expect(await stopsOf(planned.id)).toEqual(['consent'])
    const to = { ...at, permissionId: given.id }
    const here = done(await app.call(permissions.update, to, { ...consent, placeId: there.blockId, rowVersion: given.rowVersion }, as))
    expect(await sheet(planned.id)).toMatchObject({ stops: [], permissions: [{ byWhom: 'the owner' }] })
    const over = { ...consent, placeId: null, validUntil: '2026-06-13', rowVersion: here.rowVersion }
    done(await app.call(permissions.update, to, over, as))
    expect((await sheet(planned.id)).stops).toEqual([expect.objectContaining({ code: 'consent.ended' })])
    done(await app.call(rules.remove, { ...at, siteRuleId: ruleId }, { rowVersion }, as))
    expect(await stopsOf(planned.id)).toEqual([])
  })

  test('asks for a permit where the law does, and for somebody with a licence', async () => {
    const there = await ownBlock('Far Apples')
    const listed = await shelf({ name: 'Permit only', needsPermit: true, licensedOnly: true })
    const planned = await plan(listed.id, '2026-06-14', there.id)
    expect(await stopsOf(planned.id)).toEqual(['permit', 'licence'])
    const permit = {
      kind: 'permit',
      byWhom: 'the county',
      productId: listed.id,
      validFrom: '2026-01-01',
      validUntil: '2026-12-31',
    } as const
    done(await app.call(permissions.add, at, permit, as))
    const person = { name: 'Ines Okafor', role: 'applicator', licensed: true, licenceUntil: '2026-06-30' } as never
    done(await app.call(endpoints.sites.addPerson, at, person, as))
    expect(await stopsOf(planned.id)).toEqual([])
    const late = await app.call(
      treatments.move,
      { ...at, treatmentId: planned.id },
      { productId: listed.id, plannedOn: '2026-07-02', rowVersion: planned.rowVersion },
      as,
    )
    done(late)
    expect(await stopsOf(planned.id)).toEqual(['licence'])
  })

  test('warns of lots that are over, of too little, and of a label that was read long ago', async () => {
    const there = await ownBlock('Short Apples')
    const oil = await shelf({ name: 'Oil in two lots', readOn: '2025-02-01' })
    const lot = { productId: oil.id, number: 'A1', amount: 5, unit: 'L', cameOn: '2025-03-01', expiresOn: '2026-06-13' } as const
    done(await app.call(equipment.addLot, at, lot, as))
    const planned = await plan(oil.id, '2026-06-14', there.id)
    expect((await sheet(planned.id)).warnings.map(({ because }) => because)).toEqual(['lot', 'stock', 'label-old'])
    done(await app.call(equipment.addLot, at, { ...lot, number: 'A2', amount: 0.15, expiresOn: null }, as))
    // Two hectares at 0.1 L take 0.2 L.
    expect((await sheet(planned.id)).warnings.map(({ because }) => because)).toContain('stock')
    const taken = await app.call(equipment.addLot, at, { ...lot, number: 'A2' }, as)
    expect(taken.problem.fields?.[0]?.path).toBe('number')
    expect((await app.call(equipment.addLot, at, { ...lot, number: 'A3', unit: 'kg' }, as)).problem.fields?.[0]?.path).toBe('unit')
  })

  test('asks for the notice that a rule wants, until it was given', async () => {
    const there = await ownBlock('Village Apples')
    const rule = { name: 'The school is told', kind: 'notice', act: 'spraying', whose: 'law', amount: 2 } as const
    const { id: siteRuleId, rowVersion } = done(await app.call(rules.add, at, rule, as))
    const planned = await plan(granule.id, '2026-06-16', there.id)
    expect((await sheet(planned.id)).warnings).toEqual([
      expect.objectContaining({ because: 'notice', values: { rule: 'The school is told', by: { day: '2026-06-14' } } }),
    ])
    const told = { treatmentId: planned.id, toWhom: 'the school', way: 'told', givenOn: '2026-06-12' } as const
    const notice = done(await app.call(permissions.giveNotice, at, told, as))
    expect(await sheet(planned.id)).toMatchObject({ warnings: [], notices: [{ toWhom: 'the school' }] })
    const early = await app.call(permissions.giveNotice, at, { ...told, givenOn: '2026-06-13' }, as)
    expect(early.problem.fields?.[0]?.path).toBe('givenOn')
    done(await app.call(permissions.removeNotice, { ...at, noticeId: notice.id }, { rowVersion: notice.rowVersion }, as))
    expect((await sheet(planned.id)).warnings).toHaveLength(1)
    done(await app.call(rules.remove, { ...at, siteRuleId }, { rowVersion }, as))
  })

  test('of what is no longer on the shelf is stopped, and says so', async () => {
    const there = await ownBlock('Bare Apples')
    const gone = await shelf({ name: 'Used up' })
    const planned = await plan(gone.id, '2026-06-14', there.id)
    await app.database.query('UPDATE product SET deleted_at = NOW() WHERE id = ?', [gone.id])
    const found = await sheet(planned.id)
    expect(found.stops).toEqual([
      expect.objectContaining({ because: 'fit', message: expect.stringContaining('no longer on the shelf') as string }),
    ])
  })

  test('is stopped while nobody may enter, and does not exist of what is done', async () => {
    const there = await ownBlock('Closed Apples')
    const shut = await shelf({ name: 'Keeps it shut', reEntryHours: 60, leastIntervalDays: null })
    const first = await plan(shut.id, '2026-06-12', there.id)
    const next = await plan(granule.id, '2026-06-14', there.id)
    done(await record(first.id, first.rowVersion))
    // Begun on the 12th at 5 in the morning, it is closed until the 14th at 17.
    expect(await stopsOf(next.id)).toEqual(['re-entry'])
    expect((await app.call(treatments.sheet, { ...at, treatmentId: first.id }, {}, as)).status).toBe(409)
    const moved = { productId: granule.id, plannedOn: '2026-06-15', rowVersion: next.rowVersion }
    done(await app.call(treatments.move, { ...at, treatmentId: next.id }, moved, as))
    expect(await stopsOf(next.id)).toEqual([])
  })
})

describe('a record', () => {
  test('holds what an inspector asks for; its intervals run from its end', async () => {
    const there = await ownBlock('Kept Apples')
    const machine = { name: 'Tower sprayer', kind: 'air-blast', tankL: 1000, sprayLPerHa: 500 } as const
    const machineId = done(await app.call(equipment.addMachine, at, machine, as)).id
    const lot = { productId: granule.id, number: 'L 26-04', amount: 1, unit: 'L', cameOn: '2026-05-01' } as const
    const lotId = done(await app.call(equipment.addLot, at, lot, as)).id
    const planned = await plan(granule.id, '2026-06-12', there.id)
    const particulars = {
      endedAt: '2026-06-12T13:00:00Z',
      way: 'spray',
      machineId,
      lotId,
      waterL: 500,
      cropStage: 'BBCH 72',
      targetStage: 'young-larva',
      bags: 0,
      waste: 'waste-site',
    } as const
    const { done: as1 } = done(await record(planned.id, planned.rowVersion, particulars))
    expect(as1).toMatchObject({
      ...particulars,
      machineName: 'Tower sprayer',
      lotNumber: 'L 26-04',
      reEntryUntil: '2026-06-12T17:00:00Z',
      departures: [],
    })
    expect(done(await app.call(equipment.lots, at, {}, as)).find(({ id }) => id === lotId)?.left).toBeCloseTo(0.9, 9)
  })

  test('accepts a rate above the label, with its reason, and marks it', async () => {
    const there = await ownBlock('Strong Apples')
    const planned = await plan(granule.id, '2026-06-12', there.id)
    const refused = await record(planned.id, planned.rowVersion, { rate: 0.2 })
    expect(refused.problem.fields?.[0]?.path).toBe('departureReason')
    const kept = done(await record(planned.id, planned.rowVersion, { rate: 0.2, departureReason: 'the jug was misread' })).done!
    expect(kept).toMatchObject({ departureReason: 'the jug was misread', departures: [{ because: 'rate', code: 'label.rate-above' }] })
  })

  test('says what it departs from: wind, warmth, an old lot, more than there was, days too near, a closed place', async () => {
    const there = await ownBlock('Windy Apples')
    const calm = await shelf({ name: 'Calm only', maxWindMs: 3, maxTempC: 25, leastIntervalDays: 10, reEntryHours: 12 })
    const lot = { productId: calm.id, number: 'old', amount: 0.05, unit: 'L', cameOn: '2025-05-01', expiresOn: '2026-06-01' } as const
    const lotId = done(await app.call(equipment.addLot, at, lot, as)).id
    const input = { watchId: there.id, productId: calm.id, startedAt: '2026-06-12T12:00:00Z', rate: 0.1, areaHa: 1 } as const
    const windy = { ...input, lotId, weather: { tempC: 27, humidityPct: 40, windMs: 4.2 } }
    const first = done(await app.call(treatments.recordUnplanned, at, windy, as)).done!
    expect(first.departures.map(({ because }) => because)).toEqual(['wind', 'temperature', 'lot', 'stock'])
    const again = { ...input, startedAt: '2026-06-12T14:00:00Z', weather: {} }
    const second = done(await app.call(treatments.recordUnplanned, at, again, as)).done!
    // Two on one day are one treatment of the ground; the place was closed by the first.
    expect(second.departures.map(({ because }) => because)).toEqual(['re-entry'])
    const before = { ...input, startedAt: '2026-06-08T12:00:00Z', weather: {} }
    expect(done(await app.call(treatments.recordUnplanned, at, before, as)).done!.departures.map(({ because }) => because)).toEqual([
      'spacing',
    ])
  })

  test('of one tank against two that are watched there departs from nothing: it is one treatment of the ground', async () => {
    const there = await ownBlock('One Tank Apples')
    const scab = { organismId: 'apple-scab', blockId: there.blockId, season: SEASON }
    const other = done(await app.call(watches.create, at, scab, as)).id
    const both = await shelf({ name: 'For both', targets: [], stages: ['young-larva', 'spore'], methods: ['granulosis-virus', 'sulphur'] })
    const input = {
      productId: both.id,
      startedAt: '2026-06-12T12:00:00Z',
      endedAt: '2026-06-12T13:00:00Z',
      rate: 0.1,
      areaHa: 1,
      weather: {},
    }
    for (const watchId of [there.id, other])
      expect(done(await app.call(treatments.recordUnplanned, at, { ...input, watchId }, as)).done!.departures).toEqual([])
    // Whoever goes in after it does.
    const later = { ...input, watchId: there.id, startedAt: '2026-06-12T13:30:00Z', endedAt: null }
    const [entered] = done(await app.call(treatments.recordUnplanned, at, later, as)).done!.departures
    expect(entered?.because).toBe('re-entry')
  })

  test('refuses what cannot be: an end before its begin, a lot of something else, a machine of nobody', async () => {
    const there = await ownBlock('Odd Apples')
    const other = await shelf({ name: 'Something else' })
    const lot = { productId: other.id, number: 'x', amount: 1, unit: 'L', cameOn: '2026-05-01' } as const
    const lotId = done(await app.call(equipment.addLot, at, lot, as)).id
    const planned = await plan(granule.id, '2026-06-12', there.id)
    const faults = async (more: object) => (await record(planned.id, planned.rowVersion, more)).problem.fields?.map(({ path }) => path)
    expect(await faults({ endedAt: '2026-06-12T11:00:00Z' })).toEqual(['endedAt'])
    expect(await faults({ endedAt: '2026-06-12T15:00:00Z' })).toEqual(['endedAt'])
    expect(await faults({ lotId })).toEqual(['lotId'])
    expect(await faults({ machineId: '00000000-0000-4000-8000-00000000dead' })).toEqual(['machineId'])
  })

  test('keeps the count that stood behind it, though that is corrected later', async () => {
    const there = await ownBlock('Counted Apples')
    const counted = { watchId: there.id, countedOn: '2026-06-10', units: [{ 'fresh-entry': 3 }, { 'fresh-entry': 1 }] }
    const round = done(await app.call(endpoints.scouting.create, at, counted, as))
    const planned = await plan(granule.id, '2026-06-12', there.id)
    const why = done(await record(planned.id, planned.rowVersion)).done!.why!
    expect(why).toMatchObject({ countedOn: '2026-06-10', per100: round.per100, threshold: round.threshold?.per100 ?? null })
    const { watchId: _, ...rest } = counted
    const lower = { ...rest, units: [{ 'fresh-entry': 0 }, { 'fresh-entry': 1 }], rowVersion: round.rowVersion } as never
    done(await app.call(endpoints.scouting.update, { ...at, roundId: round.id }, lower, as))
    const kept = done(await app.call(treatments.list, at, { season: SEASON }, as)).find(({ id }) => id === planned.id)!
    expect(kept.done!.why).toEqual(why)
  })
})

describe('a shelf', () => {
  const names = async () => done(await app.call(treatments.products, at, {}, as)).map(({ name }) => name)
  const bring = (format: 'csv' | 'json', text: string, to = at, by = as) => app.call(treatments.importShelf, to, { format, text }, by)
  const json = (...labels: object[]) => JSON.stringify({ products: labels })

  test('is taken in whole, or not at all, with what is wrong row by row', async () => {
    const before = await names()
    const two = [
      { ...GRANULE, name: 'From a file' },
      { ...GRANULE, name: 'No such method', methods: ['moonlight'] },
    ]
    const refused = await bring('json', json(...two))
    expect(refused.problem.fields).toEqual([expect.objectContaining({ path: 'row 2, methods' })])
    const rateless = await bring('json', json(two[0]!, { ...GRANULE, name: 'Rateless', labelRate: 0 }))
    expect(rateless.problem.fields?.map(({ path }) => path)).toEqual(['row 2, labelRate'])
    expect(await names()).toEqual(before)
    done(await bring('json', json(two[0]!, { ...GRANULE, name: 'From a file, too' })))
    expect(await names()).toEqual(expect.arrayContaining([...before, 'From a file', 'From a file, too']))
    expect((await bring('json', json(two[0]!))).problem.fields).toEqual([expect.objectContaining({ path: 'row 1, name' })])
    for (const nonsense of ['', '{', '{"products": 3}', '[]']) expect((await bring('json', nonsense)).status).toBe(422)
    expect((await bring('csv', 'name,colour\nOil,blue')).problem.detail).toContain('colour')
  })

  test('goes to another site as a table or as JSON, and is the same there', async () => {
    await shelf({
      name: 'With, commas',
      registration: '0042-1',
      rates: [{ crop: 'pear', target: null, rate: 0.05 }],
      notWithin: [{ method: 'sulphur', days: 21 }],
    })
    const first = done(await app.call(treatments.products, at, {}, as))
    for (const format of ['csv', 'json'] as const) {
      const elsewhere = await startSite(app, `Elsewhere ${format}`)
      const file = await (await app.get(`sites/${at.siteId}/products.${format}`)).text()
      done(await bring(format, file, { siteId: elsewhere.site.id }, { person: elsewhere.person }))
      const there = done(await app.call(treatments.products, { siteId: elsewhere.site.id }, {}, { person: elsewhere.person }))
      const bare = (all: Product[]) => all.map(({ id: _, rowVersion: __, ...label }) => label)
      expect(bare(there)).toEqual(bare(first))
    }
  })
})

test('twenty who add one lot at the same moment on two servers: one stands, the others are told by its field', async () => {
  const second = await besideIt(app)
  const lot = { productId: granule.id, number: 'twenty', amount: 1, unit: 'L', cameOn: '2026-05-01' } as const
  const answers = await Promise.all(Array.from({ length: 20 }, (_, i) => [app, second][i % 2]!.call(equipment.addLot, at, lot, as)))
  expect(answers.filter(({ status }) => status === 200)).toHaveLength(1)
  const refused = answers.filter(({ status }) => status !== 200)
  expect(refused.every(({ status, problem }) => status === 422 && problem.fields?.[0]?.path === 'number')).toBe(true)
  await second.stop()
})

test('the records of a season come as a table', async () => {
  const file = await (await app.get(`sites/${at.siteId}/treatments.csv?season=${SEASON}`)).text()
  const [head = '', ...rows] = file.trim().split('\r\n')
  expect(head.split(',').slice(0, 4)).toEqual(['status', 'planned_on', 'started_at', 'ended_at'])
  expect(rows.some((row) => row.includes('the jug was misread') && row.includes('is above the label'))).toBe(true)
  expect(rows.some((row) => row.includes('L 26-04') && row.includes('Tower sprayer') && row.includes('BBCH 72'))).toBe(true)
})
