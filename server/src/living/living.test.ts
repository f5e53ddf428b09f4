import { endpoints, type InputOf } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { besideIt, startApplication, type Application } from '../testing/application.js'
import { done, GRANULE, startSite, type TestSite } from '../testing/farm.js'

const { blocks, living, places, treatments, watches, weather } = endpoints
const SEASON = '2026-01-01'

let app: Application
let place: TestSite
let at: { siteId: string }
let as: { person: string }
let pot: string
let treatmentId: string
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  at = { siteId: place.site.id }
  as = { person: place.person }
  const tunnel = done(await app.call(blocks.create, at, { name: 'Glass Two', kind: 'tunnel', areaHa: 0.3, grows: 'pepper' }, as)).id
  pot = done(await app.call(places.create, at, { parentId: tunnel, level: 'bed', name: 'Bay 2' }, as)).id
  const watch = { organismId: 'fungus-gnats', blockId: tunnel, season: SEASON, biofix: '2026-04-15' }
  const watchId = done(await app.call(watches.create, at, watch, as)).id
  const product = {
    ...GRANULE,
    name: 'Furrow nematodes',
    methods: ['nematodes'],
    strain: 'feltiae',
    formulation: 'living',
    stages: ['larva'],
  }
  const productId = done(
    await app.call(treatments.addProduct, at, { ...product, ways: ['drench'], orderDays: 4, keepsDays: 7 } as never, as),
  ).id
  treatmentId = done(await app.call(treatments.plan, at, { watchId, productId, plannedOn: '2026-06-18', placeId: pot }, as)).id
})
afterAll(() => app.stop())

const now = async () => done(await app.call(living.read, at, {})).planned.find((one) => one.treatmentId === treatmentId)!
const note = (input: Partial<InputOf<typeof living.note>>, by = as) => app.call(living.note, at, { treatmentId, ...input }, by)
const read = (readOn: string, celsius: number, placeId = pot) => app.call(living.readSoil, at, { placeId, readOn, celsius }, as)

/** Six years of days, each as warm as the one before: 8 to 20 °C. */
async function readWeather(stationId: string) {
  const days: { day: string; min: number; max: number }[] = []
  for (let day = Date.UTC(2020, 0, 1); day < Date.UTC(2026, 5, 12); day += 86_400_000)
    days.push({ day: new Date(day).toISOString().slice(0, 10), min: 8, max: 20 })
  for (let i = 0; i < days.length; i += 300)
    done(await app.call(weather.typeDays, { ...at, stationId }, { days: days.slice(i, i + 300) } as never, as))
}

