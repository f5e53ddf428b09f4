import { endpoints } from '@bocado/contract'
import { dayNumber } from '@bocado/core'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { servingOver, startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'
import { hourlyFile, importFile, preview } from '../testing/upload.js'
import { issueForecasts } from '../worker/issueForecasts.js'

const { demo, sites, watches, weather } = endpoints
const SEASON = '2026-01-01'

let app: Application
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-13T06:50:00Z' })
})
afterAll(() => app.stop())

/** A site with readings from a year on, up to the hour before a moment in its standard time. */
async function siteSince(year: number, name: string, until: string): Promise<TestSite> {
  const place = await startSite(app, name)
  const lines = hourlyFile(year, '2026-06-14').split('\n')
  const file = lines.filter((line, i) => i === 0 || line.slice(0, 16) < until).join('\n')
  await importFile(app, place, file, (await preview(app, place, file.slice(0, 200_000))).body.mapping)
  done(
    await app.call(
      watches.create,
      { siteId: place.site.id },
      { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: '2026-05-10' },
      { person: place.person },
    ),
  )
  return place
}
const at = async (now: string, { person }: TestSite) => done(await app.call(demo.setClock, {}, { now }, { person }))
const forecastOf = async ({ site }: TestSite) => done(await app.call(watches.band, { siteId: site.id }, { season: SEASON })).watches[0]!
const index = (day: string): number => dayNumber(day) - dayNumber(SEASON)

describe('between midnight by the wall and midnight of standard time', () => {
  test.each([2025, 2019])('yesterday is still there, with weather since %i', async (year) => {
    // Summer time is an hour ahead: at 23:50 by the wall it is 22:50.
    const place = await siteSince(year, `Bench since ${year}`, '2026-06-12 23:00')
    await at('2026-06-13T06:50:00Z', place)
    const before = await forecastOf(place)
    await at('2026-06-13T07:05:00Z', place)
    const turn = await forecastOf(place)
    expect(done(await app.call(sites.list, {}, {}))[0]!.today).toBe('2026-06-13')
    expect(turn).toMatchObject({ grade: 'dates', heat: { todayIndex: index('2026-06-12'), filledShare: 0, missing: [] } })
    expect(turn.heat.now).toBe(before.heat.now)
    expect(turn.heat.now).toBeGreaterThan(100)
    expect(turn.windows).toEqual(before.windows)
  })

  test('what is issued is issued for the day that is not over', async () => {
    const place = await siteSince(2020, 'Turning bench', '2026-06-12 23:00')
    await at('2026-06-13T07:05:00Z', place)
    await issueForecasts(servingOver(app), place.site.id)
    const { issued } = done(await app.call(watches.moves, { siteId: place.site.id, watchId: (await forecastOf(place)).watch.id }, {}))
    expect(issued.map(({ today, grade }) => [today, grade])).toEqual([['2026-06-12', 'dates']])
  })
})

describe('a station whose last readings have not come', () => {
  test('is late: the 22 hours that it sent of yesterday count, and are said to be completed', async () => {
    const whole = await siteSince(2019, 'Whole bench', '2026-06-13 00:00')
    const late = await siteSince(2019, 'Late bench', '2026-06-12 22:00')
    await at('2026-06-13T15:00:00Z', late)
    const [known, completed] = [await forecastOf(whole), await forecastOf(late)]
    expect(completed.heat.now).toBeCloseTo(known.heat.now, 0)
    expect(completed.heat.missing).toEqual([])
    expect(completed.heat.filledShare).toBeGreaterThan(0)
    expect(completed.heat.filledShare).toBeLessThan(0.01)
    const day = async ({ site, stationId }: TestSite) =>
      done(await app.call(weather.days, { siteId: site.id, stationId }, { season: SEASON })).days[index('2026-06-12')]!
    expect(Math.abs((await day(late)).max! - (await day(whole)).max!)).toBeLessThan(0.01)
    expect((await day(late)).filled).toBeCloseTo(2 / 24, 3)
  })
})
