import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { ChangeStream } from './changes.js'

/** A stream of the server, as the browser shows it. */
class FakeSource {
  static readonly OPEN = 1
  static readonly CLOSED = 2
  static all: FakeSource[] = []
  readyState = 0
  onopen?: () => void
  onerror?: () => void
  private heard?: (event: { data: string }) => void
  constructor(readonly url: string) {
    FakeSource.all.push(this)
  }
  addEventListener(_: string, heard: (event: { data: string }) => void): void {
    this.heard = heard
  }
  close(): void {
    this.readyState = FakeSource.CLOSED
  }
  open(): void {
    this.readyState = FakeSource.OPEN
    this.onopen?.()
  }
  fail(readyState: number): void {
    this.readyState = readyState
    this.onerror?.()
  }
  say(siteId: string, versions: object): void {
    this.heard?.({ data: JSON.stringify({ siteId, versions }) })
  }
}

/** Locks of one browser: whoever asks second waits until the first is done. */
function locks() {
  let last = Promise.resolve()
  return {
    request: (_: string, { signal }: { signal: AbortSignal }, work: () => Promise<void>) => {
      const turn = last.then(() => (signal.aborted ? undefined : work()))
      last = turn.then(
        () => undefined,
        () => undefined,
      )
      return turn
    },
  }
}

const [ORCHARD, MEADOW] = ['site-orchard', 'site-meadow']
let streams: ChangeStream[] = []
function page(siteId: string) {
  const told: [string, object][] = []
  const listening: boolean[] = []
  const stream = new ChangeStream(siteId, { versions: (of, versions) => told.push([of, versions]), listening: (is) => listening.push(is) })
  streams.push(stream)
  return { told, listening, stop: stream.stop }
}
/** What pages say to each other arrives a moment later. */
const settled = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 30))
const live = (): FakeSource[] => FakeSource.all.filter(({ readyState }) => readyState !== FakeSource.CLOSED)

beforeEach(() => {
  vi.stubGlobal('EventSource', FakeSource)
  vi.stubGlobal('navigator', { locks: locks() })
})
afterEach(() => {
  for (const stream of streams) stream.stop()
  streams = []
  FakeSource.all = []
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('the pages of one browser', () => {
  test('hold one stream, and all hear what it says', async () => {
    const [first, second] = [page(ORCHARD), page(ORCHARD)]
    await settled()
    expect(live()).toHaveLength(1)
    live()[0]!.open()
    live()[0]!.say(ORCHARD, { weather: 4 })
    await settled()
    expect([first.told, second.told]).toEqual([[[ORCHARD, { weather: 4 }]], [[ORCHARD, { weather: 4 }]]])
    expect([first.listening.at(-1), second.listening.at(-1)]).toEqual([true, true])
  })

  test('listen to the site of each of them', async () => {
    page(ORCHARD)
    await settled()
    live()[0]!.open()
    page(MEADOW)
    await settled()
    expect(live().map(({ url }) => url)).toEqual([`/api/v1/changes?sites=${[MEADOW, ORCHARD].join()}`])
  })

  test('of which the one that listens closes go on with another', async () => {
    const [first, second] = [page(ORCHARD), page(ORCHARD)]
    await settled()
    live()[0]!.open()
    first.stop()
    await settled()
    expect(live()).toHaveLength(1)
    live()[0]!.open()
    live()[0]!.say(ORCHARD, { counts: 2 })
    await settled()
    expect(second.told).toEqual([[ORCHARD, { counts: 2 }]])
    expect(first.told).toEqual([])
  })

  test('that have no locks listen each for itself', async () => {
    vi.stubGlobal('navigator', {})
    page(ORCHARD)
    page(ORCHARD)
    await settled()
    expect(live()).toHaveLength(2)
  })
})

describe('a stream that breaks', () => {
  test('is said to all, so that they ask by themselves, and is taken up by the browser where it was only cut', async () => {
    const [first, second] = [page(ORCHARD), page(ORCHARD)]
    await settled()
    live()[0]!.open()
    live()[0]!.fail(0)
    await settled()
    expect([first.listening.at(-1), second.listening.at(-1)]).toEqual([false, false])
    expect(FakeSource.all).toHaveLength(1)
  })

  test('is opened anew after a while where the server had no room', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    page(ORCHARD)
    await vi.advanceTimersByTimeAsync(50)
    live()[0]!.fail(FakeSource.CLOSED)
    await vi.advanceTimersByTimeAsync(14_000)
    expect(FakeSource.all).toHaveLength(1)
    await vi.advanceTimersByTimeAsync(2000)
    expect(FakeSource.all).toHaveLength(2)
  })

  test('of a page that was closed is not opened any more', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    const closed = page(ORCHARD)
    await vi.advanceTimersByTimeAsync(50)
    live()[0]!.fail(FakeSource.CLOSED)
    closed.stop()
    await vi.advanceTimersByTimeAsync(20_000)
    expect(FakeSource.all).toHaveLength(1)
  })
})
