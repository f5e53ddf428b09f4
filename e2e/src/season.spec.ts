import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import {
  abbott,
  compareWithCheck,
  coverageForecast,
  dailyFromHours,
  dayNumber,
  ensembleOf,
  reachableCohort,
  reachHeat,
  reachOf,
  resolveEvents,
  seasonHeat,
  seasonWeather,
  windowForecast,
  type Bounds,
} from '@bocado/core'
import { findOrganism, modelOf } from '@bocado/library'
import { startApplication, type Application } from '@bocado/server/testing/application'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest'
import { openBrowser } from './browser.js'
import { writeLoggerFile } from './loggerFile.js'
import { choose, enterDate, enterNumber, expectAccessible, goTo, press, show } from './page.js'

/*
 * One person, one site, one pest: from a weather file to a compared outcome, by hand, in the order of the work. Every date
 * and share on the screen is computed here a second time, from the file's own numbers.
 */

const TODAY = '2026-06-12'
const BIOFIX = '2026-05-18'
const SEASON = dayNumber('2026-01-01')
const PRODUCT = { name: 'Granule C', effect: 0.75, residualDays: 6 }

let app: Application
let page: Page
let closeBrowser: () => Promise<void>
let folder: string
const file = writeLoggerFile()

beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  const browser = await openBrowser()
  closeBrowser = browser.close
  page = await browser.context.newPage()
  folder = mkdtempSync(join(tmpdir(), 'bocado-files-'))
})
afterAll(async () => {
  await closeBrowser()
  await app.stop()
  rmSync(folder, { recursive: true, force: true })
})

// A picture of where it went wrong, for whoever has to find out.
beforeEach(({ task, onTestFailed }) =>
  onTestFailed(async () => void (await page.screenshot({ path: `.data/failed-${task.name.slice(0, 40)}.png`, fullPage: true }))),
)

/** What the computation says of the file, once per run. */
function expectation() {
  const model = modelOf(findOrganism('codling-moth')!)
  const series = dailyFromHours({ firstHour: dayNumber(file.firstDay) * 24, tempsC: file.tempsC })
  const heat = seasonHeat(seasonWeather({ series, firstDay: SEASON, today: dayNumber(TODAY) }), model.heat, dayNumber(BIOFIX))
  const ensemble = ensembleOf(heat)
  const events = resolveEvents(model)
  const window = windowForecast(ensemble, reachHeat(reachOf(events, 'first', ['egg', 'young-larva'])!), 365)
  const hatched = reachHeat(reachOf(events, 'first', ['young-larva'])!)
  const cohorts = heat.members.map(({ cumulative }, m) => reachableCohort(hatched, cumulative, ensemble.scores[m]!))
  const coverageOn = (day: string): Bounds =>
    coverageForecast(
      cohorts,
      [{ day: dayNumber(day) - SEASON + 0.5, effect: PRODUCT.effect, residualDays: PRODUCT.residualDays }],
      ensemble,
    )
  return { window, coverageOn }
}

const WEEKDAYS = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat']
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sept', 'Oct', 'Nov', 'Dec']
/** "Sat 13 Jun" for a day of the season. */
const shown = (index: number): string => {
  const date = new Date((SEASON + Math.floor(index)) * 86_400_000)
  return `${WEEKDAYS[date.getUTCDay()]} ${date.getUTCDate()} ${MONTHS[date.getUTCMonth()]}`
}
const percent = (share: number): string => String(Math.round(100 * share))

const PASSWORD = 'seven grey geese fly'

test('whoever sits at a new server makes the first account', async () => {
  await page.goto(app.address)
  await page.getByRole('heading', { name: 'Begin' }).waitFor()
  await expectAccessible(page, 'the first account')
  await page.getByRole('textbox', { name: 'Your name' }).fill('Marit Solheim')
  await page.getByRole('textbox', { name: 'Name to sign in with' }).fill('marit@hollin.example')
  await page.getByLabel('New password').fill('short')
  await press(page, 'Make the account')
  await page.getByText(/use at least 10 characters/).waitFor()
  await page.getByLabel('New password').fill(PASSWORD)
  await page.getByLabel('New password').press('Enter')
  await page.getByRole('heading', { name: 'Start a site' }).waitFor()
})

