import type { Band, WatchForecast, WindowForecast } from '@bocado/contract'
import { area, curveMonotoneX, line } from 'd3-shape'
import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react'
import styled from 'styled-components'
import { StageShape } from '../design/StageShape.js'
import { colour, font, PHONE } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { dayScale, evenInDays, useGliding, type DayScale } from './axis.js'
import { continuations, stageSharesAt, streamsOf } from './streams.js'
import { currentWindow, windowSentence } from './words.js'

export type AxisKind = 'days' | 'heat'

/** A treatment that is being thought about: drawn as a hollow pin before it is saved. */
export interface DraftPin {
  watchId: string
  dayIndex: number
}

interface Props {
  band: Band
  rows: readonly WatchForecast[]
  blockNames: ReadonlyMap<string, string>
  axis: AxisKind
  selected: string | null
  onSelect: (watchId: string) => void
  draft: DraftPin | null
}

const LABELS = 336
const PHONE_LABELS = 0
const HEAD = 46
const SELECTED_ROW = 112
const ROW = 44

/** From the egg's paleness to the depth of the adult: one hue. */
export const STAGE_FILL: Readonly<Record<string, string>> = {
  egg: '#d6e7e7',
  nymph: '#a9cccd',
  'young-larva': '#86b8ba',
  larva: '#4f9598',
  pupa: '#2a7379',
  adult: '#0b4e56',
}
const fillOf = (silhouette: string): string => STAGE_FILL[silhouette] ?? '#86b8ba'

