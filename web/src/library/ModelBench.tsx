import { endpoints, type BenchData, type LibraryEntry } from '@bocado/contract'
import { wrap, type Remote } from 'comlink'
import { scaleLinear } from 'd3-scale'
import { useEffect, useMemo, useRef, useState } from 'react'
import { Link, useParams } from 'react-router'
import styled from 'styled-components'
import { useBlocks, useRead } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { useWidth } from '../charts/useWidth.js'
import { Button, TextButton } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { NumberField, readable } from '../design/NumberField.js'
import { FormError } from '../design/FormError.js'
import { FormLine } from '../design/FormLine.js'
import { Caution, Figure, Heading, Line, PlainTable, Small, Stack, Title } from '../design/text.js'
import { colour, font } from '../design/theme.js'
import { differenceOf, measureOf } from '../design/units.js'
import { useFormat } from '../design/useFormat.js'
import { useText, type Say } from '../messages/useText.js'
import { Waiting } from '../shell/Waiting.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import type { BenchChange, BenchResult } from '../workers/bench.js'
import type { BenchWorker } from '../workers/bench.worker.js'
import '../messages/en/field.js'
import '../messages/en/figures.js'
import '../messages/en/library.js'

const METHODS = ['average', 'clamped-average', 'single-sine', 'double-sine', 'single-triangle', 'double-triangle'] as const
const UNCHANGED: BenchChange = { figures: {}, method: null, startIndex: null }

const Two = styled.div`
  display: grid;
  grid-template-columns: minmax(240px, 300px) minmax(0, 1fr);
  gap: 28px;
  align-items: start;
  > div {
    grid-template-columns: minmax(0, 1fr);
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
  }
`
const Picture = styled.div`
  overflow: hidden;
  svg {
    display: block;
  }
  text {
    font: 13px ${font.text};
    fill: ${colour.ink};
  }
  .soft {
    fill: ${colour.inkSoft};
  }
`

/** The bench: other thresholds, methods, starts and figures, and the season that they make, at once. */
export function ModelBench() {
  const { organismId = '' } = useParams()
  const t = useText()
  const site = useSite()
  const [blockId, setBlockId] = useState('site')
  const { data: blocks = [] } = useBlocks(site.id)
  const input = blockId === 'site' ? {} : { blockId }
  const params = { siteId: site.id, organismId }
  const { data: entry } = useRead(endpoints.library.entry, { params, input })
  usePageTitle(entry && t('bench.title', { name: entry.name }))
  const { data } = useRead(endpoints.bench.data, { params, input })
  if (!entry || !data) return <Waiting />
  return (
    <Stack $gap={16}>
      <div>
        <Title as="h2">{t('bench.title', { name: entry.name })}</Title>
        <Link to={`/sites/${site.id}/library/organisms/${organismId}`}>{t('check.back')}</Link>
      </div>
      <Select
        label={t('organism.where')}
        placeholder={t('choose')}
        width="24ch"
        options={[{ id: 'site', label: t('organism.wholeSite') }, ...blocks.map(({ id, name }) => ({ id, label: name }))]}
        value={blockId}
        onChange={setBlockId}
      />
      {data.weather.observed.length === 0 ? (
        <p>{t('bench.noWeather')}</p>
      ) : (
        <Desk key={blockId} entry={entry} data={data} blockId={blockId === 'site' ? null : blockId} />
      )}
    </Stack>
  )
}

function useBench(data: BenchData) {
  const [worker, setWorker] = useState<{ remote: Remote<BenchWorker>; values: Record<string, number> } | null>(null)
  useEffect(() => {
    const thread = new Worker(new URL('../workers/bench.worker.ts', import.meta.url), { type: 'module' })
    const remote = wrap<BenchWorker>(thread)
    let current = true
    void remote.start(data).then((values) => current && setWorker({ remote, values }))
    return () => {
      current = false
      thread.terminate()
    }
  }, [data])
  return worker
}

