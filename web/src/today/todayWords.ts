import type { WatchHours } from '@bocado/contract'
import type { TodayLine } from '../band/today.js'
import { rowSentence } from '../band/words.js'
import type { Format } from '../design/useFormat.js'
import type { Say } from '../messages/useText.js'
import { errandPath, errandWhat, errandWhy } from '../scouting/errandWords.js'
import { runsOf } from '../windows/useHours.js'
import '../messages/en/field.js'
import '../messages/en/today.js'
import '../messages/en/windows.js'

const clock = (hour: number): string => `${String(hour % 24).padStart(2, '0')}:00`

/** The name of what a step is done with. */
export type NameOf = (step: { productId: string | null; methodId: string | null }) => string

/** What has to be done, in a few words. */
export function lineWhat(line: TodayLine, t: Say, nameOf: NameOf): string {
  const { kind, treatment, row, rows = [], errand, blooms = [] } = line
  if (kind === 'deed') return t('today.deed', { name: treatment?.name ?? '', place: treatment?.placeName ?? '' })
  if (kind === 'supply') return t('today.supply', { name: line.living?.name ?? '', state: line.living?.state ?? 'order' })
  if (kind === 'step') return t('today.step', { name: line.step ? nameOf(line.step.step) : '', organism: row?.organismName ?? '' })
  if (kind === 'decide') {
    const isCounted = row?.rounds.some(({ checkAreaId, crossed }) => checkAreaId === null && crossed) === true && !row.infection
    return t('today.decide', { organism: row?.organismName ?? '', state: isCounted ? 'counted' : 'presses' })
  }
  if (kind === 'judge') return t('today.judge', { name: treatment?.name ?? '', organism: row?.organismName ?? '' })
  if (kind === 'months') return t('today.lookOver', { names: rows.map(({ organismName }) => organismName).join(', ') })
  if (kind === 'bloom') {
    const plants = [...new Set(blooms.map(({ name }) => name))]
    return t('today.bloom', { plants: plants.join(', ') })
  }
  if (kind === 'flags') return t('today.flags', { count: errand?.flags?.length ?? 0 })
  if (kind === 'plots') return t('today.plots', { count: errand?.plots?.length ?? 0 })
  return errand ? errandWhat(errand, t) : ''
}

/** Where it is done. */
export function linePath({ kind, treatment, row, errand, living }: TodayLine, siteId: string): string {
  if (kind === 'deed') return `/sites/${siteId}/treatments?record=${treatment?.id ?? ''}`
  if (kind === 'supply') return `/sites/${siteId}/schedule?from=${living?.plannedOn ?? ''}&task=deed ${living?.treatmentId ?? ''}`
  if (kind === 'decide' || kind === 'step') return `/sites/${siteId}/windows?watch=${row?.watch.id ?? ''}`
  if (kind === 'judge') return `/sites/${siteId}/scouting/${row?.watch.id ?? ''}/count`
  if (kind === 'bloom') return `/sites/${siteId}/bloom`
  if (kind === 'months') return `/sites/${siteId}/scouting?panel=walk`
  return errand ? errandPath(errand, siteId) : ''
}

/** By when: the hours of today where they are known, else the day. */
export function lineWhen({ kind, due }: TodayLine, hours: WatchHours | undefined, t: Say, f: Format): string {
  if (due < f.today) return t('today.when.overdue', { date: f.date(due) })
  if (due === f.today && kind === 'deed' && hours && hours.members > 0) {
    const run = runsOf(hours).find(({ from }) => from < 24)
    return run ? t('today.when.hours', { from: clock(run.from), until: clock(run.until) }) : t('today.when.noHour')
  }
  if (due === f.today) return t('today.when.today')
  return due === f.nudge(f.today, 1) ? t('today.when.tomorrow') : t('today.when.by', { date: f.date(due) })
}

/** On what it rests: the kind of clock first, then what that says. */
export function lineWhy(
  { kind, restsOn, row, treatment, errand, step, living, blooms = [] }: TodayLine,
  season: string,
  t: Say,
  f: Format,
): string {
  const says: string[] = [t(`today.rests.${restsOn}`)]
  if (errand) says.push(errandWhy(errand, t, f))
  if (living) says.push(t('today.plannedFor', { date: f.date(living.plannedOn) }))
  if (step) says.push(t('today.stepOf', { programme: step.programme.name, nth: step.at + 1 }))
  if (kind === 'judge' && treatment?.done) says.push(t('today.judgeWhy', { date: f.date(treatment.done.day) }))
  if (kind === 'months') says.push(t('walk.because.months'))
  if (row && (kind === 'deed' || kind === 'decide' || restsOn === 'dates' || restsOn === 'bloom')) says.push(rowSentence(row, t, f))
  const last = row?.rounds.findLast(({ checkAreaId }) => checkAreaId === null)
  if (kind === 'decide' && last)
    says.push(t('today.counted', { count: f.number(last.per100, 1), items: last.unit.many, date: f.date(last.countedOn) }))
  for (const { name, eventName, date } of blooms)
    if (date.p10 !== null && date.p90 !== null)
      says.push(
        t('today.expected', { what: `${name}, ${eventName}`, span: f.span(f.seasonDay(season, date.p10), f.seasonDay(season, date.p90)) }),
      )
  return says.filter(Boolean).join(' · ')
}
