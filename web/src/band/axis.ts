import { useEffect, useRef, useState } from 'react'

/** Where the days of a season lie between 0 and 1; entry i is the begin of day i, the last one the season's end. */
export type DayPositions = readonly number[]

export const evenInDays = (days: number): number[] => Array.from({ length: days + 1 }, (_, i) => i / days)

/** A scale from days of the season (fractions allowed) to pixels, over the visible range of days. */
export interface DayScale {
  x: (day: number) => number
  day: (x: number) => number
  from: number
  to: number
}

export function dayScale(positions: DayPositions, range: readonly [number, number], pixels: readonly [number, number]): DayScale {
  const last = positions.length - 1
  const at = (day: number): number => {
    const held = Math.min(Math.max(day, 0), last)
    const below = Math.floor(held)
    const low = positions[below] ?? 0
    const high = positions[Math.min(below + 1, last)] ?? 1
    return low + (high - low) * (held - below)
  }
  const [from, to] = range
  const [left, right] = pixels
  const [a, z] = [at(from), at(to)]
  return {
    from,
    to,
    x: (day) => left + ((at(day) - a) / (z - a)) * (right - left),
    day: (x) => {
      const wanted = a + ((x - left) / (right - left)) * (z - a)
      let low = from
      let high = to
      for (let i = 0; i < 40; i++) {
        const middle = (low + high) / 2
        if (at(middle) < wanted) low = middle
        else high = middle
      }
      return (low + high) / 2
    },
  }
}

const DURATION = 250

/** Positions that glide to a new axis in a quarter of a second, or jump where motion is not wanted. */
export function useGliding(target: DayPositions): DayPositions {
  const [shown, setShown] = useState(target)
  const from = useRef(target)
  useEffect(() => {
    const start = from.current
    const still = window.matchMedia('(prefers-reduced-motion: reduce)').matches
    if (still || start.length !== target.length || start === target) {
      from.current = target
      setShown(target)
      return undefined
    }
    const began = performance.now()
    let frame = 0
    const step = (now: number): void => {
      const share = Math.min(1, (now - began) / DURATION)
      const eased = 1 - (1 - share) ** 3
      const mixed = target.map((p, i) => (start[i] ?? p) * (1 - eased) + p * eased)
      from.current = share < 1 ? mixed : target
      setShown(from.current)
      if (share < 1) frame = requestAnimationFrame(step)
    }
    frame = requestAnimationFrame(step)
    return () => cancelAnimationFrame(frame)
  }, [target])
  return shown
}
