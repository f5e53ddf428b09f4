import { endpoints } from '@bocado/contract'
import { useDeferredValue, useMemo, useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import styled from 'styled-components'
import { useWrite } from '../api/hooks.js'
import { useMay } from '../api/may.js'
import { useSeasonChoice, useSite } from '../api/workplace.js'
import { conflictsAmong, conflictsByDay, reachedOn, saidOnce, type Conflict, type Task } from '../band/schedule.js'
import { currentWindow } from '../band/urgency.js'
import { TextButton } from '../design/buttons.js'
import { Choice } from '../design/controls.js'
import { Bullets, Empty, Line, Page, Small, Title } from '../design/text.js'
import { colour, PHONE } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { useUndo } from '../shell/Undo.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { Waiting } from '../shell/Waiting.js'
import { Board, type BoardRow, type Moving } from './Board.js'
import { JobForm } from './JobForm.js'
import { TaskPanel } from './TaskPanel.js'
import { conflictSays, taskShort, taskWhat } from './taskWords.js'
import { SHOWN_DAYS, useSchedule, type ScheduleHere } from './useSchedule.js'
import '../messages/en/weeks.js'

/** What is chosen stays in view below the board, however long that is. */
const Docked = styled.div`
  position: sticky;
  bottom: 0;
  z-index: 3;
  max-height: 45vh;
  overflow: auto;
  margin: 0 -20px;
  padding: 12px 20px 14px;
  background: ${colour.sheet};
  border-top: 2px solid ${colour.ink};
  @media ${PHONE} {
    bottom: 60px;
    margin: 0 -14px;
    padding: 12px 14px;
  }
`

/** The weeks ahead on one board: treatments, looks, steps of programmes and other work, by block or by person. */
export function ScheduleScreen() {
  const t = useText()
  usePageTitle(t('nav.schedule'))
  const site = useSite()
  const { isPast } = useSeasonChoice()
  const [search] = useSearchParams()
  const from = search.get('from') ?? ''
  // An address may be typed by hand.
  const here = useSchedule(Number.isNaN(Date.parse(from)) || !/^\d{4}-\d\d-\d\d$/.test(from) ? site.today : from)
  if (isPast)
    return (
      <Page>
        <Title>{t('nav.schedule')}</Title>
        <Empty>
          <p>{t('weeks.past')}</p>
        </Empty>
      </Page>
    )
  return here ? <Weeks here={here} /> : <Waiting />
}

/** Rows of the board: blocks where something is to be done, or everybody who sees to something, with nobody last. */
function rowsOf(
  here: ScheduleHere,
  by: 'block' | 'person',
  people: readonly { id: string; name: string }[],
  words: { site: string; nobody: string },
): BoardRow[] {
  const idOf = (task: Task): string => (by === 'block' ? task.blockId : (task.arrangement?.personId ?? ''))
  const of = (id: string, name: string): BoardRow => ({ id, name, tasks: here.shown.filter((task) => idOf(task) === id) })
  const known = by === 'block' ? here.blocks : people
  const rows = known.map(({ id, name }) => of(id, name))
  const placed = new Set(known.map(({ id }) => id))
  const rest = here.shown.filter((task) => !placed.has(idOf(task)))
  return [...rows, { id: 'rest', name: by === 'block' ? words.site : words.nobody, tasks: rest }].filter(({ tasks }) => tasks.length > 0)
}

function Weeks({ here }: { here: ScheduleHere }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const mayTend = useMay('tend')
  const [search, setSearch] = useSearchParams()
  const [moving, setMoving] = useState<Moving | null>(null)
  const [open, setOpen] = useState<'work' | 'conflicts' | null>(null)
  const move = useMove(here, t)
  const { all, shown, days, surroundings } = here
  const chosen = shown.find(({ id }) => id === search.get('task')) ?? null
  const moved = moving !== null && moving.id === chosen?.id ? moving : undefined
  const by = search.get('by') === 'person' ? 'person' : 'block'
  const [first = '', last = ''] = [days[0], days.at(-1)]
  const set = (changes: Record<string, string | null>): void => {
    const next = new URLSearchParams(search)
    for (const [name, value] of Object.entries(changes))
      if (value === null) next.delete(name)
      else next.set(name, value)
    setSearch(next, { replace: true })
  }
  const conflicts = useMemo(() => conflictsAmong(all, surroundings, moved), [all, surroundings, moved])
  const seen = useMemo(() => new Set(shown.map(({ id }) => id)), [shown])
  const inView = saidOnce(conflicts.filter((one) => seen.has(one.task)))
  const thought = useDeferredValue(chosen)
  const met = useMemo(
    () => (thought ? conflictsByDay(all, surroundings, thought.id, days) : new Map<string, Conflict[]>()),
    [thought, all, surroundings, days],
  )
  const reached = useMemo(() => (thought ? reachedOn(thought, days, here) : new Map<string, number>()), [thought, days, here])
  const window = thought?.row && thought.row.grade === 'dates' && !thought.row.infection ? currentWindow(thought.row) : undefined
  const openOn = (day: string): boolean => {
    if (!window || window.opens.p50 === null || !thought?.row) return false
    const at = f.seasonIndex(thought.row.watch.season, day)
    return at >= Math.floor(window.opens.p50) && (window.closes.p50 === null || at <= window.closes.p50)
  }
  const rows = rowsOf(here, by, site.people, { site: t('weeks.site'), nobody: t('weeks.nobody') })
  const says = (conflict: Conflict): string => conflictSays(conflict, { tasks: all, here, people: site.people, moved }, t, f)
  const drop = (to: Moving): void => {
    setMoving(null)
    const task = shown.find(({ id }) => id === to.id)
    if (task) void move(task, to.day)
  }
  const span = f.span(first, last)
  const label = t('weeks.board', { by: t(`weeks.by.${by}`), span })
  return (
    <Page>
      <Line style={{ justifyContent: 'space-between' }}>
        <Title>
          {t('nav.schedule')}, {span}
        </Title>
        <Line>
          <TextButton onPress={() => set({ from: f.nudge(first, -SHOWN_DAYS), task: null })}>{t('weeks.earlier')}</TextButton>
          {first === site.today ? null : <TextButton onPress={() => set({ from: null, task: null })}>{t('weeks.today')}</TextButton>}
          <TextButton onPress={() => set({ from: f.nudge(first, SHOWN_DAYS), task: null })}>{t('weeks.later')}</TextButton>
          <Choice
            label={t('weeks.by')}
            options={(['block', 'person'] as const).map((id) => ({ id, label: t(`weeks.by.${id}`) }))}
            value={by}
            onChange={(next) => set({ by: next === 'block' ? null : next })}
          />
        </Line>
      </Line>
      <Line style={{ justifyContent: 'space-between' }}>
        {inView.length === 0 ? (
          <Small>{t('weeks.clear')}</Small>
        ) : (
          <TextButton aria-expanded={open === 'conflicts'} onPress={() => setOpen(open === 'conflicts' ? null : 'conflicts')}>
            {t('weeks.inTheWay', { count: inView.length })}
          </TextButton>
        )}
        <Line>
          <Link to={`/sites/${site.id}/schedule/season`}>{t('weeks.season')}</Link>
          <Link to={`/sites/${site.id}/schedule/prevention`}>{t('weeks.prevent')}</Link>
          {open === 'work' || !mayTend ? null : <TextButton onPress={() => setOpen('work')}>{t('weeks.add')}</TextButton>}
        </Line>
      </Line>
      {open === 'conflicts' && inView.length > 0 ? (
        <Bullets data-testid="schedule-conflicts">
          {inView.map((conflict) => (
            <li key={`${conflict.kind} ${conflict.task} ${conflict.with} ${conflict.name}`}>
              <TextButton onPress={() => set({ task: conflict.task })}>{says(conflict)}</TextButton>
            </li>
          ))}
        </Bullets>
      ) : null}
      {open === 'work' ? <JobForm blocks={here.blocks} onDone={() => setOpen(null)} /> : null}
      {rows.length === 0 ? (
        <Empty>
          <p>{t('weeks.none')}</p>
        </Empty>
      ) : (
        <Board
          label={label}
          rows={rows}
          days={days}
          chosen={chosen?.id ?? null}
          onChoose={(id) => {
            setMoving(null)
            set({ task: id })
          }}
          moving={moved ?? null}
          onThink={setMoving}
          onDrop={drop}
          conflicts={conflicts}
          there={(day) => {
            // What no other day would mend is said below, not at each day.
            const found = (met.get(day) ?? []).filter(({ kind }) => !['notice', 'consent', 'licence', 'rotation'].includes(kind))
            const told = found.some(({ refused }) => refused) ? 'refused' : found.length > 0 ? 'told' : null
            return { told, share: reached.get(day) ?? null, open: openOn(day) }
          }}
          what={(task) => taskWhat(task, here, t)}
          short={(task) => taskShort(task, here, t)}
        />
      )}
      {chosen ? (
        <Docked>
          <TaskPanel
            key={chosen.id}
            task={chosen}
            here={here}
            moving={moved ?? null}
            onThink={setMoving}
            onDrop={drop}
            conflicts={saidOnce(conflicts.filter((one) => one.task === chosen.id || one.with === chosen.id))}
            says={says}
            reached={reached}
          />
        </Docked>
      ) : null}
    </Page>
  )
}

/** Moves what can be moved, with the way back. */
function useMove(here: ScheduleHere, t: ReturnType<typeof useText>): (task: Task, day: string) => Promise<void> {
  const f = useFormat()
  const site = useSite()
  const undo = useUndo()
  const deeds = useWrite(endpoints.treatments.move)
  const jobs = useWrite(endpoints.schedule.updateJob)
  return async (task, day) => {
    const { treatment, job } = task
    const said = t('weeks.moved', { name: taskWhat(task, here, t), date: f.date(day) })
    if (treatment) {
      const { id, productId, methodId, placeId, note, plannedOn, rowVersion } = treatment
      const params = { siteId: site.id, treatmentId: id }
      const input = { productId, methodId, placeId, note }
      const stored = await deeds.save({ params, input: { ...input, plannedOn: day, rowVersion } })
      undo.offer(said, () => deeds.save({ params, input: { ...input, plannedOn, rowVersion: stored.rowVersion } }))
    } else if (job) {
      const { id, rowVersion, ...fields } = job
      const params = { siteId: site.id, jobId: id }
      const stored = await jobs.save({ params, input: { ...fields, plannedOn: day, rowVersion } })
      undo.offer(said, () => jobs.save({ params, input: { ...fields, rowVersion: stored.rowVersion } }))
    }
  }
}
