import { yearsAhead, type WeedStand, type YearsAhead, type YearsWork } from '@bocado/core'

export type { WeedStand, YearsAhead, YearsWork }

/** The same picture each time. */
const SEED = 1863
/** So many runs make a first picture, and so many the one that stays. */
export const RUNS = { first: 200, all: 1000 } as const

/** Ways of working as they are put beside each other. */
export const WAYS = ['none', 'one', 'two', 'three', 'seeders'] as const
export type YearsWay = (typeof WAYS)[number]

/** What is asked of the years. */
export interface WeedQuestion {
  stand: Omit<WeedStand, 'doneSoFar'>
  /** Passes a season in the years that were counted. */
  passesSoFar: number
  found: number
  leftLying: number
}

/** The years under one way, and with the second of them missed. */
export interface WayAhead {
  way: YearsWay
  ahead: YearsAhead
  missed: YearsAhead | null
}

const PASSES: Readonly<Record<YearsWay, number>> = { none: 0, one: 1, two: 2, three: 3, seeders: 2 }
/** The year after next. */
const MISSED_IN = 1

/** What the years would bring under every way of working, and what one missed season of it would cost. */
export function weedYears({ stand, passesSoFar, found, leftLying }: WeedQuestion, runs: number): WayAhead[] {
  const work = (way: YearsWay, missedIn?: number): YearsWork => ({
    passes: PASSES[way],
    found,
    leftLying,
    seedersOnly: way === 'seeders',
    missedIn,
  })
  const whole: WeedStand = { ...stand, doneSoFar: { passes: passesSoFar, found, leftLying, seedersOnly: false } }
  const all = yearsAhead(whole, [...WAYS.map((way) => work(way)), ...WAYS.map((way) => work(way, MISSED_IN))], runs, SEED)
  return WAYS.map((way, i) => ({
    way,
    ahead: all[i] as YearsAhead,
    missed: way === 'none' ? null : (all[WAYS.length + i] as YearsAhead),
  }))
}