const Frame = styled.div`
  position: relative;
  background: ${colour.sheet};
  border-block: 1px solid ${colour.rule};
  svg {
    display: block;
    width: 100%;
    touch-action: pan-y;
  }
  text {
    font-family: ${font.text};
    fill: ${colour.ink};
    font-size: 13px;
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

function visibleRange(rows: readonly WatchForecast[], days: number, today: number): [number, number] {
  if (rows.length === 0) return [0, days]
  const first = Math.min(today, ...rows.map(({ heat }) => heat.biofixIndex))
  const last = Math.max(today, ...rows.flatMap(({ windows }) => windows.map(({ closes }) => closes.p90 ?? 0)))
  return [Math.max(0, first - 24), Math.min(days, last + 34)]
}

function useWidth(): [React.RefObject<HTMLDivElement | null>, number] {
  const ref = useRef<HTMLDivElement>(null)
  const [width, setWidth] = useState(1240)
  useEffect(() => {
    const element = ref.current
    if (!element) return undefined
    const observer = new ResizeObserver(([entry]) => entry && setWidth(entry.contentRect.width))
    observer.observe(element)
    return () => observer.disconnect()
  }, [])
  return [ref, width]
}

/** The season band: one row per watch, its stages as streams along the season, its window as an opening in the row's frame. */
export function SeasonBand({ band, rows, blockNames, axis, selected, onSelect, draft }: Props) {
  const t = useText()
  const f = useFormat()
  const [ref, width] = useWidth()
  const narrow = width < 720
  const days = band.season.days
  const even = useMemo(() => evenInDays(days), [days])
  const positions = useGliding(axis === 'heat' && band.heatAxis ? band.heatAxis : even)
  const today = band.season.todayIndex
  const scale = dayScale(positions, visibleRange(rows, days, today), [narrow ? PHONE_LABELS + 14 : LABELS, width - 18])
  const [reading, setReading] = useState<number | null>(null)
  const shown = narrow ? rows.filter(({ watch }) => watch.id === selected) : rows
  const tops: number[] = []
  let height = HEAD
  for (const { watch } of shown) {
    tops.push(height)
    height += watch.id === selected ? SELECTED_ROW : ROW
  }
  const chosen = rows.find(({ watch }) => watch.id === selected)

  const readAt = (event: PointerEvent<SVGSVGElement>): void => {
    const box = event.currentTarget.getBoundingClientRect()
    const x = ((event.clientX - box.left) / box.width) * width
    setReading(x < scale.x(scale.from) ? null : Math.min(days - 1, Math.floor(scale.day(x))))
  }
  const step = (event: KeyboardEvent): void => {
    const move = { ArrowLeft: -1, ArrowRight: 1, PageUp: -7, PageDown: 7 }[event.key]
    if (move === undefined && event.key !== 'Escape') return
    event.preventDefault()
    setReading(move === undefined ? null : Math.min(days - 1, Math.max(0, (reading ?? today) + move)))
  }

  return (
    <Frame ref={ref}>
      <svg
        viewBox={`0 0 ${width} ${height}`}
        height={height}
        role="img"
        aria-label={t('band.label', { rows: rows.length })}
        onPointerMove={readAt}
        onPointerLeave={() => setReading(null)}
      >
        <defs>
          <pattern id="past" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <line x1="0" y1="0" x2="0" y2="7" stroke={colour.inkSoft} strokeWidth="1.6" opacity="0.5" />
          </pattern>
          <clipPath id="season">
            <rect x={scale.x(scale.from)} y="0" width={scale.x(scale.to) - scale.x(scale.from)} height={height} />
          </clipPath>
        </defs>
        <Months scale={scale} start={band.season.start} height={height} />
        {shown.map((row, i) => (
          <Row
            key={row.watch.id}
            row={row}
            top={tops[i] ?? HEAD}
            width={width}
            scale={scale}
            selected={row.watch.id === selected}
            draft={draft?.watchId === row.watch.id ? draft.dayIndex : null}
          />
        ))}
        <TodayLine x={scale.x(today + 0.5)} height={height} words={f.date(f.seasonDay(band.season.start, today))} />
        {reading === null ? null : (
          <line
            x1={scale.x(reading + 0.5)}
            x2={scale.x(reading + 0.5)}
            y1={HEAD - 8}
            y2={height}
            stroke={colour.ink}
            strokeDasharray="3 3"
          />
        )}
      </svg>
      {narrow
        ? null
        : shown.map((row, i) => {
            const isSelected = row.watch.id === selected
            return (
              <RowLabel
                key={row.watch.id}
                $selected={isSelected}
                aria-pressed={isSelected}
                style={{ top: tops[i], height: isSelected ? SELECTED_ROW : ROW }}
                onClick={() => onSelect(row.watch.id)}
                onKeyDown={isSelected ? step : undefined}
              >
                <b>{row.organismName}</b> <span>{blockNames.get(row.watch.blockId) ?? ''}</span>
                <span className="sentence">{windowSentence(row, t, f)}</span>
              </RowLabel>
            )
          })}
      <Reading aria-live="polite">
        {chosen && reading !== null ? readingWords(chosen, reading, t, f) : chosen ? t('band.howToRead') : ''}
      </Reading>
      <PhoneOnly>{chosen ? null : <Reading>{t('band.choose')}</Reading>}</PhoneOnly>
    </Frame>
  )
}

function readingWords(row: WatchForecast, day: number, t: ReturnType<typeof useText>, f: ReturnType<typeof useFormat>): string {
  const date = f.date(f.seasonDay(row.watch.season, day))
  const heat = row.heat.median[day] ?? 0
  if (day < row.heat.biofixIndex) return t('band.beforeBiofix', { date })
  if (day >= row.heat.knownDays) return t('band.unknown', { date })
  const stages = stageSharesAt(row, heat)
    .filter(({ share }) => share >= 0.005)
    .map(({ stage, share }) =>
      t('band.stageShare', { stage: row.stages.find(({ id }) => id === stage)?.name ?? stage, share: f.percent(share) }),
    )
    .join(', ')
  return t(day < row.heat.todayIndex ? 'band.readPast' : 'band.readFuture', { date, heat: f.heat(heat), stages: stages || t('band.none') })
}

function Months({ scale, start, height }: { scale: DayScale; start: string; height: number }) {
  const f = useFormat()
  const marks: { index: number; name: string; month: boolean }[] = []
  for (let i = Math.floor(scale.from); i <= scale.to; i++) {
    const date = f.seasonDay(start, i)
    if (date.endsWith('-01')) marks.push({ index: i, name: f.month(date).slice(0, 3), month: true })
    else if ((i - Math.floor(scale.from)) % 7 === 0) marks.push({ index: i, name: '', month: false })
  }
  return (
    <g>
      {marks.map(({ index, name, month }) => {
        const x = scale.x(index)
        return month ? (
          <g key={index}>
            <line x1={x} x2={x} y1={HEAD - 20} y2={height} stroke={colour.ruleSoft} />
            <text x={x + 4} y={HEAD - 10} className="soft">
              {name}
            </text>
          </g>
        ) : (
          <line key={index} x1={x} x2={x} y1={HEAD - 6} y2={HEAD - 1} stroke={colour.rule} />
        )
      })}
    </g>
  )
}

function TodayLine({ x, height, words }: { x: number; height: number; words: string }) {
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

interface RowProps {
  row: WatchForecast
  top: number
  width: number
  scale: DayScale
  selected: boolean
  draft: number | null
}

function Row({ row, top, width, scale, selected, draft }: RowProps) {
  const height = selected ? SELECTED_ROW : ROW
  const base = top + height - (selected ? 14 : 7)
  const tall = height - (selected ? 32 : 14)
  const streams = useMemo(() => streamsOf(row), [row])
  const state = currentWindow(row)?.state
  const y = (share: number): number => base - tall * share
  const stageOf = (stage: string): string => row.stages.find(({ id }) => id === stage)?.silhouette ?? 'egg'
  const edge = state === 'open' ? colour.petrol : state === 'closing' ? colour.pollen : 'none'
  const dated = row.grade === 'dates'
  return (
    <g>
      {selected ? <rect x="0" y={top} width={width} height={height} fill={colour.white} /> : null}
      <rect
        x="0"
        y={top}
        width="6"
        height={height}
        fill={state === 'past' ? 'url(#past)' : edge}
        stroke={state === 'coming' ? colour.petrol : 'none'}
      />
      <g clipPath="url(#season)">
        {dated
          ? row.windows.map((window) => <Opening key={window.generation} window={window} top={top} height={height} scale={scale} />)
          : null}
        {streams.map((stream) => (
          <path
            key={stream.eventId}
            d={streamPath(stream.bottom, stream.top, row, scale, y)}
            fill={fillOf(stageOf(stream.stage))}
            stroke={colour.sheet}
            strokeWidth="0.6"
          />
        ))}
        {selected ? <Continuations row={row} scale={scale} y={y} /> : null}
        {selected
          ? streams.map((stream) => (
              <Silhouette key={stream.eventId} stream={stream} shape={stageOf(stream.stage)} scale={scale} y={y} tall={tall} />
            ))
          : null}
      </g>
      <FrameLines row={row} top={top} height={height} width={width} scale={scale} strong={selected} dated={dated} />
      {dated ? row.windows.map((window) => <Edges key={window.generation} window={window} y={top + height} scale={scale} />) : null}
      <Counts row={row} scale={scale} base={base} tall={tall} big={selected} />
      {row.treatments.map((treatment) => {
        const date = treatment.done?.day ?? treatment.plannedOn
        const index = Math.round((Date.parse(date) - Date.parse(row.watch.season)) / 86_400_000)
        return <Pin key={treatment.id} x={scale.x(index + 0.5)} top={top} base={base} done={treatment.status === 'done'} />
      })}
      {draft === null ? null : <Pin x={scale.x(draft + 0.5)} top={top} base={base} done={false} draft />}
    </g>
  )
}

function streamPath(bottom: number[], top: number[], row: WatchForecast, scale: DayScale, y: (share: number) => number): string {
  const days: number[] = []
  for (let i = Math.max(0, Math.floor(scale.from) - 1); i < Math.min(row.heat.knownDays, scale.to + 1); i++)
    if (i >= row.heat.biofixIndex) days.push(i)
  return (
    area<number>()
      .x((i) => scale.x(i + 1))
      .y0((i) => y(bottom[i] ?? 0))
      .y1((i) => y(top[i] ?? 0))
      .curve(curveMonotoneX)(days) ?? ''
  )
}

/** Each past year as a thin line of what has hatched and what has gone inside, with the median drawn strong. */
function Continuations({ row, scale, y }: { row: WatchForecast; scale: DayScale; y: (share: number) => number }) {
  const path = line<[number, number]>()
    .defined(([, share]) => share > 0.005 && share < 0.995)
    .x(([day]) => scale.x(day + 1))
    .y(([, share]) => y(share))
  const reachable = new Set(row.generations.flatMap(({ reachableStages }) => reachableStages))
  const edges = row.events.filter(({ stage }, i) => reachable.has(stage) !== reachable.has(row.events[i - 1]?.stage ?? ''))
  return (
    <g fill="none">
      {edges.flatMap(({ id }) =>
        continuations(row, id).map(({ season, from, reached }) => (
          <path
            key={`${id}${season}`}
            d={path(reached.map((share, i) => [from + i, share])) ?? ''}
            stroke={colour.ink}
            strokeWidth="0.8"
            opacity="0.28"
          />
        )),
      )}
    </g>
  )
}

function Silhouette({
  stream,
  shape,
  scale,
  y,
  tall,
}: {
  stream: { bottom: number[]; top: number[] }
  shape: string
  scale: DayScale
  y: (share: number) => number
  tall: number
}) {
  let best = -1
  let room = 0
  stream.top.forEach((top, i) => {
    const share = top - (stream.bottom[i] ?? 0)
    if (share > room && i > scale.from && i < scale.to) [room, best] = [share, i]
  })
  if (room * tall < 15) return null
  const middle = ((stream.top[best] ?? 0) + (stream.bottom[best] ?? 0)) / 2
  const dark = shape === 'adult' || shape === 'pupa' || shape === 'larva'
  return (
    <StageShape
      shape={shape}
      x={scale.x(best + 1)}
      y={y(middle)}
      scale={Math.min(1.1, (room * tall) / 17)}
      fill={dark ? '#fff' : colour.petrol}
    />
  )
}

const spanOf = (window: WindowForecast): [number, number] | null =>
  window.opens.p50 === null || window.closes.p50 === null ? null : [window.opens.p50, window.closes.p50 + 1]

/** The window: an opening in the row's frame. Tint when open, outline when coming, hatching when past. */
function Opening({ window, top, height, scale }: { window: WindowForecast; top: number; height: number; scale: DayScale }) {
  const span = spanOf(window)
  if (!span) return null
  const [a, z] = span.map(scale.x) as [number, number]
  const { state } = window
  const open = state === 'open' || state === 'closing'
  const tone = state === 'past' || state === 'poorly-reachable' ? colour.inkSoft : state === 'closing' ? colour.pollen : colour.petrol
  return (
    <g>
      <rect
        x={a}
        y={top - 4}
        width={z - a}
        height={height + 8}
        fill={open ? colour.pollenSoft : state === 'past' ? 'url(#past)' : 'none'}
        opacity={state === 'past' ? 0.45 : 1}
      />
      {[a, z].map((x) => (
        <line
          key={x}
          x1={x}
          x2={x}
          y1={top - 4}
          y2={top + height + 4}
          stroke={tone}
          strokeWidth={open ? 3 : 1.5}
          strokeDasharray={open ? 'none' : '4 3'}
        />
      ))}
    </g>
  )
}

function FrameLines({
  row,
  top,
  height,
  width,
  scale,
  strong,
  dated,
}: {
  row: WatchForecast
  top: number
  height: number
  width: number
  scale: DayScale
  strong: boolean
  dated: boolean
}) {
  const gaps = dated
    ? row.windows
        .flatMap((window) => spanOf(window) ?? [])
        .map((d) => Math.max(scale.x(scale.from), Math.min(scale.x(d), scale.x(scale.to))))
    : []
  const stops = [0, ...gaps, width]
  return (
    <g stroke={strong ? colour.ink : colour.rule} strokeWidth={strong ? 1.5 : 1}>
      {[top, top + height].flatMap((y) =>
        Array.from({ length: stops.length / 2 }, (_, i) => (
          <line key={`${y}-${i}`} x1={stops[2 * i]} x2={stops[2 * i + 1]} y1={y} y2={y} />
        )),
      )}
    </g>
  )
}

/** How far a date is known: a bar from its 10th to its 90th percentile under each edge of the window. */
function Edges({ window, y, scale }: { window: WindowForecast; y: number; scale: DayScale }) {
  if (window.state === 'past') return null
  return (
    <g stroke={colour.petrol} strokeWidth="4">
      {[window.opens, window.closes].map(({ p10, p90 }, i) =>
        p10 === null || p90 === null ? null : <line key={i} x1={scale.x(p10)} x2={scale.x(p90 + 1)} y1={y} y2={y} />,
      )}
    </g>
  )
}

/** Counts against the threshold, which lies at the middle of the row: dots in the block, diamonds in the check area. */
function Counts({ row, scale, base, tall, big }: { row: WatchForecast; scale: DayScale; base: number; tall: number; big: boolean }) {
  const t = useText()
  const f = useFormat()
  const first = row.rounds[0]
  const last = row.rounds.at(-1)
  if (!first || !last) return null
  const index = (date: string): number => Math.round((Date.parse(date) - Date.parse(row.watch.season)) / 86_400_000)
  const y = (per100: number, threshold: number): number => base - tall * Math.min(1, per100 / (2 * threshold))
  const r = big ? 4.2 : 2.8
  return (
    <g stroke={colour.ink} strokeWidth="1.2">
      <line
        x1={scale.x(index(first.countedOn)) - 16}
        x2={scale.x(index(last.countedOn)) + 22}
        y1={base - tall / 2}
        y2={base - tall / 2}
        stroke={colour.beet}
        strokeDasharray="2 3"
      />
      {row.rounds.map((round) => {
        const x = scale.x(index(round.countedOn) + 0.5)
        const cy = y(round.per100, round.threshold)
        const fill = round.per100 >= round.threshold ? colour.beet : '#fff'
        const title = (
          <title>
            {t('band.count', {
              date: f.date(round.countedOn),
              per100: f.number(round.per100, 1),
              threshold: f.number(round.threshold, 1),
              where: round.checkAreaName ?? t('count.inBlock'),
            })}
          </title>
        )
        return round.checkAreaId ? (
          <rect key={round.id} x={x - r} y={cy - r} width={2 * r} height={2 * r} transform={`rotate(45 ${x} ${cy})`} fill={fill}>
            {title}
          </rect>
        ) : (
          <circle key={round.id} cx={x} cy={cy} r={r} fill={fill}>
            {title}
          </circle>
        )
      })}
    </g>
  )
}

function Pin({ x, top, base, done, draft = false }: { x: number; top: number; base: number; done: boolean; draft?: boolean }) {
  return (
    <g pointerEvents="none">
      <line x1={x} x2={x} y1={top + 4} y2={base} stroke={colour.ink} strokeWidth="1.6" strokeDasharray={draft ? '4 3' : 'none'} />
      <path
        d={`M${x - 7},${top - 3}h14v9l-7,6l-7,-6z`}
        fill={done ? colour.ink : '#fff'}
        stroke={colour.ink}
        strokeWidth="1.6"
        strokeDasharray={draft ? '3 2' : 'none'}
      />
      {done ? <path d={`M${x - 3.4},${top + 1.6}l2.6,2.8l4.6,-5`} fill="none" stroke="#fff" strokeWidth="1.8" /> : null}
    </g>
  )
}
