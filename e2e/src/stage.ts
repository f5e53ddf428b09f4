import { startApplication, type Application } from '@bocado/server/testing/application'
import { startSite, type TestSite } from '@bocado/server/testing/farm'
import { importFile, preview } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, beforeEach } from 'vitest'
import { openBrowser, signIn } from './browser.js'
import { follow, quiet } from './page.js'

/** The application with a farm on it, and a page of a browser. */
export interface Stage {
  app: Application
  place: TestSite
  page: Page
  /** The site, as calls name it. */
  at: { siteId: string }
  /** Who writes. */
  as: { person: string }
  /** Goes to a screen of the site, and waits until its numbers are there. */
  open: (path: string) => Promise<void>
}

/**
 * Sets the stage for the tests of a file: a farm whose station has read the weather of `file`, prepared further by `prepare` before the
 * browser opens. Where a test fails, a picture of the page is left in `.data`.
 *
 * @param enter Hands the stage over once it is set.
 */
export function setStage(
  file: string,
  prepare: (stage: Omit<Stage, 'page' | 'open'>) => Promise<void>,
  enter: (stage: Stage) => unknown,
): void {
  let stage: Stage | undefined
  let close: (() => Promise<void>)[] = []
  beforeAll(async () => {
    const app = await startApplication({ now: '2026-06-12T14:30:00Z', demo: true })
    close = [() => app.stop()]
    const place = await startSite(app)
    await importFile(app, place, file, (await preview(app, place, file.slice(0, 200_000))).body.mapping)
    const set = { app, place, at: { siteId: place.site.id }, as: { person: place.person } }
    await prepare(set)
    const browser = await openBrowser()
    close.unshift(browser.close)
    await signIn(browser.context, app, place.person)
    const page = await browser.context.newPage()
    follow(page)
    const open = async (path: string): Promise<void> => {
      await page.goto(`${app.address}/sites/${place.site.id}/${path}`)
      await quiet(page)
    }
    stage = { ...set, page, open }
    await enter(stage)
  })
  beforeEach(({ task, onTestFailed }) =>
    onTestFailed(async () => void (await stage?.page.screenshot({ path: `.data/failed-${task.name.slice(0, 40)}.png`, fullPage: true }))),
  )
  afterAll(async () => {
    for (const end of close) await end()
  })
}
