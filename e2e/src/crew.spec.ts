import { endpoints } from '@bocado/contract'
import { startApplication, type Application } from '@bocado/server/testing/application'
import { done, GRANULE, startSite, type TestSite } from '@bocado/server/testing/farm'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest'
import { openBrowser, signIn } from './browser.js'
import { choose, enterDate, enterNumber, expectAccessible, press } from './page.js'

/*
 * The people of a farm: a phone that goes from hand to hand, a record that waits for a licence, and somebody who leaves for good.
 */

let app: Application
let place: TestSite
let [desk, phone]: Page[] = []
const closes: (() => Promise<unknown>)[] = []
let scout: string

beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  closes.unshift(() => app.stop())
  place = await startSite(app)
  const first = { name: 'Marit Solheim', signInName: 'marit', password: 'seven grey geese fly', personId: place.person }
  done(await app.call(endpoints.account.begin, {}, first))
  const added = { name: 'Ines Varga', role: 'scout' as const, licensed: false, personId: null }
  const people = done(await app.call(endpoints.sites.addPerson, { siteId: place.site.id }, added, { person: place.person }))
  scout = people.id
  const [one, two] = [await openBrowser(), await openBrowser({ width: 390, height: 844 })]
  closes.unshift(one.close, two.close)
  await signIn(one.context, app, place.person)
  desk = await one.context.newPage()
  phone = await two.context.newPage()
})
afterAll(async () => {
  for (const close of closes) await close()
})
beforeEach(({ task, onTestFailed }) =>
  onTestFailed(async () => {
    await desk!.screenshot({ path: `.data/failed-desk ${task.name.slice(0, 40)}.png`, fullPage: true })
    await phone!.screenshot({ path: `.data/failed-phone ${task.name.slice(0, 40)}.png`, fullPage: true })
  }),
)

test('one sets a code under one’s account; digits that are tried first are refused', async () => {
  await desk!.goto(`${app.address}/account`)
  await press(desk!, 'Set a code')
  await desk!.getByLabel('Code of four digits').fill('1234')
  await press(desk!, 'Set a code')
  await desk!.getByText('choose digits that nobody tries first').waitFor()
  await desk!.getByLabel('Code of four digits').fill('50x81')
  await press(desk!, 'Set a code')
  await desk!.getByText(/^set on/).waitFor()
  await expectAccessible(desk!, 'account')
  done(await app.call(endpoints.account.setCode, {}, { code: '2749' }, { person: scout }))
})

test('a phone is paired by a link that is shown once, and asks who works', async () => {
  await desk!.goto(`${app.address}/sites/${place.site.id}/site`)
  await press(desk!, 'Phones, who left, who changed what')
  await press(desk!, 'Shared phones')
  await press(desk!, 'Pair a phone')
  await desk!.getByLabel(/^Name of the phone/).fill('Barn phone')
  await press(desk!, 'Make the link')
  const link = (await desk!.getByTestId('link').textContent()) ?? ''
  await expectAccessible(desk!, 'a link for a phone')
  await phone!.goto(link)
  await expectAccessible(phone!, 'pairing')
  await press(phone!, 'Share this phone')
  await phone!.getByRole('heading', { name: 'Who works now?' }).waitFor()
  await phone!.getByText(`Barn phone, shared at ${place.site.name}.`, { exact: false }).waitFor()
  await expectAccessible(phone!, 'who works now')
  await press(desk!, 'Done')
  await desk!.getByText(/^paired by Marit Solheim, last seen/).waitFor()
  // The same link opens nothing more.
  await phone!.goto(`${app.address}/account`)
  await phone!.goto(link)
  await press(phone!, 'Share this phone')
  await phone!.getByText('This link paired a phone already.', { exact: false }).waitFor()
})

test('whoever takes it comes in by name and digits, and hands it over', async () => {
  await phone!.goto(`${app.address}/`)
  await press(phone!, 'Ines Varga, scout')
  await phone!.keyboard.type('2740')
  await phone!.getByText('This code is not right.').waitFor()
  await phone!.getByLabel('Code of four digits').fill('2749')
  await phone!.getByRole('button', { name: /^Ines Varga:/ }).click()
  await press(phone!, 'Hand over to somebody else')
  await press(phone!, 'Marit Solheim, owner')
  await phone!.getByLabel('Code of four digits').fill('5081')
  await phone!.getByRole('button', { name: /^Marit Solheim:/ }).waitFor()
  // What a code is not enough for says so.
  await phone!.goto(`${app.address}/sites/${place.site.id}/site`)
  await press(phone!, 'Add a block')
  await phone!.getByText('For this a code is not enough: sign in by your password or passkey.').first().waitFor()
  await phone!.goto(`${app.address}/account`)
  await phone!.getByText('by code, on a shared phone', { exact: false }).first().waitFor()
  await expectAccessible(phone!, 'account by code')
})

