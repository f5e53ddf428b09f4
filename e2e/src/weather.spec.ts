import { readFileSync } from 'node:fs'
import { endpoints } from '@bocado/contract'
import type { Application } from '@bocado/server/testing/application'
import { done, startSite, type TestSite } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { describe, expect, test } from 'vitest'
import { choose, enterDate, enterNumber, expectAccessible, goTo, press, show } from './page.js'
import { setStage, type Stage } from './stage.js'

/* The weather screen as people use it: reading, zooming, opening a day, places that differ, wrong readings, sites without a station. */

const { watches, weather } = endpoints

let app: Application
let place: TestSite
let page: Page
let open: Stage['open']

setStage(
  hourlyFile(2021, '2026-06-12'),
  async ({ app, at, place, as }) => {
    const watch = { organismId: 'codling-moth', blockId: place.blockId, season: '2026-01-01', biofix: '2026-05-10' }
    done(await app.call(watches.create, at, watch, as))
  },
  (stage) => ({ app, place, page, open } = stage),
)

const chart = () => page.getByRole('application', { name: /^Daily minimum and maximum/ })
const reading = () => page.locator('#weather-reading').innerText()

describe('the season', () => {
  test('is read day by day with the keys, zoomed and moved, and Enter opens the day', async () => {
    await open('weather')
    await chart().focus()
    await page.keyboard.press('ArrowLeft')
    expect(await reading()).toMatch(/^Thu 11 Jun: \d+ °F to \d+ °F · rain 0 in · wet 0 h, 24 h not known · soil \d+ °F, estimated/)
    const months = async () =>
      (await page.locator('figure svg text').allTextContents()).filter((text) => /^[A-Z][a-z]{2}$/.test(text)).length
    expect(await months()).toBeGreaterThan(9)
    await page.keyboard.press('+')
    await page.keyboard.press('+')
    await expect.poll(months).toBeLessThan(9)
    await page.keyboard.press('Home')
    expect(await reading()).toMatch(/^Thu 1 Jan/)
    await page.keyboard.press('Enter')
    await page.getByRole('heading', { name: 'Hours of Thu 1 Jan' }).waitFor()
    await show(page, 'Season')
    await expect.poll(months).toBeGreaterThan(9)
    await expectAccessible(page, 'weather of a season')
  })

  test('is moved by drag without opening a day, and a click opens one', async () => {
    await show(page, 'Two weeks')
    const ticks = async () => (await page.locator('figure svg text').allTextContents()).filter((text) => /^\d+ [A-Z]/.test(text))
    const before = await ticks()
    const box = (await chart().boundingBox())!
    const heading = await page.getByRole('heading', { level: 2 }).first().innerText()
    await page.mouse.move(box.x + 700, box.y + 100)
    await page.mouse.down()
    await page.mouse.move(box.x + 300, box.y + 100, { steps: 5 })
    await page.mouse.up()
    expect(await ticks()).not.toEqual(before)
    expect(await page.getByRole('heading', { level: 2 }).first().innerText()).toBe(heading)
    await show(page, 'Season')
    await page.mouse.click(box.x + 200, box.y + 100)
    await expect.poll(() => page.getByRole('heading', { level: 2 }).first().innerText()).toMatch(/Hours of \w+ \d+ (Jan|Feb|Mar)/)
  })

  test('is a table as well, and a file', async () => {
    await show(page, 'Table')
    const table = page.getByRole('region', { name: 'Days of the season, newest first' })
    expect(await table.getByRole('row').nth(1).innerText()).toContain('Thu 11 Jun')
    await expectAccessible(page, 'season as a table')
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Days as CSV' }).click()])
    const lines = readFileSync(await download.path(), 'utf8')
      .trim()
      .split('\n')
    expect(lines).toHaveLength(163)
    expect(lines[1]).toMatch(/^2026-01-01,/)
    await show(page, 'Picture')
    await choose(page, 'Season', '2024')
    await page.getByRole('heading', { name: 'Hours of Tue 31 Dec' }).waitFor()
  })

  test('a day’s hours step with brackets', async () => {
    await open('weather?day=2026-06-10')
    await page.getByRole('heading', { name: 'Hours of Wed 10 Jun' }).waitFor()
    await page.keyboard.press(']')
    await page.getByRole('heading', { name: 'Hours of Thu 11 Jun' }).waitFor()
    const hours = page.getByRole('region', { name: 'Every hour of the day' })
    await hours.getByRole('row').nth(2).waitFor()
    await open('weather?day=2026-12-24')
    await page.getByText('Nothing is known of this day').waitFor()
  })
})

