import type { WatchForecast } from '@bocado/contract'
import { dayNumber, monthDay } from '@bocado/core'
import { area, curveMonotoneX, line } from 'd3-shape'
import { memo, useMemo } from 'react'
import { onStageFill, stageFill, StageShape } from '../design/StageShape.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import type { DayPositions, DayScale } from './axis.js'
import { Counts, drawnX, EmergenceCurve, InfectionGround, Infections, Openings, PastWindows, Pin, Sightings } from './marks.js'
import { continuations, streamsOf, type ReachedLine, type Stream } from './streams.js'
import { urgencyOf } from './urgency.js'

export const SELECTED_ROW = 92
export const ROW = 44

export const heightOf = (selected: boolean): number => (selected ? SELECTED_ROW : ROW)

/** Where a row stands, and how tall what is in it may be. */
function placed(top: number, selected: boolean): { height: number; base: number; tall: number } {
  const height = heightOf(selected)
  return { height, base: top + height - (selected ? 14 : 7), tall: height - (selected ? 32 : 14) }
}

interface RowProps {
  row: WatchForecast
  top: number
  selected: boolean
}

/** What of a row stays where it is when the picture moves: its ground, its edge by urgency, its frame. */
export const RowFrame = memo(function RowFrame({ row, top, selected, width }: RowProps & { width: number }) {
  const { height } = placed(top, selected)
  const urgency = urgencyOf(row)
  const edge = urgency === 'open' ? colour.petrol : urgency === 'closing' ? colour.pollen : 'none'
  return (
    <g>
      {selected ? <rect x="0" y={top} width={width} height={height} fill={colour.white} /> : null}
      <rect
        x="0"
        y={top}
        width="6"
        height={height}
        fill={urgency === 'past' ? 'url(#past)' : edge}
        stroke={urgency === 'coming' ? colour.petrol : 'none'}
      />
      <path
        d={`M0,${top}H${width}M0,${top + height}H${width}`}
        stroke={selected ? colour.ink : colour.rule}
        strokeWidth={selected ? 1.5 : 1}
      />
    </g>
  )
})

/** What of a row is drawn over positions: it moves with the picture as a whole and is drawn again only when the axis changes. */
export const RowStreams = memo(function RowStreams(
  p: RowProps & {
    positions: DayPositions
    /** Past seasons behind the row. */
    past: readonly ReachedLine[] | undefined
  },
) {
  const { row, top, selected, positions, past } = p
  const { height, base, tall } = placed(top, selected)
  const dated = row.grade === 'dates'
  const ground = selected ? colour.white : colour.sheet
  return (
    <>
      {dated ? <Openings row={row} positions={positions} top={top} height={height} ground={ground} /> : null}
      <InfectionGround row={row} positions={positions} base={base} tall={tall} />
      {isByMonths(row) ? (
        <UsualMonths row={row} positions={positions} base={base} tall={tall} />
      ) : (
        <Streams row={row} positions={positions} base={base} tall={tall} />
      )}
      {dated ? <EmergenceCurve row={row} positions={positions} base={base} tall={tall} big={selected} /> : null}
      {selected && dated && past ? <Lines lines={past} positions={positions} base={base} tall={tall} dashed /> : null}
      {selected && dated ? <Continuations row={row} positions={positions} base={base} tall={tall} /> : null}
    </>
  )
})

interface MarksProps extends RowProps {
  scale: DayScale
  /** Day of the treatment that is being thought about. */
  draft: number | null
  /** A planned treatment that is being moved; it is drawn as the draft. */
  moving: string | null
}

/** Whether a row has anything that keeps its size when the picture is stretched. */
export const hasMarks = (row: WatchForecast, selected: boolean): boolean =>
  selected ||
  row.rounds.length > 0 ||
  row.treatments.length > 0 ||
  row.seen.length > 0 ||
  row.named.some(({ clock }) => clock !== null) ||
  (row.infection?.days.length ?? 0) > 0 ||
  row.windows.some(({ state }) => state === 'past')

