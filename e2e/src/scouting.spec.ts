import { readFileSync } from 'node:fs'
import { endpoints } from '@bocado/contract'
import { done } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { beforeEach, describe, expect, test } from 'vitest'
import { choose, expectAccessible, fileChooser, press } from './page.js'
import { setStage, type Stage } from './stage.js'

/* Counts that are spread, ended and held against thresholds as a site wants it; what comes first when hours are short; what came in. */

const { arrivals, blocks, flags, ground, scouting, watches } = endpoints
const SEASON = '2026-01-01'
const PICTURE = new URL('../../server/src/testing/point.jpg', import.meta.url)

let page: Page
let stage: Stage
let watchId: string
setStage(
  hourlyFile(2024, '2026-06-12'),
  async ({ app, at, place, as }) => {
    const watch = { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: '2026-05-14' }
    watchId = done(await app.call(watches.create, at, watch, as)).id
    const units = Array.from({ length: 24 }, (_, i) => (i === 3 ? { 'fresh-entry': 1 } : {}))
    done(await app.call(scouting.create, at, { watchId, countedOn: '2026-06-05', units }, as))
    const outline = [
      [-119.302, 46.2],
      [-119.3, 46.2],
      [-119.3, 46.201],
      [-119.302, 46.201],
      [-119.302, 46.2],
    ] as [number, number][]
    done(
      await app.call(
        ground.draw,
        at,
        { kind: 'outline', placeId: place.blockId, geometry: { type: 'Polygon', coordinates: [outline] } },
        as,
      ),
    )
    const pin = { organismId: 'himalayan-balsam', placeId: place.blockId, position: { latitude: 46.2005, longitude: -119.3015 } }
    done(await app.call(flags.add, at, { ...pin, seenOn: '2026-06-01', sight: 'standing', stage: 'flower', dueOn: '2026-06-11' }, as))
  },
  (set) => {
    stage = set
    page = set.page
  },
)
beforeEach(() => page.setViewportSize({ width: 1280, height: 800 }))

const rounds = async () => done(await stage.app.call(scouting.list, stage.at, { season: SEASON }))

describe('a count', () => {
  test('is spread over places by itself, and decides nothing before there are five', async () => {
    await page.setViewportSize({ width: 390, height: 844 })
    await stage.open(`scouting/${watchId}/count`)
    await page.getByRole('radio', { name: 'edge' }).click()
    const verdict = page.getByTestId('verdict')
    for (let tree = 1; tree <= 10; tree++) {
      await press(page, 'One more: fresh entry')
      if (tree === 4) await verdict.getByText(/fewer than 10 trees in 5 places/).waitFor()
      if (tree === 6) await page.getByRole('radio', { name: 'inside' }).click()
      if (tree < 10) await press(page, tree % 2 === 0 ? `Next tree, at place ${tree / 2 + 1}` : 'Next tree')
    }
    await verdict.getByText(/^Act: 10 on 10 trees/).waitFor()
    await page.getByText('2 trees here').waitFor()
    await press(page, 'Natural enemies')
    for (let i = 0; i < 3; i++) await press(page, 'One more: spiders')
    await page.getByText('3 spiders').waitFor()
    await expectAccessible(page, 'a count with its places')
    // What was tallied is there again after a reload, with its places.
    await page.reload()
    await page.getByText('Place 5').waitFor()
    await press(page, 'Save the count')
    await page.getByText(/Natural enemies: 3 spiders/).waitFor()
    await page.getByText(/^At the edge: \d+ per 100 fruit on 4 trees in 2 places/).waitFor()
    const [, stored] = await rounds()
    expect(stored!.places).toEqual([
      { from: 0, edge: true },
      { from: 2, edge: true },
      { from: 4, edge: false },
      { from: 6, edge: false },
      { from: 8, edge: false },
    ])
    expect(stored).toMatchObject({ enemies: { spiders: 3 }, verdict: 'act' })
  })

  test('that is over its threshold is left to natural enemies by what was seen of them', async () => {
    await stage.open('scouting')
    await press(page, 'Leave it for now')
    expect(await page.getByLabel('Why', { exact: true }).inputValue()).toBe('3 spiders on 10 trees')
    await press(page, 'Cancel')
  })
})

