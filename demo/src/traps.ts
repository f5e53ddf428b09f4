import type { endpoints, InputOf } from '@bocado/contract'
import { civilDate, dayNumber, drawPoisson, MS_PER_DAY, seededRandom } from '@bocado/core'

type Hung = Omit<InputOf<typeof endpoints.traps.add>, 'blockId'> & { block: string; checks: readonly (readonly [string, number])[] }

/** The trap whose catches a counter sends. */
export const COUNTER = 'Counter at the lower end'

/** What hangs where this season, and what was caught at each check. */
export const TRAPS: readonly Hung[] = [
  {
    name: 'Gate trap',
    block: 'Old Apples',
    organismId: 'codling-moth',
    lure: 'pheromone',
    lureLoad: '1 mg',
    lureOn: '2026-04-20',
    lureWeeks: 7,
    hungOn: '2026-04-20',
    position: { latitude: 46.2016, longitude: -119.3004 },
    checks: [
      ['2026-04-27', 0],
      ['2026-05-04', 0],
      ['2026-05-08', 0],
      ['2026-05-12', 4],
      ['2026-05-15', 9],
      ['2026-05-19', 14],
      ['2026-05-22', 11],
      ['2026-05-26', 16],
      ['2026-05-29', 9],
      ['2026-06-02', 7],
      ['2026-06-05', 4],
      ['2026-06-09', 3],
    ],
  },
  {
    name: 'Pear trap',
    block: 'Ladder Pears',
    organismId: 'codling-moth',
    lure: 'pheromone and pear ester',
    lureLoad: '10 mg',
    lureOn: '2026-05-20',
    lureWeeks: 8,
    inDisruption: true,
    hungOn: '2026-05-20',
    checks: [
      ['2026-05-27', 0],
      ['2026-06-03', 1],
      ['2026-06-10', 0],
    ],
  },
  {
    name: COUNTER,
    block: 'Stone Row',
    organismId: 'peach-twig-borer',
    lure: 'pheromone',
    lureOn: '2026-04-28',
    lureWeeks: 8,
    hungOn: '2026-04-28',
    checks: [],
  },
]

const FIRST_DAY = dayNumber('2026-04-29')
/** Day in the middle of the flight, how many days it is wide, and the moths of its best day. */
const FLIGHT = { middle: dayNumber('2026-05-29'), spread: 8, most: 5 }

/** What the counter counts on a day; the same however often it is asked. */
export function countedOn(day: number): number {
  const mean = FLIGHT.most * Math.exp(-(((day - FLIGHT.middle) / FLIGHT.spread) ** 2) / 2)
  return mean < 0.05 ? 0 : drawPoisson(seededRandom(1000 + day), mean)
}

/** Whole days that the counter has counted until a moment, after the last that it sent. */
export function countedDays(after: number | null, now: number): { day: string; caught: number }[] {
  const today = Math.floor(now / MS_PER_DAY)
  const first = after === null ? FIRST_DAY : after + 1
  return Array.from({ length: Math.max(0, today - first) }, (_, i) => ({ day: civilDate(first + i), caught: countedOn(first + i) }))
}
