import { endpoints } from '@bocado/contract'
import { done, GRANULE } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { describe, expect, test } from 'vitest'
import { choose, enterDate, enterNumber, expectAccessible, press, takeWay } from './page.js'
import { setStage, type Stage } from './stage.js'

/* What is for what: parts of a block, products that fit and that do not, each way with its window, and what nobody can name. */

const { treatments, watches } = endpoints
const SEASON = '2026-01-01'

let page: Page
let open: Stage['open']

setStage(
  hourlyFile(2021, '2026-06-12'),
  async ({ app, at, place, as }) => {
    done(
      await app.call(watches.create, at, { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: '2026-05-10' }, as),
    )
    done(await app.call(treatments.addProduct, at, { ...GRANULE, targets: ['codling-moth'], crops: ['apple'] }, as))
    done(await app.call(treatments.addProduct, at, { ...GRANULE, name: 'Terrace sulphur', methods: ['sulphur'], stages: ['spore'] }, as))
    done(await app.call(treatments.addProduct, at, { ...GRANULE, name: 'Old tin', methods: [] }, as))
  },
  (stage) => ({ page, open } = stage),
)

describe('a part of a block', () => {
  test('is named where it lies, and holds no more than is there', async () => {
    await open('site')
    await press(page, 'Parts of Old Apples')
    await press(page, 'Add a part of Old Apples')
    await choose(page, 'What it is', 'row')
    await page.getByRole('textbox', { name: 'Name' }).fill('Row 4')
    await enterNumber(page, 'Area', 900_000)
    await press(page, 'Save')
    await page.getByText('is more than Old Apples has left: 452,084 ft²').waitFor()
    await enterNumber(page, 'Area', 5382)
    await enterNumber(page, 'Plants or pots', 62)
    await press(page, 'Save')
    await page.getByText('row, 5,382 ft², 62 plants').waitFor()
    await expectAccessible(page, 'parts of a block')
  })

  test('is where a treatment is planned', async () => {
    await open('windows')
    await choose(page, 'Where', 'Row 4')
    await press(page, 'Plan it')
    await page.getByText(/^Granule C, planned for/).waitFor()
    await open('treatments')
    await page.getByText(/^Granule C in Row 4, Old Apples,/).waitFor()
  })
})

describe('what does not fit', () => {
  test('is not offered, and says why; what nobody has said enough of is asked about', async () => {
    await open('windows')
    const ways = page.getByTestId('still-reaching').locator('label')
    await takeWay(page, 'Old tin')
    const offered = await ways.locator('b').allInnerTexts()
    // What nobody has said enough of is last; what is not for it is not there.
    expect(offered).toEqual(expect.arrayContaining(['Granule C', 'Gathering fallen and infested fruit']))
    expect(offered.at(-1)).toBe('Old tin')
    expect(offered).not.toContain('Terrace sulphur')
    await page.getByText('Nobody has said what Old tin is').waitFor()
    expect(await page.getByTestId('coverage').count()).toBe(0)
    // What is done now can be told from what would have come anyway only beside a check.
    await page.getByText('Without a check nobody can tell later', { exact: false }).waitFor()
    await press(page, 'What a check would tell')
    const tells = page.getByTestId('check-tells')
    await tells.waitFor()
    const units = async () => (await tells.getByRole('row', { name: /^6 / }).innerText()).split('\t').slice(1).join(' ')
    const before = await units()
    await enterNumber(page, 'Looked at in each', 200)
    await expect.poll(units).not.toBe(before)
    await expectAccessible(page, 'what a check would tell')
    await press(page, 'One product on the shelf is not for this')
    await page.getByText('Terrace sulphur: nothing here says that it works against this.').waitFor()
  })

  test('is recorded where it was used, marked, with the reason', async () => {
    await page.getByRole('link', { name: 'It was used: record it' }).click()
    await page.getByRole('textbox', { name: 'Begun at' }).fill('05:10')
    await page.getByText('It is recorded as it was done and marked').waitFor()
    await expectAccessible(page, 'a deviation')
    await press(page, 'Record it')
    await page.getByText('say why: Terrace sulphur is not for this').waitFor()
    await page.getByRole('textbox', { name: 'Why it was used' }).fill('The tank was full of it.')
    await press(page, 'Record it')
    await page.getByText('Not by the book:').waitFor()
    await page.getByText('The tank was full of it.').waitFor()
  })
})

