import { openBrowser, signIn } from '@bocado/e2e/browser'
import { startApplication } from '@bocado/server/testing/application'
import type { CDPSession, Page } from 'playwright-core'
import { NOW, startBench, watchForty } from './farm.js'

/*
 * How smoothly the season band moves with forty rows: a trace of the browser while the picture is panned, zoomed and a pin is dragged.
 * Counted is what a frame asks of the main thread in script, style and layout; painting is another's work.
 */

interface TraceEvent {
  name: string
  ph: string
  ts: number
  dur?: number
  tid: number
  args: { data?: { type?: string }; name?: string }
}

const SCRIPT_AND_LAYOUT = new Set([
  'FunctionCall',
  'EvaluateScript',
  'Layout',
  'UpdateLayoutTree',
  'RunMicrotasks',
  'EventDispatch',
  'FireAnimationFrame',
  'TimerFire',
])

async function traced(cdp: CDPSession, work: () => Promise<void>): Promise<TraceEvent[]> {
  const events: TraceEvent[] = []
  const collect = ({ value }: { value: unknown[] }): void => void events.push(...(value as TraceEvent[]))
  cdp.on('Tracing.dataCollected', collect)
  await cdp.send('Tracing.start', {
    categories: 'devtools.timeline,disabled-by-default-devtools.timeline,toplevel',
    transferMode: 'ReportEvents',
  })
  await work()
  const complete = new Promise((resolve) => cdp.once('Tracing.tracingComplete', resolve))
  await cdp.send('Tracing.end')
  await complete
  cdp.off('Tracing.dataCollected', collect)
  return events
}

/** ms of script, style and layout in each frame, which ends as it is handed to the compositor, and of the longest task, on the thread that runs the page. */
function measured(events: readonly TraceEvent[]): { frames: number[]; longest: number } {
  const byThread = new Map<number, number>()
  for (const { name, tid, dur } of events) if (name === 'FunctionCall') byThread.set(tid, (byThread.get(tid) ?? 0) + (dur ?? 0))
  const main = [...byThread].sort((a, b) => b[1] - a[1])[0]?.[0]
  const own = events
    .filter(({ tid, ph }) => tid === main && (ph === 'X' || ph === 'I' || ph === 'R' || ph === 'i'))
    .sort((a, b) => a.ts - b.ts)
  const frames: number[] = []
  let inFrame = 0
  let busyUntil = 0
  for (const { name, ts, dur = 0 } of own) {
    if (name === 'Commit') {
      if (inFrame > 0) frames.push(inFrame / 1000)
      inFrame = 0
    } else if (SCRIPT_AND_LAYOUT.has(name) && ts + dur > busyUntil) {
      // What runs within another is counted once.
      inFrame += ts + dur - Math.max(ts, busyUntil)
      busyUntil = ts + dur
    }
  }
  if (inFrame > 0) frames.push(inFrame / 1000)
  const tasks = own.filter(({ name }) => name === 'RunTask' || name === 'ThreadControllerImpl::RunTask').map(({ dur = 0 }) => dur / 1000)
  return { frames, longest: Math.max(0, ...tasks) }
}

const p95 = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[Math.floor(values.length * 0.95)] ?? 0

async function line(page: Page, cdp: CDPSession, what: string, work: () => Promise<void>): Promise<string> {
  // Once unseen, so that the page's code is warm as it is for somebody who has just arrived by a click or two.
  await work()
  const { frames, longest } = measured(await traced(cdp, work))
  await page.waitForTimeout(200)
  return `${what}, 40 rows: p95 ${p95(frames).toFixed(1)} ms of script and layout a frame (at most 8) over ${frames.length} frames; longest task ${longest.toFixed(0)} ms (at most 50)`
}

export async function report(server: string): Promise<string[]> {
  const app = await startApplication({ now: NOW, server })
  const browser = await openBrowser()
  try {
    const place = await startBench(app, 'Hollin Bench')
    await watchForty(app, place)
    await signIn(browser.context, app, place.person)
    const page = await browser.context.newPage()
    await page.goto(`${app.address}/sites/${place.site.id}/windows?group=block`)
    await page.getByTestId('band').waitFor()
    await page.waitForLoadState('networkidle')
    // The topmost row is the one that is worked on.
    await page.getByTestId('band').locator('button[aria-pressed]').first().click()
    await page.waitForLoadState('networkidle')
    const cdp = await browser.context.newCDPSession(page)
    const box = (await page.getByTestId('band').locator('> svg').boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 }
    const pan = async (): Promise<void> => {
      await page.mouse.move(box.x + 700, box.y + 60)
      await page.mouse.down()
      for (let i = 1; i <= 60; i++) await page.mouse.move(box.x + 700 - 4 * Math.abs(((i + 15) % 60) - 30) + 60, box.y + 60)
      await page.mouse.up()
    }
    const pin = page.getByRole('slider', { name: /being planned/ })
    const drag = async (): Promise<void> => {
      const at = (await pin.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 }
      await page.mouse.move(at.x + 13, at.y + 12)
      await page.mouse.down()
      for (let i = 1; i <= 60; i++) await page.mouse.move(at.x + 13 + 3 * (30 - Math.abs(30 - i)), at.y + 12)
      await page.mouse.up()
    }
    await page.keyboard.press('+')
    return [await line(page, cdp, 'panning the band', pan), await line(page, cdp, 'dragging a pin', drag)]
  } finally {
    await browser.close()
    await app.stop()
  }
}
