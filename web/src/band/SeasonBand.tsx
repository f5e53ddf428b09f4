import type { Band, WatchForecast } from '@bocado/contract'
import { ChevronDown, ChevronRight } from 'lucide-react'
import { memo, useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react'
import styled from 'styled-components'
import { useWidth } from '../charts/useWidth.js'
import { moveByArrows } from '../design/moveByArrows.js'
import { onStageFill, stageFill, StageShape } from '../design/StageShape.js'
import { colour, font, PHONE } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { MONTHS, Months, TodayLine } from './BandAxis.js'
import { Pins, type DraftPin, type PinEvent } from './Pins.js'
import { groupWords } from './groupWords.js'
import { readingWords } from './reading.js'
import { useBandZoom } from './useBandZoom.js'
import { evenInDays, evenInHeat, heldRange, useDayScale, useGliding } from './axis.js'
import { hasMarks, heightOf, RowFrame, RowMarks, RowStreams } from './BandRow.js'
import { Blooms, BLOOM_HEIGHT } from './Blooms.js'
import { Edges, onScale } from './marks.js'
import { useVisibleRange } from './range.js'
import type { ReachedLine } from './streams.js'
import type { Group } from './urgency.js'

export type AxisKind = 'days' | 'heat' | 'own'

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
  onPin: (event: PinEvent) => void
  past: readonly ReachedLine[] | undefined
  /** What lies under the chosen row, and how much of its height it takes. */
  under?: { height: (narrow: boolean) => number; draw: (size: { words: number; width: number }) => ReactNode } | undefined
}

