import { readFileSync } from 'node:fs'
import { setTimeout as sleep } from 'node:timers/promises'

export function isAlive(pid) {
  try {
    process.kill(pid, 0)
    return true
  } catch (error) {
    return error.code === 'EPERM'
  }
}

/** Whether the process with this number is still the one we mean, and not a later one with the same number. */
export function runs(pid, words) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(words)
  } catch {
    return false
  }
}

/** Ends a process at once, and waits until it and its ports are gone. */
export async function kill(pid) {
  process.kill(pid, 'SIGKILL')
  while (isAlive(pid)) await sleep(20)
}

/** Asks a process to stop, waits, and after `patience` ms ends it. */
export async function stop(pid, patience = 15_000) {
  for (let waited = 0; isAlive(pid); waited += 50) {
    if (waited === 0) process.kill(pid, 'SIGTERM')
    if (waited > patience) process.kill(pid, 'SIGKILL')
    await sleep(50)
  }
}
