import { randomUUID } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { endpoints, type WeatherMapping } from '@bocado/contract'
import type { Row } from '@bocado/server/database/index'
import { startApplication, startServer, type Application } from '@bocado/server/testing/application'
import { done, startSite } from '@bocado/server/testing/farm'
import { hourlyFile, importFile, importUntilStoring } from '@bocado/server/testing/upload'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startMariadb } from '../../scripts/machine/mariadb.mjs'
import { openBrowser, signIn } from './browser.js'
import { choose, press } from './page.js'

const NOW = '2026-06-12T14:30:00Z'
const block = (name: string) => ({ name, kind: 'orchard', areaHa: 1, grows: '' }) as const

describe('a database that is killed', () => {
  let dir: string
  let mariadb: Awaited<ReturnType<typeof startMariadb>>
  let app: Application
  beforeAll(async () => {
    dir = mkdtempSync(join(tmpdir(), 'bocado-mariadb-'))
    mariadb = await startMariadb(dir, { port: 33_260 })
    app = await startApplication({ now: NOW, server: mariadb.url })
  })
  afterAll(async () => {
    await app.stop()
    await mariadb.stop()
    rmSync(dir, { recursive: true, force: true })
  })

  async function killAndRestart(): Promise<void> {
    await mariadb.kill()
    mariadb = await startMariadb(dir, { port: mariadb.port })
  }

  test('has every write that was acknowledged, before and after it was killed', async () => {
    const place = await startSite(app)
    const params = { siteId: place.site.id }
    done(await app.call(endpoints.blocks.create, params, block('Stone Row'), { person: place.person }))
    await killAndRestart()
    done(await app.call(endpoints.blocks.create, params, block('Ladder Pears'), { person: place.person }))
    await killAndRestart()
    const names = done(await app.call(endpoints.blocks.list, params, {})).map(({ name }) => name)
    expect(names).toEqual(expect.arrayContaining(['Old Apples', 'Stone Row', 'Ladder Pears']))
  })

  test('answers 503 while it is away, and holds no half of an import that it died in', async () => {
    const place = await startSite(app, 'River bench')
    const mapping: WeatherMapping = {
      separator: ',',
      decimal: '.',
      headerLines: 1,
      interval: 'hourly',
      dateColumn: 0,
      timeColumn: null,
      dateOrder: 'ymd',
      clock: 'standard',
      offsetMinutes: null,
      stamp: 'begins',
      columns: [{ variable: 'temperature', column: 1, unit: 'C' }],
    }
    const file = hourlyFile(1985, '2026-06-12')
    const id = randomUUID()
    const cut = await importUntilStoring(app, place, file, mapping, id)
    await mariadb.kill()
    expect((await cut.last)?.problem?.status).toBe(503)
    expect((await app.call(endpoints.blocks.list, { siteId: place.site.id }, {}, { person: place.person })).status).toBe(503)
    mariadb = await startMariadb(dir, { port: mariadb.port })
    const [[left]] = await app.database.query<Row[]>(
      'SELECT (SELECT COUNT(*) FROM reading WHERE station_id = ?) + (SELECT COUNT(*) FROM weather_import WHERE id = ?) AS n',
      [place.stationId, id],
    )
    expect(left!['n']).toBe(0)
    expect((await importFile(app, place, file, mapping, id)).status).toBe(200)
  })
})

describe('a server that is away', () => {
  let app: Application
  let browser: Awaited<ReturnType<typeof openBrowser>>
  beforeAll(async () => {
    app = await startApplication({ now: NOW })
    browser = await openBrowser()
  })
  afterAll(async () => {
    await browser.close()
    await app.stop()
  })

  test('is said on the page; what was typed stays and is stored once when it is back', async () => {
    const place = await startSite(app)
    await signIn(browser.context, app, place.person)
    const page = await browser.context.newPage()
    await page.goto(`${app.address}/sites/${place.site.id}/site`)
    await press(page, 'Add a block')
    await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Stone Row')
    await choose(page, 'Kind of place', 'orchard')
    app.process.kill('SIGKILL')
    await press(page, 'Save')
    await page.getByRole('status').getByText('Bocado does not answer').waitFor()
    expect(await page.getByRole('textbox', { name: 'Name', exact: true }).inputValue()).toBe('Stone Row')
    app.process = await startServer(app.databaseUrl, Number(new URL(app.address).port))
    await page.getByRole('button', { name: 'Edit Stone Row' }).waitFor()
    await page.getByText('Bocado does not answer').waitFor({ state: 'detached' })
    const all = done(await app.call(endpoints.blocks.list, { siteId: place.site.id }, {}))
    expect(all.filter(({ name }) => name === 'Stone Row')).toHaveLength(1)
  })
})
