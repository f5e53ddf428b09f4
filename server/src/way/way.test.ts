import { spawnSync } from 'node:child_process'
import { X509Certificate } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs'
import { request, type RequestOptions } from 'node:https'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, startServer, type Application } from '../testing/application.js'
import { certificatesFor } from './certificates.js'
import { wayIn } from './settings.js'

const BEYOND = '127.0.0.2'
const PORT = 28_000 + Math.floor(Math.random() * 4000)
const MAIN = fileURLToPath(new URL('../../dist/main.js', import.meta.url))
const NOW = new Date('2026-06-12T14:30:00Z')

let folder: string
let app: Application
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'bocado-tls-'))
  app = await startApplication({ worker: false })
})
afterAll(async () => {
  rmSync(folder, { recursive: true })
  await app.stop()
})

const ask = (options: RequestOptions, body?: string): Promise<{ status: number; headers: Record<string, unknown>; text: string }> =>
  new Promise((resolve, reject) => {
    // The name that is asked for and the one that is said differ here on purpose.
    const asked = request(
      {
        checkServerIdentity: () => undefined,
        host: BEYOND,
        port: PORT,
        ca: readFileSync(join(folder, 'authority.crt')),
        ...options,
      },
      (res) => {
        let text = ''
        res.setEncoding('utf8').on('data', (part: string) => (text += part))
        res.once('end', () => resolve({ status: res.statusCode ?? 0, headers: res.headers, text }))
      },
    )
    asked.once('error', reject)
    asked.end(body)
  })

describe('the settings of the way in', () => {
  test('are this machine alone where nothing is said', async () =>
    expect(await wayIn({}, NOW)).toMatchObject({ listen: '127.0.0.1', port: 4600, isBeyond: false, names: [], tls: undefined }))

  test('let nobody else in without TLS, nor with half of a certificate', async () => {
    await expect(wayIn({ BOCADO_LISTEN: '0.0.0.0' }, NOW)).rejects.toThrow('without TLS')
    await expect(wayIn({ BOCADO_TLS_CERT: '/x.crt' }, NOW)).rejects.toThrow('belong together')
  })
})

describe('an authority of one’s own', () => {
  test('vouches for the names, is kept, and its certificate is made anew when names change or it is about to end', async () => {
    const own = join(folder, 'own')
    const first = await certificatesFor(own, ['localhost', '192.0.2.7'], NOW)
    const cert = new X509Certificate(first.cert)
    expect(cert.subjectAltName).toBe('DNS:localhost, IP Address:192.0.2.7')
    expect(cert.verify(new X509Certificate(first.authority).publicKey)).toBe(true)
    expect(Date.parse(cert.validTo) - Date.parse(cert.validFrom)).toBeLessThan(398 * 86_400_000)
    expect(statSync(join(own, 'authority.key')).mode & 0o077).toBe(0)
    expect((await certificatesFor(own, ['localhost'], NOW)).cert).toBe(first.cert)
    const moved = await certificatesFor(own, ['localhost', '192.0.2.9'], NOW)
    expect([moved.authority === first.authority, moved.cert === first.cert]).toEqual([true, false])
    const later = await certificatesFor(own, ['localhost', '192.0.2.9'], new Date('2027-06-01T00:00:00Z'))
    expect([later.authority === first.authority, later.cert === moved.cert]).toEqual([true, false])
  })
})

