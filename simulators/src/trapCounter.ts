import { setTimeout as sleep } from 'node:timers/promises'
import { dayNumber } from '@bocado/core'
import { countedDays } from '@bocado/demo'

/** What somebody types into a counter: where to send, which trap it is, and its token. */
export interface CounterSettings {
  address: string
  trapId: string
  token: string
}

const BATCH = 300

/** Sends what a trap caught on each whole day, once the day is over by the time of the demonstration, until it is stopped. */
export async function runTrapCounter({ address, trapId, token }: CounterSettings, stopped: AbortSignal): Promise<void> {
  let sent: number | null = null
  while (!stopped.aborted) {
    try {
      const { now } = (await (await fetch(`${address}/api/v1/demo/clock`)).json()) as { now: string | null }
      const catches = countedDays(sent, now ? Date.parse(now) : Date.now()).slice(0, BATCH)
      const last = catches.at(-1)
      if (last) {
        const response = await fetch(`${address}/api/v1/traps/${trapId}/catches`, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json', Authorization: `Bearer ${token}` },
          body: JSON.stringify({ catches }),
        })
        if (!response.ok) throw new Error(`the counter was refused: ${response.status} ${await response.text()}`)
        sent = dayNumber(last.day)
        continue
      }
    } catch (error) {
      if (stopped.aborted) return
      console.error(error instanceof Error ? error.message : error)
    }
    await sleep(1000, undefined, { signal: stopped }).catch(() => undefined)
  }
}
