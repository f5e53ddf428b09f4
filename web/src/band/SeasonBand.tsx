import type { Band, Treatment, WatchForecast } from '@bocado/contract'
import { ChevronDown, ChevronRight } from 'lucide-react'
import { memo, useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react'
import styled from 'styled-components'
import { useWidth } from '../charts/useWidth.js'
import { colour, font, PHONE } from '../design/theme.js'
import { useFormat, type Format } from '../design/useFormat.js'
import { useText, type Say } from '../messages/useText.js'
import { dayAt, evenInDays, evenInHeat, heldRange, positionOf, useDayScale, useGliding, type DayScale } from './axis.js'
import { hasMarks, ROW, RowFrame, RowMarks, RowStreams, SELECTED_ROW } from './BandRow.js'
import { Blooms, BLOOM_HEIGHT, bloomsAround } from './Blooms.js'
import { onScale } from './marks.js'
import { useVisibleRange } from './range.js'
import { stageBoundsOn, stageSharesAt, type ReachedLine } from './streams.js'
import type { Group } from './urgency.js'

export type AxisKind = 'days' | 'heat' | 'own'

/** A treatment that is being thought about: drawn as a hollow pin before it is saved. */
export interface DraftPin {
  watchId: string
  dayIndex: number
  /** The planned treatment that it moves, where it does. */
  moving: string | null
}

interface Props {
  band: Band
  groups: readonly Group[]
  folded: ReadonlySet<string>
  onFold: (groupId: string) => void
  blockNames: ReadonlyMap<string, string>
  /** What each row says, by watch. */
  sentences: ReadonlyMap<string, string>
  axis: AxisKind
  selected: string | null
  onSelect: (watchId: string) => void
  draft: DraftPin | null
  /** The pin was taken, moved or let go; a planned treatment is named. */
  onPin: (event: { kind: 'take'; treatment: Treatment } | { kind: 'move'; dayIndex: number } | { kind: 'drop' }) => void
  past: readonly ReachedLine[] | undefined
}

const LABELS = 336
const MONTHS = 46
const HEAD = MONTHS + BLOOM_HEIGHT
const GROUP = 28
const WIDEST = 2400

const Frame = styled.div`
  position: relative;
  background: ${colour.sheet};
  border-block: 1px solid ${colour.rule};
  > svg {
    display: block;
    width: 100%;
    touch-action: pan-y;
    cursor: grab;
  }
  > svg:active {
    cursor: grabbing;
  }
  text {
    font-family: ${font.text};
    fill: ${colour.ink};
    font-size: 13px;
    user-select: none;
  }
  .soft {
    fill: ${colour.inkSoft};
  }
`
/** Labels are real buttons laid over the picture's rows: one stop of the tab key each. */
const RowLabel = styled.button<{ $selected: boolean }>`
  position: absolute;
  left: 0;
  width: ${LABELS - 8}px;
  border: 0;
  padding: 3px 8px 3px 20px;
  background: none;
  text-align: left;
  cursor: pointer;
  line-height: 1.22;
  overflow: hidden;
  b {
    font-family: ${font.heading};
    font-weight: 650;
    font-size: ${({ $selected }) => ($selected ? '18px' : '15px')};
  }
  span {
    font-size: 13px;
  }
  .sentence {
    display: block;
    font-weight: ${({ $selected }) => ($selected ? 600 : 400)};
    font-size: ${({ $selected }) => ($selected ? '15px' : '13px')};
    ${({ $selected }) => ($selected ? '' : 'white-space: nowrap; text-overflow: ellipsis; overflow: hidden;')}
  }
  &:focus-visible {
    outline-offset: -3px;
  }
`
const GroupLabel = styled.button`
  position: absolute;
  left: 0;
  width: ${LABELS - 8}px;
  height: ${GROUP}px;
  border: 0;
  padding: 0 8px 0 12px;
  background: none;
  text-align: left;
  cursor: pointer;
  display: flex;
  align-items: center;
  gap: 6px;
  font-size: 13px;
  font-weight: 600;
  color: ${colour.inkSoft};
  &:focus-visible {
    outline-offset: -3px;
  }
`
const PinHandle = styled.div`
  position: absolute;
  width: 26px;
  height: 30px;
  margin: -8px 0 0 -13px;
  cursor: ew-resize;
  border-radius: 4px;
  touch-action: none;
  @media ${PHONE} {
    width: 48px;
    height: 48px;
    margin: -16px 0 0 -24px;
  }
`
const PhoneOnly = styled.div`
  display: none;
  @media ${PHONE} {
    display: block;
  }
`
const Reading = styled.output`
  display: block;
  padding: 6px 20px;
  min-height: 33px;
  font-size: 13px;
  border-top: 1px solid ${colour.ruleSoft};
`

/** The days that hold all windows and what counts them, with room on both sides. */
export function usualRange(rows: readonly WatchForecast[], days: number, today: number): [number, number] {
  if (rows.length === 0) return [0, days]
  const starts = rows.map(({ heat, infection }) => Math.max(heat.biofixIndex, infection?.from ?? 0)).filter((day) => day > 0)
  const ends = rows.flatMap(({ windows }) =>
    windows.flatMap(({ closes }) => (closes.p90 !== null && closes.p90 < days - 3 ? [closes.p90] : [])),
  )
  const first = Math.min(today, ...starts)
  const last = Math.max(today, ...ends)
  return heldRange([Math.max(0, first - 24), Math.min(days, last + 34)], days)
}

/** The season band: one row per watch, its stages as streams along the season, its window as an opening in the row's frame. */
export function SeasonBand(p: Props) {
  const { band, groups, folded, axis, selected, draft } = p
  const t = useText()
  const f = useFormat()
  const ref = useRef<HTMLDivElement>(null)
  const width = useWidth(ref, WIDEST)
  const narrow = width < 720
  const days = band.season.days
  const today = band.season.todayIndex
  const rows = useMemo(() => groups.flatMap((group) => group.rows), [groups])
  const chosen = rows.find(({ watch }) => watch.id === selected)
  const even = useMemo(() => evenInDays(days), [days])
  const own = useMemo(() => chosen && evenInHeat(chosen.heat.median, days), [chosen, days])
  const positions = useGliding((axis === 'heat' ? band.heatAxis : axis === 'own' ? own : undefined) ?? even)
  const { range, show } = useVisibleRange()
  const [from, to] = useMemo(() => range ?? usualRange(rows, days, today), [range, rows, days, today])
  const scale = useDayScale(positions, from, to, narrow ? 14 : LABELS, width - 18)
  const [reading, setReading] = useState<number | null>(null)

  const laid = useMemo(
    () => layOut(narrow ? onlySelected(rows, selected) : groups, folded, selected, narrow),
    [narrow, rows, groups, folded, selected],
  )
  const zoom = useZoom(ref, scale, positions, days, (next) => show(next, days))

  const readAt = (event: PointerEvent<SVGSVGElement>): void => {
    if (zoom.panTo(event)) return
    const x = event.clientX - event.currentTarget.getBoundingClientRect().left
    setReading(x < scale.x(scale.from) ? null : Math.min(days - 1, Math.floor(scale.day(x))))
  }
  const step = (event: KeyboardEvent): void => {
    if (event.key === '+' || event.key === '=') zoom.by(1.6, reading ?? today)
    else if (event.key === '-') zoom.by(1 / 1.6, reading ?? today)
    else if (event.key === '0') show(null, days)
    else {
      const move = { ArrowLeft: -1, ArrowRight: 1, PageUp: -7, PageDown: 7 }[event.key]
      if (move === undefined && event.key !== 'Escape') return
      const next = move === undefined ? null : Math.min(days - 1, Math.max(0, (reading ?? today) + move))
      setReading(next)
      if (next !== null && (next < scale.from || next > scale.to)) show([scale.from + (move ?? 0), scale.to + (move ?? 0)], days)
    }
    event.preventDefault()
  }

  const stepLatest = useRef(step)
  useEffect(() => {
    stepLatest.current = step
  })
  const stepNow = useCallback((event: KeyboardEvent) => stepLatest.current(event), [])

  return (
    <Frame ref={ref} data-testid="band">
      <svg
        viewBox={`0 0 ${width} ${laid.height}`}
        height={laid.height}
        role="img"
        aria-label={t('band.label', { rows: rows.length })}
        onPointerDown={zoom.start}
        onPointerMove={readAt}
        onPointerUp={zoom.end}
        onPointerCancel={zoom.end}
        onPointerLeave={() => setReading(null)}
      >
        <defs>
          <pattern id="past" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <line x1="0" y1="0" x2="0" y2="7" stroke={colour.inkSoft} strokeWidth="1.6" opacity="0.5" />
          </pattern>
          <clipPath id="season">
            <rect x={scale.x(scale.from)} y="0" width={scale.x(scale.to) - scale.x(scale.from)} height={laid.height} />
          </clipPath>
        </defs>
        <Months scale={scale} start={band.season.start} days={days} height={laid.height} />
        <Blooms band={band} scale={scale} bottom={HEAD - 4} />
        <path d={laid.heads.map(({ top }) => `M0,${top + GROUP}H${width}`).join('')} stroke={colour.rule} />
        {laid.rows.map(({ row, top }) => (
          <RowFrame key={row.watch.id} row={row} top={top} selected={row.watch.id === selected} width={width} />
        ))}
        <g clipPath="url(#season)">
          <g transform={onScale(scale)}>
            {laid.rows.map(({ row, top }) => (
              <RowStreams
                key={row.watch.id}
                row={row}
                top={top}
                selected={row.watch.id === selected}
                positions={positions}
                past={row.watch.id === selected ? p.past : undefined}
              />
            ))}
          </g>
          {laid.rows.map(({ row, top }) =>
            hasMarks(row, row.watch.id === selected) ? (
              <RowMarks
                key={row.watch.id}
                row={row}
                top={top}
                selected={row.watch.id === selected}
                scale={scale}
                draft={draft?.watchId === row.watch.id ? draft.dayIndex : null}
                moving={draft?.watchId === row.watch.id ? draft.moving : null}
              />
            ) : null,
          )}
        </g>
        <TodayLine x={scale.x(today + 0.5)} scale={scale} height={laid.height} words={f.date(f.seasonDay(band.season.start, today))} />
        {reading === null || reading < scale.from || reading > scale.to ? null : (
          <line
            x1={scale.x(reading + 0.5)}
            x2={scale.x(reading + 0.5)}
            y1={MONTHS - 8}
            y2={laid.height}
            stroke={colour.ink}
            strokeDasharray="3 3"
            pointerEvents="none"
          />
        )}
      </svg>
      <GroupLabels heads={laid.heads} folded={folded} onFold={p.onFold} />
      {narrow
        ? null
        : laid.rows.map(({ row, top }) => (
            <Label
              key={row.watch.id}
              row={row}
              block={p.blockNames.get(row.watch.blockId) ?? ''}
              sentence={p.sentences.get(row.watch.id) ?? ''}
              top={top}
              selected={row.watch.id === selected}
              onSelect={p.onSelect}
              onKey={stepNow}
            />
          ))}
      {chosen ? <Pins {...p} row={chosen} scale={scale} top={laid.rows.find(({ row }) => row === chosen)?.top} days={days} /> : null}
      <Reading aria-live="polite">
        {chosen && reading !== null ? readingWords(chosen, band, reading, t, f) : chosen ? t('band.howToRead') : ''}
      </Reading>
      <PhoneOnly>{chosen ? null : <Reading>{t('band.choose')}</Reading>}</PhoneOnly>
    </Frame>
  )
}

const GroupLabels = memo(function GroupLabels(p: {
  heads: readonly { group: Group; top: number }[]
  folded: ReadonlySet<string>
  onFold: (groupId: string) => void
}) {
  const t = useText()
  return p.heads.map(({ group, top }) => (
    <GroupLabel key={group.id} style={{ top }} aria-expanded={!p.folded.has(group.id)} onClick={() => p.onFold(group.id)}>
      {p.folded.has(group.id) ? <ChevronRight size={15} aria-hidden /> : <ChevronDown size={15} aria-hidden />}
      {t('band.group', { name: group.name ?? t(`band.group.${group.id}` as Parameters<Say>[0]), rows: group.rows.length })}
    </GroupLabel>
  ))
})

/** What a row says, drawn again only when the row changes: moving the picture leaves it alone. */
const Label = memo(function Label(p: {
  row: WatchForecast
  block: string
  sentence: string
  top: number
  selected: boolean
  onSelect: (watchId: string) => void
  onKey: (event: KeyboardEvent) => void
}) {
  const { row, selected } = p
  return (
    <RowLabel
      $selected={selected}
      aria-pressed={selected}
      style={{ top: p.top, height: selected ? SELECTED_ROW : ROW }}
      onClick={() => p.onSelect(row.watch.id)}
      onKeyDown={selected ? p.onKey : undefined}
    >
      <b>{row.organismName}</b> <span>{p.block}</span>
      <span className="sentence">{p.sentence}</span>
    </RowLabel>
  )
})

const onlySelected = (rows: readonly WatchForecast[], selected: string | null): Group[] => [
  { id: 'selected', name: null, rows: rows.filter(({ watch }) => watch.id === selected) },
]

/** Where groups and rows stand below each other. */
function layOut(groups: readonly Group[], folded: ReadonlySet<string>, selected: string | null, narrow: boolean) {
  const heads: { group: Group; top: number }[] = []
  const rows: { row: WatchForecast; top: number }[] = []
  let height = HEAD
  for (const group of groups) {
    if (!narrow) {
      heads.push({ group, top: height })
      height += GROUP
    }
    if (folded.has(group.id)) continue
    for (const row of group.rows) {
      rows.push({ row, top: height })
      height += row.watch.id === selected ? SELECTED_ROW : ROW
    }
  }
  return { heads, rows, height: height + 8 }
}

/** Pan by drag, zoom by wheel with Ctrl; the wheel alone scrolls the page. */
function useZoom(
  ref: React.RefObject<HTMLDivElement | null>,
  scale: DayScale,
  positions: readonly number[],
  days: number,
  show: (range: readonly [number, number]) => void,
) {
  const grip = useRef<{ id: number; x: number; from: number; to: number; moved: boolean } | null>(null)
  const latest = useRef({ scale, show })
  useEffect(() => {
    latest.current = { scale, show }
  })
  const by = (factor: number, day: number): void => {
    const { from, to } = latest.current.scale
    const held = Math.min(Math.max(day, from), to)
    latest.current.show([held - (held - from) / factor, held + (to - held) / factor])
  }
  const zoomBy = useRef(by)
  useEffect(() => {
    zoomBy.current = by
  })
  useEffect(() => {
    const element = ref.current
    if (!element) return undefined
    const onWheel = (event: WheelEvent): void => {
      if (!event.ctrlKey) return
      event.preventDefault()
      const x = event.clientX - element.getBoundingClientRect().left
      zoomBy.current(Math.exp(-event.deltaY / 300), latest.current.scale.day(x))
    }
    element.addEventListener('wheel', onWheel, { passive: false })
    return () => element.removeEventListener('wheel', onWheel)
  }, [ref])
  return {
    by,
    start: (event: PointerEvent<SVGSVGElement>): void => {
      if (event.button !== 0) return
      grip.current = { id: event.pointerId, x: event.clientX, from: scale.from, to: scale.to, moved: false }
    },
    /** Whether the pointer is moving the picture. */
    panTo: (event: PointerEvent<SVGSVGElement>): boolean => {
      const held = grip.current
      if (held?.id !== event.pointerId) return false
      const dx = event.clientX - held.x
      if (!held.moved && Math.abs(dx) < 4) return false
      if (!held.moved) event.currentTarget.setPointerCapture(event.pointerId)
      held.moved = true
      const by = dx / scale.span
      const [a, z] = [positionOf(positions, held.from) - by, positionOf(positions, held.to) - by]
      if (a >= 0 && z <= 1) show([dayAt(positions, a), dayAt(positions, z)])
      else show(a < 0 ? [0, held.to - held.from] : [days - (held.to - held.from), days])
      return true
    },
    end: (): void => {
      grip.current = null
    },
  }
}

/** Handles over the pins of the chosen row: dragged with the pointer, or moved with the arrow keys. */
function Pins(p: Props & { row: WatchForecast; scale: DayScale; top: number | undefined; days: number }) {
  const { row, scale, top, draft, days, onPin } = p
  const t = useText()
  const f = useFormat()
  const box = useRef<HTMLDivElement>(null)
  if (top === undefined) return null
  const planned = row.treatments.filter(({ status, id }) => status === 'planned' && id !== draft?.moving)
  const handles = [
    ...planned.map((treatment) => ({ key: treatment.id, treatment, day: f.seasonIndex(row.watch.season, treatment.plannedOn) })),
    ...(draft?.watchId === row.watch.id ? [{ key: draft.moving ?? 'draft', treatment: null, day: draft.dayIndex }] : []),
  ].filter(({ day }) => day >= scale.from - 0.5 && day <= scale.to)
  const moveTo = (clientX: number): void => {
    const left = box.current?.getBoundingClientRect().left ?? 0
    onPin({ kind: 'move', dayIndex: Math.min(days - 1, Math.max(0, Math.floor(scale.day(clientX - left)))) })
  }
  return (
    <div ref={box}>
      {handles.map(({ key, treatment, day }) => (
        <PinHandle
          key={key}
          role="slider"
          tabIndex={0}
          aria-label={t(key === 'draft' ? 'band.draftPin' : 'band.plannedPin', { name: row.organismName })}
          aria-valuemin={0}
          aria-valuemax={days - 1}
          aria-valuenow={day}
          aria-valuetext={f.date(f.seasonDay(row.watch.season, day))}
          style={{ left: scale.x(day + 0.5), top }}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId)
            if (treatment) onPin({ kind: 'take', treatment })
          }}
          onPointerMove={(event) => {
            if (event.currentTarget.hasPointerCapture(event.pointerId)) moveTo(event.clientX)
          }}
          onPointerUp={() => onPin({ kind: 'drop' })}
          onKeyDown={(event) => {
            const by = { ArrowLeft: -1, ArrowRight: 1, PageUp: -7, PageDown: 7 }[event.key]
            if (by !== undefined) {
              if (treatment) onPin({ kind: 'take', treatment })
              onPin({ kind: 'move', dayIndex: Math.min(days - 1, Math.max(0, day + by)) })
              event.preventDefault()
            } else if (event.key === 'Enter') onPin({ kind: 'drop' })
          }}
        />
      ))}
    </div>
  )
}

