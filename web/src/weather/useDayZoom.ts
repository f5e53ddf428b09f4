import { scaleLinear, type ScaleLinear } from 'd3-scale'
import { select } from 'd3-selection'
import { zoom, zoomIdentity, type ZoomBehavior, type ZoomTransform } from 'd3-zoom'
import { useEffect, useMemo, useRef, useState, type RefObject } from 'react'

/** A week fills the picture at the most. */
const LEAST_DAYS = 7

export interface DayZoom {
  /** From days of the season to the picture. */
  x: ScaleLinear<number, number>
  /** First and last day in view, fractions of a day included. */
  visible: [number, number]
  /** Shows the days from one to another. */
  show: (from: number, to: number) => void
  /** Moves by a share of what is in view. */
  pan: (share: number) => void
  zoomBy: (factor: number) => void
}

/** Days in view that others choose too, such as the strip above. */
export interface SharedDays {
  range: readonly [number, number] | null
  show: (range: readonly [number, number] | null, days: number) => void
}

/** Zoom and pan of a picture whose axis is days: by drag, pinch, wheel with Ctrl, and from outside. */
export function useDayZoom(svg: RefObject<SVGSVGElement | null>, days: number, left: number, right: number, shared?: SharedDays): DayZoom {
  const [transform, setTransform] = useState<ZoomTransform>(zoomIdentity)
  const behaviour = useRef<ZoomBehavior<SVGSVGElement, unknown> | null>(null)
  const whole = useMemo(() => scaleLinear([0, days], [left, right]), [days, left, right])

  const tell = useRef<(range: [number, number]) => void>(() => undefined)
  useEffect(() => {
    tell.current = (range) => shared?.show(range, days)
  })

  useEffect(() => {
    if (!svg.current) return
    const element = select(svg.current)
    behaviour.current = zoom<SVGSVGElement, unknown>()
      .scaleExtent([1, Math.max(1, days / LEAST_DAYS)])
      .extent([
        [left, 0],
        [right, 1],
      ])
      .translateExtent([
        [left, -Infinity],
        [right, Infinity],
      ])
      // The wheel alone scrolls the page.
      .filter((event: Event) =>
        event.type === 'wheel' ? (event as WheelEvent).ctrlKey : (event as MouseEvent).button === 0 || event.type.startsWith('touch'),
      )
      .on('zoom', ({ transform: now, sourceEvent }: { transform: ZoomTransform; sourceEvent: unknown }) => {
        setTransform(now)
        if (sourceEvent) tell.current(now.rescaleX(whole).domain() as [number, number])
      })
    element.call(behaviour.current).on('dblclick.zoom', null)
    return () => {
      element.on('.zoom', null)
    }
  }, [svg, days, left, right, whole])

  const apply = (k: number, from: number): void => {
    if (!svg.current || !behaviour.current) return
    const next = zoomIdentity.translate(left - k * whole(from), 0).scale(k)
    select(svg.current).call((selection) => behaviour.current?.transform(selection, next))
  }
  const x = transform.rescaleX(whole)
  const visible = x.domain() as [number, number]
  const span = visible[1] - visible[0]
  const applyDays = (from: number, to: number): void => {
    const wide = Math.min(days, Math.max(LEAST_DAYS, to - from))
    apply(days / wide, Math.min(days - wide, Math.max(0, from)))
  }
  const follow = useRef(applyDays)
  useEffect(() => {
    follow.current = applyDays
  })
  // Days that were chosen elsewhere; those chosen here come back as they are.
  const [from, to] = shared?.range ?? [null, null]
  const isShared = shared !== undefined
  useEffect(() => {
    if (from !== null && to !== null) follow.current(from, to)
    else if (isShared) follow.current(0, days)
  }, [from, to, left, right, isShared, days])
  const show = (first: number, last: number): void => {
    if (shared) shared.show([first, last], days)
    else applyDays(first, last)
  }
  return {
    x,
    visible,
    show,
    pan: (share) => show(visible[0] + share * span, visible[1] + share * span),
    zoomBy: (factor) => {
      const middle = (visible[0] + visible[1]) / 2
      const wide = span / factor
      show(middle - wide / 2, middle + wide / 2)
    },
  }
}
