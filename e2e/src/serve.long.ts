import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { request } from 'node:https'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { fileURLToPath } from 'node:url'
import { afterAll, describe, expect, test } from 'vitest'

/* A farm's own server as whoever runs it starts it: first for its machine, then for its phones, and after the plug was pulled. */

const ROOT = fileURLToPath(new URL('../..', import.meta.url))
const BEYOND = '127.0.0.2'
const PORT = 24_000 + Math.floor(Math.random() * 3000)
const HERE = `http://127.0.0.1:${PORT}`
const PASSWORD = 'seven grey geese fly'

const dir = mkdtempSync(join(tmpdir(), 'bocado-serve-'))
let farm: ChildProcess | undefined

async function serve(...settings: string[]): Promise<string> {
  let said = ''
  farm = spawn('node', ['scripts/serve.mjs', ...settings], {
    cwd: ROOT,
    env: {
      ...process.env,
      BOCADO_DATA: dir,
      BOCADO_PORT: String(PORT),
      ...(settings.includes('--network') ? { BOCADO_LISTEN: BEYOND } : {}),
    },
  })
  for (const stream of [farm.stdout, farm.stderr]) stream?.on('data', (part: Buffer) => (said += part.toString()))
  for (let waited = 0; !said.includes('Ready;'); waited += 200) {
    if (waited > 240_000 || farm.exitCode !== null) throw new Error(`it does not serve: ${said}`)
    await sleep(200)
  }
  return said
}
async function stop(signal: NodeJS.Signals): Promise<void> {
  const gone = new Promise((resolve) => farm?.once('exit', resolve))
  farm?.kill(signal)
  await gone
}
afterAll(async () => {
  if (farm?.exitCode === null) await stop('SIGTERM')
  rmSync(dir, { recursive: true, force: true })
})

const post = (address: string, body: object, cookie = ''): Promise<Response> =>
  fetch(address, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', 'Idempotency-Key': crypto.randomUUID(), Cookie: cookie },
    body: JSON.stringify(body),
  })
const cookieOf = (answer: Response): string => answer.headers.getSetCookie()[0]!.split(';')[0]!

/** Over TLS, as a phone asks that has learnt to trust the farm. */
const asPhone = (method: string, path: string, body?: object, cookie = ''): Promise<{ status: number; cookie: string; text: string }> =>
  new Promise((resolve, reject) => {
    const asked = request(
      {
        host: BEYOND,
        port: PORT,
        method,
        path,
        ca: readFileSync(join(dir, 'tls', 'authority.crt')),
        headers: { 'Content-Type': 'application/json', 'Idempotency-Key': crypto.randomUUID(), Cookie: cookie },
      },
      (res) => {
        let text = ''
        res.setEncoding('utf8').on('data', (part: string) => (text += part))
        const given = res.headers['set-cookie']?.[0]?.split(';')[0] ?? ''
        res.once('end', () => resolve({ status: res.statusCode ?? 0, cookie: given, text }))
      },
    )
    asked.once('error', reject)
    asked.end(body === undefined ? undefined : JSON.stringify(body))
  })

describe('npm run serve', () => {
  test('is for this machine alone until its first account is made', async () => {
    expect(await serve()).toContain('Only this machine reaches it')
    const begun = await post(`${HERE}/api/v1/account`, { name: 'Marit Solheim', signInName: 'marit', password: PASSWORD })
    expect(begun.status).toBe(200)
    const site = { name: 'Hollin Bench', place: 'a river terrace', timeZone: 'America/Los_Angeles', units: 'metric' }
    expect((await post(`${HERE}/api/v1/sites`, site, cookieOf(begun))).status).toBe(200)
    await expect(fetch(`http://${BEYOND}:${PORT}/`)).rejects.toThrow()
    await stop('SIGTERM')
  })

  test('lets phones in over TLS, by an authority of its own and a sign-in; and holds what it acknowledged when everything is killed', async () => {
    const said = await serve('--network')
    expect(said).toContain(`https://${BEYOND}:${PORT}`)
    expect((await asPhone('GET', '/api/v1/sites')).status).toBe(401)
    const came = await asPhone('POST', '/api/v1/session', { signInName: 'marit', password: PASSWORD })
    expect([came.status, came.cookie.split('=')[0]]).toEqual([200, '__Host-bocado'])
    expect((JSON.parse((await asPhone('GET', '/api/v1/sites', undefined, came.cookie)).text) as { name: string }[])[0]?.name).toBe(
      'Hollin Bench',
    )
    const site = { name: 'Lower Terrace', place: 'below', timeZone: 'America/Los_Angeles', units: 'us' }
    expect((await asPhone('POST', '/api/v1/sites', site, came.cookie)).status).toBe(200)
    await stop('SIGKILL')
    await serve('--network')
    const sites = JSON.parse((await asPhone('GET', '/api/v1/sites', undefined, came.cookie)).text) as { name: string }[]
    expect(sites.map(({ name }) => name).sort()).toEqual(['Hollin Bench', 'Lower Terrace'])
  })
})
