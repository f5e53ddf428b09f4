import { endpoints, type EventClock } from '@bocado/contract'
import { civilDate, dayNumber } from '@bocado/core'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'
import { hourlyFile, importFile, preview } from '../testing/upload.js'

/* An organism of which no figure is known makes a clock of what was seen of it. */

const { watches, calibration, bloom } = endpoints
const SEASON = '2026-01-01'
const EVENT = 'first-adult'

let app: Application
let place: TestSite
let id: string
/** °C·d above 10 °C from the first of January on, by season. */
let heat: Map<string, number[]>
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  const file = hourlyFile(2020, '2026-06-12')
  await importFile(app, place, file, (await preview(app, place, file.slice(0, 200_000))).body.mapping)
  const helper = done(
    await app.call(
      watches.create,
      at(),
      { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: '2026-01-01' },
      as(),
    ),
  )
  for (const year of [2021, 2022, 2023, 2024, 2025])
    await app.call(
      watches.create,
      at(),
      { organismId: 'codling-moth', blockId: place.blockId, season: `${year}-01-01`, biofix: `${year}-01-01` },
      as(),
    )
  const past = done(await app.call(watches.pastSeasons, { ...at(), watchId: helper.id }, {}))
  heat = new Map(past.map(({ season, cumulative }) => [season, cumulative]))
  id = done(await app.call(watches.create, at(), { organismId: 'japanese-beetle', blockId: place.blockId, season: SEASON }, as())).id
})
afterAll(() => app.stop())

const at = () => ({ siteId: place.site.id })
const as = () => ({ person: place.person })
const params = () => ({ ...at(), watchId: id })
const saw = (seenOn: string, event = EVENT) =>
  app.call(calibration.addSighting, params(), { event, kind: 'first', seenOn, lookedBefore: civilDate(dayNumber(seenOn) - 2) }, as())
const clock = async (): Promise<EventClock> =>
  done(await app.call(calibration.get, params(), {})).clocks.find(({ event }) => event === EVENT)!
const take = () => app.call(calibration.takeClock, params(), { event: EVENT }, as())
const stated = async () => done(await app.call(watches.band, at(), { season: SEASON })).watches.find((f) => f.watch.id === id)!
const dateOf = (season: string, wanted: number): string =>
  civilDate(dayNumber(season) + heat.get(season)!.findIndex((sum) => sum >= wanted))

test('an organism by months has events that can be dated', async () => {
  const { named, grade, events } = await stated()
  expect(grade).toBe('months')
  expect(events).toEqual([])
  expect(named).toContainEqual({ id: 'first-egg', name: 'first eggs', clock: null })
  // As long as there is no clock of own records, a published sum of heat tells its day.
  expect(named.find(({ id: event }) => event === EVENT)).toMatchObject({ name: 'first beetles', clock: { by: 'published' } })
  const { status, problem } = await saw('2025-07-01', 'second-hatch')
  expect(status).toBe(422)
  expect(problem.fields![0]!.message).toContain(EVENT)
})

