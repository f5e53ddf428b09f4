import type { Round, WatchForecast, WindowForecast } from '@bocado/contract'
import { curveMonotoneX, line } from 'd3-shape'
import { memo, useMemo } from 'react'
import { StageShape } from '../design/StageShape.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { positionOf, type DayPositions, type DayScale } from './axis.js'

/** What is drawn over positions is this wide; it is moved and stretched to the scale as a whole. */
const DRAWN = 1000

/** Moves and stretches what was drawn over positions to where the scale has it: moving the picture changes nothing else. */
export const onScale = (scale: DayScale): string => `matrix(${scale.span / DRAWN} 0 0 1 ${scale.origin} 0)`
export const drawnX = (positions: DayPositions, day: number): number => Math.round(positionOf(positions, day) * DRAWN * 1e3) / 1e3

const spanOf = (window: WindowForecast): [number, number] | null =>
  window.opens.p50 === null || window.closes.p50 === null || window.state === 'not-this-season'
    ? null
    : [window.opens.p50, window.closes.p50 + 1]

/** The windows of a row as openings in its frame, drawn over positions: tinted when open, outlined when coming. */
export const Openings = memo(function Openings(p: {
  row: WatchForecast
  positions: DayPositions
  top: number
  height: number
  ground: string
}) {
  const { row, positions, top, height, ground } = p
  return row.windows.map((window) => {
    const span = spanOf(window)
    if (!span) return null
    const [a, z] = span.map((day) => drawnX(positions, day)) as [number, number]
    const { state } = window
    const open = state === 'open' || state === 'closing'
    const tone = state === 'past' || state === 'poorly-reachable' ? colour.inkSoft : state === 'closing' ? colour.pollen : colour.petrol
    return (
      <g key={window.generation}>
        {open ? (
          <rect x={a} y={top - 4} width={z - a} height={height + 8} fill={colour.pollenSoft} />
        ) : (
          <path d={`M${a},${top - 1.5}h${z - a}v3h${a - z}zM${a},${top + height - 1.5}h${z - a}v3h${a - z}z`} fill={ground} />
        )}
        <path
          d={`M${a},${top - 4}V${top + height + 4}M${z},${top - 4}V${top + height + 4}`}
          stroke={tone}
          strokeWidth={open ? 3 : 1.5}
          strokeDasharray={open ? 'none' : '4 3'}
          vectorEffect="non-scaling-stroke"
        />
      </g>
    )
  })
})

/**
 * How far the dates of a row's windows are known: a bar under each edge from its 10th to its 90th percentile, drawn over positions and
 * over the frames of the rows beside it.
 */
export const Edges = memo(function Edges({ row, positions, y }: { row: WatchForecast; positions: DayPositions; y: number }) {
  const bars = row.windows.flatMap(({ state, opens, closes }) =>
    state === 'past' || state === 'not-this-season'
      ? []
      : [opens, closes].flatMap(({ p10, p90 }) =>
          p10 === null || p90 === null ? [] : [`M${drawnX(positions, p10)},${y}H${drawnX(positions, p90 + 1)}`],
        ),
  )
  return <path d={bars.join('')} stroke={colour.petrol} strokeWidth="4" vectorEffect="non-scaling-stroke" />
})

/** Windows that are past, hatched. */
export function PastWindows({ row, top, height, scale }: { row: WatchForecast; top: number; height: number; scale: DayScale }) {
  return row.windows.map((window) => {
    const span = window.state === 'past' ? spanOf(window) : null
    if (!span) return null
    const [a, z] = span.map(scale.x) as [number, number]
    return <rect key={window.generation} x={a} y={top - 4} width={z - a} height={height + 8} fill="url(#past)" opacity="0.45" />
  })
}

