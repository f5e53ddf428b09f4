import { setTimeout as sleep } from 'node:timers/promises'
import { isAlive } from './processes.mjs'

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
