import { endpoints } from '@bocado/contract'
import type { Application } from '@bocado/server/testing/application'
import { done, GRANULE } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { expect, test } from 'vitest'
import { choose, enterNumber, expectAccessible, fileChooser, focused, press } from './page.js'
import { setStage, type Stage } from './stage.js'

/* The ground from above: drawn by hand, by corners and from a file, and chosen on the map as on the list. */

const { blocks, crops, ground, treatments, watches } = endpoints

let app: Application
let page: Page
let at: { siteId: string }
let set: Stage
let open: Stage['open']
setStage(
  hourlyFile(2025, '2026-06-12'),
  async ({ app, at, as }) => void done(await app.call(blocks.create, at, { name: 'Onion Flat', kind: 'field' }, as)),
  (stage) => {
    set = stage
    ;({ app, page, at, open } = stage)
  },
)

const drawn = async () => done(await app.call(ground.map, at, {}))
const map = () => page.getByRole('region', { name: 'Map of Hollin Bench' })
/** Corners of a rectangle of about 200 by 150 m, as a receiver lists them. */
const CORNERS = '46.2000, -119.3000\n46.2000, -119.2974\n46.20135, -119.2974\n46.20135, -119.3000'

test('an outline is typed by its corners, says its area, and gives it to a block that had none', async () => {
  await open('site')
  await press(page, 'Draw the ground')
  await choose(page, 'Block or part', 'Onion Flat')
  await press(page, 'Type the corners')
  const corners = page.getByRole('textbox', { name: 'Corners, one to a line' })
  await corners.fill('46.2000, -119.3000\nthe old post')
  await page.getByText('Line 2, “the old post”').waitFor()
  await corners.fill(CORNERS)
  await page.getByText('7.42 acres as drawn.').waitFor()
  await corners.press('Control+Enter')
  await page.getByRole('button', { name: 'Show Onion Flat on the map' }).waitFor()
  await page.getByText('7.42 acres', { exact: true }).waitFor()
  await expectAccessible(page, 'site with its map')
})

test('hives are pressed on the map, and named with the block that they are near to', async () => {
  await press(page, 'Draw something')
  await choose(page, 'What is it\\?', 'hives')
  await page.getByRole('textbox', { name: 'Name' }).fill('Hives at the lane')
  const box = (await map().boundingBox())!
  await page.mouse.click(box.x + 60, box.y + box.height / 2)
  await press(page, 'Save')
  await page.getByRole('button', { name: 'Show Hives at the lane on the map' }).waitFor()
  await expect.poll(() => map().locator('.leaflet-tooltip', { hasText: 'Onion Flat' }).isVisible()).toBe(true)
  await expect.poll(() => focused(page)).not.toBe('')
  await press(page, 'Show Onion Flat on the map')
  await page.getByText(/^Near it: Hives at the lane \d+ ft\.$/).waitFor()
  await enterNumber(page, 'Keep clear of it by', 900)
  await page.getByText(/left to treat\.$/).waitFor()
  // The list shows it, too, and the map is pressed for the list.
  expect(await page.locator('[aria-current=true]').getByText('Onion Flat').count()).toBe(1)
  await press(page, 'All that is drawn')
  expect(await page.locator('[aria-current=true]').getByText('Onion Flat').count()).toBe(0)
  const block = (await map().locator('path.shape').first().boundingBox())!
  await page.mouse.click(block.x + block.width / 2, block.y + block.height / 4)
  await page.locator('[aria-current=true]').getByText('Onion Flat').waitFor()
})

test('a corner is dragged where it belongs, and the typed area is only changed when asked', async () => {
  await press(page, 'Change the drawing of Onion Flat')
  const before = (await drawn()).find(({ kind }) => kind === 'outline')!.areaM2!
  const box = (await map().boundingBox())!
  const shape = await map()
    .locator('path')
    .evaluateAll(
      (paths) =>
        paths
          .map((path) => path.getBoundingClientRect())
          .sort((a, b) => b.width - a.width)[0]!
          .toJSON() as DOMRect,
    )
  await page.mouse.move(shape.x + shape.width - 1, shape.y + 2)
  await page.mouse.down()
  await page.mouse.move(Math.min(shape.x + shape.width + 40, box.x + box.width - 10), shape.y + 4, { steps: 6 })
  await page.mouse.up()
  await page.getByText(/acres as drawn, 7.42 acres as typed\./).waitFor()
  await press(page, 'Save')
  await page.getByRole('button', { name: 'Change the drawing of Onion Flat' }).waitFor()
  expect((await drawn()).find(({ kind }) => kind === 'outline')!.areaM2!).toBeGreaterThan(before * 1.02)
  expect(done(await app.call(blocks.list, at, {})).find(({ name }) => name === 'Onion Flat')!.areaHa).toBeCloseTo(before / 10_000, 3)
})