test('a site is started; what is wrong is said at its field and what was typed stays', async () => {
  await page.goto(app.address)
  await page.getByRole('heading', { name: 'Start a site' }).waitFor()
  await page.getByRole('textbox', { name: 'Place' }).fill('a river terrace')
  await press(page, 'Its position, clock and units')
  await enterNumber(page, 'Latitude', 146.2)
  await press(page, 'Start the site')
  await page.getByText('enter the name of the site').waitFor()
  await page.getByText(/between −90 and 90/).waitFor()
  expect(await page.getByRole('textbox', { name: 'Place' }).inputValue()).toBe('a river terrace')
  await expectAccessible(page, 'start')

  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Hollin Bench')
  await enterNumber(page, 'Latitude', 46.2)
  await choose(page, 'Units', 'US (°F, inches, mph, acres)')
  await press(page, 'Start the site')
  await page.getByRole('heading', { name: 'No blocks yet' }).waitFor()
})

test('a block is added in acres', async () => {
  await press(page, 'Add a block')
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Old Apples')
  await choose(page, 'Kind of place', 'orchard')
  await enterNumber(page, 'Area', 10.38)
  await page.getByRole('textbox', { name: 'What grows there' }).fill('apple, 1988')
  await press(page, 'Save')
  await page.getByRole('heading', { name: 'One block, 10.38 acres' }).waitFor()
  await expectAccessible(page, 'site')
})

test('the logger’s file is understood, imported, and changes nothing the second time', async () => {
  const path = join(folder, 'logger.csv')
  writeFileSync(path, file.text)
  await goTo(page, 'Weather')
  await page.getByRole('textbox', { name: 'Name of the station' }).fill('Bench')
  await press(page, 'Add a station')
  await page.getByRole('link', { name: 'Import a file' }).click()

  const wrong = join(folder, 'picture.csv')
  writeFileSync(wrong, Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 1, 2, 3]))
  await page.locator('input[type=file]').setInputFiles(wrong)
  await page.getByRole('alert').getByText('not a text file but a picture').waitFor()

  await page.locator('input[type=file]').setInputFiles(path)
  await page.getByRole('heading', { name: 'How the file is understood' }).waitFor()
  for (const guess of [
    'month, day, year Order of the date',
    'Time Time in',
    'Air Temp (°F) temperature',
    '°F Unit of temperature',
    'in Unit of rain',
    'mph Unit of wind',
    'hour One line per',
  ])
    await page.getByRole('button', { name: guess, exact: true }).waitFor()
  const firstRow = page.getByRole('row').nth(1)
  const firstF = Number(file.text.split('\r\n')[1]!.split(',')[2])
  expect(await firstRow.innerText()).toContain('2021-01-01 00:00')
  expect(await firstRow.innerText()).toContain(`${Math.round(firstF)} °F`)
  // What is guessed can be changed: in the wrong order, the thirteenth of a month is no date.
  await choose(page, 'Order of the date', 'day, month, year')
  await page.getByText('"1/13/2021 12:00 AM" is not a date').waitFor()
  await choose(page, 'Order of the date', 'month, day, year')
  await choose(page, 'The logger’s clock', 'standard time all year')
  await expectAccessible(page, 'import')
  await press(page, 'Import the whole file')
  const hours = file.tempsC.length.toLocaleString('en-GB')
  await page.getByText(`${hours} new, from 1 Jan 2021 to 11 Jun 2026`).waitFor({ timeout: 60_000 })
  await page.getByText('No line rejected').waitFor()

  await press(page, 'Import another file')
  await page.locator('input[type=file]').setInputFiles(path)
  await press(page, 'Import the whole file')
  await page.getByText(`${hours} unchanged`).waitFor({ timeout: 60_000 })
  await page.getByText('Nothing new').waitFor()
})

