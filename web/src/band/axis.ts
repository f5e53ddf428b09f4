import { useEffect, useMemo, useRef, useState } from 'react'

/** Where the days of a season lie between 0 and 1; entry i is the begin of day i, the last one the season's end. */
export type DayPositions = readonly number[]

export const evenInDays = (days: number): number[] => Array.from({ length: days + 1 }, (_, i) => i / days)

/** Share of an axis even in heat that is spread evenly over the days, so that it always goes forward. */
const FLOOR = 0.1

/** Positions even in a watch's own heat; undefined without heat. */
export function evenInHeat(cumulative: readonly number[], days: number): number[] | undefined {
  const total = cumulative.at(-1) ?? 0
  if (total <= 0) return undefined
  return Array.from({ length: days + 1 }, (_, i) => (FLOOR * i) / days + (1 - FLOOR) * (i === 0 ? 0 : (cumulative[i - 1] ?? total) / total))
}

/** Where a day, fractions allowed, lies between 0 and 1. */
export function positionOf(positions: DayPositions, day: number): number {
  const last = positions.length - 1
  const held = Math.min(Math.max(day, 0), last)
  const below = Math.floor(held)
  const low = positions[below] ?? 0
  const high = positions[Math.min(below + 1, last)] ?? 1
  return low + (high - low) * (held - below)
}

/** The day at a position: the inverse of `positionOf`. */
export function dayAt(positions: DayPositions, position: number): number {
  const last = positions.length - 1
  let low = 0
  let high = last
  while (low < high) {
    const middle = (low + high) >> 1
    if ((positions[middle] as number) <= position) low = middle + 1
    else high = middle
  }
  const below = Math.max(0, low - 1)
  const from = positions[below] ?? 0
  const to = positions[Math.min(below + 1, last)] ?? 1
  return Math.min(last, below + (to > from ? Math.min(1, Math.max(0, (position - from) / (to - from))) : 0))
}

/** A scale from days of the season (fractions allowed) to pixels, over the visible range of days. */
export interface DayScale {
  x: (day: number) => number
  day: (x: number) => number
  from: number
  to: number
  /** Pixels of position 0, and pixels between position 0 and 1: what is drawn over positions is moved by these two numbers. */
  origin: number
  span: number
}

export function dayScale(positions: DayPositions, range: readonly [number, number], pixels: readonly [number, number]): DayScale {
  const [from, to] = range
  const [left, right] = pixels
  const [a, z] = [positionOf(positions, from), positionOf(positions, to)]
  const span = (right - left) / (z - a)
  const origin = left - a * span
  return {
    from,
    to,
    origin,
    span,
    x: (day) => origin + positionOf(positions, day) * span,
    day: (x) => dayAt(positions, (x - origin) / span),
  }
}

/** A week fills the picture at the most. */
export const LEAST_DAYS = 7

/** A range of days held within the season, not narrower than a week. */
export function heldRange([from, to]: readonly [number, number], days: number): [number, number] {
  const wide = Math.min(days, Math.max(LEAST_DAYS, to - from))
  const start = Math.min(days - wide, Math.max(0, from + (to - from - wide) / 2))
  return [start, start + wide]
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

/** A scale that stays the same object as long as nothing of it changes, so that rows need not be drawn again. */
export function useDayScale(positions: DayPositions, from: number, to: number, left: number, right: number): DayScale {
  return useMemo(() => dayScale(positions, [from, to], [left, right]), [positions, from, to, left, right])
}
