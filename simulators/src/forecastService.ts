import { setTimeout as sleep } from 'node:timers/promises'
import { makeIssue, newestIssueAt, type InventedHour } from '@bocado/demo'
import type { DeviceSettings } from './weatherStation.js'

/** Delivers a forecast for a station whenever a new one is due by the time of the demonstration, until it is stopped. */
export async function runForecastService(settings: DeviceSettings, truth: readonly InventedHour[], stopped: AbortSignal): Promise<void> {
  const delivered = new Set<number>()
  while (!stopped.aborted) {
    try {
      const { now } = (await (await fetch(`${settings.address}/api/v1/demo/clock`)).json()) as { now: string | null }
      const due = newestIssueAt(now ? Date.parse(now) : Date.now())
      const issue = delivered.has(due) ? undefined : makeIssue(truth, due)
      if (issue && (issue.members[0]?.temperature.length ?? 0) >= 24) {
        const response = await fetch(`${settings.address}/api/v1/stations/${settings.stationId}/forecast-issues`, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json', Authorization: `Bearer ${settings.token}` },
          body: JSON.stringify(issue),
        })
        if (!response.ok) throw new Error(`the forecast was refused: ${response.status} ${await response.text()}`)
      }
      delivered.add(due)
    } catch (error) {
      if (stopped.aborted) return
      console.error(error instanceof Error ? error.message : error)
    }
    await sleep(1000, undefined, { signal: stopped }).catch(() => undefined)
  }
}
