import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { endpoints, READ_AT_HEADER } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'
import { pageHtml } from './pageHtml.js'

const HTML = '<html><head><script type="module" crossorigin src="/assets/index.js"></script></head><body></body></html>'

describe('the page as it is sent', () => {
  let folder: string
  beforeAll(() => {
    folder = mkdtempSync(join(tmpdir(), 'bocado-page-'))
    writeFileSync(join(folder, 'index.html'), HTML)
    mkdirSync(join(folder, '.vite'))
    const parts = {
      'src/windows/WindowsScreen.tsx': { file: 'assets/WindowsScreen.js', imports: ['_band.js', '_hooks.js'] },
      'src/account/SignInScreen.tsx': { file: 'assets/SignInScreen.js', imports: ['_hooks.js'] },
      'src/site/SiteScreen.tsx': { file: 'assets/SiteScreen.js', imports: [] },
      '_band.js': { file: 'assets/band.js', imports: ['_hooks.js'] },
      // Two that need each other.
      '_hooks.js': { file: 'assets/hooks.js', imports: ['_band.js', 'index.html'] },
      'index.html': { file: 'assets/index.js' },
    }
    writeFileSync(join(folder, '.vite', 'manifest.json'), JSON.stringify(parts))
  })
  afterAll(() => rmSync(folder, { recursive: true }))
  const filesOf = (html: string): string[] =>
    [...html.matchAll(/modulepreload" crossorigin href="\/assets\/(\w+)\.js"/g)].map(([, name]) => name!)

  test('names what its screen needs, each once, and not what it names already', () => {
    const page = pageHtml(folder)
    expect(filesOf(page('/sites/x/windows', [])).sort()).toEqual(['WindowsScreen', 'band', 'hooks'])
    expect(filesOf(page('/sites/x/site', []))).toEqual(['SiteScreen'])
    // An address that names no screen begins with the windows; a longer one with the screen that it names last.
    expect(filesOf(page('/', []))).toContain('WindowsScreen')
    expect(filesOf(page('/sites/x/site/y', []))).toEqual(['SiteScreen'])
  })

  test('is the door for who is not signed in, whatever is asked for', () => {
    expect(filesOf(pageHtml(folder)('/sites/x/windows', ['/api/v1/session'], true)).sort()).toEqual(['SignInScreen', 'band', 'hooks'])
  })

  test('asks for what is read before its own code, and is sent as it was built where the bundler left no list', () => {
    const html = pageHtml(folder)('/', ['/api/v1/sites'])
    expect(html.indexOf('href="/api/v1/sites"')).toBeLessThan(html.indexOf('src="/assets/index.js"'))
    const bare = mkdtempSync(join(tmpdir(), 'bocado-page-'))
    writeFileSync(join(bare, 'index.html'), HTML)
    expect(pageHtml(bare)('/', []).replace(/\s+/g, '')).toBe(HTML.replace(/\s+/g, ''))
    rmSync(bare, { recursive: true })
  })
})

describe('what the page of an address begins with', () => {
  let app: Application
  let place: TestSite
  beforeAll(async () => {
    app = await startApplication({ now: '2026-06-12T14:30:00Z', worker: false })
    place = await startSite(app)
  })
  afterAll(() => app.stop())
  const reads = async (path: string, person?: string): Promise<string[]> => {
    const headers: Record<string, string> = person === undefined ? {} : { Cookie: await app.cookieOf(person) }
    const html = await (await fetch(app.address + path, { headers })).text()
    return [...html.matchAll(/as="fetch" crossorigin="anonymous" href="([^"]+)"/g)].map(([, address]) => address!.replace('/api/v1', ''))
  }

  test('are the sites, and what the screen waits for', async () => {
    const of = `/sites/${place.site.id}`
    await expect.poll(() => reads('/', place.person)).toEqual(['/sites', '/session'])
    await expect
      .poll(() => reads(`${of}/windows`, place.person))
      .toEqual(['/sites', '/session', `${of}/band?season=2026-01-01`, `${of}/blocks`, `${of}/organisms`])
    await expect.poll(() => reads(`${of}/weather`, place.person)).toEqual(['/sites', '/session'])
  })

  test('says at which versions of its site each answer was read, and those of the list of sites', async () => {
    const at = async (path: string): Promise<Record<string, number>> => {
      const answer = await fetch(`${app.address}/api/v1${path}`, { headers: { Cookie: await app.cookieOf(place.person) } })
      return JSON.parse(answer.headers.get(READ_AT_HEADER) ?? 'null') as Record<string, number>
    }
    const of = `/sites/${place.site.id}`
    const before = await at(`${of}/blocks`)
    expect(Object.keys(before)).toContain('site')
    done(await app.call(endpoints.weather.addStation, { siteId: place.site.id }, { name: 'Second' }, { person: place.person }))
    expect((await at(`${of}/blocks`))['stations']).toBe((before['stations'] ?? 0) + 1)
    expect(await at('/sites')).not.toBeNull()
    expect(await at('/session')).toBeNull()
  })

  test('is nothing that would be refused: not for who is not signed in, nor of another’s site, nor where a link leads', async () => {
    const of = `/sites/${place.site.id}/windows`
    await expect.poll(() => reads(of)).toEqual(['/session'])
    const stranger = await app.newPerson('Dario Quince')
    await expect.poll(() => reads(of, stranger)).toEqual(['/sites', '/session'])
    await expect.poll(() => reads('/come-in', place.person)).toEqual([])
  })
})
