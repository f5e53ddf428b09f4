import type {
  Arrangement,
  Block,
  Job,
  Label,
  Method,
  Organism,
  Planting,
  Product,
  Schedule,
  Site,
  SiteRule,
  Treatment,
  WatchForecast,
} from '@bocado/contract'
import { civilDate, conflictsOf, dayNumber, type Conflict, type ScheduleAround, type ScheduledTask } from '@bocado/core'
import { harvestOf } from './harvest.js'
import { handMeans, meansGate, productMeans } from './means.js'
import type { StepDue } from './programme.js'
import { putOn } from './rotation.js'
import { ruledMeans } from './rules.js'
import { cohortsFor, coverageOn } from './treatmentCoverage.js'
import type { Errand } from './walk.js'

export type { Conflict }

/** Something that stands on the schedule: what is planned, what programmes and windows ask for, and other work. */
export interface Task {
  id: string
  /** By which what was arranged of it is found. */
  key: string
  kind: 'deed' | 'step' | 'job' | Errand['kind']
  /** Civil day. */
  day: string
  done: boolean
  /** Empty where it is of the whole site. */
  blockId: string
  row?: WatchForecast
  treatment?: Treatment
  step?: StepDue
  /** Looks of one kind that are due in one block on one day. */
  errands?: Errand[]
  job?: Job
  arrangement: Arrangement | null
  minutes: number | null
}

const DEED_KINDS: ReadonlySet<Task['kind']> = new Set<Task['kind']>(['deed', 'job'])
/** Whether its day is somebody's choice; the others go by what is computed or counted. */
export const canMove = ({ kind, done }: Task): boolean => DEED_KINDS.has(kind) && !done

/** Everything between two civil days, both included. What is overdue stands on today. */
export function tasksOf(p: {
  rows: readonly WatchForecast[]
  errands: readonly Errand[]
  steps: readonly StepDue[]
  schedule: Pick<Schedule, 'jobs' | 'arrangements'>
  blockOf: (placeId: string) => string
  today: string
  from: string
  until: string
}): Task[] {
  const arranged = new Map(p.schedule.arrangements.map((one) => [one.task, one]))
  const task = (key: string, rest: Omit<Task, 'id' | 'key' | 'arrangement' | 'minutes'>, minutes: number | null = null): Task => {
    const arrangement = arranged.get(key) ?? null
    // Looks of one kind come again on other days; everything else stands once.
    return { id: rest.errands ? `${key} ${rest.day}` : key, key, ...rest, arrangement, minutes: arrangement?.minutes ?? minutes }
  }
  const notPast = (day: string): string => (day < p.today ? p.today : day)
  const all: Task[] = [
    ...p.rows.flatMap((row) =>
      row.treatments.map((treatment) => {
        const { done, plannedOn, id } = treatment
        const rest = { day: done?.day ?? notPast(plannedOn), done: done !== null, blockId: row.watch.blockId, row, treatment }
        return task(`deed ${id}`, { kind: 'deed', ...rest }, done?.minutes ?? null)
      }),
    ),
    ...p.steps.map((step) => {
      const { row, programme, at, day } = step
      return task(`step ${programme.id} ${at}`, { kind: 'step', day: notPast(day), done: false, blockId: row.watch.blockId, row, step })
    }),
    ...looksOf(p.errands, notPast).map(({ kind, day, blockId, errands, key }) => {
      const known = errands.flatMap(({ minutes }) => minutes ?? [])
      return task(key, { kind, day, done: false, blockId, errands }, known.length > 0 ? known.reduce((sum, one) => sum + one, 0) : null)
    }),
    ...p.schedule.jobs.map((job) => {
      const { id, placeId, doneOn, plannedOn } = job
      return task(`job ${id}`, { kind: 'job', day: doneOn ?? notPast(plannedOn), done: doneOn !== null, blockId: p.blockOf(placeId), job })
    }),
  ]
  return all.filter(({ day }) => day >= p.from && day <= p.until).sort((a, b) => a.day.localeCompare(b.day))
}

/** Counts, and traps, of one block and day are one walk: whoever is there sees to all of them. */
function looksOf(errands: readonly Errand[], dayOf: (due: string) => string) {
  const looks = new Map<string, { key: string; kind: Errand['kind']; day: string; blockId: string; errands: Errand[] }>()
  for (const errand of errands) {
    const { id, kind, blockId } = errand
    const day = dayOf(errand.due)
    const key = kind === 'count' || kind === 'trap' ? `${kind} ${blockId}` : id
    const known = looks.get(`${key} ${day}`)
    if (known) known.errands.push(errand)
    else looks.set(`${key} ${day}`, { key, kind, day, blockId, errands: [errand] })
  }
  return [...looks.values()]
}

/** What a task is done with, on the shelf of today, or by the label of the day on which it was done. */
export function materialOf({ treatment, step }: Task, products: readonly Product[]): Label | null {
  if (treatment?.done) return treatment.done.label
  const productId = treatment?.productId ?? step?.step.productId ?? null
  return products.find(({ id }) => id === productId) ?? null
}

