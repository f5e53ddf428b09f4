import { MS_PER_HOUR } from '@bocado/core'
import { setTimeout as sleep } from 'node:timers/promises'
import type { InventedHour } from '@bocado/demo'

/** What somebody types into a device: where to push, which station it is, and its token. */
export interface DeviceSettings {
  address: string
  stationId: string
  token: string
}

const BATCH = 500

/** Hours as the interface takes them; what the sensor did not give is left out. */
export function toReadings(hours: readonly InventedHour[]): Record<string, string | number>[] {
  return hours.map(({ at, temperature, humidity, rain, wind, direction }) => ({
    at: new Date(at).toISOString().replace('.000Z', 'Z'),
    ...(temperature === null ? {} : { temperature }),
    ...(humidity === null ? {} : { humidity }),
    ...(rain === null ? {} : { rain }),
    ...(wind === null ? {} : { wind }),
    ...(direction === null ? {} : { direction }),
  }))
}

async function push({ address, stationId, token }: DeviceSettings, hours: readonly InventedHour[]): Promise<void> {
  const response = await fetch(`${address}/api/v1/stations/${stationId}/readings`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Authorization: `Bearer ${token}` },
    body: JSON.stringify({ readings: toReadings(hours) }),
  })
  if (!response.ok) throw new Error(`the station was refused: ${response.status} ${await response.text()}`)
}

/** The hours that have passed and are not pushed yet, oldest first, as many as go into one push. */
export function dueHours(hours: readonly InventedHour[], after: number, now: number): InventedHour[] {
  return hours.filter(({ at }) => at > after && at + MS_PER_HOUR <= now).slice(0, BATCH)
}

/**
 * Runs a station until it is stopped: asks for the time, pushes what is due, and keeps what could not be pushed for the next
 * turn. `since` is the newest hour that the station already has.
 */
export async function runStation(
  settings: DeviceSettings,
  hours: readonly InventedHour[],
  since: number,
  stopped: AbortSignal,
): Promise<void> {
  let pushed = since
  while (!stopped.aborted) {
    try {
      const { now } = (await (await fetch(`${settings.address}/api/v1/demo/clock`)).json()) as { now: string | null }
      const due = dueHours(hours, pushed, now ? Date.parse(now) : Date.now())
      if (due.length > 0) {
        await push(settings, due)
        pushed = due.at(-1)?.at ?? pushed
        continue
      }
    } catch (error) {
      if (stopped.aborted) return
      console.error(error instanceof Error ? error.message : error)
    }
    await sleep(1000, undefined, { signal: stopped }).catch(() => undefined)
  }
}
