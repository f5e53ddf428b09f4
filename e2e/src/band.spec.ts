import { endpoints } from '@bocado/contract'
import { servingOver } from '@bocado/server/testing/application'
import { done, GRANULE } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import { issueForecasts } from '@bocado/server/worker/issueForecasts'
import type { Locator, Page } from 'playwright-core'
import { afterAll, describe, expect, test } from 'vitest'
import { choose, enterDate, enterNumber, expectAccessible, press, show } from './page.js'
import { setStage, type Stage } from './stage.js'

/* The season band as it is read, searched, zoomed and dragged, and what stands below it. */

const { blocks, watches, treatments, demo } = endpoints
const SEASON = '2026-01-01'

let page: Page
let open: Stage['open']
const ids = new Map<string, string>()

/** A damp night and morning on 10 June: scab can infect in it. */
const damp = (at: Date): { rain?: number } => (at.toISOString().startsWith('2026-06-10') && at.getUTCHours() < 16 ? { rain: 1 } : {})

setStage(
  hourlyFile(2020, '2026-06-12', damp),
  async ({ app, at, place, as }) => {
    const vines = done(await app.call(blocks.create, at, { name: 'Terrace Vines', kind: 'vineyard' }, as)).id
    const meadow = done(await app.call(blocks.create, at, { name: 'Lower Meadow', kind: 'natural-area' }, as)).id
    // A first forecast a week ago, so that there is one to compare with.
    done(await app.call(demo.setClock, {}, { now: '2026-06-05T14:30:00Z' }, as))
    for (const [organismId, blockId, biofix] of [
      ['codling-moth', place.blockId, '2026-05-10'],
      ['apple-scab', place.blockId, '2026-05-20'],
      ['grape-berry-moth', vines, null],
      ['creeping-thistle', meadow, null],
    ] as const)
      ids.set(organismId, done(await app.call(watches.create, at, { organismId, blockId, season: SEASON, biofix }, as)).id)
    await issueForecasts(servingOver(app), at.siteId)
    done(await app.call(demo.setClock, {}, { now: '2026-06-12T14:30:00Z' }, as))
    done(await app.call(treatments.addProduct, at, GRANULE, as))
  },
  (stage) => ({ page, open } = stage),
)

const openWatch = (organism = 'codling-moth', more = ''): Promise<void> => open(`windows?watch=${ids.get(organism)}${more}`)
const band = (): Locator => page.getByTestId('band')
const row = (name: RegExp): Locator => band().getByRole('button', { name })
const reading = (): Promise<string> => band().locator('> output').first().innerText()
/** Chooses something of how the windows are shown. */
const inTheView = async (choice: string): Promise<void> => {
  await press(page, 'View')
  await show(page, choice)
  await page.keyboard.press('Escape')
}
/** First day that is in view, from the strip. */
const inView = async (): Promise<string> => (await page.getByRole('slider', { name: /^Days in view/ }).getAttribute('aria-valuetext')) ?? ''