/** What of a row keeps its size: hatching of past windows, drops, silhouettes, counts and pins. */
export const RowMarks = memo(function RowMarks({ row, top, selected, scale, draft, moving }: MarksProps) {
  const f = useFormat()
  const { height, base, tall } = placed(top, selected)
  const dated = row.grade === 'dates'
  return (
    <>
      {dated ? <PastWindows row={row} top={top} height={height} scale={scale} /> : null}
      {row.infection ? <Infections row={row} scale={scale} base={base} tall={tall} big={selected} /> : null}
      {selected && dated ? <Silhouettes row={row} scale={scale} base={base} tall={tall} /> : null}
      <Sightings row={row} scale={scale} base={base} />
      {row.rounds.length > 0 ? <Counts row={row} scale={scale} base={base} tall={tall} big={selected} /> : null}
      {row.treatments
        .filter(({ id }) => id !== moving)
        .map((treatment) => {
          const index = f.seasonIndex(row.watch.season, treatment.done?.day ?? treatment.plannedOn)
          return <Pin key={treatment.id} x={scale.x(index + 0.5)} top={top} base={base} done={treatment.status === 'done'} />
        })}
      {draft === null ? null : <Pin x={scale.x(draft + 0.5)} top={top} base={base} done={false} draft />}
    </>
  )
})

const shapesOf = (row: WatchForecast): ReadonlyMap<string, string> => new Map(row.stages.map(({ id, silhouette }) => [id, silhouette]))

/** Only its usual months are known: what a guessed figure makes of the weather is not drawn. */
const isByMonths = ({ grade, usual, infection }: WatchForecast): boolean =>
  (grade === 'months' || grade === 'calendar') && usual.length > 0 && infection === null

/** The months in which it can usually be reached, as blocks without days. */
function UsualMonths(p: { row: WatchForecast; positions: DayPositions; base: number; tall: number }) {
  const { row, positions, base, tall } = p
  const reached = row.usual.filter(({ generation }) => row.generations.some(({ id }) => id === generation))
  const months = new Set(reached.flatMap((usual) => usual.months))
  const d = monthSpans(row)
    .filter(({ month }) => months.has(month))
    .map(
      ({ from, until }) =>
        `M${drawnX(positions, from)},${base}V${rounded(base - tall * USUAL_HEIGHT)}H${drawnX(positions, until)}V${base}z`,
    )
    .join('')
  return <path data-usual d={d} fill={colour.petrolSoft} stroke={colour.petrol} strokeDasharray="3 3" vectorEffect="non-scaling-stroke" />
}

/** Usual months stand lower than streams, which mean shares. */
const USUAL_HEIGHT = 0.55

/** The stages of a watch as stacked streams, drawn over positions. */
const Streams = memo(function Streams(p: { row: WatchForecast; positions: DayPositions; base: number; tall: number }) {
  const { row, positions, base, tall } = p
  const shapes = useMemo(() => shapesOf(row), [row])
  const streams = useMemo(() => streamsOf(row), [row])
  const paths = useMemo(() => {
    const from = Math.max(0, row.heat.biofixIndex)
    const days = Array.from({ length: Math.max(0, row.heat.knownDays - from) }, (_, i) => from + i)
    if (row.grade === 'months') return streams.map((stream) => monthly(row, stream, positions, base, tall))
    const drawn = area<number>()
      .x((i) => drawnX(positions, i + 1))
      .curve(curveMonotoneX)
    return streams.map((stream) => {
      // Only where there is something of it, with a day of nothing on either side.
      const inIt = days.filter((i) => (stream.top[i] ?? 0) - (stream.bottom[i] ?? 0) > 0.0015)
      const first = inIt[0]
      const last = inIt.at(-1)
      if (first === undefined || last === undefined) return ''
      const shown = days.slice(Math.max(0, first - 1 - from), last + 2 - from)
      return (
        drawn.y0((i) => rounded(base - tall * (stream.bottom[i] ?? 0))).y1((i) => rounded(base - tall * (stream.top[i] ?? 0)))(shown) ?? ''
      )
    })
  }, [row, streams, positions, base, tall])
  return streams.map((stream, i) => (
    <path
      key={stream.eventId}
      d={paths[i]}
      fill={stageFill(shapes.get(stream.stage) ?? 'egg')}
      stroke={colour.sheet}
      strokeWidth="0.6"
      vectorEffect="non-scaling-stroke"
    />
  ))
})