describe('an order', () => {
  test('has a last day, and without weather nothing is said of what it would live in', async () => {
    expect(await now()).toMatchObject({ state: 'order', orderBy: '2026-06-13', supply: null, conditions: null, residues: [] })
  })

  test('is kept with its days, told to whoever says it at the same moment, and one row', async () => {
    const both = await Promise.all(['2026-06-10', '2026-06-11'].map((orderedOn) => note({ orderedOn })))
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409])
    const { supply, state } = await now()
    expect(state).toBe('ordered')
    const kept = { orderedOn: '2026-06-08', arrivedOn: '2026-06-12', rowVersion: supply!.rowVersion }
    done(await note(kept))
    expect(await now()).toMatchObject({ state: 'there', usableUntil: '2026-06-19' })
    expect((await note(kept)).status).toBe(409)
    done(await note({ ...kept, alive: 0.3, rowVersion: supply!.rowVersion + 1 }))
    expect((await now()).state).toBe('dead')
  })

  test('twenty say it together on two servers: one row, and everybody else is told of it', async () => {
    const second = await besideIt(app)
    const { productId, watchId } = done(await app.call(treatments.list, at, { season: SEASON }, as))[0]!
    const input = { watchId, productId: productId!, plannedOn: '2026-06-25', placeId: pot }
    const other = done(await app.call(treatments.plan, at, input, as)).id
    const answers = await Promise.all(
      Array.from({ length: 20 }, (_, i) =>
        [app, second][i % 2]!.call(living.note, at, { treatmentId: other, orderedOn: '2026-06-11' }, as),
      ),
    )
    expect(answers.filter(({ status }) => status === 200)).toHaveLength(1)
    expect(answers.every(({ status }) => status === 200 || status === 409)).toBe(true)
    expect(done(await app.call(living.read, at, {})).planned.find((one) => one.treatmentId === other)?.supply?.orderedOn).toBe('2026-06-11')
    await second.stop()
  })

  test.each<[string, Partial<InputOf<typeof living.note>>, string]>([
    ['an order of tomorrow', { orderedOn: '2026-06-13' }, 'orderedOn'],
    ['what came before it was ordered', { orderedOn: '2026-06-10', arrivedOn: '2026-06-09' }, 'arrivedOn'],
    ['how much was alive of what never came', { alive: 0.5 }, 'alive'],
    ['a treatment of nowhere', { treatmentId: crypto.randomUUID() }, 'treatmentId'],
  ])('%s is refused by name', async (_, input, path) => {
    expect((await note({ ...input, rowVersion: 3 })).problem.fields?.map((one) => one.path)).toEqual([path])
  })

  test('is noted by whoever tends the site, not by who looks', async () => {
    expect((await note({ orderedOn: '2026-06-10' }, { person: place.viewer })).status).toBe(403)
  })
})

describe('what it would live in', () => {
  beforeAll(() => readWeather(place.stationId))

  test('is the soil of the block, warm enough over two weeks', async () => {
    const { conditions } = await now()
    expect(conditions).toMatchObject({
      medium: 'soil',
      floor: 10,
      ceiling: 30,
      floorFrom: 'usual',
      days: 14,
      verdict: 'fits',
      warmEnough: 1,
    })
    expect(conditions!.onTheDay).toBeCloseTo(14, 0)
    expect(conditions!.offset).toBeNull()
  })

  test('two readings of a thermometer in the pot move it; one that is removed no more', async () => {
    done(await read('2026-06-11', 8))
    expect((await now()).conditions!.offset).toBeNull()
    const second = done(await read('2026-06-12', 8.4))
    const { conditions } = await now()
    expect(conditions).toMatchObject({ verdict: 'too-cold', offset: { readings: 2, by: 'read-there' } })
    expect(conditions!.onTheDay).toBeCloseTo(8.2, 0)
    const params = { ...at, readingId: second.id }
    done(await app.call(living.removeReading, params, { rowVersion: 1 }, as))
    expect((await now()).conditions!.offset).toBeNull()
    done(await app.call(living.restoreReading, params, { rowVersion: 2 }, as))
    expect((await now()).conditions!.verdict).toBe('too-cold')
    expect((await read('2026-06-13', 9)).problem.fields?.map((one) => one.path)).toEqual(['readOn'])
    expect((await read('2026-06-12', 9, crypto.randomUUID())).problem.fields?.map((one) => one.path)).toEqual(['placeId'])
    expect(done(await app.call(living.read, at, {})).readings).toHaveLength(2)
  })
})

test('what was sprayed there harms it until its kind does no more', async () => {
  const spinosyn = { ...GRANULE, name: 'Lane spinosyn', methods: ['spinosyn'], ways: ['spray'] }
  const productId = done(await app.call(treatments.addProduct, at, spinosyn as never, as)).id
  const list = done(await app.call(treatments.list, at, { season: SEASON }, as))
  const { watchId } = list.find(({ id }) => id === treatmentId)!
  const deed = {
    watchId,
    productId,
    startedAt: '2026-06-10T18:00:00Z',
    rate: 0.1,
    areaHa: 0.1,
    weather: {},
    note: '',
    deviationReason: 'tried',
  }
  done(await app.call(treatments.recordUnplanned, at, deed as never, as))
  expect((await now()).residues).toEqual([{ name: 'Lane spinosyn', until: '2026-06-24' }])
})
