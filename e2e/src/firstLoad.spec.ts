import { readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import { endpoints } from '@bocado/contract'
import { done } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { describe, expect, test } from 'vitest'
import { press } from './page.js'
import { setStage, type Stage } from './stage.js'

/* What a visitor has to fetch before a screen stands, and what happens where a part of it does not come. */

/** kB, gzipped, without fonts. The frame begins without the schemas of the contract. */
const LIMIT = { frame: 200, screen: 330 }

const dist = new URL('../../web/dist/', import.meta.url)

interface Part {
  file: string
  imports?: string[]
  isDynamicEntry?: boolean
}

describe('the first load', () => {
  const parts = JSON.parse(readFileSync(new URL('.vite/manifest.json', dist), 'utf8')) as Record<string, Part>
  const needed = (name: string, known = new Set<string>()): Set<string> => {
    if (known.has(name)) return known
    known.add(name)
    for (const next of parts[name]?.imports ?? []) needed(next, known)
    return known
  }
  const kilobytes = (names: Iterable<string>): number =>
    [...new Set([...names].map((name) => parts[name]!.file))]
      .map((file) => gzipSync(readFileSync(new URL(file, dist))).length / 1000)
      .reduce((sum, size) => sum + size, 0)
  const frame = needed('index.html')

  test(`of the frame is at most ${LIMIT.frame} kB`, () => {
    expect(kilobytes(frame)).toBeLessThanOrEqual(LIMIT.frame)
  })

  const screens = Object.keys(parts).filter((name) => parts[name]!.isDynamicEntry && name.endsWith('Screen.tsx'))
  test.each(screens)(`of %s is at most ${LIMIT.screen} kB`, (name) => {
    expect(kilobytes(new Set([...frame, ...needed(name)]))).toBeLessThanOrEqual(LIMIT.screen)
  })
  test('is that of each screen by itself', () => expect(screens.length).toBeGreaterThanOrEqual(9))
})

describe('a screen whose code does not come', () => {
  let page: Stage['page']
  let open: Stage['open']
  setStage(
    hourlyFile(2025, '2026-06-12'),
    () => Promise.resolve(),
    (stage) => void ({ page, open } = stage),
  )

  test('says so, leaves the frame standing, and comes when it is tried again', async () => {
    await page.route(/\/assets\/OutcomesScreen/, (route) => route.abort())
    await open('scouting')
    await page.getByRole('link', { name: 'Outcomes' }).first().click()
    await page.getByText('This screen did not come').waitFor()
    await page.getByRole('link', { name: 'Scouting' }).first().waitFor()
    await page.unroute(/\/assets\/OutcomesScreen/)
    await press(page, 'Try again')
    await page.getByRole('heading', { name: 'Outcomes' }).waitFor()
  })

  test('is there without a connection once the page has stood for a while', async () => {
    const came = page.waitForResponse(/\/assets\/TreatmentsScreen/)
    await open('scouting')
    await came
    await page.context().setOffline(true)
    await page.getByRole('link', { name: 'Treatments' }).first().click()
    await expect.poll(() => page.url()).toContain('/treatments')
    expect(await page.getByText('This screen did not come').count()).toBe(0)
    await page.context().setOffline(false)
    await page.locator('#screen h1').waitFor()
  })

  test('takes nothing away that is an aid: without the strip the windows stand', async () => {
    await page.route(/\/assets\/SeasonStrip/, (route) => route.abort())
    await open('windows')
    await page.getByRole('heading', { name: /watch/ }).first().waitFor()
    await page.unroute(/\/assets\/SeasonStrip/)
  })
})

describe('over a weak net (1.6 Mbit/s, 300 ms)', () => {
  let page: Page
  let stage: Stage
  setStage(
    hourlyFile(2024, '2026-06-12'),
    async ({ app, at, place, as }) => {
      const watch = { organismId: 'codling-moth', blockId: place.blockId, season: '2026-01-01', biofix: '2026-05-14' }
      done(await app.call(endpoints.watches.create, at, watch, as))
    },
    (set) => {
      stage = set
      page = set.page
    },
  )

  test('the site with its screens stands first, its windows soon after, and both sooner again', async () => {
    const address = `${stage.app.address}/sites/${stage.place.site.id}/windows`
    const title = page.getByRole('heading', { name: /^One watch|^1 watch|watch/ }).first()
    // What the server reckons once is reckoned before.
    await page.goto(address)
    await title.waitFor()
    const cdp = await page.context().newCDPSession(page)
    await cdp.send('Network.enable')
    await cdp.send('Network.emulateNetworkConditions', {
      offline: false,
      latency: 300,
      downloadThroughput: 1_600_000 / 8,
      uploadThroughput: 750_000 / 8,
    })
    const frame = page.getByRole('link', { name: 'Windows' }).first()
    /** Until the site with its screens stands, and until the windows do. */
    const seconds = async (): Promise<[frame: number, windows: number]> => {
      await page.goto('about:blank')
      const from = Date.now()
      const passed = (): number => (Date.now() - from) / 1000
      await page.goto(address, { waitUntil: 'commit' })
      await frame.waitFor()
      const framed = passed()
      await title.waitFor()
      return [framed, passed()]
    }
    // A machine that is busy beside it is no weak net: the best of a few tries counts.
    const best = async (tries: number, before: () => Promise<unknown>): Promise<[frame: number, windows: number]> => {
      const all: [number, number][] = []
      for (let i = 0; i < tries; i++) {
        await before()
        all.push(await seconds())
      }
      return [Math.min(...all.map(([frame]) => frame)), Math.min(...all.map(([, windows]) => windows))]
    }
    const first = await best(3, () => cdp.send('Network.clearBrowserCache'))
    const again = await best(4, () => Promise.resolve())
    // Measured on two quiet cores: 3.0, 3.6 and 1.7 s. What is wanted is 3.5 s at first and 2 s again; a busy machine gets more.
    expect(first[0]).toBeLessThan(4)
    expect(first[1]).toBeLessThan(5)
    expect(again[1]).toBeLessThan(2.5)
    await cdp.detach()
  })
})
