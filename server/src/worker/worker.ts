import { ALL_SITES } from '@bocado/contract'
import { MS_PER_HOUR, MS_PER_MINUTE } from '@bocado/core'
import { randomUUID } from 'node:crypto'
import { setTimeout as sleep } from 'node:timers/promises'
import type { Logger } from 'pino'
import { askFor } from '../database/index.js'
import { reading, writing, type Serving } from '../http/serving.js'
import { deriveSite } from './deriveSite.js'
import { claim, fail, finish, nextDueMs, renew, RENEW_EVERY_MS, type Work } from './queue.js'
import { sweep } from './retention.js'
import { listSites } from '../sites/store.js'
import { sendDue } from './sendMail.js'
import { tellSite } from './tellSite.js'
import { sitesToDerive } from './turnOfDay.js'

/** Others may ask for work, and time brings it: at the latest after this it is looked for. */
const LOOK_EVERY_MS = 1000
/** How often it is looked whether a day has turned somewhere. */
const CLOCK_EVERY_MS = 20_000
const SWEEP_EVERY_MS = MS_PER_HOUR
/** What is worth telling is worked out so long after something was derived: several writes are told of together. */
const TELL_AFTER_MS = 5000
/** Time alone brings news, too: a station falls silent, a block is open again. */
const TELL_EVERY_MS = 10 * MS_PER_MINUTE
const SEND_EVERY_MS = 15_000
/** A database that cannot be reached is asked again after this. */
const BACK_OFF_MS = [1000, 2000, 5000, 15_000] as const

/**
 * Does what follows from writes although nobody looks: readings are checked, forecasts made and issued, what is old is thinned. Any
 * number of workers may run beside each other, in any number of processes: each piece of work is claimed by one.
 */
export class Worker {
  private readonly name = `${process.pid}-${randomUUID().slice(0, 8)}`
  private ended = false
  private wake: (() => void) | undefined
  private running: Promise<void> | undefined
  private clockAt = 0
  private sweptAt = 0
  private sentAt = 0
  private sending: Promise<void> | undefined
  private toldAllAt = 0
  /** Sites of which it is worked out what to tell, with the time from which on. */
  private readonly tellFrom = new Map<string, number>()

  constructor(
    private readonly serving: Serving,
    private readonly log: Logger,
    /** Hears of each site whose derived values were stored. */
    private readonly told: (siteId: string) => void = () => undefined,
  ) {}

  start(): void {
    this.running ??= this.run()
  }

  /** Something was asked for: look now. */
  look(): void {
    this.wake?.()
  }

  /** Begins nothing any more, and waits a little for what is under way. */
  async end(): Promise<void> {
    this.ended = true
    this.wake?.()
    await Promise.race([this.running, sleep(1500)])
  }

  private async run(): Promise<void> {
    let failures = 0
    while (!this.ended) {
      try {
        await this.byTheClock()
        const worked = (await this.workOnce()) || (await this.tellOnce())
        if (!worked) await this.pause((await reading(this.serving, ({ db }) => nextDueMs(db))) ?? LOOK_EVERY_MS)
        failures = 0
      } catch (error) {
        if (this.ended) return
        this.log.warn({ err: error as Error }, 'work could not be looked for; tried again soon')
        await this.pause(BACK_OFF_MS[Math.min(failures++, BACK_OFF_MS.length - 1)] as number, true)
      }
    }
  }

  private async pause(ms: number, whole = false): Promise<void> {
    const wait = Math.max(10, whole ? ms : Math.min(ms, LOOK_EVERY_MS))
    await new Promise<void>((resolve) => {
      const timer = setTimeout(resolve, wait)
      this.wake = () => {
        clearTimeout(timer)
        resolve()
      }
    })
    this.wake = undefined
  }

  /** Claims one piece of work and does it. @returns whether there was any */
  async workOnce(): Promise<boolean> {
    const work = await writing(this.serving, ({ db }) => claim(db, this.name))
    if (!work) return false
    const began = performance.now()
    const renewing = setInterval(
      () => void writing(this.serving, ({ db }) => renew(db, work, this.name)).catch(() => undefined),
      RENEW_EVERY_MS,
    )
    try {
      await this.doIt(work)
      await writing(this.serving, ({ db }) => finish(db, work, performance.now() - began))
    } catch (error) {
      this.log.error({ err: error as Error, kind: work.kind, subject: work.subject }, 'work failed; it is tried again')
      await writing(this.serving, ({ db }) => fail(db, work, error instanceof Error ? error.message : String(error)))
    } finally {
      clearInterval(renewing)
    }
    return true
  }

  private async doIt(work: Work): Promise<void> {
    if (work.kind === 'retain') return sweep(this.serving)
    await deriveSite(this.serving, work.subject)
    this.told(work.subject)
    if (!this.tellFrom.has(work.subject)) this.tellFrom.set(work.subject, Date.now() + TELL_AFTER_MS)
  }

  /** Works out what there is to tell of one site, and sends what is due. @returns whether there was anything to do */
  private async tellOnce(): Promise<boolean> {
    const now = Date.now()
    if (now - this.toldAllAt >= TELL_EVERY_MS) {
      // Not at once where it has just begun: then there is other work.
      const isFirst = this.toldAllAt === 0
      this.toldAllAt = now
      if (!isFirst) for (const { id } of await reading(this.serving, ({ db }) => listSites(db))) this.tellFrom.set(id, now)
    }
    const due = [...this.tellFrom].find(([, from]) => from <= now)
    if (due) {
      const [siteId] = due
      this.tellFrom.delete(siteId)
      try {
        if ((await tellSite(this.serving, siteId)) > 0) {
          this.sentAt = 0
          this.told(siteId)
        }
      } catch (error) {
        this.log.error({ err: error as Error, subject: siteId }, 'what is to be told could not be worked out; it is tried again later')
      }
    }
    if (now - this.sentAt >= SEND_EVERY_MS) {
      this.sentAt = now
      this.send()
    }
    return due !== undefined
  }

  /** Sends mail beside the work: a server of mail that does not answer keeps no forecast waiting. */
  private send(): void {
    this.sending ??= sendDue(this.serving)
      .then(() => undefined)
      .catch((error: unknown) => this.log.warn({ err: error as Error }, 'mail could not be sent; it is tried again soon'))
      .finally(() => (this.sending = undefined))
  }

  /** Asks for what time brings: sites for which a new day has begun or hours have gone by, and what is older than it has to be kept. */
  private async byTheClock(): Promise<void> {
    if (Date.now() - this.clockAt < CLOCK_EVERY_MS) return
    this.clockAt = Date.now()
    const due = await reading(this.serving, sitesToDerive)
    if (due.length > 0)
      await writing(this.serving, async ({ db }) => {
        for (const { siteId, dayTurned } of due) {
          if (dayTurned) db.touch(siteId, 'day').touch(ALL_SITES, 'day')
          else await askFor(db, 'derive', siteId, 0)
        }
      })
    await this.askForSweep()
  }

  private async askForSweep(): Promise<void> {
    if (Date.now() - this.sweptAt < SWEEP_EVERY_MS) return
    this.sweptAt = Date.now()
    await writing(this.serving, ({ db }) => askFor(db, 'retain', '', 0))
  }
}