test('a threshold is moved on its picture by the keys, told why, and reckoned from what it costs', async () => {
  await stage.open('scouting')
  const line = page.getByRole('slider', { name: 'Threshold' }).first()
  await line.focus()
  for (let i = 0; i < 10; i++) await page.keyboard.press('ArrowUp')
  await page.keyboard.press('Enter')
  const field = page.getByLabel(/^Act from, per 100 fruit/)
  await field.waitFor()
  expect(await field.inputValue()).toBe('3')
  await press(page, 'Set the threshold')
  await page.getByText('enter why this site differs').waitFor()
  await page.getByLabel('Why this site differs').fill('sold at the gate')
  await press(page, 'Reckon it from what it costs and saves')
  for (const [label, value] of [
    ['A treatment costs, a hectare', '80'],
    ['A kilogram sells for', '0.5'],
    [/^Lost a hectare/, '50'],
    ['The treatment prevents', '80'],
  ] as const)
    await page.getByLabel(label).fill(value)
  await page.keyboard.press('Tab')
  await page.getByText('It pays from 4 per 100 fruit.').waitFor()
  await expectAccessible(page, 'a threshold that is reckoned')
  await press(page, 'Take it')
  await press(page, 'Another from a stage of the crop on')
  await choose(page, 'From', 'first harvest')
  await page.getByLabel(/^act from, per 100 fruit/).fill('8')
  await press(page, 'Set the threshold')
  await page.getByText('Act from 4 per 100 fruit.').waitFor()
  const [watch] = done(await stage.app.call(watches.list, stage.at, { season: SEASON }))
  expect(watch!.threshold).toMatchObject({
    per100: 4,
    steps: [{ from: 'first-harvest', per100: 8 }],
    economics: { cost: 80, control: 0.8 },
  })
})

test('a count ends by the site’s own plan, with what comes of it simulated beside it', async () => {
  await stage.open('scouting')
  await press(page, 'Count Codling moth otherwise')
  await press(page, 'How a count ends')
  await choose(page, 'A count ends', 'after a fixed number, by its mean')
  await page.getByLabel('At most so many trees').fill('12')
  await page.getByLabel('Why this site counts otherwise').fill('twelve trees, as the buyer asks')
  await page.getByText(/^Simulated: 2,000 counts/).waitFor()
  expect(await page.getByTestId('counts-end').locator('tbody tr').count()).toBeGreaterThan(4)
  await expectAccessible(page, 'a plan of one’s own')
  await press(page, 'Save')
  await page.getByText(/Counts end here after a fixed number/).waitFor()
  expect((await rounds())[1]!.verdict).toBe('too-few')
})

test('damage is judged by its drawn degrees, and comes to per cent', async () => {
  await stage.open('scouting')
  await press(page, 'Count Codling moth otherwise')
  await choose(page, 'What is counted', 'degrees of its damage, by the drawings')
  await press(page, 'Save')
  await page.getByText('No threshold is known here: write your own, or count and compare.').waitFor()
  await stage.open(`scouting/${watchId}/count`)
  await page.locator('svg[role=img]').first().waitFor({ state: 'attached' })
  await page
    .getByRole('button', { name: /^One more: about/ })
    .first()
    .click()
  await page.getByText(/per 100 parts of the surface/).waitFor()
  await expectAccessible(page, 'degrees of damage')
  await press(page, 'Save the count')
  await page
    .getByText(/per 100 parts of the surface/)
    .first()
    .waitFor()
  await expect
    .poll(async () => (await rounds()).filter(({ scale }) => scale === 'degrees').map(({ threshold }) => threshold))
    .toEqual([null])
})

describe('the walk', () => {
  test('leaves undone what has no time, by the ranks that blocks have; and goes into one’s own calendar', async () => {
    await stage.open('scouting?panel=walk')
    await press(page, 'Hours are short')
    await page.getByText(/Nothing is left out as long as no block has a rank/).waitFor()
    await choose(page, 'Old Apples', 'rank 1')
    await page.getByText(/^First what has rank 1/).waitFor()
    await page.getByLabel('There are').fill('0.2')
    await page.keyboard.press('Tab')
    await page.getByRole('heading', { name: 'Left undone' }).waitFor()
    await page.getByText('Look at flag #1').first().waitFor()
    await expectAccessible(page, 'a walk with few hours')
    const [download] = await Promise.all([page.waitForEvent('download'), press(page, 'Two weeks as a calendar file')])
    const file = readFileSync((await download.path())!, 'utf8')
    expect(file).toMatch(/^BEGIN:VCALENDAR\r\n/)
    expect(file).toContain('SUMMARY:Look at flag #1')
    const [block] = done(await stage.app.call(blocks.list, stage.at, {}))
    expect(block!.rank).toBe(1)
  })

  test('has a sheet for people who help for a day, kept for the next time', async () => {
    await stage.open('scouting?panel=walk')
    await press(page, 'Old Apples: sheet for a work day')
    await page.getByLabel('Where nobody steps').fill('the orchids by the ditch')
    await page.getByText('Nobody steps here: the orchids by the ditch').waitFor()
    await page.getByRole('img', { name: /Old Apples with one flag by number/ }).waitFor()
    await page.getByText(/Touch-me-not balsam/).waitFor()
    await expectAccessible(page, 'a sheet for a work day')
    await page.emulateMedia({ media: 'print' })
    expect(await page.getByLabel('Where nobody steps').isVisible()).toBe(false)
    await page.emulateMedia({ media: 'screen' })
    await page.reload()
    await press(page, 'Old Apples: sheet for a work day')
    await page.getByText('Nobody steps here: the orchids by the ditch').waitFor()
  })
})

