import { useEffect, useRef, type PointerEvent, type RefObject } from 'react'
import { dayAt, positionOf, type DayPositions, type DayScale } from './axis.js'

/** Pan by drag, zoom by wheel with Ctrl; the wheel alone scrolls the page. */
export function useBandZoom(
  ref: RefObject<HTMLDivElement | null>,
  scale: DayScale,
  positions: DayPositions,
  days: number,
  show: (range: readonly [number, number]) => void,
) {
  const grip = useRef<{ id: number; x: number; from: number; to: number; moved: boolean } | null>(null)
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
  return {
    by,
    start: (event: PointerEvent<SVGSVGElement>): void => {
      if (event.button !== 0) return
      grip.current = { id: event.pointerId, x: event.clientX, from: scale.from, to: scale.to, moved: false }
    },
    /** Whether the pointer is moving the picture. */
    panTo: (event: PointerEvent<SVGSVGElement>): boolean => {
      const held = grip.current
      if (held?.id !== event.pointerId) return false
      const dx = event.clientX - held.x
      if (!held.moved && Math.abs(dx) < 4) return false
      if (!held.moved) event.currentTarget.setPointerCapture(event.pointerId)
      held.moved = true
      const by = dx / scale.span
      const [a, z] = [positionOf(positions, held.from) - by, positionOf(positions, held.to) - by]
      if (a >= 0 && z <= 1) show([dayAt(positions, a), dayAt(positions, z)])
      else show(a < 0 ? [0, held.to - held.from] : [days - (held.to - held.from), days])
      return true
    },
    end: (): void => {
      grip.current = null
    },
  }
}