test('a deed by hand is planned from its ways, recorded with what was taken, and one that nobody planned as well', async () => {
  await open('windows')
  await page.getByRole('radio', { name: 'Ways to act' }).click()
  await page.getByRole('button', { name: 'Plan Gathering fallen and infested fruit' }).click()
  await page.getByText('Done by hand: no label asks anything of it.').waitFor()
  await page.getByText('Both are guesses by the kind of work.').waitFor()
  await enterDate(page, 'On', '2026-06-10')
  await press(page, 'Plan it')
  await page.getByText(/^Gathering fallen and infested fruit, planned for/).waitFor()
  await page
    .getByRole('listitem')
    .filter({ hasText: /^Gathering fallen and infested fruit, planned for/ })
    .getByRole('link', { name: 'Record as done' })
    .click()
  await page.getByRole('textbox', { name: 'Begun at' }).fill('07:30')
  await enterNumber(page, 'Taken', 12.5)
  await choose(page, 'of it in', 'kg')
  await expectAccessible(page, 'a deed by hand')
  await press(page, 'Record it')
  await expect.poll(() => page.getByRole('button', { name: 'Record it' }).count()).toBe(0)
  await page.getByText(/12\.5 kg taken/).waitFor()
  await press(page, 'Record something that was done')
  await choose(page, 'Against', 'Codling moth, Old Apples')
  await choose(page, 'With', 'Clearing residues')
  await page.getByRole('textbox', { name: 'Begun at' }).fill('05:40')
  await press(page, 'Record it')
  await page.getByText(/^Clearing residues, Old Apples/).waitFor()
})

test('several are watched at once, found by a word', async () => {
  await open('windows')
  await press(page, 'Watch something')
  await page.getByRole('searchbox', { name: 'Find an organism', exact: true }).fill('onion')
  await page.getByRole('option', { name: /^Onion maggot/ }).click()
  await page.getByText('Be sure what it is:').waitFor()
  await page.getByRole('option', { name: /^Onion thrips/ }).click()
  await page.getByText('What each asks for, such as its biofix, stands in its watch.').waitFor()
  await expectAccessible(page, 'several watches')
  await press(page, 'Watch these 2')
  await page
    .getByRole('button', { name: /Onion maggot Old Apples/ })
    .first()
    .waitFor()
  await page
    .getByRole('heading', { name: /^2 watches|^3 watches|watches/ })
    .first()
    .waitFor()
})

test('each way to act has its own window', async () => {
  await open('windows')
  await page.getByRole('radio', { name: 'Ways to act' }).click()
  const ways = page.getByTestId('ways')
  await ways
    .getByText(/Has to stand by|The first are there since/)
    .first()
    .waitFor()
  await ways.getByText('Gathering fallen and infested fruit').waitFor()
  expect(await ways.getByText(/Opens|Open,|Closing|Past|Poorly/).count()).toBeGreaterThan(2)
  await expectAccessible(page, 'ways to act')
})

test('what a day of waiting costs stands beside the plan, and the days that together reach most', async () => {
  await open('windows')
  await page.getByTestId('coverage').waitFor()
  await page
    .getByTestId('waiting')
    .getByText(/^A day later it reaches/)
    .waitFor()
  await press(page, 'Two or three days together')
  const days = page.getByTestId('several-days')
  await days.getByRole('listitem').first().waitFor()
  await expectAccessible(page, 'days together')
  const shares = await days.getByRole('listitem').evaluateAll((all) => all.map((one) => Number(/(\d+) %/.exec(one.textContent)?.[1])))
  expect(shares).toEqual([...shares].sort((a, b) => a - b))
  // A day that is pressed is the one that is thought of.
  const last = days.getByRole('listitem').last().getByRole('button').first()
  const day = (await last.textContent()) ?? ''
  await last.click()
  await page.getByTestId('coverage').getByText(day).waitFor()
})

