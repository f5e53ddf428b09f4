import { closedBy, rulesFor, rulesThere, type RuledMeans, type SiteRule } from '../treatment/siteRules.js'
import { harvestInTheWay, type HarvestAhead } from '../treatment/preHarvest.js'
import { rotationFault, type RotationUse } from '../treatment/rotation.js'
import { requireFinite } from '../guards.js'
import { civilDate } from '../time/index.js'

/** What a label says of the days around its use. */
export interface ScheduledMaterial {
  productId: string
  name: string
  methods: readonly string[]
  reEntryHours: number
  preHarvestDays: number
  bees: 'none-stated' | 'hazardous-in-bloom' | 'forbidden-in-bloom'
  leastIntervalDays: number | null
  notWithin: readonly { method: string; days: number }[]
  licensedOnly: boolean
}

/** Something that is to be done in a block on a day, or was. */
export interface ScheduledTask {
  id: string
  blockId: string
  /** Day number. */
  day: number
  done: boolean
  /** Work that it takes; null where nobody said. */
  minutes: number | null
  /** Who does it; null where nobody was named. */
  personId: string | null
  /** With which machine; empty without one. */
  machine: string
  /** Whether people walk through the block for it. */
  enters: boolean
  /** Whether something is picked to be eaten or sold. */
  picks: boolean
  /** With what it is done, as rules of the place tell it apart; null for what they do not bind. */
  means: RuledMeans | null
  material: ScheduledMaterial | null
  /** What it puts on resistance; null for what has no material. */
  use: Omit<RotationUse, 'id' | 'day'> | null
  /** Day numbers on which neighbours were told, and on which those whose ground it is agreed; null: they were not, or did not. */
  noticeOn: number | null
  consentOn: number | null
}

export const conflictKinds = [
  'closed',
  'bloom',
  'spacing',
  're-entry',
  'same-day',
  'harvest',
  'notice',
  'consent',
  'licence',
  'person',
  'machine',
  'rotation',
] as const
export type ConflictKind = (typeof conflictKinds)[number]

/** Why something cannot, or should not, stand where it stands. */
export interface Conflict {
  kind: ConflictKind
  /** What has to be moved or seen to. */
  task: string
  /** What it conflicts with, where that is another task. */
  with: string | null
  /** Of a rule, a material, a plant in flower, a crop or a machine. */
  name: string
  /** Days that are asked for, or hours that somebody would work. */
  amount: number | null
  /** Whether it would be refused where it were planned now. */
  refused: boolean
}

export interface ScheduleAround {
  rules: readonly SiteRule[]
  /** Names of what may be in flower in or beside a block on a day. */
  inFlower: (blockId: string, day: number) => readonly string[]
  harvests: readonly { blockId: string; crop: string; ahead: HarvestAhead }[]
  /** Whether somebody has a licence that holds on a day. */
  isLicensed: (personId: string, day: number) => boolean
  /** Uses of the season before, by block. */
  before: readonly (RotationUse & { blockId: string })[]
}

/** h of the morning at which work begins: what is closed only before that keeps nobody out. */
export const WORK_BEGINS_H = 6
/** Minutes that somebody works on a day, and that a machine runs, unless it is told. */
export const WORKING_DAY_MIN = 8 * 60

/**
 * Last day on which a block is closed to people at the hours of work, where the treatment may end as late as midnight of its day.
 *
 * @param day day number of the treatment
 * @param reEntryHours of its label
 * @returns day number; that of the treatment where it is open again by the next morning
 * @example closedThrough(10, 4) // 10
 * @example closedThrough(10, 12) // 11
 * @example closedThrough(10, 48) // 12
 */
export function closedThrough(day: number, reEntryHours: number): number {
  requireFinite('reEntryHours', reEntryHours)
  return day + Math.max(0, Math.ceil((reEntryHours - WORK_BEGINS_H) / 24))
}

const sameMachine = (a: ScheduledTask, b: ScheduledTask): boolean =>
  a.machine !== '' && a.machine.trim().toLowerCase() === b.machine.trim().toLowerCase()

/** Whether people who go into a block meet what was put on there on the same day, or before and not yet over. */
function entryConflict(task: ScheduledTask, { id, blockId, day, material, done }: ScheduledTask): Conflict[] {
  if (!material || material.reEntryHours <= 0 || blockId !== task.blockId || id === task.id || !task.enters || task.day < day) return []
  const { name, reEntryHours } = material
  const of = { task: task.id, with: id, name, amount: reEntryHours, refused: false }
  // Who sprays the same ground on the same day does it in one go, or one after the other in what both labels ask to be worn.
  if (task.day === day) return task.material ? [] : [{ kind: done ? 're-entry' : 'same-day', ...of }]
  return task.day <= closedThrough(day, reEntryHours) ? [{ kind: 're-entry', ...of }] : []
}

/** Whether labels ask for more days between two materials on the same ground. */
function spacingConflict(task: ScheduledTask, other: ScheduledTask): Conflict[] {
  const [own, there] = [task.material, other.material]
  if (!own || !there || task.id === other.id || task.blockId !== other.blockId) return []
  const gap = Math.abs(other.day - task.day)
  const same = own.productId === there.productId
  // The same ground on the same day against two watches is one treatment.
  const between = same && gap > 0 && own.leastIntervalDays !== null && gap < own.leastIntervalDays ? own.leastIntervalDays : null
  const asked = [
    ...own.notWithin.filter(({ method }) => there.methods.includes(method)),
    ...there.notWithin.filter(({ method }) => own.methods.includes(method)),
  ]
    .map(({ days }) => days)
    .filter((days) => !same && gap < days)
  const amount = Math.max(between ?? 0, ...asked)
  return amount > 0 ? [{ kind: 'spacing', task: task.id, with: other.id, name: there.name, amount, refused: true }] : []
}

