import { endpoints } from '@bocado/contract'
import type { Application } from '@bocado/server/testing/application'
import type { Row } from '@bocado/server/database/index'
import { done, startSite, type TestSite } from '@bocado/server/testing/farm'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { describe, expect, test } from 'vitest'
import { choose, enterNumber, expectAccessible, focused, press, show } from './page.js'
import { setStage, type Stage } from './stage.js'

/* How the page is handled: by keyboard alone, on a phone, when something is taken back or somebody else was faster. */

const { blocks, watches, weather } = endpoints
const SEASON = '2026-01-01'

let app: Application
let place: TestSite
let page: Page
let open: Stage['open']

const lines = hourlyFile(2021, '2026-06-12').split('\n')
const spike = lines.findIndex((line) => line.startsWith('2026-05-26 13:00'))
lines[spike] = '2026-05-26 13:00,49.1,0'
setStage(
  lines.join('\n'),
  async ({ app, at, place, as }) => {
    const watch = { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: '2026-05-14' }
    done(await app.call(watches.create, at, watch, as))
  },
  (stage) => ({ app, place, page, open } = stage),
)

/** Keys are heard once the frame stands. */
const openScreen = async (screen: string): Promise<void> => {
  await open(screen)
  await page.getByRole('link', { name: 'Bocado' }).waitFor()
}