test('curved rates stand beside the methods, in days', async () => {
  await open('weather?panel=heat')
  const row = page.getByRole('row', { name: /Curve, beta/ })
  await row.waitFor()
  expect(await row.innerText()).toMatch(/later|earlier|same day/)
  await enterNumber(page, 'Stops at, for curves', 80)
  await page.getByText('must be above the upper threshold').waitFor()
})

test('the heat up to any day stands beside past seasons, by the date and under the pointer, and goes out as CSV', async () => {
  await open('weather?panel=heat')
  const upTo = page.getByTestId('heat-up-to')
  await upTo.getByText('Thu 11 Jun').waitFor()
  await enterDate(page, 'Up to', '2026-05-03')
  await upTo.getByText('Sun 3 May').waitFor()
  expect(await upTo.innerText()).toMatch(/[\d,]+ °F·d this season\. Past seasons?: [\d,]+ °F·d/)
  await enterDate(page, 'Up to', '2026-07-20')
  await upTo.getByText(/would go on: [\d,]+ °F·d/).waitFor()
  const picture = (await page
    .getByRole('img', { name: /past seasons?/i })
    .last()
    .boundingBox())!
  await page.mouse.move(picture.x + picture.width * 0.3, picture.y + picture.height / 2)
  await upTo.getByText(/ (Feb|Mar|Apr) /).waitFor()
  const link = await page.getByRole('link', { name: 'This heat day by day, as CSV' }).getAttribute('href')
  const text = await page.evaluate(async (address) => (await fetch(address)).text(), link!)
  expect(text).toMatch(/^date,heat_Fd,heat_sum_Fd/)
})

describe('a block in a cold hollow', () => {
  test('gets its difference on the Site screen, and its weather, heat and window move', async () => {
    await open(`windows`)
    const sum = async (): Promise<number> => Number(/Now, at ([\d,]+) °F·d/.exec(await page.locator('caption').first().innerText())![1])
    const before = await sum()
    await open('site')
    await press(page, 'Edit Old Apples')
    await press(page, 'Its position, weather and soil')
    await enterNumber(page, 'Nights differ by', -6)
    await choose(page, 'Soil', 'sandy loam')
    await press(page, 'Save')
    await page.getByText('nights -6 °F, days 0 °F').waitFor()
    await page.getByRole('link', { name: 'Follows Bench' }).click()
    await page.getByRole('heading', { name: 'Weather in Old Apples, by Bench' }).waitFor()
    await page.getByText('Its nights differ by -6 °F and its days by 0 °F').waitFor()
    await page.getByText(/Root zone \d+ % full, sandy loam/).waitFor()
    await goTo(page, 'Windows')
    await page.getByText(/nights -6 °F, days 0 °F against it/).waitFor()
    expect(await sum()).toBeLessThan(before)
  })

  test('a watering wets its leaves, and can be taken back', async () => {
    await open(`weather?block=${place.blockId}&panel=wet`)
    await enterDate(page, 'Day', '2026-06-11')
    await enterNumber(page, 'Wet for', 3)
    await press(page, 'Save')
    await page.getByText(/overhead watering Thu 11 Jun, 05:00, 3 h/).waitFor()
    await expectAccessible(page, 'watering')
    await open(`weather?block=${place.blockId}&day=2026-06-11`)
    const leaves = page.getByRole('row', { name: /^Leaves/ })
    await leaves.waitFor()
    // 05:00 by the clock is 04:00 in standard time.
    expect(
      (await leaves.getByRole('cell').allInnerTexts()).map((text, hour) => (text === 'wet' ? hour : -1)).filter((h) => h >= 0),
    ).toEqual([4, 5, 6])
    await show(page, 'Watering')
    await press(page, 'Remove')
    await page.getByText('None entered this season.').waitFor()
    await press(page, 'Undo')
    await page.getByText(/overhead watering Thu 11 Jun, 05:00/).waitFor()
  })
})