const LABELS = 276
const HEAD = MONTHS + BLOOM_HEIGHT
const GROUP = 28
const LEGEND = 22
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
/** Labels are real buttons laid over the picture's rows: one stop of the Tab key together, with arrows between them. */
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
  .name {
    display: flex;
    gap: 5px;
    align-items: baseline;
    white-space: nowrap;
  }
  .block {
    flex: 0 1 auto;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .moved {
    margin-left: auto;
    font-size: 13px;
    padding: 0 4px;
    border: 1px solid ${colour.inkSoft};
    border-radius: 3px;
    white-space: nowrap;
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
  white-space: nowrap;
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
/** What the colours and shapes of the chosen row mean, right under it. */
const Legend = styled.ul`
  position: absolute;
  right: 8px;
  margin: 0;
  padding: 0 0 0 8px;
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 0 12px;
  overflow: hidden;
  font-size: 13px;
  line-height: ${LEGEND}px;
  background: ${colour.white};
  li {
    display: inline-flex;
    align-items: center;
    gap: 4px;
    white-space: nowrap;
  }
`
const Under = styled.div`
  position: absolute;
  left: 6px;
  right: 0;
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

const upAndDown = (event: KeyboardEvent<HTMLElement>): void => moveByArrows(event, 'button')

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

  const underHeight = p.under?.height(narrow) ?? 0
  const laid = useMemo(
    () => layOut(narrow ? onlySelected(rows, selected) : groups, folded, selected, narrow, underHeight),
    [narrow, rows, groups, folded, selected, underHeight],
  )
  const chosenTop = laid.rows.find(({ row }) => row === chosen)?.top
  const zoom = useBandZoom(ref, scale, positions, days, (next) => show(next, days))

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
    <Frame ref={ref} data-testid="band" data-whole>
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
        <path d={laid.heads.map(({ top }) => `M0,${top + GROUP}H${width}`).join('')} stroke={colour.rule} />
        {laid.rows.map(({ row, top }) => (
          <RowFrame key={row.watch.id} row={row} top={top} selected={row.watch.id === selected} width={width} />
        ))}
        <g clipPath="url(#season)">
          <g ref={zoom.live}>
            <Months scale={scale} start={band.season.start} days={days} height={laid.height} />
            <Blooms band={band} scale={scale} bottom={HEAD - 4} />
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
              {laid.rows.map(({ row, top }) =>
                row.grade === 'dates' ? (
                  <Edges key={row.watch.id} row={row} positions={positions} y={top + heightOf(row.watch.id === selected)} />
                ) : null,
              )}
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
            {today < band.season.days ? (
              <TodayLine x={scale.x(today + 0.5)} height={laid.height} words={f.date(f.seasonDay(band.season.start, today))} />
            ) : null}
            {reading === null ? null : (
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
          </g>
        </g>
      </svg>
      <GroupLabels heads={laid.heads} folded={folded} onFold={p.onFold} />
      {narrow ? null : (
        <div role="group" data-part="rows" aria-label={t('band.rows')} onKeyDown={upAndDown}>
          {laid.rows.map(({ row, top }) => (
            <Label
              key={row.watch.id}
              row={row}
              block={p.blockNames.get(row.watch.blockId) ?? ''}
              sentence={p.sentences.get(row.watch.id) ?? ''}
              top={top}
              selected={row.watch.id === selected}
              isStop={row === (laid.rows.find((one) => one.row === chosen) ?? laid.rows[0])?.row}
              onSelect={p.onSelect}
              onKey={stepNow}
            />
          ))}
        </div>
      )}
      {chosen && chosenTop !== undefined && hasLegend(chosen) ? (
        <StageLegend row={chosen} top={chosenTop + heightOf(true) + 1} left={narrow ? 4 : 12} height={legendOf(narrow)} />
      ) : null}
      {chosen && chosenTop !== undefined && p.under ? (
        <Under style={{ top: chosenTop + heightOf(true) + legendHeight(chosen, narrow) + 1 }}>
          {p.under.draw({ words: narrow ? 0 : LABELS, width })}
        </Under>
      ) : null}
      {chosen ? <Pins row={chosen} scale={scale} top={chosenTop} days={days} draft={draft} onPin={p.onPin} /> : null}
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
      {groupWords(group, t)}
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
  /** Where the Tab key stops among the rows. */
  isStop: boolean
  onSelect: (watchId: string) => void
  onKey: (event: KeyboardEvent) => void
}) {
  const { row, selected } = p
  return (
    <RowLabel
      $selected={selected}
      aria-pressed={selected}
      tabIndex={p.isStop ? 0 : -1}
      style={{ top: p.top, height: heightOf(selected) }}
      onClick={() => p.onSelect(row.watch.id)}
      onKeyDown={selected ? p.onKey : undefined}
    >
      <span className="name">
        <b>{row.organismName}</b> <span className="block">{p.block}</span> <Moved row={row} />
      </span>
      <span className="sentence">{p.sentence}</span>
    </RowLabel>
  )
})

/** Says on the row itself that its window moved since last week. */
function Moved({ row: { moved } }: { row: WatchForecast }) {
  const t = useText()
  return moved ? (
    <span className="moved" title={t('band.show.moved')}>
      {t('band.moved', { days: Math.abs(moved.days), way: moved.days > 0 ? 'later' : 'earlier' })}
    </span>
  ) : null
}

const onlySelected = (rows: readonly WatchForecast[], selected: string | null): Group[] => [
  { id: 'selected', name: null, rows: rows.filter(({ watch }) => watch.id === selected) },
]

/** On a phone the stages take more lines. */
const legendOf = (narrow: boolean): number => LEGEND * (narrow ? 3 : 1)
const legendHeight = (row: WatchForecast, narrow: boolean): number => (hasLegend(row) ? legendOf(narrow) : 0)

/** By months and infections there are no streams that it would explain. */
const hasLegend = (row: WatchForecast): boolean => row.grade === 'dates' && !row.infection && row.events.length > 0

/** The stages in their order, as the streams show them. */
const StageLegend = memo(function StageLegend(p: { row: WatchForecast; top: number; left: number; height: number }) {
  const { row, top, left, height } = p
  return (
    <Legend style={{ top, left, height }}>
      {row.stages.map(({ id, name, silhouette }) => (
        <li key={id}>
          <svg width="24" height="16" viewBox="-16 -11 32 22" aria-hidden>
            <rect x="-16" y="-11" width="32" height="22" rx="3" fill={stageFill(silhouette)} />
            <StageShape shape={silhouette} fill={onStageFill(silhouette)} />
          </svg>
          {name}
        </li>
      ))}
    </Legend>
  )
})

/** Where groups and rows stand below each other. */
function layOut(groups: readonly Group[], folded: ReadonlySet<string>, selected: string | null, narrow: boolean, under: number) {
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
      const isChosen = row.watch.id === selected
      height += heightOf(isChosen) + (isChosen ? legendHeight(row, narrow) + under : 0)
    }
  }
  return { heads, rows, height: height + 8 }
}
