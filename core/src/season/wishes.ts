import { bestDays } from '../windows/bestDays.js'
import { TREATMENT_HOUR_OF_DAY } from '../windows/vulnerableWindow.js'
import type { CohortQuantile } from '../treatment/coverage.js'

/** Schools of when to act, the mix of them first. */
export const schools = ['mix', 'heat', 'bloom', 'calendar', 'threshold'] as const
export type School = (typeof schools)[number]

/** Something that can be done against a watch. */
export interface PlannableWay {
  key: string
  /** From prevention to chemicals: the gentler, the lower. */
  order: number
  /** Share killed on contact, and days for which it goes on acting. */
  effect: number
  residualDays: number
  /** By its label; null where that says nothing. */
  leastIntervalDays: number | null
  mostPerSeason: number | null
  /** Work that it takes in the block; null where nobody knows. */
  minutes: number | null
  /** It comes with a label, and can be repeated by it. */
  hasLabel: boolean
  chemical: boolean
  hazardToBees: boolean
  /** When the population of each generation can be reached by it, over some draws of the season; none where no model says. */
  reach: readonly { generation: string; cohorts: readonly (readonly CohortQuantile[])[] }[]
}

/** A watch as a season is planned for it. Days of the season throughout. */
export interface PlannableWatch {
  id: string
  blockId: string
  /** What it is worth against the others: by its user’s ranks, its spread, and what it would shed. */
  weight: number
  /** By what its days are told: a model of stages, infections, months alone, or counts from now on. */
  clock: 'dates' | 'infection' | 'months' | 'counts'
  /** Whether a count decides whether to act, and whether the last one said so. */
  isCounted: boolean
  isOver: boolean
  /** Windows that are not past, by their medians; `announced` by a bloom, null where none tells it. */
  windows: readonly { generation: string; opens: number; closes: number; announced: number | null }[]
  /** Runs of days in which it is usually about, end not included. */
  months: readonly { generation: string; from: number; until: number }[]
  /** Days ahead on which an infection is likely. */
  infections: readonly number[]
  ways: readonly PlannableWay[]
}

/** A treatment that a school asks for, with the days on which it may be given. */
export interface Wish {
  watch: string
  blockId: string
  generation: string
  because: 'heat' | 'bloom' | 'calendar' | 'over' | 'months' | 'infection'
  /** It waits for a count that says so. */
  conditional: boolean
  weight: number
  /** Days on which it may stand with what each way would reach by then, the best first. */
  choices: readonly { day: number; way: PlannableWay; reach: number }[]
}

/** Something that a school asks for and cannot have. */
export interface Unmet {
  watch: string
  generation: string
  because: 'no-way' | 'no-bloom' | 'poorly-reachable'
}

/** A second treatment is planned where it adds as much as this (from practice). */
const WORTH_A_SECOND = 0.15
/** Of the draws so many are left out when a second treatment is thought of. */
const EVERY_NTH = 3
/** A gentler way is taken where it reaches so much of what the best one does (from practice). */
const GENTLER_REACHES = 0.7
/** Less than this is no use. */
const LEAST_REACH = 0.2
/** Days before a window opens and after it closes that may still do. */
const AROUND_DAYS = 3
/** The fixed interval of a calendar where no label names one. */
const CALENDAR_DAYS = 14
/** Days between two counts while something may be about. */
const COUNT_EVERY_DAYS = 7

/** What treatments of a residual meet of some cohorts, by day: ways that reach the same stages ask for the same. */
const met = new WeakMap<object, Map<string, number>>()

/** Mean share that a treatment on a day reaches of a generation. */
export function reachOn(way: Pick<PlannableWay, 'effect' | 'residualDays' | 'reach'>, generation: string, day: number): number {
  const cohorts = way.reach.find((one) => one.generation === generation)?.cohorts
  if (!cohorts || cohorts.length === 0) return 0
  const known = met.get(cohorts) ?? new Map<string, number>()
  met.set(cohorts, known)
  const key = `${day} ${way.residualDays}`
  const share = known.get(key)
  if (share !== undefined) return share * way.effect
  // As `coverage` has it, without its checks: of one treatment the share killed is the share met, by its effect.
  const from = day + TREATMENT_HOUR_OF_DAY
  const until = from + way.residualDays
  let [hit, all] = [0, 0]
  for (const cohort of cohorts) {
    all += cohort.length
    for (const { enter, exit } of cohort) if (exit > enter && enter <= until && exit > from) hit++
  }
  const made = hit / all
  known.set(key, made)
  return made * way.effect
}

const run = (from: number, until: number): number[] =>
  Array.from({ length: Math.max(0, Math.floor(until) - Math.ceil(from) + 1) }, (_, i) => Math.ceil(from) + i)

