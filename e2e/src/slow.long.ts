import { endpoints } from '@bocado/contract'
import { done } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { expect, test } from 'vitest'
import { openBrowser, signIn } from './browser.js'
import { setStage, type Stage } from './stage.js'

/* On a phone four times as slow as this machine. */

const { flags, scouting, watches } = endpoints
const SEASON = '2026-01-01'
const MANY = 2000
const SLOWER = 4

let page: Page
let stage: Stage
let watchId: string
setStage(
  hourlyFile(2024, '2026-06-12'),
  async ({ app, at, place, as }) => {
    const watch = { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: '2026-05-14' }
    watchId = done(await app.call(watches.create, at, watch, as)).id
    done(await app.call(scouting.create, at, { watchId, countedOn: '2026-06-05', units: [{}, {}] }, as))
    // A row each is written as the service writes it once; the rest are copies of it, spread over the ground.
    const pin = { organismId: 'himalayan-balsam', placeId: place.blockId, position: { latitude: 46.2, longitude: -119.3 } }
    done(await app.call(flags.add, at, { ...pin, seenOn: '2026-06-01', sight: 'standing', plants: 4 }, as))
    await app.database.query(
      `INSERT INTO flag (id, site_id, organism_id, place_id, number, latitude, longitude, changed_by)
       SELECT UUID(), f.site_id, f.organism_id, f.place_id, n.seq + 1, 46.195 + 0.01 * RAND(n.seq), -119.305 + 0.01 * RAND(n.seq + 7), f.changed_by
       FROM flag f JOIN seq_1_to_${MANY - 1} n WHERE f.site_id = ?`,
      [at.siteId],
    )
    await app.database.query(
      `INSERT INTO flag_visit (id, site_id, flag_id, season, seen_on, sight, plants, changed_by)
       SELECT UUID(), f.site_id, f.id, '2026-01-01', '2026-06-01', 'standing', 3, f.changed_by
       FROM flag f LEFT JOIN flag_visit v ON v.flag_id = f.id WHERE f.site_id = ? AND v.id IS NULL`,
      [at.siteId],
    )
  },
  (set) => {
    stage = set
    page = set.page
  },
)

/** How many times slower than this machine the page is. */
const atSpeed = async (rate: number): Promise<void> => {
  const session = await page.context().newCDPSession(page)
  await session.send('Emulation.setCPUThrottlingRate', { rate })
}

/** The middle of several times. */
const middle = (times: readonly number[]): number => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)] ?? NaN

test('a tally tap shows within 50 ms', async () => {
  await atSpeed(SLOWER)
  await stage.open(`scouting/${watchId}/count`)
  const more = page.getByRole('button', { name: 'One more: fresh entry' })
  await more.waitFor()
  const times = await more.evaluate(async (button) => {
    const count = button.parentElement!.querySelector('.count')!
    const all: number[] = []
    for (let i = 0; i < 12; i++) {
      // A thumb that counts comes down some five times a second.
      await new Promise((on) => setTimeout(on, 200))
      const before = count.textContent
      const from = performance.now()
      button.dispatchEvent(
        new PointerEvent('pointerdown', { bubbles: true, button: 0, pointerType: 'touch', pointerId: 1, isPrimary: true }),
      )
      button.dispatchEvent(new PointerEvent('pointerup', { bubbles: true, button: 0, pointerType: 'touch', pointerId: 1, isPrimary: true }))
      button.dispatchEvent(new MouseEvent('click', { bubbles: true, detail: 1 }))
      while (count.textContent === before) await new Promise(requestAnimationFrame)
      all.push(performance.now() - from)
    }
    return all
  })
  console.log(`tally at ${SLOWER}× slower: ${middle(times).toFixed(0)} ms`)
  expect(middle(times)).toBeLessThan(50)
})

test(`the map with ${MANY} flags moves within the frame's time`, async () => {
  await atSpeed(1)
  await stage.open('scouting?panel=flags')
  const map = page.getByRole('region', { name: /flags/i }).first()
  await map.waitFor()
  await page.locator('canvas').first().waitFor()
  const box = (await map.boundingBox())!
  await page.evaluate(() => {
    const w = window as unknown as { frames: number[] }
    w.frames = []
    let last = performance.now()
    const tick = (): void => {
      const now = performance.now()
      w.frames.push(now - last)
      last = now
      requestAnimationFrame(tick)
    }
    requestAnimationFrame(tick)
  })
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  for (let i = 0; i < 40; i++) await page.mouse.move(box.x + box.width / 2 + i * 3, box.y + box.height / 2 + i)
  await page.mouse.up()
  const frames = await page.evaluate(() => (window as unknown as { frames: number[] }).frames)
  console.log(`map of ${MANY} flags: middle frame ${middle(frames).toFixed(1)} ms, longest ${Math.max(...frames).toFixed(0)} ms`)
  expect(frames.length).toBeGreaterThan(20)
  expect(middle(frames)).toBeLessThan(20)
})

test('5,000 simulated rounds of a plan take under 2 s, and end when nobody waits for them any more', async () => {
  await atSpeed(1)
  await stage.open(`scouting/${watchId}/count`)
  await page.getByRole('button', { name: 'Why these lines' }).click()
  const from = Date.now()
  // Six truths of 2,000 rounds each.
  await page.getByText(/^Simulated: 2,000 counts/).waitFor()
  const took = Date.now() - from
  console.log(`12,000 rounds: ${took} ms`)
  expect((took * 5000) / 12_000).toBeLessThan(2000)
  expect(page.workers().length).toBeLessThan(2)
  await page.getByRole('button', { name: 'Why these lines' }).click()
  await expect.poll(() => page.workers().length).toBe(0)
})

test('the application opens without network in under 2 s, and on a phone four times as slow in a few', async () => {
  const { context, close } = await openBrowser({ width: 390, height: 844 }, true)
  try {
    await signIn(context, stage.app, stage.place.person)
    const address = `${stage.app.address}/sites/${stage.place.site.id}/scouting`
    const first = await context.newPage()
    await first.goto(address)
    await first.evaluate(() => navigator.serviceWorker.ready.then(() => undefined))
    await first.reload()
    await first.getByRole('link', { name: 'Count now' }).first().waitFor()
    await first.waitForLoadState('networkidle')
    // What was read is written into the browser's store a moment later.
    await first.waitForTimeout(3000)
    await first.close()
    const ended = new Promise((resolve) => stage.app.process.once('exit', resolve))
    stage.app.process.kill('SIGKILL')
    await ended

    const opened = async (rate: number): Promise<number> => {
      const phone = await context.newPage()
      await (await context.newCDPSession(phone)).send('Emulation.setCPUThrottlingRate', { rate })
      const from = Date.now()
      await phone.goto(address, { waitUntil: 'commit' })
      await phone.getByRole('link', { name: 'Count now' }).first().waitFor()
      await phone.close()
      return Date.now() - from
    }
    const times = { here: [] as number[], phone: [] as number[] }
    for (let i = 0; i < 3; i++) times.here.push(await opened(1))
    for (let i = 0; i < 3; i++) times.phone.push(await opened(SLOWER))
    console.log(`opened without network: ${times.here.join(', ')} ms, at ${SLOWER}× slower ${times.phone.join(', ')} ms`)
    expect(middle(times.here)).toBeLessThan(2000)
    expect(middle(times.phone)).toBeLessThan(6000)
  } finally {
    await close()
  }
})
