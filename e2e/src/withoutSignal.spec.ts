import { endpoints } from '@bocado/contract'
import type { Row } from '@bocado/server/database/index'
import { startApplication, startServer, type Application } from '@bocado/server/testing/application'
import { done, GRANULE, startSite, type TestSite } from '@bocado/server/testing/farm'
import { hourlyFile, importFile, preview } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { openBrowser, signIn } from './browser.js'
import { choose, expectAccessible, press } from './page.js'

/** A morning in the field on a phone that hears no server: everything is recorded, kept, and stored once when there is one. */

const SEASON = '2026-01-01'
const PHONE = { width: 390, height: 844 }

let app: Application
let browser: Awaited<ReturnType<typeof openBrowser>>
let place: TestSite
let here: string
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  const [at, as] = [{ siteId: place.site.id }, { person: place.person }]
  const file = hourlyFile(2024, '2026-06-12')
  await importFile(app, place, file, (await preview(app, place, file.slice(0, 200_000))).body.mapping)
  for (const organismId of ['codling-moth', 'peach-twig-borer'])
    done(await app.call(endpoints.watches.create, at, { organismId, blockId: place.blockId, season: SEASON, biofix: '2026-05-10' }, as))
  const label = { ...GRANULE, name: 'Granule of the sheet', ways: ['spray' as const], targets: ['codling-moth'], crops: ['apple'] }
  const product = done(await app.call(endpoints.treatments.addProduct, at, label, as))
  const [watch] = done(await app.call(endpoints.watches.list, at, { season: SEASON }, as)).filter(
    ({ organismId }) => organismId === 'codling-moth',
  )
  done(await app.call(endpoints.treatments.plan, at, { watchId: watch!.id, productId: product.id, plannedOn: '2026-06-14' }, as))
  const hung = { name: 'Gate trap', blockId: place.blockId, organismId: 'codling-moth', hungOn: '2026-04-20' }
  done(await app.call(endpoints.traps.add, at, hung, as))
  browser = await openBrowser(PHONE, true)
  await signIn(browser.context, app, place.person)
  here = `${app.address}/sites/${place.site.id}`
})
afterAll(async () => {
  await browser.close()
  await app.stop()
})

/** Of which reads the browser keeps answers. */
const keptAnswers = (page: Page): Promise<string[]> =>
  page.evaluate(
    () =>
      new Promise<string[]>((resolve, reject) => {
        const open = indexedDB.open('bocado')
        open.onerror = () => reject(new Error('no store'))
        open.onsuccess = () => {
          const keys = open.result.transaction('answer').objectStore('answer').getAllKeys()
          keys.onsuccess = () => {
            open.result.close()
            resolve(keys.result.map(String))
          }
        }
      }),
  )

/** A picture as a camera makes one. */
const picture = async (page: Page): Promise<Buffer> =>
  Buffer.from(
    await page.evaluate(() => {
      const canvas = document.createElement('canvas')
      canvas.width = canvas.height = 64
      canvas.getContext('2d')?.fillRect(8, 8, 40, 40)
      return canvas.toDataURL('image/png').split(',')[1] ?? ''
    }),
    'base64',
  )

/** Waits until something holds. */
async function until(holds: () => Promise<boolean>): Promise<void> {
  await expect.poll(holds, { timeout: 40_000, interval: 300 }).toBe(true)
}

async function kill(): Promise<void> {
  const ended = new Promise((resolve) => app.process.once('exit', resolve))
  app.process.kill('SIGKILL')
  await ended
}
const comeBack = async (): Promise<void> => {
  app.process = await startServer(app.databaseUrl, Number(new URL(app.address).port))
}
const rows = async (table: string): Promise<Row[]> =>
  (
    await app.database.query<Row[]>(`SELECT * FROM ${table} WHERE site_id = ? AND deleted_at IS NULL ORDER BY queue_order`, [place.site.id])
  )[0]

/** How many records wait in the browser. */
const waiting = (page: Page): Promise<number> =>
  page.evaluate(
    () =>
      new Promise<number>((resolve, reject) => {
        const open = indexedDB.open('bocado')
        open.onerror = () => reject(new Error('no store'))
        open.onsuccess = () => {
          const all = open.result.transaction('unsent').objectStore('unsent').count()
          all.onsuccess = () => {
            open.result.close()
            resolve(all.result)
          }
        }
      }),
  )

