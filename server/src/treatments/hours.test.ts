import { endpoints, type InputOf } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, GRANULE, startSite, type TestSite } from '../testing/farm.js'

const { treatments, watches, weather, blocks, library, bloom } = endpoints
const SEASON = '2026-01-01'
/** Half past seven in the morning by the clock of the site, half past six in standard time. */
const NOW = '2026-06-12T14:30:00Z'

let app: Application
let place: TestSite
let at: { siteId: string }
let as: { person: string }
let watchId: string
let token: string
beforeAll(async () => {
  app = await startApplication({ now: NOW })
  place = await startSite(app)
  at = { siteId: place.site.id }
  as = { person: place.person }
  watchId = await watch(place.blockId)
  token = done(await app.call(weather.issueToken, { ...at, stationId: place.stationId }, {}, as)).token
})
afterAll(() => app.stop())

const watch = async (blockId: string): Promise<string> =>
  done(await app.call(watches.create, at, { organismId: 'codling-moth', blockId, season: SEASON, biofix: '2026-05-10' }, as)).id
const shelf = async (change: Partial<InputOf<typeof treatments.addProduct>>) =>
  done(await app.call(treatments.addProduct, at, { ...GRANULE, ...change } as InputOf<typeof treatments.addProduct>, as)).id
const hours = async (input: InputOf<typeof treatments.hours>, of = watchId) =>
  done(await app.call(treatments.hours, { ...at, watchId: of }, input))

/** Three members of fair weather; the second is windy, in the third it rains in the afternoon of the 14th. */
async function deliver(): Promise<void> {
  const each = (value: (hour: number) => number) => Array.from({ length: 258 }, (_, h) => value(h))
  // Hour 0 is 06:00 in standard time of the 12th.
  const member = (wind: number, rainAt: number | null) => ({
    temperature: each((h) => 20 + 5 * Math.cos((2 * Math.PI * (h - 9)) / 24)),
    humidity: each(() => 60),
    rain: each((h) => (h === rainAt ? 4 : 0)),
    wind: each(() => wind),
  })
  const response = await fetch(`${app.address}/api/v1/stations/${place.stationId}/forecast-issues`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Authorization: `Bearer ${token}` },
    body: JSON.stringify({
      issuedAt: '2026-06-12T14:00:00Z',
      firstHour: '2026-06-12T14:00:00Z',
      members: [member(2, null), member(8, null), member(2, 18 + 24 + 14)],
    }),
  })
  expect(response.status).toBe(200)
}

