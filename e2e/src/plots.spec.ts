import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { endpoints } from '@bocado/contract'
import type { Application } from '@bocado/server/testing/application'
import { done, type TestSite } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { expect, test } from 'vitest'
import { openBrowser, signIn } from './browser.js'
import { choose, enterDate, enterNumber, expectAccessible, press, show, tabTo, takeWay } from './page.js'
import { setStage, type Stage } from './stage.js'

/* Plots that are looked at year after year, with the last photo over what the camera sees; and what is planted in place of a weed. */

const { plots, replacement, schedule } = endpoints
const PHOTO = readFileSync(fileURLToPath(new URL('../../server/src/testing/point.jpg', import.meta.url))).toString('base64')
const BALSAM = 'himalayan-balsam'

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
const known = async () => done(await app.call(plots.list, at(), {}, as()))

test('a plant that is wanted is planned in place of a weed, with its amount, and stands on the schedule', async () => {
  await open('scouting?panel=flags')
  await page.getByRole('link', { name: 'Plots, and what grows instead' }).click()
  await page.getByText('A plot is a square that you find again', { exact: false }).waitFor()
  await show(page, 'What grows instead')
  await press(page, 'Add a plant that is wanted')
  await page.getByRole('textbox', { name: 'Plant', exact: true }).fill('Tufted sedge')
  await enterNumber(page, 'Spacing', 25)
  await press(page, 'Save')
  await press(page, 'Plan a planting')
  await choose(page, 'Where', 'Old Apples')
  await choose(page, 'In place of', 'Himalayan balsam')
  await enterDate(page, 'On', '2026-09-20')
  await choose(page, 'Plant 1', 'Tufted sedge')
  await press(page, 'Save')
  await page.getByText('enter the area', { exact: false }).waitFor()
  await enterNumber(page, 'Ground', 100)
  await expectAccessible(page, 'what grows instead')
  await press(page, 'Save')
  await page.getByText(/Tufted sedge: \d+ plants/).waitFor()
  const { plans } = done(await app.call(replacement.list, at(), {}, as()))
  expect(plans).toHaveLength(1)
  await page.getByText(`Tufted sedge: ${plans[0]!.lines[0]!.plants!.toLocaleString('en-GB')} plants`).waitFor()
  const { jobs } = done(await app.call(schedule.read, at(), { season: '2026-01-01' }, as()))
  expect(jobs.map(({ name, plannedOn }) => [name, plannedOn])).toEqual([['Tufted sedge in place of Himalayan balsam', '2026-09-20']])
})

test('a plot is marked out so that it is found again', async () => {
  await open('scouting/plots')
  await press(page, 'Mark out a plot')
  await choose(page, 'Where it lies', 'Old Apples')
  await choose(page, 'Weeds that are looked at', 'Himalayan balsam')
  await choose(page, 'Wanted plants that are looked at', 'Tufted sedge')
  await enterNumber(page, 'Paces', 24)
  await press(page, 'Save')
  await page.getByText('say from where the paces are counted').waitFor()
  await page.getByRole('textbox', { name: 'From what one goes there' }).fill('the post at the bridge')
  await enterNumber(page, 'Bearing', 85)
  await expectAccessible(page, 'a plot that is marked out')
  await press(page, 'Save')
  await page.getByRole('button', { name: 'Plot 1, Old Apples', exact: true }).click()
  await page.getByText('From the post at the bridge, bearing 85°, 24 paces.').waitFor()
  const [plot] = (await known()).plots
  const look = { plotId: plot!.id, lookedOn: '2025-06-10', covers: [{ of: 'weed' as const, id: BALSAM, cover: '25-50' as const }] }
  done(await app.call(plots.look, at(), { ...look, photo: { jpeg: PHOTO, takenOn: '2025-06-10' } }, as()))
})