test('a whole morning without a server: recorded, the page closed and opened again, stored once when there is one', async () => {
  const first = await browser.context.newPage()
  await first.goto(`${here}/windows`)
  await first.locator('#screen h1').waitFor()
  await first.evaluate(() => navigator.serviceWorker.ready.then(() => undefined))
  // Whoever comes again has everything beforehand, also what was never opened.
  await first.reload()
  await until(async () => (await keptAnswers(first)).includes(`field ${place.site.id}`))
  expect((await keptAnswers(first)).filter((key) => key.includes('/library/organisms/')).length).toBeGreaterThanOrEqual(2)
  await first.close()
  await kill()

  const page = await browser.context.newPage()
  const began = Date.now()
  await page.goto(`${here}/scouting`)
  await page.getByRole('link', { name: 'Count now' }).first().waitFor()
  expect(Date.now() - began).toBeLessThan(4000)
  await page.getByText('Bocado does not answer').waitFor()
  await page.getByText(/You see what was read/).waitFor()

  await page.getByRole('link', { name: 'Count now' }).first().click()
  await page
    .getByRole('button', { name: /^One more/ })
    .first()
    .click()
  await page.getByRole('button', { name: /^Next / }).click()
  await page
    .getByRole('button', { name: /^One more/ })
    .first()
    .click()
  await press(page, 'Save the count')
  await page.getByTestId('unsent-here').first().waitFor()
  await page
    .getByRole('button', { name: /looked at .* found nothing/ })
    .nth(1)
    .click()
  await page.getByTestId('unsent-here').nth(1).waitFor()
  await page.getByText('2 records wait on this device.').waitFor()

  await page.goto(`${here}/bloom`)
  await page
    .getByRole('button', { name: /: there today$/ })
    .first()
    .click()
  await page.getByTestId('unsent-here').waitFor()

  // What stops a job, and how much goes into the tank, was read beforehand; the sheet says how old that is.
  await page.goto(`${here}/treatments`)
  await page.getByRole('link', { name: 'Job sheet' }).click()
  await page.getByText(/^Nothing stops it\. As known Fri 12 Jun/).waitFor()
  await page.getByText('That is over a day old').waitFor()
  await page
    .getByTestId('mix-says')
    .getByText(/^In all/)
    .waitFor()
  await expectAccessible(page, 'a job sheet without a signal')

  await page.goto(`${here}/treatments?do=harvest`)
  await page.getByRole('textbox', { name: 'What was picked' }).fill('3 kg, 14 fruit')
  await press(page, 'Save')
  await page.getByTestId('unsent-here').waitFor()

  await page.goto(`${here}/treatments?did=`)
  await choose(page, 'Against', 'Codling moth, Old Apples')
  await choose(page, 'With', 'Clearing residues')
  await page.getByRole('textbox', { name: 'Begun at' }).fill('7:10')
  await press(page, 'Record it')
  await page.getByText('5 records wait on this device.').waitFor()

  await page.goto(`${here}/scouting?panel=flags&do=flag`)
  await choose(page, 'What stands there', 'Wild parsnip')
  await page.getByRole('textbox', { name: 'Plants' }).fill('7')
  await page.locator('input[type=file]').setInputFiles({ name: 'patch.png', mimeType: 'image/png', buffer: await picture(page) })
  await page.getByRole('img', { name: 'Your photo, made small' }).waitFor()
  await press(page, 'Save')
  await page.getByTestId('unsent-here').waitFor()
  await page.getByText('6 records wait on this device.').waitFor()

  await page.goto(`${here}/scouting?panel=traps`)
  await press(page, 'Check Gate trap, Old Apples')
  await page.getByRole('textbox', { name: 'Caught since Mon 20 Apr' }).fill('5')
  await press(page, 'Save')
  await page.getByText('7 records wait on this device.').waitFor()
  await page.close()

  const again = await browser.context.newPage()
  await again.goto(`${here}/unsent`)
  await expect.poll(() => again.getByTestId('unsent').getByRole('listitem').count()).toBe(7)
  await expectAccessible(again, 'Waiting on this device')
  // The first answer of each is lost on its way: what is sent again is still the same record.
  const lost = new Set<string>()
  await browser.context.route(/\/api\/v1\/sites\//, async (route) => {
    const key = route.request().headers()['idempotency-key']
    if (route.request().method() !== 'POST' || key === undefined || lost.has(key)) return route.continue()
    const isStored = await route.fetch().then(
      () => true,
      () => false,
    )
    if (isStored) lost.add(key)
    return route.abort()
  })
  await comeBack()
  await again.getByText('Nothing waits here').waitFor()
  expect(lost.size).toBe(7)
  await again.getByText('Bocado does not answer').waitFor({ state: 'detached' })
  const counts = await rows('round')
  expect(counts).toHaveLength(2)
  const stored = [
    ...counts,
    ...(await rows('bloom_record')),
    ...(await rows('harvest')),
    ...(await rows('deed')).filter((row) => row['status'] === 'done'),
    ...(await rows('flag')),
    ...(await rows('event_record')),
  ]
  expect(stored).toHaveLength(7)
  const orders = stored.map((row) => row['queue_order'] as number)
  expect(orders).toEqual([...orders].sort((a, b) => a - b))
  expect(new Set(orders).size).toBe(7)
  const [visit] = await rows('flag_visit')
  expect(visit).toMatchObject({ plants: 7, queue_order: orders.at(-2) })
  expect(visit?.['photo_id']).not.toBeNull()
  for (const row of stored) expect(row).toMatchObject({ changed_by: place.person, row_version: 1 })
  await browser.context.unrouteAll()
  await again.close()
})

