import type { KeyboardEvent } from 'react'

/** A long list of links or buttons is one stop of the Tab key; within it the arrows, Home and End go on. */
export function moveByArrows(event: KeyboardEvent<HTMLElement>, what: 'a' | 'button' = 'a'): void {
  const links = [...event.currentTarget.querySelectorAll<HTMLElement>(what)]
  const at = links.findIndex((link) => link === document.activeElement)
  const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: links.length - 1 }[event.key]
  if (to === undefined) return
  event.preventDefault()
  links[Math.max(0, Math.min(links.length - 1, to))]?.focus()
}