function readingWords(row: WatchForecast, band: Band, day: number, t: Say, f: Format): string {
  const date = f.date(f.seasonDay(row.watch.season, day))
  const blooming = bloomsAround(band.blooms, day)
    .map(({ name, eventName }) => t('bloom.reading', { name, event: eventName }))
    .join(', ')
  const bloom = blooming === '' ? '' : ` ${t('bloom.around', { blooms: blooming })}`
  if (row.grade === 'months') return monthWords(row, day, t, f) + bloom
  if (day < row.heat.biofixIndex) return t('band.beforeBiofix', { date }) + bloom
  if (day >= row.heat.knownDays) return t('band.unknown', { date }) + bloom
  return `${stateWords(row, day, date, t, f)}${bloom}`
}

/** What can be said of a month where a number of the model is a placeholder: which stages there may be, and no share. */
function monthWords(row: WatchForecast, day: number, t: Say, f: Format): string {
  const heat = row.heat.median[Math.min(day, row.heat.knownDays - 1)] ?? 0
  const stages = stageSharesAt(row, heat)
    .filter(({ share }) => share >= 0.1)
    .map(({ stage }) => row.stages.find(({ id }) => id === stage)?.name ?? stage)
  return t('band.readMonth', { month: f.month(f.seasonDay(row.watch.season, day)), stages: stages.join(', ') || t('band.none') })
}

