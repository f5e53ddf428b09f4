import { endpoints } from '@bocado/contract'
import { done, GRANULE } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { expect, test } from 'vitest'
import { choose, enterNumber, expectAccessible, goTo, press, show } from './page.js'
import { setStage, type Stage } from './stage.js'

/* Programmes: steps in their order, beside each other, and what comes up of them in the morning. */

const { programmes, treatments, watches } = endpoints
const SEASON = '2026-01-01'

let page: Page
let stage: Stage
let watchId: string
setStage(
  hourlyFile(2024, '2026-06-12'),
  async ({ app, at, place, as }) => {
    const watch = { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: '2026-05-14' }
    watchId = done(await app.call(watches.create, at, watch, as)).id
    done(await app.call(treatments.addProduct, at, { ...GRANULE, ways: ['spray'] }, as))
  },
  (set) => {
    stage = set
    page = set.page
  },
)

test('a programme is typed step by step; what is missing is said at its step', async () => {
  await stage.open(`windows?watch=${watchId}`)
  await show(page, 'Programme')
  await press(page, 'Begin a programme')
  await page.getByRole('textbox', { name: 'What it is called' }).fill('Sweep the orchard')
  await press(page, 'Save')
  const first = page.getByRole('group', { name: 'Step 1' })
  await first.getByText('choose a product, or a method by hand').waitFor()
  await choose(page, 'With what', 'Gathering fallen and infested fruit')
  await enterNumber(page, 'Again after', 7)
  await enterNumber(page, 'Ends after empty looks', 3)
  for (const [year, visits] of [6, 4, 2].entries()) await enterNumber(page, `Visits in year ${year + 1}`, visits)
  await enterNumber(page, 'Bags a visit', 4)
  await enterNumber(page, 'Hours a visit', 3)
  await expectAccessible(page, 'a programme')
  await press(page, 'Save')
  await page.getByText(/^1\. .*at once, every 7 days until 3 looks in a row found nothing/).waitFor()
  await page.getByText(/due since Thu 1 Jan/).waitFor()
})

test('two stand side by side over three years; what nobody said is not made up', async () => {
  const [product] = done(await stage.app.call(treatments.products, stage.at, {}))
  const spray = { productId: product!.id, when: { kind: 'window' }, visits: [2, 2, 2], money: 90 }
  const input = { name: 'Virus alone', steps: [spray] } as never
  done(await stage.app.call(programmes.add, { ...stage.at, watchId }, input, stage.as))
  const sums = page.getByTestId('programme-sums')
  await sums.getByText('Virus alone').waitFor()
  const row = async (name: string) =>
    (
      await sums
        .getByRole('row', { name: new RegExp(`^${name}`) })
        .locator('td')
        .allInnerTexts()
    ).join(' | ')
  expect(await row('Visits')).toBe('12 | 6')
  expect(await row('Hours')).toBe('36 | not known')
  expect(await row('Bags')).toBe('48 | not known')
  expect(await row('Money')).toBe('not known | 540')
})

test('a followed one comes up in the morning until it is planned', async () => {
  await press(page, 'Follow Sweep the orchard')
  await page.getByText('followed', { exact: true }).waitFor()
  await goTo(page, 'Today')
  const line = page.getByTestId('today-lines').locator('li').filter({ hasText: 'against Codling moth' })
  await line.getByText(/^programme · Sweep the orchard, step 1/).waitFor()
  await line.getByRole('link').click()
  await page.waitForURL(/windows/)
  await show(page, 'Programme')
  await page.getByRole('button', { name: /^Plan step 1 of Sweep the orchard, / }).click()
  await press(page, 'Plan it')
  await expect.poll(async () => done(await stage.app.call(treatments.list, stage.at, { season: SEASON })).length).toBe(1)
  await goTo(page, 'Today')
  await page.getByTestId('today-lines').locator('li').filter({ hasText: 'in Old Apples' }).first().waitFor()
  expect(await line.count()).toBe(0)
})

test('a step waits for a bloom until somebody sees it', async () => {
  await stage.open(`windows?watch=${watchId}`)
  await show(page, 'Programme')
  await press(page, 'Begin a programme')
  await page.getByRole('textbox', { name: 'What it is called' }).fill('After the elder')
  await choose(page, 'With what', 'Gathering fallen and infested fruit')
  await choose(page, 'When', 'after a bloom was seen')
  for (const year of [1, 2, 3]) await enterNumber(page, `Visits in year ${year}`, 1)
  await press(page, 'Save')
  await page.getByRole('group', { name: 'Step 1' }).getByText('choose the bloom').waitFor()
  await choose(page, 'Bloom', 'Elderberry, full bloom')
  await enterNumber(page, 'Days after', 3)
  await press(page, 'Save')
  const step = page.getByText(/3 days after Elderberry, full bloom is seen/)
  await step.getByText('waits for what nobody knows yet').waitFor()
  const seen = { plantId: 'elderberry', event: 'full-bloom', seenFrom: '2026-06-10' } as const
  done(await stage.app.call(endpoints.bloom.add, stage.at, seen as never, stage.as))
  await step.getByText('due Sat 13 Jun').waitFor()
})
