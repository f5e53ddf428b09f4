import { endpoints } from '@bocado/contract'
import { done } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { afterEach, expect, test } from 'vitest'
import { choose, expectAccessible, goTo, press } from './page.js'
import { setStage, type Stage } from './stage.js'

/* Before it comes: the day of sowing against what comes to the crop, covers, ground, and work between two seasons. */

const { blocks, crops, schedule, watches } = endpoints
const SEASON = '2026-01-01'

let page: Page
let stage: Stage
let flat: string
setStage(
  hourlyFile(2024, '2026-06-12'),
  async ({ app, at, as }) => {
    flat = done(await app.call(blocks.create, at, { name: 'Onion Flat', kind: 'field', areaHa: 3.1 }, as)).id
    done(await app.call(blocks.create, at, { name: 'Long Corn', kind: 'field', areaHa: 8 }, as))
    done(await app.call(watches.create, at, { organismId: 'onion-maggot', blockId: flat, season: SEASON, biofix: null }, as))
    const onion = { placeId: flat, crop: 'onion', standsFrom: '2025-04-01', standsUntil: '2025-08-20' }
    done(await app.call(crops.add, at, onion, as))
  },
  (set) => {
    stage = set
    page = set.page
  },
)
afterEach(() => page.setViewportSize({ width: 1280, height: 800 }))

const says = () => page.getByTestId('sowing-says')
const slider = () => page.getByTestId('sowing-day')
const jobs = async () => done(await stage.app.call(schedule.read, stage.at, { season: SEASON }, stage.as)).jobs

test('a crop and a place are chosen, and the day with the least is shown with what it rests on', async () => {
  await stage.open('schedule')
  await page.getByRole('link', { name: 'Before it comes' }).click()
  await page.getByText('Choose a crop and where it is to stand').waitFor()
  await choose(page, 'Crop', 'Leek')
  await choose(page, 'Where', 'Onion Flat')
  await page.getByRole('radio', { name: '2027' }).click()
  await says().waitFor()
  await says()
    .getByText(/Onion of the same family stood in that soil/)
    .waitFor()
  await expectAccessible(page, 'prevention')
  await press(page, 'What this rests on')
  await page.getByText('Onion maggot: by its model').waitFor()
})

test('the crop is moved along the season by the keys and by the pointer', async () => {
  const before = await slider().getAttribute('aria-valuenow')
  await slider().focus()
  await page.keyboard.press('PageUp')
  await page.keyboard.press('ArrowLeft')
  await expect.poll(() => slider().getAttribute('aria-valuenow')).toBe(String(Number(before) + 6))
  const box = (await slider().boundingBox())!
  await page.mouse.move(box.x + 24, box.y + 24)
  await page.mouse.down()
  await page.mouse.move(box.x + 124, box.y + 24, { steps: 5 })
  await page.mouse.up()
  await expect.poll(async () => Number(await slider().getAttribute('aria-valuenow'))).toBeGreaterThan(Number(before) + 15)
})

test('over soil in which it winters no cover is advised, elsewhere one is, and put on the schedule by a press', async () => {
  await page.getByRole('radio', { name: '2026' }).click()
  await page.getByTestId('sowing-plans').getByRole('button').first().click()
  await says()
    .getByText(/Onion maggot winters in that soil/)
    .waitFor()
  await choose(page, 'Where', 'Long Corn')
  await page.getByTestId('sowing-plans').getByRole('button').first().click()
  await page.getByRole('button', { name: /^Put on the schedule: (Sow|Plant out) leek/ }).click()
  await page
    .getByText(/^On the schedule for/)
    .first()
    .waitFor()
  expect((await jobs()).map(({ kind, name }) => [kind, name])).toEqual([['sowing', expect.stringContaining('leek')]])
  await press(page, 'Undo')
  await expect.poll(async () => (await jobs()).length).toBe(0)
})

test('a sowing of the next season is put on the schedule, too, and says so', async () => {
  await page.getByRole('radio', { name: '2027' }).click()
  await page.getByRole('button', { name: /^Put on the schedule: (Sow|Plant out) leek/ }).click()
  await page
    .getByText(/^On the schedule for/)
    .first()
    .waitFor()
  expect((await jobs()).every(({ plannedOn }) => plannedOn.startsWith('2027'))).toBe(true)
  await press(page, 'Undo')
  await expect.poll(async () => (await jobs()).length).toBe(0)
})

test('work between two seasons says where it winters and by when', async () => {
  await page.getByRole('radio', { name: 'Work between seasons' }).click()
  const chores = page.getByTestId('winter-chores')
  await chores.getByText('Onion maggot').waitFor()
  expect(await chores.innerText()).toContain('about again from')
  await chores.getByRole('button').first().click()
  await expect.poll(async () => (await jobs()).map(({ kind }) => kind)).toEqual(['crop-work'])
  await goTo(page, 'Schedule')
})

test('on a phone the picture fits, and the day is moved by the keys of a small board, too', async () => {
  await page.setViewportSize({ width: 390, height: 844 })
  await stage.open(`schedule/prevention?crop=onion&place=${flat}`)
  await says().waitFor()
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  await slider().focus()
  const before = Number(await slider().getAttribute('aria-valuenow'))
  await page.keyboard.press('ArrowRight')
  await expect.poll(async () => Number(await slider().getAttribute('aria-valuenow'))).toBe(before + 1)
})