test('a day is typed', async () => {
  await goTo(page, 'Weather')
  await show(page, 'Bring readings in')
  const days = page.getByRole('textbox', { name: 'Daily extremes, a day a line' })
  await days.fill('June 11, 1999 51 78\nyesterday 40 50')
  await page.getByText('Line 2: “yesterday” is no date').waitFor()
  // Typed days win over readings: this one is of a year that no reading reaches.
  await days.fill('June 11, 1999 51 78 0.1')
  await press(page, 'Store one day')
  await page.getByText('1 new, 0 changed, 0 as before.').waitFor()
  await expectAccessible(page, 'weather')
})

test('the window’s dates are those of the computation', async () => {
  // Nothing is watched yet, so that is what the screen asks.
  await goTo(page, 'Windows')
  await choose(page, 'Block', 'Old Apples')
  await page.getByRole('option', { name: /^Codling moth dates, by heat/ }).click()
  await page.getByText('anal comb').waitFor()
  await page.getByText('Leave the date empty until it has come').waitFor()
  await enterDate(page, 'Biofix', BIOFIX)
  await press(page, 'Start watching')

  const { window } = expectation()
  expect(window.opens.p50).toBeLessThan(dayNumber(TODAY) - SEASON)
  const sentence = page.getByRole('button', { name: /Codling moth Old Apples/ })
  await sentence.waitFor()
  const words = await sentence.innerText()
  expect(words).toContain(shown(window.closes.p50))
  expect(words).toContain(
    `${shown(window.closes.p90).split(' ')[1]} ${MONTHS[new Date((SEASON + window.closes.p90) * 86_400_000).getUTCMonth()]})`,
  )
  await page.getByText('Single sine, 50 to 88 °F, from the biofix Mon 18 May').waitFor()
  await page.getByText('After that, 5 past seasons').waitFor()
  await page.getByText('Food: Entered fruit may rot and carry moulds').waitFor()
  await expectAccessible(page, 'windows')
})

test('the axis turns even in heat, and the season can be read by keyboard', async () => {
  const label = page.getByRole('button', { name: /Codling moth Old Apples/ })
  const months = async (): Promise<number[]> => {
    const places = [/^May$/, /^Jun$/, /^Jul$/, /^Aug$/].map((hasText) =>
      page.getByTestId('band').locator('svg text', { hasText }).first().boundingBox(),
    )
    return (await Promise.all(places)).map((box) => box!.x)
  }
  const before = await months()
  await page.keyboard.press('h')
  // Some month moves far, though the one in the middle may hardly move.
  await expect.poll(async () => Math.max(...(await months()).map((x, i) => Math.abs(x - before[i]!)))).toBeGreaterThan(8)
  await label.focus()
  await page.keyboard.press('ArrowLeft')
  await page.getByText(/Thu 11 Jun, \d+ °F·d: moths flying/).waitFor()
  await page.keyboard.press('h')
})

