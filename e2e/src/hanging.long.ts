import { execFileSync, spawn, type ChildProcess } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { endpoints } from '@bocado/contract'
import { startApplication, type Application } from '@bocado/server/testing/application'
import { done, startSite, type TestSite } from '@bocado/server/testing/farm'
import { hourlyFile, importUntilStoring, preview } from '@bocado/server/testing/upload'
import { afterAll, afterEach, beforeAll, describe, expect, test } from 'vitest'
import { startMariadb } from '../../scripts/machine/mariadb.mjs'

/* What happens to the server and the demonstration when the ground under them gives way. */

const { blocks, sites } = endpoints
const block = (name: string) => ({ name, kind: 'orchard', areaHa: 1, grows: '' }) as const

interface Health {
  ok: boolean
  parts: { database: string; disk: string }
}
async function health(address: string): Promise<{ ms: number; status: number; body: Health }> {
  const began = performance.now()
  const answer = await fetch(`${address}/healthz`)
  return { status: answer.status, body: (await answer.json()) as Health, ms: performance.now() - began }
}

describe('a database that hangs', () => {
  let dir: string
  let mariadb: Awaited<ReturnType<typeof startMariadb>>
  let app: Application
  let place: TestSite
  beforeAll(async () => {
    dir = mkdtempSync(join(tmpdir(), 'bocado-hanging-'))
    mariadb = await startMariadb(dir, { port: 33_360 })
    app = await startApplication({ now: '2026-06-12T14:30:00Z', server: mariadb.url })
    place = await startSite(app)
  })
  afterAll(async () => {
    await app.stop()
    await mariadb.stop()
    rmSync(dir, { recursive: true, force: true })
  })

  test('is told within a second; who asks is answered, and all works on when it goes on', async () => {
    const at = { siteId: place.site.id }
    process.kill(mariadb.pid, 'SIGSTOP')
    try {
      const asked = Array.from({ length: 20 }, (_, i) =>
        i % 2
          ? app.call(sites.list, {}, {}, { person: place.person })
          : app.call(blocks.create, at, block(`Row ${i}`), { person: place.person }),
      )
      for (let i = 0; i < 3; i++) {
        await sleep(300)
        const { ms, status, body } = await health(app.address)
        expect(ms).toBeLessThan(1000)
        expect([status, body.ok, body.parts.database]).toEqual([503, false, 'silent'])
      }
      const began = performance.now()
      const answers = await Promise.all(asked)
      expect(new Set(answers.map(({ status }) => status))).toEqual(new Set([503]))
      expect(performance.now() - began).toBeLessThan(40_000)
    } finally {
      process.kill(mariadb.pid, 'SIGCONT')
    }
    await sleep(500)
    expect((await health(app.address)).body.ok).toBe(true)
    done(await app.call(blocks.create, at, block('Ladder Pears'), { person: place.person }))
  })

  test('does not keep the server from ending when it is asked to, also under an import', async () => {
    const file = hourlyFile(1975, '2026-06-12')
    const mapping = (await preview(app, place, file.slice(0, 200_000))).body.mapping
    const importing = await importUntilStoring(app, place, file, mapping, randomUUID())
    const ended = new Promise<void>((resolve) => app.process.once('exit', () => resolve()))
    const began = performance.now()
    app.process.kill('SIGTERM')
    await ended
    expect(performance.now() - began).toBeLessThan(5000)
    await importing.last
  })
})

