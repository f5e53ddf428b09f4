import { endpoints } from '@bocado/contract'
import { done, GRANULE } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { afterEach, expect, test } from 'vitest'
import { enterNumber, expectAccessible, press } from './page.js'
import { setStage, type Stage } from './stage.js'

/* What goes into the tank: by the label, the area and the sprayer, at a desk and on a phone. */

const { treatments, watches } = endpoints

let page: Page
let stage: Stage
setStage(
  hourlyFile(2025, '2026-06-12'),
  async ({ app, at, place, as }) => {
    const watch = { organismId: 'codling-moth', blockId: place.blockId, season: '2026-01-01', biofix: '2026-05-14' }
    const watchId = done(await app.call(watches.create, at, watch, as)).id
    const product = done(await app.call(treatments.addProduct, at, { ...GRANULE, ways: ['spray'], leastVolume: 400 }, as))
    done(await app.call(treatments.plan, at, { watchId, productId: product.id, plannedOn: '2026-06-14' }, as))
  },
  (set) => {
    stage = set
    page = set.page
  },
)
afterEach(() => page.setViewportSize({ width: 1280, height: 800 }))

const says = () => page.getByTestId('mix-says')

test('amounts for the area are worked out by tank, and the sprayer is remembered', async () => {
  await stage.open('treatments')
  await press(page, 'What to mix')
  await page.getByText('Fill in what is missing.').waitFor()
  await enterNumber(page, 'Area', 10)
  await enterNumber(page, 'Spray', 50)
  await enterNumber(page, 'Tank', 200)
  // 10 acres at 50 gal each: 500 gal, of which 200 go into a tank; 4.047 ha at 0.1 L are 0.405 L.
  await says().getByText('In all 0.405 L in 500 gal.').waitFor()
  await says().getByText('2 full tanks, each with 0.162 L; the last one 100 gal with 0.081 L.').waitFor()
  await expectAccessible(page, 'treatments with what to mix')
  await page.reload()
  await press(page, 'What to mix')
  await expect.poll(() => page.getByRole('textbox', { name: 'Tank' }).inputValue()).toBe('200')
})

test('never above the label, and never with less water than it asks for', async () => {
  await enterNumber(page, 'Rate', 0.2)
  await page.getByText('The label allows at most 0.1 L/ha.').waitFor()
  expect(await says().count()).toBe(0)
  await enterNumber(page, 'Rate', 0.1)
  await enterNumber(page, 'Spray', 20)
  await page.getByText(/The label asks for at least 42\.8 gal\/acre of water\./).waitFor()
})

test('what comes out of a nozzle is held against what is wanted; on a phone nothing is wider than the screen', async () => {
  await page.setViewportSize({ width: 390, height: 844 })
  await press(page, 'Check what comes out')
  await enterNumber(page, 'One nozzle gives', 0.8)
  await enterNumber(page, 'Speed', 6)
  await enterNumber(page, 'Between nozzles', 0.5)
  // 160 L/ha are 17.1 gal/acre, where 20 are wanted.
  await page.getByText(/It puts out 17\.1 gal\/acre, 14 % less than is wanted\./).waitFor()
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
})