test('a product is put on the shelf by its label, and a treatment planned into the window', async () => {
  await page.getByRole('link', { name: 'Put a product on the shelf' }).click()
  await press(page, 'Put a product on the shelf')
  await page.getByRole('textbox', { name: 'Name on the label' }).fill(PRODUCT.name)
  await press(page, 'Save')
  await page.getByText('enter the highest rate on the label').waitFor()
  await choose(page, 'What it is', 'Granulosis virus')
  await press(page, 'Stages, effect, and what else the label names')
  expect(await page.getByRole('checkbox', { name: 'young larvae, still outside the plant' }).isChecked()).toBe(true)
  await enterNumber(page, 'Kills', PRODUCT.effect * 100)
  await enterNumber(page, 'Residue acts for', PRODUCT.residualDays)
  await enterNumber(page, 'Highest rate', 0.1)
  await choose(page, 'Unit', 'L/ha')
  await enterNumber(page, 'Re-entry', 4)
  await enterNumber(page, 'To harvest', 7)
  await choose(page, 'Bees, by the label', 'Bees: nothing said on the label.')
  await page.getByRole('textbox', { name: 'Protective gear, by the label' }).fill('gloves')
  await press(page, 'Save')
  await page.getByText('At most 0.1 L/ha').waitFor()

  await goTo(page, 'Windows')
  const { coverageOn } = expectation()
  const expectCoverage = async (day: string): Promise<void> => {
    const { p10, p50, p90 } = coverageOn(day)
    await page
      .getByTestId('coverage')
      .getByText(`${shown(dayNumber(day) - SEASON)}`, { exact: false })
      .first()
      .waitFor()
    expect(await page.getByTestId('coverage').innerText()).toContain(
      `reaches ${percent(p50)} % (${percent(p10)} to ${percent(p90)}) of the first generation`,
    )
  }
  await enterDate(page, 'On', '2026-06-08')
  await expectCoverage('2026-06-08')
  await press(page, 'A day later')
  await expectCoverage('2026-06-09')
  await press(page, 'A day earlier')
  await press(page, 'A day earlier')
  await expectCoverage('2026-06-07')
  await press(page, 'Plan it')
  await page.getByText('Granule C, planned for Sun 7 Jun, 5 days ago.').waitFor()
})

test('the treatment is recorded with the weather of its hour, never above the label', async () => {
  await page.getByRole('link', { name: 'Record as done' }).click()
  await enterDate(page, 'Day', '2026-06-07')
  await page.getByRole('textbox', { name: 'Begun at' }).fill('21:20')
  await page.getByText('Weather of that hour as the station read it').waitFor()
  // 21:20 on the wall clock is 20:20 in standard time.
  const index = (dayNumber('2026-06-07') - dayNumber(file.firstDay)) * 24 + 20
  const fahrenheit = (file.tempsC[index]! * 9) / 5 + 32
  expect(Number(await page.getByRole('textbox', { name: 'Temperature' }).inputValue())).toBeCloseTo(fahrenheit, 0)
  await enterNumber(page, 'Rate', 0.2)
  await press(page, 'Record it')
  await page.getByText('is above the label of Granule C: at most 0.1 L/ha').waitFor()
  await enterNumber(page, 'Rate', 0.1)
  await press(page, 'Record it')
  await page.getByText('Granule C at 0.1 L/ha on 10.38 acres, Old Apples.').waitFor()
  await page.getByText('Harvest from Sun 14 Jun at the earliest.').waitFor()
  await expectAccessible(page, 'treatments')
})

/** Fresh entries on each tree. */
const COUNTS = {
  before: Array.from({ length: 24 }, (_, i) => (i * 7) % 4),
  after: Array.from({ length: 24 }, (_, i) => ((i * 5) % 6 === 0 ? 1 : 0)),
  checkBefore: Array.from({ length: 24 }, (_, i) => (i * 5) % 4),
  checkAfter: Array.from({ length: 24 }, (_, i) => 1 + ((i * 11) % 4)),
}
const sum = (xs: readonly number[]): number => xs.reduce((a, b) => a + b, 0)

