import type { AspectVersions } from '@bocado/contract'
import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { noteVersions } from './versions.js'

/** What the pages of one browser say to each other. */
type Said =
  | { kind: 'view'; page: string; siteId: string | null }
  | { kind: 'who' }
  | { kind: 'versions'; siteId: string; versions: AspectVersions }
  | { kind: 'listening'; is: boolean }

interface Told {
  versions: (siteId: string, versions: AspectVersions) => void
  /** Whether changes are told at all; while they are not, whoever shows something has to ask. */
  listening: (is: boolean) => void
}

const NAME = 'bocado.changes'
/** A server that has no room, or an address where there is none, is asked again after this. */
const AGAIN_MS = 15_000

/**
 * Tells a page what changes at its site. A browser keeps few connections to a server, so one page of it holds the stream for all: whoever
 * has the lock listens, and tells the others. When it closes, another one takes over.
 */
export class ChangeStream {
  private readonly page = crypto.randomUUID()
  private readonly channel = new BroadcastChannel(NAME)
  private readonly views = new Map<string, string>()
  private readonly stopped = new AbortController()
  private source: EventSource | undefined
  private again: ReturnType<typeof setTimeout> | undefined
  private leads = false

  constructor(
    private readonly siteId: string,
    private readonly told: Told,
  ) {
    this.channel.onmessage = ({ data }: MessageEvent<Said>) => this.hear(data)
    this.say({ kind: 'view', page: this.page, siteId })
    void this.lead()
  }

  stop = (): void => {
    this.say({ kind: 'view', page: this.page, siteId: null })
    this.stopped.abort()
    clearTimeout(this.again)
    this.source?.close()
    this.channel.close()
  }

  private say(said: Said): void {
    if (!this.stopped.signal.aborted) this.channel.postMessage(said)
  }

  private hear(said: Said): void {
    if (said.kind === 'versions') this.told.versions(said.siteId, said.versions)
    else if (said.kind === 'listening') this.told.listening(said.is)
    else if (said.kind === 'who') this.say({ kind: 'view', page: this.page, siteId: this.siteId })
    else this.seeView(said.page, said.siteId)
  }

  private seeView(page: string, siteId: string | null): void {
    if (siteId === null) this.views.delete(page)
    else this.views.set(page, siteId)
    if (!this.leads) return
    if (siteId !== null && !this.inView.has(siteId)) this.listen()
    // Whoever came just now does not know it yet.
    else this.say({ kind: 'listening', is: this.source?.readyState === EventSource.OPEN })
  }

  private inView = new Set<string>()

  /** Waits until no other page listens, then does until this one stops. */
  private async lead(): Promise<void> {
    const { signal } = this.stopped
    const listen = (): Promise<void> => {
      if (signal.aborted) return Promise.resolve()
      this.leads = true
      this.say({ kind: 'who' })
      this.listen()
      return new Promise((resolve) => signal.addEventListener('abort', () => resolve()))
    }
    // Without a secure address a browser has no locks: then each page listens for itself.
    const locks = (navigator as Partial<Pick<Navigator, 'locks'>>).locks
    if (locks) await locks.request(NAME, { signal }, listen).catch(() => undefined)
    else await listen()
  }

  private listen(): void {
    this.source?.close()
    clearTimeout(this.again)
    this.inView = new Set([this.siteId, ...this.views.values()])
    const source = new EventSource(`/api/v1/changes?sites=${[...this.inView].sort().join()}`)
    this.source = source
    const state = (is: boolean): void => {
      this.told.listening(is)
      this.say({ kind: 'listening', is })
    }
    source.onopen = () => state(true)
    source.onerror = () => {
      state(false)
      // What was only cut the browser takes up again by itself.
      if (source.readyState === EventSource.CLOSED) this.again = setTimeout(() => this.listen(), AGAIN_MS)
    }
    source.addEventListener('versions', ({ data }: MessageEvent<string>) => {
      const { siteId, versions } = JSON.parse(data) as { siteId: string; versions: AspectVersions }
      this.told.versions(siteId, versions)
      this.say({ kind: 'versions', siteId, versions })
    })
  }
}

/**
 * Reads anew what rests on an aspect of the site that has changed, whoever changed it and wherever.
 *
 * @returns whether changes are told; while they are not, one has to ask
 */
export function useChanges(siteId: string | undefined): boolean {
  const client = useQueryClient()
  const [listening, setListening] = useState(false)
  useEffect(() => {
    if (siteId === undefined) return
    const stream = new ChangeStream(siteId, {
      versions: (of, versions) => void noteVersions(client, of, versions),
      listening: setListening,
    })
    // The page may go without React hearing of it.
    window.addEventListener('pagehide', stream.stop)
    return () => {
      window.removeEventListener('pagehide', stream.stop)
      stream.stop()
    }
  }, [siteId, client])
  return listening
}
