import type { KeyboardEvent } from 'react'

const STOPS = 'a[href], button, input, select, textarea, [tabindex="0"]'
/** Where arrows are the control's own. */
const OWN_ARROWS =
  'input, textarea, select, [role=spinbutton], [role=radiogroup], [role=slider], [role=listbox], [role=combobox], [contenteditable=true]'

const isStop = (element: HTMLElement): boolean =>
  element.tabIndex >= 0 && !element.matches(':disabled, [aria-disabled=true]') && element.getClientRects().length > 0
export const stopsIn = (place: ParentNode): HTMLElement[] => [...place.querySelectorAll<HTMLElement>(STOPS)].filter(isStop)

/** Fewer rows are walked through faster than around. */
const LONG = 4

/**
 * Rows that are alike are one stop of the Tab key: it goes through one row's own controls and then on behind the list, and the arrows go to
 * the same control of the next row. Rows in which something is being typed are left as they are.
 *
 * @param rowsOf The rows of the list that heard the key.
 */
export function rowKeys(event: KeyboardEvent<HTMLElement>, rowsOf = (list: HTMLElement): Element[] => [...list.children]): void {
  const list = event.currentTarget
  const target = event.target as HTMLElement
  const rows = rowsOf(list)
  const row = rows.find((one) => one.contains(target))
  if (event.defaultPrevented || rows.length < LONG || !row) return
  const inRow = stopsIn(row)
  const at = inRow.indexOf(target)
  if (at < 0) return
  if (event.key === 'Tab') {
    if (row.querySelector('input, textarea')) return
    if (event.shiftKey ? at > 0 : at < inRow.length - 1) return
    const all = stopsIn(document)
    const inList = all.filter((one) => list.contains(one))
    const next = event.shiftKey ? all[all.indexOf(inList[0]!) - 1] : all[all.indexOf(inList.at(-1)!) + 1]
    if (!next) return
    event.preventDefault()
    next.focus()
    return
  }
  if (target.closest(OWN_ARROWS)) return
  const step = { ArrowDown: 1, ArrowUp: -1 }[event.key]
  if (step === undefined) return
  for (let i = rows.indexOf(row) + step; i >= 0 && i < rows.length; i += step) {
    const there = stopsIn(rows[i]!)
    const next = there[Math.min(at, there.length - 1)]
    if (!next) continue
    event.preventDefault()
    next.focus()
    return
  }
}
