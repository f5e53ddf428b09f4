import { fork, type ChildProcess } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { endpoints } from '@bocado/contract'
import { startApplication, type Application } from '@bocado/server/testing/application'
import { done, startSite, type TestSite } from '@bocado/server/testing/farm'
import { hourlyFile, importFile, preview } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest'
import { openBrowser, signIn } from './browser.js'
import { expectAccessible, press, show } from './page.js'

/* What moves by itself: a device pushes, the time of the demonstration goes on, simulated stations follow. */

const { blocks, watches, weather } = endpoints

let app: Application
let place: TestSite
let page: Page
let closeBrowser: () => Promise<void>
let simulators: ChildProcess | undefined

beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z', demo: true })
  // The simulated stations look for the demonstration's site and its two stations.
  place = await startSite(app)
  const other = done(await app.call(weather.addStation, { siteId: place.site.id }, { name: 'River' }, { person: place.person }))
  const file = hourlyFile(2021, '2026-06-12')
  for (const stationId of [place.stationId, other.id]) {
    await importFile(app, { ...place, stationId }, file, (await preview(app, place, file.slice(0, 200_000))).body.mapping)
  }
  const watch = { organismId: 'codling-moth', blockId: place.blockId, season: '2026-01-01', biofix: '2026-05-14' }
  done(await app.call(watches.create, { siteId: place.site.id }, watch, { person: place.person }))
  const browser = await openBrowser()
  closeBrowser = browser.close
  await signIn(browser.context, app, place.person)
  page = await browser.context.newPage()
})
beforeEach(({ task, onTestFailed }) =>
  onTestFailed(async () => void (await page.screenshot({ path: `.data/failed-${task.name.slice(0, 40)}.png`, fullPage: true }))),
)
afterAll(async () => {
  simulators?.kill('SIGKILL')
  await closeBrowser()
  await app.stop()
})

test('a device gets its token on the page, and what it pushes appears without reloading', async () => {
  await page.goto(`${app.address}/sites/${place.site.id}/weather`)
  await show(page, 'Bring readings in')
  await press(page, 'Let a device push')
  const token = await page.getByTestId('token').innerText()
  await page.getByText('A device may push here and has not yet.').waitFor()
  await expectAccessible(page, 'device')
  const response = await fetch(`${app.address}/api/v1/stations/${place.stationId}/readings`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Authorization: `Bearer ${token}` },
    body: JSON.stringify({ at: '2026-06-12T13:00:00Z', temperature: 18.5, humidity: 61 }),
  })
  expect(response.status).toBe(200)
  await page.getByText('The newest hour from its device is Fri 12 Jun, 06:00.').waitFor()
})

test('moving the time moves today, the sums and the window; the simulated stations follow', async () => {
  simulators = fork(fileURLToPath(new URL('../../simulators/dist/main.js', import.meta.url)), {
    env: { ...process.env, BOCADO_ADDRESS: app.address },
  })
  await new Promise((resolve) => simulators!.once('message', resolve))
  await page.goto(`${app.address}/sites/${place.site.id}/windows`)
  // The days of the hours below bear the same names.
  const band = page.getByRole('img', { name: /^Season band/ })
  const today = (name: RegExp) => band.locator('text', { hasText: name }).waitFor()
  await today(/^Fri 12 Jun$/)
  const sumOf = async (): Promise<number> => Number(/Now, at ([\d,]+) °F·d/.exec(await page.locator('caption').first().innerText())![1])
  const before = await sumOf()
  await press(page, 'A day on')
  await press(page, 'A day on')
  await today(/^Sun 14 Jun$/)
  await expect.poll(sumOf, { timeout: 15_000 }).toBeGreaterThan(before)
  const stations = async () =>
    done(await app.call(weather.stations, { siteId: place.site.id }, {})).map(({ device, lastDay, silent }) => [device, lastDay, silent])
  await expect.poll(stations, { timeout: 15_000 }).toEqual([
    ['simulated', '2026-06-14', false],
    ['simulated', '2026-06-14', false],
  ])
  await page.getByText(/days ahead from 12 members of a forecast of Sun 14 Jun/).waitFor()
  const after = await sumOf()
  await press(page, 'A day back')
  await today(/^Sat 13 Jun$/)
  await expect.poll(sumOf, { timeout: 15_000 }).toBeLessThan(after)
})

test('of the pages of a browser one listens and tells the others; when it closes another one does', async () => {
  const asked: string[] = []
  const context = page.context()
  context.on('request', (request) => {
    if (request.url().includes('/changes')) asked.push(request.url())
  })
  const site = `${app.address}/sites/${place.site.id}`
  await page.goto(`${site}/site`)
  const second = await context.newPage()
  await second.goto(`${site}/site`)
  await second.getByRole('heading', { name: /^One block/ }).waitFor()
  const before = asked.length
  expect(before).toBe(1)
  const add = (name: string) =>
    app.call(blocks.create, { siteId: place.site.id }, { name, kind: 'bed', areaHa: null, grows: '' }, { person: place.person })
  done(await add('Row 1'))
  for (const each of [page, second]) await each.getByText('Row 1').waitFor()
  await page.goto('about:blank')
  await expect.poll(() => asked.length).toBe(before + 1)
  done(await add('Row 2'))
  await second.getByText('Row 2').waitFor()
  await second.close()
})
