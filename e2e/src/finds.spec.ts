import { fileURLToPath } from 'node:url'
import { endpoints } from '@bocado/contract'
import type { Application } from '@bocado/server/testing/application'
import { done, type TestSite } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { expect, test } from 'vitest'
import { openBrowser } from './browser.js'
import { choose, enterNumber, expectAccessible, fileChooser, press } from './page.js'
import { setStage, type Stage } from './stage.js'

/* What somebody without an account found: from the board at the gate to a flag, and nothing of it counts before a person let it in. */

const { finds, flags } = endpoints
const PHOTO = fileURLToPath(new URL('../../server/src/testing/point.jpg', import.meta.url))

let app: Application
let place: TestSite
let page: Page
let open: Stage['open']
setStage(
  hourlyFile(2025, '2026-06-12'),
  () => Promise.resolve(),
  (stage) => ({ app, place, page, open } = stage),
)
const at = () => ({ siteId: place.site.id })
const as = () => ({ person: place.person })

test('who leads the site makes a link, and a board to print', async () => {
  await open('site')
  await press(page, 'Make a link and its board')
  await page.getByRole('textbox', { name: 'Where it hangs, or whom it goes to' }).fill('Board at the bridge')
  await choose(page, 'Near', 'Old Apples')
  await press(page, 'Save')
  await page.getByRole('link', { name: 'The board of Board at the bridge, to print' }).click()
  await page.getByRole('heading', { name: 'Seen something that should not grow here?' }).waitFor()
  const [link] = done(await app.call(finds.links, at(), {}, as()))
  await page.getByText(link!.code.match(/.{4}/g)!.join(' ')).waitFor()
  await expectAccessible(page, 'the board')
})

test('whoever passes types the code on a phone and sends what they found, without an account', async () => {
  const [link] = done(await app.call(finds.links, at(), {}, as()))
  const phone = await openBrowser({ width: 390, height: 844 })
  const visitor = await phone.context.newPage()
  await visitor.goto(`${app.address}/found`)
  await visitor.getByRole('textbox', { name: 'Code on the board' }).fill('2222 2222 2222')
  await press(visitor, 'Go on')
  await visitor.getByText('Nobody takes finds by this code any more.', { exact: false }).waitFor()
  await visitor.getByRole('textbox', { name: 'Code on the board' }).fill(link!.code.toUpperCase().match(/.{4}/g)!.join(' '))
  // At the gate the signal comes and goes: it is asked again by itself.
  await phone.context.setOffline(true)
  await press(visitor, 'Go on')
  await visitor.getByText('Looking whose code it is').waitFor()
  await phone.context.setOffline(false)
  await visitor.getByRole('heading', { name: 'Found something at Hollin Bench?' }).waitFor()
  await press(visitor, 'Send it')
  await visitor.getByText('say what you found, or add a photo').waitFor()
  await (await fileChooser(visitor, 'Add a photo')).setFiles(PHOTO)
  await visitor.getByRole('textbox', { name: 'What do you take it for?' }).fill('balsam, I think')
  await visitor.getByRole('textbox', { name: 'Where it is, and how much of it' }).fill('left bank, about 20')
  await expectAccessible(visitor, 'what was found')
  expect(await visitor.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  // Without signal it is tried again by itself; what was typed outlives a page that goes meanwhile.
  await phone.context.setOffline(true)
  await press(visitor, 'Send it')
  await visitor.waitForTimeout(1500)
  await phone.context.setOffline(false)
  await visitor.getByRole('heading', { name: 'Thank you' }).waitFor()
  await press(visitor, 'Send another one')
  await visitor.getByRole('textbox', { name: 'What do you take it for?' }).fill('and a broom')
  await visitor.waitForTimeout(800)
  await visitor.goto(`${app.address}/found#${link!.code}`)
  await visitor.reload()
  await visitor.getByRole('heading', { name: 'Found something at Hollin Bench?' }).waitFor()
  expect(await visitor.getByRole('textbox', { name: 'What do you take it for?' }).inputValue()).toBe('and a broom')
  await phone.close()
  expect(done(await app.call(flags.list, at(), {}, as())).flags).toEqual([])
})

test('it waits, is said in the morning, and is put away, taken back and let in', async () => {
  await open('today')
  await page.getByRole('link', { name: 'One find by somebody else waits to be looked at' }).click()
  const inbox = page.getByTestId('public-finds')
  await inbox.getByText('Takes it for: balsam, I think').waitFor()
  await inbox.getByRole('img', { name: /^Photo of the find of/ }).waitFor()
  await expectAccessible(page, 'the inbox')
  await press(page, 'Put the find of Fri 12 Jun away')
  await page.getByRole('status').getByText('Put away. Its photo goes after a month.').waitFor()
  await press(page, 'Undo')
  await press(page, 'Let the find of Fri 12 Jun in as a flag')
  await choose(page, 'What stands there', 'Himalayan balsam')
  await enterNumber(page, 'Plants', 20)
  await inbox.getByRole('button', { name: 'Let it in as a flag', exact: true }).click()
  await page.getByText('#1 Himalayan balsam').waitFor()
  await inbox.waitFor({ state: 'detached' })
  const [flag] = done(await app.call(flags.list, at(), {}, as())).flags
  expect(flag).toMatchObject({
    organismId: 'himalayan-balsam',
    last: { plants: 20, note: 'Board at the bridge: balsam, I think: left bank, about 20' },
  })
})
