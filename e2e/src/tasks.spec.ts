import { endpoints, siteKinds, type SiteKind } from '@bocado/contract'
import { done } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Locator, Page } from 'playwright-core'
import { describe, expect, test } from 'vitest'
import { expectAccessible } from './page.js'
import { setStage, type Stage } from './stage.js'

/*
 * The tasks of a first week, each with the number of actions it takes: a press, a choice from a list, or a field that is filled, as
 * `docs/tasks.md` has them. Walked on a desk, on a phone, twice as large, and by the keyboard alone.
 */

const { blocks, sites, watches } = endpoints

let page: Page
let open: Stage['open']
const WAYS = ['desk', 'phone', 'twice as large', 'keyboard alone'] as const
type Way = (typeof WAYS)[number]
const SIZES: Record<Way, { width: number; height: number }> = {
  desk: { width: 1280, height: 800 },
  phone: { width: 390, height: 844 },
  'twice as large': { width: 640, height: 400 },
  'keyboard alone': { width: 1280, height: 800 },
}
/** A site of each kind, with one block and nothing else. */
const fresh = new Map<SiteKind, string>()
/** A block for each way, in which nothing is watched yet. */
const blockOf = (way: Way): string => `Apples for ${way}`

setStage(
  hourlyFile(2024, '2026-06-01'),
  async ({ app, at, as, place }) => {
    for (const kind of siteKinds) {
      const site = { name: `New ${kind}`, kind, place: 'a terrace', timeZone: 'America/Los_Angeles', units: 'us' } as const
      const { id } = done(await app.call(sites.create, {}, { ...site, latitude: 46.2, longitude: -119.3 }, as))
      done(await app.call(blocks.create, { siteId: id }, { name: 'Trees', kind: 'orchard', areaHa: 0.01, grows: 'apple' }, as))
      fresh.set(kind, `${app.address}/sites/${id}`)
    }
    const watch = { organismId: 'codling-moth', blockId: place.blockId, season: '2026-01-01', biofix: null }
    done(await app.call(watches.create, at, watch, as))
    for (const way of WAYS) done(await app.call(blocks.create, at, { name: blockOf(way), kind: 'orchard', areaHa: 1, grows: 'apple' }, as))
  },
  (stage) => ({ page, open } = stage),
)

/** Does what a person does, and counts it. */
class Hands {
  actions = 0
  constructor(private readonly way: Way) {}

  private async press(target: Locator): Promise<void> {
    if (this.way !== 'keyboard alone') return target.click()
    await target.focus()
    await page.keyboard.press(['option', 'radio'].includes((await target.getAttribute('role')) ?? '') ? 'Space' : 'Enter')
  }

  async button(name: string | RegExp): Promise<void> {
    this.actions++
    await this.press(page.getByRole('button', { name, exact: true }).first())
  }

  async link(name: string): Promise<void> {
    this.actions++
    await this.press(page.getByRole('link', { name }).first())
  }

  async tick(name: RegExp): Promise<void> {
    this.actions++
    await this.press(page.getByRole('option', { name }).first())
  }

  /** Opens a list and takes one of it: one choice. */
  async choose(label: string, option: string | RegExp): Promise<void> {
    this.actions++
    await this.press(page.getByRole('button', { name: new RegExp(`${label}$`) }).first())
    const line = page.getByRole('option', { name: option, exact: true })
    if (this.way === 'keyboard alone') {
      await line.waitFor()
      await page.keyboard.type(typeof option === 'string' ? option : option.source)
      await page.keyboard.press('Enter')
    } else await line.click()
  }

  async fill(label: string, value: string): Promise<void> {
    this.actions++
    const field = page.getByRole('textbox', { name: label, exact: true })
    await field.focus()
    await page.keyboard.press('Control+a')
    await page.keyboard.type(value)
    await field.blur()
  }

  async file(label: string, file: { name: string; mimeType: string; buffer: Buffer }): Promise<void> {
    this.actions++
    const [chooser] = await Promise.all([
      page.waitForEvent('filechooser'),
      this.press(page.getByRole('button', { name: label, exact: true })),
    ])
    await chooser.setFiles(file)
  }
}