describe('by keyboard alone', () => {
  test('a screen is reached by jumping', async () => {
    await openScreen('windows')
    await page.keyboard.press('/')
    await page.getByRole('dialog').waitFor()
    await expectAccessible(page, 'jump')
    await page.keyboard.type('scout')
    await page.keyboard.press('Enter')
    await page.getByRole('heading', { name: 'Scouting' }).waitFor()
    expect(page.url()).toMatch(/scouting$/)
  })

  test('what is typed right after the key is not lost on a slow machine', async () => {
    const slow = await page.context().newCDPSession(page)
    await slow.send('Emulation.setCPUThrottlingRate', { rate: 8 })
    await openScreen('windows')
    await page.keyboard.press('/')
    await page.keyboard.type('harvest')
    await page
      .getByRole('option', { name: /harvest/i })
      .first()
      .waitFor()
    expect(await page.getByRole('combobox').inputValue()).toBe('harvest')
    await page.keyboard.press('Escape')
    await slow.send('Emulation.setCPUThrottlingRate', { rate: 1 })
    await slow.detach()
  })

  test('blocks, entries of the library and what is to do are found by the words people use, and landed on', async () => {
    const jump = async (words: string): Promise<void> => {
      await page.keyboard.press('/')
      await page.getByRole('dialog').waitFor()
      await page.keyboard.type(words)
    }
    const land = async (): Promise<void> => {
      await page.keyboard.press('Enter')
    }
    const focused = () => page.evaluate(() => document.activeElement?.textContent ?? '')
    await openScreen('scouting')
    await jump('old apples')
    await page.getByRole('option', { name: /^Old Apples block/ }).waitFor()
    await land()
    await expect.poll(focused).toContain('Old Apples')
    await jump('kaolin')
    await land()
    await expect.poll(focused).toBe('Kaolin film')
    await jump('pesticide')
    await land()
    await page.getByRole('textbox', { name: 'Name on the label' }).waitFor()
    await openScreen('scouting')
    await jump('walrus')
    await page.getByText('Nothing here is called “walrus”.').waitFor()
    await page.keyboard.press('Escape')
  })

  test('the keys are listed, and can be switched off', async () => {
    await openScreen('windows')
    await page.keyboard.press('?')
    await page.getByRole('heading', { name: 'Keys' }).waitFor()
    await page.getByText('Single keys are on').click()
    await page.keyboard.press('Escape')
    const byHeat = async (): Promise<string | null> => {
      await press(page, 'View')
      const checked = await page.getByRole('radio', { name: 'even heat' }).getAttribute('aria-checked')
      await page.keyboard.press('Escape')
      return checked
    }
    await page.keyboard.press('h')
    expect(await byHeat()).toBe('false')
    await page.evaluate(() => localStorage.removeItem('bocado.keys'))
    await page.keyboard.press('h')
    expect(await byHeat()).toBe('true')
  })

  test('a block is added with tab, letters and enter', async () => {
    await openScreen('site')
    await page.getByRole('button', { name: 'Add a block' }).focus()
    await page.keyboard.press('Enter')
    await page.keyboard.type('Stone Row')
    await page.keyboard.press('Tab')
    await page.keyboard.press('Enter')
    await page.getByRole('option', { name: 'orchard' }).waitFor()
    await page.keyboard.type('vin')
    await page.keyboard.press('Enter')
    await page.keyboard.press('Tab')
    await page.keyboard.type('4.5')
    await page.keyboard.press('Enter')
    await page.getByText('Stone Row vineyard').waitFor()
    await page.getByText('4.5 acres', { exact: true }).waitFor()
    // The keyboard is where the work was.
    await expect.poll(() => focused(page)).toBe('Add a block')
  })

  test('rows are added in one line, taken back with one key, and have labels to print', async () => {
    await openScreen('site')
    await press(page, 'Parts of Old Apples')
    await press(page, 'Several in one line')
    const line = page.getByRole('textbox', { name: 'What stands there' })
    await line.fill('some trees')
    await page.getByText('That cannot be read.').waitFor()
    await line.fill('24 trees in 4 rows')
    await page.getByText('4 parts, from Row 1 to Row 4, 24 plants in all.').waitFor()
    await line.press('Enter')
    await page.getByRole('button', { name: 'Edit Row 4' }).waitFor()
    await page.getByRole('link', { name: 'Labels to print' }).click()
    await page.getByRole('heading', { name: '4 labels' }).waitFor()
    expect(await page.getByRole('listitem').filter({ hasText: 'Row 3' }).innerText()).toContain('6 plants')
    await expectAccessible(page, 'labels')
    await page.keyboard.press('Control+z')
    await page.getByRole('status').getByText('Taken back.').waitFor()
    await page.getByRole('link', { name: 'Back to the site' }).click()
    await press(page, 'Parts of Old Apples')
    await page.getByText('Several in one line').waitFor()
    expect(await page.getByRole('button', { name: 'Edit Row 4' }).count()).toBe(0)
  })

  test('Escape leaves a form, and what was typed is there when it is opened again', async () => {
    await openScreen('site')
    await page.getByRole('button', { name: 'Add a block' }).focus()
    await page.keyboard.press('Enter')
    await page.keyboard.type('Slip')
    await page.keyboard.press('Escape')
    await expect.poll(() => focused(page)).toBe('Add a block')
    await page.keyboard.press('Enter')
    await expect.poll(() => page.getByRole('textbox', { name: 'Name', exact: true }).inputValue()).toBe('Slip')
    await press(page, 'Cancel')
    await expect.poll(() => focused(page)).toBe('Add a block')
    await page.keyboard.press('Enter')
    expect(await page.getByRole('textbox', { name: 'Name', exact: true }).inputValue()).toBe('')
    await page.keyboard.press('Escape')
  })

  test('also a form that always stands keeps what was typed when the page is loaded anew, until it is stored', async () => {
    await openScreen('bloom?panel=log')
    await page.getByRole('textbox', { name: 'Note' }).fill('south wall')
    await page.waitForTimeout(500)
    await openScreen('bloom?panel=notebook')
    const notebook = page.getByRole('textbox', { name: 'Lines of the notebook' })
    await notebook.fill('2026-04-20 lilac first leaf')
    await notebook.blur()
    await page.waitForTimeout(500)
    await page.reload()
    await page.getByText(/^What you typed until/).waitFor()
    expect(await notebook.inputValue()).toBe('2026-04-20 lilac first leaf')
    await openScreen('bloom?panel=log')
    await expect.poll(() => page.getByRole('textbox', { name: 'Note' }).inputValue()).toBe('south wall')
    await press(page, 'Begin anew')
    await page.reload()
    expect(await page.getByRole('textbox', { name: 'Note' }).inputValue()).toBe('')
  })

  test('a harvest is one line, read as it is said, and stored by Enter', async () => {
    await page.goto(`${app.address}/sites/${place.site.id}/treatments?do=harvest`)
    const line = page.getByRole('textbox', { name: 'What was picked' })
    await line.fill('a basket')
    await page.getByText('Say how much or how many').waitFor()
    await line.fill('7 lb, 14 fruit, old apples, 3 spoilt by codling moth')
    await page.getByText('Picked 7 lb, 14 pieces in Old Apples, 3 spoilt by Codling moth.').waitFor()
    await line.press('Enter')
    await page.getByRole('heading', { name: 'Harvest, 7 lb this season' }).waitFor()
    await expect.poll(() => focused(page)).toBe('Correct the harvest of Fri 12 Jun')
    await expectAccessible(page, 'treatments with a harvest')
  })

  test('after each action the keyboard stays near it, and never begins again at the top', async () => {
    await openScreen('site')
    await page.getByRole('button', { name: 'Remove Stone Row' }).focus()
    await page.keyboard.press('Enter')
    await page.getByRole('button', { name: 'Edit Stone Row' }).waitFor({ state: 'detached' })
    await page.getByRole('status').getByText('Stone Row removed.').waitFor()
    await expect.poll(() => focused(page)).not.toBe('')
    await page.keyboard.press('Control+z')
    await page.getByRole('button', { name: 'Edit Stone Row' }).focus()
    await page.keyboard.press('Enter')
    await page.keyboard.press('Escape')
    await expect.poll(() => focused(page)).toBe('Edit Stone Row')
  })
})

