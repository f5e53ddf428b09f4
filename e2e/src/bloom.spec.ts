import { endpoints } from '@bocado/contract'
import type { Application } from '@bocado/server/testing/application'
import { done, type TestSite } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { expect, test } from 'vitest'
import { choose, enterDate, enterNumber, expectAccessible, goTo, press, show } from './page.js'
import { setStage } from './stage.js'

/* Bloom as a clock: two taps in the lane, a notebook pasted whole, the ladder, and a spring that is ahead of the model. */

const { calibration, library, watches } = endpoints

let app: Application
let place: TestSite
let page: Page

setStage(
  hourlyFile(2017, '2026-06-12'),
  async ({ app, at, place, as }) => {
    for (const plantId of ['forsythia', 'common-lilac', 'linden'])
      done(await app.call(library.addToRoute, at, { plantId, place: 'along the lane' }, as))
    const watch = async (organismId: string) =>
      done(await app.call(watches.create, at, { organismId, blockId: place.blockId, season: '2026-01-01', biofix: null }, as)).id
    const moth = await watch('codling-moth')
    for (const year of [2019, 2020, 2021, 2022, 2023])
      done(
        await app.call(
          calibration.addSighting,
          { ...at, watchId: moth },
          { event: 'hatch', kind: 'first', seenOn: `${year}-05-31`, lookedBefore: `${year}-05-29` },
          as,
        ),
      )
  },
  async (stage) => {
    ;({ app, place, page } = stage)
    await stage.open('bloom')
  },
)

test('a notebook of eight seasons is pasted, shown as it is understood, and taken in without the line that cannot be read', async () => {
  await show(page, 'Notebook')
  const lines = [2018, 2019, 2020, 2021, 2022, 2023, 2024, 2025].flatMap((year) => [
    `10 Apr ${year} forsythia first open`,
    `${year}-05-06, common lilac, first open, by the gate`,
  ])
  await page.getByRole('textbox', { name: 'Lines of the notebook' }).fill([...lines, '2025-06-01 something yellow'].join('\n'))
  await press(page, 'Show how it is understood')
  const table = page.getByTestId('notebook-lines')
  await table.getByRole('row', { name: /something yellow.*names no bloom plant of the library/ }).waitFor()
  expect(await page.getByRole('button', { name: 'Take 16 lines into the log' }).isDisabled()).toBe(true)
  await page.getByText('leave out the line that cannot be read').click()
  await expectAccessible(page, 'notebook')
  await press(page, 'Take 16 lines into the log')
  await page.getByText('16 lines taken, 1 left out.').waitFor()
})

test('the ladder ranks blooms for an event and says plainly whether bloom beats heat, by heat and by days', async () => {
  await show(page, 'Ladder')
  await page.getByTestId('ladder-verdict').waitFor()
  expect(await page.getByTestId('ladder-verdict').innerText()).toMatch(/^Bloom (beats|does not beat) heat here: by .* off by \d/)
  expect(
    await page
      .getByTestId('ranking')
      .getByRole('row', { name: /^Common lilac/ })
      .innerText(),
  ).toContain('2')
  await show(page, 'days')
  await page.getByText('Day of the year. A dot for each season.').waitFor()
  await choose(page, 'Bloom', 'Common lilac, first flower open')
  await page.getByText(/^Codling moth, hatch begins: \d+ days later/).waitFor()
  await expectAccessible(page, 'ladder')
})

test('a bloom of this spring is written down with its date, moves the watches, and says so there', async () => {
  await show(page, 'Log')
  await choose(page, 'Plant', 'Common lilac')
  await enterDate(page, 'Seen on', '2026-04-26')
  await press(page, 'Save')
  await page
    .getByTestId('bloom-log')
    .getByText(/^Common lilac, first flower open: {2}?26 Apr 2026/)
    .first()
    .waitFor()
  await page
    .getByTestId('bloom-evidence')
    .getByText(/Bench: one bloom so far puts this spring \d(\.\d)? days ahead of the model\./)
    .waitFor()
  await press(page, 'Which blooms')
  await page.getByText(/^Common lilac, first flower open: came at .*, expected at .* \(8 years here\)/).waitFor()
  await expectAccessible(page, 'bloom log')
  await goTo(page, 'Windows')
  const moved = page.getByTestId('bloom-moved')
  await moved.getByText(/^One bloom so far moves it by -\d/).waitFor()
  await moved.getByText('Let blooms move this watch').click()
  await moved.getByText(/so far moves it/).waitFor({ state: 'detached' })
  await moved.getByText('Let blooms move this watch').click()
  await moved.getByText(/^One bloom so far moves it by -\d/).waitFor()
})