test('what came in is written down, is on the walk until it was looked at, and goes to the others', async () => {
  await stage.open('site')
  await press(page, 'Something came in')
  await page.getByLabel('What exactly').fill('2 apple whips')
  await press(page, 'Save')
  await page.getByText('Root and stem are looked at before it goes to the others.').waitFor()
  await stage.open('scouting?panel=walk')
  await page.getByText('Look at what came in: 2 apple whips').waitFor()
  await page.getByRole('link', { name: /Look at what came in: 2 apple whips/ }).click()
  await press(page, 'What looks showed: 2 apple whips')
  await choose(page, 'Root or soil', 'clean')
  await choose(page, 'Stem and leaf', 'clean')
  await expectAccessible(page, 'what came in')
  await press(page, 'Save')
  await page.getByText('Root clean, stem clean.').or(page.getByText('root clean, stem clean.')).waitFor()
  expect(done(await stage.app.call(arrivals.list, stage.at, {}))[0]).toMatchObject({
    rootLook: 'clean',
    stemLook: 'clean',
    releasedOn: null,
  })
})

test('a picture of one’s own lies under the map, and is put right by its edges', async () => {
  await stage.open('site')
  const chooser = await fileChooser(page, 'Lay a picture under the map')
  await chooser.setFiles(PICTURE.pathname)
  const north = page.getByLabel('Northern edge')
  await north.waitFor()
  await page.locator('img.leaflet-image-layer').waitFor()
  await north.fill('46.2013')
  await expectAccessible(page, 'a picture under the map')
  await press(page, 'Save')
  await north.waitFor({ state: 'detached' })
  const [image] = done(await stage.app.call(ground.images, stage.at, {}))
  expect(image!.north).toBeCloseTo(46.2013, 6)
  await page.getByRole('button', { name: /^Remove the picture/ }).click()
  await page.locator('img.leaflet-image-layer').waitFor({ state: 'detached' })
})

test('what sits low or high on the plant is counted by where it sits', async () => {
  const { app, at, as, place } = stage
  const watch = { organismId: 'pear-psylla', blockId: place.blockId, season: SEASON }
  const { id } = done(await app.call(watches.create, at, watch, as))
  await page.setViewportSize({ width: 390, height: 844 })
  await stage.open(`scouting/${id}/count`)
  for (const [height, nymphs] of [
    ['low', 1],
    ['top', 3],
  ] as const) {
    await page.getByRole('radio', { name: height, exact: true }).click()
    for (let i = 0; i < nymphs; i++) await press(page, 'One more: nymphs')
    if (height === 'low') await press(page, 'Next tree')
  }
  // Who went from low to top goes on so, and one may change it.
  await press(page, 'Next tree, at place 2')
  await page.getByRole('radio', { name: 'low', exact: true }).click()
  await press(page, 'Next tree')
  expect(await page.getByRole('radio', { name: 'top', exact: true }).isChecked()).toBe(true)
  await page.getByText(/^By where on the plant, per 100 leaves: low 10 on 2; top 60 on 1\.$/).waitFor()
  await expectAccessible(page, 'a count by height')
  await press(page, 'Save the count')
  await press(page, 'No, leave it out')
  await page.waitForURL(/\/scouting$/)
  await page.getByText(/^By where on the plant, per 100 leaves: low 10 on 2; top 60 on 1\.$/).waitFor()
  await expect.poll(async () => (await rounds()).find((round) => round.watchId === id)?.heights).toEqual(['low', 'top', 'low'])
})
