import { endpoints } from '@bocado/contract'
import { done, GRANULE } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { afterEach, expect, test } from 'vitest'
import { enterNumber, expectAccessible, press } from './page.js'
import { setStage, type Stage } from './stage.js'

/* Something living: it is ordered in time, looked at when it comes, and put out where it can live. */

const { blocks, treatments, watches } = endpoints
const SEASON = '2026-01-01'

let page: Page
let stage: Stage
setStage(
  hourlyFile(2024, '2026-06-12'),
  async ({ app, at, as }) => {
    const field = done(await app.call(blocks.create, at, { name: 'Onion Flat', kind: 'field', areaHa: 3.1, grows: 'onion' }, as)).id
    const watch = { organismId: 'onion-maggot', blockId: field, season: SEASON, biofix: null }
    const watchId = done(await app.call(watches.create, at, watch, as)).id
    const nematodes = {
      ...GRANULE,
      name: 'Furrow nematodes',
      methods: ['nematodes'],
      strain: 'feltiae',
      formulation: 'living' as const,
      ways: ['drench' as const],
      stages: ['larva'],
      orderDays: 4,
      keepsDays: 7,
    }
    const product = done(await app.call(treatments.addProduct, at, nematodes, as))
    done(await app.call(treatments.plan, at, { watchId, productId: product.id, plannedOn: '2026-06-18' }, as))
  },
  (set) => {
    stage = set
    page = set.page
  },
)
afterEach(() => page.setViewportSize({ width: 1280, height: 800 }))

const there = () => page.getByTestId('living')

test('the morning tells that it has to be ordered, and leads to where that is noted', async () => {
  await stage.open('today')
  await page.getByText('Order Furrow nematodes').waitFor()
  await page.getByRole('link', { name: /See to it: Order Furrow nematodes/ }).click()
  await there().getByText('Order by Sat 13 Jun').waitFor()
  await expectAccessible(page, 'schedule')
  await press(page, 'Ordered today')
  await there().getByText('Ordered Fri 12 Jun.').waitFor()
})

test('what it would live in stands beside it; two readings of a thermometer there move it', async () => {
  const about = async (): Promise<string> => await there().innerText()
  expect(await about()).toContain('Soil there about')
  expect(await about()).toContain('The soil is estimated from the air.')
  for (const reads of [20, 22]) {
    await press(page, 'Type what a thermometer reads there')
    await enterNumber(page, 'Soil reads', reads)
    await press(page, 'Save')
    await page.getByRole('button', { name: 'Type what a thermometer reads there' }).waitFor()
  }
  await there()
    .getByText(/2 readings of a thermometer there/)
    .waitFor()
  // 20 and 22 °F are frozen soil: no larva is found in it.
  await there().getByText('Too cold for it').waitFor()
})

test('it comes, and is looked at under a lens: what is mostly dead is not put out', async () => {
  await press(page, 'It came today')
  await there()
    .getByText(/There since Fri 12 Jun; put it out by Fri 19 Jun/)
    .waitFor()
  await press(page, 'Say how much was alive')
  await enterNumber(page, 'Alive', 30)
  await press(page, 'Save')
  await there()
    .getByText(/Only 30 % were alive/)
    .waitFor()
  await stage.open('today')
  await page.getByText('Ask for Furrow nematodes again').waitFor()
})