test('what is refused stays with its reason and is mended; what somebody else recorded waits for them', async () => {
  const before = { harvests: (await rows('harvest')).length, rounds: (await rows('round')).length }
  const page = await browser.context.newPage()
  await page.goto(`${here}/treatments?do=harvest`)
  await page.getByRole('textbox', { name: 'What was picked' }).waitFor()
  await browser.context.setOffline(true)
  await page.getByRole('textbox', { name: 'What was picked' }).fill('2 kg')
  await press(page, 'Save')
  await page.getByTestId('unsent-here').waitFor()
  await page.getByRole('textbox', { name: 'What was picked' }).waitFor({ state: 'detached' })
  // Meanwhile somebody makes it a day on which that cannot have been picked.
  await app.database.query("REPLACE INTO demo_clock (only_row, now_at) VALUES (1, '2026-06-11 14:30:00')")
  await browser.context.setOffline(false)
  await page.getByText('One record was not stored.').waitFor()
  await page.getByRole('link', { name: 'See which' }).click()
  await page.getByText(/Not stored: .*lies in the future/).waitFor()
  await page.getByRole('button', { name: /^Mend/ }).click()
  await expect.poll(() => page.getByRole('textbox', { name: 'What was picked' }).inputValue()).toBe('2 kg')
  await app.database.query("REPLACE INTO demo_clock (only_row, now_at) VALUES (1, '2026-06-12 14:30:00')")
  await press(page, 'Save')
  await expect.poll(async () => (await rows('harvest')).length).toBe(before.harvests + 1)
  await page.getByText('One record was not stored.').waitFor({ state: 'detached' })

  await page.goto(`${here}/scouting`)
  await page.getByRole('link', { name: 'Count now' }).first().waitFor()
  await browser.context.setOffline(true)
  await page
    .getByRole('button', { name: /looked at .* found nothing/ })
    .first()
    .click()
  await page.getByTestId('unsent-here').waitFor()
  const { id: other } = done(
    await app.call(endpoints.sites.addPerson, { siteId: place.site.id }, { name: 'Dario Quince', role: 'scout' }, { person: place.person }),
  )
  await signIn(browser.context, app, other)
  await browser.context.setOffline(false)
  await page.goto(`${here}/unsent`)
  await page.getByText('It is sent once Marit Solheim is signed in here.').waitFor()
  expect(await rows('round')).toHaveLength(before.rounds)
  // Where nobody is signed in it says whose records wait.
  await browser.context.clearCookies()
  await page.goto(app.address)
  await page.getByText('One record of Marit Solheim waits on this device').waitFor()
  await signIn(browser.context, app, place.person)
  await page.goto(`${here}/unsent`)
  await page.getByText('Nothing waits here').waitFor()
  const counts = await rows('round')
  expect(counts).toHaveLength(before.rounds + 1)
  expect(new Set(counts.map((row) => row['changed_by'] as string))).toEqual(new Set([place.person]))
  await page.close()
})

test('a find that nobody can name, a check of identity and a plan are kept as well', async () => {
  const { id: watchId } = done(await app.call(endpoints.watches.list, { siteId: place.site.id }, { season: SEASON })).find(
    ({ organismId }) => organismId === 'codling-moth',
  )!
  const label = { ...GRANULE, targets: ['codling-moth'], crops: ['apple'] }
  done(await app.call(endpoints.treatments.addProduct, { siteId: place.site.id }, label, { person: place.person }))
  const page = await browser.context.newPage()
  const offline = async (open: string, ready: () => Promise<void>, keep: () => Promise<void>): Promise<void> => {
    await browser.context.setOffline(false)
    await page.goto(`${here}/${open}`)
    await ready()
    await browser.context.setOffline(true)
    await keep()
  }
  await offline(
    'library/suspects?place=apple&month=6&seen=leaf:holes',
    () => page.getByRole('button', { name: 'Keep it as unknown' }).first().waitFor(),
    async () => {
      await page.getByRole('button', { name: 'Keep it as unknown' }).first().click()
      await page.getByRole('textbox', { name: 'Note' }).fill('on the third tree')
      await press(page, 'Keep it')
    },
  )
  await until(async () => (await rows('unknown_find')).length === 0 && (await waiting(page)) === 1)
  await browser.context.setOffline(false)
  await until(async () => (await rows('unknown_find')).length === 1)
  await offline(
    'library/organisms/codling-moth/check',
    () =>
      page
        .getByTestId(/^character-/)
        .first()
        .waitFor(),
    async () => {
      await page
        .getByTestId(/^character-/)
        .first()
        .getByRole('radio')
        .nth(1)
        .click()
      await press(page, 'Keep as evidence')
    },
  )
  await until(async () => (await waiting(page)) === 1)
  await browser.context.setOffline(false)
  await until(async () => (await rows('identity_check')).length === 1)
  await offline(
    `windows?watch=${watchId}`,
    () => page.getByRole('button', { name: 'Plan it' }).waitFor(),
    () => press(page, 'Plan it'),
  )
  await until(async () => (await waiting(page)) === 1)
  const before = (await rows('deed')).length
  await browser.context.setOffline(false)
  await until(async () => (await rows('deed')).length === before + 1)
  await until(async () => (await waiting(page)) === 0)
  await page.close()
})
