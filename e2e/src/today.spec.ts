import { endpoints } from '@bocado/contract'
import { done, GRANULE } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { expectAccessible, goTo, press } from './page.js'
import { setStage, type Stage } from './stage.js'

/* The morning: of a lead at a desk, and of a scout with a phone. */

const { rules, scouting, treatments, watches } = endpoints
const SEASON = '2026-01-01'

let page: Page
let stage: Stage
let watchId: string
setStage(
  hourlyFile(2024, '2026-06-12'),
  async ({ app, at, place, as }) => {
    const watch = { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: '2026-05-14' }
    watchId = done(await app.call(watches.create, at, watch, as)).id
    const parsnip = { organismId: 'wild-parsnip', blockId: place.blockId, season: SEASON, biofix: null }
    done(await app.call(watches.create, at, parsnip, as))
    const hung = { name: 'Gate trap', blockId: place.blockId, organismId: 'codling-moth', hungOn: '2026-05-01' }
    done(await app.call(endpoints.traps.add, at, hung, as))
    const product = done(await app.call(treatments.addProduct, at, { ...GRANULE, ways: ['spray'], reEntryHours: 30 }, as))
    done(await app.call(treatments.plan, at, { watchId, productId: product.id, plannedOn: '2026-06-12' }, as))
  },
  (set) => {
    stage = set
    page = set.page
  },
)

const lines = () => page.getByTestId('today-lines').locator('li')

test('comes first, and says what has to be done, where, by when, and on what each rests', async () => {
  await page.goto(`${stage.app.address}/`)
  await page.waitForURL(/\/today$/)
  await page.getByRole('heading', { name: /^Fri 12 Jun: one thing to do, / }).waitFor()
  const deed = lines().filter({ hasText: 'Granule C in Old Apples' })
  await deed.getByText(/^dates · /).waitFor()
  await lines()
    .filter({ hasText: 'Check Gate trap' })
    .getByText(/^traps · not looked at yet/)
    .waitFor()
  await lines()
    .filter({ hasText: 'Look for Wild parsnip' })
    .getByText(/^months · /)
    .waitFor()
  // What is done stands before what is looked at.
  expect(await lines().first().innerText()).toContain('Granule C')
  await page.getByTestId('opens-soon').waitFor()
  await page.getByTestId('changed').waitFor()
  await expectAccessible(page, 'today')
})

test('leads to the deed with one press, and says afterwards what changed and where nobody enters', async () => {
  await page.getByRole('link', { name: 'Record: Granule C in Old Apples, Codling moth' }).click()
  await page.waitForURL(/treatments\?record=/)
  await page
    .getByRole('textbox', { name: 'Began at' })
    .or(page.getByRole('textbox', { name: 'At' }))
    .first()
    .waitFor()
  const [planned] = done(await stage.app.call(treatments.list, stage.at, { season: SEASON }))
  const record = { startedAt: '2026-06-11T13:00:00Z', rate: 0.1, areaHa: 4, weather: {}, note: '', rowVersion: planned!.rowVersion }
  done(await stage.app.call(treatments.record, { ...stage.at, treatmentId: planned!.id }, record, stage.as))
  const count = { watchId, countedOn: '2026-06-12', units: Array.from({ length: 20 }, (_, i) => ({ 'fresh-entry': i < 16 ? 1 : 0 })) }
  done(await stage.app.call(scouting.create, stage.at, count, stage.as))
  await goTo(page, 'Today')
  await page.getByText(/^Old Apples: nobody enters before .* after Granule C\.$/).waitFor()
  await page.getByTestId('changed').getByText('Granule C was done in Old Apples on Thu 11 Jun.').waitFor()
  await page
    .getByTestId('changed')
    .getByText(/counted 4 per 100/)
    .waitFor()
  expect(await lines().filter({ hasText: 'Granule C' }).count()).toBe(0)
})

test('asks for a decision where a count says so, and leads to it', async () => {
  const decide = page.getByRole('link', { name: /^Decide: Decide on Codling moth: over its threshold/ })
  await decide.click()
  await page.waitForURL(new RegExp(`windows\\?watch=${watchId}`))
  await page.goBack()
  await page.getByTestId('today-lines').waitFor()
})