describe('the band', () => {
  test('groups by what presses, and says each row in words', async () => {
    await openWatch()
    await expectAccessible(page, 'windows')
    expect(
      await band()
        .getByRole('button', { name: /^Now, / })
        .getAttribute('aria-expanded'),
    ).toBe('true')
    await row(/^Apple scab Old Apples Infected Wed 10 Jun: curable until Sat 13 Jun/).waitFor()
    await row(/^Creeping thistle Lower Meadow About June to July, by months/).waitFor()
    await inTheView('block')
    await band().getByRole('button', { name: 'Lower Meadow, 1' }).waitFor()
    expect(await band().locator('button[aria-expanded]').allInnerTexts()).toEqual(['Lower Meadow, 1', 'Old Apples, 2', 'Terrace Vines, 1'])
    await press(page, 'Old Apples, 2')
    await row(/^Apple scab/).waitFor({ state: 'detached' })
    await press(page, 'Old Apples, 2')
    await row(/^Apple scab/).waitFor()
  })

  test('finds a watch by organism, block or kind', async () => {
    await openWatch()
    const search = page.getByRole('searchbox', { name: 'Find an organism, a block, a state' })
    await search.fill('disease')
    await row(/^Codling moth/).waitFor({ state: 'detached' })
    await row(/^Apple scab/).waitFor()
    await search.fill('walrus')
    await page.getByText('No watch matches “walrus”.').waitFor()
    await search.fill('')
    await row(/^Codling moth/).waitFor()
  })

  test('is read day by day with the keys, stages with their bounds, blooms and infections', async () => {
    await openWatch()
    await row(/^Codling moth/).focus()
    await page.keyboard.press('ArrowLeft')
    expect(await reading()).toMatch(/^Thu 11 Jun, \d+ °F·d: .*eggs \d+ % \(\d+ to \d+\)/)
    for (let i = 0; i < 3; i++) await page.keyboard.press('PageUp')
    expect(await reading()).toMatch(/^Thu 21 May/)
    for (let i = 0; i < 2; i++) await page.keyboard.press('PageUp')
    expect(await reading()).toMatch(/^Thu 7 May: before the biofix/)
    await page.keyboard.press('Escape')
    await row(/^Apple scab/).click()
    await page.getByRole('heading', { name: 'Apple scab, Old Apples' }).waitFor()
    await row(/^Apple scab/).focus()
    for (let i = 0; i < 2; i++) await page.keyboard.press('ArrowLeft')
    expect(await reading()).toContain('infection, ')
    expect(await reading()).toContain('times the wetness needed')
    await page.keyboard.press('ArrowLeft')
    expect(await reading()).toContain('no infection')
  })

  test('is zoomed and moved by keys, buttons and drag; the strip says which days are in view, and today stays', async () => {
    await openWatch()
    const before = await inView()
    await page.keyboard.press('+')
    await page.keyboard.press('+')
    const closer = await inView()
    expect(closer).not.toBe(before)
    await page.keyboard.press('0')
    expect(await inView()).toBe(before)
    await press(page, 'The whole season')
    expect(await inView()).toBe('Thu 1 Jan to Thu 31 Dec')
    await press(page, 'Closer')
    const box = (await band().locator('> svg').boundingBox())!
    const start = await inView()
    await page.mouse.move(box.x + 600, box.y + 120)
    await page.mouse.down()
    await page.mouse.move(box.x + 500, box.y + 120, { steps: 5 })
    await page.mouse.up()
    expect(await inView()).not.toBe(start)
    const strip = page.getByRole('slider', { name: /^Days in view/ })
    await strip.focus()
    const dragged = await inView()
    await page.keyboard.press('ArrowRight')
    expect(await inView()).not.toBe(dragged)
    // The weather picture follows the same days.
    await page.getByRole('navigation').getByRole('link', { name: 'Weather', exact: true }).first().click()
    await page.waitForLoadState('networkidle')
    const shared = await inView()
    await page.getByRole('button', { name: 'Earlier', exact: true }).click()
    expect(await inView()).not.toBe(shared)
    await press(page, 'Back to what matters')
    expect(await inView()).toBe('Thu 1 Jan to Thu 31 Dec')
  })

  test('switches its axis to heat and to the chosen watch’s own', async () => {
    await openWatch()
    const monthsAt = () =>
      band()
        .locator('> svg text')
        .filter({ hasText: /^(Jun|Jul|Aug)$/ })
        .evaluateAll((all) => all.map((e) => Math.round(e.getBoundingClientRect().x)))
    const even = await monthsAt()
    await page.keyboard.press('h')
    await page.waitForTimeout(60)
    const heat = await monthsAt()
    expect(heat).not.toEqual(even)
    await inTheView('its own heat')
    await page.waitForTimeout(60)
    expect(await monthsAt()).not.toEqual(heat)
    await inTheView('even days')
  })

  test('shows past seasons behind the chosen row when asked', async () => {
    await openWatch()
    const dashed = band().locator('path[stroke-dasharray="5 3"]')
    expect(await dashed.count()).toBe(0)
    await press(page, 'View')
    await page.getByText('Past seasons behind').click()
    await page.keyboard.press('Escape')
    await dashed.first().waitFor({ state: 'attached' })
  })

  test('has a table that says the same', async () => {
    await openWatch('codling-moth', '&as=table')
    const table = page.getByTestId('band-table')
    const cells = await table.getByRole('row', { name: /^Codling moth/ }).innerText()
    expect(cells).toMatch(/(Open|Closing|Opens)/)
    expect(cells).toContain('Sun 10 May')
    expect(await table.getByRole('row', { name: /^Grape berry moth/ }).innerText()).toContain('not entered')
    // What rests on a placeholder has no date in any column.
    expect(await table.getByRole('row', { name: /^Creeping thistle/ }).innerText()).not.toMatch(/\d+ (May|Jun|Jul)/)
    await expectAccessible(page, 'band as a table')
    await table.getByRole('button', { name: 'Apple scab' }).click()
    await page.getByRole('heading', { name: 'Apple scab, Old Apples' }).waitFor()
  })
})

