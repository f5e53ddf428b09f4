import { endpoints } from '@bocado/contract'
import { done } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { expect, test } from 'vitest'
import { expectAccessible, press } from './page.js'
import { setStage, type Stage } from './stage.js'

/* One walk on which several things are counted on the same trees. */

const { scouting, watches } = endpoints
const SEASON = '2026-01-01'

let page: Page
let stage: Stage
setStage(
  hourlyFile(2024, '2026-06-12'),
  async ({ app, at, place, as }) => {
    for (const organismId of ['codling-moth', 'apple-scab'])
      done(await app.call(watches.create, at, { organismId, blockId: place.blockId, season: SEASON, biofix: '2026-05-14' }, as))
    const hung = { name: 'Gate trap', blockId: place.blockId, organismId: 'codling-moth', hungOn: '2026-05-01' }
    done(await app.call(endpoints.traps.add, at, hung, as))
  },
  (set) => {
    stage = set
    page = set.page
  },
)

test('the walk says what to look at today and why, and prints with a sheet to tally on', async () => {
  await stage.open('scouting?panel=walk')
  await page.getByRole('heading', { name: /things to look at today/ }).waitFor()
  await page.getByText('Count Codling moth').waitFor()
  await page
    .getByText(/its window is open; not looked at yet/)
    .first()
    .waitFor()
  await page.getByText('Check Gate trap').waitFor()
  await expectAccessible(page, 'the walk')
  await page.emulateMedia({ media: 'print' })
  expect(await page.locator('table:visible td').count()).toBeGreaterThan(20)
  await page.emulateMedia({ media: 'screen' })
  expect(await page.locator('table:visible').count()).toBe(0)
  await page.getByRole('link', { name: 'Count Codling moth, Old Apples' }).click()
  await page.getByRole('heading', { name: /^tree 1,/ }).waitFor()
})

test('scab is counted along with codling moth, ends by itself, and each is a count of its own', async () => {
  await page.setViewportSize({ width: 390, height: 844 })
  const all = done(await stage.app.call(watches.list, stage.at, { season: SEASON }))
  const codling = all.find(({ organismId }) => organismId === 'codling-moth')!
  await stage.open(`scouting/${codling.id}/count`)
  await press(page, 'Count along: Apple scab')
  const scab = page.getByRole('group', { name: 'Apple scab' })
  await expectAccessible(page, 'two counts on one walk')
  await press(page, 'One more: fresh entry')
  await scab
    .getByRole('button', { name: /^One more/ })
    .first()
    .click()
  await page.getByRole('button', { name: /^Next tree/ }).click()
  await scab.getByText('2 trees, 10 spurs on each.').waitFor()
  // What is tallied along survives a reload, in its place.
  await page.reload()
  await page.getByRole('heading', { name: /^tree 2,/ }).waitFor()
  await scab
    .getByRole('button', { name: /^One more/ })
    .first()
    .click()
  await page.getByRole('button', { name: /^Next tree/ }).click()
  await press(page, 'Enough of Apple scab')
  await scab.getByText('2 trees, 10 spurs on each.').waitFor()
  await press(page, 'One more: fresh entry')
  await press(page, 'Save the count')
  await page.getByRole('heading', { name: 'Scouting' }).waitFor()
  await expect
    .poll(async () =>
      done(await stage.app.call(scouting.list, stage.at, { season: SEASON })).map(({ watchId, units }) => [
        watchId === codling.id,
        units.length,
      ]),
    )
    .toEqual(
      expect.arrayContaining([
        [true, 3],
        [false, 2],
      ]),
    )
})

test('a tree that was looked at for one of them only is not asked about; what is corrected stays by itself', async () => {
  const all = done(await stage.app.call(watches.list, stage.at, { season: SEASON }))
  const codling = all.find(({ organismId }) => organismId === 'codling-moth')!
  const [round] = done(await stage.app.call(scouting.list, stage.at, { season: SEASON })).filter(({ watchId }) => watchId === codling.id)
  await stage.open(`scouting/${codling.id}/count?round=${round!.id}`)
  await page.getByRole('button', { name: 'One more: fresh entry' }).waitFor()
  expect(await page.getByRole('button', { name: /^Count along/ }).count()).toBe(0)
  await page.setViewportSize({ width: 1280, height: 800 })
})
