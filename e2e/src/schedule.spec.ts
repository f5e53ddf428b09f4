import { endpoints } from '@bocado/contract'
import { done, GRANULE } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { afterEach, expect, test } from 'vitest'
import { choose, enterNumber, expectAccessible, goTo, press } from './page.js'
import { setStage, type Stage } from './stage.js'

/* The schedule: two weeks on one board, what stands in the way, moving, who sees to it, at a desk and on a phone. */

const { rules, treatments, watches } = endpoints
const SEASON = '2026-01-01'

let page: Page
let stage: Stage
setStage(
  hourlyFile(2024, '2026-06-12'),
  async ({ app, at, place, as }) => {
    const watch = { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: '2026-05-14' }
    const watchId = done(await app.call(watches.create, at, watch, as)).id
    const hung = { name: 'Gate trap', blockId: place.blockId, organismId: 'codling-moth', hungOn: '2026-05-01' }
    done(await app.call(endpoints.traps.add, at, hung, as))
    const closed = {
      name: 'Blossom market',
      kind: 'closed-days',
      act: 'spraying',
      whose: 'own',
      fromDay: '06-16',
      untilDay: '06-16',
    } as const
    done(await app.call(rules.add, at, closed, as))
    const notice = { name: 'School beside it', kind: 'notice', act: 'spraying', whose: 'own', amount: 2 } as const
    done(await app.call(rules.add, at, notice, as))
    const product = done(await app.call(treatments.addProduct, at, { ...GRANULE, ways: ['spray'], reEntryHours: 30 }, as))
    for (const plannedOn of ['2026-06-14', '2026-08-12'])
      done(await app.call(treatments.plan, at, { watchId, productId: product.id, plannedOn }, as))
  },
  (set) => {
    stage = set
    page = set.page
  },
)
afterEach(() => page.setViewportSize({ width: 1280, height: 800 }))

const board = () => page.getByTestId('schedule-board')
const deed = () => board().locator('button[data-kind=deed]')
const panel = () => page.getByTestId('schedule-task')
const plannedOn = async (): Promise<string | undefined> => {
  const { app, at, as } = stage
  return done(await app.call(treatments.list, at, { season: SEASON }, as))[0]?.plannedOn
}

test('what is planned, looked at and worked stands in one row a block, and what stands in the way is said with what to do', async () => {
  await stage.open('today')
  await goTo(page, 'Schedule')
  await board().waitFor()
  await expectAccessible(page, 'schedule')
  await press(page, 'Add work')
  await page.getByRole('textbox', { name: 'What is done' }).fill('Thin the fruit')
  await choose(page, 'Where', 'Old Apples')
  await page.getByRole('spinbutton', { name: /day/ }).first().fill('15')
  await expectAccessible(page, 'work that is added')
  await press(page, 'Save')
  const work = board().getByRole('button', { name: /^Thin the fruit, Old Apples, Mon 15 Jun/ })
  await work.click()
  await panel()
    .getByText(/^Thin the fruit on Mon 15 Jun: .*of Sun 14 Jun keeps people out for 30 hours/)
    .waitFor()
  await expectAccessible(page, 'a chosen task')
  await press(page, 'It is done')
  await panel().getByRole('button', { name: 'Not done after all' }).waitFor()
  // What was done was done on its day, today: nothing keeps it out any more.
  await expect
    .poll(() =>
      panel()
        .getByText(/keeps people out/)
        .count(),
    )
    .toBe(0)
})

test('what is planned is moved by the arrow keys, a closed day takes it not, and Ctrl+Z brings it back', async () => {
  await deed().focus()
  await page.keyboard.press('ArrowRight')
  await panel()
    .getByText(/Mon 15 Jun/)
    .first()
    .waitFor()
  await page.keyboard.press('ArrowRight')
  await panel()
    .getByText(/Blossom market closes Tue 16 Jun/)
    .waitFor()
  expect(await panel().getByRole('button', { name: 'Move to Tue 16 Jun' }).isDisabled()).toBe(true)
  expect(await board().locator('[data-there=refused]').count()).toBe(1)
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Enter')
  await page.getByText(/is moved to Wed 17 Jun/).waitFor()
  expect(await plannedOn()).toBe('2026-06-17')
  await page.keyboard.press('Control+z')
  await expect.poll(plannedOn).toBe('2026-06-14')
})

