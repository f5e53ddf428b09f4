import { endpoints } from '@bocado/contract'
import { done } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { afterEach, expect, test } from 'vitest'
import { choose, enterNumber, expectAccessible, press } from './page.js'
import { setStage, type Stage } from './stage.js'

/* A fair trial from its plan to its sentence, at a desk and on a phone. */

const { trials, watches } = endpoints

let page: Page
let stage: Stage
let at: { siteId: string }
let as: { person: string }
setStage(
  hourlyFile(2025, '2026-06-12'),
  async ({ app, at: site, place, as: person }) => {
    at = site
    as = person
    const watch = { organismId: 'codling-moth', blockId: place.blockId, season: '2026-01-01', biofix: '2026-05-14' }
    done(await app.call(watches.create, site, watch, person))
  },
  (set) => {
    stage = set
    page = set.page
  },
)
afterEach(() => page.setViewportSize({ width: 1280, height: 800 }))

const says = () => page.getByTestId('trial-says')
/** Which of the twelve the lot named. */
const named = async (): Promise<Set<string>> => {
  const cells = await page.locator('table').first().locator('tbody td:first-child').allInnerTexts()
  return new Set(cells.map((text) => text.replace(/\D/g, '')))
}
const countAll = async (of: (unit: string) => number): Promise<void> => {
  for (let unit = 1; unit <= 12; unit++) await enterNumber(page, `Plant ${unit}`, of(String(unit)))
  await press(page, 'Keep the count')
}

test('how much a trial would find is told before the lot is drawn', async () => {
  await stage.open('outcomes')
  await press(page, 'Plan a fair trial')
  await page.getByTestId('power').waitFor()
  const before = await page.getByTestId('power').innerText()
  await enterNumber(page, 'Found on one before, about', 1)
  await page.getByText(/Take more pairs, or units with more on them\./).waitFor()
  expect(await page.getByTestId('power').innerText()).not.toBe(before)
  await page.getByRole('textbox', { name: 'Name of the trial' }).fill('Soap or water')
  await choose(page, 'A way that is known', 'Picking by hand')
  expect(await page.getByRole('textbox', { name: 'What is tried' }).inputValue()).toBe('Picking by hand')
  await page.getByRole('textbox', { name: 'What is tried' }).fill('Soap, both leaf sides')
  await choose(page, 'Where', 'Old Apples')
  await enterNumber(page, 'Judged after', 0)
  await expectAccessible(page, 'a trial being planned')
  await press(page, 'Draw the lot')
  await page.getByRole('link', { name: 'Soap or water' }).click()
  await page.getByText('Next: count all of them, before anything is done.').waitFor()
})

test('counted before, treated, counted on its day by hand and eye: one sentence says what it found', async () => {
  await page.setViewportSize({ width: 390, height: 844 })
  const treated = await named()
  expect(treated.size).toBe(6)
  await countAll((unit) => 20 + Number(unit))
  await page.getByText('Next: treat what the lot named, and leave the others.').waitFor()
  await press(page, 'It is treated')
  await page.getByText('Next: count all of them again. That count decides, and no other.').waitFor()
  await page.getByRole('heading', { name: 'Count all of them again' }).waitFor()
  await expectAccessible(page, 'a trial on a phone')
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  await countAll((unit) => (treated.has(unit) ? 5 : 24))
  await says()
    .getByText(/^It worked: about \d\d % fewer than on neighbours that were left/)
    .waitFor()
})

test('a count that forgets one is refused by it, and nothing is stored', async () => {
  await stage.open('outcomes')
  await press(page, 'Plan a fair trial')
  await page.getByRole('textbox', { name: 'Name of the trial' }).fill('Cover or none')
  await page.getByRole('textbox', { name: 'What is tried' }).fill('Fleece')
  await choose(page, 'Where', 'Old Apples')
  await choose(page, 'What is looked at', 'whether it lives')
  await enterNumber(page, 'Pairs', 3)
  await enterNumber(page, 'Judged after', 0)
  await press(page, 'Draw the lot')
  await page.getByRole('link', { name: 'Cover or none' }).click()
  await press(page, 'It is treated')
  await page.getByRole('heading', { name: 'See which of them live' }).waitFor()
  await press(page, 'Keep the count')
  await page.getByText('Not looked at yet: Plant 1, Plant 2, Plant 3, Plant 4, Plant 5, Plant 6.').waitFor()
  const [stored] = done(await stage.app.call(trials.list, at, {}, as)).filter(({ name }) => name === 'Cover or none')
  expect(stored?.after).toBeNull()
  for (const unit of [1, 2, 3, 4, 5, 6])
    await page
      .getByRole('radiogroup', { name: `Plant ${unit}` })
      .getByText('lives')
      .click()
  await press(page, 'Keep the count')
  await says()
    .getByText(/^It cannot be told: of the pairs that differ/)
    .waitFor()
})