describe('a treatment’s pin', () => {
  const coverage = async (): Promise<string> => page.getByTestId('coverage').innerText()
  const pin = (name: RegExp): Locator => page.getByRole('slider', { name })

  test('is dragged with live coverage', async () => {
    await openWatch()
    const before = await coverage()
    const draft = pin(/being planned/)
    const box = (await draft.boundingBox())!
    await page.mouse.move(box.x + 13, box.y + 12)
    await page.mouse.down()
    await page.mouse.move(box.x + 53, box.y + 12, { steps: 4 })
    const during = await coverage()
    expect(during).not.toBe(before)
    await page.mouse.move(box.x + 93, box.y + 12, { steps: 4 })
    await page.mouse.up()
    expect(await coverage()).not.toBe(during)
  })

  test('moves with the arrow keys, and a planned one is moved for good and taken back', async () => {
    await press(page, 'Plan it')
    const planned = pin(/of the planned treatment|being planned/)
    await page.getByText(/^Granule C, planned for /).waitFor()
    const fixed = page.getByRole('slider', { name: /of the planned treatment/ }).first()
    const where = (await fixed.getAttribute('aria-valuetext')) ?? ''
    await fixed.focus()
    await page.keyboard.press('ArrowRight')
    await page.keyboard.press('ArrowRight')
    await page.keyboard.press('Enter')
    await page.getByText(/^Moved to /).waitFor()
    await page.getByText(new RegExp(`planned for ${where}`)).waitFor({ state: 'detached' })
    await page.getByRole('button', { name: 'Undo' }).click()
    await page.getByText(new RegExp(`planned for ${where}`)).waitFor()
    expect(await planned.count()).toBeGreaterThan(0)
  })
})

