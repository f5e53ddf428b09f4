import { yearsAhead, type WeedStand, type YearsAhead, type YearsWork } from '@bocado/core'

export type { WeedStand, YearsAhead, YearsWork }

/** The same picture each time. */
const SEED = 1863
/** So many runs make a first picture, and so many the one that stays. */
export const RUNS = { first: 200, all: 1000 } as const

/** Ways of working as they are put beside each other. */
export const WAYS = ['none', 'one', 'two', 'three', 'seeders'] as const
/** Beside them stands the own programme, where there is one. */
export type YearsWay = (typeof WAYS)[number] | 'own'

/** What is asked of the years. */
export interface WeedQuestion {
  stand: Omit<WeedStand, 'doneSoFar'>
  /** Passes a season in the years that were counted. */
  passesSoFar: number
  found: number
  leftLying: number
  /** Passes of each year to come under the own programme, the last goes on; null where there is none. */
  own: number[] | null
}

/** The years under one way, and with the second of them missed. */
export interface WayAhead {
  way: YearsWay
  ahead: YearsAhead
  missed: YearsAhead | null
}

const PASSES: Readonly<Record<YearsWay, number>> = { none: 0, one: 1, two: 2, three: 3, seeders: 2, own: 0 }
/** The year after next. */
const MISSED_IN = 1

/** What the years would bring under every way of working, and what one missed season of it would cost. */
export function weedYears({ stand, passesSoFar, found, leftLying, own }: WeedQuestion, runs: number): WayAhead[] {
  const work = (way: YearsWay, missedIn?: number): YearsWork => ({
    passes: PASSES[way],
    found,
    leftLying,
    seedersOnly: way === 'seeders',
    passesByYear: way === 'own' ? (own ?? undefined) : undefined,
    missedIn,
  })
  const whole: WeedStand = { ...stand, doneSoFar: { passes: passesSoFar, found, leftLying, seedersOnly: false } }
  const asked: readonly YearsWay[] = own ? [...WAYS, 'own'] : WAYS
  const all = yearsAhead(whole, [...asked.map((way) => work(way)), ...asked.map((way) => work(way, MISSED_IN))], runs, SEED)
  return asked.map((way, i) => ({
    way,
    ahead: all[i] as YearsAhead,
    missed: way === 'none' ? null : (all[asked.length + i] as YearsAhead),
  }))
}