test('it is dragged, and a day that a rule closes gives it back with the word', async () => {
  // The page has it back on its day only a moment after the server.
  await board()
    .getByRole('button', { name: /^Granule C, Codling moth, Old Apples, Sun 14 Jun/ })
    .waitFor()
  const from = await deed().boundingBox()
  const wide = ((await board().locator('.days').nth(1).boundingBox())?.width ?? 0) / 14
  const drag = async (days: number) => {
    await page.mouse.move(from!.x + 20, from!.y + 10)
    await page.mouse.down()
    await page.mouse.move(from!.x + 20 + (days * wide) / 2, from!.y + 12, { steps: 3 })
    await page.mouse.move(from!.x + 20 + days * wide, from!.y + 12, { steps: 3 })
    await page.mouse.up()
  }
  await drag(2)
  await page.getByText(/is closed by a rule of this place, Blossom market/).waitFor()
  expect(await plannedOn()).toBe('2026-06-14')
  await board()
    .getByRole('button', { name: /^Granule C, Codling moth, Old Apples, Sun 14 Jun/ })
    .waitFor()
  await drag(4)
  await expect.poll(plannedOn).toBe('2026-06-18')
})

test('who sees to it, and when neighbours were told, is said in one place; by person it stands in their row', async () => {
  await panel()
    .getByText(/tell neighbours 2 days before it \(School beside it\)/)
    .waitFor()
  await press(page, 'Say who sees to it')
  await choose(page, 'Who sees to it', 'Marit Solheim')
  await page.getByRole('textbox', { name: 'Machine' }).fill('mist blower')
  await enterNumber(page, 'Minutes of work', 90)
  const told = page.getByRole('group', { name: 'Neighbours told on' })
  for (const [part, value] of [
    ['day', '12'],
    ['month', '6'],
    ['year', '2026'],
  ] as const)
    await told.getByRole('spinbutton', { name: new RegExp(part, 'i') }).fill(value)
  await expectAccessible(page, 'who sees to it')
  await press(page, 'Save')
  await panel().getByText('Marit Solheim, mist blower, 90 minutes, neighbours told 12 Jun', { exact: false }).waitFor()
  expect(
    await panel()
      .getByText(/tell neighbours/)
      .count(),
  ).toBe(0)
  await page.getByRole('radio', { name: 'person' }).click()
  await board().getByRole('region', { name: 'Marit Solheim' }).locator('button[data-kind=deed]').waitFor()
  await board().getByRole('region', { name: 'Nobody yet' }).waitFor()
  await page.getByRole('radio', { name: 'block' }).click()
})

test('on a phone it is a list, and a day later is two presses', async () => {
  await page.setViewportSize({ width: 390, height: 844 })
  await stage.open('schedule')
  await board().waitFor()
  await deed().click()
  await expectAccessible(page, 'schedule on a phone')
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(390)
  await press(page, 'A day later')
  await press(page, 'Move to Fri 19 Jun')
  await expect.poll(plannedOn).toBe('2026-06-19')
})

test('the same group against the next generation is told, on the board and where it is planned', async () => {
  await stage.open('schedule?from=2026-08-03')
  await deed().click()
  await panel()
    .getByText(/group granulosis-virus acts against the generation or spray before or after it, too/)
    .waitFor()
  await panel().getByRole('link', { name: 'Its window' }).click()
  await page
    .getByTestId('rotation-there')
    .getByText(/^Group granulosis-virus was or is to be used against the generation/)
    .waitFor()
})

test('an address that was typed wrong shows the weeks from today, and on a window that is less wide nothing stands beside it', async () => {
  await stage.open('schedule?from=garbage')
  await board().waitFor()
  await page.getByRole('heading', { name: 'Schedule, 12 to 25 Jun' }).waitFor()
  for (const width of [1279, 1200, 1181]) {
    await page.setViewportSize({ width, height: 800 })
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(width)
  }
})
