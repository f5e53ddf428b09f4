import type { Aspect, AspectVersions } from '@bocado/contract'
import type { Logger } from 'pino'
import { versionsOf } from '../database/index.js'
import { reading, type Serving } from '../http/serving.js'

/** How often it is looked whether anything changed that somebody has in view. */
const LOOK_EVERY_MS = 1000
/** After something happened in this process it is looked at once, and not more often than this. */
const SOONEST_MS = 40

/** Hears the versions of a site's aspects: all of them at first, then those that have risen. */
export type Listener = (siteId: string, versions: AspectVersions) => void

interface Viewer {
  siteIds: readonly string[]
  listener: Listener
  bye: () => void
}

/**
 * Tells what has changed of the sites that somebody has in view. The versions stand in the database, so it does not matter which server or
 * worker changed something. Nobody is asked while nobody looks.
 */
export class Changes {
  private readonly viewers = new Set<Viewer>()
  /** What is known of each site in view. */
  private readonly known = new Map<string, AspectVersions>()
  private timer: NodeJS.Timeout | undefined
  private looking: Promise<void> | undefined
  private lookedAt = 0
  private ended = false

  constructor(
    private readonly serving: Serving,
    private readonly log: Logger,
  ) {}

  /**
   * Tells the listener of these sites from now on.
   *
   * @param bye called when the server ends
   * @returns what ends it
   */
  view(siteIds: readonly string[], listener: Listener, bye: () => void = () => undefined): () => void {
    const viewer = { siteIds, listener, bye }
    this.viewers.add(viewer)
    for (const siteId of siteIds) {
      const known = this.known.get(siteId)
      if (known) listener(siteId, known)
    }
    this.look()
    return () => {
      this.viewers.delete(viewer)
      for (const siteId of siteIds) if (![...this.viewers].some((v) => v.siteIds.includes(siteId))) this.known.delete(siteId)
      if (this.viewers.size === 0) clearTimeout(this.timer)
    }
  }

  /** Something happened in this process: look soon. */
  look(): void {
    if (this.viewers.size === 0) return
    this.plan(Math.max(0, this.lookedAt + SOONEST_MS - Date.now()))
  }

  /** How many listen. */
  get listeners(): number {
    return this.viewers.size
  }

  /** Tells nobody any more, and lets go of those who listen: their pages go to whichever server there is next. */
  end(): void {
    this.ended = true
    clearTimeout(this.timer)
    for (const { bye } of this.viewers) bye()
  }

  private plan(ms: number): void {
    if (this.ended) return
    clearTimeout(this.timer)
    this.timer = setTimeout(() => void this.lookNow(), ms)
    this.timer.unref()
  }

  private async lookNow(): Promise<void> {
    // Whoever asks while it is looked is answered by the next look.
    await this.looking
    this.looking = this.ask().finally(() => (this.looking = undefined))
    await this.looking
    if (this.viewers.size > 0) this.plan(LOOK_EVERY_MS)
  }

  private async ask(): Promise<void> {
    this.lookedAt = Date.now()
    const siteIds = [...new Set([...this.viewers].flatMap((viewer) => viewer.siteIds))]
    if (siteIds.length === 0) return
    try {
      const found = await reading(this.serving, ({ db }) => versionsOf(db, siteIds))
      for (const [siteId, versions] of Object.entries(found)) this.compare(siteId, versions)
    } catch (error) {
      // While the database is away nothing changes; the pages hear of that by their own requests.
      this.log.debug({ err: error as Error }, 'versions could not be read')
    }
  }

  private compare(siteId: string, versions: AspectVersions): void {
    const before = this.known.get(siteId)
    this.known.set(siteId, versions)
    const risen = before
      ? Object.fromEntries(Object.entries(versions).filter(([aspect, v]) => v > (before[aspect as Aspect] ?? 0)))
      : versions
    if (before && Object.keys(risen).length === 0) return
    for (const { siteIds, listener } of this.viewers) if (siteIds.includes(siteId)) listener(siteId, risen)
  }
}