describe('what can be taken back', () => {
  test('a removed block comes back whole', async () => {
    await openScreen('site')
    await press(page, 'Remove Stone Row')
    await page.getByRole('status').getByText('Stone Row removed.').waitFor()
    await page.getByRole('button', { name: 'Edit Stone Row' }).waitFor({ state: 'detached' })
    await press(page, 'Undo')
    await page.getByRole('button', { name: 'Edit Stone Row' }).waitFor()
  })

  test('what cannot be removed or brought back says why, and stays as it is', async () => {
    await openScreen('site')
    await choose(page, 'Working as', 'Marit Solheim, owner')
    await press(page, 'Remove Stone Row')
    await page.getByRole('status').getByText('Stone Row removed.').waitFor()
    // Meanwhile somebody else takes the name.
    const at = { siteId: place.site.id }
    const taken = done(await app.call(blocks.create, at, { name: 'Stone Row', kind: 'field' }, { person: place.person }))
    await press(page, 'Undo')
    await page.getByRole('status').getByText('this name is taken; choose another').waitFor()
    await press(page, 'Put away')
    done(await app.call(blocks.remove, { ...at, blockId: taken.id }, { rowVersion: taken.rowVersion }, { person: place.person }))
    const [gone] = await app.database.query<Row[]>(
      "SELECT id, row_version FROM place WHERE name = 'Stone Row' AND kind = 'vineyard' AND site_id = ?",
      [place.site.id],
    )
    const params = { ...at, blockId: gone[0]!['id'] as string }
    done(await app.call(blocks.restore, params, { rowVersion: gone[0]!['row_version'] as number }, { person: place.person }))
    await page.getByRole('button', { name: 'Edit Stone Row' }).waitFor()
  })

  test('an edit that somebody else overtook says so, keeps what was typed, and can be put over theirs', async () => {
    await openScreen('site')
    await press(page, 'Edit Stone Row')
    await page.getByRole('textbox', { name: 'What grows there' }).fill('peach, nectarine')
    const params = { siteId: place.site.id }
    const theirs = done(await app.call(blocks.list, params, {})).find(({ name }) => name === 'Stone Row')!
    const { id, rowVersion } = theirs
    done(
      await app.call(
        blocks.update,
        { ...params, blockId: id },
        { name: 'Stone Row', kind: 'orchard', areaHa: 1.8, grows: 'plum', rowVersion },
        { person: place.person },
      ),
    )
    await press(page, 'Save')
    await page.getByRole('alert').getByText('Somebody else changed this meanwhile').waitFor()
    expect(await page.getByRole('textbox', { name: 'What grows there' }).inputValue()).toBe('peach, nectarine')
    // Their row is fetched meanwhile; whoever saves before it is there is told so once more.
    await expect
      .poll(
        async () => {
          if ((await page.getByRole('button', { name: 'Save', exact: true }).count()) > 0) await press(page, 'Save')
          return page.getByText('peach, nectarine').count()
        },
        { timeout: 15_000, interval: 1500 },
      )
      .toBe(1)
  })
})

