import { useEffect, useRef, type PointerEvent, type RefObject } from 'react'
import { flushSync } from 'react-dom'
import { dayAt, positionOf, type DayPositions, type DayScale } from './axis.js'

/** Pan by drag, zoom by wheel with Ctrl; the wheel alone scrolls the page. `live` holds what moves while it is dragged. */
export function useBandZoom(
  ref: RefObject<HTMLDivElement | null>,
  scale: DayScale,
  positions: DayPositions,
  days: number,
  show: (range: readonly [number, number]) => void,
) {
  const grip = useRef<{ id: number; x: number; from: number; to: number; dx: number; moved: boolean } | null>(null)
  const live = useRef<SVGGElement>(null)
  const latest = useRef({ scale, show })
  useEffect(() => {
    latest.current = { scale, show }
  })
  const by = (factor: number, day: number): void => {
    const { from, to } = latest.current.scale
    const held = Math.min(Math.max(day, from), to)
    latest.current.show([held - (held - from) / factor, held + (to - held) / factor])
  }
  const zoomBy = useRef(by)
  useEffect(() => {
    zoomBy.current = by
  })
  useEffect(() => {
    const element = ref.current
    if (!element) return undefined
    const onWheel = (event: WheelEvent): void => {
      if (!event.ctrlKey) return
      event.preventDefault()
      const x = event.clientX - element.getBoundingClientRect().left
      zoomBy.current(Math.exp(-event.deltaY / 300), latest.current.scale.day(x))
    }
    element.addEventListener('wheel', onWheel, { passive: false })
    return () => element.removeEventListener('wheel', onWheel)
  }, [ref])
  const end = (): void => {
    const held = grip.current
    grip.current = null
    if (!held?.moved) return
    const by = held.dx / scale.span
    const [a, z] = [positionOf(positions, held.from) - by, positionOf(positions, held.to) - by]
    // Drawn where it was let go, in the same moment in which the moving stops.
    flushSync(() =>
      show(a <= 0 ? [0, held.to - held.from] : z >= 1 ? [days - (held.to - held.from), days] : [dayAt(positions, a), dayAt(positions, z)]),
    )
    live.current?.removeAttribute('transform')
  }
  return {
    by,
    live,
    start: (event: PointerEvent<SVGSVGElement>): void => {
      if (event.button !== 0) return
      grip.current = { id: event.pointerId, x: event.clientX, from: scale.from, to: scale.to, dx: 0, moved: false }
    },
    /** Whether the pointer is moving the picture. While it does, all of it is only shifted; it is drawn anew when it is let go. */
    panTo: (event: PointerEvent<SVGSVGElement>): boolean => {
      const held = grip.current
      if (held?.id !== event.pointerId) return false
      const dx = event.clientX - held.x
      if (!held.moved && Math.abs(dx) < 4) return false
      if (!held.moved) event.currentTarget.setPointerCapture(event.pointerId)
      held.moved = true
      const most = positionOf(positions, held.from) * scale.span
      const least = (positionOf(positions, held.to) - 1) * scale.span
      held.dx = Math.min(most, Math.max(least, dx))
      live.current?.setAttribute('transform', `translate(${held.dx} 0)`)
      return true
    },
    end,
  }
}
