import { endpoints, type Block, type Organism, type Trap, type WatchForecast } from '@bocado/contract'
import { useState } from 'react'
import { useWrite } from '../api/hooks.js'
import { nameOf } from '../api/unsent.js'
import { useEntry } from '../api/useEntry.js'
import { useRecorded } from '../api/useRecorded.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { DayOrderChoice } from '../design/DayOrderChoice.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { NumberField } from '../design/NumberField.js'
import { TwoSided, WithActions } from '../design/sections.js'
import { Caution, Fields, Heading, Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { useUndo } from '../shell/Undo.js'
import { UnsentHere } from '../shell/UnsentHere.js'
import { CaughtBiofix } from '../windows/CaughtBiofix.js'
import { checksOf } from '../windows/pastedChecks.js'
import { CatchPicture } from './CatchPicture.js'
import { CounterPart } from './CounterPart.js'
import { TrapForm, trapInput } from './TrapForm.js'

type Doing = 'check' | 'edit' | 'paste' | null

/** A trap with what it caught last, its next check, and its checks when they are asked for. */
export function TrapLine(p: {
  trap: Trap
  blocks: readonly Block[]
  organisms: readonly Organism[]
  forecast: WatchForecast | undefined
  /** A past season is only looked at. */
  isPast: boolean
}) {
  const t = useText()
  const f = useFormat()
  const { trap, isPast } = p
  const [doing, setDoing] = useState<Doing>(null)
  const [isOpen, setOpen] = useState(false)
  const { name, blockName: block } = trap
  const last = trap.checks.at(-1)
  const total = trap.checks.reduce((sum, { caught }) => sum + caught, 0)
  const organism = p.organisms.find(({ id }) => id === trap.organismId)
  const hangs = trap.takenDownOn === null && !isPast
  if (doing === 'edit')
    return <TrapForm {...p} begins={{ name, blockId: trap.blockId, organismId: trap.organismId }} onDone={() => setDoing(null)} />
  return (
    <TwoSided>
      <Stack>
        <Heading>
          {name} <Quiet style={{ fontSize: 15 }}>{block}</Quiet>
        </Heading>
        <p>
          {t('traps.line', { organism: trap.organismName, date: f.date(trap.hungOn) })}
          {trap.takenDownOn === null ? '' : `, ${t('traps.taken', { date: f.date(trap.takenDownOn) })}`}
          {trap.lure === '' || trap.lureOn === null || !hangs
            ? ''
            : `, ${t('traps.lureAge', {
                lure: [trap.lure, trap.lureLoad].filter(Boolean).join(' '),
                weeks: Math.floor(f.seasonIndex(trap.lureOn, f.today) / 7),
              })}`}
        </p>
        <p>
          {last
            ? t('traps.last', { caught: last.caught, date: f.date(last.day), perDay: f.number(last.perDay, 1), total })
            : t('traps.unchecked')}
        </p>
        {trap.inDisruption ? <Caution>{t('traps.inDisruption')}</Caution> : null}
        {hangs ? <LureDue trap={trap} /> : null}
        {hangs && doing === null ? (
          <Line>
            <Button onPress={() => setDoing('check')} aria-label={t('traps.checkOne', { name, block })}>
              {t('traps.check')}
            </Button>
            <NothingCaught trap={trap} />
          </Line>
        ) : null}
        <UnsentHere of={({ what, input }) => what === nameOf(endpoints.traps.check) && input['trapId'] === trap.id} />
        {doing === 'check' ? <CheckForm trap={trap} onDone={() => setDoing(null)} /> : null}
        {doing === 'paste' ? <PasteForm trap={trap} onDone={() => setDoing(null)} /> : null}
        {p.forecast && trap.watch?.waits && trap.biofix && trap.watch.biofix !== trap.biofix.day && !isPast ? (
          <CaughtBiofix forecast={p.forecast} organism={organism} />
        ) : null}
      </Stack>
      <Stack>
        <CatchPicture trap={trap} />
        <TextButton aria-expanded={isOpen} onPress={() => setOpen(!isOpen)} aria-label={t('traps.open', { name, block })}>
          {t('traps.all')}
        </TextButton>
        {isOpen ? <Opened trap={trap} isPast={isPast} onDo={setDoing} /> : null}
      </Stack>
    </TwoSided>
  )
}

/** Checks of a trap, the newest first, and what can be put right. */
function Opened({ trap, isPast, onDo }: { trap: Trap; isPast: boolean; onDo: (doing: Doing) => void }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [most, setMost] = useState(8)
  const { name, blockName: block } = trap
  const checks = [...trap.checks].reverse()
  return (
    <Stack>
      <Rows>
        {checks.slice(0, most).map((check) => (
          <li key={check.id}>
            <WithActions>
              <span>
                {t('traps.checkLine', {
                  date: f.date(check.day),
                  caught: check.caught,
                  since: f.shortDate(check.since),
                  perDay: f.number(check.perDay, 1),
                })}{' '}
                <Small as="span">
                  {[check.countedBy === 'device' ? t('traps.byDevice') : check.personName, check.note].filter(Boolean).join(', ')}
                </Small>
              </span>
              {isPast ? null : (
                <RemoveButton
                  remove={endpoints.traps.removeCheck}
                  restore={endpoints.traps.restoreCheck}
                  params={{ siteId: site.id, checkId: check.id }}
                  rowVersion={check.rowVersion}
                  label={t('traps.removeCheck', { name, date: f.date(check.day) })}
                  said={t('traps.checkRemoved', { date: f.date(check.day) })}
                />
              )}
            </WithActions>
          </li>
        ))}
      </Rows>
      {checks.length > most ? (
        <TextButton onPress={() => setMost(most + 100)}>{t('traps.moreChecks', { count: checks.length - most })}</TextButton>
      ) : null}
      {trap.lures.length > 1 ? (
        <Small>
          {t('traps.lures', {
            list: trap.lures
              .map(({ lure, load, on }) => t('traps.lureOne', { lure: [lure, load].filter(Boolean).join(' '), date: f.date(on) }))
              .join('; '),
          })}
        </Small>
      ) : null}
      {isPast ? null : (
        <>
          <Line>
            <TextButton onPress={() => onDo('paste')}>{t('traps.paste')}</TextButton>
            <TextButton onPress={() => onDo('edit')}>{t('traps.edit')}</TextButton>
            <RemoveButton
              remove={endpoints.traps.remove}
              restore={endpoints.traps.restore}
              params={{ siteId: site.id, trapId: trap.id }}
              rowVersion={trap.rowVersion}
              label={t('traps.removeOne', { name, block })}
              said={t('traps.removed', { name, block })}
            />
          </Line>
          <CounterPart trap={trap} />
        </>
      )}
    </Stack>
  )
}

/** That a lure is over, and one tap once it is changed. */
function LureDue({ trap }: { trap: Trap }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const undo = useUndo()
  const update = useWrite(endpoints.traps.update)
  if (trap.lureUntil === null || trap.lureUntil > site.today) return null
  const params = { siteId: site.id, trapId: trap.id }
  const change = async (): Promise<void> => {
    const { rowVersion } = await update.save({ params, input: { ...trapInput(trap), lureOn: site.today, rowVersion: trap.rowVersion } })
    undo.offer(t('traps.lureChanged', { name: trap.name, date: f.date(site.today) }), () =>
      update.save({ params, input: { ...trapInput(trap), rowVersion } }),
    )
  }
  return (
    <Line>
      <b>{t('traps.lureDue', { date: f.date(trap.lureUntil) })}</b>
      <Button $plain isDisabled={update.isBarred} onPress={() => void change()} aria-label={t('traps.lureNewOne', { name: trap.name })}>
        {t('traps.lureNew')}
      </Button>
    </Line>
  )
}

/** A check that found an empty trap: recorded by one tap, taken back by another. */
function NothingCaught({ trap }: { trap: Trap }) {
  const t = useText()
  const site = useSite()
  const undo = useUndo()
  const record = useRecorded(endpoints.traps.check)
  const { name, blockName: block } = trap
  const save = async (): Promise<void> => {
    const says = t('traps.says', { name, block, caught: 0 })
    const { takeBack } = await record.save({ params: { siteId: site.id }, input: { trapId: trap.id, day: site.today, caught: 0 } }, says)
    if (takeBack) undo.offer(says, takeBack)
  }
  const isToday = trap.checks.at(-1)?.day === site.today
  return (
    <Button $plain isDisabled={record.isBarred || isToday} onPress={() => void save()} aria-label={t('traps.zeroOne', { name, block })}>
      {t('traps.zero')}
    </Button>
  )
}

/** What it caught since the check before. */
function CheckForm({ trap, onDone }: { trap: Trap; onDone: () => void }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const initial = { day: site.today as string | null, caught: null as number | null, note: '' }
  const entry = useEntry(endpoints.traps.check, initial, null, trap.id)
  const { values, bind } = entry
  const { name, blockName: block } = trap
  const since = trap.checks.findLast(({ day }) => day < (values.day ?? ''))?.day ?? trap.hungOn
  const save = async (): Promise<void> => {
    const says = t('traps.says', { name, block, caught: values.caught ?? 0 })
    const saved = await entry.put({ siteId: site.id }, says, 'scouting?panel=traps', (v) => ({
      trapId: trap.id,
      day: v.day ?? '',
      caught: v.caught,
      note: v.note,
    }))
    if (saved) onDone()
  }
  return (
    <Stack>
      <Fields>
        <NumberField label={t('traps.caught', { date: f.date(since) })} width="18ch" digits={0} {...bind.number('caught')} />
        <DateField label={t('traps.day')} {...bind.day('day')} />
        <TextField label={t('note')} width="24ch" {...bind.text('note')} />
      </Fields>
      <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
    </Stack>
  )
}

/** Checks as they stand in a notebook or a file, a line each. */
function PasteForm({ trap, onDone }: { trap: Trap; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const entry = useEntry(endpoints.traps.paste, { checks: '' }, null, trap.id)
  const [order, setOrder] = useState<Parameters<typeof checksOf>[1]>(null)
  const { values, set, errors } = entry
  const read = checksOf(values.checks, order)
  const save = async (): Promise<void> => {
    if (read.wrong !== undefined || read.unclear !== undefined) return
    if (await entry.submit({ siteId: site.id, trapId: trap.id }, () => ({ checks: read.checks }))) onDone()
  }
  const refused = Object.entries(errors).find(([path]) => path.startsWith('checks'))?.[1]
  return (
    <Stack>
      <TextField
        label={t('records.checks')}
        width="36ch"
        rows={6}
        value={values.checks}
        onChange={(checks) => set({ checks })}
        error={read.wrong === undefined ? refused : t('records.wrongLine', { line: read.wrong.line, text: read.wrong.text })}
      />
      <Small>{t('records.checksHow')}</Small>
      {read.unclear ? <DayOrderChoice example={read.unclear} value={order ?? null} onChange={setOrder} /> : null}
      <EntryEnd entry={entry} onSave={save} onCancel={onDone} words={t('traps.pasteTake')} />
    </Stack>
  )
}