/** Counts: dots in the block, diamonds in the check area. A threshold lies at the middle of the row; without one the highest count does. */
export function Counts(p: { row: WatchForecast; scale: DayScale; base: number; tall: number; big: boolean }) {
  const { row, scale, base, tall } = p
  const t = useText()
  const f = useFormat()
  const first = row.rounds[0]
  const last = row.rounds.at(-1)
  if (!first || !last) return null
  const index = (date: string): number => f.seasonIndex(row.watch.season, date)
  const highest = Math.max(...row.rounds.map(({ per100 }) => per100), 1)
  const middleOf = ({ threshold }: Round): number => (threshold && threshold.per100 > 0 ? threshold.per100 : highest)
  const y = (round: Round): number => base - tall * Math.min(1, round.per100 / (2 * middleOf(round)))
  const r = p.big ? 4.2 : 2.8
  return (
    <g stroke={colour.ink} strokeWidth="1.2">
      {row.rounds.some(({ threshold }) => threshold && threshold.per100 > 0) ? (
        <line
          x1={scale.x(index(first.countedOn)) - 16}
          x2={scale.x(index(last.countedOn)) + 22}
          y1={base - tall / 2}
          y2={base - tall / 2}
          stroke={colour.beet}
          strokeDasharray="2 3"
        />
      ) : null}
      {row.rounds.map((round) => {
        const x = scale.x(index(round.countedOn) + 0.5)
        const cy = y(round)
        const fill = round.crossed ? colour.beet : colour.white
        const title = (
          <title>
            {t('band.count', {
              date: f.date(round.countedOn),
              per100: f.number(round.per100, 1),
              from: round.threshold === null ? 'none' : round.threshold.from === 'every-one' ? 'one' : 'known',
              threshold: f.number(round.threshold?.per100 ?? 0, 1),
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

export function Pin(p: { x: number; top: number; base: number; done: boolean; draft?: boolean }) {
  const { x, top, base, done, draft = false } = p
  return (
    <g pointerEvents="none">
      <line x1={x} x2={x} y1={top + 4} y2={base} stroke={colour.ink} strokeWidth="1.6" strokeDasharray={draft ? '4 3' : 'none'} />
      <path
        d={`M${x - 7},${top - 3}h14v9l-7,6l-7,-6z`}
        fill={done ? colour.ink : colour.white}
        stroke={colour.ink}
        strokeWidth="1.6"
        strokeDasharray={draft ? '3 2' : 'none'}
      />
      {done ? <path d={`M${x - 3.4},${top + 1.6}l2.6,2.8l4.6,-5`} fill="none" stroke={colour.white} strokeWidth="1.8" /> : null}
    </g>
  )
}

/** Days that count for a disease, and how often past seasons had an infection in a week that is still to come; drawn over positions. */
export const InfectionGround = memo(function InfectionGround(p: {
  row: WatchForecast
  positions: DayPositions
  base: number
  tall: number
}) {
  const { row, positions, base, tall } = p
  const { infection, heat } = row
  if (!infection) return null
  const ahead = heat.todayIndex + (heat.forecast?.days ?? 0)
  const x = (day: number): number => drawnX(positions, day)
  const most = Math.max(1, ...(infection.usual?.perWeek ?? []))
  const bars = (infection.usual?.perWeek ?? []).flatMap((n, week) =>
    n > 0 && 7 * (week + 1) > ahead
      ? [`M${x(Math.max(ahead, 7 * week))},${base}v${-0.45 * tall * (n / most)}H${x(7 * week + 7)}V${base}z`]
      : [],
  )
  return (
    <>
      <path d={bars.join('')} fill={colour.rule} opacity="0.7" />
      {infection.from === null ? null : (
        <path
          d={`M${x(infection.from)},${base}H${x(infection.until ?? heat.knownDays)}`}
          stroke={colour.inkSoft}
          strokeWidth="2.4"
          vectorEffect="non-scaling-stroke"
        />
      )}
    </>
  )
})

/**
 * Infections of a disease: a drop on each day that allowed one, the taller the more wetness there was; outlined where it is only
 * possible or still ahead, then as tall as it is likely.
 */
export function Infections(p: { row: WatchForecast; scale: DayScale; base: number; tall: number; big: boolean }) {
  const { row, scale, base, tall, big } = p
  const t = useText()
  const f = useFormat()
  const { infection } = row
  const titles = useMemo(
    () =>
      new Map(
        infection?.days.map((day) => [
          day.day,
          t(day.day >= row.heat.todayIndex ? 'infection.markAhead' : 'infection.mark', {
            date: f.date(f.seasonDay(row.watch.season, day.day)),
            share: f.percent(day.probability),
            certain: day.certain ? 'yes' : 'no',
            severity: f.number(day.severity, 1),
          }),
        ]),
      ),
    [infection, row, t, f],
  )
  if (!infection) return null
  const { todayIndex } = row.heat
  return (
    <g>
      {infection.days.map((day) => {
        const coming = day.day >= todayIndex
        const share = coming ? day.probability : Math.min(1, 0.45 + 0.2 * day.severity)
        const x = scale.x(day.day + 0.5)
        const h = Math.max(9, tall * share)
        const w = big ? 5 : 4
        return (
          <path
            key={day.day}
            transform={`translate(${x} ${base})`}
            d={`M0,${-h}c${w * 0.5},${h * 0.45} ${w},${h * 0.55} ${w},${h * 0.75}a${w},${h * 0.25} 0 1 1 ${-2 * w},0c0,${-h * 0.2} ${w * 0.5},${-h * 0.3} ${w},${-h * 0.75}z`}
            fill={!coming && day.certain ? colour.beet : colour.white}
            stroke={colour.beet}
            strokeWidth="1.4"
            strokeDasharray={coming ? '2 1.6' : 'none'}
          >
            <title>{titles.get(day.day)}</title>
          </path>
        )
      })}
      {big ? infection.days.slice(-3).map((day) => <Symptoms key={day.day} day={day} scale={scale} base={base} />) : null}
    </g>
  )
}

/**
 * What somebody saw, as a notch on its day; and when clocks of own records expect an event, as a bar between its bounds with a notch that
 * is only outlined.
 */
export function Sightings(p: { row: WatchForecast; scale: DayScale; base: number }) {
  const { row, scale, base } = p
  const t = useText()
  const f = useFormat()
  const notch = (x: number): string => `M${x},${base - 9}l5,9h-10z`
  return (
    <g stroke={colour.ink} strokeWidth="1.4">
      {row.named.map(({ id, name, clock }) => {
        const { p10, p50, p90 } = clock?.date ?? { p10: null, p50: null, p90: null }
        if (!clock || p10 === null || p50 === null || p90 === null || row.seen.some(({ event }) => event === id)) return null
        return (
          <g key={id}>
            <path d={`M${scale.x(p10)},${base - 1}H${scale.x(p90 + 1)}`} stroke={colour.petrol} strokeWidth="3" />
            <path d={notch(scale.x(p50 + 0.5))} fill={colour.white}>
              <title>
                {t('band.expectedByClock', {
                  name,
                  date: f.date(f.seasonDay(row.watch.season, p50)),
                  seasons: clock.seasons,
                  by: clock.by,
                })}
              </title>
            </path>
          </g>
        )
      })}
      {row.seen.map(({ event, name, kind, day }) => (
        <path key={`${event} ${kind} ${day}`} d={notch(scale.x(f.seasonIndex(row.watch.season, day) + 0.5))} fill={colour.ink}>
          <title>{t('band.seen', { name, kind, date: f.date(day) })}</title>
        </path>
      ))}
    </g>
  )
}

/** When an infection should show: a bar between its bounds with a leaf on its middle. */
function Symptoms({ day, scale, base }: { day: NonNullable<WatchForecast['infection']>['days'][number]; scale: DayScale; base: number }) {
  const { p10, p50, p90 } = day.symptoms
  if (p10 === null || p50 === null || p90 === null) return null
  return (
    <g>
      <path d={`M${scale.x(p10)},${base + 7}H${scale.x(p90 + 1)}`} stroke={colour.petrol} strokeWidth="3" />
      <StageShape shape="lesion" x={scale.x(p50 + 0.5)} y={base + 6} scale={0.62} fill={colour.petrol} stroke={colour.white} />
    </g>
  )
}

/** Share of a weed's seedlings that are up by warmth and water, as a line over its stages; with its bounds where there is room. */
export const EmergenceCurve = memo(function EmergenceCurve(p: {
  row: WatchForecast
  positions: DayPositions
  base: number
  tall: number
  big: boolean
}) {
  const { row, positions, base, tall, big } = p
  const { emergence } = row
  const paths = useMemo(() => {
    if (!emergence) return undefined
    const up = (values: readonly number[]): string =>
      line<number>()
        .defined((i) => (values[i] ?? 0) > 0.003)
        .x((i) => drawnX(positions, i + 1))
        .y((i) => base - tall * (values[i] ?? 0))
        .curve(curveMonotoneX)(values.flatMap((_, i) => (i % 2 === 0 ? [i] : []))) ?? ''
    return { middle: up(emergence.p50), bounds: up(emergence.p10) + up(emergence.p90) }
  }, [emergence, positions, base, tall])
  if (!paths) return null
  return (
    <g fill="none" strokeLinecap="round">
      <path d={paths.middle} stroke={colour.white} strokeWidth="4.5" vectorEffect="non-scaling-stroke" />
      <path d={paths.middle} stroke={colour.pollen} strokeWidth="2.4" vectorEffect="non-scaling-stroke" />
      {big ? (
        <path d={paths.bounds} stroke={colour.pollen} strokeWidth="1.4" strokeDasharray="4 3" vectorEffect="non-scaling-stroke" />
      ) : null}
    </g>
  )
})