describe('hours in which something can be used', () => {
  test('are not known without a forecast', async () => {
    const productId = await shelf({ name: 'Granule before' })
    expect(await hours({ productId })).toMatchObject({ from: '2026-06-12', members: 0, hours: [], days: [] })
  })

  test('go by the clock on the wall, over the members, with whose limit each is', async () => {
    await deliver()
    const productId = await shelf({ name: 'Granule D', ways: ['spray'], rainFastHours: 3 })
    const board = await hours({ productId })
    expect(board).toMatchObject({ from: '2026-06-12', members: 3, over: 7 })
    expect(board.hours).toHaveLength(8 * 24)
    // Noon today: the windy member is over the usual limit.
    expect(board.hours[12]).toEqual({ usable: 2, unknown: 0, blocked: { wind: 1 } })
    // 15:00 of the 14th by the wall is 14:00 in standard time, when it rains; three hours before it is too late, too.
    expect(board.hours[48 + 15]).toEqual({ usable: 1, unknown: 0, blocked: { wind: 1, rain: 1 } })
    expect(board.hours[48 + 12]!.blocked.rain).toBe(1)
    expect(board.hours[48 + 11]!.blocked.rain).toBeUndefined()
    expect(board.limits).toEqual([
      { reason: 'wind', from: 'usual' },
      { reason: 'inversion', from: 'usual' },
      { reason: 'rain', from: 'label' },
      { reason: 'delta-t', from: 'usual' },
    ])
    expect(board.days.every((members) => members === 2)).toBe(true)
    // What its label allows comes before what is usual.
    const hardy = await hours({ productId: await shelf({ name: 'Granule E', ways: ['spray'], maxWindMs: 9 }) })
    expect(hardy.hours[12]!.usable).toBe(3)
  })

  test('of work by hand are those of daylight; what is under a cover minds neither wind nor rain', async () => {
    const byHand = await hours({ methodId: 'fallen-fruit' })
    expect(byHand.hours[24 + 12]).toEqual({ usable: 3, unknown: 0, blocked: {} })
    expect(byHand.hours[24 + 1]).toEqual({ usable: 0, unknown: 0, blocked: { dark: 3 } })
    const tunnel = done(await app.call(blocks.create, at, { name: 'Glass Two', kind: 'tunnel', areaHa: 0.1, grows: 'apple' }, as)).id
    const inside = await hours({ productId: await shelf({ name: 'Granule F', ways: ['spray'] }) }, await watch(tunnel))
    expect(inside.hours[48 + 15]).toEqual({ usable: 3, unknown: 0, blocked: {} })
    expect(inside.limits.map(({ reason }) => reason)).toEqual(['rain'])
  })

  test('leave out the day, or the night as well, while something flowers there', async () => {
    const clover = done(await app.call(library.addOwnPlant, at, { name: 'White clover below', blockId: place.blockId }, as))
    const seen = { plantId: `own-${clover.id}`, event: 'first-open' as const, seenFrom: '2026-06-01', blockId: place.blockId }
    done(await app.call(bloom.add, at, seen, as))
    const of = async (change: Partial<InputOf<typeof treatments.addProduct>>) => {
      const board = await hours({ productId: await shelf({ ways: ['spray'], ...change }) })
      expect(board.flowers).toEqual(['White clover below'])
      return board.hours.slice(24, 48).flatMap(({ usable }, h) => (usable > 0 ? [h] : []))
    }
    expect(await of({ name: 'Tanager 240', methods: ['spinosyn'], bees: 'hazardous-in-bloom' })).toEqual([])
    expect(await of({ name: 'Never', bees: 'forbidden-in-bloom' })).toEqual([])
    const night = await of({ name: 'Evening', bees: 'hazardous-in-bloom' })
    expect(night.length).toBeGreaterThan(0)
    expect(night.every((h) => h >= 21 || h < 5)).toBe(true)
  })

  test('are fewer by rules of the place, which are named with whose they are', async () => {
    const productId = await shelf({ name: 'By rules', ways: ['spray'] })
    const before = await hours({ productId })
    const { rules } = endpoints
    const add = (input: InputOf<typeof rules.add>) => app.call(rules.add, at, input, as)
    const bus = { name: 'school bus', kind: 'closed-hours', act: 'spraying', whose: 'own', fromHour: 12, untilHour: 14 } as const
    const closed = { name: 'fair', kind: 'closed-days', act: 'everything', whose: 'law', fromDay: '06-15', untilDay: '06-15' } as const
    const calm = { name: 'calm only', kind: 'wind', act: 'spraying', whose: 'own', amount: 1.8 } as const
    const typed = []
    for (const rule of [bus, closed, calm]) typed.push(done(await add(rule)))
    const board = await hours({ productId })
    expect(board.rules.toSorted()).toEqual(['calm only', 'fair', 'school bus'])
    expect(board.limits).toContainEqual({ reason: 'rule', from: 'law' })
    expect(board.limits).toContainEqual({ reason: 'wind', from: 'own' })
    expect(board.hours[24 + 12]!.blocked).toMatchObject({ rule: 3, wind: 3 })
    expect(board.hours[24 + 14]!.blocked.rule).toBeUndefined()
    expect(board.hours[72 + 4]!.blocked.rule).toBe(3)
    expect(board.days.reduce((sum, n) => sum + n, 0)).toBeLessThan(before.days.reduce((sum, n) => sum + n, 0))
    // Work by hand is bound by the rule for everything alone.
    const byHand = await hours({ methodId: 'fallen-fruit' })
    expect(byHand.rules).toEqual(['fair'])
    for (const { id, rowVersion } of typed) done(await app.call(rules.remove, { ...at, siteRuleId: id }, { rowVersion }, as))
    expect(await hours({ productId })).toEqual(before)
  })

  test('wait until one may enter again what was sprayed, though its watch is gone', async () => {
    const block = done(await app.call(blocks.create, at, { name: 'Ladder Pears', kind: 'orchard', areaHa: 2, grows: 'pear' }, as)).id
    const [there, other] = [
      await watch(block),
      done(await app.call(watches.create, at, { organismId: 'pear-psylla', blockId: block, season: SEASON, biofix: null }, as)),
    ]
    const productId = await shelf({ name: 'Stays shut', reEntryHours: 30 })
    const record = { watchId: there, productId, startedAt: '2026-06-12T13:00:00Z', rate: 0.1, areaHa: 1, weather: {}, note: '' }
    done(await app.call(treatments.recordUnplanned, at, record, as))
    const watched = done(await app.call(watches.list, at, { season: SEASON })).find(({ id }) => id === there)!
    done(await app.call(watches.remove, { ...at, watchId: there }, { rowVersion: watched.rowVersion }, as))
    const board = await hours({ methodId: 'prune-out' }, other.id)
    // Sprayed at 6 in the morning of the 12th: noon of the 13th is the first hour.
    expect([11, 12].map((h) => board.hours[24 + h]!.blocked.entry)).toEqual([3, undefined])
    expect(board.limits).toContainEqual({ reason: 'entry', from: 'label' })
  })

  test('of nematodes are those in which the soil is above the floor of their species', async () => {
    const living = { methods: ['nematodes'], ways: ['drench' as const], stages: ['larva'] }
    const of = async (name: string, strain: string | null, soilMinC: number | null = null) => {
      const { limits, hours: all } = await hours({ productId: await shelf({ ...living, name, strain, soilMinC }) })
      return { from: limits.find(({ reason }) => reason === 'soil')?.from, hour: all[24 + 23]! }
    }
    // Days of about 20 °C and no weather before: the soil stands at what the first of them say.
    expect(await of('Feltiae', 'feltiae')).toMatchObject({ from: 'usual', hour: { usable: 3 } })
    expect(await of('Cold label', 'feltiae', 25)).toMatchObject({ from: 'label', hour: { usable: 0, blocked: { soil: 3 } } })
    expect((await of('Not said', null)).from).toBeUndefined()
  })

  test('ask for one product or one method of this site', async () => {
    for (const input of [
      {},
      { productId: crypto.randomUUID() },
      { methodId: 'nothing' },
      { productId: crypto.randomUUID(), methodId: 'fallen-fruit' },
    ])
      expect((await app.call(treatments.hours, { ...at, watchId }, input)).status).toBe(422)
    expect((await app.call(treatments.hours, { ...at, watchId: crypto.randomUUID() }, { methodId: 'fallen-fruit' })).status).toBe(404)
  })
})

