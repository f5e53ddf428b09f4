import type { WatchForecast, WatchHours } from '@bocado/contract'
import { useState, type KeyboardEvent, type PointerEvent } from 'react'
import styled from 'styled-components'
import type { Means } from '../band/means.js'
import { colour, font, size } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { boardHeight } from './boardHeight.js'
import { boardWords, hourWords, leading, type Reason } from './hourWords.js'
import { useHours } from './useHours.js'
import '../messages/en/board.js'

type Hour = WatchHours['hours'][number]

const HEAD = 20
const HOUR = 5
const SIDE = 26
const TALL = 24 * HOUR

const Frame = styled.section<{ $words: number }>`
  display: ${({ $words }) => ($words === 0 ? 'block' : 'grid')};
  grid-template-columns: ${({ $words }) => $words}px minmax(0, 1fr);
  gap: 0 8px;
  height: ${({ $words }) => boardHeight($words === 0)}px;
  padding: 4px 10px 0 0;
  overflow: hidden;
  font-size: ${size.small};
  line-height: 1.3;
  background: ${colour.white};
  .words {
    padding-left: ${({ $words }) => ($words === 0 ? 10 : 20)}px;
    max-height: ${({ $words }) => ($words === 0 ? 80 : 150)}px;
    overflow: hidden;
  }
  b {
    display: block;
  }
  svg {
    display: block;
    width: 100%;
    outline-offset: -2px;
    cursor: crosshair;
  }
  text {
    font: 12px ${font.text};
    fill: ${colour.inkSoft};
  }
  text.why {
    fill: ${colour.ink};
    paint-order: stroke;
    stroke: ${colour.white};
    stroke-width: 4px;
  }
`

interface Props {
  forecast: WatchForecast
  means: Means
  /** px of its words, and of the whole. */
  words: number
  width: number
}

/** Hour by hour of the days ahead: in how many of the forecast's members something can be used, and what keeps it from that in the others. */
export function HourBoard({ forecast, means, words, width }: Props) {
  const t = useText()
  const f = useFormat()
  const hours = useHours(forecast, means)
  const [at, setAt] = useState<number | null>(null)
  const narrow = words === 0
  const title = t('board.title', { name: means.name })
  return (
    <Frame $words={words} aria-label={title} data-testid="hour-board" data-part="hours">
      <div className="words">
        <b>{title}</b>
        {hours ? <output aria-live="polite">{at === null ? boardWords(hours, t, f) : hourWords(hours, at, t, f)}</output> : null}
      </div>
      {hours && hours.members > 0 ? (
        <Board hours={hours} days={narrow ? FEW_DAYS : DAYS} width={width - words - 18} at={at} onAt={setAt} label={title} />
      ) : null}
    </Frame>
  )
}

/** Days that have room. */
const DAYS = 8
const FEW_DAYS = 4