describe('beyond this machine', () => {
  const environment = { BOCADO_LISTEN: BEYOND, BOCADO_NAMES: 'bench.hollin.example' }

  test('nothing is opened while nobody has an account', () => {
    const { status, stderr } = spawnSync(process.execPath, [MAIN], {
      env: { ...process.env, ...environment, BOCADO_TLS_FOLDER: folder, BOCADO_DATABASE_URL: app.databaseUrl, BOCADO_PORT: String(PORT) },
      encoding: 'utf8',
      timeout: 20_000,
    })
    expect([status, stderr]).toEqual([1, expect.stringContaining('Nobody has an account here yet')])
  })

  test('it is reached over TLS only, by its names only, and only by who signs in there', async () => {
    const begun = await fetch(`${app.address}/api/v1/account`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ name: 'Marit Solheim', signInName: 'marit', password: 'seven grey geese fly' }),
    })
    expect(begun.status).toBe(200)
    const server = await startServer(app.databaseUrl, PORT, { ...environment, BOCADO_TLS_FOLDER: folder, BOCADO_DEMO: 'on' })
    try {
      expect((await ask({ path: '/healthz' })).status).toBe(200)
      expect((await ask({ path: '/api/v1/session', headers: { Host: 'evil.example' } })).status).toBe(421)
      expect((await ask({ path: '/api/v1/session', headers: { Host: 'bench.hollin.example' } })).status).toBe(200)
      await expect(fetch(`http://${BEYOND}:${PORT}/healthz`)).rejects.toThrow()
      // Even a demonstration signs nobody in by one press from elsewhere, and nobody is the first any more.
      const session = JSON.parse((await ask({ path: '/api/v1/session' })).text) as { demo: unknown; first: unknown }
      expect(session).toEqual({ person: null, phone: null, demo: null, first: null })
      const json = { 'Content-Type': 'application/json' }
      const signIn = JSON.stringify({ signInName: 'marit', password: 'seven grey geese fly' })
      const { headers } = await ask({ path: '/api/v1/session', method: 'POST', headers: json }, signIn)
      expect(headers['set-cookie']).toEqual([
        expect.stringMatching(/^__Host-bocado=[\w-]{43}; .*Path=\/; .*HttpOnly; Secure; SameSite=Lax$/),
      ])
      const Cookie = (headers['set-cookie'] as string[])[0]!.split(';')[0]!
      expect((await ask({ path: '/api/v1/sites', headers: { Cookie } })).status).toBe(200)
      // The same secret under the name that plain HTTP uses opens nothing here.
      expect((await ask({ path: '/api/v1/sites', headers: { Cookie: Cookie.replace('__Host-', '') } })).status).toBe(401)
      const way = JSON.parse((await ask({ path: '/api/v1/account/way-in', headers: { Cookie } })).text) as {
        addresses: string[]
        trust: string
        fingerprint: string
        code: string
      }
      expect(way.addresses).toContain(`https://${BEYOND}:${PORT}`)
      expect(way.code).toMatch(/^<svg /)
      // How a phone learns to trust it: one page and one file, over plain HTTP, and nothing else.
      const trust = `http://${BEYOND}:${PORT + 1}`
      expect(await (await fetch(trust)).text()).toContain(way.fingerprint)
      expect(new X509Certificate(Buffer.from(await (await fetch(`${trust}/bocado.crt`)).arrayBuffer())).fingerprint256).toContain(
        way.fingerprint,
      )
      for (const path of ['/api/v1/session', '/authority.key', '/bocado.key', '/../authority.key'])
        expect((await fetch(trust + path)).status).toBe(404)
    } finally {
      server.kill('SIGKILL')
    }
  })

  test('a proxy that is not known has no say in where a request comes from', async () => {
    const proxied = { 'X-Forwarded-For': '203.0.113.9', 'X-Forwarded-Proto': 'https' }
    const { first, demo } = (await (await fetch(`${app.address}/api/v1/session`, { headers: proxied })).json()) as Record<string, unknown>
    expect([first, demo]).toEqual([null, null])
    const answer = await fetch(`${app.address}/api/v1/session`, {
      method: 'POST',
      headers: { ...proxied, 'Content-Type': 'application/json' },
      body: JSON.stringify({ signInName: 'marit', password: 'seven grey geese fly' }),
    })
    expect(answer.headers.getSetCookie()[0]).toMatch(/^bocado=/)
  })
})
