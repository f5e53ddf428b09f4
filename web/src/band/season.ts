import type { BloomForecast, Block, Label, Method, Organism, Product, WatchForecast } from '@bocado/contract'
import {
  cohortsInReach,
  conflictsOf,
  dayNumber,
  LIKELY_FROM,
  planSeason,
  monthOf,
  schools,
  type Ensemble,
  type PlannableWatch,
  type PlannableWay,
  type PlanOf,
  type Proposed,
  type RotationUse,
  type ScheduleAround,
  type ScheduledTask,
  type School,
  type SeasonPlan,
  type SiteRule,
} from '@bocado/core'
import { hoursHere } from './hoursHere.js'
import { shelfFor } from './shelf.js'
import { isAtSowing } from './late.js'
import type { Means } from './means.js'
import { putOn } from './rotation.js'
import { ruledMeans } from './rules.js'
import { ensembleOf } from './streams.js'

export { schools, type School, type SeasonPlan, type Proposed }

/** Everything that a season is planned from, as it can be handed to a thread of its own. */
export interface SeasonSources {
  rows: readonly WatchForecast[]
  blooms: readonly BloomForecast[]
  products: readonly Product[]
  methods: readonly Method[]
  organisms: readonly Organism[]
  blocks: readonly Block[]
  rules: readonly SiteRule[]
  flowers: readonly { blockId: string; name: string; from: string; until: string }[]
  harvests: ScheduleAround['harvests']
  before: readonly (RotationUse & { blockId: string })[]
  /** What stands on the schedule already, done or not. */
  tasks: readonly ScheduledTask[]
  season: { start: string; days: number; todayIndex: number }
  /** Whether the site uses no chemicals at all. */
  usesNone: boolean
  /** What its users have said of watches: 2 before all others, 0 behind them; 1 where nobody said. */
  ranks: Readonly<Record<string, number>>
  hoursPerWeek: number | null
}

/** From prevention to chemicals. */
const ORDER: Readonly<Record<Method['kind'], number>> = { prevention: 0, cultural: 1, mechanical: 2, biological: 3, chemical: 4 }
/** Where no stage tells what they reach they are work between two seasons. */
const BETWEEN_SEASONS: ReadonlySet<string> = new Set(['sanitation', 'tillage'])
/** Units of work that goes over all of the ground. */
const BY_GROUND: ReadonlySet<string> = new Set(['ha', '1000 m²'])
/** Days around a window in which what is planned or done is for it. */
const AROUND_DAYS = 3
/** Draws of the season that a draft looks at, and minutes that a count takes unless it was measured. */
const DRAWS = 13
const COUNT_MINUTES = 20
/** What each rank is worth, from last to first. */
const WEIGHTS = [0.3, 1, 3] as const
/** A count over its threshold, and a weed that is about to shed, are worth more than what may come. */
const OVER = 2
const SHEDS = 1.5

/** Some draws of a season, evenly. */
function thinned({ members, scores, seasons, openIndex }: Ensemble): Ensemble {
  const every = Math.max(1, Math.floor(members.length / DRAWS))
  const kept = members.flatMap((member, i) => (i % every === 0 ? [{ member, score: scores[i] ?? 0 }] : [])).slice(0, DRAWS)
  return { members: kept.map(({ member }) => member), scores: kept.map(({ score }) => score), seasons, openIndex }
}

/** What can be done against a watch in this season, with what each would reach. */
function waysOf(row: WatchForecast, clock: PlannableWatch['clock'], s: SeasonSources): PlannableWay[] {
  const organism = s.organisms.find(({ id }) => id === row.watch.organismId)
  const block = s.blocks.find(({ id }) => id === row.watch.blockId)
  const { fits, byHand } = shelfFor(s.products, s.methods, organism, block, s.usesNone)
  const ensemble = clock === 'dates' ? thinned(ensembleOf(row)) : null
  const reached = new Map<string, PlannableWay['reach']>()
  const reachOf = (stages: readonly string[]): PlannableWay['reach'] => {
    const key = stages.join()
    const known = reached.get(key)
    if (known) return known
    const made = ensemble
      ? cohortsInReach(
          row.events,
          row.generations.map(({ id }) => id),
          stages,
          ensemble,
        )
      : []
    reached.set(key, made)
    return made
  }
  return [...fits, ...byHand].flatMap(({ means, gate }): PlannableWay[] => {
    const own = s.methods.filter(({ id }) => (means.product ? means.product.methods : [means.methodId]).includes(id))
    // What nobody has tried out is no plan; what is chosen at sowing, or has to stand there before, reaches nothing of what is there.
    if (isAtSowing(means) || own.some(({ evidence }) => evidence === 'anecdotal')) return []
    if (!means.product && own.some(({ lasting, kind, id }) => lasting || kind === 'prevention' || (!ensemble && BETWEEN_SEASONS.has(id))))
      return []
    // What is worked plant by plant takes as long as there are plants: nobody knows that by the area.
    const work = own[0]?.hours
    const hours = work && BY_GROUND.has(work.unit) ? hoursHere(work, block?.areaHa ?? null) : undefined
    return [
      {
        key: means.key,
        order: Math.max(...own.map(({ kind }) => ORDER[kind]), 0),
        effect: means.does.effect,
        residualDays: means.does.residualDays,
        leastIntervalDays: means.product?.leastIntervalDays ?? null,
        mostPerSeason: means.product?.mostPerSeason ?? null,
        minutes: hours === undefined ? null : Math.round(hours * 60),
        hasLabel: means.product !== null,
        chemical: own.some(({ kind }) => kind === 'chemical'),
        hazardToBees: (means.product?.bees ?? 'none-stated') !== 'none-stated',
        reach: reachOf(gate.stages),
      },
    ]
  })
}

