import { endpoints, type CalibratedEvent, type EventRecord, type WatchForecast } from '@bocado/contract'
import type { DayOrder } from '@bocado/core/time'
import { useState } from 'react'
import styled from 'styled-components'
import { useRead, useWrite } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { Choice, Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { DayOrderChoice } from '../design/DayOrderChoice.js'
import { DraftNote, FormError } from '../design/FormError.js'
import { FormLine } from '../design/FormLine.js'
import { Caution, Fields, Figure, Heading, Line, Rows, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { Waiting } from '../shell/Waiting.js'
import { CalibrationPicture } from './CalibrationPicture.js'
import { OwnClock } from './OwnClock.js'
import { TypedFigures } from './TypedFigure.js'
import { checksOf } from './pastedChecks.js'
import '../messages/en/field.js'
import '../messages/en/figures.js'
import '../messages/en/records.js'
import '../messages/en/windows.js'

const Words = styled.div`
  flex: 1 1 24ch;
  &::first-letter {
    text-transform: uppercase;
  }
`

/** What was seen of a watch's organism in its block, this season and before, and what it says of the numbers of the model. */
export function OwnRecords({ forecast }: { forecast: WatchForecast }) {
  const t = useText()
  const site = useSite()
  const [adding, setAdding] = useState<'none' | 'sighting' | 'catches'>('none')
  const { data } = useRead(endpoints.calibration.get, { params: { siteId: site.id, watchId: forecast.watch.id }, input: {} })
  if (!data) return <Waiting />
  // Where a figure is only a placeholder, dates make a clock of their own instead of moving it.
  const fitted = data.events.filter(({ event }) => !data.clocks.some((clock) => clock.event === event))
  return (
    <Stack $gap={18}>
      <Heading>{t('records.title')}</Heading>
      {data.records.length === 0 ? <p>{t('records.none')}</p> : null}
      {fitted.map((event) => (
        <EventFit key={event.event} event={event} forecast={forecast} />
      ))}
      {data.clocks.map((clock) => (
        <OwnClock key={clock.event} of={clock} watchId={forecast.watch.id} />
      ))}
      <TypedFigures forecast={forecast} typed={data.typed} />
      {adding === 'none' ? (
        <Line>
          <Button $plain onPress={() => setAdding('sighting')}>
            {t('records.addSighting')}
          </Button>
          {forecast.events.length > 0 && (forecast.kind === 'insect' || forecast.kind === 'mite') ? (
            <Button $plain onPress={() => setAdding('catches')}>
              {t('records.addCatches')}
            </Button>
          ) : null}
        </Line>
      ) : null}
      {adding === 'sighting' ? <AddSighting forecast={forecast} onDone={() => setAdding('none')} /> : null}
      {adding === 'catches' ? <AddCatches forecast={forecast} onDone={() => setAdding('none')} /> : null}
      {data.records.length > 0 ? <RecordList records={data.records} forecast={forecast} /> : null}
    </Stack>
  )
}

/** One event: what its number was, what each season says, and what both make together. */
function EventFit({ event, forecast }: { event: CalibratedEvent; forecast: WatchForecast }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const accept = useWrite(endpoints.calibration.accept)
  const { posterior, skill, flight, left } = event
  return (
    <Stack data-testid={`fit-${event.event}`}>
      <Heading as="h3">{event.name}</Heading>
      {posterior ? (
        <>
          <CalibrationPicture event={event} />
          <p>
            {t('records.posterior', {
              seasons: event.seasons.length,
              heat: f.heat(posterior.heat),
              prior: f.heat(event.prior.heat),
              share: f.percent(posterior.weight),
            })}
          </p>
          {flight ? (
            <p>
              {t('records.flight', {
                sd: f.heat(flight.sd),
                low: f.heat(flight.low),
                high: f.heat(flight.high),
                prior: f.heat(flight.prior),
                catches: flight.catches,
                intervals: flight.intervals,
              })}
            </p>
          ) : null}
          <p>
            {skill
              ? t('records.skill', {
                  seasons: skill.own.seasons,
                  own: f.number(skill.own.error, 1),
                  prior: f.number(skill.prior.error, 1),
                  better: betterOf(skill.own.error, skill.prior.error),
                  inside: Math.round(skill.own.coverage * skill.own.seasons),
                })
              : t('records.oneSeason')}
          </p>
          {event.accepted ? (
            <p>{t('records.accepted')}</p>
          ) : (
            <Line>
              <Button
                onPress={() => void accept.save({ params: { siteId: site.id, watchId: forecast.watch.id }, input: { event: event.event } })}
                isDisabled={accept.isBarred}
              >
                {t('records.accept')}
              </Button>
            </Line>
          )}
        </>
      ) : null}
      {left.map(({ season, reason }) => (
        <Caution key={season}>{t(`records.left.${reason}`, { season: season.slice(0, 4) })}</Caution>
      ))}
    </Stack>
  )
}

/** Less than a tenth of a day is no difference. */
const betterOf = (own: number, prior: number): string => (Math.abs(own - prior) < 0.1 ? 'same' : own < prior ? 'yes' : 'no')

const eventOptions = ({ events }: WatchForecast) => events.map(({ id, name }) => ({ id, label: name }))
/** Everything that can be dated, with a figure or without. */
const datable = ({ events, named }: WatchForecast) =>
  [...events, ...named.filter(({ id }) => !events.some((event) => event.id === id))].map(({ id, name }) => ({ id, label: name }))

function AddSighting({ forecast, onDone }: { forecast: WatchForecast; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const entry = useEntry(
    endpoints.calibration.addSighting,
    {
      event: datable(forecast)[0]?.id ?? '',
      kind: 'first' as 'first' | 'half',
      seenOn: null as string | null,
      lookedBefore: null as string | null,
      note: '',
    },
    null,
    forecast.watch.id,
  )
  const { values, set, errors } = entry
  const save = async (): Promise<void> => {
    if (await entry.submit({ siteId: site.id, watchId: forecast.watch.id }, (v) => ({ ...v, seenOn: v.seenOn ?? '' }))) onDone()
  }
  return (
    <Stack>
      <Fields>
        <Select
          label={t('records.event')}
          placeholder={t('choose')}
          width="24ch"
          options={datable(forecast)}
          value={values.event}
          onChange={(event) => set({ event })}
          error={errors['event']}
        />
        <DateField label={t('records.seenOn')} value={values.seenOn} onChange={(seenOn) => set({ seenOn })} error={errors['seenOn']} />
        <DateField
          label={t('records.lookedBefore')}
          value={values.lookedBefore}
          onChange={(lookedBefore) => set({ lookedBefore })}
          error={errors['lookedBefore']}
        />
      </Fields>
      <Choice
        label={t('records.kind')}
        options={(['first', 'half'] as const).map((id) => ({ id, label: t(`records.kind.${id}`) }))}
        value={values.kind}
        onChange={(kind) => set({ kind })}
      />
      <TextField label={t('records.note')} width="40ch" value={values.note} onChange={(note) => set({ note })} error={errors['note']} />
      <Small>{t('records.anySeason')}</Small>
      <DraftNote entry={entry} />
      <FormError text={entry.general} />
      <SaveLine onSave={() => void save()} onDone={onDone} isBarred={entry.isBarred} />
    </Stack>
  )
}

function AddCatches({ forecast, onDone }: { forecast: WatchForecast; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const entry = useEntry(
    endpoints.calibration.addCatches,
    {
      event: forecast.events[0]?.id ?? '',
      hungOn: null as string | null,
      checks: '',
      note: '',
    },
    null,
    forecast.watch.id,
  )
  const { values, set, errors } = entry
  const [wrongLine, setWrongLine] = useState<string | null>(null)
  const [order, setOrder] = useState<DayOrder | null>(null)
  const [unclear, setUnclear] = useState<string | undefined>()
  const save = async (): Promise<void> => {
    const read = checksOf(values.checks, order)
    setWrongLine(read.wrong === undefined ? null : t('records.wrongLine', { line: read.wrong.line, text: read.wrong.text }))
    setUnclear(read.unclear)
    if (read.wrong !== undefined || read.unclear !== undefined) return
    const params = { siteId: site.id, watchId: forecast.watch.id }
    if (await entry.submit(params, (v) => ({ ...v, hungOn: v.hungOn ?? '', checks: read.checks }))) onDone()
  }
  const refused = Object.entries(errors).find(([path]) => path.startsWith('checks'))?.[1]
  return (
    <Stack>
      <Fields>
        <Select
          label={t('records.caughtEvent')}
          placeholder={t('choose')}
          width="24ch"
          options={eventOptions(forecast)}
          value={values.event}
          onChange={(event) => set({ event })}
          error={errors['event']}
        />
        <DateField label={t('records.hungOn')} value={values.hungOn} onChange={(hungOn) => set({ hungOn })} error={errors['hungOn']} />
      </Fields>
      <TextField
        label={t('records.checks')}
        width="36ch"
        rows={6}
        value={values.checks}
        onChange={(checks) => {
          setWrongLine(null)
          set({ checks })
        }}
        error={wrongLine ?? refused}
      />
      <Small>{t('records.checksHow')}</Small>
      {unclear ? <DayOrderChoice example={unclear} value={order} onChange={setOrder} /> : null}
      <DraftNote entry={entry} />
      <FormError text={entry.general} />
      <SaveLine onSave={() => void save()} onDone={onDone} isBarred={entry.isBarred} />
    </Stack>
  )
}

function SaveLine(p: { onSave: () => void; onDone: () => void; isBarred: boolean }) {
  const t = useText()
  return (
    <FormLine onSave={p.onSave} onLeave={p.onDone} isBarred={p.isBarred}>
      <Button onPress={p.onSave} isDisabled={p.isBarred}>
        {t('save')}
      </Button>
      <Button $plain onPress={p.onDone}>
        {t('cancel')}
      </Button>
    </FormLine>
  )
}

/** Records by season, newest first; the checks of a trap stand on one line until they are opened. */
function RecordList({ records, forecast }: { records: readonly EventRecord[]; forecast: WatchForecast }) {
  const t = useText()
  const f = useFormat()
  const [open, setOpen] = useState<string | null>(null)
  const nameOf = (id: string): string => datable(forecast).find((event) => event.id === id)?.label ?? id
  const groups = new Map<string, EventRecord[]>()
  for (const record of records) {
    const key = `${record.season} ${record.event} ${record.kind === 'catch' ? `catch ${record.trap?.id ?? ''}` : record.id}`
    groups.set(key, [...(groups.get(key) ?? []), record])
  }
  return (
    <Rows data-testid="records">
      {[...groups].reverse().map(([key, group]) => {
        const [first, last] = [group[0], group.at(-1)]
        if (!first || !last) return null
        if (first.kind !== 'catch')
          return (
            <li key={key}>
              <Line>
                <Words>
                  {t('records.seen', {
                    kind: first.kind,
                    name: nameOf(first.event),
                    date: f.withYear(first.seenOn),
                    before: first.lookedBefore ? f.withYear(first.lookedBefore) : 'none',
                    by: first.personName,
                  })}
                  {first.note ? ` ${first.note}` : ''}
                </Words>
                <RemoveRecord record={first} name={nameOf(first.event)} />
              </Line>
            </li>
          )
        return (
          <li key={key}>
            <Line>
              <Words>
                {t('records.catches', {
                  name: nameOf(first.event),
                  checks: group.length,
                  caught: group.reduce((sum, { caught }) => sum + (caught ?? 0), 0),
                  from: f.withYear(first.seenOn),
                  to: f.withYear(last.seenOn),
                })}
              </Words>
              <TextButton onPress={() => setOpen(open === key ? null : key)} aria-expanded={open === key}>
                {t(open === key ? 'records.hideChecks' : 'records.showChecks')}
              </TextButton>
            </Line>
            {open === key
              ? group.map((record) => (
                  <Line key={record.id}>
                    <Words>
                      {f.date(record.seenOn)}: <Figure>{f.number(record.caught ?? 0)}</Figure>
                    </Words>
                    <RemoveRecord record={record} name={f.date(record.seenOn)} />
                  </Line>
                ))
              : null}
          </li>
        )
      })}
    </Rows>
  )
}

function RemoveRecord({ record, name }: { record: EventRecord; name: string }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  return (
    <RemoveButton
      remove={endpoints.calibration.removeRecord}
      restore={endpoints.calibration.restoreRecord}
      params={{ siteId: site.id, recordId: record.id }}
      rowVersion={record.rowVersion}
      label={t('records.removeOne', { name, date: f.withYear(record.seenOn) })}
      said={t('records.removed', { name })}
    />
  )
}
