import { useLayoutEffect, useState, type RefObject } from 'react'

/** Width in px of an element, so that a picture's words keep their size on a narrow screen; at most `most`. */
export function useWidth(element: RefObject<HTMLElement | null>, most: number): number {
  const [width, setWidth] = useState(most)
  useLayoutEffect(() => {
    const { current } = element
    if (!current) return
    const take = (px: number): void => {
      if (px > 0) setWidth(Math.min(most, Math.round(px)))
    }
    // Before anything is painted: a picture that is drawn in another width first would move what stands below it.
    const { paddingLeft, paddingRight } = getComputedStyle(current)
    take(current.clientWidth - (parseFloat(paddingLeft) || 0) - (parseFloat(paddingRight) || 0))
    const watcher = new ResizeObserver(([entry]) => take(entry?.contentRect.width ?? 0))
    watcher.observe(current)
    return () => watcher.disconnect()
  }, [element, most])
  return width
}
