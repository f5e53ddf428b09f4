import { createContext, useContext, useMemo, useState, type ReactNode } from 'react'
import { heldRange } from './axis.js'

interface VisibleRange {
  /** Days of the season in view; null: each picture chooses for itself. */
  range: readonly [number, number] | null
  show: (range: readonly [number, number] | null, days: number) => void
}

const RangeContext = createContext<VisibleRange>({ range: null, show: () => undefined })

/** The days in view, shared by the strip and the pictures below it. It never moves "today". */
export const useVisibleRange = (): VisibleRange => useContext(RangeContext)

export function RangeProvider({ children }: { children: ReactNode }) {
  const [range, setRange] = useState<VisibleRange['range']>(null)
  const value = useMemo<VisibleRange>(
    () => ({ range, show: (next, days) => setRange(next === null ? null : heldRange(next, days)) }),
    [range],
  )
  return <RangeContext value={value}>{children}</RangeContext>
}