test('what is removed from the map comes back with Undo', async () => {
  await press(page, 'Remove Onion Flat from the map')
  await page.getByRole('status').getByText('Onion Flat is off the map.').waitFor()
  await page.getByRole('button', { name: 'Show Onion Flat on the map' }).waitFor({ state: 'detached' })
  await press(page, 'Undo')
  await page.getByRole('button', { name: 'Show Onion Flat on the map' }).waitFor()
})

test('a file is seen before it is taken, and a wrong one says why', async () => {
  await press(page, 'Bring in a file')
  const bring = async (name: string, text: string): Promise<void> => {
    const chooser = await fileChooser(page, 'Choose a file')
    await chooser.setFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) })
  }
  await bring('plan.txt', 'a drawing on paper')
  await page.getByText('is neither GeoJSON nor GPX').waitFor()
  const ring = [
    [-119.297, 46.2],
    [-119.2955, 46.2],
    [-119.2955, 46.2012],
    [-119.297, 46.2012],
    [-119.297, 46.2],
  ]
  const feature = (name: string, geometry: object) => ({ type: 'Feature', properties: { name }, geometry })
  const features = [
    feature('Glass Two', { type: 'Polygon', coordinates: [ring] }),
    feature('Well', { type: 'Point', coordinates: [-119.2965, 46.2016] }),
    feature('Far', { type: 'Point', coordinates: [-89.2, 40.1] }),
  ]
  await bring('ground.geojson', JSON.stringify({ type: 'FeatureCollection', features }))
  await page.getByText('3 shapes found.').waitFor()
  await page.getByText(/It cannot be taken: lies 2,\d{3} km from the site’s position/).waitFor()
  await choose(page, 'Take Well as', 'something sensitive')
  await expectAccessible(page, 'a file of shapes')
  await press(page, 'Take 2 shapes')
  await page.getByRole('button', { name: 'Edit Glass Two' }).waitFor()
  // What it is near to is told above the buttons, and moves them.
  await page.getByText(/^Near it: Well/).waitFor()
  await press(page, 'All that is drawn')
  await page.getByRole('button', { name: 'Show Well on the map' }).waitFor()
  expect(await page.getByRole('link', { name: 'GeoJSON' }).getAttribute('href')).toMatch(/map\.geojson$/)
})

test('what is kept clear of the hives is not in the area of the record; a harvest that would have to wait is told before', async () => {
  const { place, as } = set
  const day = '2026-06-01'
  const apple = { placeId: place.blockId, crop: 'apple', standsFrom: '2018-04-01' }
  const { id: plantingId } = done(await app.call(crops.add, at, apple, as))
  done(await app.call(crops.addStage, at, { plantingId, stage: 'petal-fall', seenOn: '2026-05-10' }, as))
  const watch = { organismId: 'codling-moth', blockId: place.blockId, season: '2026-01-01', biofix: '2026-05-14' }
  const { id: watchId } = done(await app.call(watches.create, at, watch, as))
  const label = { ...GRANULE, preHarvestDays: 90, targets: ['codling-moth'], crops: ['apple'] }
  const { id: productId } = done(await app.call(treatments.addProduct, at, label, as))
  done(await app.call(treatments.plan, at, { watchId, productId, plannedOn: day }, as))
  const [west, south] = [-119.31, 46.21]
  const [east, north] = [west + 0.0026, south + 0.0018]
  const ring: [number, number][] = [
    [west, south],
    [east, south],
    [east, north],
    [west, north],
    [west, south],
  ]
  const outline = { kind: 'outline' as const, placeId: place.blockId, geometry: { type: 'Polygon' as const, coordinates: [ring] } }
  done(await app.call(ground.draw, at, outline, as))
  done(await app.call(ground.draw, at, { kind: 'hives' as const, geometry: { type: 'Point' as const, coordinates: [west, south] } }, as))

  await open(`windows?watch=${watchId}`)
  const waits = page.getByTestId('harvest-there')
  await waits.waitFor()
  expect(await waits.textContent()).toMatch(
    /^Apple may be ready to pick from .*; after this it may be picked from .* \(90 days by the label\)\.$/,
  )

  await open('treatments')
  await press(page, 'Record as done')
  await page
    .getByTestId('sentence')
    .getByRole('button', { name: /Old Apples/ })
    .click()
  const area = page.getByRole('textbox', { name: 'Area' })
  const whole = Number(await area.inputValue())
  await enterNumber(page, 'Distance kept', 100)
  await page.getByText(/left to treat\.$/).waitFor()
  await expect.poll(async () => Number(await area.inputValue())).toBeLessThan(whole)
  await page.getByRole('textbox', { name: 'Begun at' }).fill('6:00')
  await expectAccessible(page, 'a record with what is kept clear')
  await press(page, 'Record it')
  await page.getByText(/100 ft kept clear/).waitFor()
})