/** A stream in steps of months, where a number of the model is a placeholder and no day can be given. */
function monthly(row: WatchForecast, stream: Stream, positions: DayPositions, base: number, tall: number): string {
  return monthSpans(row)
    .map(({ from, until }) => {
      const middle = Math.floor((from + until) / 2)
      const [low, high] = [stream.bottom[middle] ?? 0, stream.top[middle] ?? 0]
      if (high - low < 0.02) return ''
      const [a, z] = [drawnX(positions, from), drawnX(positions, until)]
      return `M${a},${rounded(base - tall * low)}V${rounded(base - tall * high)}H${z}V${rounded(base - tall * low)}z`
    })
    .join('')
}

/** Months of a season, 1 to 12, with the days from and until which they last. */
function monthSpans(row: WatchForecast): { month: number; from: number; until: number }[] {
  const start = dayNumber(row.watch.season)
  const firsts: number[] = []
  const end = Math.max(row.heat.knownDays, LAST_DAY)
  for (let i = 0; i <= end; i++) if (monthDay(start + i).date === 1) firsts.push(i)
  return firsts.flatMap((from, m) => {
    const until = firsts[m + 1]
    return until === undefined ? [] : [{ month: monthDay(start + from).month + 1, from, until }]
  })
}

/** A season ends with the year, whatever is known of its weather. */
const LAST_DAY = 365

const rounded = (value: number): number => Math.round(value * 100) / 100

/** Each past year as a thin line of what has come into reach and gone out of it. */
const Continuations = memo(function Continuations(p: { row: WatchForecast; positions: DayPositions; base: number; tall: number }) {
  const lines = useMemo(() => continuations(p.row), [p.row])
  return <Lines lines={lines} positions={p.positions} base={p.base} tall={p.tall} />
})

const Lines = memo(function Lines(p: {
  lines: readonly ReachedLine[]
  positions: DayPositions
  base: number
  tall: number
  dashed?: boolean
}) {
  const { lines, positions, base, tall, dashed = false } = p
  const d = useMemo(() => {
    const path = line<[number, number]>()
      .defined(([, share]) => share > 0.005 && share < 0.995)
      .x(([day]) => drawnX(positions, day + 1))
      .y(([, share]) => rounded(base - tall * share))
    return lines.map(({ from, reached }) => path(reached.map((share, i) => [from + i, share])) ?? '').join('')
  }, [lines, positions, base, tall])
  return (
    <path
      d={d}
      fill="none"
      stroke={dashed ? colour.beet : colour.ink}
      strokeWidth={dashed ? 1 : 0.8}
      strokeDasharray={dashed ? '5 3' : 'none'}
      opacity={dashed ? 0.5 : 0.28}
      vectorEffect="non-scaling-stroke"
    />
  )
})

function Silhouettes(p: { row: WatchForecast; scale: DayScale; base: number; tall: number }) {
  const shapes = useMemo(() => shapesOf(p.row), [p.row])
  const streams = useMemo(() => streamsOf(p.row), [p.row])
  return streams.map((stream) => (
    <Silhouette
      key={stream.eventId}
      stream={stream}
      shape={shapes.get(stream.stage) ?? 'egg'}
      scale={p.scale}
      base={p.base}
      tall={p.tall}
    />
  ))
}

function Silhouette(p: { stream: Stream; shape: string; scale: DayScale; base: number; tall: number }) {
  const { stream, shape, scale, base, tall } = p
  const at = useMemo(() => {
    let best = -1
    let room = 0
    stream.top.forEach((top, i) => {
      const share = top - (stream.bottom[i] ?? 0)
      if (share > room && i > scale.from && i < scale.to) [room, best] = [share, i]
    })
    return { best, room }
  }, [stream, scale.from, scale.to])
  if (at.room * tall < 15) return null
  const middle = ((stream.top[at.best] ?? 0) + (stream.bottom[at.best] ?? 0)) / 2
  return (
    <StageShape
      shape={shape}
      x={scale.x(at.best + 1)}
      y={base - tall * middle}
      scale={Math.min(1.1, (at.room * tall) / 17)}
      fill={onStageFill(shape)}
    />
  )
}
