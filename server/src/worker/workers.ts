import { Worker as Thread } from 'node:worker_threads'
import type { Logger } from 'pino'

const BACK_OFF_MS = [500, 2000, 10_000, 30_000] as const
/** A thread that ran this long was well: the next time it ends it is started anew at once. */
const WELL_MS = 60_000

/**
 * The worker thread of a server: started, told to look when something was asked for, and started anew where it dies. What it had begun
 * stays claimed until its lease is over, and is then done by any.
 */
export class WorkerThread {
  private thread: Thread | undefined
  private ended = false
  private failures = 0
  private timer: NodeJS.Timeout | undefined

  constructor(
    private readonly script: URL,
    private readonly url: string,
    private readonly log: Logger,
    private readonly told: (siteId: string) => void,
  ) {}

  start(): void {
    const began = Date.now()
    const thread = new Thread(this.script, { workerData: { url: this.url } })
    this.thread = thread
    thread.on('message', ({ derived }: { derived: string }) => this.told(derived))
    thread.on('error', (error) => this.log.error({ err: error }, 'the worker failed; it is started anew'))
    thread.once('exit', () => {
      this.thread = undefined
      if (this.ended) return
      if (Date.now() - began > WELL_MS) this.failures = 0
      this.timer = setTimeout(() => this.start(), BACK_OFF_MS[Math.min(this.failures++, BACK_OFF_MS.length - 1)])
    })
  }

  /** Something was asked for. */
  look(): void {
    this.thread?.postMessage('look')
  }

  async end(): Promise<void> {
    this.ended = true
    clearTimeout(this.timer)
    const { thread } = this
    if (!thread) return
    await new Promise<void>((resolve) => {
      thread.once('exit', () => resolve())
      thread.postMessage('end')
      setTimeout(() => void thread.terminate(), 1800).unref()
    })
  }
}
