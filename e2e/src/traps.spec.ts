import { endpoints } from '@bocado/contract'
import { done } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { expect, test } from 'vitest'
import { choose, expectAccessible, press } from './page.js'
import { setStage, type Stage } from './stage.js'

/* Traps: hung, checked, and the biofix that their catches show. */

const { traps, watches } = endpoints
const SEASON = '2026-01-01'

let page: Page
let stage: Stage
setStage(
  hourlyFile(2025, '2026-06-12'),
  async ({ app, at, place, as }) => {
    const watch = { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: null }
    done(await app.call(watches.create, at, watch, as))
  },
  (set) => {
    stage = set
    page = set.page
  },
)

const known = async () => done(await stage.app.call(traps.list, stage.at, { season: SEASON }))

/** Types a day into a field of three parts, day first. */
async function typeDay(label: string, digits: string): Promise<void> {
  await page.getByRole('group', { name: label }).getByRole('spinbutton').first().focus()
  await page.keyboard.type(digits)
}

test('a trap is hung where a watch waits for its catches, and its checks are pasted from a notebook', async () => {
  await stage.open('scouting?panel=traps')
  await page.getByText('A trap says when a flight begins').waitFor()
  await press(page, 'Hang a trap')
  await page.getByRole('button', { name: /Codling moth What it catches/ }).waitFor()
  await typeDay('Hung on', '20042026')
  await press(page, 'Lure, position and more')
  await page.getByRole('textbox', { name: 'Lure', exact: true }).fill('pheromone')
  await page.getByRole('textbox', { name: 'It lasts' }).fill('6')
  await press(page, 'Save')
  await page.getByText('Change the lure: it lasted until Mon 1 Jun.').waitFor()
  await page.getByText('Not checked yet this season.').waitFor()
  await press(page, 'Lure of Trap 1 changed today')
  await page.getByText(/pheromone, new/).waitFor()
  await press(page, 'Trap 1, Old Apples: its checks')
  await press(page, 'Several checks at once')
  await page.getByRole('textbox', { name: 'Checks, one a line: day and catch' }).fill('2026-05-08 0\n2026-05-12 4\n2026-05-15 9')
  await press(page, 'Record them')
  await page.getByText('9 caught by Fri 15 May, 3 a day; 13 this season').waitFor()
  await expectAccessible(page, 'traps')
})

test('its first sustained catch is offered as the biofix, and taken', async () => {
  await press(page, 'Take Sun 10 May as the biofix')
  await page.getByRole('button', { name: 'Take Sun 10 May as the biofix' }).waitFor({ state: 'detached' })
  expect((await known())[0]?.watch).toMatchObject({ biofix: '2026-05-10' })
})

test('a check is a number, an empty trap one tap, taken back by another', async () => {
  await press(page, 'Trap 1, Old Apples: nothing caught today')
  await page.getByText('None caught by Fri 12 Jun').waitFor()
  await press(page, 'Undo')
  await page.getByText('9 caught by Fri 15 May').waitFor()
  await press(page, 'Check Trap 1, Old Apples')
  await page.getByRole('textbox', { name: 'Caught since Fri 15 May' }).fill('6')
  await press(page, 'Save')
  await page.getByText('6 caught by Fri 12 Jun').waitFor()
  expect((await known())[0]?.checks.map(({ caught }) => caught)).toEqual([0, 4, 9, 6])
})

test('in mating disruption it says that its silence tells nothing', async () => {
  await press(page, 'Hang a trap')
  await choose(page, 'What it catches', 'Peach twig borer')
  await press(page, 'Lure, position and more')
  await page.getByText('Mating is disrupted where it hangs').click()
  await press(page, 'Save')
  await page.getByRole('heading', { name: 'Trap 2 Old Apples' }).waitFor()
  await page.getByRole('heading', { name: 'Hang a trap' }).waitFor({ state: 'detached' })
  await page.getByText('Mating is disrupted here: no catch is no success').waitFor()
})

test('a counter gets an address and a token, shown once', async () => {
  await press(page, 'Let a counter send')
  const token = (await page.getByTestId('token').textContent()) ?? ''
  const [trap] = await known()
  const sent = await fetch(`${stage.app.address}/api/v1/traps/${trap!.id}/catches`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Authorization: `Bearer ${token}` },
    body: JSON.stringify({ catches: [{ day: '2026-05-20', caught: 2 }] }),
  })
  expect(await sent.json()).toEqual({ new: 1, changed: 0, unchanged: 0 })
  // What it sends comes into the page by itself.
  await page.getByText('21 this season').waitFor()
})

test('on a phone everything is within reach of a thumb, and nothing is wider than the screen', async () => {
  await page.setViewportSize({ width: 390, height: 844 })
  await stage.open('scouting?panel=traps')
  await page.getByRole('button', { name: 'Check Trap 1, Old Apples' }).waitFor()
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  await expectAccessible(page, 'traps on a phone')
  await page.setViewportSize({ width: 1280, height: 800 })
})