test('two taps write down what is there today or not yet, and can be taken back', async () => {
  await goTo(page, 'Bloom')
  const look = page.getByTestId('look-for')
  const first = look.getByRole('button', { name: /: not yet$/ }).first()
  const name = (await first.getAttribute('aria-label'))!.replace(/: not yet$/, '')
  await first.click()
  await page.getByText(`${name}: not yet.`).waitFor()
  await look
    .getByText(/looked for on Fri 12 Jun/)
    .first()
    .waitFor()
  await press(page, 'Undo')
  await expect.poll(() => look.getByText(/looked for on Fri 12 Jun/).count()).toBe(0)
  await show(page, 'Weeks without nectar')
  await page.getByTestId('nectar').getByRole('listitem').first().waitFor()
  await expectAccessible(page, 'nectar')
})

test('a bloom sets off a count, which is due beside what blooms say; a biofix that waits for a bloom is taken from the log', async () => {
  await show(page, 'Triggers')
  await choose(page, 'When', 'Common lilac')
  await enterNumber(page, 'Days later', 30)
  await choose(page, 'What and where', 'Codling moth, Old Apples')
  await press(page, 'Save')
  await page
    .getByTestId('due-triggers')
    .getByText('Common lilac, first flower open, 30 days later: count, Codling moth, Old Apples. Due Tue 26 May')
    .waitFor()
  await expectAccessible(page, 'triggers')

  const [at, as] = [{ siteId: place.site.id }, { person: place.person }]
  const scab = done(
    await app.call(watches.create, at, { organismId: 'apple-scab', blockId: place.blockId, season: '2026-01-01', biofix: null }, as),
  ).id
  done(await app.call(endpoints.bloom.add, at, { plantId: 'apple', event: 'bud', seenFrom: '2026-04-03' }, as))
  await page.goto(`${app.address}/sites/${place.site.id}/windows?watch=${scab}`)
  await page.getByTestId('bloom-biofix').getByText('The log has Apple (king bloom), bud on Fri 3 Apr').waitFor()
  await press(page, 'Take Fri 3 Apr as the biofix')
  await expect.poll(() => page.getByTestId('bloom-biofix').count()).toBe(0)
  const { watches: list } = done(await app.call(watches.band, at, { season: '2026-01-01' }))
  expect(list.find(({ watch }) => watch.id === scab)!.biofix).toMatchObject({ how: 'entered', date: '2026-04-03' })
})

test('what stands where is said once; a stage is one tap, taken back by another, and what comes next is told', async () => {
  await page.goto(`${app.address}/sites/${place.site.id}/bloom?panel=crops`)
  await press(page, 'Say what stands where')
  await choose(page, 'Crop', 'Zucchini')
  await enterDate(page, 'Since', '2026-05-20')
  await choose(page, 'It began', 'planted that day')
  await expectAccessible(page, 'a planting')
  await press(page, 'Save')
  const row = page.getByTestId('crop-calendar').getByRole('listitem').filter({ hasText: 'Zucchini' })
  await row.getByText('planted Wed 20 May').waitFor()
  await row.getByText('Expected, by practice and wide: first flower 9 to 29 Jun').waitFor()
  await row.getByRole('button', { name: 'Zucchini, Old Apples, today: first flower', exact: true }).click()
  await row.getByText('first flower Fri 12 Jun').waitFor()
  await press(page, 'Undo')
  await row.getByText('first flower Fri 12 Jun').waitFor({ state: 'detached' })
  await row.getByRole('button', { name: 'Stages and changes' }).click()
  await choose(page, 'Stage', 'first flower')
  await enterDate(page, 'Seen on', '2026-06-10')
  await row.getByRole('button', { name: 'Save' }).click()
  await row.getByText('In flower for bees 10 Jun to').waitFor()
  await expectAccessible(page, 'the crop calendar')
})

test('what the calendar says grows there is proposed to be watched', async () => {
  await page.goto(`${app.address}/sites/${place.site.id}/windows?do=watch`)
  await page.getByText(/apple, zucchini/).waitFor()
  await page.getByRole('option', { name: /^Squash bug/ }).waitFor()
})
