import { endpoints } from '@bocado/contract'
import type { Application } from '@bocado/server/testing/application'
import { done, GRANULE, type TestSite } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { expect, test } from 'vitest'
import { choose, expectAccessible, press } from './page.js'
import { setStage } from './stage.js'

/* What must not be harmed by mistake, what must be reported, what flowers where something is treated. */

const { blocks, library, treatments, watches } = endpoints

let app: Application
let place: TestSite
let page: Page
let open: (path: string) => Promise<void>
let thistle: string

setStage(
  hourlyFile(2022, '2026-06-12'),
  async ({ app, at, as }) => {
    const meadow = done(
      await app.call(blocks.create, at, { name: 'Lower Meadow', kind: 'natural-area', grows: 'hay, wild flowers' }, as),
    ).id
    thistle = done(await app.call(watches.create, at, { organismId: 'creeping-thistle', blockId: meadow, season: '2026-01-01' }, as)).id
    const label = { ...GRANULE, name: 'Meadow systemic', methods: ['foliar-systemic'], strain: 'broad-leaved', stages: ['bolt'] }
    done(await app.call(treatments.addProduct, at, { ...label, bees: 'hazardous-in-bloom' as const }, as))
  },
  async (stage) => {
    ;({ app, place, page, open } = stage)
    await open(`windows?watch=${thistle}`)
  },
)

test('nothing is planned against a thistle before it is told from the native ones, by the stem', async () => {
  const apart = page.getByTestId('told-apart')
  await apart.getByRole('heading', { name: 'Is it not native thistles?' }).waitFor()
  expect(await page.getByRole('button', { name: 'Plan it' }).count()).toBe(0)
  await expectAccessible(page, 'told apart')
  await press(page, 'As the other')
  await apart.getByText('which is to be protected: leave it standing').waitFor()
  const checks = done(await app.call(library.checks, { siteId: place.site.id }, { organismId: 'creeping-thistle' }))
  const { id, rowVersion } = checks[0]!
  done(await app.call(library.removeCheck, { siteId: place.site.id, rowId: id }, { rowVersion }, { person: place.person }))
  await page.reload()
  await press(page, 'As Creeping thistle')
  await page.getByRole('button', { name: 'Plan it' }).waitFor()
})

test('whoever has named nothing that flowers there is told to look; what is named with its bloom is said on its day', async () => {
  await page.getByTestId('bees-there').getByText('Nobody has said what flowers in or beside this block').waitFor()
  await open('bloom?panel=plants')
  await press(page, 'Add a plant')
  await press(page, 'hay, wild flowers')
  await expectAccessible(page, 'own plant')
  await press(page, 'Save')
  await page.getByTestId('own-plants').getByText('Flowers of hay, wild flowers, Lower Meadow').waitFor()
  await open('bloom?panel=log')
  await choose(page, 'Plant', 'Flowers of hay, wild flowers, Lower Meadow')
  await press(page, 'Save')
  await page.getByTestId('bloom-log').getByText('Flowers of hay, wild flowers, Lower Meadow').first().waitFor()
  await open(`windows?watch=${thistle}`)
  await page.getByTestId('bees-there').getByText('Flowers of hay, wild flowers, Lower Meadow (until about').waitFor()
})

test('the site’s own list says whom to tell, on the watch and in the library', async () => {
  await open('site')
  await press(page, 'Say whose rules hold here')
  await page.getByRole('textbox', { name: 'Country' }).fill('United States')
  await page.getByRole('textbox', { name: 'State, province or region' }).fill('Washington')
  await press(page, 'Save')
  await page.getByText(/^Nobody has held this list against the rules of Washington, United States yet/).waitFor()
  await press(page, 'It is checked')
  await page.getByText('Held against the rules of Washington, United States on 12 Jun 2026.').waitFor()
  await page.getByRole('button', { name: /to check$/ }).click()
  await press(page, 'Put Creeping thistle on the list')
  await page.getByRole('textbox', { name: 'Whom to tell, and how' }).fill('the county weed office, by photo')
  await expectAccessible(page, 'duties')
  await press(page, 'Save')
  await page.getByText('the county weed office, by photo').first().waitFor()
  await open('library/organisms/creeping-thistle')
  await page.getByTestId('report-duty').getByText('Tell the county weed office, by photo. Do not move, compost or post it.').waitFor()
})
