import { useLayoutEffect, useState, type RefObject } from 'react'

/** Width in px of an element, so that a picture's words keep their size on a narrow screen; at most `most`. */
export function useWidth(element: RefObject<HTMLElement | null>, most: number): number {
  const [width, setWidth] = useState(most)
  useLayoutEffect(() => {
    if (!element.current) return
    const watcher = new ResizeObserver(([entry]) => {
      if (entry && entry.contentRect.width > 0) setWidth(Math.min(most, Math.round(entry.contentRect.width)))
    })
    watcher.observe(element.current)
    return () => watcher.disconnect()
  }, [element, most])
  return width
}
