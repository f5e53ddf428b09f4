import { endpoints } from '@bocado/contract'
import { done, GRANULE } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { afterEach, expect, test } from 'vitest'
import { choose, enterNumber, expectAccessible, press, show } from './page.js'
import { setStage, type Stage } from './stage.js'

/* What is known after some seasons: outcomes of each way, years, forecasts against what was seen, the review, and the next season. */

const { blocks, calibration, flags, scouting, treatments, watches } = endpoints

let page: Page
let open: Stage['open']
setStage(
  hourlyFile(2021, '2026-06-12'),
  async ({ app, at, place, as }) => {
    const productId = done(await app.call(treatments.addProduct, at, GRANULE, as)).id
    const patch = done(
      await app.call(
        flags.add,
        at,
        { organismId: 'himalayan-balsam', placeId: place.blockId, seenOn: '2023-06-01', sight: 'standing', plants: 300, areaM2: 60 },
        as,
      ),
    )
    done(
      await app.call(
        flags.add,
        at,
        { organismId: 'himalayan-balsam', placeId: place.blockId, seenOn: '2026-06-10', sight: 'standing', plants: 6 },
        as,
      ),
    )
    for (const [seenOn, plants] of [
      ['2024-06-01', 240],
      ['2025-06-01', 190],
    ] as const)
      done(await app.call(flags.visit, at, { flagId: patch.id, seenOn, sight: 'standing', plants, areaM2: 60 }, as))
    const corner = done(await app.call(blocks.addCheckArea, { ...at, blockId: place.blockId }, { name: 'North corner' }, as)).id
    for (const year of ['2023', '2024', '2025']) {
      const watchId = done(
        await app.call(
          watches.create,
          at,
          { organismId: 'codling-moth', blockId: place.blockId, season: `${year}-01-01`, biofix: `${year}-05-10` },
          as,
        ),
      ).id
      const count = async (checkAreaId: string | null, countedOn: string, most: number) =>
        done(
          await app.call(
            scouting.create,
            at,
            { watchId, checkAreaId, countedOn, units: Array.from({ length: 24 }, (_, i) => ({ 'fresh-entry': i % most })) },
            as,
          ),
        )
      for (const area of [null, corner]) await count(area, `${year}-06-04`, 2)
      done(
        await app.call(
          treatments.recordUnplanned,
          at,
          {
            watchId,
            productId,
            startedAt: `${year}-06-05T04:00:00Z`,
            endedAt: `${year}-06-05T06:00:00Z`,
            rate: 0.1,
            areaHa: 4,
            weather: {},
          },
          as,
        ),
      )
      await count(null, `${year}-06-21`, 2)
      await count(corner, `${year}-06-21`, 6)
      done(
        await app.call(
          calibration.addSighting,
          { ...at, watchId },
          { event: 'hatch', kind: 'first', seenOn: `${year}-06-0${Number(year) % 3 === 0 ? 2 : 5}`, lookedBefore: `${year}-05-30` },
          as,
        ),
      )
    }
  },
  (stage) => void ({ page, open } = stage),
)
afterEach(() => page.setViewportSize({ width: 1280, height: 800 }))

test('a new season begins with what was watched in the one before, at one press', async () => {
  await open('windows')
  await press(page, 'Watch in 2026 what was watched in 2025')
  await page
    .getByRole('heading', { name: '1 watch' })
    .or(page.getByRole('heading', { name: 'One watch' }))
    .first()
    .waitFor()
  await page.getByRole('heading', { name: 'Codling moth, Old Apples' }).waitFor()
})

test('each way says what its deeds did together, and no more than one block allows', async () => {
  await open('outcomes')
  await page.getByText('No treatment has been recorded this season.').waitFor()
  await page
    .getByText(/Lower here than in the check: .* fewer .*3 deeds in one block\. 2 more blocks with a check would let it be told/)
    .waitFor()
  await press(page, 'Each time')
  expect(await page.getByText(/reached \d+ % of the generation/).count()).toBe(3)
  await expectAccessible(page, 'outcomes of all seasons')
})

test('years stand beside each other, as pictures and as tables', async () => {
  await open('outcomes')
  await page.getByRole('link', { name: 'Year by year' }).click()
  await page.getByRole('img', { name: /^Codling moth, Old Apples: the highest count of each season/ }).waitFor()
  await page
    .getByText(/It cannot be told whether it falls or grows|Falling|Growing/)
    .first()
    .waitFor()
  await press(page, 'As tables')
  const year = page.getByRole('row', { name: /^2024 2\.5/ })
  expect(await year.innerText()).toMatch(/2024\s+2\.5 \(.*\)\s+12\.5\s+\d+\s+1\s+2/)
  await expectAccessible(page, 'years')
  await page.setViewportSize({ width: 390, height: 844 })
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
})

