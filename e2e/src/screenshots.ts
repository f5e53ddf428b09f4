import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import type { Band, Block, Session, Site } from '@bocado/contract'
import type { Page } from 'playwright-core'
import { openBrowser } from './browser.js'

const DESK = { width: 1280, height: 800 }
const PHONE = { width: 390, height: 844 }

interface Shot {
  name: string
  path: string
  size?: typeof DESK
  /** What is done on the screen before the picture is taken. */
  act?: (page: Page) => Promise<void>
}

/** Takes one picture of each main view of a running demonstration into a folder. */
export async function takeScreenshots(address: string, folder: string): Promise<string[]> {
  mkdirSync(folder, { recursive: true })
  const { context, close } = await openBrowser(DESK)
  const get = async <T>(of: string): Promise<T> => (await (await context.request.get(of)).json()) as T
  const { demo } = await get<Session>(`${address}api/v1/session`)
  await context.request.post(`${address}api/v1/demo/session`, { data: { personId: demo?.[0]?.id ?? '' } })
  const site = (await get<Site[]>(`${address}api/v1/sites`)).find(({ name }) => name === 'Hollin Bench')
  if (!site) throw new Error('the demonstration site is not there')
  const api = `${address}api/v1/sites/${site.id}`
  const { watches } = await get<Band>(`${api}/band?season=${site.season.start}`)
  const watch = watches.find(({ rounds }) => rounds.length > 0)?.watch.id ?? ''
  const field = (await get<Block[]>(`${api}/blocks`)).find(({ name }) => name === 'Long Corn')?.id ?? ''
  const planned = watches.flatMap(({ treatments }) => treatments).find(({ status }) => status === 'planned')?.id ?? ''

  const tallied = async (page: Page): Promise<void> => {
    for (const key of ['1', 'n', 'n', '1', '1', '2', 'n']) await page.keyboard.press(key)
  }
  const shots: Shot[] = [
    { name: 'today', path: 'today' },
    { name: 'windows', path: `windows?watch=${watch}` },
    { name: 'site', path: 'site' },
    { name: 'weather', path: 'weather' },
    {
      name: 'bloom',
      path: 'bloom',
      act: (page) => page.getByTestId('ranking').evaluate((table) => table.scrollIntoView({ block: 'center' })),
    },
    { name: 'scouting', path: 'scouting' },
    {
      name: 'flags',
      path: 'scouting?panel=flags',
      act: async (page) => {
        await page.getByRole('button', { name: /^Show the way walked/ }).click()
        await page
          .getByRole('button', { name: /, Himalayan balsam: what was seen$/ })
          .nth(4)
          .click()
      },
    },
    { name: 'count', path: `scouting/${watch}/count`, act: tallied },
    {
      name: 'schedule',
      path: 'schedule',
      act: (page) => page.getByTestId('schedule-board').locator('button[data-kind=deed][data-moves]').first().click(),
    },
    { name: 'sowing', path: `schedule/prevention?crop=sweet-corn&place=${field}&year=next` },
    {
      name: 'season',
      path: 'schedule/season',
      act: async (page) => {
        await page.getByRole('button', { name: 'Propose' }).click()
        await page.getByRole('button', { name: 'Work it out again' }).waitFor()
      },
    },
    { name: 'treatments', path: 'treatments' },
    {
      name: 'job',
      path: `treatments/${planned}/sheet`,
      act: async (page) => {
        await page.getByRole('button', { name: /Put out with/ }).click()
        await page.getByRole('option', { name: 'Orchard sprayer' }).click()
      },
    },
    { name: 'outcomes', path: 'outcomes' },
    { name: 'library', path: 'library/organisms/codling-moth' },
    {
      name: 'ahead',
      path: 'outcomes/years',
      act: async (page) => {
        await page.getByRole('link', { name: 'What the years would bring' }).first().click()
        await page.getByTestId('ahead-says').waitFor()
        await page.waitForTimeout(2500)
      },
    },
    { name: 'phone-today', path: 'today', size: PHONE },
    { name: 'phone-scouting', path: 'scouting', size: PHONE },
    { name: 'phone-treatments', path: 'treatments', size: PHONE },
  ]
  try {
    const page = await context.newPage()
    for (const { name, path, size = DESK, act } of shots) {
      await page.setViewportSize(size)
      await page.goto(`${address}sites/${site.id}/${path}`)
      await page.waitForLoadState('networkidle')
      await act?.(page)
      await page.waitForTimeout(500)
      await page.screenshot({ path: join(folder, `${name}.png`) })
    }
    return shots.map(({ name }) => `${name}.png`)
  } finally {
    await close()
  }
}
