import { endpoints } from '@bocado/contract'
import { done, GRANULE } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { afterEach, describe, expect, test } from 'vitest'
import { choose, expectAccessible, press } from './page.js'
import { setStage, type Stage } from './stage.js'

/* Who reaches what: by few presses of a key, in every theme, large on a small window, on paper, and with the words explained. */

const { watches, treatments, blocks } = endpoints
const SEASON = '2026-01-01'

let page: Page
let open: Stage['open']
setStage(
  hourlyFile(2020, '2026-06-12'),
  async ({ app, at, place, as }) => {
    const corn = done(await app.call(blocks.create, at, { name: 'Long Corn', kind: 'field', areaHa: 6 }, as))
    const watch = { blockId: place.blockId, season: SEASON }
    done(await app.call(watches.create, at, { ...watch, organismId: 'codling-moth', biofix: '2026-05-14' }, as))
    for (const organismId of ['apple-scab', 'european-red-mite', 'oriental-fruit-moth'])
      done(await app.call(watches.create, at, { ...watch, organismId }, as))
    for (const organismId of ['european-corn-borer', 'lambsquarters'])
      done(await app.call(watches.create, at, { blockId: corn.id, season: SEASON, organismId }, as))
    done(await app.call(treatments.addProduct, at, GRANULE, as))
    for (const plants of [3, 7, 12])
      done(
        await app.call(
          endpoints.flags.add,
          at,
          { organismId: 'himalayan-balsam', placeId: place.blockId, seenOn: '2026-06-01', sight: 'standing', plants },
          as,
        ),
      )
    for (const name of ['Gate trap', 'Lane trap'])
      done(await app.call(endpoints.traps.add, at, { name, blockId: place.blockId, organismId: 'codling-moth', hungOn: '2026-04-20' }, as))
  },
  (stage) => ({ page, open } = stage),
)
afterEach(() => page.emulateMedia({ media: 'screen', colorScheme: 'light' }))

const SCREENS = [
  'today',
  'site',
  'weather',
  'bloom',
  'scouting',
  'scouting?panel=traps',
  'scouting?panel=flags',
  'windows',
  'windows?as=table',
  'schedule/prevention?panel=winter',
  'schedule/season',
  'alerts',
  'treatments',
  'library',
  'library/organisms/codling-moth',
]

/** What can be reached with the Tab key within a number of presses, F6 to the next part of the screen counted among them. */
async function reached(most: number): Promise<Set<string>> {
  const found = new Set<string>()
  for (let parts = 0; parts < most; parts++) {
    await page.evaluate(() => document.getElementById('screen')!.focus())
    for (let i = 0; i < parts; i++) await page.keyboard.press('F6')
    const hasComeRound = await page.evaluate(() => {
      const at = document.activeElement as HTMLElement
      const isSeen = at.dataset['part'] === 'seen'
      at.dataset['part'] = 'seen'
      return isSeen
    })
    if (hasComeRound) break
    for (let i = parts; i < most; i++) {
      await page.keyboard.press('Tab')
      const at = await page.evaluate(() => document.activeElement?.getAttribute('data-stop'))
      if (at) found.add(at)
    }
  }
  return found
}

describe('by keyboard', () => {
  test.each(SCREENS)('every action of %s is at most 15 presses away', async (screen) => {
    await open(screen)
    await page.locator('#screen h1, #screen h2').locator('visible=true').first().waitFor()
    await page.evaluate(() => {
      const all = document.querySelectorAll<HTMLElement>('#screen :is(a[href], button, input, textarea, select, [tabindex="0"])')
      const stops = [...all].filter((one) => one.tabIndex >= 0 && !one.matches(':disabled') && one.getClientRects().length > 0)
      stops.forEach((one, i) => one.setAttribute('data-stop', String(i)))
    })
    const found = [...(await reached(15))]
    const missed = await page.evaluate((known) => {
      const isKnown = (one: Element): boolean => known.includes(one.getAttribute('data-stop') ?? '')
      // Within rows that are alike, and within a date or a choice, it is the arrows that go on.
      const isWithin = (one: Element): boolean => {
        const lists = ['ul', 'table', '[role=radiogroup]', '[role=group]', '[data-rows]'].flatMap((name) => one.closest(name) ?? [])
        return lists.some((list) => [...list.querySelectorAll('[data-stop]')].some(isKnown))
      }
      return [...document.querySelectorAll('[data-stop]')]
        .filter((one) => !isKnown(one) && !isWithin(one))
        .map((one) => one.outerHTML.slice(0, 120))
    }, found)
    expect(missed).toEqual([])
  })

  test('rows that are alike are one stop, and the arrows go from one to the next', async () => {
    await open('windows')
    const row = (name: RegExp) => page.getByRole('group', { name: /^Watches/ }).getByRole('button', { name })
    await row(/Codling moth/).focus()
    await page.keyboard.press('ArrowDown')
    const next = await page.evaluate(() => document.activeElement!.textContent)
    expect(next).not.toContain('Codling moth')
    await page.keyboard.press('ArrowUp')
    expect(await page.evaluate(() => document.activeElement!.textContent)).toContain('Codling moth')
  })

  test('a day is typed digit by digit, and the field keeps its focus while the day’s hours come', async () => {
    await open('weather?panel=day')
    await page.getByRole('group', { name: 'Day', exact: true }).getByRole('spinbutton').first().click()
    await page.keyboard.type('26052026', { delay: 60 })
    await page.getByRole('heading', { name: 'Hours of Tue 26 May' }).waitFor()
    expect(await page.evaluate(() => document.activeElement?.getAttribute('role'))).toBe('spinbutton')
  })

  test('Ctrl+Z takes back one’s own last act, or says why not', async () => {
    await open('site')
    await page.keyboard.press('Control+z')
    await page
      .getByRole('status')
      .getByText(/there is nothing to take back/)
      .waitFor()
    await press(page, 'Edit Long Corn')
    await page.getByRole('textbox', { name: 'What grows there' }).fill('sweet corn')
    await press(page, 'Save')
    await page.getByText('sweet corn').waitFor()
    await page.keyboard.press('Control+z')
    await page.getByRole('status').getByText('Taken back.').waitFor()
    await page.getByText('sweet corn').waitFor({ state: 'detached' })
    await press(page, 'Add a block')
    await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Slip')
    await choose(page, 'Kind of place', 'field')
    await press(page, 'Save')
    await page.getByRole('button', { name: 'Edit Slip' }).waitFor()
    await page.keyboard.press('Control+z')
    await page.getByRole('button', { name: 'Edit Slip' }).waitFor({ state: 'detached' })
  })
})