function stateWords(row: WatchForecast, day: number, date: string, t: Say, f: Format): string {
  const heat = row.heat.median[day] ?? 0
  const { infection, emergence } = row
  const found = infection?.days.find((d) => d.day === day)
  const parts = [
    ...stageBoundsOn(row, day)
      .filter(({ share }) => share.p90 >= 0.015)
      .map(({ stage, share }) =>
        t('band.stageShare', {
          stage: row.stages.find(({ id }) => id === stage)?.name ?? stage,
          share: f.percent(share.p50),
          low: f.number(100 * share.p10),
          high: f.number(100 * share.p90),
          sure: share.p90 - share.p10 < 0.015 ? 'yes' : 'no',
        }),
      ),
    ...(infection
      ? [
          found
            ? t(day < row.heat.todayIndex ? 'infection.mark' : 'infection.markAhead', {
                date: '',
                share: f.percent(found.probability),
                certain: found.certain ? 'yes' : 'no',
                severity: f.number(found.severity, 1),
              }).trim()
            : t(day < row.heat.todayIndex + (row.heat.forecast?.days ?? 0) ? 'infection.none' : 'infection.beyond'),
        ]
      : []),
    ...(emergence ? [t('emergence.reading', { share: f.percent(emergence.p50[day] ?? 0) })] : []),
  ]
  return t(day < row.heat.todayIndex ? 'band.readPast' : 'band.readFuture', {
    date,
    heat: f.heat(heat),
    stages: parts.join(', ') || t('band.none'),
  })
}