function Desk({ entry, data, blockId }: { entry: LibraryEntry; data: BenchData; blockId: string | null }) {
  const t = useText()
  const f = useFormat()
  const worker = useBench(data)
  const events = useMemo(() => entry.generations.flatMap((g) => g.events), [entry])
  const [change, setChange] = useState<BenchChange>(UNCHANGED)
  const [of, setOf] = useState(events[0]?.id ?? '')
  const [base, setBase] = useState<BenchResult | null>(null)
  const [result, setResult] = useState<BenchResult | null>(null)
  const [refused, setRefused] = useState<string | null>(null)
  const [keeping, setKeeping] = useState(false)
  /** The day from which heat shall count, as it is typed. */
  const [start, setStart] = useState<string | null>(null)
  const asked = useRef(0)
  const changedAt = useRef(0)
  const [redrawn, setRedrawn] = useState<number | null>(null)
  // A figure is tried by its own error where it has one.
  const errors = useMemo(
    () =>
      Object.fromEntries(
        entry.figures.filter(({ path }) => path.endsWith('.heatSe')).map(({ path, value }) => [path.replace(/Se$/, ''), value]),
      ),
    [entry],
  )
  useEffect(() => {
    if (!worker) return
    const turn = ++asked.current
    void worker.remote.run(change, of, errors).then((answer) => {
      // Only the newest change is drawn.
      if (turn !== asked.current) return
      if ('refused' in answer) setRefused(answer.refused)
      else {
        setRefused(null)
        setResult(answer)
        if (change === UNCHANGED) setBase((before) => before ?? answer)
      }
      requestAnimationFrame(() => changedAt.current > 0 && setRedrawn(Math.round(performance.now() - changedAt.current)))
    })
  }, [worker, change, of, errors])
  const make = (next: BenchChange): void => {
    changedAt.current = performance.now()
    setChange(next)
  }
  if (!worker || !result || !base) return <Waiting />
  const unitOf = (path: string): string => entry.figures.find((figure) => figure.path === path)?.unit ?? '1'
  /** A day of this season by its number; null for a day of another. */
  const indexOf = (day: string): number | null => {
    const index = f.seasonIndex(data.season, day)
    return index >= 0 && index < data.weather.length ? index : null
  }
  const value = (path: string): number => change.figures[path] ?? worker.values[path] ?? 0
  const nameOf = (path: string): string => {
    const [subject = '', ...rest] = path.split('.')
    const named = events.find(({ id }) => id === subject)?.name
    const part = t(`figures.part.${rest.at(-1) ?? ''}` as Parameters<Say>[0])
    return named
      ? t('figures.name', { subject: named, part })
      : t('figures.name', { subject: t(`figures.within.${subject}` as Parameters<Say>[0]), part })
  }
  // An expected biofix counts only as long as none was entered.
  const expects = data.start.expected !== null && change.startIndex === null
  const shownPaths = Object.keys(worker.values).filter(
    (path) => path.startsWith('heat.') || (expects && path.startsWith('biofix.')) || path.startsWith(`${of}.`),
  )
  const dirty = Object.keys(change.figures).length > 0 || change.method !== null || change.startIndex !== null
  return (
    <Two data-testid="bench" data-redrawn-ms={redrawn ?? ''}>
      <Stack>
        <Select
          label={t('bench.event')}
          placeholder={t('choose')}
          width="100%"
          options={events.map(({ id, name }) => ({ id, label: name }))}
          value={of}
          onChange={setOf}
        />
        <Select
          label={t('own.method')}
          placeholder={t('choose')}
          width="100%"
          options={METHODS.map((id) => ({ id, label: t(`method.${id}`) }))}
          value={change.method ?? (data.model as { heat: { method: string } }).heat.method}
          onChange={(method) => make({ ...change, method: method as (typeof METHODS)[number] })}
        />
        {shownPaths.map((path) => {
          const measure = measureOf(unitOf(path), f.measures)
          return (
            <NumberField
              key={path}
              label={nameOf(path)}
              unit={measure.unit}
              width="100%"
              value={measure.shown(value(path))}
              onChange={(v) =>
                readable(v) === null || v === null
                  ? undefined
                  : make({ ...change, figures: { ...change.figures, [path]: measure.stored(v) } })
              }
            />
          )
        })}
        <DateField
          label={t('bench.start')}
          hint={start === null ? t('bench.asIs') : undefined}
          error={start !== null && indexOf(start) === null ? t('bench.outside') : undefined}
          value={start}
          onChange={(day) => {
            setStart(day)
            const startIndex = day === null ? null : indexOf(day)
            // A year typed digit by digit is none yet.
            if (day === null || startIndex !== null) make({ ...change, startIndex })
          }}
        />
        {refused ? <FormError text={t('bench.refused', { why: refused })} /> : null}
        <Line data-part="end">
          <TextButton
            onPress={() => {
              setStart(null)
              make(UNCHANGED)
            }}
          >
            {t('bench.reset')}
          </TextButton>
          {Object.keys(change.figures).length > 0 ? <TextButton onPress={() => setKeeping(true)}>{t('bench.keep')}</TextButton> : null}
        </Line>
        {keeping ? (
          <KeepFigures entry={entry} figures={change.figures} blockId={blockId} nameOf={nameOf} onDone={() => setKeeping(false)} />
        ) : null}
      </Stack>
      <Stack>
        <SeasonMoves base={base} result={result} data={data} names={events} dirty={dirty} chosen={of} />
        <Sensitivity result={result} nameOf={nameOf} unitOf={unitOf} event={events.find(({ id }) => id === of)?.name ?? ''} />
        <PastSeasons base={base} result={result} data={data} names={events} />
        <Caution>{t('bench.caution')}</Caution>
      </Stack>
    </Two>
  )
}

