import { readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import { hourlyFile } from '@bocado/server/testing/upload'
import { describe, expect, test } from 'vitest'
import { press } from './page.js'
import { setStage, type Stage } from './stage.js'

/* What a visitor has to fetch before a screen stands, and what happens where a part of it does not come. */

/** kB, gzipped, without fonts. */
const LIMIT = { frame: 250, screen: 350 }

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