describe('what a label says of when', () => {
  test('is kept with it, and refused where it cannot be', async () => {
    const said = {
      registration: 'HB 77-1',
      leastIntervalDays: 7,
      mostPerSeason: 2,
      rainFastHours: 0,
      maxWindMs: 4.5,
      minTempC: 8,
      maxTempC: 28,
    }
    const id = await shelf({ name: 'Whole label', ...said })
    expect(done(await app.call(treatments.products, at, {})).find((one) => one.id === id)).toMatchObject(said)
    const refused = async (change: Partial<InputOf<typeof treatments.addProduct>>) =>
      (await app.call(treatments.addProduct, at, { ...GRANULE, name: 'Wrong', ...change } as never, as)).problem.fields?.[0]?.path
    expect(await refused({ minTempC: 20, maxTempC: 10 })).toBe('maxTempC')
    expect(await refused({ leastIntervalDays: 0 })).toBe('leastIntervalDays')
    expect(await refused({ mostPerSeason: 1.5 })).toBe('mostPerSeason')
    expect(await refused({ maxWindMs: 40 })).toBe('maxWindMs')
  })

  test('holds for twenty who plan at once as it does for one', async () => {
    const productId = await shelf({ name: 'At once', leastIntervalDays: 30 })
    const answers = await Promise.all(
      Array.from({ length: 20 }, (_, i) =>
        app.call(treatments.plan, at, { watchId, productId, plannedOn: `2026-06-${String(i + 10).padStart(2, '0')}` }, as),
      ),
    )
    expect(answers.filter(({ status }) => status === 200)).toHaveLength(1)
    expect(answers.filter(({ status }) => status === 422)).toHaveLength(19)
  })

  test('spaces what is planned on the same ground, whichever of its watches it is for', async () => {
    const productId = await shelf({ name: 'Spaced', methods: ['spinosyn'], leastIntervalDays: 7, mostPerSeason: 2 })
    const second = done(
      await app.call(
        watches.create,
        at,
        { organismId: 'oriental-fruit-moth', blockId: place.blockId, season: SEASON, biofix: '2026-04-20' },
        as,
      ),
    ).id
    const plan = (plannedOn: string, of = watchId) => app.call(treatments.plan, at, { watchId: of, productId, plannedOn }, as)
    const first = done(await plan('2026-06-14'))
    const said = (await plan('2026-06-20', second)).problem.fields?.[0]
    expect(said).toMatchObject({ path: 'plannedOn', code: 'label.spaced' })
    expect(said!.message).toContain('at least 7 days')
    // On the same day it is the same treatment of the ground.
    expect((await plan('2026-06-14', second)).status).toBe(200)
    const later = done(await plan('2026-06-21'))
    expect((await plan('2026-06-28')).problem.fields?.[0]).toMatchObject({ code: 'label.most-per-season' })
    // What is moved is not held against itself.
    const move = (treatmentId: string, plannedOn: string, rowVersion: number) =>
      app.call(
        treatments.move,
        { ...at, treatmentId },
        { productId, methodId: null, placeId: null, plannedOn, note: '', rowVersion } as never,
        as,
      )
    expect((await move(later.id, '2026-06-22', later.rowVersion)).status).toBe(200)
    expect((await move(first.id, '2026-06-16', first.rowVersion)).problem.fields?.[0]).toMatchObject({ code: 'label.spaced' })
  })
})