/**
 * The ways that come into question for a generation, with what each reaches on each of some days. The gentlest that reaches most of what the
 * best one does comes before all that are harsher.
 */
function choicesOf({ ways }: PlannableWatch, generation: string, days: readonly number[]): Wish['choices'][number][] {
  const rated = ways.map((way) => {
    const all = days.map((day) => ({ day, way, reach: reachOn(way, generation, day) }))
    return { way, all, best: Math.max(0, ...all.map(({ reach }) => reach)) }
  })
  const most = Math.max(0, ...rated.map(({ best }) => best))
  const fits = rated.filter(({ best }) => best >= LEAST_REACH && best >= GENTLER_REACHES * most)
  return fits
    .sort((a, b) => a.way.order - b.way.order || b.best - a.best)
    .flatMap(({ all }) => all.filter(({ reach }) => reach >= LEAST_REACH).sort((a, b) => b.reach - a.reach || a.day - b.day))
}

/** A wish without a model: any day will do as well, the wanted one first. */
function plainChoices({ ways }: PlannableWatch, wanted: number, days: readonly number[]): Wish['choices'][number][] {
  const near = [...days].sort((a, b) => Math.abs(a - wanted) - Math.abs(b - wanted) || a - b)
  return [...ways].sort((a, b) => a.order - b.order).flatMap((way) => near.map((day) => ({ day, way, reach: 0 })))
}

const base = ({ id, blockId, weight }: PlannableWatch) => ({ watch: id, blockId, weight })

type Asked = { wishes: Wish[]; unmet: Unmet[] }

/** One or two treatments of each window of a modelled generation, on the days that reach the most. */
function byWindows(watch: PlannableWatch, today: number, school: School): Asked {
  const found: Asked = { wishes: [], unmet: [] }
  for (const { generation, opens, closes, announced } of watch.windows) {
    if (school === 'bloom' && announced === null) {
      found.unmet.push({ watch: watch.id, generation, because: 'no-bloom' })
      continue
    }
    const [from, until] = school === 'bloom' && announced !== null ? [announced, announced + (closes - opens)] : [opens, closes]
    const days = run(Math.max(today, from - AROUND_DAYS), until + AROUND_DAYS)
    if (days.length === 0) continue
    // Whoever goes by a bloom acts a fixed time after it, not when most can be reached.
    const choices = choicesOf(watch, generation, days)
    const ordered = school === 'bloom' ? choices.toSorted((a, b) => a.way.order - b.way.order || a.day - b.day) : choices
    const because = school === 'bloom' ? 'bloom' : 'heat'
    const conditional = school === 'mix' && watch.isCounted && !watch.isOver
    const [first] = ordered
    if (!first) {
      found.unmet.push({ watch: watch.id, generation, because: watch.ways.length === 0 ? 'no-way' : 'poorly-reachable' })
      continue
    }
    const wish: Wish = { ...base(watch), generation, because, conditional, choices: ordered }
    const second = school === 'bloom' ? null : secondOf(first.way, generation, days)
    if (!second) found.wishes.push(wish)
    else
      for (const day of second)
        found.wishes.push({
          ...wish,
          choices: ordered.toSorted((a, b) => Number(b.way === first.way && b.day === day) - Number(a.way === first.way && a.day === day)),
        })
  }
  return found
}

/** The two best days of a way, where a second treatment is worth it and its label allows it. */
function secondOf(way: PlannableWay, generation: string, days: readonly number[]): number[] | null {
  if (way.mostPerSeason === 1 || days.length < 2) return null
  // Whether it is worth it shows in some of the draws.
  const cohorts = (way.reach.find((one) => one.generation === generation)?.cohorts ?? []).filter((_, i) => i % EVERY_NTH === 0)
  if (cohorts.length === 0) return null
  const of = {
    candidates: days.map((day) => day + TREATMENT_HOUR_OF_DAY),
    minInterval: Math.max(1, way.leastIntervalDays ?? 0),
    // What was met already is not met again: a second one is for those that the first could not reach.
    effect: 1,
    residualDays: way.residualDays,
  }
  const [one, two] = [bestDays(cohorts, { ...of, k: 1 }), bestDays(cohorts, { ...of, k: 2 })]
  return two.days.length === 2 && two.mean - one.mean >= WORTH_A_SECOND ? two.days.map((day) => Math.floor(day)) : null
}

/** Protection before each likely infection that the one before does not cover any more. */
function byInfections(watch: PlannableWatch, today: number): Asked {
  const [way] = [...watch.ways].sort((a, b) => a.order - b.order)
  if (!way)
    return { wishes: [], unmet: watch.infections.length > 0 ? [{ watch: watch.id, generation: 'infection', because: 'no-way' }] : [] }
  const wishes: Wish[] = []
  let covered = -Infinity
  for (const day of watch.infections) {
    const on = Math.max(today, day - 1)
    if (day <= covered || on > day) continue
    covered = on + Math.max(1, way.residualDays)
    wishes.push({
      ...base(watch),
      generation: 'infection',
      because: 'infection',
      conditional: false,
      choices: plainChoices(watch, on, run(Math.max(today, day - AROUND_DAYS), day)),
    })
  }
  return { wishes, unmet: [] }
}