describe('a word of the field', () => {
  test('is explained where it stands, by key, and all of them on a page', async () => {
    await open('windows')
    const word = page.locator('#screen').getByRole('button', { name: 'biofix', exact: true }).first()
    await word.focus()
    await page.keyboard.press('Enter')
    await page.getByText(/^The day from which heat is counted/).waitFor()
    await expectAccessible(page, 'a term')
    await page.keyboard.press('Escape')
    await open('library/words')
    await page.getByText(/^A part that is left untreated/).waitFor()
  })
})

describe('a page', () => {
  test('is named after what it shows', async () => {
    const titles: Record<string, RegExp> = {
      windows: /^[^·]+, Old Apples|Long Corn · Hollin Bench/,
      'library/organisms/codling-moth': /^Codling moth · /,
      scouting: /^Scouting · /,
      treatments: /^Treatments · /,
    }
    for (const [screen, title] of Object.entries(titles)) {
      await open(screen)
      await expect.poll(() => page.title()).toMatch(title)
    }
  })

  test('prints without what is pressed, with its head, its filter and the day, and the picture on one sheet', async () => {
    await open('windows?find=moth')
    await page.getByTestId('band').waitFor()
    await page.evaluate(() => window.dispatchEvent(new Event('beforeprint')))
    await page.emulateMedia({ media: 'print' })
    expect(await page.locator('#screen [data-rac]:not(.on-paper-too):visible').count()).toBe(0)
    expect(await page.locator('header:visible').count()).toBe(0)
    await page.getByText(/Old Apples.*season 2026, “moth”, printed 12 Jun 2026/).waitFor()
    const band = (await page.getByTestId('band').boundingBox())!
    expect(band.width).toBeLessThanOrEqual(980)
    expect(band.height).toBeLessThan(720)
  })
})

describe('in every theme', () => {
  test('the page wears what the system wishes, and what was chosen over it', async () => {
    const worn = () => page.evaluate(() => document.documentElement.dataset['theme'])
    await page.emulateMedia({ colorScheme: 'dark' })
    await open('windows')
    expect(await worn()).toBe('dark')
    await press(page, 'How this page looks')
    await page.getByRole('radio', { name: 'sunlight' }).click()
    expect(await worn()).toBe('sunlight')
    await page.getByRole('radio', { name: 'as the system' }).click()
    expect(await worn()).toBe('dark')
    await page.keyboard.press('Escape')
    await page.emulateMedia({ colorScheme: 'light' })
    await expect.poll(worn).toBe('day')
  })

  test.each(['dark', 'sunlight'])('nothing serious is found by axe: %s', async (theme) => {
    await page.evaluate((chosen) => localStorage.setItem('bocado.theme', chosen), theme)
    for (const screen of SCREENS) {
      await open(screen)
      await page.locator('#screen h1, #screen h2').locator('visible=true').first().waitFor()
      await expectAccessible(page, `${theme}: ${screen}`)
    }
    await page.evaluate(() => localStorage.removeItem('bocado.theme'))
  })
})

test('nothing is cut; twice as large, everything stands below each other', async () => {
  const before = page.viewportSize()!
  for (const screen of SCREENS) {
    await open(screen)
    expect(await page.evaluate(() => document.scrollingElement!.scrollWidth - window.innerWidth), screen).toBeLessThanOrEqual(0)
  }
  await page.setViewportSize({ width: 640, height: 400 })
  for (const screen of [...SCREENS, 'overview']) {
    await open(screen)
    await page.locator('#screen h1, #screen h2').locator('visible=true').first().waitFor()
    expect(await page.evaluate(() => document.scrollingElement!.scrollWidth - window.innerWidth), screen).toBeLessThanOrEqual(0)
  }
  await page.setViewportSize(before)
})

test('who may only look is told before anything is pressed', async () => {
  await open('site')
  await choose(page, 'Working as', 'Packing-house buyer, viewer')
  await page.getByText('You are here as a viewer: everything can be looked at, nothing changed.').waitFor()
  expect(await page.getByRole('button', { name: 'Remove Long Corn' }).isDisabled()).toBe(true)
  await press(page, 'Edit Long Corn')
  expect(await page.getByRole('button', { name: 'Save' }).isDisabled()).toBe(true)
  await press(page, 'Cancel')
})
