import type { LibraryEntry, WatchForecast } from '@bocado/contract'
import { scaleLinear } from 'd3-scale'
import { useRef } from 'react'
import styled from 'styled-components'
import { heatSentence, monthSpan, originSentence, windowSentence } from '../band/words.js'
import { useWidth } from '../charts/useWidth.js'
import { Caution, Small, Stack } from '../design/text.js'
import { colour, font } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'

const Frame = styled.div`
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
const WIDEST = 860
const DAYS = 365
const ROW = 34
const LEFT = 8
const TOP = 22

/** The organism's year as this site's weather has it this season: windows and events with their bounds, or months where no more is known. */
export function YearHere({ entry }: { entry: LibraryEntry }) {
  const t = useText()
  const f = useFormat()
  const frame = useRef<HTMLDivElement>(null)
  const width = useWidth(frame, WIDEST)
  // Neither treatments nor rounds belong to it: nobody watches it here.
  const year = entry.year as WatchForecast
  const start = year.watch.season
  const days = DAYS
  const x = scaleLinear([0, days], [LEFT, width - LEFT])
  const months = Array.from({ length: days }, (_, i) => i).filter((i) => f.seasonDay(start, i).endsWith('-01'))
  const rows = rowsOf(entry, year, (day) => f.seasonDay(start, day))
  const today = f.seasonIndex(start, f.today)
  // Where the median season never comes to it, its figures or this place are not what they are taken for.
  const never =
    year.grade === 'dates' && !year.infection
      ? year.windows.filter(({ opens }) => opens.p50 === null).map(({ generationName }) => generationName)
      : []
  const height = TOP + rows.length * ROW + 4
  return (
    <Stack $gap={8}>
      <Frame ref={frame}>
        <svg width={width} height={height} role="img" aria-label={t('organism.yearPicture', { name: entry.name })}>
          {months.map((i) => (
            <g key={i}>
              <line x1={x(i)} x2={x(i)} y1={14} y2={height} stroke={colour.ruleSoft} />
              <text className="soft" x={x(i) + 3} y={12}>
                {f.month(f.seasonDay(start, i)).slice(0, 3)}
              </text>
            </g>
          ))}
          {rows.map((row, r) => {
            const y = TOP + r * ROW
            return (
              <g key={row.id}>
                {row.spans.map((span) => (
                  <rect
                    key={span.from}
                    x={x(span.from)}
                    width={Math.max(2, x(span.to) - x(span.from))}
                    y={y + 16}
                    height={12}
                    fill={row.dated ? colour.petrol : colour.sheet}
                    stroke={colour.petrol}
                    strokeDasharray={row.dated ? undefined : '4 3'}
                  />
                ))}
                {row.bounds.map(([from, to]) => (
                  <line key={from} x1={x(from)} x2={x(to)} y1={y + 22} y2={y + 22} stroke={colour.pollen} strokeWidth={3} />
                ))}
                {row.events.map((event) => (
                  <line key={event} x1={x(event)} x2={x(event)} y1={y + 12} y2={y + 32} stroke={colour.ink} />
                ))}
                <text x={Math.min(x(row.spans[0]?.from ?? 0), width - 170)} y={y + 11}>
                  {row.name}
                </text>
              </g>
            )
          })}
          <line x1={x(today)} x2={x(today)} y1={14} y2={height} stroke={colour.beet} strokeWidth={2} />
        </svg>
      </Frame>
      {year.grade === 'months' || year.grade === 'calendar'
        ? year.usual.map(({ generation, name, months: known, bloom, region }) => (
            <p key={generation}>{t('detail.usual', { name, months: monthSpan(known, t, f), bloom, region })}</p>
          ))
        : year.windows.map((window) => (
            <div key={window.generation}>
              <b>{t('detail.generation', { name: window.generationName })}</b>
              <p>{windowSentence(year, t, f, window)}</p>
              <Small>{heatSentence(year, t, f, window)}</Small>
            </div>
          ))}
      {year.infection && year.grade === 'dates' ? <p>{windowSentence(year, t, f)}</p> : null}
      {never.length > 0 ? (
        <Caution role="status">{t('organism.noSeason', { names: never.join(', '), own: entry.own ? 'yes' : 'no' })}</Caution>
      ) : null}
      {entry.monthsOnly ? <Caution>{t('organism.monthsOnly')}</Caution> : null}
      {year.grade === 'none' || year.grade === 'calendar' ? null : entry.monthsOnly ? null : <Small>{originSentence(year, t, f)}</Small>}
    </Stack>
  )
}

interface YearRow {
  id: string
  name: string
  dated: boolean
  spans: { from: number; to: number }[]
  bounds: [number, number][]
  events: number[]
}

/** A line for each generation: its window where dates are known, otherwise the months in which it usually is. */
function rowsOf(entry: LibraryEntry, year: WatchForecast, dayOf: (index: number) => string): YearRow[] {
  if (year.grade === 'dates' && year.windows.length > 0)
    return year.windows.flatMap((window) => {
      const { opens, closes } = window
      if (opens.p50 === null) return []
      const known = (b: typeof opens): [number, number][] => (b.p10 !== null && b.p90 !== null ? [[b.p10, b.p90]] : [])
      return [
        {
          id: window.generation,
          name: window.generationName,
          dated: true,
          spans: [{ from: opens.p50, to: closes.p50 ?? DAYS }],
          bounds: [...known(opens), ...known(closes)],
          events: year.events
            .filter((e) => e.generation === window.generation)
            .flatMap((e) => (e.dates.begins.p50 === null ? [] : [e.dates.begins.p50])),
        },
      ]
    })
  const monthOf = (index: number): number => Number(dayOf(index).slice(5, 7))
  return year.usual.map(({ generation, name, months }) => {
    const spans: YearRow['spans'] = []
    for (let i = 0; i < DAYS; i++) {
      if (!months.includes(monthOf(i))) continue
      const last = spans.at(-1)
      if (last && last.to === i) last.to = i + 1
      else spans.push({ from: i, to: i + 1 })
    }
    return { id: generation, name: name || entry.name, dated: false, spans, bounds: [], events: [] }
  })
}