describe('dates of past seasons', () => {
  test('make a clock from three on, which is not offered before five', async () => {
    for (const season of ['2021-01-01', '2022-01-01']) done(await saw(dateOf(season, 420)))
    expect(await clock()).toMatchObject({ clock: null, taken: null })
    for (const season of ['2023-01-01', '2024-01-01']) done(await saw(dateOf(season, 420)))
    const four = await clock()
    expect(four.seasons).toHaveLength(4)
    expect(four.clock).toMatchObject({ lower: 10, offered: false })
    const { status, problem } = await take()
    expect(status).toBe(422)
    expect(problem.detail).toContain('Five seasons')
  })

  test('are a clock to go by where it is nearer than the calendar; the watch then has dates, and says whose', async () => {
    done(await saw(dateOf('2025-01-01', 420)))
    const { clock: made } = await clock()
    expect(made!.error.clock).toBeLessThan(made!.error.calendar)
    expect(made!.offered).toBe(true)
    done(await take())
    expect((await clock()).taken).toMatchObject({ seasons: 5, current: true })
    const { named, grade } = await stated()
    const { seasons, date } = named.find((event) => event.id === EVENT)!.clock!
    expect(seasons).toBe(5)
    // No window is made of it: what its records tell is a day, not what can be reached.
    expect(grade).toBe('months')
    expect(date.p10! < date.p50! && date.p50! < date.p90!).toBe(true)
    const usual = [...heat.values()].map((sums) => sums.findIndex((sum) => sum >= 420)).filter((day) => day > 0)
    expect(Math.abs(date.p50! - usual.reduce((a, b) => a + b, 0) / usual.length)).toBeLessThan(12)
  })

  test('a later record says something else; the clock stays until the newer one is taken, and goes back to the months', async () => {
    done(await saw('2020-07-20'))
    const before = await clock()
    expect(before.taken).toMatchObject({ seasons: 5, current: false })
    const { id: clockId, rowVersion } = before.taken!
    const gone = done(await app.call(calibration.dropClock, { ...at(), clockId }, { rowVersion }, as()))
    expect((await stated()).named.find((event) => event.id === EVENT)!.clock!.by).toBe('published')
    done(await app.call(calibration.restoreClock, { ...at(), clockId }, { rowVersion: gone.rowVersion }, as()))
    expect((await stated()).named.find((event) => event.id === EVENT)!.clock!.by).toBe('own')
  })
})

test('what was seen this season stands on the band and on the ladder', async () => {
  done(await saw('2026-06-11'))
  expect((await stated()).seen).toEqual([{ event: EVENT, name: 'first beetles', kind: 'first', day: '2026-06-11' }])
  done(await app.call(bloom.add, at(), { plantId: 'catalpa', event: 'first-open', seenFrom: '2025-06-10' }, as()))
  const { pests } = done(await app.call(bloom.ladder, at(), {}))
  const own = pests.find((p) => p.organismId === 'japanese-beetle')!
  expect(own).toMatchObject({ event: EVENT, name: 'first beetles' })
  expect(own.expected).not.toBeNull()
  expect(own.dots.some(({ season }) => season === '2025-01-01')).toBe(true)
})

describe('a threshold and one sum that somebody typed', () => {
  const type = (input: object) =>
    app.call(calibration.typeClock, params(), { event: 'first-egg', lower: 10, heat: 420, ...input } as never, as())
  const typed = async () => done(await app.call(calibration.get, params(), {})).typed
  const told = async () => (await stated()).named.find(({ id: event }) => event === 'first-egg')!.clock

  test('dates an event that nothing else dates, from any day, and says that it was typed', async () => {
    done(await type({ source: 'a neighbour’s notebook' }))
    const fromNewYear = (await told())!
    expect(fromNewYear).toMatchObject({ by: 'typed', source: 'a neighbour’s notebook' })
    expect(fromNewYear.date.p10!).toBeLessThan(fromNewYear.date.p90!)
    done(await type({ startsOn: '05-15' }))
    const fromMay = (await told())!
    expect(fromMay.date.p50!).toBeGreaterThan(fromNewYear.date.p50!)
    // One figure an event: the newer takes the place of the one before.
    expect(await typed()).toMatchObject([{ event: 'first-egg', startsOn: '05-15', heat: 420, lower: 10 }])
  })

  test('is dropped, and brought back', async () => {
    const [one] = await typed()
    const at_ = { ...at(), clockId: one!.id }
    const dropped = done(await app.call(calibration.dropClock, at_, { rowVersion: one!.rowVersion }, as()))
    expect(await told()).toBeNull()
    done(await app.call(calibration.restoreClock, at_, { rowVersion: dropped.rowVersion }, as()))
    expect(await told()).toMatchObject({ by: 'typed' })
  })

  test('names an event that needs one, a day of the year, and a range that holds', async () => {
    const path = async (input: object) => (await type(input)).problem.fields?.[0]?.path
    expect(await path({ event: 'second-hatch' })).toBe('event')
    expect(await path({ startsOn: '02-31' })).toBe('startsOn')
    expect(await path({ upper: 5 })).toBe('upper')
    expect(await path({ heat: 0 })).toBe('heat')
  })
})
