import { endpoints } from '@bocado/contract'
import { done } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { expect, test } from 'vitest'
import { choose, expectAccessible, goTo, press } from './page.js'
import { setStage, type Stage } from './stage.js'

/* Sites, seasons and people: going from one to another, and what becomes of those that are over. */

const { sites, watches } = endpoints

let page: Page
let open: Stage['open']

setStage(
  hourlyFile(2024, '2026-06-12'),
  async ({ app, at, place, as }) => {
    for (const [season, biofix] of [
      ['2026-01-01', '2026-05-10'],
      ['2025-01-01', '2025-05-09'],
    ] as const)
      done(await app.call(watches.create, at, { organismId: 'codling-moth', blockId: place.blockId, season, biofix }, as))
    const lower = done(
      await app.call(
        sites.create,
        {},
        {
          name: 'Lower Terrace',
          place: 'by the river',
          timeZone: 'America/Los_Angeles',
          units: 'us',
          holdingId: place.site.holding.id,
        },
        as,
      ),
    )
    done(await app.call(sites.addPerson, { siteId: lower.id }, { name: 'Tovah Lindqvist', role: 'lead' }, as))
  },
  (stage) => ({ page, open } = stage),
)

const places = (): Promise<void> => page.getByRole('button', { name: /go to another site or season/ }).click()

test('a past season is opened on every screen, says so, and is left again', async () => {
  await open('windows')
  await places()
  await expectAccessible(page, 'sites and seasons')
  await page.getByRole('button', { name: 'season 2025' }).click()
  await page.getByText('You look at 2025, a past season.').waitFor()
  await page
    .getByText(/^Past since .* Sept?: too late/)
    .first()
    .waitFor()
  await page.getByRole('heading', { name: 'What was done' }).waitFor()
  for (const screen of ['Treatments', 'Scouting', 'Outcomes', 'Weather', 'Bloom', 'Site']) {
    await goTo(page, screen)
    await page.getByText('You look at 2025, a past season.').waitFor()
  }
  await page.reload()
  await page.getByText('You look at 2025, a past season.').waitFor()
  await press(page, 'Back to 2026')
  await goTo(page, 'Windows')
  await page.getByRole('heading', { name: 'What still reaches it' }).waitFor()
})

test('all sites stand in one place, each with what presses there', async () => {
  await places()
  await page.getByRole('link', { name: 'All sites' }).click()
  await page.getByRole('heading', { name: '2 sites' }).waitFor()
  await page.getByText('Nothing is watched here this season.').waitFor()
  await page.getByRole('link', { name: 'Codling moth' }).waitFor()
  await expectAccessible(page, 'all sites')
})

test('a site is archived, then removed, and brought back', async () => {
  await open('site')
  await press(page, 'Archive it')
  await page.getByText('This site is archived: it can be looked at only.').waitFor()
  await press(page, 'Remove it')
  await page.getByRole('button', { name: /^Lower Terrace, season/ }).waitFor()
  await page.getByText('Hollin Bench is removed.').waitFor()
  await press(page, 'Undo')
  await places()
  await page.getByRole('link', { name: 'Hollin Bench, archived' }).click()
  await press(page, 'Take it up again')
  await page.getByText('This site is archived').waitFor({ state: 'detached' })
})

test('somebody of another site joins this one, is changed, leaves and comes back', async () => {
  await open('site')
  await press(page, 'Add a person')
  await choose(page, 'Who', 'Tovah Lindqvist')
  await choose(page, 'Role', 'applicator: counts, treatments, the shelf')
  await press(page, 'Save')
  const line = page.getByRole('listitem').filter({ hasText: 'Tovah Lindqvist' })
  await line.getByText('applicator').waitFor()
  await press(page, 'Edit Tovah Lindqvist')
  await page.getByText('Holds an applicator’s licence').click()
  await press(page, 'Save')
  await line.getByText('applicator, licensed').waitFor()
  await press(page, 'Tovah Lindqvist leaves the site')
  await line.waitFor({ state: 'detached' })
  await press(page, 'Undo')
  await line.waitFor()
})

test('a site is found on the outline of the earth, by the arrows or by coordinates, and its time zone follows', async () => {
  await page.goto(new URL('/start', page.url()).href)
  await press(page, 'Find it on a map, or by this device')
  const earth = page.getByRole('application', { name: /^The earth/ })
  await earth.waitFor()
  const box = (await earth.boundingBox())!
  // 46° N, 119° W: the earth is twice as wide as high, and fills the height.
  const degree = box.height / 180
  await earth.click({ position: { x: box.width / 2 - 119.3 * degree, y: (90 - 46.2) * degree } })
  const latitude = page.getByRole('textbox', { name: 'Latitude' })
  await expect.poll(async () => Math.round(Number(await latitude.inputValue()))).toBeGreaterThan(43)
  await page.getByRole('button', { name: /Los Angeles, America/ }).waitFor()
  await latitude.fill('41° 54′ N, 12° 30′ E')
  await page.getByRole('button', { name: /Rome, Europe/ }).waitFor()
  const before = Number(await latitude.inputValue())
  await earth.focus()
  await page.keyboard.press('ArrowUp')
  await expect.poll(async () => Number(await latitude.inputValue())).toBeCloseTo(before + 1, 1)
  await expectAccessible(page, 'the map')
})