function Months({ scale, start, days, height }: { scale: DayScale; start: string; days: number; height: number }) {
  const f = useFormat()
  const dates = useMemo(
    () =>
      Array.from({ length: days }, (_, i) => {
        const date = f.seasonDay(start, i)
        return { day: f.shortDate(date), month: date.endsWith('-01') ? f.month(date).slice(0, 3) : null }
      }),
    [f, start, days],
  )
  const close = scale.to - scale.from < 45
  const first = Math.floor(scale.from)
  const marks: { index: number; name: string; month: boolean }[] = []
  for (let i = first; i <= scale.to && i < days; i++) {
    const { day, month } = dates[i] ?? { day: '', month: null }
    if (month !== null) marks.push({ index: i, name: month, month: true })
    else if (i % 7 === 0) marks.push({ index: i, name: close ? day : '', month: false })
  }
  const lines = (of: boolean): string =>
    marks
      .flatMap(({ index, month }) =>
        month === of ? [`M${scale.x(index)},${of ? MONTHS - 20 : MONTHS - 6}V${of ? height : MONTHS - 1}`] : [],
      )
      .join('')
  return (
    <g clipPath="url(#season)">
      <path d={lines(true)} stroke={colour.ruleSoft} />
      <path d={lines(false)} stroke={colour.rule} />
      {marks.map(({ index, name }) =>
        name === '' ? null : (
          <text key={index} x={scale.x(index) + 4} y={MONTHS - 10} className="soft">
            {name}
          </text>
        ),
      )}
    </g>
  )
}

function TodayLine({ x, scale, height, words }: { x: number; scale: DayScale; height: number; words: string }) {
  if (x < scale.x(scale.from) || x > scale.x(scale.to)) return null
  return (
    <g pointerEvents="none">
      <line x1={x} x2={x} y1={6} y2={height} stroke={colour.beet} strokeWidth="2" />
      <rect x={x - 42} y={4} width={84} height={20} rx={3} fill={colour.beet} />
      <text x={x} y={18.5} textAnchor="middle" style={{ fill: '#fff', fontWeight: 600 }}>
        {words}
      </text>
    </g>
  )
}
