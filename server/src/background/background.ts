import { hoursBetween, MS_PER_HOUR } from '@bocado/core'
import { setTimeout as sleep } from 'node:timers/promises'
import type { Logger } from 'pino'
import { reading, type Serving } from '../http/serving.js'
import { getSites } from '../sites/service.js'
import { issueForecasts } from './issueForecasts.js'
import { sweep } from './retention.js'
import { tendStations } from './tendStations.js'

/** How soon what somebody changed is made anew, and at the soonest after a device pushed. */
const SOON_MS = { person: 400, device: 20_000 } as const
/** A weather forecast comes about every six hours; between them little changes. */
const HOURS_BETWEEN = 6
const LOOK_EVERY_MS = 60_000
const SWEEP_EVERY_MS = MS_PER_HOUR
const BACK_OFF_MS = [5000, 20_000, 60_000, 300_000]

interface Due {
  at: number
  failures: number
}

/**
 * What the server does though nobody asks: readings are checked, forecasts issued, what is old is thinned. One site is tended at a time,
 * and one that fails waits longer each time and holds up no other.
 */
export class Background {
  private readonly due = new Map<string, Due>()
  private readonly issued = new Map<string, { today: string; at: number }>()
  private timer: NodeJS.Timeout | undefined
  private ended = false
  private working: Promise<void> = Promise.resolve()
  private swept = 0

  constructor(
    private readonly serving: Serving,
    private readonly log: Logger,
  ) {}

  /** Something of a site changed. */
  changed(siteId: string, by: keyof typeof SOON_MS): void {
    this.ask(siteId, Date.now() + SOON_MS[by])
  }

  start(): void {
    this.look()
  }

  /** Begins nothing any more, and waits a little for what is under way. */
  async end(): Promise<void> {
    this.ended = true
    clearTimeout(this.timer)
    await Promise.race([this.working, sleep(1500)])
  }

  private ask(siteId: string, at: number): void {
    const known = this.due.get(siteId)
    if (known && known.at <= at) return
    this.due.set(siteId, { at, failures: known?.failures ?? 0 })
    this.plan()
  }

  /** Wakes when the next site is due, and each minute to see what the clock brings. */
  private plan(): void {
    if (this.ended) return
    clearTimeout(this.timer)
    const next = Math.min(Date.now() + LOOK_EVERY_MS, ...[...this.due.values()].map(({ at }) => at))
    this.timer = setTimeout(() => this.look(), Math.max(20, next - Date.now()))
    this.timer.unref()
  }

  private look(): void {
    this.working = this.working
      .then(() => this.work())
      .catch((error: unknown) => this.log.error({ err: error as Error }, 'what is done beside requests failed; it is tried again'))
      .finally(() => this.plan())
  }

  private async work(): Promise<void> {
    await this.byTheClock().catch((error: unknown) =>
      this.log.warn({ err: error as Error }, 'sites could not be looked at; tried again in a minute'),
    )
    for (const [siteId, { at, failures }] of [...this.due].sort((a, b) => a[1].at - b[1].at)) {
      if (this.ended || at > Date.now()) break
      this.due.delete(siteId)
      try {
        await tendSite(this.serving, siteId)
      } catch (error) {
        const wait = BACK_OFF_MS[Math.min(failures, BACK_OFF_MS.length - 1)] as number
        const again = this.due.get(siteId)
        this.due.set(siteId, { at: Math.max(again?.at ?? 0, Date.now() + wait), failures: failures + 1 })
        this.log.error({ err: error as Error, siteId }, `site could not be tended; tried again in ${wait / 1000} s`)
      }
    }
    if (Date.now() - this.swept > SWEEP_EVERY_MS && !this.ended) {
      await sweep(this.serving)
      this.swept = Date.now()
    }
  }

  /** Sites for which a new day has begun, or six hours have gone by, by their own clock. */
  private async byTheClock(): Promise<void> {
    const { sites, now } = await reading(this.serving, async ({ db, clock }) => ({
      sites: await getSites(db, clock),
      now: (await clock.now(db)).getTime(),
    }))
    for (const { id, today } of sites) {
      const before = this.issued.get(id)
      if (before && before.today === today && Math.abs(hoursBetween(before.at, now)) < HOURS_BETWEEN) continue
      this.issued.set(id, { today, at: now })
      this.ask(id, Date.now())
    }
  }
}

/** Checks the readings of a site and issues its forecasts. */
export async function tendSite(serving: Serving, siteId: string): Promise<void> {
  await tendStations(serving, siteId)
  await issueForecasts(serving, siteId)
}