test('a year later it is due; the last photo lies over what the camera sees, without signal as well', async () => {
  await open('today')
  await page.getByText('Look at one plot').waitFor()
  const phone = await openBrowser({ width: 390, height: 844 })
  await signIn(phone.context, app, place.person)
  const field = await phone.context.newPage()
  const [plot] = (await known()).plots
  await field.goto(`${app.address}/sites/${place.site.id}/scouting/plots?plot=${plot!.id}`)
  await field.getByRole('img', { name: /^Plot 1 on 10 Jun 2025/ }).waitFor()
  await press(field, 'Look at plot 1, Old Apples')
  await press(field, 'Save')
  await field.getByText('say how much there is').waitFor()
  await phone.context.setOffline(true)
  await press(field, 'Photo with the last one as a ghost')
  await field.getByText('Move until the stakes of both lie on each other.').waitFor()
  const ghost = field.locator('video + img')
  const strength = () => ghost.evaluate((image) => Number((image as HTMLElement).style.opacity))
  expect(await strength()).toBe(0.4)
  await field.getByRole('slider', { name: 'How strongly the last photo is seen' }).press('End')
  expect(await strength()).toBe(1)
  await expectAccessible(field, 'the ghost')
  await press(field, 'Take the photo')
  await field.getByRole('img', { name: 'Your photo' }).waitFor()
  // The camera is let go of with its picture.
  await field.locator('video').waitFor({ state: 'detached' })
  await field.getByRole('radiogroup', { name: 'Cover of Himalayan balsam' }).getByRole('radio', { name: '5–25' }).click()
  await field.getByRole('radiogroup', { name: 'Cover of Tufted sedge' }).getByRole('radio', { name: '1–5' }).click()
  await expectAccessible(field, 'a look at a plot')
  expect(await field.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  await press(field, 'Save')
  await field.getByTestId('unsent-here').waitFor()
  expect((await known()).plots[0]!.looks).toHaveLength(1)
  await phone.context.setOffline(false)
  await field.getByText('Himalayan balsam 5–25 %, Tufted sedge 1–5 %', { exact: false }).first().waitFor()
  const [look] = (await known()).plots[0]!.looks
  expect(look).toMatchObject({ lookedOn: '2026-06-12', covers: [{ cover: '5-25' }, { cover: '1-5' }] })
  expect(look!.photoId).not.toBeNull()
  await phone.close()
})

test('how cover goes stands beside the plots, no surer than they are', async () => {
  await open('scouting/plots')
  await page.getByRole('img', { name: 'Cover in Old Apples by season: Himalayan balsam, Tufted sedge' }).waitFor()
  await page.getByText('Himalayan balsam: 5 % to 25 % of the ground in 2026, in the only plot.').waitFor()
  await expectAccessible(page, 'plots')
})

test('a plant that must not be harmed closes what would harm it, where the way to act is chosen', async () => {
  await open('site')
  await press(page, 'Name a plant that must not be harmed')
  await page.getByRole('textbox', { name: 'Plant', exact: true }).fill('Marsh orchid')
  await choose(page, 'Where it grows', 'Old Apples')
  await press(page, 'Save')
  await page.getByText('choose a day of the year').first().waitFor()
  await enterDate(page, 'First above the ground on', '2026-04-05')
  await enterDate(page, 'Last above the ground on', '2026-08-20')
  await expectAccessible(page, 'plants that must not be harmed')
  await press(page, 'Save')
  await page.getByText('Old Apples: all that must not be harmed is asleep from 21 Aug', { exact: false }).waitFor()
  const season = '2026-01-01'
  const watch = { organismId: 'scotch-broom', blockId: place.blockId, season, biofix: null }
  const { id } = done(await app.call(endpoints.watches.create, at(), watch, as()))
  await open(`windows?watch=${id}`)
  await show(page, 'Ways to act')
  await takeWay(page, 'Mowing again and again')
  await page.getByTestId('rule-there').filter({ hasText: 'Marsh orchid is awake' }).waitFor()
  await page.getByTestId('asleep').first().waitFor()
})

test('a plant that must not be harmed and a look at a plot, by keyboard alone; the sheet of a work day names the plant', async () => {
  const button = (name: string | RegExp) => page.getByRole('button', { name }).first()
  const pick = async (label: string, option: string): Promise<void> => {
    await tabTo(page, button(new RegExp(`${label}$`)))
    await page.keyboard.press('Enter')
    await page.getByRole('option', { name: option, exact: true }).waitFor()
    await page.keyboard.type(option)
    await page.keyboard.press('Enter')
  }
  const day = async (label: string, typed: string): Promise<void> => {
    await tabTo(page, page.getByRole('group', { name: label }).getByRole('spinbutton').first())
    await page.keyboard.type(typed)
  }
  await open('site')
  await tabTo(page, button('Name a plant that must not be harmed'), 300)
  await page.keyboard.press('Enter')
  await tabTo(page, page.getByRole('textbox', { name: 'Plant', exact: true }))
  await page.keyboard.type('Meadow saffron')
  await pick('Where it grows', 'Old Apples')
  await day('First above the ground on', '25022026')
  await day('Last above the ground on', '20062026')
  await tabTo(page, button('Save'))
  await page.keyboard.press('Enter')
  await page.getByText('Meadow saffron', { exact: false }).first().waitFor()
  await open('scouting/plots')
  await tabTo(page, page.getByRole('button', { name: 'Plot 1, Old Apples', exact: true }))
  await page.keyboard.press('Enter')
  await tabTo(page, button('Look at plot 1, Old Apples'))
  await page.keyboard.press('Enter')
  for (const [name, steps] of [
    ['Cover of Himalayan balsam', 2],
    ['Cover of Tufted sedge', 3],
  ] as const) {
    await tabTo(page, page.getByRole('radiogroup', { name }).getByRole('radio').first())
    for (let i = 0; i < steps; i++) await page.keyboard.press('ArrowRight')
    await page.keyboard.press('Space')
  }
  await tabTo(page, button('Save'))
  await page.keyboard.press('Enter')
  await expect.poll(async () => (await known()).plots[0]!.looks.length).toBe(3)
  const flagged = {
    organismId: BALSAM,
    placeId: place.blockId,
    seenOn: '2026-06-10',
    sight: 'standing' as const,
    plants: 6,
    dueOn: '2026-06-12',
  }
  done(await app.call(endpoints.flags.add, at(), flagged, as()))
  await open('scouting?panel=walk')
  await press(page, 'Old Apples: sheet for a work day')
  await page.getByText('Meadow saffron must stay unharmed.').waitFor()
  await page.getByText('It is above the ground from 25 Feb to 20 Jun.').waitFor()
})
