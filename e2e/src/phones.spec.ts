import { endpoints } from '@bocado/contract'
import { startApplication, type Application } from '@bocado/server/testing/application'
import { done, startSite, type TestSite } from '@bocado/server/testing/farm'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest'
import { openBrowser, signIn } from './browser.js'
import { expectAccessible, press } from './page.js'

/* A farm’s phone that goes from hand to hand: paired from the desk, opened by one, handed to another, and sent away. */

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