describe('a station', () => {
  test('keeps its clock until the move is confirmed', async () => {
    await open('weather?panel=station')
    await enterNumber(page, 'Standard time, from UTC', -7)
    await page.getByText(/This moves [\d,]+ hours of readings/).waitFor()
    expect(await page.getByRole('button', { name: 'Save' }).isDisabled()).toBe(true)
    await page.getByText('Yes, the days of this station lie elsewhere').click()
    await press(page, 'Save')
    await page.getByText('UTC−7, all year').waitFor()
    await enterNumber(page, 'Standard time, from UTC', -8)
    await page.getByText('Yes, the days of this station lie elsewhere').click()
    await press(page, 'Save')
    await page.getByText('UTC−8, all year').waitFor()
    await expectAccessible(page, 'station')
  })

  test('whose logger had the wrong unit is put right, seen before it is done, and taken off again', async () => {
    await open('weather?panel=station')
    await press(page, 'Put readings right')
    await show(page, 'A unit')
    await enterDate(page, 'From', '2026-05-25')
    await page.getByText(/would lie outside what there can be/).waitFor()
    await press(page, 'Put them right')
    await page.getByRole('alert').getByText('nothing was changed').waitFor()
    await show(page, 'The clock')
    await page.getByText(/Mon 25 May, 01:00 becomes Mon 25 May, 00:00/).waitFor()
    await press(page, 'Put them right')
    await page.getByText(/25 May 2026 to 12 Jun 2026: an hour earlier\./).waitFor()
    await press(page, 'Take off')
    await page.getByText('The readings are as they came.').waitFor()
    expect(await page.getByText('an hour earlier').count()).toBe(0)
  })
})

test('a site without a station starts from monthly normals, and its forecast says so', async () => {
  const bare = await startSite(app, 'Bare bench', place.person)
  done(
    await app.call(
      watches.create,
      { siteId: bare.site.id },
      { organismId: 'codling-moth', blockId: bare.blockId, season: '2026-01-01', biofix: '2026-05-10' },
      { person: bare.person },
    ),
  )
  await page.goto(`${app.address}/sites/${bare.site.id}/site`)
  await press(page, 'Enter monthly normals')
  const months = Array.from({ length: 12 }, (_, m) => {
    const warm = -Math.cos((2 * Math.PI * (m - 0.5)) / 12)
    return `${Math.round(38 + 18 * warm)} ${Math.round(61 + 22 * warm)} 1.1`
  })
  const lines = page.getByRole('textbox', { name: 'A month a line, January first' })
  await lines.fill(months.with(4, '48 warm 1').join('\n'))
  await page.getByText('Line 5: write three numbers').waitFor()
  await lines.fill(months.with(4, '88 60 1').join('\n'))
  await press(page, 'Save')
  await page.getByText('May: the minimum is above the maximum').waitFor()
  await lines.fill(months.join('\n'))
  await page.getByText(/12 of 12 months; January/).waitFor()
  await page.getByRole('textbox', { name: 'Where they are from' }).fill('county almanac')
  await press(page, 'Save')
  await page.getByText(/From county almanac\./).waitFor()
  await expectAccessible(page, 'normals')
  await goTo(page, 'Windows')
  await page.getByText('its seasons are made from typed monthly normals and were never measured').first().waitFor()
  await page.getByText('Made from monthly normals, not from weather that was read').waitFor()
  await page
    .getByText(/^(Opens|Open,|Closing:) /)
    .first()
    .waitFor()
  const band = done(await app.call(watches.band, { siteId: bare.site.id }, { season: '2026-01-01' })).watches[0]!
  expect(band).toMatchObject({ basis: 'normals', grade: 'dates' })
})

test('forecasts are held against what came, on the page', async () => {
  const { token } = done(
    await app.call(weather.issueToken, { siteId: place.site.id, stationId: place.stationId }, {}, { person: place.person }),
  )
  const file = hourlyFile(2026, '2026-06-13').split('\n')
  for (let d = 19; d <= 30; d++) {
    const issuedAt = `2026-05-${d}T08:00:00Z`
    const start = file.findIndex((line) => line.startsWith(`2026-05-${d} 00:00`))
    const temperature = file.slice(start, start + 72).map((line) => Number(line.split(',')[1]) + 2)
    const response = await fetch(`${app.address}/api/v1/stations/${place.stationId}/forecast-issues`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', Authorization: `Bearer ${token}` },
      body: JSON.stringify({ issuedAt, firstHour: issuedAt, members: [{ temperature }] }),
    })
    expect(response.status).toBe(200)
  }
  await open('weather?panel=forecasts')
  const row = page.getByRole('row', { name: /^a day/ })
  await row.waitFor()
  expect((await row.getByRole('cell').allInnerTexts()).slice(0, 3)).toEqual(['12', '+3.6', '+3.6'])
  await expectAccessible(page, 'forecast score')
})