type Named = readonly { id: string; name: string }[]
const ROW = 26
const LEFT = 150
const TOP = 18

/** Each event with its bounds, as it was and as the changed numbers have it. */
function SeasonMoves(p: { base: BenchResult; result: BenchResult; data: BenchData; names: Named; dirty: boolean; chosen: string }) {
  const t = useText()
  const f = useFormat()
  const frame = useRef<HTMLDivElement>(null)
  const width = useWidth(frame, 860)
  const { season } = p.data
  const { length, todayIndex } = p.data.weather
  const x = scaleLinear([0, length], [LEFT, width - 60])
  const on = (day: number): string => (Number.isFinite(day) ? f.date(f.seasonDay(season, day)) : t('window.beyond'))
  const height = TOP + p.result.events.length * ROW + 4
  const months = Array.from({ length }, (_, i) => i).filter((i) => f.seasonDay(season, i).endsWith('-01'))
  const clip = (day: number): number => x(Math.min(length, Math.max(0, Number.isFinite(day) ? day : length)))
  return (
    <Picture ref={frame}>
      <svg width={width} height={height} role="img" aria-label={t('bench.picture')}>
        {months.map((i) => (
          <g key={i}>
            <line x1={x(i)} x2={x(i)} y1={14} y2={height} stroke={colour.ruleSoft} />
            <text className="soft" x={x(i) + 2} y={11}>
              {f.month(f.seasonDay(season, i)).slice(0, 3)}
            </text>
          </g>
        ))}
        <line x1={x(todayIndex)} x2={x(todayIndex)} y1={14} y2={height} stroke={colour.beet} strokeWidth={2} />
        {p.result.events.map((event, i) => {
          const y = TOP + i * ROW
          const before = p.base.events.find(({ id }) => id === event.id) ?? event
          const days = event.begins.p50 - before.begins.p50
          return (
            <g key={event.id} data-testid={`bench-${event.id}`}>
              <text x={0} y={y + 15} fontWeight={event.id === p.chosen ? 700 : 400}>
                {(p.names.find(({ id }) => id === event.id)?.name ?? event.id).slice(0, 24)}
              </text>
              <rect
                x={clip(before.begins.p10)}
                width={Math.max(1, clip(before.begins.p90) - clip(before.begins.p10))}
                y={y + 4}
                height={7}
                fill="none"
                stroke={colour.inkSoft}
              />
              <rect
                x={clip(event.begins.p10)}
                width={Math.max(1, clip(event.begins.p90) - clip(event.begins.p10))}
                y={y + 12}
                height={7}
                fill={colour.petrol}
              />
              <line x1={clip(event.begins.p50)} x2={clip(event.begins.p50)} y1={y + 2} y2={y + 21} stroke={colour.ink} strokeWidth={2} />
              <text x={width - 56} y={y + 15} className={Math.abs(days) < 0.05 || !Number.isFinite(days) ? 'soft' : ''}>
                {Number.isFinite(days) ? t('bench.days', { days: f.signed(days, 1) }) : '–'}
              </text>
            </g>
          )
        })}
      </svg>
      <p>
        {p.result.windows.map((window) => {
          const before = p.base.windows.find(({ generation }) => generation === window.generation)
          return (
            <span key={window.generation} style={{ display: 'block' }}>
              {t('bench.window', {
                opens: on(window.opens.p50),
                closes: on(window.closes.p50),
                before: before ? on(before.opens.p50) : '',
              })}
            </span>
          )
        })}
      </p>
      <Small>{t(p.dirty ? 'bench.howChanged' : 'bench.how')}</Small>
    </Picture>
  )
}