test('counts are tallied by key and thumb, and entered from paper', async () => {
  await goTo(page, 'Scouting')
  await press(page, 'Mark out a check area')
  await page.getByRole('textbox', { name: 'Where it is' }).fill('North corner')
  await press(page, 'Save')
  await page.getByText('Untreated check area: North corner.').waitFor()

  await page.getByRole('link', { name: 'Count now' }).click()
  await page.getByRole('heading', { name: /Counting Codling moth/ }).waitFor()
  await enterDate(page, 'On', '2026-06-05')
  await page.getByRole('heading', { name: /Counting Codling moth/ }).click()
  for (const [i, found] of COUNTS.before.entries()) {
    if (i > 0) await page.keyboard.press('n')
    for (let k = 0; k < found; k++) {
      if (i % 2 === 0) await page.keyboard.press('1')
      else await press(page, 'One more: fresh entry')
    }
  }
  // What is tallied outlives a closed page.
  await page.reload()
  await page.getByRole('heading', { name: `24 trees: ${(sum(COUNTS.before) * 100) / 480} per 100 fruit` }).waitFor()
  await page.getByText('Act: 36 on 24 trees is over the line.').waitFor()
  await press(page, 'Why these lines')
  await page.getByText(/^Simulated: 2,000 counts/).waitFor()
  expect(await page.getByTestId('counts-end').getByRole('row').count()).toBe(7)
  await expectAccessible(page, 'count')
  await press(page, 'Save the count')
  await page.getByText(`Fri 5 Jun, in the block: ${(sum(COUNTS.before) * 100) / 480} per 100 fruit,`).waitFor()

  const fromPaper = async (date: string, counts: readonly number[], where?: string): Promise<void> => {
    await page.getByRole('link', { name: 'Count now' }).click()
    await page.getByRole('heading', { name: /Counting Codling moth/ }).waitFor()
    if (where) await choose(page, 'Where', where)
    await enterDate(page, 'On', date)
    await press(page, 'Enter from paper')
    await page.getByRole('textbox', { name: 'One tree a line' }).fill(counts.map((n) => `${n} 0`).join('\n'))
    await press(page, 'Take 24 trees')
    await press(page, 'Save the count')
    await page.getByRole('heading', { name: 'Scouting' }).waitFor()
  }
  await fromPaper('2026-06-05', COUNTS.checkBefore, 'North corner (check area)')
  await fromPaper('2026-06-12', COUNTS.after)
  await fromPaper('2026-06-12', COUNTS.checkAfter, 'North corner (check area)')
  await expectAccessible(page, 'scouting')
})

test('the outcome gives both formulas with their intervals, the threshold, and one honest sentence', async () => {
  await goTo(page, 'Outcomes')
  const expected = compareWithCheck(
    { treatedBefore: COUNTS.before, treatedAfter: COUNTS.after, checkBefore: COUNTS.checkBefore, checkAfter: COUNTS.checkAfter },
    { seed: 1979 },
  )
  const plain = abbott({ treatedAfter: sum(COUNTS.after), checkAfter: sum(COUNTS.checkAfter) })
  const { withAreas, sampling, value } = expected.hendersonTilton
  const verdict = await page.getByTestId('verdict').innerText()
  expect(verdict).toContain(
    `Old Apples stood ${percent(value)} % lower than North corner would have it (90 % interval ${percent(withAreas.low)} % to ${percent(withAreas.high)} %)`,
  )
  expect(verdict).toContain('one pair does not show that it worked')
  const row = await page.getByRole('row', { name: /Henderson & Tilton/ }).innerText()
  expect(row).toContain(`${percent(value)} %`)
  expect(row).toContain(`${percent(sampling.low)} % to ${percent(sampling.high)} %`)
  expect(await page.getByRole('row', { name: /Abbott/ }).innerText()).toContain(`${percent(plain)} %`)
  const per100 = (counts: readonly number[]): string => Number(((sum(counts) * 100) / 480).toFixed(1)).toString()
  await page
    .getByText(`before, ${per100(COUNTS.before)} on Fri 5 Jun, over it; after, ${per100(COUNTS.after)} on Fri 12 Jun, under it.`)
    .waitFor()
  await expectAccessible(page, 'outcomes')
})

