import { useMemo } from 'react'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import type { DayScale } from './axis.js'

/** Height of the months above the band. */
export const MONTHS = 46

const NAME_WIDTH = 27

/** Months over the band, weeks as ticks; named days once few are in view. */
export function Months({ scale, start, days, height }: { scale: DayScale; start: string; days: number; height: number }) {
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
  // Those out of view too: the picture may be dragged to them.
  const marks: { index: number; name: string; month: boolean }[] = []
  for (let i = 0; i < days; i++) {
    const { day, month } = dates[i] ?? { day: '', month: null }
    if (month !== null) marks.push({ index: i, name: month, month: true })
    else if (i % 7 === 0) marks.push({ index: i, name: close ? day : '', month: false })
  }
  // A name that the next one would run into is left out.
  const named = marks.filter(({ name }) => name !== '')
  const shown = named.filter(({ index }, i) => scale.x(named[i + 1]?.index ?? days) - scale.x(index) > NAME_WIDTH || i === named.length - 1)
  const lines = (of: boolean): string =>
    marks
      .flatMap(({ index, month }) =>
        month === of ? [`M${scale.x(index)},${of ? MONTHS - 20 : MONTHS - 6}V${of ? height : MONTHS - 1}`] : [],
      )
      .join('')
  return (
    <g>
      <path d={lines(true)} stroke={colour.ruleSoft} />
      <path d={lines(false)} stroke={colour.rule} />
      {shown.map(({ index, name }) => (
        <text key={index} x={scale.x(index) + 4} y={MONTHS - 10} className="soft">
          {name}
        </text>
      ))}
    </g>
  )
}

/** Today: the one vertical line. */
export function TodayLine({ x, height, words }: { x: number; height: number; words: string }) {
  return (
    <g pointerEvents="none">
      <line x1={x} x2={x} y1={6} y2={height} stroke={colour.beet} strokeWidth="2" />
      <rect x={x - 42} y={4} width={84} height={20} rx={3} fill={colour.beet} />
      <text x={x} y={18.5} textAnchor="middle" style={{ fill: colour.white, fontWeight: 600 }}>
        {words}
      </text>
    </g>
  )
}
