import type { Conflict, Task } from '../band/schedule.js'
import type { Format } from '../design/useFormat.js'
import type { Say } from '../messages/useText.js'
import { errandPath, errandWhat } from '../scouting/errandWords.js'
import type { ScheduleHere } from './useSchedule.js'
import '../messages/en/today.js'
import '../messages/en/weeks.js'

/** What a task is, in a few words. */
export function taskWhat(task: Task, here: Pick<ScheduleHere, 'products' | 'methods'>, t: Say): string {
  const { kind, treatment, step, job, errands = [], row } = task
  if (kind === 'job') return job?.name ?? ''
  if (kind === 'deed') return t('weeks.deed', { name: treatment?.name ?? '', organism: row?.organismName ?? '' })
  if (kind === 'step') {
    const { productId, methodId } = step?.step ?? { productId: null, methodId: null }
    const name = here.products.find(({ id }) => id === productId)?.name ?? here.methods.find(({ id }) => id === methodId)?.name ?? ''
    return t('weeks.deed', { name, organism: row?.organismName ?? '' })
  }
  return errands.map((errand) => errandWhat(errand, t)).join(', ')
}

/** The same where its picture says what is done. */
export function taskShort(task: Task, here: Pick<ScheduleHere, 'products' | 'methods'>, t: Say): string {
  const { kind, treatment, errands = [] } = task
  if (kind === 'deed') return treatment?.name ?? ''
  if (kind === 'count') return errands.map(({ row }) => row?.organismName ?? '').join(', ')
  if (kind === 'trap') return errands.map(({ trap }) => trap?.name ?? '').join(', ')
  if (kind === 'flags') return errands.flatMap(({ flags = [] }) => flags.map(({ number }) => `#${number}`)).join(' ')
  if (kind === 'plots') return errands.flatMap(({ plots = [] }) => plots.map(({ number }) => number)).join(' ')
  if (kind === 'arrival') return errands.map(({ arrival }) => arrival?.name ?? '').join(', ')
  return taskWhat(task, here, t)
}

/** Where it is seen to. */
export function taskPath({ kind, treatment, row, errands: [first] = [] }: Task, siteId: string): string | null {
  if (kind === 'deed') return `/sites/${siteId}/treatments?record=${treatment?.id ?? ''}`
  if (kind === 'step') return `/sites/${siteId}/windows?watch=${row?.watch.id ?? ''}`
  return first ? errandPath(first, siteId) : null
}

/** What stands in the way, and what to do about it. */
export function conflictSays(
  { kind, task: id, with: otherId, name, amount }: Conflict,
  at: {
    tasks: readonly Task[]
    here: Pick<ScheduleHere, 'products' | 'methods'>
    people: readonly { id: string; name: string }[]
    moved?: { id: string; day: string } | undefined
  },
  t: Say,
  f: Format,
): string {
  const dayOf = (one: Task | undefined): string => (one ? f.date(one.id === at.moved?.id ? at.moved.day : one.day) : '')
  const [task, other] = [at.tasks.find((one) => one.id === id), at.tasks.find((one) => one.id === otherId)]
  // The other one was in the season before, and stands on no board.
  if (kind === 'rotation' && otherId !== null && !other)
    return t('weeks.overWinter', { what: task ? taskWhat(task, at.here, t) : '', name })
  return t(`weeks.conflict.${kind}`, {
    what: task ? taskWhat(task, at.here, t) : '',
    date: dayOf(task),
    other: other ? taskWhat(other, at.here, t) : name,
    otherDate: dayOf(other),
    who: at.people.find((person) => person.id === task?.arrangement?.personId)?.name ?? '',
    name,
    amount: amount === null ? 0 : Math.round(amount * 10) / 10,
  })
}
