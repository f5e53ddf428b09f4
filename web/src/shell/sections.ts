import { useEffect } from 'react'

const HEADS = '#screen h1, #screen h2, #screen h3, #screen [data-part]'

/**
 * F6 goes to the head of the next part of the screen, Shift+F6 to the one before: from there the Tab key has few presses to anything. Behind
 * the last part the key is the browser's own, as before the first.
 */
export function useSections(): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.key !== 'F6' || event.ctrlKey || event.altKey || event.metaKey) return
      const heads = [...document.querySelectorAll<HTMLElement>(HEADS)].filter((head) => head.getClientRects().length > 0)
      const here = document.activeElement
      const isBehind = (head: HTMLElement): boolean =>
        here !== null &&
        here !== document.body &&
        head !== here &&
        (here.compareDocumentPosition(head) & Node.DOCUMENT_POSITION_FOLLOWING) !== 0
      const isBefore = (head: HTMLElement): boolean =>
        here !== null && head !== here && (here.compareDocumentPosition(head) & Node.DOCUMENT_POSITION_PRECEDING) !== 0
      const next = event.shiftKey ? heads.findLast(isBefore) : heads.find(isBehind)
      if (!next) return
      event.preventDefault()
      if (!next.hasAttribute('tabindex')) next.tabIndex = -1
      next.focus()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
}