test('sent away, it knows nobody any more', async () => {
  await desk!.getByRole('button', { name: 'Send Barn phone away' }).click()
  await expect.poll(() => desk!.getByText(/^paired by Marit Solheim/).count()).toBe(0)
  await phone!.goto(`${app.address}/`)
  await phone!.getByRole('heading', { name: 'Sign in', exact: true }).waitFor()
})

test('a record of what only the licensed may use is a draft; who has a licence signs it, and a correction asks anew', async () => {
  const at = { siteId: place.site.id }
  const as = { person: place.person }
  const watch = { organismId: 'codling-moth', blockId: place.blockId, season: '2026-01-01', biofix: null }
  const watchId = done(await app.call(endpoints.watches.create, at, watch, as)).id
  const label = { ...GRANULE, name: 'Terrace copper', licensedOnly: true }
  const productId = done(await app.call(endpoints.treatments.addProduct, at, label, as)).id
  const used = { watchId, productId, startedAt: '2026-06-10T15:00:00Z', rate: GRANULE.labelRate, areaHa: 0.5, weather: {} }
  done(await app.call(endpoints.treatments.recordUnplanned, at, used, as))
  const page = desk!
  await page.goto(`${app.address}/sites/${place.site.id}/treatments`)
  await page.getByText('Only for licensed applicators.').waitFor()
  await page.getByText('Its label is for licensed applicators', { exact: false }).waitFor()
  expect(await page.getByRole('button', { name: 'Sign the record of Terrace copper' }).count()).toBe(0)
  // The licence is noted where people are.
  await page.goto(`${app.address}/sites/${place.site.id}/site`)
  await press(page, 'Edit Marit Solheim')
  await page.getByText('Holds an applicator’s licence').click()
  await page.getByLabel('Number of the licence').fill('HB 2041')
  await enterDate(page, 'Its last day', '2027-03-31')
  await press(page, 'Save')
  await page.getByText('licensed until 31 Mar 2027', { exact: false }).waitFor()
  await page.goto(`${app.address}/sites/${place.site.id}/treatments`)
  await press(page, 'Sign the record of Terrace copper')
  await page.getByText(/^Signed by Marit Solheim, licence HB 2041/).waitFor()
  await expectAccessible(page, 'signed')
  await press(page, 'Correct the record')
  await page.getByText('It is signed: a correction takes the signature away', { exact: false }).waitFor()
  await page.getByTestId('sentence').getByRole('button', { name: /acres/ }).click()
  await enterNumber(page, 'Area', 1)
  await press(page, 'Record it')
  await page.getByRole('button', { name: 'Sign the record of Terrace copper' }).waitFor()
})

test('whoever left is taken out by name, after a word of warning', async () => {
  await desk!.goto(`${app.address}/sites/${place.site.id}/site`)
  await press(desk!, 'Ines Varga leaves the site')
  await press(desk!, 'Phones, who left, who changed what')
  await press(desk!, 'Who left')
  await press(desk!, 'Take out the name of Ines Varga')
  await desk!.getByText('This cannot be undone.', { exact: false }).waitFor()
  await expectAccessible(desk!, 'taking out a name')
  await press(desk!, 'Take it out for good')
  await desk!.getByText(`no. ${scout.slice(0, 6)} left 12 Jun`, { exact: false }).waitFor()
  await desk!.goto(`${app.address}/sites/${place.site.id}/changes`)
  await press(desk!, 'Who signed in')
  await desk!.getByText('last seen', { exact: false }).first().waitFor()
  expect(await desk!.getByText('Ines Varga').count()).toBe(0)
  await expectAccessible(desk!, 'who signed in')
})

test('one reads it in units and dates of one’s own, and the site keeps its own', async () => {
  await desk!.goto(`${app.address}/account`)
  await choose(desk!, 'Units you read', 'metric')
  // The page is read anew with its dates the other way round.
  const readAnew = desk!.waitForEvent('load')
  await choose(desk!, 'Dates you read', 'month first, Jun 12')
  await readAnew
  await desk!.goto(`${app.address}/sites/${place.site.id}/site`)
  await desk!.getByRole('heading', { name: 'One block, 4.2 ha' }).waitFor()
  await desk!.getByText('US (°F, inches, mph, acres)').waitFor()
  await desk!.getByText('licensed until Mar 31, 2027', { exact: false }).waitFor()
  await press(desk!, 'Change the site')
  await enterNumber(desk!, 'Who changed what is kept', 2)
  await press(desk!, 'Save')
  await desk!.getByText('keep it at least 3 years').waitFor()
  await enterNumber(desk!, 'Who changed what is kept', 7)
  await press(desk!, 'Save')
  await desk!.getByRole('button', { name: 'Change the site' }).waitFor()
  const site = done(await app.call(endpoints.sites.list, {}, {}, { person: place.person })).find(({ id }) => id === place.site.id)
  expect([site?.units, site?.auditYears]).toEqual(['us', 7])
})