test('a doubted reading is judged, and the season’s chart follows', async () => {
  await openScreen('weather')
  await show(page, 'Doubtful readings')
  await page.getByText('temperature spikes,').waitFor()
  await page.getByText(/read 120 °F; taken as \d+ °F, between the hours beside it/).waitFor()
  await expectAccessible(page, 'doubts')
  const highest = async (): Promise<number> =>
    Math.max(...(await page.locator('figure svg text').allTextContents()).filter((text) => /^\d+$/.test(text)).map(Number))
  expect(await highest()).toBeLessThan(110)
  await press(page, 'The reading was right')
  await page.getByText('the reading is believed. Decided by Marit Solheim.').waitFor()
  await expect.poll(highest).toBeGreaterThanOrEqual(110)
  await press(page, 'Open it again')
  await page.getByText(/taken as \d+ °F/).waitFor()
})

test('a count that was only looked at leaves no draft with an old date; a refused read is said, not waited for', async () => {
  const watch = done(await app.call(watches.list, { siteId: place.site.id }, { season: SEASON }))[0]!
  await openScreen(`scouting/${watch.id}/count`)
  await page.getByRole('heading', { name: /Counting Codling moth/ }).waitFor()
  expect(await page.evaluate((id) => localStorage.getItem(`bocado.count.${id}`), watch.id)).toBeNull()
  await page.route('**/outcomes?*', (route) =>
    route.fulfill({
      status: 404,
      contentType: 'application/problem+json',
      body: JSON.stringify({ type: 'about:blank', title: 'Not found', status: 404, detail: 'There is no such season.' }),
    }),
  )
  await openScreen('outcomes')
  await page.getByText('There is no such season.').waitFor()
  // The frame stands: one can go elsewhere.
  await page.getByRole('navigation').getByRole('link', { name: 'Windows' }).first().click()
  await page.getByTestId('band').waitFor()
  await openScreen('library/organisms/unicorn')
  await page.getByText('There is no such organism in the library or among your own.').waitFor()
  await page
    .getByTestId('library-list')
    .getByRole('link', { name: /^Apple scab/ })
    .click()
  await page.getByRole('heading', { name: 'Apple scab' }).waitFor()
  await page.unroute('**/outcomes?*')
})