test('prints a page a place for the door, with where nobody enters, what may harm, and a tally', async () => {
  await press(page, 'Sheets for the door')
  const sheet = page.getByTestId('door-sheet').filter({ hasText: 'Old Apples' })
  await sheet.getByText(/nobody enters before/).waitFor()
  await sheet.getByText('Check Gate trap').waitFor()
  // The sap of parsnip burns: whoever reads the sheet is told.
  await sheet.getByText(/burn/i).first().waitFor()
  await expectAccessible(page, 'sheets for the door')
  await page.emulateMedia({ media: 'print' })
  expect(await page.getByRole('button', { name: 'Print' }).isVisible()).toBe(false)
  expect(await sheet.isVisible()).toBe(true)
  await page.emulateMedia({ media: 'screen' })
  await press(page, 'Back to the morning')
  await page.getByTestId('today-lines').waitFor()
})

describe('on a phone', () => {
  const before = { width: 1280, height: 800 }
  beforeAll(() => page.setViewportSize({ width: 390, height: 844 }))
  afterAll(() => page.setViewportSize(before))

  test('it is the first word of the bar, fits, and its buttons are large enough for a glove', async () => {
    await stage.open('site')
    await page.getByRole('navigation').getByRole('link', { name: 'Today' }).locator('visible=true').click()
    await page.getByTestId('today-lines').waitFor()
    expect(await page.evaluate(() => document.scrollingElement!.scrollWidth - window.innerWidth)).toBeLessThanOrEqual(0)
    const heights = await page
      .locator('[data-testid=today-lines] a')
      .evaluateAll((all) => all.map((one) => one.getBoundingClientRect().height))
    expect(Math.min(...heights)).toBeGreaterThanOrEqual(48)
  })
})

test('a rule that closes the day is said where the deed is planned, and the plan is refused', async () => {
  const closed = {
    name: 'Village fair',
    kind: 'closed-days',
    act: 'everything',
    whose: 'law',
    fromDay: '06-14',
    untilDay: '06-16',
  } as const
  done(await stage.app.call(rules.add, stage.at, closed, stage.as))
  await stage.open(`windows?watch=${watchId}`)
  await page.getByTestId('still-reaching').waitFor()
  for (let i = 0; i < 8 && (await page.getByTestId('rule-there').count()) === 0; i++) await press(page, 'A day later')
  await page
    .getByTestId('rule-there')
    .getByText(/Village fair/)
    .waitFor()
  await press(page, 'Plan it')
  await page
    .getByText(/is closed by a rule of this place, Village fair/)
    .first()
    .waitFor()
})

test('a garden sees three lines, and the rest of the week with one press; a past season has no morning', async () => {
  const { sites } = endpoints
  const site = done(await stage.app.call(sites.list, {}, {}, stage.as)).find(({ id }) => id === stage.at.siteId)!
  const { name, place, timeZone, units, latitude, longitude, elevationM, rowVersion } = site
  const garden = { name, kind: 'garden', place, timeZone, units, latitude, longitude, elevationM, rowVersion } as const
  done(await stage.app.call(sites.update, stage.at, garden, stage.as))
  await stage.open('today')
  await page.getByTestId('today-lines').waitFor()
  await expect.poll(() => lines().count()).toBeLessThanOrEqual(3)
  const more = page.getByRole('button', { name: /more/ })
  if ((await more.count()) > 0) {
    await more.click()
    expect(await lines().count()).toBeGreaterThan(3)
  }
  const last = { organismId: 'codling-moth', blockId: stage.place.blockId, season: '2025-01-01', biofix: null }
  done(await stage.app.call(watches.create, stage.at, last, stage.as))
  await page.evaluate((id) => sessionStorage.setItem(`bocado.season ${id}`, '2025-01-01'), site.id)
  await stage.open('today')
  await page.getByText('A past season has no morning', { exact: false }).waitFor()
  await page.evaluate(() => sessionStorage.clear())
})