function Board(p: { hours: WatchHours; days: number; width: number; at: number | null; onAt: (at: number | null) => void; label: string }) {
  const { hours, width, at, onAt } = p
  const t = useText()
  const f = useFormat()
  const days = Math.min(p.days, hours.hours.length / 24)
  const wide = Math.max(20, (width - SIDE) / Math.max(1, days))
  const x = (day: number): number => SIDE + day * wide
  const hourAt = (event: PointerEvent<SVGSVGElement>): void => {
    const box = event.currentTarget.getBoundingClientRect()
    const day = Math.floor((((event.clientX - box.left) / box.width) * width - SIDE) / wide)
    const hour = Math.floor((event.clientY - box.top - HEAD) / HOUR)
    onAt(day < 0 || day >= days || hour < 0 || hour > 23 ? null : day * 24 + hour)
  }
  const step = (event: KeyboardEvent): void => {
    const by = { ArrowDown: 1, ArrowUp: -1, ArrowRight: 24, ArrowLeft: -24 }[event.key]
    if (event.key === 'Escape') return onAt(null)
    if (by === undefined) return
    event.preventDefault()
    const next = (at ?? hours.over) + (at === null ? 0 : by)
    if (next >= 0 && next < days * 24) onAt(next)
  }
  return (
    <svg
      viewBox={`0 0 ${width} ${HEAD + TALL + 4}`}
      height={HEAD + TALL + 4}
      role="slider"
      tabIndex={0}
      aria-label={p.label}
      aria-valuemin={0}
      aria-valuemax={days * 24 - 1}
      aria-valuenow={at ?? hours.over}
      aria-valuetext={at === null ? boardWords(hours, t, f) : hourWords(hours, at, t, f)}
      onPointerMove={hourAt}
      onPointerDown={hourAt}
      onPointerLeave={() => onAt(null)}
      onKeyDown={step}
      onBlur={() => onAt(null)}
    >
      <defs>
        <pattern id="blocked-hour" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="6" stroke={colour.inkSoft} strokeWidth="1.1" opacity="0.35" />
        </pattern>
      </defs>
      {[0, 6, 12, 18].map((hour) => (
        <text key={hour} x={SIDE - 5} y={HEAD + hour * HOUR + 10} textAnchor="end">
          {hour}
        </text>
      ))}
      {Array.from({ length: days }, (_, day) => (
        <g key={day}>
          <text x={x(day) + 2} y={HEAD - 6}>
            {f.date(f.nudge(hours.from, day))}
          </text>
          <rect x={x(day)} y={HEAD} width={wide - 3} height={TALL} fill="url(#blocked-hour)" />
          {hours.hours.slice(day * 24, day * 24 + 24).map((hour, h) => (
            <HourMark
              key={h}
              hour={hour}
              members={hours.members}
              isOver={day * 24 + h < hours.over}
              x={x(day)}
              y={HEAD + h * HOUR}
              width={wide - 3}
            />
          ))}
        </g>
      ))}
      {[6, 12, 18].map((hour) => (
        <line key={hour} x1={SIDE} x2={width} y1={HEAD + hour * HOUR} y2={HEAD + hour * HOUR} stroke={colour.white} strokeWidth="1.5" />
      ))}
      {Array.from({ length: days }, (_, day) => (
        <Why key={day} hours={hours} day={day} x={x(day) + 3} width={wide - 3} />
      ))}
      {at === null ? null : (
        <rect
          x={x(Math.floor(at / 24)) - 1}
          y={HEAD + (at % 24) * HOUR - 0.5}
          width={wide - 1}
          height={HOUR + 1}
          fill="none"
          stroke={colour.ink}
          strokeWidth="2"
        />
      )}
    </svg>
  )
}

/** An hour: as wide as the share of members in which it can be used; what is over is empty, what is not known has a dashed edge. */
function HourMark(p: { hour: Hour; members: number; isOver: boolean; x: number; y: number; width: number }) {
  const { hour, members, isOver, x, y, width } = p
  if (isOver) return <rect x={x} y={y} width={width} height={HOUR} fill={colour.white} />
  const share = hour.usable / members
  return (
    <>
      {hour.unknown * 2 > members ? (
        <rect x={x} y={y} width={width} height={HOUR} fill={colour.white} stroke={colour.rule} strokeDasharray="2 3" strokeWidth="0.7" />
      ) : null}
      {share > 0 ? (
        <>
          <rect x={x} y={y} width={width} height={HOUR} fill={colour.petrolSoft} />
          <rect x={x} y={y} width={width * share} height={HOUR} fill={colour.petrol} />
        </>
      ) : null}
    </>
  )
}

/** So many hours in a row have room for the word of what blocks them. */
const ROOM_FOR_WORD = 3
/** px that a letter takes. */
const LETTER = 6.2

/** What blocks the longest run of hours of a day that is blocked by one reason. */
function Why({ hours, day, x, width }: { hours: WatchHours; day: number; x: number; width: number }) {
  const t = useText()
  const reasons = hours.hours
    .slice(day * 24, day * 24 + 24)
    .map((hour, h): Reason | null => (day * 24 + h < hours.over || hour.usable > 0 ? null : leading(hour)))
  let best = { from: 0, length: 0 }
  let from = 0
  reasons.forEach((reason, h) => {
    if (reason === null || reason !== reasons[h - 1]) from = h
    if (reason !== null && h + 1 - from > best.length) best = { from, length: h + 1 - from }
  })
  const reason = reasons[best.from]
  if (!reason || best.length < ROOM_FOR_WORD) return null
  const word = t(`board.reason.${reason}`)
  return word.length * LETTER > width ? null : (
    <text className="why" x={x} y={HEAD + (best.from + best.length / 2) * HOUR + 4}>
      {word}
    </text>
  )
}