test('forecasts stand beside what was seen, and lead to the numbers that tell it better', async () => {
  await open('outcomes/forecasts')
  const hatch = page.getByRole('row', { name: /^Codling moth, hatch begins/ })
  expect(await hatch.innerText()).toMatch(/\d d/)
  await press(page, 'What was really said beforehand')
  await page.getByText('Nothing with a date was said before any of these days.').waitFor()
  await expectAccessible(page, 'forecasts against what was seen')
})

test('a season is looked back on by block, and printed without its buttons', async () => {
  await open('outcomes/review')
  await page.getByRole('button', { name: /season 2026/ }).click()
  await page
    .getByText(/^(season )?2025/)
    .last()
    .click()
  await page.getByRole('heading', { name: 'Review: Old Apples, season 2025' }).waitFor()
  await page.getByText(/Codling moth: at most 2\.5 per 100 fruit on .* In the check area at most 12\.5\./).waitFor()
  await page.getByText('In all one deed, 2 h.').waitFor()
  await page
    .getByText(/Codling moth, .*: opens about /)
    .first()
    .waitFor()
  await choose(page, 'Block', 'Old Apples')
  const own = page.getByTestId('own-words')
  await press(page, 'Write something')
  await own.getByRole('textbox', { name: 'What it was like, and what comes of it' }).fill('Cold May: begin a week later.')
  await expectAccessible(page, 'a review')
  await own.getByRole('button', { name: 'Save', exact: true }).click()
  await own.getByText('Cold May: begin a week later.').waitFor()
  await press(page, 'Watch in 2026 what was watched in 2025')
  await page.getByText('Everything of it is watched already.').waitFor()
  await page.emulateMedia({ media: 'print' })
  expect(await page.getByRole('button', { name: 'Print it' }).isVisible()).toBe(false)
  expect(await page.getByRole('heading', { name: 'What to change' }).isVisible()).toBe(true)
  expect(await own.getByText('Cold May: begin a week later.').isVisible()).toBe(true)
  await page.emulateMedia({ media: 'screen' })
  await page.getByText('Back to 2026').click()
  await page.getByRole('heading', { name: 'Review: Old Apples, season 2026' }).waitFor()
})

test('what the years would bring is told under each way of working, and changes with what is said of the ground', async () => {
  await open('outcomes/years')
  await page.getByRole('link', { name: 'What the years would bring' }).click()
  await page.getByRole('heading', { name: 'Himalayan balsam, Old Apples: what the years would bring' }).waitFor()
  const says = page.getByTestId('ahead-says')
  await says.getByText(/^(Few after|Not few within)/).waitFor()
  await says.getByText(/^Nothing left after 15 years in \d+ % of the runs\.$/).waitFor()
  await show(page, 'Nothing is done')
  await says.getByText(/^Not few within/).waitFor()
  expect(await says.getByText(/^To take in all/).count()).toBe(0)
  await show(page, 'Three passes')
  await says.getByText(/^To take in all/).waitFor()
  await show(page, 'Own programme')
  const first = page.getByTestId('passes-by-year').getByRole('slider').first()
  expect(await first.inputValue()).toBe('3')
  const taken = async () => /next year ([\d,]+)/.exec(await says.innerText())?.[1]
  await says.getByText(/^To take in all/).waitFor()
  const before = await taken()
  await first.focus()
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowDown')
  expect(await first.inputValue()).toBe('0')
  await expect.poll(taken).toBe('0')
  expect(before).not.toBe('0')
  expect(await says.getByText(/^In money/).count()).toBe(0)
  await enterNumber(page, 'An hour of work costs', 25)
  await says.getByText(/^In money for the hours: [\d,]+, next year 0\.$/).waitFor()
  await choose(page, 'Comes from elsewhere', 'a little each year')
  await says.getByText('As long as it comes from elsewhere it stays few at best: then watch.').waitFor()
  await expectAccessible(page, 'the years ahead')
  await page.setViewportSize({ width: 390, height: 844 })
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
})

test('within the hours that there are the patches to take are named in their order, and what that leaves', async () => {
  await open('scouting?panel=flags')
  await press(page, 'Which patches first')
  await page
    .getByTestId('triage-says')
    .getByText(/^2 patches, .* h; none is left\.$/)
    .waitFor()
  await enterNumber(page, 'Hours there are', 1)
  await page
    .getByTestId('triage-says')
    .getByText(/^One patch, .* h; one is left, with plants: 190\.$/)
    .waitFor()
  await page
    .getByTestId('triage-later')
    .getByText(/^Left alone, this patch would hold plants next season: about [\d,]+ \([\d,]+ to [\d,]+\)/)
    .waitFor()
  await expectAccessible(page, 'which patches first')
})