describe('a disk that is full', () => {
  const dir = join(tmpdir(), `bocado-small-disk-${process.pid}`)
  let mounted = false
  let mariadb: Awaited<ReturnType<typeof startMariadb>> | undefined
  let app: Application | undefined
  afterEach(async () => {
    await app?.stop()
    await mariadb?.stop()
    if (mounted) execFileSync('umount', ['-l', dir])
    rmSync(dir, { recursive: true, force: true })
  })

  test('is said, loses nothing that was acknowledged, and is over as soon as there is room', async (context) => {
    mkdirSync(dir, { recursive: true })
    try {
      execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=420m', 'tmpfs', dir], { stdio: 'ignore' })
      mounted = true
    } catch {
      context.skip('this machine mounts no small disk')
      return
    }
    mariadb = await startMariadb(dir, { port: 33_361 })
    app = await startApplication({ now: '2026-06-12T14:30:00Z', server: mariadb.url })
    const place = await startSite(app)
    const at = { siteId: place.site.id }
    const mapping = (await preview(app, place, hourlyFile(2026, '2026-02-01').slice(0, 50_000))).body.mapping
    // Whatever room is left is taken by something else.
    const filler = join(dir, 'filler')
    try {
      execFileSync('dd', ['if=/dev/zero', `of=${filler}`, 'bs=1M', 'count=1000'], { stdio: 'ignore' })
    } catch {
      // It ends when there is no more room.
    }
    const large = await importUntilStoring(app, place, hourlyFile(1960, '2026-06-12'), mapping, randomUUID()).then(
      ({ last }) => last,
      (error: unknown) => ({ problem: { status: 507, detail: String(error) } }),
    )
    expect([507, 503], JSON.stringify(large)).toContain(large?.problem?.status)
    const told = await health(app.address)
    expect(told.ms).toBeLessThan(1000)
    expect(told.body.ok).toBe(false)
    expect(done(await app.call(blocks.list, at, {})).map(({ name }) => name)).toEqual(['Old Apples'])
    rmSync(filler)
    // By itself: nobody restarts anything.
    for (let waited = 0; waited < 60; waited++) {
      const { status } = await app.call(blocks.create, at, block('Ladder Pears'), { person: place.person })
      if (status === 200) break
      await sleep(1000)
    }
    expect((await health(app.address)).body.ok).toBe(true)
    expect(done(await app.call(blocks.list, at, {})).map(({ name }) => name)).toEqual(['Old Apples', 'Ladder Pears'])
  })
})

describe('the demonstration', () => {
  const root = new URL('../..', import.meta.url).pathname.replace(/\/$/, '')
  // Beside a demonstration that somebody has open.
  const folder = mkdtempSync(join(tmpdir(), 'bocado-demo-'))
  const running: ChildProcess[] = []
  let said = ''

  function demo(): { child: ChildProcess; address: Promise<string>; words: () => string } {
    const child = spawn(process.execPath, ['scripts/demo.mjs'], {
      cwd: root,
      env: { ...process.env, BOCADO_PORT: '4690', BOCADO_DEMO_DATA: folder },
    })
    running.push(child)
    let words = ''
    const address = new Promise<string>((resolve, reject) => {
      child.stdout.on('data', (part: Buffer) => {
        words += part.toString()
        said += part.toString()
        const found = /^(http:\/\/\S+)$/m.exec(words)?.[1]
        if (found) resolve(found.replace(/\/$/, ''))
      })
      child.once('exit', (code) => reject(new Error(`ended with ${code}: ${words}`)))
    })
    return { child, address, words: () => words }
  }
  afterAll(async () => {
    for (const child of running) if (child.exitCode === null) child.kill('SIGTERM')
    await sleep(4000)
    rmSync(folder, { recursive: true, force: true })
  })

  test('is started once by two that start it together, brings its database back, and outlives a cut file of state', async () => {
    writeFileSync(join(folder, 'run.json'), '{"owner": 12')
    const [one, two] = [demo(), demo()]
    const addresses = await Promise.all([one.address, two.address])
    expect(new Set(addresses).size).toBe(1)
    const address = addresses[0]!
    expect([one, two].filter(({ words }) => words().includes('already running'))).toHaveLength(1)

    const pid = Number(readFileSync(join(folder, 'mariadbd.pid'), 'utf8'))
    process.kill(pid, 'SIGKILL')
    expect((await health(address)).body.ok).toBe(false)
    for (let waited = 0; waited < 60 && !(await health(address)).body.ok; waited++) await sleep(500)
    expect((await health(address)).body.ok).toBe(true)
    expect(said).toContain('MariaDB ended by itself')

    const owner = [one, two].find(({ words }) => !words().includes('already running'))!
    const ended = new Promise<void>((resolve) => owner.child.once('exit', () => resolve()))
    owner.child.kill('SIGTERM')
    await ended
    expect(existsSync(join(folder, 'run.json'))).toBe(false)
  })
})
