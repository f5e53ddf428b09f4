import { endpoints, type Geometry } from '@bocado/contract'
import { done } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { expect, test } from 'vitest'
import { choose, expectAccessible, press } from './page.js'
import { setStage, type Stage } from './stage.js'

/* Patches that are flagged, looked at again, and searched for. */

const { flags, ground } = endpoints

let page: Page
let stage: Stage
setStage(
  hourlyFile(2025, '2026-06-12'),
  async ({ app, at, place, as }) => {
    const outline: Geometry = {
      type: 'Polygon',
      coordinates: [
        [
          [-119.302, 46.2],
          [-119.3, 46.2],
          [-119.3, 46.201],
          [-119.302, 46.201],
          [-119.302, 46.2],
        ],
      ],
    }
    done(await app.call(ground.draw, at, { kind: 'outline', placeId: place.blockId, geometry: outline }, as))
    const pin = { organismId: 'himalayan-balsam', placeId: place.blockId, position: { latitude: 46.2005, longitude: -119.3015 } }
    const { id } = done(await app.call(flags.add, at, { ...pin, seenOn: '2025-06-01', sight: 'standing', plants: 40, minutes: 20 }, as))
    const visit = { flagId: id, seenOn: '2026-06-01', sight: 'standing', plants: 6, methodId: 'hand-pulling', dueOn: '2026-06-11' } as const
    done(await app.call(flags.visit, at, visit, as))
  },
  (set) => {
    stage = set
    page = set.page
  },
)

const known = async () => done(await stage.app.call(flags.list, stage.at, {}))

test('a flag is set with the position of the device, and named later', async () => {
  await page.context().grantPermissions(['geolocation'])
  await page.context().setGeolocation({ latitude: 46.2002, longitude: -119.3011, accuracy: 5 })
  await stage.open('scouting?panel=flags')
  await press(page, 'Set a flag')
  await choose(page, 'What stands there', 'not known yet')
  await press(page, 'Take my position')
  await page.getByText('Within about 16 ft.').waitFor()
  await page.getByRole('textbox', { name: 'Plants' }).fill('12')
  await press(page, 'Save')
  await page.getByRole('button', { name: 'Flag 2, not known yet: what was seen' }).click()
  await expectAccessible(page, 'flags')
  await press(page, 'Say what it is')
  await choose(page, 'What stands there', 'Giant hogweed')
  await press(page, 'Save')
  await page.getByRole('button', { name: 'Flag 2, Giant hogweed: what was seen' }).waitFor()
  const flag = (await known()).flags.find(({ number }) => number === 2)!
  expect(flag).toMatchObject({ organismId: 'giant-hogweed', last: { plants: 12 }, position: { latitude: 46.2002, accuracyM: 5 } })
})

test('what is due is visited; that none stands is a tap, and is taken back', async () => {
  await stage.open('scouting?panel=flags')
  await page.getByRole('heading', { name: '2 flags, one is due' }).waitFor()
  await page.getByText('Due since Thu 11 Jun').waitFor()
  await press(page, 'Flag 1, Himalayan balsam: none stands today')
  await page.getByText('none standing Fri 12 Jun, clean once; seed in the soil may live until 2029').waitFor()
  await press(page, 'Undo')
  await page.getByText('worked at Mon 1 Jun').waitFor()
  await press(page, 'Visit flag 1, Himalayan balsam')
  await page.getByRole('radio', { name: 'it regrows' }).waitFor()
  await page.getByRole('textbox', { name: 'Plants' }).fill('3')
  await choose(page, 'Done against it', 'Pulling by hand')
  await page.getByRole('textbox', { name: 'Taken' }).fill('1')
  await choose(page, 'of it in', 'bags')
  await press(page, 'Stage, height and more')
  await choose(page, 'How high', 'to the knee')
  await press(page, 'Save')
  await page.getByText('worked at Fri 12 Jun, 3 plants').waitFor()
  // Nobody said when to look again: it is due no more.
  await page.getByRole('heading', { name: '2 flags', exact: true }).waitFor()
  expect((await known()).flags[0]!.last).toMatchObject({ sight: 'regrowing', height: 'knee', taken: { amount: 1, unit: 'bags' } })
})

test('as of an earlier year they are as they were then, and only looked at', async () => {
  await stage.open('scouting?panel=flags')
  await choose(page, 'As of', 'as of the end of 2025')
  await page.getByText('stands, seen 1 Jun 2025, 40 plants').waitFor()
  expect(await page.getByRole('button', { name: /^Visit/ }).count()).toBe(0)
  await choose(page, 'As of', 'as of today')
  await page.getByRole('button', { name: 'Visit flag 1, Himalayan balsam' }).waitFor()
})

test('a search with its track says how much of the ground was seen, and is a record though it found nothing', async () => {
  await stage.open('scouting?panel=flags&do=search')
  const points = [-119.3025, -119.3015, -119.3005, -119.2995].map((lon) => `<trkpt lat="46.2005" lon="${lon}"/>`).join('')
  await choose(page, 'Where', 'Old Apples')
  await page.locator('input[type=file]').setInputFiles({
    name: 'morning.gpx',
    mimeType: 'application/gpx+xml',
    buffer: Buffer.from(`<gpx><trk><trkseg>${points}</trkseg></trk></gpx>`),
  })
  await page.getByText(/^A way of 7\d\d ft/).waitFor()
  await page.getByRole('textbox', { name: 'Seen across' }).fill('36')
  await page.getByRole('textbox', { name: 'Took' }).fill('25')
  await press(page, 'Save')
  await page.getByText(/Old Apples: nothing of/).waitFor()
  await page.getByText(/25 min, 10 % of it seen, by the way walked/).waitFor()
  await page.getByRole('button', { name: /^Show the way walked/ }).click()
  await page.getByText('The broad band is what was seen from the way').waitFor()
  expect((await known()).searches).toMatchObject([{ found: false, minutes: 25, covered: { from: 'track' } }])
})

test('the way is walked with the device itself', async () => {
  await stage.open('scouting?panel=flags&do=search')
  await page.context().setGeolocation({ latitude: 46.2003, longitude: -119.3018, accuracy: 5 })
  await press(page, 'Walk it with this device')
  for (const longitude of [-119.3018, -119.3014, -119.301]) {
    await page.context().setGeolocation({ latitude: 46.2003, longitude, accuracy: 5 })
    await page.waitForTimeout(400)
  }
  await page.getByText(/^On the way: 2\d\d ft, within about 16 ft/).waitFor()
  // A rough position says nothing of where one looked.
  await page.context().setGeolocation({ latitude: 46.25, longitude: -119.301, accuracy: 200 })
  await page.getByText(/only good to 656 ft/).waitFor()
  await press(page, 'Stop')
  await page.getByText(/^A way of 2\d\d ft/).waitFor()
  await press(page, 'Cancel')
})

test('on a phone everything is within reach of a thumb, and nothing is wider than the screen', async () => {
  await page.setViewportSize({ width: 390, height: 844 })
  await stage.open('scouting?panel=flags')
  await page.getByRole('button', { name: 'Visit flag 1, Himalayan balsam' }).waitFor()
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  await expectAccessible(page, 'flags on a phone')
  await press(page, 'On the map')
  await page.getByRole('region', { name: 'Flags on the map of Hollin Bench' }).waitFor()
  await page.setViewportSize({ width: 1280, height: 800 })
})