/** What is about by months alone: once in each run, and only where a look finds it. */
function byMonths(
  watch: PlannableWatch,
  today: number,
  how: Pick<Wish, 'because' | 'conditional'> = { because: 'months', conditional: true },
): Asked {
  const ahead = watch.months.filter(({ until }) => until > today)
  if (watch.ways.length === 0)
    return { wishes: [], unmet: ahead.map(({ generation }) => ({ watch: watch.id, generation, because: 'no-way' as const })) }
  return {
    wishes: ahead.map(({ generation, from, until }) => {
      const start = Math.max(today, from)
      return {
        ...base(watch),
        generation,
        ...how,
        choices: plainChoices(watch, Math.floor((start + until - 1) / 2), run(start, until - 1)),
      }
    }),
    unmet: [],
  }
}

/** Every so many days of the months by the label of what stands on the shelf, whatever is there; what is done by hand once in each run. */
function byCalendar(watch: PlannableWatch, today: number): Asked {
  const [way] = [...watch.ways].sort((a, b) => Number(b.hasLabel) - Number(a.hasLabel) || a.order - b.order)
  const runs = watch.months.filter(({ until }) => until > today)
  if (!way) return { wishes: [], unmet: runs.map(({ generation }) => ({ watch: watch.id, generation, because: 'no-way' as const })) }
  if (!way.hasLabel) return byMonths(watch, today, { because: 'calendar', conditional: false })
  const every = Math.max(way.leastIntervalDays ?? CALENDAR_DAYS, 1)
  const wishes = runs.flatMap(({ generation, from, until }) => {
    const days: number[] = []
    for (let day = from; day < until; day += every) if (day >= today) days.push(day)
    return days.slice(0, way.mostPerSeason ?? Infinity).map((day): Wish => {
      const near = run(Math.max(today, day - 1), Math.min(until - 1, day + AROUND_DAYS))
      const choices = near.map((on) => ({ day: on, way, reach: reachOn(way, generation, on) }))
      return {
        ...base(watch),
        generation,
        because: 'calendar',
        conditional: false,
        choices: choices.sort((a, b) => Math.abs(a.day - day) - Math.abs(b.day - day)),
      }
    })
  })
  return { wishes, unmet: [] }
}

/** Only what a count has found to be too many, as soon as it reaches most. */
function byThreshold(watch: PlannableWatch, today: number): Asked {
  if (!watch.isOver) return { wishes: [], unmet: [] }
  const { wishes, unmet } =
    watch.clock === 'dates' ? byWindows({ ...watch, windows: watch.windows.slice(0, 1) }, today, 'heat') : byMonths(watch, today)
  return { wishes: wishes.slice(0, 1).map((wish) => ({ ...wish, because: 'over' as const, conditional: false })), unmet }
}

/**
 * What a school asks for against a watch from today on, and what it cannot have. What a school knows nothing of is planned by what is known of
 * it: diseases by their infections, what has no model by its months.
 */
export function wishesOf(watch: PlannableWatch, school: School, today: number): Asked {
  if (school === 'calendar') return byCalendar(watch, today)
  if (school === 'threshold') return watch.clock === 'infection' ? byInfections(watch, today) : byThreshold(watch, today)
  if (watch.clock === 'infection') return byInfections(watch, today)
  if (watch.clock === 'dates') return byWindows(watch, today, school)
  if (watch.clock === 'counts' && !watch.isOver) return { wishes: [], unmet: [] }
  return byMonths(watch, today)
}

/** Days on which a watch is counted from today on: weekly while something can be reached, or what breeds on is about. */
export function countsOf(watch: PlannableWatch, school: School, today: number, length: number): number[] {
  if (!watch.isCounted || school === 'calendar') return []
  const spans =
    watch.clock === 'counts'
      ? [{ from: today, until: length - 1 }]
      : watch.clock === 'dates'
        ? watch.windows.map(({ opens, closes }) => ({ from: opens - COUNT_EVERY_DAYS, until: closes }))
        : watch.months.map(({ from, until }) => ({ from, until: until - 1 }))
  const days = new Set<number>()
  for (const { from, until } of spans)
    for (let day = Math.max(today, Math.ceil(from)); day <= Math.min(length - 1, until); day += COUNT_EVERY_DAYS) days.add(day)
  return [...days].sort((a, b) => a - b)
}
