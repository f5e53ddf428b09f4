import { endpoints } from '@bocado/contract'
import { done, GRANULE } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { afterEach, expect, test } from 'vitest'
import { enterNumber, expectAccessible, goTo, press, show } from './page.js'
import { setStage, type Stage } from './stage.js'

/* A whole season, proposed: the schools beside each other, hours, what is put on the schedule and taken back. */

const { rules, treatments, watches } = endpoints
const SEASON = '2026-01-01'

let page: Page
let stage: Stage
setStage(
  hourlyFile(2024, '2026-06-12'),
  async ({ app, at, place, as }) => {
    const watch = { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: '2026-05-14' }
    done(await app.call(watches.create, at, watch, as))
    done(await app.call(watches.create, at, { organismId: 'plum-curculio', blockId: place.blockId, season: SEASON, biofix: null }, as))
    done(await app.call(treatments.addProduct, at, { ...GRANULE, ways: ['spray'], leastIntervalDays: 7 }, as))
    const closed = { name: 'Market week', kind: 'closed-days', act: 'spraying', whose: 'own', fromDay: '07-20', untilDay: '07-26' } as const
    done(await app.call(rules.add, at, closed, as))
  },
  (set) => {
    stage = set
    page = set.page
  },
)
afterEach(() => page.setViewportSize({ width: 1280, height: 800 }))

const proposals = () => page.getByTestId('season-proposals')
const planned = async () =>
  done(await stage.app.call(treatments.list, stage.at, { season: SEASON }, stage.as)).map(({ plannedOn }) => plannedOn)
const propose = async (): Promise<void> => {
  await page.getByRole('button', { name: /^(Propose|Work it out again)$/ }).click()
  await page.getByRole('button', { name: 'Work it out again' }).waitFor()
}

test('the schools stand beside each other, within seconds, and the chosen one is drawn and listed', async () => {
  await stage.open('schedule')
  await page.getByRole('link', { name: 'Plan the season' }).click()
  await page.getByRole('button', { name: 'Propose' }).waitFor()
  const began = Date.now()
  await page.getByRole('button', { name: 'Propose' }).click()
  await proposals().waitFor()
  expect(Date.now() - began).toBeLessThan(4000)
  await page.getByRole('button', { name: 'Work it out again' }).waitFor()
  expect(await page.getByTestId('schools').locator('tbody tr').count()).toBe(5)
  await expectAccessible(page, 'season')
  expect(await proposals().innerText()).toContain('Codling moth, Old Apples')
})

test('another school asks for other days; what a rule closes is gone round', async () => {
  const mix = await proposals().innerText()
  await show(page, 'heat')
  await page.getByText('On the days that reach the most').waitFor()
  const heat = await proposals().innerText()
  expect(heat).not.toEqual(mix)
  expect(heat).toMatch(/reaches \d+ % of it/)
  expect(heat).not.toMatch(/(20|21|22|23|24|25|26) Jul: .*Granule/)
  await show(page, 'counts')
  await page.getByText('Nothing is asked for by this school.').waitFor()
})

test('with few hours something is left undone and says why', async () => {
  await show(page, 'calendar')
  await enterNumber(page, 'Hours a week', 1)
  await propose()
  await page
    .getByTestId('season-undone')
    .getByText(/the hours of its weeks are taken|labels, harvest, rotation or rules leave no day/)
    .first()
    .waitFor()
})

test('what is ticked goes on the schedule by one press, and is taken back by another', async () => {
  await show(page, 'heat')
  await enterNumber(page, 'Hours a week', 500)
  await propose()
  await proposals().waitFor()
  const before = await planned()
  await page.getByRole('button', { name: /on the schedule$/ }).click()
  await page
    .getByText(/(is|are) on the schedule\./)
    .first()
    .waitFor()
  await expect.poll(async () => (await planned()).length).toBeGreaterThan(before.length)
  await press(page, 'Undo')
  await expect.poll(async () => (await planned()).length).toBe(before.length)
  await goTo(page, 'Schedule')
})

test('on a phone nothing is wider than the screen', async () => {
  await page.setViewportSize({ width: 390, height: 844 })
  await stage.open('schedule/season')
  await propose()
  await proposals().waitFor()
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
})
