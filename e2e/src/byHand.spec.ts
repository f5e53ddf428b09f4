import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { describe, expect, test } from 'vitest'
import { enterNumber, expectAccessible, fileChooser, press } from './page.js'
import { setStage, type Stage } from './stage.js'

/* What people type and bring in: hours put right, days by hand, files taken back, and days written in any way. */

let page: Page
let open: Stage['open']

setStage(
  hourlyFile(2024, '2026-06-12'),
  () => Promise.resolve(),
  (stage) => ({ page, open } = stage),
)

describe('readings', () => {
  test('an hour is put right with who and why, and taken off again', async () => {
    await open('weather?panel=day&day=2026-06-10')
    await press(page, 'Put an hour right')
    await expectAccessible(page, 'an hour put right')
    await enterNumber(page, 'It was', 71)
    await press(page, 'Put it right')
    await page.getByText('say why').waitFor()
    await page.getByRole('textbox', { name: 'Why' }).fill('sun on the sensor')
    await press(page, 'Put it right')
    const line = page.getByText(/^13:00 temperature 71 °F, by hand, read .*: sun on the sensor Marit Solheim/)
    await line.waitFor()
    await press(page, 'Take off')
    await line.waitFor({ state: 'detached' })
  })

  test('a day that is typed stands in place of what was read, and says so', async () => {
    await open('weather?panel=readings')
    await page.getByRole('textbox', { name: 'Daily extremes, a day a line' }).fill('6/8/2026 50 71\n6/9/2026 51 70 0.2')
    await page.getByText('Days such as “6/8/2026” can be read in two ways. Choose which is meant.').waitFor()
    expect(await page.getByRole('button', { name: 'Store 2 days' }).isDisabled()).toBe(true)
    await expectAccessible(page, 'which comes first')
    await page.getByRole('radio', { name: '8 Jun 2026' }).click()
    await press(page, 'Store 2 days')
    await page.getByText('2 new, 0 changed, 0 as before.').waitFor()
    await open('weather?panel=day&day=2026-06-09')
    await page.getByText('Typed by Marit Solheim: 51 °F to 70 °F, 0.2 in. That stands in place of what was read.').waitFor()
    await press(page, 'Let the readings stand')
    await page.getByText('What was read of Tue 9 Jun stands again.').waitFor()
    await page.getByText('Typed by', { exact: false }).waitFor({ state: 'detached' })
  })

  test('a file is taken back as a whole, once it was asked', async () => {
    await open('weather?panel=readings')
    await page.getByRole('button', { name: /^Take back / }).click()
    await page.getByText(/Everything that .* brought goes/).waitFor()
    await press(page, 'Take it back')
    await page.getByText(/taken back by Marit Solheim/).waitFor()
    await page.getByRole('button', { name: /^Take back / }).waitFor({ state: 'detached' })
  })
})

test('several files come in one after the other', async () => {
  await open('weather?panel=readings')
  await page.getByRole('link', { name: 'Import a file' }).click()
  const file = (name: string, year: number) => ({ name, mimeType: 'text/csv', buffer: Buffer.from(hourlyFile(year, `${year}-02-10`)) })
  const chooser = await fileChooser(page, 'Choose files')
  await chooser.setFiles([file('bench-2024.csv', 2024), file('bench-2025.csv', 2025)])
  await page.getByText('the start of its hour').first().waitFor()
  await press(page, 'Import the whole file')
  await press(page, 'Go on with bench-2025.csv')
  await page.getByRole('heading', { name: 'Import bench-2025.csv' }).waitFor()
  await press(page, 'Import the whole file')
  await page.getByText('bench-2025.csv is in').waitFor()
  expect(await page.getByRole('button', { name: /^Go on with/ }).count()).toBe(0)
})

test('a notebook in numbers only asks once what comes first', async () => {
  await open('bloom?panel=notebook')
  const lines = page.getByRole('textbox', { name: 'Lines of the notebook' })
  await lines.fill('5/3/2025 lilac open\n5/9/2025 lilac full bloom')
  await press(page, 'Show how it is understood')
  await page.getByRole('radio', { name: '3 May 2025' }).click()
  await page.getByTestId('notebook-lines').getByText('9 May 2025').waitFor()
  await page.getByRole('button', { name: /^Take/ }).last().click()
  await page.getByText('2 lines taken.').waitFor()
})