/** A watch as a season is planned for it. */
export function plannableOf(row: WatchForecast, s: SeasonSources): PlannableWatch {
  const organism = s.organisms.find(({ id }) => id === row.watch.organismId)
  const last = row.rounds.findLast(({ checkAreaId }) => checkAreaId === null)
  const answered = row.treatments.some(({ done }) => done && last && done.day >= last.countedOn)
  const isOver = last?.crossed === true && !answered
  const clock = row.breedsOn ? 'counts' : row.infection && row.grade === 'dates' ? 'infection' : row.grade === 'dates' ? 'dates' : 'months'
  const threshold = row.watch.threshold ?? (organism?.sampling.threshold.confidence === 'placeholder' ? null : organism?.sampling.threshold)
  return {
    id: row.watch.id,
    blockId: row.watch.blockId,
    weight: (WEIGHTS[s.ranks[row.watch.id] ?? 1] ?? 1) * (isOver ? OVER : 1) * (row.kind === 'weed' ? SHEDS : 1),
    clock,
    isCounted: organism?.sampling.serves === 'decision' && threshold != null,
    isOver,
    windows: row.windows.flatMap(({ generation, state, opens, closes }) =>
      ['past', 'not-this-season', 'poorly-reachable'].includes(state) ||
      opens.p50 === null ||
      closes.p50 === null ||
      isSeenTo(row, opens.p50, closes.p50)
        ? []
        : [{ generation, opens: opens.p50, closes: closes.p50, announced: announcedBy(row, generation, s.blooms) }],
    ),
    months: row.usual.flatMap(({ generation, months }) => runsOfMonths(months, s.season).map((run) => ({ generation, ...run }))),
    infections: infectionsAhead(row, s.season.todayIndex),
    ways: waysOf(row, clock, s),
  }
}

/** Whether something is planned for a window, or was done in it. */
function isSeenTo({ treatments, watch }: WatchForecast, opens: number, closes: number): boolean {
  const begin = dayNumber(watch.season)
  return treatments.some(({ done, plannedOn }) => {
    const day = dayNumber(done?.day ?? plannedOn) - begin
    return day >= opens - AROUND_DAYS && day <= closes + AROUND_DAYS
  })
}

/** Days ahead on which an infection is likely; where it presses already, tomorrow at once. */
function infectionsAhead({ infection }: WatchForecast, today: number): number[] {
  if (!infection) return []
  const likely = infection.days.filter(({ day, probability }) => day > today && probability >= LIKELY_FROM).map(({ day }) => day)
  const presses = infection.state === 'protect' || infection.state === 'cure'
  return presses ? [...new Set([today + 1, ...likely])] : likely
}

/** The day on which the bloom that announces a generation is expected, where the entry names one that is forecast. */
function announcedBy({ usual }: WatchForecast, generation: string, blooms: readonly BloomForecast[]): number | null {
  const words = usual.find((one) => one.generation === generation)?.bloom.toLowerCase() ?? ''
  const plants = blooms.filter(({ name }) => words.includes(name.toLowerCase()))
  const wanted = plants.find(({ eventName }) => words.includes(eventName.toLowerCase())) ?? plants[0]
  return wanted?.date.p50 ?? null
}

/** Runs of days of the season that lie in some months. */
export function runsOfMonths(months: readonly number[], { start, days }: Pick<SeasonSources['season'], 'start' | 'days'>) {
  const first = dayNumber(start)
  const runs: { from: number; until: number }[] = []
  for (let day = 0; day < days; day++) {
    if (!months.includes(monthOf(first + day) + 1)) continue
    const last = runs.at(-1)
    if (last?.until === day) last.until = day + 1
    else runs.push({ from: day, until: day + 1 })
  }
  return runs
}

/** Refused by a label or a rule, in the way of a harvest, or the same group of action where another is due. */
const KEPT_AWAY: ReadonlySet<string> = new Set(['harvest', 'rotation'])