describe.each(WAYS)('%s', (way) => {
  const start = async (screen: string): Promise<Hands> => {
    await page.setViewportSize(SIZES[way])
    await open(screen)
    return new Hands(way)
  }
  /** The form stands in the block that is asked for: its choice is no part of the task where that is in view already. */
  const inBlock = async (hands: Hands): Promise<void> => {
    const before = hands.actions
    await hands.choose('Block', blockOf(way))
    hands.actions = before
  }

  test('one watch takes 3 actions', async () => {
    const hands = await start('windows')
    await hands.button('Watch something')
    await inBlock(hands)
    await hands.tick(/^Codling moth/)
    await hands.button('Start watching')
    await page
      .getByText(`Codling moth, ${blockOf(way)}`)
      .first()
      .waitFor({ state: 'attached' })
    expect(hands.actions).toBe(3)
  })

  test('five watches take 7, and all that are proposed take 3', async () => {
    let hands = await start('windows')
    await hands.button('Watch something')
    await inBlock(hands)
    for (const name of [/^Apple scab/, /^European red mite/, /^Oriental fruit moth/, /^Fire blight/, /^Woolly apple aphid/])
      await hands.tick(name)
    await hands.button('Watch these 5')
    await page
      .getByText(`Apple scab, ${blockOf(way)}`)
      .first()
      .waitFor({ state: 'attached' })
    expect(hands.actions).toBe(7)
    hands = await start('windows')
    await hands.button('Watch something')
    await inBlock(hands)
    await hands.button(/^Choose all/)
    await hands.button(/^Watch these/)
    await page
      .getByRole('heading', { name: /watches/ })
      .first()
      .waitFor()
    expect(hands.actions).toBe(3)
  })

  test('a product goes on the shelf in 8, the first in 9', async () => {
    const hands = await start('treatments')
    const isFirst = way === WAYS[0]
    const material = ['Sulphur', 'Copper', 'Kaolin film', 'Horticultural oil'][WAYS.indexOf(way)]!
    await hands.button('Put a product on the shelf')
    await hands.choose('What it is', material)
    await hands.fill('Highest rate', '3')
    if (isFirst) await hands.choose('Unit', 'lb/acre')
    await hands.fill('Re-entry', '24')
    await hands.fill('To harvest', '1')
    await hands.choose('Bees, by the label', 'Bees: nothing said on the label.')
    await hands.fill('Protective gear, by the label', 'gloves')
    await hands.button('Save')
    await page.getByRole('button', { name: `Edit ${material}` }).waitFor()
    expect(hands.actions).toBe(isFirst ? 9 : 8)
  })

  test('a file is in with 3', async () => {
    const hands = await start('weather?panel=readings')
    await hands.link('Import a file')
    const year = 2012 + 2 * WAYS.indexOf(way)
    await hands.file('Choose files', {
      name: `bench-${year}.csv`,
      mimeType: 'text/csv',
      buffer: Buffer.from(hourlyFile(year, `${year}-02-10`)),
    })
    await page.getByText('the start of its hour').first().waitFor()
    await hands.button('Import the whole file')
    await page.getByText(`bench-${year}.csv is in`).waitFor()
    expect(hands.actions).toBe(3)
  })
})

const FIVE = [/^Apple scab/, /^European red mite/, /^Oriental fruit moth/, /^Fire blight/, /^Woolly apple aphid/]

test.each(siteKinds.map((kind, i) => [kind, WAYS[i]!] as const))(
  'a new site, %s, asks what to watch first, and five take 6: %s',
  async (kind, way) => {
    await page.setViewportSize(SIZES[way])
    await page.goto(`${fresh.get(kind)}/windows`)
    await page.waitForLoadState('networkidle')
    await page.getByText('First steps').waitFor()
    await expectAccessible(page, `a new site, ${kind}`)
    const hands = new Hands(way)
    for (const name of FIVE) await hands.tick(name)
    await hands.button('Watch these 5')
    await page.getByText('Apple scab, Trees').first().waitFor({ state: 'attached' })
    expect(hands.actions).toBe(6)
    await page.goto(`${fresh.get(kind)}/site`)
    await page.getByRole('heading', { name: /^One block/ }).waitFor()
    await expectAccessible(page, `the site, ${kind}`)
    expect(await page.evaluate(() => document.scrollingElement!.scrollWidth - window.innerWidth)).toBeLessThanOrEqual(0)
  },
)