const methodOf = ({ treatment, step }: Task): string | null => treatment?.methodId ?? step?.step.methodId ?? null

function scheduled(task: Task, products: readonly Product[], methods: readonly Method[]): ScheduledTask {
  const { id, blockId, day, done, minutes, arrangement, job, kind } = task
  const material = materialOf(task, products)
  const methodId = methodOf(task)
  const known = products.find((one) => one.id === material?.id)
  const means = known ? productMeans(known) : undefined
  const { row } = task
  const on = (date: string | null | undefined): number | null => (date == null ? null : dayNumber(date))
  return {
    id,
    blockId,
    day: dayNumber(day),
    done,
    minutes,
    personId: arrangement?.personId ?? null,
    machine: arrangement?.machine ?? '',
    enters: kind !== 'arrival',
    picks: job?.kind === 'picking',
    means: means || methodId !== null ? ruledMeans(means ?? { product: null, methodId }, methods) : null,
    material: material && { ...material, productId: material.id },
    use: row && material ? putOn(row, material, dayNumber(day)) : null,
    noticeOn: on(arrangement?.noticeOn),
    consentOn: on(arrangement?.consentOn),
  }
}

/** Tasks as they are held against each other. */
export const asScheduled = (tasks: readonly Task[], products: readonly Product[], methods: readonly Method[]): ScheduledTask[] =>
  tasks.map((task) => scheduled(task, products, methods))

/** Everything that tasks of a site are held against. */
export interface Surroundings {
  products: readonly Product[]
  methods: readonly Method[]
  rules: readonly SiteRule[]
  flowers: Schedule['flowers']
  plantings: readonly Planting[]
  people: Site['people']
  /** Uses of the season before. */
  before: ScheduleAround['before']
  blockOf: (placeId: string) => string
}

function aroundOf({ rules, flowers, plantings, people, before, blockOf }: Surroundings): ScheduleAround {
  return {
    rules,
    before,
    inFlower: (blockId, day) => {
      const date = civilDate(day)
      return [...new Set(flowers.filter((one) => one.blockId === blockId && one.from <= date && date <= one.until).map(({ name }) => name))]
    },
    harvests: plantings.map((planting) => ({ blockId: blockOf(planting.placeId), crop: planting.cropName, ahead: harvestOf(planting) })),
    isLicensed: (personId, day) => {
      const person = people.find(({ id }) => id === personId)
      return person?.licensed === true && (person.licenceUntil === null || person.licenceUntil >= civilDate(day))
    },
  }
}

/** What stands in the way of tasks, where one of them may be thought to stand on another day. */
export function conflictsAmong(tasks: readonly Task[], with_: Surroundings, moved?: { id: string; day: string }): Conflict[] {
  const all = tasks.map((task) => {
    const one = scheduled(task, with_.products, with_.methods)
    return task.id === moved?.id ? { ...one, day: dayNumber(moved.day) } : one
  })
  return conflictsOf(all, aroundOf(with_))
}

/** What two tasks are to each other is said once, though it is found at both. */
export const saidOnce = (conflicts: readonly Conflict[]): Conflict[] =>
  conflicts.filter(
    (one, i) => !conflicts.some((other, j) => j < i && other.kind === one.kind && other.task === one.with && other.with === one.task),
  )

/** What a task would meet on each of some days: what stands in its way, and in the way of others because of it. */
export const conflictsByDay = (tasks: readonly Task[], with_: Surroundings, id: string, days: readonly string[]): Map<string, Conflict[]> =>
  new Map(days.map((day) => [day, conflictsAmong(tasks, with_, { id, day }).filter((one) => one.task === id || one.with === id)]))

/** Share of the generation that a planned deed reaches on each of some days; none where its watch tells no share. */
export function reachedOn(
  { row, treatment }: Task,
  days: readonly string[],
  known: { products: readonly Product[]; methods: readonly Method[]; organisms: readonly Organism[]; blocks: readonly Block[] },
): Map<string, number> {
  const reached = new Map<string, number>()
  const organism = known.organisms.find(({ id }) => id === row?.watch.organismId)
  const block = known.blocks.find(({ id }) => id === row?.watch.blockId)
  const product = known.products.find(({ id }) => id === treatment?.productId)
  const method = known.methods.find(({ id }) => id === treatment?.methodId)
  const means = product ? productMeans(product) : method ? handMeans(method) : undefined
  if (!row || !organism || !block || !means || row.grade !== 'dates' || row.infection || row.windows.length === 0) return reached
  const gate = meansGate(means, organism, block)
  if (gate.verdict !== 'fits') return reached
  const action = { stages: gate.stages, effect: means.does.effect, residualDays: means.does.residualDays }
  const cohorts = cohortsFor(row, action)
  for (const day of days) {
    const share = coverageOn(cohorts, action, dayNumber(day) - dayNumber(row.watch.season))?.bounds.p50
    if (share !== undefined) reached.set(day, share)
  }
  return reached
}