test('somebody comes by an invitation, and as a viewer is told why nothing is stored', async () => {
  await goTo(page, 'Site')
  await press(page, 'Invite somebody')
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Packing-house buyer')
  await choose(page, 'Role', 'viewer: looks at everything, changes nothing')
  await expectAccessible(page, 'an invitation')
  await press(page, 'Make the link')
  const link = await page.getByTestId('link').innerText()
  await press(page, 'Done')
  await page.getByRole('listitem').filter({ hasText: 'invited by Marit Solheim' }).waitFor()
  await press(page, 'Marit Solheim: account, sign out')
  await press(page, 'Sign out')
  await page.getByRole('heading', { name: 'Sign in' }).waitFor()
  await page.goto(link)
  await page.getByRole('heading', { name: 'Come to Hollin Bench' }).waitFor()
  await expectAccessible(page, 'coming in')
  await page.getByRole('textbox', { name: 'Name to sign in with' }).fill('buyer')
  await page.getByLabel('New password').fill(PASSWORD)
  await press(page, 'Come in')
  await page.getByText('You are here as a viewer: everything can be looked at, nothing changed.').waitFor()
  await goTo(page, 'Site')
  await press(page, 'Add a block')
  expect(await page.getByRole('button', { name: 'Save', exact: true }).isDisabled()).toBe(true)
  await page.getByText('This is for who leads the site').first().waitFor()
  await page.goto(link)
  await page.getByText('This link was used already.').waitFor()
})

test('one signs out and in again; a wrong password says no more than that; who is signed out elsewhere is asked again where they were', async () => {
  await page.goto(`${app.address}/account`)
  await page.getByRole('heading', { name: 'Where you are signed in' }).waitFor()
  await expectAccessible(page, 'the account')
  await press(page, 'Sign out')
  await page.getByRole('textbox', { name: 'Name to sign in with' }).fill('marit@hollin.example')
  await page.getByLabel('Password').fill('not that one')
  await press(page, 'Sign in')
  await page.getByText('The name or the password is not right.').waitFor()
  await page.getByLabel('Password').fill(PASSWORD)
  await press(page, 'Sign in')
  await page.getByText('Signed in as Marit Solheim').waitFor()
  await page.goto(app.address)
  await goTo(page, 'Scouting')
  // Somebody ends every sign-in of hers from elsewhere.
  await app.database.query('UPDATE sign_in SET ended_at = UTC_TIMESTAMP()')
  await page.getByRole('navigation').getByRole('link', { name: 'Library', exact: true }).first().click()
  await page.getByLabel('Password').fill(PASSWORD)
  await page.getByRole('textbox', { name: 'Name to sign in with' }).fill('marit@hollin.example')
  await press(page, 'Sign in')
  await page.waitForURL(/library/)
  await page.getByRole('heading', { level: 1 }).first().waitFor()
})

test('a passkey opens what the password does, and nothing once it is removed', async () => {
  // A passkey belongs to a name: this machine's own, in place of its number.
  const address = app.address.replace('127.0.0.1', 'localhost')
  const cdp = await page.context().newCDPSession(page)
  await cdp.send('WebAuthn.enable')
  await cdp.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      protocol: 'ctap2',
      transport: 'internal',
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  })
  await page.goto(`${address}/account`)
  await page.getByRole('textbox', { name: 'Name to sign in with' }).fill('marit@hollin.example')
  await page.getByLabel('Password').fill(PASSWORD)
  await press(page, 'Sign in')
  await press(page, 'Add a passkey')
  await page.getByRole('textbox', { name: /What it is kept by/ }).fill('the desk')
  await press(page, 'Make it')
  await page.getByRole('listitem').filter({ hasText: 'the desk' }).getByText('not used yet').waitFor()
  await expectAccessible(page, 'passkeys')
  await press(page, 'Sign out')
  await press(page, 'Sign in with a passkey')
  await page.getByText('Signed in as Marit Solheim').waitFor()
  await page
    .getByText(/^by a passkey/)
    .first()
    .waitFor()
  await press(page, 'Remove the passkey the desk')
  await page.getByText('the desk').waitFor({ state: 'detached' })
  await press(page, 'Sign out')
  await press(page, 'Sign in with a passkey')
  await page.getByText('This passkey opens nothing here.').waitFor()
  await cdp.detach()
})
