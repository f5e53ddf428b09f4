import { createContext, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from 'react'
import { heldRange } from './axis.js'

type Range = readonly [number, number]

interface RangeControls {
  show: (range: Range | null, days: number) => void
  /** The days in view at this moment, for what need not be drawn again when they change. */
  now: () => Range | null
}

interface VisibleRange extends RangeControls {
  /** Days of the season in view; null: each picture chooses for itself. */
  range: Range | null
}

const none: RangeControls = { show: () => undefined, now: () => null }
const ControlsContext = createContext<RangeControls>(none)
const RangeContext = createContext<Range | null>(null)

/** The days in view, shared by the strip and the pictures below it. It never moves "today". */
export function useVisibleRange(): VisibleRange {
  const controls = useContext(ControlsContext)
  const range = useContext(RangeContext)
  return useMemo(() => ({ ...controls, range }), [controls, range])
}

/** To change the days in view without following them. */
export const useRangeControls = (): RangeControls => useContext(ControlsContext)

export function RangeProvider({ children }: { children: ReactNode }) {
  const [range, setRange] = useState<Range | null>(null)
  const latest = useRef<Range | null>(null)
  useEffect(() => {
    latest.current = range
  })
  const controls = useMemo<RangeControls>(
    () => ({
      show: (next, days) => setRange(next === null ? null : heldRange(next, days)),
      now: () => latest.current,
    }),
    [],
  )
  return (
    <ControlsContext value={controls}>
      <RangeContext value={range}>{children}</RangeContext>
    </ControlsContext>
  )
}
