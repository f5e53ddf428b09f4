import { endpoints, type Job } from '@bocado/contract'
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import { useWrite } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { canMove, type Conflict, type Task } from '../band/schedule.js'
import { Button, TextButton } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { NumberField } from '../design/NumberField.js'
import { Caution, Fields, Heading, Line, Quiet, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText, type Say } from '../messages/useText.js'
import { LivingThere } from '../living/LivingThere.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import type { Moving } from './Board.js'
import { JobForm } from './JobForm.js'
import { taskPath, taskWhat } from './taskWords.js'
import type { ScheduleHere } from './useSchedule.js'
import '../messages/en/field.js'
import '../messages/en/walk.js'
import '../messages/en/weeks.js'

/** What it is on the left, what is done with it on the right. */
const Panel = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 8px 28px;
  @media (max-width: 960px) {
    grid-template-columns: minmax(0, 1fr);
  }
`

interface Props {
  task: Task
  here: ScheduleHere
  moving: Moving | null
  onThink: (moving: Moving | null) => void
  onDrop: (moving: Moving) => void
  conflicts: readonly Conflict[]
  says: (conflict: Conflict) => string
  reached: ReadonlyMap<string, number>
}

/** What is known of the chosen task: what stands in its way, what another day would be, who sees to it, and the way to doing it. */
export function TaskPanel({ task, here, moving, onThink, onDrop, conflicts, says, reached }: Props) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [open, setOpen] = useState<'who' | 'job' | null>(null)
  const day = moving?.day ?? task.day
  const what = taskWhat(task, here, t)
  const path = taskPath(task, site.id)
  const step = (by: number): void => {
    const next = f.nudge(day, by)
    onThink(next === task.day ? null : { id: task.id, day: next })
  }
  const best = [...reached].sort((a, b) => b[1] - a[1])[0]
  const share = reached.get(day)
  if (open === 'job' && task.job) return <JobForm job={task.job} blocks={here.blocks} onDone={() => setOpen(null)} />
  return (
    <Panel data-testid="schedule-task" aria-live="polite">
      <Stack $gap={8}>
        <Heading>
          {t('weeks.taskLabel', { what, place: here.blockName(task.blockId), date: f.dateInDays(day), who: 'none', count: 0 })}
        </Heading>
        {conflicts.map((conflict, i) => (
          <Caution key={i}>{says(conflict)}</Caution>
        ))}
        {share === undefined ? null : (
          <p>
            {t('weeks.reachesOn', { date: f.date(day), share: f.percent(share) })}{' '}
            {best && best[0] !== day ? <Quiet>{t('weeks.bestOn', { date: f.date(best[0]), share: f.percent(best[1]) })}</Quiet> : null}
          </p>
        )}
        {task.treatment && !task.done ? <LivingThere treatmentId={task.treatment.id} /> : null}
      </Stack>
      {open === 'who' ? (
        <Who task={task} asks={conflicts.map(({ kind }) => kind)} onDone={() => setOpen(null)} />
      ) : (
        <Stack $gap={8}>
          {task.done ? null : canMove(task) ? (
            <Line>
              <TextButton onPress={() => step(-1)} isDisabled={day <= site.today}>
                {t('weeks.dayEarlier')}
              </TextButton>
              <TextButton onPress={() => step(1)}>{t('weeks.dayLater')}</TextButton>
            </Line>
          ) : task.kind === 'step' ? null : (
            <Small>{t('weeks.notMoved')}</Small>
          )}
          {moving ? (
            <Line>
              <Button onPress={() => onDrop(moving)} isDisabled={conflicts.some(({ refused, task: id }) => refused && id === task.id)}>
                {t('weeks.moveTo', { date: f.date(moving.day) })}
              </Button>
              <TextButton onPress={() => onThink(null)}>{t('weeks.letBe')}</TextButton>
            </Line>
          ) : null}
          <p>
            <Arranged task={task} />{' '}
            {task.done ? null : (
              <TextButton aria-label={t('weeks.whoOne')} onPress={() => setOpen('who')}>
                {t('edit')}
              </TextButton>
            )}
          </p>
          <Line>
            {path === null || task.done ? null : <Link to={path}>{goWords(task, t)}</Link>}
            {task.row && task.kind === 'deed' ? (
              <Link to={`/sites/${site.id}/windows?watch=${task.row.watch.id}`}>{t('weeks.go.window')}</Link>
            ) : null}
            {task.job ? <JobActs job={task.job} onChange={() => setOpen('job')} /> : null}
          </Line>
        </Stack>
      )}
    </Panel>
  )
}

function goWords({ kind }: Task, t: Say): string {
  if (kind === 'job') return ''
  return kind === 'deed' || kind === 'step' ? t(`weeks.go.${kind}`) : t(`walk.go.${kind}`)
}

/** Who sees to it and with what, and what was said to others. */
function Arranged({ task: { arrangement, minutes } }: { task: Task }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { personId = null, machine = '', noticeOn = null, consentOn = null } = arrangement ?? {}
  const name = site.people.find(({ id }) => id === personId)?.name
  return t('weeks.arranged', {
    who: name ?? t('weeks.nobodyNamed'),
    machine: machine === '' ? 'none' : machine,
    minutes: Math.round(minutes ?? 0),
    notice: noticeOn === null ? 'none' : f.shortDate(noticeOn),
    consent: consentOn === null ? 'none' : f.shortDate(consentOn),
  })
}

const NOBODY = 'nobody'

/** What rules of the place ask to be said to others is asked for where they ask it. */
function Who({ task: { key, arrangement }, asks, onDone }: { task: Task; asks: readonly Conflict['kind'][]; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const entry = useEntry(
    endpoints.schedule.arrange,
    {
      personId: arrangement?.personId ?? NOBODY,
      machine: arrangement?.machine ?? '',
      minutes: arrangement?.minutes ?? (null as number | null),
      noticeOn: arrangement?.noticeOn ?? (null as string | null),
      consentOn: arrangement?.consentOn ?? (null as string | null),
      consentBy: arrangement?.consentBy ?? '',
    },
    arrangement,
    key,
  )
  const save = async (): Promise<void> => {
    const stored = await entry.submit({ siteId: site.id }, (v, rowVersion) => ({
      ...v,
      task: key,
      personId: v.personId === NOBODY ? null : v.personId,
      rowVersion,
    }))
    if (stored) onDone()
  }
  const people = site.people.filter(({ role }) => role !== 'viewer' && role !== 'volunteer')
  return (
    <Stack>
      <Fields>
        <Select
          label={t('weeks.who')}
          placeholder={t('choose')}
          width="19ch"
          options={[{ id: NOBODY, label: t('weeks.nobody') }, ...people.map(({ id, name }) => ({ id, label: name }))]}
          {...entry.bind.choice('personId')}
        />
        <TextField label={t('weeks.machine')} width="16ch" {...entry.bind.text('machine')} />
        <NumberField label={t('weeks.minutes')} width="10ch" {...entry.bind.number('minutes')} />
      </Fields>
      {asks.includes('notice') || arrangement?.noticeOn ? <DateField label={t('weeks.noticeOn')} {...entry.bind.day('noticeOn')} /> : null}
      {asks.includes('consent') || arrangement?.consentOn ? (
        <Fields>
          <DateField label={t('weeks.consentOn')} {...entry.bind.day('consentOn')} />
          <TextField label={t('weeks.consentBy')} width="22ch" {...entry.bind.text('consentBy')} />
        </Fields>
      ) : null}
      <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
    </Stack>
  )
}

function JobActs({ job, onChange }: { job: Job; onChange: () => void }) {
  const t = useText()
  const site = useSite()
  const { save, isBarred } = useWrite(endpoints.schedule.updateJob)
  const params = { siteId: site.id, jobId: job.id }
  const { id: _, ...fields } = job
  const set = (doneOn: string | null): void => void save({ params, input: { ...fields, doneOn } })
  return (
    <>
      <TextButton isDisabled={isBarred} onPress={() => set(job.doneOn === null ? site.today : null)}>
        {t(job.doneOn === null ? 'weeks.jobDone' : 'weeks.jobUndone')}
      </TextButton>
      <TextButton onPress={onChange}>{t('weeks.jobChange')}</TextButton>
      <RemoveButton
        remove={endpoints.schedule.removeJob}
        restore={endpoints.schedule.restoreJob}
        params={params}
        rowVersion={job.rowVersion}
        label={t('weeks.jobRemove', { name: job.name })}
        said={t('weeks.jobRemoved', { name: job.name })}
      />
    </>
  )
}