describe('below the band', () => {
  test('each event has its dates, and how likely it has begun by a day', async () => {
    await openWatch()
    await show(page, 'Dates')
    const table = page.getByRole('table').filter({ hasText: 'Half of them' })
    expect(await table.getByRole('row', { name: /^flight begins/ }).innerText()).toContain('100 %')
    expect(await table.getByRole('row', { name: /^second hatch begins/ }).innerText()).toMatch(/ 0 %|\t0 %/)
    await expectAccessible(page, 'dates')
  })

  test('why it moved is told cause by cause', async () => {
    await openWatch()
    await show(page, 'Why it moved')
    await page.getByText(/^The first generation opened .* then, .* now: /).waitFor()
    await page.getByText('That forecast rested on codling-moth@').waitFor()
  })

  test('a disease says what each infection asks for, and whether a source is known', async () => {
    await openWatch('apple-scab')
    const infections = page.getByRole('table').filter({ hasText: 'Curable until' })
    expect(await infections.getByRole('row', { name: /^Wed 10 Jun/ }).innerText()).toContain('Sat 13 Jun')
    await page.getByText('Whether a source is here is not known: go and look.').waitFor()
    await press(page, 'Change biofix or threshold')
    await choose(page, 'A source of infection nearby', 'is known')
    await press(page, 'Save')
    await page.getByText('A source is known here.').waitFor()
    await page.getByText('Nothing on the shelf is for this.').waitFor()
    await expectAccessible(page, 'a disease')
  })

  test('what is seen of an organism by months is noted in two presses, stands on its row, and is taken back', async () => {
    await openWatch('creeping-thistle')
    await choose(page, 'Seen today for the first time', 'in flower')
    await row(/^Creeping thistle Lower Meadow In flower seen /).waitFor()
    await show(page, 'Own records')
    await page.getByText('From three seasons on they make a clock').waitFor()
    await page.getByRole('button', { name: 'Undo' }).click()
    await row(/^Creeping thistle Lower Meadow About June to July, by months/).waitFor()
    await expectAccessible(page, 'an organism by months')
  })

  test('a threshold and one sum of one’s own date what the library does not', async () => {
    await openWatch('creeping-thistle')
    await show(page, 'Own records')
    await press(page, 'A heat figure of one’s own')
    await choose(page, 'It tells', 'in flower')
    await enterNumber(page, 'Sum', 900)
    await enterNumber(page, 'Above', 50)
    await page.getByRole('textbox', { name: 'Where it is from' }).fill('the old almanac')
    await press(page, 'Go by it')
    await page.getByText(/^In flower: 900 °F·d above 50 °F, from the first day of the season, the old almanac\./i).waitFor()
    await row(/^Creeping thistle Lower Meadow In flower about .*/).waitFor()
    await expectAccessible(page, 'a typed figure')
    await press(page, 'Drop the figure of in flower')
    await row(/^Creeping thistle Lower Meadow About June to July/).waitFor()
  })

  test('a biofix that is only expected says so, until it is entered', async () => {
    await openWatch('grape-berry-moth')
    await page.getByText(/^No biofix yet: it is expected /).waitFor()
    await page.getByText('since no biofix was entered').waitFor()
  })

  test('a number of this site is typed with its reason, offered, and taken', async () => {
    await openWatch()
    await show(page, 'Numbers')
    await page.getByRole('button', { name: 'Own value of hatch begins: heat', exact: true }).click()
    // The site reads Fahrenheit; what is stored is 150 °C·d.
    await enterNumber(page, 'Value at this site', 270)
    await press(page, 'Save')
    await page
      .getByText('enter why this site differs')
      .or(page.getByText(/why this site differs/))
      .first()
      .waitFor()
    await page.getByRole('textbox', { name: 'Why it differs here' }).fill('late hatch on the north side, three seasons')
    await press(page, 'Save')
    await page.getByText('This watch keeps what it was pinned to until you take it.').waitFor()
    await press(page, 'Take the new numbers')
    await page.getByText('this site: late hatch on the north side, three seasons (library 250.2 °F·d)').waitFor()
    await expectAccessible(page, 'numbers')
  })

  test('what was seen in a past season is written down, says what it makes of a number, and is accepted', async () => {
    await openWatch()
    await show(page, 'Own records')
    await page.getByText('Nothing is recorded yet.').waitFor()
    await press(page, 'Record catches of a trap')
    await enterDate(page, 'Trap hung on', '2025-05-01')
    const checks = page.getByRole('textbox', { name: 'Checks, one a line: day and catch' })
    await checks.fill('2025-05-05 0\n9 May: 2')
    await press(page, 'Save')
    await page.getByText('Line 2 cannot be read: 9 May: 2.').waitFor()
    await checks.fill('2025-05-05 0\n2025-05-09 2\n2025-05-13 9\n2025-05-17 21\n2025-05-21 30\n2025-05-25 19\n2025-05-29 7\n2025-06-02 1')
    await press(page, 'Save')
    await page.getByText('flight begins: 89 caught at 8 checks, 5 May 2025 to 2 Jun 2025.').waitFor()
    await press(page, 'Record what was seen')
    await choose(page, 'What was seen', 'hatch begins')
    await enterDate(page, 'Seen on', '2025-05-24')
    await enterDate(page, 'Looked before without it on', '2025-05-22')
    await press(page, 'Save')
    const hatch = page.getByTestId('fit-hatch')
    await hatch.getByText(/^One season puts it at .*, before it was 270 °F·d/).waitFor()
    await hatch.getByText('With one season nothing can be held against it').waitFor()
    await hatch.getByRole('button', { name: 'Let this block count with it' }).click()
    await hatch.getByText('This block counts with it.').waitFor()
    await expectAccessible(page, 'own records')
    await show(page, 'Numbers')
    await press(page, 'Take the new numbers')
    await page.getByText('this block: fitted to the records of 2025 (library 250.2 °F·d)').first().waitFor()
  })
})

describe('nothing moves while a screen comes', () => {
  const SCREENS = ['today', 'windows', 'schedule', 'weather', 'bloom', 'scouting', 'treatments', 'outcomes', 'library', 'site']
  afterAll(() => page.setViewportSize({ width: 1280, height: 800 }))
  test.each([
    ['desk', 1280, 800],
    ['phone', 390, 844],
  ])('on a %s', async (_, width, height) => {
    await page.setViewportSize({ width, height })
    await page.addInitScript(() => {
      const moved = Object.assign(window, { moved: 0 })
      new PerformanceObserver((list) => {
        for (const entry of list.getEntries() as (PerformanceEntry & { value: number; hadRecentInput: boolean })[])
          if (!entry.hadRecentInput) moved.moved += entry.value
      }).observe({ type: 'layout-shift', buffered: true })
    })
    const shifts: Record<string, number> = {}
    // Code that comes late, as it does on a slow line, takes its place without pushing what is read already.
    await page.route(/\/assets\/.*\.js/, async (route) => {
      await page.waitForTimeout(120)
      await route.continue()
    })
    for (const screen of SCREENS) {
      await open(screen)
      await page.waitForLoadState('networkidle')
      await page.waitForTimeout(300)
      shifts[screen] = await page.evaluate(() => (window as unknown as { moved: number }).moved)
    }
    expect(Object.entries(shifts).filter(([, shift]) => shift >= 0.05)).toEqual([])
  })
})