test('what nobody can name is kept, and named later', async () => {
  await open('library/suspects?place=oak&month=6&seen=leaf:gall,flower:gall,bud:gall')
  await page.getByTestId('nothing-fits').waitFor()
  await press(page, 'Keep it as unknown')
  await enterNumber(page, 'How many', 14)
  await press(page, 'Keep it')
  const finds = page.getByTestId('unknown-finds')
  await finds.getByText('Not known yet').waitFor()
  await finds.getByText('14 found', { exact: false }).waitFor()
  await finds.getByRole('button', { name: /What it turned out to be/ }).click()
  await page.getByRole('option', { name: 'Fungus gnats' }).click()
  await finds.getByText('It was Fungus gnats').waitFor()
})

test('what is over its threshold is left for a reason until a day, says so where it is looked at, and is taken back', async () => {
  await open('scouting')
  const count = page.locator('section').filter({ hasText: 'Codling moth' }).getByRole('link', { name: 'Count now' })
  const [, watchId] = /scouting\/([^/]+)\/count/.exec((await count.getAttribute('href'))!)!
  await count.click()
  const more = page.getByRole('button', { name: /^One more/ }).first()
  for (let found = 0; found < 3; found++) await more.click()
  await press(page, 'Save the count')
  await press(page, 'Leave it for now')
  await page.getByRole('textbox', { name: 'Why' }).fill('sold for juice')
  await expectAccessible(page, 'a decision')
  await press(page, 'Leave it until then')
  await page.getByText('Left, so much can be borne: sold for juice (Marit Solheim, Fri 12 Jun). Look again Fri 19 Jun.').waitFor()
  await open(`windows?watch=${watchId}`)
  await page.getByText('Left, so much can be borne: sold for juice').waitFor()
  await press(page, 'Take it back')
  await page.getByText('Left, so much can be borne: sold for juice').waitFor({ state: 'detached' })
  await press(page, 'Undo')
  await page.getByText('Left, so much can be borne: sold for juice').waitFor()
})

test('what is decided about the chosen row is in view: which ways reach it, the plan, and the hours under the row', async () => {
  await page.setViewportSize({ width: 1280, height: 800 })
  await open('windows')
  await page.evaluate(() => window.scrollTo(0, 0))
  const ways = page.getByTestId('still-reaching')
  await ways.getByRole('radio').first().waitFor({ state: 'attached' })
  const inView = async (name: string): Promise<boolean> =>
    page
      .getByRole('button', { name, exact: true })
      .first()
      .evaluate((one) => one.getBoundingClientRect().bottom <= window.innerHeight)
  expect(await inView('Plan it')).toBe(true)
  // Another way is another share, and its own hours.
  const reads = async (): Promise<string> => (await page.getByTestId('coverage').textContent()) ?? ''
  const before = await reads()
  const labels = ways.locator('label')
  await labels
    .filter({ hasNot: page.locator('[data-selected]') })
    .nth((await labels.first().getAttribute('data-selected')) === null ? 0 : 1)
    .click()
  await expect.poll(reads).not.toBe(before)
  // What was done before says what it met.
  await page
    .getByTestId('met')
    .first()
    .getByText(/^(It met \d+ % \(|By the weather that came nothing)/)
    .waitFor()
  const board = page.getByTestId('hour-board')
  await board
    .getByText(/^Hours for /)
    .first()
    .waitFor()
  await expectAccessible(page, 'the decision')
})

test('two ways side by side say what each did here so far', async () => {
  await page.getByRole('button', { name: 'Two side by side' }).click()
  const here = page.getByTestId('side-by-side').getByRole('row', { name: /^Here so far/ })
  await here.waitFor()
  await expect.poll(() => here.innerText()).toMatch(/not judged against a check yet|than in the check|not to be told from the check/)
})
