import type { DayWeather } from '@bocado/contract'
import { max, min } from 'd3-array'
import { scaleLinear } from 'd3-scale'
import { area } from 'd3-shape'
import { useState, type KeyboardEvent, type PointerEvent } from 'react'
import styled from 'styled-components'
import { colour, font } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'

const WIDTH = 1240
const HEIGHT = 300
const RAIN = 64
const LEFT = 46
const FOOT = 24

const Picture = styled.figure`
  margin: 0;
  background: ${colour.sheet};
  border-block: 1px solid ${colour.rule};
  padding: 8px 0 0;
  svg {
    width: 100%;
    height: auto;
    display: block;
  }
  text {
    font: 13px ${font.text};
    fill: ${colour.inkSoft};
  }
  figcaption {
    padding: 6px 12px;
    font-size: 13px;
    min-height: 32px;
  }
`

interface Props {
  days: DayWeather[]
  normal: ({ low: number; high: number } | null)[]
  pastSeasons: number
  ahead: { day: string; min: Span; max: Span }[]
  forecast: { issuedAt: string; members: number } | null
  today: string
}

interface Span {
  low: number
  middle: number
  high: number
}

/** The season's daily range as bars over the range of past seasons, with rain below. */
export function SeasonChart({ days, normal, pastSeasons, ahead, forecast, today }: Props) {
  const t = useText()
  const f = useFormat()
  const [reading, setReading] = useState<number | null>(null)
  const { temperature } = f.measures
  const lows = [...days.flatMap((d) => d.min ?? []), ...normal.flatMap((n) => n?.low ?? []), ...ahead.map((a) => a.min.low)]
  const highs = [...days.flatMap((d) => d.max ?? []), ...normal.flatMap((n) => n?.high ?? []), ...ahead.map((a) => a.max.high)]
  const x = scaleLinear([0, days.length], [LEFT, WIDTH - 8])
  const y = scaleLinear([temperature.shown(min(lows) ?? 0), temperature.shown(max(highs) ?? 30)], [HEIGHT - FOOT - RAIN, 10]).nice()
  const rainMost = max(days, (d) => d.rain ?? 0) ?? 0
  const rain = scaleLinear([0, Math.max(1, rainMost)], [HEIGHT - FOOT, HEIGHT - FOOT - RAIN + 10])
  const wide = x(1) - x(0)
  const band = area<number>()
    .defined((i) => normal[i] !== null)
    .x((i) => x(i + 0.5))
    .y0((i) => y(temperature.shown(normal[i]?.low ?? 0)))
    .y1((i) => y(temperature.shown(normal[i]?.high ?? 0)))
  const read = (event: PointerEvent<SVGSVGElement>): void => {
    const box = event.currentTarget.getBoundingClientRect()
    const i = Math.floor(x.invert(((event.clientX - box.left) / box.width) * WIDTH))
    setReading(i < 0 || i >= days.length ? null : i)
  }
  const step = (event: KeyboardEvent): void => {
    const move = { ArrowLeft: -1, ArrowRight: 1, PageUp: -7, PageDown: 7 }[event.key]
    if (move === undefined) return
    event.preventDefault()
    const from = reading ?? days.findIndex(({ day }) => day === today)
    setReading(Math.min(days.length - 1, Math.max(0, from + move)))
  }
  const shown = reading === null ? undefined : days[reading]
  const aheadOf = (day: string) => ahead.find((a) => a.day === day)
  const readingWords = (): string => {
    if (!shown)
      return t('weather.legend', { seasons: pastSeasons }) + (forecast ? t('weather.issued', { issued: f.moment(forecast.issuedAt) }) : '')
    const date = f.date(shown.day)
    const coming = aheadOf(shown.day)
    if (coming) {
      const degrees = (c: number): string => f.temperature(c)
      const { min: low, max: high } = coming
      return t('weather.ahead', {
        date,
        minLow: degrees(low.low),
        minHigh: degrees(low.high),
        maxLow: degrees(high.low),
        maxHigh: degrees(high.high),
        members: forecast?.members ?? 0,
      })
    }
    if (shown.min === null || shown.max === null) return t('weather.noDay', { date })
    return t('weather.day', {
      date,
      min: f.temperature(shown.min),
      max: f.temperature(shown.max),
      rain: shown.rain === null ? t('unknown') : f.rain(shown.rain),
      filled: shown.filled > 0 ? t('weather.filled', { share: f.percent(shown.filled) }) : '',
    })
  }
  const todayIndex = days.findIndex(({ day }) => day === today)
  return (
    <Picture>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="application"
        tabIndex={0}
        aria-label={t('weather.chart')}
        aria-describedby="weather-reading"
        onPointerMove={read}
        onPointerLeave={() => setReading(null)}
        onKeyDown={step}
      >
        <defs>
          <pattern id="filled" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="5" height="5" fill={colour.sheet} />
            <line x1="0" x2="0" y1="0" y2="5" stroke={colour.petrol} strokeWidth="2.5" />
          </pattern>
        </defs>
        {y.ticks(5).map((tick) => (
          <g key={tick}>
            <line x1={LEFT} x2={WIDTH} y1={y(tick)} y2={y(tick)} stroke={colour.ruleSoft} />
            <text x={LEFT - 6} y={y(tick) + 4} textAnchor="end">
              {tick}
            </text>
          </g>
        ))}
        <text x={6} y={16}>
          {temperature.unit}
        </text>
        <text x={6} y={HEIGHT - FOOT - RAIN + 22}>
          {f.rain(rainMost)}
        </text>
        <path d={band(days.map((_, i) => i)) ?? ''} fill="#c9d8da" />
        {days.map((d, i) =>
          d.min === null || d.max === null ? null : (
            <rect
              key={d.day}
              x={x(i) + wide * 0.15}
              width={wide * 0.7}
              y={y(temperature.shown(d.max))}
              height={Math.max(1, y(temperature.shown(d.min)) - y(temperature.shown(d.max)))}
              fill={d.filled > 0 ? 'url(#filled)' : colour.petrol}
            />
          ),
        )}
        {ahead.map(({ day, min: low, max: high }) => {
          const i = days.findIndex((d) => d.day === day)
          if (i < 0) return null
          const [top, bottom] = [y(temperature.shown(high.high)), y(temperature.shown(low.low))]
          const [warm, cool] = [y(temperature.shown(high.middle)), y(temperature.shown(low.middle))]
          return (
            <g key={day}>
              <rect
                x={x(i) + wide * 0.15}
                width={wide * 0.7}
                y={top}
                height={bottom - top}
                fill={colour.petrolSoft}
                stroke={colour.petrol}
                strokeWidth="0.6"
              />
              <line x1={x(i + 0.5)} x2={x(i + 0.5)} y1={warm} y2={cool} stroke={colour.petrol} strokeWidth="1.2" />
            </g>
          )
        })}
        {days.map((d, i) =>
          d.rain ? (
            <rect key={d.day} x={x(i)} width={wide * 0.9} y={rain(d.rain)} height={HEIGHT - FOOT - rain(d.rain)} fill={colour.inkSoft} />
          ) : null,
        )}
        <line x1={LEFT} x2={WIDTH - 8} y1={HEIGHT - FOOT} y2={HEIGHT - FOOT} stroke={colour.rule} />
        {days.map((d, i) =>
          d.day.endsWith('-01') ? (
            <g key={d.day}>
              <line x1={x(i)} x2={x(i)} y1={HEIGHT - FOOT} y2={HEIGHT - FOOT + 6} stroke={colour.rule} />
              <text x={x(i) + 4} y={HEIGHT - 6}>
                {f.month(d.day).slice(0, 3)}
              </text>
            </g>
          ) : null,
        )}
        {todayIndex >= 0 ? (
          <line x1={x(todayIndex)} x2={x(todayIndex)} y1={4} y2={HEIGHT - FOOT} stroke={colour.beet} strokeWidth="2" />
        ) : null}
        {reading === null ? null : (
          <line x1={x(reading + 0.5)} x2={x(reading + 0.5)} y1={4} y2={HEIGHT - FOOT} stroke={colour.ink} strokeDasharray="3 3" />
        )}
      </svg>
      <figcaption id="weather-reading" aria-live="polite">
        {readingWords()}
      </figcaption>
    </Picture>
  )
}