/** What the harvest of the block has to wait for: picking that is planned, or that the calendar of the crop expects. */
function harvestConflicts(task: ScheduledTask, all: readonly ScheduledTask[], { harvests }: ScheduleAround): Conflict[] {
  const { material, blockId, day } = task
  if (!material || material.preHarvestDays === 0) return []
  const amount = material.preHarvestDays
  const planned = all.filter((other) => other.picks && other.blockId === blockId && other.day >= day && other.day < day + amount)
  const expected = harvests.filter((one) => one.blockId === blockId && harvestInTheWay(day, amount, one.ahead) !== null)
  return [
    ...planned.map(({ id }): Conflict => ({ kind: 'harvest', task: task.id, with: id, name: material.name, amount, refused: false })),
    ...(planned.length > 0 ? [] : expected).map(({ crop }): Conflict => ({
      kind: 'harvest',
      task: task.id,
      with: null,
      name: crop,
      amount,
      refused: false,
    })),
  ]
}

/** What rules of the place say against its day: closed days, notice that was not given in time, and consent that nobody gave. */
function ruleConflicts(task: ScheduledTask, { rules }: ScheduleAround): Conflict[] {
  const { means, day, noticeOn, consentOn, id, blockId } = task
  if (!means) return []
  return rulesFor(rulesThere(rules, blockId), means).flatMap((rule): Conflict[] => {
    const of = { task: id, with: null, name: rule.name, amount: rule.amount }
    if (rule.kind === 'closed-days' && closedBy(rule, civilDate(day)).length > 0) return [{ kind: 'closed', ...of, refused: true }]
    if (rule.kind === 'notice' && (noticeOn === null || day - noticeOn < (rule.amount ?? 0)))
      return [{ kind: 'notice', ...of, refused: false }]
    if (rule.kind === 'consent' && (consentOn === null || consentOn > day)) return [{ kind: 'consent', ...of, refused: false }]
    return []
  })
}

function bloomConflict({ id, blockId, day, material }: ScheduledTask, { inFlower }: ScheduleAround): Conflict[] {
  if (!material || material.bees === 'none-stated') return []
  const names = inFlower(blockId, day)
  return names.length === 0
    ? []
    : [{ kind: 'bloom', task: id, with: null, name: names.join(', '), amount: null, refused: material.bees === 'forbidden-in-bloom' }]
}

/** The same group of action where another one is due. */
function rotationConflict({ id, blockId, day, use }: ScheduledTask, all: readonly ScheduledTask[], { before }: ScheduleAround): Conflict[] {
  if (!use) return []
  const others = all.flatMap((other): RotationUse[] =>
    other.use && other.blockId === blockId ? [{ ...other.use, id: other.id, day: other.day }] : [],
  )
  const past = before.filter((one) => one.blockId === blockId)
  const fault = rotationFault({ ...use, id, day }, [...past, ...others])
  return fault ? [{ kind: 'rotation', task: id, with: fault.with, name: fault.group, amount: fault.share, refused: false }] : []
}

/** More than a day's work for one person, or one machine: told at the last of that day's tasks. */
function loadConflicts(task: ScheduledTask, all: readonly ScheduledTask[]): Conflict[] {
  const sameDay = all.filter((other) => other.day === task.day && !other.done)
  const found: Conflict[] = []
  const load = (of: readonly ScheduledTask[]): number => of.reduce((sum, { minutes }) => sum + (minutes ?? 0), 0)
  const own = sameDay.filter(({ personId }) => personId !== null && personId === task.personId)
  if (own.at(-1)?.id === task.id && load(own) > WORKING_DAY_MIN)
    found.push({ kind: 'person', task: task.id, with: own.at(-2)?.id ?? null, name: '', amount: load(own) / 60, refused: false })
  const shared = sameDay.filter((other) => sameMachine(other, task))
  const last = shared.at(-1)
  if (last?.id === task.id && shared.length > 1) {
    const other = shared.find(({ personId }) => personId !== null && task.personId !== null && personId !== task.personId)
    if (other || load(shared) > WORKING_DAY_MIN)
      found.push({
        kind: 'machine',
        task: task.id,
        with: (other ?? shared.at(-2))?.id ?? null,
        name: task.machine,
        amount: load(shared) / 60,
        refused: false,
      })
  }
  return found
}

/**
 * Everything that stands in the way of tasks of a schedule: rules of the place, flowers, labels, people in a block that is closed, harvest,
 * notice and consent, licences, and a day that is too short for somebody or for a machine. What was done is held against what is planned, and
 * is in no conflict itself.
 *
 * @param tasks of one site, those that were done among them
 * @returns in the order of the tasks; of a task those first that would be refused
 */
export function conflictsOf(tasks: readonly ScheduledTask[], around: ScheduleAround): Conflict[] {
  return tasks
    .filter(({ done }) => !done)
    .flatMap((task) => {
      const { material, personId, day, id } = task
      const found = [
        ...ruleConflicts(task, around),
        ...bloomConflict(task, around),
        ...tasks.flatMap((other) => spacingConflict(task, other)),
        ...tasks.flatMap((other) => entryConflict(task, other)),
        ...harvestConflicts(task, tasks, around),
        ...rotationConflict(task, tasks, around),
        ...(material?.licensedOnly && personId !== null && !around.isLicensed(personId, day)
          ? [{ kind: 'licence' as const, task: id, with: null, name: material.name, amount: null, refused: false }]
          : []),
        ...loadConflicts(task, tasks),
      ]
      return found.sort((a, b) => Number(b.refused) - Number(a.refused))
    })
}
