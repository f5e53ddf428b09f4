import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { root } from './packages.mjs'
import { isAlive, stop } from './processes.mjs'

const LOOK_EVERY_MS = 500
const PAUSES_MS = [0, 1000, 3000, 10_000, 30_000, 60_000]
/** What has run for so long is well again. */
const WELL_AFTER_MS = 60_000

/**
 * Keeps a program running: one that ended is started again, at once the first time and after longer pauses where it ends again, so that a
 * full disk or a broken file makes no loop of restarts.
 *
 * @param {{ name: string, first: { pid: number }, start: () => Promise<{ pid: number }>, say: (line: string) => void }} p
 * @returns {{ end: () => void, now: () => { pid: number } }}
 */
export function keepRunning({ name, first, start, say }) {
  let running = first
  let ended = false
  let since = Date.now()
  void (async () => {
    for (let failures = 0; !ended;) {
      if (isAlive(running.pid)) {
        if (Date.now() - since > WELL_AFTER_MS) failures = 0
        await sleep(LOOK_EVERY_MS)
        continue
      }
      const pause = PAUSES_MS[Math.min(failures++, PAUSES_MS.length - 1)]
      say(`${name} ended by itself; starting it again${pause > 0 ? ` in ${pause / 1000} s` : ''}`)
      await sleep(pause)
      if (ended) return
      try {
        running = await start()
        since = Date.now()
        say(`${name} runs again`)
      } catch (error) {
        say(`${name} does not start: ${error.message.split('\n')[0]}`)
      }
    }
  })()
  return { end: () => (ended = true), now: () => running }
}

/**
 * Programs that run as long as this one does: each is kept running, and all are ended where this one is, the last started first.
 *
 * @param {{ say: (line: string) => void, release: () => void }} p `release`: what else is let go of at the end
 * @returns {{ keep: (name: string, first: { pid: number }, again: () => Promise<{ pid: number }>) => void, end: (code: number) => Promise<void> }}
 */
export function keptPrograms({ say, release }) {
  const keepers = []
  let ending = false
  const end = async (code) => {
    if (ending) return
    ending = true
    for (const keeper of keepers) keeper.end()
    for (const keeper of keepers.toReversed()) {
      const { pid } = keeper.now()
      if (isAlive(pid)) await stop(pid)
    }
    release()
    process.exit(code)
  }
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void end(0))
  return { keep: (name, first, again) => void keepers.push(keepRunning({ name, first, start: again, say })), end }
}

/**
 * Starts a built program that says when it is ready, and that ends when this one is gone.
 *
 * @param {string} file from the root of the project
 * @param {Record<string, string>} env
 * @param {(said: unknown) => void} [heard] hears what it said
 */
export async function startProgram(file, env, heard = () => undefined) {
  const child = spawn(process.execPath, [join(root, file)], {
    env: { ...process.env, ...env },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  })
  await new Promise((resolve, reject) => {
    child.once('message', (said) => {
      heard(said)
      resolve()
    })
    child.once('exit', (code) => reject(new Error(`${file} ended with ${code}`)))
  })
  return child
}
