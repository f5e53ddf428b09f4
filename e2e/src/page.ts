import axe from 'axe-core'
import type { FileChooser, Locator, Page, Request } from 'playwright-core'
import { expect } from 'vitest'

/** Chooses an option of a select by its label. What moves on the page while the list opens closes it, so it is opened again. */
export async function choose(page: Page, label: string, option: string): Promise<void> {
  const wanted = page.getByRole('option', { name: option, exact: true })
  for (let tries = 0; ; tries++) {
    await page.getByRole('button', { name: new RegExp(`${label}$`) }).click()
    await wanted.waitFor()
    try {
      return await wanted.click({ timeout: 15_000 })
    } catch (error) {
      if (tries === 2 || (await wanted.count()) > 0) throw error
    }
  }
}

/** Types a day into the date field of a label, day first, as its segments stand. */
export async function enterDate(page: Page, label: string, date: string): Promise<void> {
  const [year, month, day] = date.split('-')
  await page.getByRole('group', { name: label, exact: true }).getByRole('spinbutton').first().click()
  await page.keyboard.type(`${day}${month}${year}`)
}

/** Types a number and leaves the field, which is when it is taken. */
export async function enterNumber(page: Page, label: string, value: number | string): Promise<void> {
  const field = page.getByRole('textbox', { name: label, exact: true })
  await field.fill(String(value))
  await field.blur()
}

export async function press(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name, exact: true }).click()
}

/** Presses a button that asks for a file. What moves on the page meanwhile may take the press away, so it is pressed again. */
export async function fileChooser(page: Page, name: string): Promise<FileChooser> {
  for (let tries = 0; ; tries++) {
    try {
      const [chooser] = await Promise.all([page.waitForEvent('filechooser', { timeout: 12_000 }), press(page, name)])
      return chooser
    } catch (error) {
      if (tries === 2) throw error
    }
  }
}

/** Shows a part of the screen by its name in a row of choices. */
export async function show(page: Page, part: string): Promise<void> {
  await page.getByRole('radio', { name: part, exact: true }).click()
}

/** Takes a way to act of the chosen watch, wherever it stands in the list. */
export async function takeWay(page: Page, name: string): Promise<void> {
  const way = page.getByTestId('still-reaching').locator('label', { hasText: name })
  await page.getByTestId('still-reaching').waitFor()
  if ((await way.count()) === 0) await page.getByRole('button', { name: /more ways?$/ }).click()
  await way.first().click()
}

/** What a page has asked for and not yet heard, and when that last changed. */
const asking = new WeakMap<Page, { open: Set<Request>; since: number }>()
/** A page that has asked for nothing for so long has what it shows. */
const QUIET_MS = 200

/** Follows what a page asks for, so that `quiet` can tell when it has its numbers. */
export function follow(page: Page): void {
  const state = { open: new Set<Request>(), since: Date.now() }
  asking.set(page, state)
  const ended = (request: Request): void => {
    if (state.open.delete(request)) state.since = Date.now()
  }
  page.on('request', (request) => {
    // The stream of changes never ends.
    if (request.resourceType() === 'eventsource') return
    state.open.add(request)
    state.since = Date.now()
  })
  page.on('requestfinished', ended)
  page.on('requestfailed', ended)
}

/** Waits until a followed page asks for nothing any more. */
export async function quiet(page: Page): Promise<void> {
  const state = asking.get(page)
  if (!state) return page.waitForLoadState('networkidle')
  const until = Date.now() + 40_000
  while (state.open.size > 0 || Date.now() - state.since < QUIET_MS) {
    if (Date.now() > until) throw new Error(`still waits for ${[...state.open].map((request) => request.url()).join(', ')}`)
    await page.waitForTimeout(20)
  }
}

/** Goes to a screen by the bar, and waits until its numbers are there. */
export async function goTo(page: Page, screen: string): Promise<void> {
  await page.getByRole('navigation').getByRole('link', { name: screen, exact: true }).first().click()
  await quiet(page)
}

type Found = { id: string; impact?: string | null; nodes: { html: string }[] }[]

/** Nothing serious may be found by axe on the screen as it stands. Run in the page itself, it takes a tenth of what it does from outside. */
export async function expectAccessible(page: Page, screen: string): Promise<void> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source)
  const violations = (await page.evaluate(
    "axe.run(document, { resultTypes: ['violations'] }).then((r) => r.violations.map(({ id, impact, nodes }) => ({ id, impact, nodes: nodes.map(({ html }) => ({ html })) })))",
  )) as Found
  const serious = violations.filter(({ impact }) => impact === 'serious' || impact === 'critical')
  expect(serious.map(({ id, nodes }) => `${screen}: ${id}: ${nodes.map(({ html }) => html.slice(0, 120)).join(' | ')}`)).toEqual([])
}

/** Goes with Tab to an element, as somebody without a mouse does. */
export async function tabTo(page: Page, target: Locator, most = 120): Promise<void> {
  for (let pressed = 0; pressed < most; pressed++) {
    if (await target.evaluate((element) => element.contains(document.activeElement))) return
    await page.keyboard.press('Tab')
  }
  throw new Error(`Tab does not reach ${target.toString()}`)
}

/** Name of what the keyboard is at; empty where it is nowhere. */
export async function focused(page: Page): Promise<string> {
  return page.evaluate(() => {
    const at = document.activeElement
    if (!at || at === document.body) return ''
    return at.getAttribute('aria-label') ?? (at.textContent?.trim() || at.id || at.tagName)
  })
}