describe('on a phone, with gloves', () => {
  test('a round in which nothing was found is one tap, and taken back by another', async () => {
    await page.setViewportSize({ width: 390, height: 844 })
    await openScreen('scouting')
    const lines = page.getByText(/in the block: 0 per 100 fruit/)
    const before = await lines.count()
    await press(page, 'Codling moth: looked at 24 trees, found nothing')
    await page.getByText('Codling moth: 24 trees looked at today, nothing found.').waitFor()
    await expect.poll(() => lines.count()).toBe(before + 1)
    await page
      .getByText(/^24 trees, /)
      .first()
      .waitFor()
    await press(page, 'Undo')
    await expect.poll(() => lines.count()).toBe(before)
  })

  test('every target of the field screens is at least 48 px high, and nothing is wider than the screen', async () => {
    await page.setViewportSize({ width: 390, height: 844 })
    const watch = done(await app.call(watches.list, { siteId: place.site.id }, { season: SEASON }))[0]!
    for (const screen of ['windows', 'scouting', 'treatments', `scouting/${watch.id}/count`]) {
      await openScreen(screen)
      const wide = await page.evaluate(() => document.documentElement.scrollWidth)
      expect(wide, screen).toBeLessThanOrEqual(390)
      const low = await page
        // A word that explains itself lies within its sentence.
        .locator('button:not(.on-paper-too):visible, main a:visible, nav a:visible')
        .evaluateAll((all) =>
          all
            .filter((e) => e.getBoundingClientRect().height < 47.5)
            .map((e) => `${e.textContent} ${Math.round(e.getBoundingClientRect().height)}`),
        )
      expect(low, screen).toEqual([])
      await expectAccessible(page, `${screen} on a phone`)
    }
  })

  test('a count is tallied by thumb and saved', async () => {
    await press(page, 'One more: fresh entry')
    await press(page, 'One more: fresh entry')
    await press(page, 'One less: fresh entry')
    await page.getByRole('button', { name: /^Next tree/ }).click()
    await press(page, 'One more: sting, stopped at the skin')
    await page.getByRole('heading', { name: '2 trees: 2.5 per 100 fruit' }).waitFor()
    await page.getByRole('button', { name: /^Next tree/ }).click()
    // It is gone on with where it was left, also after a reload.
    await page.getByRole('link', { name: 'Go on later' }).click()
    await page.getByRole('link', { name: 'Go on with tree 3, 2 counted' }).waitFor()
    // A screen begins at its top, however far down the one before was read.
    expect(await page.evaluate(() => window.scrollY)).toBe(0)
    await page.getByRole('link', { name: 'Go on with tree 3, 2 counted' }).click()
    await page.getByRole('heading', { name: /^tree 3,/ }).waitFor()
    await page.reload()
    await page.getByRole('heading', { name: /^tree 3,/ }).waitFor()
    // What is finished is not added to by a tap alone.
    await press(page, 'tree 1, 1 counted')
    await press(page, 'One more: fresh entry')
    await page.getByText('Finished before: tree 1, 1 counted. Add to it?').waitFor()
    await press(page, 'No, go to tree 3')
    await page.getByRole('heading', { name: /^tree 3,/ }).waitFor()
    await press(page, 'tree 1, 1 counted')
    await press(page, 'One more: fresh entry')
    await press(page, 'Yes, change tree 1')
    await press(page, 'One less: fresh entry')
    await press(page, 'tree 1, 1 counted')
    // A tree that was opened and not looked at is not one without any.
    await press(page, 'Save the count')
    await page.getByText('Nothing is tallied at tree 3. Was it looked at?').waitFor()
    // Tallying there answers it, too; what is asked goes, and saving is offered again.
    await press(page, 'tree 3, 0 counted')
    await press(page, 'Save the count')
    await page.getByText('Nothing is tallied at tree 3. Was it looked at?').waitFor()
    await press(page, 'No, leave it out')
    await page.getByText('Fri 12 Jun, in the block: 2.5 per 100 fruit,').waitFor()
  })

  test('the other screens are behind "More"', async () => {
    await press(page, 'More')
    await page.getByRole('dialog').getByRole('link', { name: 'Outcomes' }).click()
    await page.getByRole('heading', { name: 'Outcomes' }).waitFor()
    await page.getByText('No treatment has been recorded this season.').waitFor()
    await page.setViewportSize({ width: 1280, height: 800 })
  })
})

test('what the logger’s file cannot give is refused on the page, and a site without weather says what it lacks', async () => {
  const bare = await startSite(app, 'Bare bench', place.person)
  done(
    await app.call(
      watches.create,
      { siteId: bare.site.id },
      { organismId: 'grape-berry-moth', blockId: bare.blockId, season: SEASON, biofix: '2026-06-03' },
      { person: bare.person },
    ),
  )
  await page.goto(`${app.address}/sites/${bare.site.id}/windows`)
  await page.getByRole('heading', { name: 'Usually reachable in June to July, by the calendar alone' }).waitFor()
  await page.getByText('No weather here, neither a station nor monthly normals').waitFor()
  await page.getByText('Sign: wild grape in bloom').waitFor()
  await expectAccessible(page, 'calendar')
  const params = { siteId: bare.site.id, stationId: bare.stationId }
  const typed = (from: number, to: number) =>
    Array.from({ length: to - from + 1 }, (_, i) => ({ day: `2026-06-${String(from + i).padStart(2, '0')}`, min: 9, max: 24 }))
  done(await app.call(weather.typeDays, params, { days: typed(11, 11) }, { person: bare.person }))
  await page.reload()
  await page.getByRole('heading', { name: 'No forecast: weather is missing at Bench' }).waitFor()
  await page.getByText('Nothing was read on Wed 3 Jun – Wed 10 Jun').waitFor()
  const days = typed(3, 11)
  done(await app.call(weather.typeDays, params, { days }, { person: bare.person }))
  await page.reload()
  await page
    .getByRole('heading', { name: 'Fewer than five past seasons of weather and no monthly normals, so nothing can be said beyond today' })
    .waitFor()
  await page.getByText(/^Now, at \d+ °F·d$/).waitFor()
})

test('a number outside what can be is said beside its field', async () => {
  await openScreen('site')
  await press(page, 'Change the site')
  await enterNumber(page, 'Latitude', 99)
  await press(page, 'Save')
  await page.getByText(/between −90 and 90/).waitFor()
})
