import { endpoints } from '@bocado/contract'
import { done } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { openBrowser, signIn } from './browser.js'
import { choose, enterDate, expectAccessible, press } from './page.js'
import { setStage, type Stage } from './stage.js'

/* Somebody helps for a day: is added with it, sees the work of that day and nothing else, and records it with a thumb. */

const { flags, sites } = endpoints

let stage: Stage
let page: Page
setStage(
  hourlyFile(2025, '2026-06-12'),
  async ({ app, at, place, as }) => {
    for (const plants of [6, 3])
      done(
        await app.call(
          flags.add,
          at,
          { organismId: 'himalayan-balsam', placeId: place.blockId, seenOn: '2026-06-01', sight: 'standing', plants },
          as,
        ),
      )
    const orchid = { placeId: place.blockId, name: 'Marsh orchid', wakesOn: '04-05', sleepsOn: '08-20', harmedBy: ['cutting' as const] }
    done(await app.call(endpoints.companions.add, at, orchid, as))
  },
  (set) => {
    stage = set
    page = set.page
  },
)
let helper: Awaited<ReturnType<typeof openBrowser>>
beforeAll(async () => {
  helper = await openBrowser({ width: 390, height: 844 })
})
afterAll(() => helper.close())

test('a volunteer is added with the day and the blocks', async () => {
  await stage.open('site')
  await press(page, 'Add a person')
  await page.getByRole('textbox', { name: 'Name' }).fill('Tovah Lindqvist')
  await choose(page, 'Role', 'volunteer: helps for one day in some blocks, and sees nothing else')
  await press(page, 'Save')
  await page.getByText('choose at least one block').waitFor()
  await enterDate(page, 'Day', '2026-06-12')
  await choose(page, 'Blocks', 'Old Apples')
  await expectAccessible(page, 'a volunteer')
  // Whoever invites them can look at what they will see, before anything is sent.
  const shown = page.context().waitForEvent('page')
  await page.getByRole('link', { name: 'As volunteers see it' }).click()
  const preview = await shown
  await preview.getByRole('heading', { name: 'Your work today in Old Apples' }).waitFor()
  await preview.getByText('Nothing is recorded from here.', { exact: false }).waitFor()
  await preview.getByText('Marsh orchid (Old Apples) must stay unharmed.').waitFor()
  const acts = preview.getByTestId('help-flags').getByRole('button')
  expect(await acts.count()).toBe(4)
  for (const act of await acts.all()) expect(await act.isDisabled()).toBe(true)
  await expectAccessible(preview, 'what volunteers see')
  await preview.close()
  await press(page, 'Save')
  await page.getByText(/volunteer on Fri 12 Jun only/).waitFor()
})

test('they see what stands there, record it by a tap, and can go nowhere else', async () => {
  const { app, at, as } = stage
  const people = done(await app.call(sites.list, {}, {}, as)).find(({ id }) => id === at.siteId)!.people
  await signIn(helper.context, app, people.find(({ role }) => role === 'volunteer')!.id)
  const phone = await helper.context.newPage()
  await phone.goto(`${app.address}/sites/${at.siteId}/treatments`)
  await phone.getByRole('heading', { name: 'Your work today in Old Apples' }).waitFor()
  expect(await phone.getByRole('navigation').count()).toBe(0)
  await phone.getByRole('heading', { name: '2 flags are left to visit.' }).waitFor()
  await phone.getByRole('heading', { name: /^How to know it: Himalayan balsam/ }).waitFor()
  await expectAccessible(phone, 'the work of a day')
  await press(phone, 'All taken at #1')
  await phone.getByRole('heading', { name: 'One flag is left to visit.' }).waitFor()
  await press(phone, 'Some still stand at #2')
  await phone.getByRole('textbox', { name: 'Plants left' }).fill('1')
  await press(phone, 'Save')
  await phone.getByRole('heading', { name: 'Nothing is left to visit.' }).waitFor()
  await helper.context.setOffline(true)
  await press(phone, 'I found another')
  await phone.getByRole('textbox', { name: 'Plants' }).fill('2')
  await press(phone, 'Save')
  await phone
    .getByTestId('unsent-here')
    .getByText(/Found: not known/)
    .waitFor()
  await helper.context.setOffline(false)
  await phone.getByTestId('help-flags').getByText('#3 not known').waitFor()
  const { flags: all } = done(await app.call(flags.list, at, {}, as))
  expect(all.map(({ state, last }) => [state, last.plants, last.personName]).sort()).toEqual(
    [
      ['none-standing', null, 'Tovah Lindqvist'],
      ['found', 1, 'Tovah Lindqvist'],
      ['found', 2, 'Tovah Lindqvist'],
    ].sort(),
  )
  await phone.goto(`${app.address}/sites/${at.siteId}/unsent`)
  await phone.getByRole('heading', { name: 'Waiting on this device' }).waitFor()
})
