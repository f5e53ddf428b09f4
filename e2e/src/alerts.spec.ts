import { endpoints } from '@bocado/contract'
import { done, GRANULE } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { expect, test } from 'vitest'
import { choose, expectAccessible, press } from './page.js'
import { setStage, type Stage } from './stage.js'

/* Alerts: told by themselves, followed to the deed, seen once, and read by a calendar. */

const { demo, treatments, watches } = endpoints
const SEASON = '2026-01-01'

let page: Page
let stage: Stage
let watchId: string
let productId: string
setStage(
  hourlyFile(2024, '2026-06-12'),
  async ({ app, at, place, as }) => {
    const watch = { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: '2026-05-14' }
    watchId = done(await app.call(watches.create, at, watch, as)).id
    productId = done(await app.call(treatments.addProduct, at, { ...GRANULE, reEntryHours: 4 }, as)).id
    done(await app.call(treatments.plan, at, { watchId, methodId: 'fallen-fruit', plannedOn: '2026-06-20' }, as))
  },
  (set) => {
    stage = set
    page = set.page
  },
)

test('what is worth telling comes by itself, leads to where it is acted on, and once seen is told no more', async () => {
  await stage.open('today')
  await page.getByRole('link', { name: /new alerts?, and how they reach you/ }).waitFor()
  const news = page.getByRole('navigation').first().getByRole('link', { name: 'Today', exact: true })
  expect(await news.getAttribute('aria-description')).toMatch(/new alert/)
  await page.getByRole('link', { name: /new alerts?, and how they reach you/ }).click()
  const all = page.getByTestId('alerts')
  await all.getByRole('link').first().waitFor()
  await expectAccessible(page, 'alerts')
  await press(page, 'Seen')
  await expect.poll(() => page.getByRole('button', { name: 'Seen', exact: true }).count()).toBe(0)
  await expect.poll(() => news.getAttribute('aria-description')).toBeNull()
  await all
    .getByRole('link', { name: /^Codling moth, Old Apples: / })
    .first()
    .click()
  await page.waitForURL(/windows\?watch=|\/count$/)
})

test('a calendar is given a link that is shown once, and ended', async () => {
  await stage.open('alerts')
  await press(page, 'Make a link for a calendar')
  const link = await page.getByTestId('calendar-link').innerText()
  const text = await (await fetch(link)).text()
  expect(text).toContain('DTSTART;VALUE=DATE:20260620')
  await expectAccessible(page, 'a calendar')
  await page.reload()
  await page.getByText(/^A calendar reads since /).waitFor()
  expect(await page.getByTestId('calendar-link').count()).toBe(0)
  await press(page, 'End the link')
  await page.getByRole('button', { name: 'Make a link for a calendar' }).waitFor()
  expect((await fetch(link)).status).toBe(404)
})

test('mail is asked for with an address, and news of the next day comes by it', async () => {
  await stage.open('alerts')
  await choose(page, 'By mail', 'at once')
  await press(page, 'Save')
  await page.getByText('enter a mail address').waitFor()
  await page.getByRole('textbox', { name: 'Mail address' }).fill('marit@hollin.example')
  await choose(page, 'Nothing between', '21:00')
  await choose(page, 'and', '06:00')
  await expectAccessible(page, 'how alerts reach one')
  await press(page, 'Save')
  await page.getByText('Kept.').waitFor()
  done(await stage.app.call(demo.setClock, {}, { now: '2026-06-20T14:30:00Z' }, stage.as))
  const did = { watchId, productId, startedAt: '2026-06-20T08:00:00Z', rate: 0.1, areaHa: 1, weather: {}, note: '' }
  done(await stage.app.call(treatments.recordUnplanned, stage.at, did as never, stage.as))
  await page.getByRole('link', { name: 'Inbox of the demonstration' }).click()
  const letter = page.getByTestId('inbox')
  await letter
    .getByText(/to marit@hollin.example/)
    .first()
    .waitFor()
  await letter.getByText(/- Old Apples: open again after Granule/).waitFor()
  await expectAccessible(page, 'inbox')
})

test('a device that its maker cannot reach says so, and nothing pretends to be on', async () => {
  await page.context().grantPermissions(['notifications'])
  await stage.open('alerts')
  const here = page.getByTestId('on-this-device')
  await here.getByRole('button', { name: 'Let it come to this device' }).click()
  // There is no maker of a browser to be reached from here.
  await here.getByText(/could not be reached|was not allowed to show notices/).waitFor()
  await here.getByRole('button', { name: 'Let it come to this device' }).waitFor()
})

test('an invitation goes by mail to whom it is for', async () => {
  await stage.open('site')
  await press(page, 'Invite somebody')
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Dario Quince')
  await press(page, 'Make the link')
  const link = (await page.getByTestId('link').textContent()) ?? ''
  await page.getByRole('textbox', { name: 'Mail address' }).fill('dario')
  await press(page, 'Send it by mail')
  await page.getByText('enter a mail address').waitFor()
  await page.getByRole('textbox', { name: 'Mail address' }).fill('dario@hollin.example')
  await press(page, 'Send it by mail')
  await page.getByText('It goes to dario@hollin.example. It works once.').waitFor()
  await expectAccessible(page, 'a link that goes by mail')
  await stage.open('inbox')
  const letter = page.getByTestId('inbox')
  await letter.getByText(/to dario@hollin.example/).waitFor()
  await letter.getByText(link.slice(link.indexOf('/come-in')), { exact: false }).waitFor()
})
