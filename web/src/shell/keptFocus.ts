/** Where the keyboard was: the element, and where each of its branches hung, from the nearest to the furthest. */
interface Spot {
  element: Element
  /** When the keyboard came there, as the page counts time. */
  at: number
  trail: readonly { parent: Element; index: number }[]
}

/** A button that is shut while something is stored opens again; one that stays shut for so long is gone. */
const SHUT_MS = 8000
const LOOK_EVERY_MS = 100
const MOST_BEFORE = 40

/** What the Tab key stops at and nothing can be typed into: a single key is still a shortcut there, and no keyboard of a phone opens. */
const STOPS =
  'a[href], button, input[type=checkbox], input[type=radio], [tabindex]:not(input, textarea, [role=spinbutton], [contenteditable])'

function spotOf(element: Element): Spot {
  const trail: { parent: Element; index: number }[] = []
  for (let child = element; child.parentElement; child = child.parentElement)
    trail.push({ parent: child.parentElement, index: [...child.parentElement.children].indexOf(child) })
  return { element, at: performance.now(), trail }
}

const isShut = (element: Element): boolean => 'disabled' in element && element.disabled === true

function stopsIn(branches: readonly Element[]): HTMLElement[] {
  const all = branches.flatMap((branch) => [
    ...(branch.matches(STOPS) ? [branch as HTMLElement] : []),
    ...branch.querySelectorAll<HTMLElement>(STOPS),
  ])
  return all.filter((one) => one.tabIndex >= 0 && !isShut(one) && one.checkVisibility())
}

/** By what a person would know it again. */
const labelOf = (element: Element): string => element.getAttribute('aria-label') ?? element.textContent.trim()

/** What stands at the place of `spot` now: what took its place or follows there, else what stands before it, else the screen itself. */
function nearest(spot: Spot, screen: HTMLElement): HTMLElement {
  for (const { parent, index } of spot.trail) {
    if (!parent.isConnected) continue
    // Where the whole screen is another one, it is read from its top.
    if (parent === screen || !screen.contains(parent)) break
    const branches = [...parent.children]
    const found = stopsIn(branches.slice(index))[0] ?? stopsIn(branches.slice(0, index)).at(-1)
    if (found) return found
  }
  return screen
}

/** The stop that is, or is again, what `opener` was; searched around `spot`. */
function again(opener: Element, spot: Spot, screen: HTMLElement): HTMLElement | undefined {
  if (opener.isConnected) return isShut(opener) ? undefined : (opener as HTMLElement)
  const label = labelOf(opener)
  for (const { parent } of spot.trail) {
    if (!parent.isConnected) continue
    if (!screen.contains(parent)) return undefined
    const found = stopsIn([parent]).find((one) => one.tagName === opener.tagName && labelOf(one) === label)
    if (found) return found
  }
  return undefined
}

/**
 * Keeps the keyboard where the work is. What is pressed often goes by being pressed, such as a form that is saved or a row that is removed,
 * and the browser would begin again at the top of the page; here the focus goes back to what opened it, or to what stands at that place now.
 * What was left on purpose, by a click on nothing, is left.
 *
 * @returns ends it
 */
export function keepFocus(): () => void {
  let last: Spot | null = null
  let lastOnScreen: Spot | null = null
  /** Where on the screen it was before, newest last; as many as a form has fields. */
  let before: Spot[] = []
  const addedAt = new WeakMap<Node, number>()
  let asked = 0
  let shutSince: number | null = null

  const screenOf = (): HTMLElement | null => document.getElementById('screen') ?? document.querySelector('main')
  const isNowhere = (): boolean => document.activeElement === null || document.activeElement === document.body

  /** What opened that which went, where it came only after that; else what stands there now. */
  const back = (spot: Spot, screen: HTMLElement): HTMLElement => {
    const gone = [spot.element, ...spot.trail.map(({ parent }) => parent)].filter(({ isConnected }) => !isConnected)
    const whole = gone.at(-1)
    const opener = whole && before.findLast(({ element }) => !whole.contains(element))
    const cameAt = Math.max(0, ...spot.trail.map(({ parent }) => addedAt.get(parent) ?? 0), addedAt.get(spot.element) ?? 0)
    return (opener && opener.at < cameAt && again(opener.element, spot, screen)) || nearest(spot, screen)
  }

  const look = (): void => {
    asked = 0
    const screen = screenOf()
    if (!last || !screen || !isNowhere()) return
    const { element } = last
    if (element.isConnected) {
      if (!isShut(element)) {
        // It was shut and is open again, or it was left on purpose, which `onOut` has seen.
        if (shutSince !== null) (element as HTMLElement).focus({ preventScroll: true })
        shutSince = null
        return
      }
      shutSince ??= Date.now()
      if (Date.now() - shutSince < SHUT_MS) {
        setTimeout(ask, LOOK_EVERY_MS)
        return
      }
    }
    shutSince = null
    const onScreen = lastOnScreen
    const stayed = onScreen?.element.isConnected && !isShut(onScreen.element) ? (onScreen.element as HTMLElement) : null
    // What stood over the screen, such as an offer to undo, gives back what had the keyboard before.
    const target = last === onScreen ? back(last, screen) : (stayed ?? (onScreen ? nearest(onScreen, screen) : screen))
    if (target === screen) {
      // The whole of it is not what is pressed next, so no ring is drawn around it.
      screen.style.outline = 'none'
      if (!screen.hasAttribute('tabindex')) screen.tabIndex = -1
    }
    target.focus({ preventScroll: true })
  }
  // A dialog and a form that opens place the focus themselves within a frame or two.
  const ask = (): void => {
    if (asked === 0 && last && isNowhere()) asked = requestAnimationFrame(() => (asked = requestAnimationFrame(look)))
  }

  const onIn = (event: FocusEvent): void => {
    const { target } = event
    if (!(target instanceof Element) || target === document.body) return
    shutSince = null
    last = spotOf(target)
    if (!screenOf()?.contains(target)) return
    lastOnScreen = last
    before = [...before.slice(-MOST_BEFORE), last]
  }
  const onOut = (event: FocusEvent): void => {
    const left = event.target as Element
    setTimeout(() => {
      if (last?.element === left && isNowhere() && left.isConnected && !isShut(left)) last = null
    })
  }
  const observer = new MutationObserver((changes) => {
    const now = performance.now()
    for (const { addedNodes } of changes) for (const node of addedNodes) addedAt.set(node, now)
    ask()
  })
  observer.observe(document.body, { childList: true, subtree: true, attributes: true, attributeFilter: ['disabled'] })
  document.addEventListener('focusin', onIn)
  document.addEventListener('focusout', onOut)
  return () => {
    observer.disconnect()
    cancelAnimationFrame(asked)
    document.removeEventListener('focusin', onIn)
    document.removeEventListener('focusout', onOut)
  }
}