function Sensitivity(p: { result: BenchResult; nameOf: (path: string) => string; unitOf: (path: string) => string; event: string }) {
  const { result, nameOf, unitOf, event } = p
  const t = useText()
  const f = useFormat()
  if (result.sensitivity.length === 0) return null
  return (
    <Stack>
      <Heading>{t('bench.sensitivity', { event })}</Heading>
      <PlainTable data-testid="sensitivity">
        <thead>
          <tr>
            <th scope="col">{t('figures.column.name')}</th>
            <th scope="col">{t('bench.step')}</th>
            <th scope="col">{t('bench.moves')}</th>
          </tr>
        </thead>
        <tbody>
          {result.sensitivity.slice(0, 8).map(({ path, step, days }) => (
            <tr key={path}>
              <th scope="row">{nameOf(path)}</th>
              <td>
                <Figure>
                  +{f.number(differenceOf(step, unitOf(path), f.measures), 1)} {measureOf(unitOf(path), f.measures).unit}
                </Figure>
              </td>
              <td>
                <Figure>{t('bench.days', { days: f.signed(days, 1) })}</Figure>
              </td>
            </tr>
          ))}
        </tbody>
      </PlainTable>
    </Stack>
  )
}

function PastSeasons({ base, result, data, names }: { base: BenchResult; result: BenchResult; data: BenchData; names: Named }) {
  const t = useText()
  const f = useFormat()
  if (result.past.length === 0) return <Small>{t('bench.noPast')}</Small>
  const error = (r: BenchResult): number => r.past.reduce((sum, { seen, predicted }) => sum + Math.abs(predicted - seen), 0) / r.past.length
  return (
    <Stack>
      <Heading>{t('bench.past')}</Heading>
      <PlainTable data-testid="bench-past">
        <thead>
          <tr>
            <th scope="col">{t('bench.season')}</th>
            <th scope="col">{t('bench.seen')}</th>
            <th scope="col">{t('bench.before')}</th>
            <th scope="col">{t('bench.now')}</th>
          </tr>
        </thead>
        <tbody>
          {result.past.map((row, i) => {
            const firstDay = data.past.find(({ season }) => season === row.season)?.season ?? data.season
            const on = (day: number | undefined): string =>
              day !== undefined && Number.isFinite(day) ? f.date(f.seasonDay(firstDay, day)) : t('window.beyond')
            const off = (day: number | undefined): string =>
              day !== undefined && Number.isFinite(day) ? ` (${f.signed(day - row.seen, 0)})` : ''
            return (
              <tr key={`${row.season} ${row.event} ${row.seen}`}>
                <th scope="row">
                  {row.season.slice(0, 4)}, {names.find(({ id }) => id === row.event)?.name}
                </th>
                <td>{on(row.seen)}</td>
                <td>
                  {on(base.past[i]?.predicted)}
                  {off(base.past[i]?.predicted)}
                </td>
                <td>
                  {on(row.predicted)}
                  {off(row.predicted)}
                </td>
              </tr>
            )
          })}
        </tbody>
      </PlainTable>
      <p>{t('bench.error', { before: f.number(error(base), 1), now: f.number(error(result), 1) })}</p>
    </Stack>
  )
}

/** Keeps the changed numbers as the site's own, with a reason. */
function KeepFigures(p: {
  entry: LibraryEntry
  figures: BenchChange['figures']
  blockId: string | null
  nameOf: (path: string) => string
  onDone: () => void
}) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const unitOf = (path: string): string => p.entry.figures.find((figure) => figure.path === path)?.unit ?? '1'
  const form = useEntry(endpoints.watches.ownFigures, { reason: '' }, null, `${site.id} ${p.entry.id} ${p.blockId ?? ''}`)
  const save = async (): Promise<void> => {
    const figures = Object.entries(p.figures).map(([path, value]) => ({ path, value }))
    const saved = await form.submit({ siteId: site.id, organismId: p.entry.id }, ({ reason }) => ({ figures, reason, blockId: p.blockId }))
    if (saved) p.onDone()
  }
  return (
    <Stack>
      <p>
        {Object.entries(p.figures)
          .map(([path, value]) => `${p.nameOf(path)} ${f.figure(value, unitOf(path))}`)
          .join('; ')}
      </p>
      <TextField
        label={t('figures.reason')}
        width="100%"
        value={form.values.reason}
        onChange={(reason) => form.set({ reason })}
        error={form.errors['reason']}
      />
      <FormError text={form.errors['value'] ?? form.errors['path'] ?? form.general} />
      <FormLine onSave={save} onLeave={p.onDone} isBarred={form.isBarred}>
        <Button onPress={() => void save()} isDisabled={form.isBarred}>
          {t('save')}
        </Button>
        <TextButton onPress={p.onDone}>{t('cancel')}</TextButton>
      </FormLine>
    </Stack>
  )
}