/** Whether something is forbidden where it is proposed, held against what stands there and what is proposed beside it. */
export function forbidden(s: SeasonSources): PlanOf['isForbidden'] {
  const around: ScheduleAround = {
    rules: s.rules,
    before: s.before,
    harvests: s.harvests,
    isLicensed: () => true,
    inFlower: (blockId, day) => {
      const begin = dayNumber(s.season.start)
      return s.flowers
        .filter(
          (one) => one.blockId === blockId && dayNumber(one.from) - begin <= day - begin && day - begin <= dayNumber(one.until) - begin,
        )
        .map(({ name }) => name)
    },
  }
  const taskOf = (one: Proposed): ScheduledTask => asTask(one, s)
  return (one, beside) => {
    const own = taskOf(one)
    const there = s.tasks.filter(({ blockId }) => blockId === one.blockId)
    const others = beside.map(taskOf)
    const before = new Set(conflictsOf([...there, ...others], around).map(keyOfConflict))
    return conflictsOf([...there, ...others, own], around).some(
      (conflict) =>
        (conflict.refused || KEPT_AWAY.has(conflict.kind)) && (conflict.task === own.id || !before.has(keyOfConflict(conflict))),
    )
  }
}

const keyOfConflict = ({ kind, task, with: other, name }: { kind: string; task: string; with: string | null; name: string }): string =>
  `${kind} ${task} ${other} ${name}`

/** Something proposed as a task of the schedule. */
function asTask({ watch, way, day, blockId, generation }: Proposed, s: SeasonSources): ScheduledTask {
  const means = meansOf(way.key, s)
  const row = s.rows.find((one) => one.watch.id === watch)
  const on = dayNumber(s.season.start) + day
  const material: Label | null = means.product
  return {
    id: `${watch} ${generation} ${day} ${way.key}`,
    blockId,
    day: on,
    done: false,
    minutes: way.minutes,
    personId: null,
    machine: '',
    enters: true,
    picks: false,
    means: ruledMeans(means, s.methods),
    material: material && { ...material, productId: material.id },
    use: row && material ? putOn(row, material, on) : null,
    noticeOn: null,
    consentOn: null,
  }
}

/** What a way of a plan is done with. */
export function meansOf(key: string, { products }: Pick<SeasonSources, 'products'>): Pick<Means, 'product' | 'methodId'> {
  const at = key.indexOf(' ')
  const id = key.slice(at + 1)
  return key.slice(0, at) === 'product'
    ? { product: products.find((one) => one.id === id) ?? null, methodId: null }
    : { product: null, methodId: id }
}

/** A season under each school, the first draft of each; told how far it is. */
export function seasonUnder(s: SeasonSources, school: School, step: (done: number) => void = () => undefined): SeasonPlan {
  const begin = dayNumber(s.season.start)
  const taken = new Map<number, number>()
  for (const { day, minutes, done } of s.tasks) {
    const week = Math.floor((day - begin) / 7)
    if (!done && minutes !== null) taken.set(week, (taken.get(week) ?? 0) + minutes)
  }
  return planSeason(
    {
      watches: s.rows.map((row) => plannableOf(row, s)),
      school,
      today: s.season.todayIndex,
      length: s.season.days,
      isForbidden: forbidden(s),
      minutesPerWeek: s.hoursPerWeek === null ? null : s.hoursPerWeek * 60,
      countMinutes: COUNT_MINUTES,
      taken,
    },
    step,
  )
}

/** What a plan leaves undone, that of one watch for one reason once: how often, and the most that it would have reached. */
export function undoneOnce({ undone }: Pick<SeasonPlan, 'undone'>): (SeasonPlan['undone'][number] & { times: number })[] {
  const found = new Map<string, SeasonPlan['undone'][number] & { times: number }>()
  for (const one of undone) {
    const key = `${one.watch} ${one.because}`
    const known = found.get(key)
    found.set(key, { ...one, reach: Math.max(one.reach, known?.reach ?? 0), times: (known?.times ?? 0) + 1 })
  }
  return [...found.values()]
}

/** What a plan comes to, to be held beside others. */
export interface PlanSum {
  school: School
  treatments: number
  /** Of them those that wait for a count. */
  waiting: number
  counts: number
  hours: number
  /** Treatments of which nobody knows how long they take. */
  untimed: number
  /** Mean of what the treatments reach, of those whose stages are modelled; null without any. */
  reached: number | null
  chemicals: number
  /** With what is hazardous to bees. */
  bees: number
  undone: number
}

export function sumOf({ school, treatments, counts, undone }: SeasonPlan): PlanSum {
  const modelled = treatments.filter(({ reach }) => reach > 0)
  return {
    school,
    treatments: treatments.length,
    waiting: treatments.filter(({ conditional }) => conditional).length,
    counts: counts.length,
    hours: (treatments.reduce((sum, { way }) => sum + (way.minutes ?? 0), 0) + counts.length * COUNT_MINUTES) / 60,
    untimed: treatments.filter(({ way }) => way.minutes === null).length,
    reached: modelled.length > 0 ? modelled.reduce((sum, { reach }) => sum + reach, 0) / modelled.length : null,
    chemicals: treatments.filter(({ way }) => way.chemical).length,
    bees: treatments.filter(({ way }) => way.hazardToBees).length,
    undone: undone.length,
  }
}
