import type { DayWeather, ResponseOf, weather } from '@bocado/contract'
import { max, min } from 'd3-array'
import { scaleLinear } from 'd3-scale'
import { area, line } from 'd3-shape'
import { useRef, useState, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react'
import styled from 'styled-components'
import { TextButton } from '../design/buttons.js'
import { Choice } from '../design/controls.js'
import { Line } from '../design/text.js'
import { colour, font } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { useWidth } from '../charts/useWidth.js'
import { useDayZoom, type SharedDays } from './useDayZoom.js'

export type Season = ResponseOf<typeof weather.days>

const LEFT = 74
const AIR = { top: 10, foot: 186 }
const RAIN = { top: 196, foot: 240 }
const WET = { top: 250, foot: 280 }
const SOIL = { top: 290, foot: 324 }
const FOOT = SOIL.foot
const HEIGHT = FOOT + 24

const Figure = styled.figure`
  margin: 0;
  background: ${colour.sheet};
  border-block: 1px solid ${colour.rule};
  padding: 8px 0 0;
  svg {
    width: 100%;
    height: auto;
    display: block;
    touch-action: pan-y;
    cursor: crosshair;
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

interface Props extends Season {
  today: string
  onOpenDay: (day: string) => void
  /** The day that is open below. */
  openDay: string
  /** Days in view that the strip chooses too; without it the picture chooses alone. */
  shared: SharedDays | undefined
  /** What stands before and behind the choice of days. */
  before: ReactNode
  behind: ReactNode
}

const SPANS = { season: 366, months: 61, weeks: 14 } as const

/** The season in four lanes over one axis of days: air temperature over its normal range, rain, wet hours, water in the soil. */
export function SeasonPicture(props: Props) {
  const { days, normal, ahead, forecast, today, onOpenDay, openDay } = props
  const t = useText()
  const f = useFormat()
  const svg = useRef<SVGSVGElement>(null)
  const frame = useRef<HTMLElement>(null)
  const [reading, setReading] = useState<number | null>(null)
  const width = useWidth(frame, 1240)
  const right = width - 8
  const { x, visible, show, pan, zoomBy } = useDayZoom(svg, days.length, LEFT, right, props.shared)
  const { temperature } = f.measures
  const first = Math.max(0, Math.floor(visible[0]))
  const shown = days.slice(first, Math.ceil(visible[1]) + 1).map((day, k) => ({ ...day, i: first + k }))
  const todayIndex = days.findIndex(({ day }) => day === today)
  const aheadAt = (day: string) => ahead.find((a) => a.day === day)

  const lows = [...days.flatMap((d) => d.min ?? []), ...normal.flatMap((n) => n?.low ?? []), ...ahead.map((a) => a.min.low)]
  const highs = [...days.flatMap((d) => d.max ?? []), ...normal.flatMap((n) => n?.high ?? []), ...ahead.map((a) => a.max.high)]
  const y = scaleLinear([temperature.shown(min(lows) ?? 0), temperature.shown(max(highs) ?? 30)], [AIR.foot, AIR.top]).nice()
  const rainMost = max(days, (d) => d.rain ?? 0) ?? 0
  const rain = scaleLinear([0, Math.max(1, rainMost)], [RAIN.foot, RAIN.top])
  const wet = scaleLinear([0, 24], [WET.foot, WET.top])
  const soil = scaleLinear([0, 1], [SOIL.foot, SOIL.top])
  const wide = x(1) - x(0)
  const band = area<DayWeather & { i: number }>()
    .defined(({ i }) => normal[i] != null)
    .x(({ i }) => x(i + 0.5))
    .y0(({ i }) => y(temperature.shown(normal[i]?.low ?? 0)))
    .y1(({ i }) => y(temperature.shown(normal[i]?.high ?? 0)))
  const rootZone = area<DayWeather & { i: number }>()
    .defined((d) => d.rootZone !== null)
    .x(({ i }) => x(i + 0.5))
    .y0(SOIL.foot)
    .y1((d) => soil(d.rootZone ?? 0))
  const surface = line<DayWeather & { i: number }>()
    .defined((d) => d.surface !== null)
    .x(({ i }) => x(i + 0.5))
    .y((d) => soil(d.surface ?? 0))

  const dayUnder = (event: PointerEvent<SVGSVGElement> | React.MouseEvent<SVGSVGElement>): number | null => {
    const box = event.currentTarget.getBoundingClientRect()
    const i = Math.floor(x.invert(((event.clientX - box.left) / box.width) * width))
    return i < 0 || i >= days.length ? null : i
  }
  const read = (i: number): void => {
    const day = Math.min(days.length - 1, Math.max(0, i))
    setReading(day)
    const span = visible[1] - visible[0]
    if (day < visible[0]) show(day - 1, day - 1 + span)
    else if (day + 1 > visible[1]) show(day + 2 - span, day + 2)
  }
  const onKey = (event: KeyboardEvent): void => {
    const step = { ArrowLeft: -1, ArrowRight: 1, PageUp: -7, PageDown: 7 }[event.key]
    const from = reading ?? Math.max(0, todayIndex)
    if (step !== undefined) read(from + step)
    else if (event.key === 'Home') read(0)
    else if (event.key === 'End') read(days.length - 1)
    else if (event.key === '+') zoomBy(1.6)
    else if (event.key === '-') zoomBy(1 / 1.6)
    else if (event.key === 'Enter') onOpenDay(days[from]?.day ?? today)
    else return
    event.preventDefault()
  }

  const words = (): string => {
    const d = reading === null ? undefined : days[reading]
    if (!d)
      return (
        t('weather.legend', { seasons: props.pastSeasons }) + (forecast ? t('weather.issued', { issued: f.moment(forecast.issuedAt) }) : '')
      )
    const date = f.date(d.day)
    const coming = aheadAt(d.day)
    if (coming)
      return t('weather.ahead', {
        date,
        minLow: f.temperature(coming.min.low),
        minHigh: f.temperature(coming.min.high),
        maxLow: f.temperature(coming.max.low),
        maxHigh: f.temperature(coming.max.high),
        members: forecast?.members ?? 0,
      })
    if (d.min === null || d.max === null) return t('weather.noDay', { date })
    const parts = [
      t('weather.day', { date, min: f.temperature(d.min), max: f.temperature(d.max) }),
      t('weather.dayRain', { rain: d.rain === null ? t('unknown') : f.rain(d.rain) }),
      d.wet === null ? '' : t('weather.dayWet', { wet: d.wet, unknown: d.wetUnknown }),
      d.soil === null ? '' : t(`weather.daySoil.${props.soil.source}`, { temperature: f.temperature(d.soil) }),
      d.rootZone === null ? '' : t('weather.dayWater', { root: f.percent(d.rootZone), surface: f.percent(d.surface ?? 0) }),
      d.chill === null ? '' : t('weather.dayChill', { portions: f.number(d.chill, 0) }),
      d.filled > 0 ? t('weather.filled', { share: f.percent(d.filled) }) : '',
    ]
    return `${parts.filter((part) => part !== '').join(' · ')}. ${t('weather.openHint')}`
  }

  const span = visible[1] - visible[0]
  const chosen = span > 200 ? 'season' : span > 30 ? 'months' : 'weeks'
  return (
    <div>
      <Line style={{ justifyContent: 'space-between', paddingBottom: 8 }}>
        <Line>
          {props.before}
          <Choice
            label={t('weather.range')}
            options={(['season', 'months', 'weeks'] as const).map((id) => ({ id, label: t(`range.${id}`) }))}
            value={chosen}
            onChange={(id) => {
              const centre = reading ?? (todayIndex < 0 ? days.length / 2 : todayIndex)
              show(centre - SPANS[id] * 0.6, centre + SPANS[id] * 0.4)
            }}
          />
        </Line>
        <Line $gap={16}>
          <TextButton onPress={() => pan(-0.5)}>{t('weather.earlier')}</TextButton>
          <TextButton onPress={() => pan(0.5)}>{t('weather.later')}</TextButton>
          {props.behind}
        </Line>
      </Line>
      <Figure ref={frame}>
        <svg
          ref={svg}
          viewBox={`0 0 ${width} ${HEIGHT}`}
          role="application"
          tabIndex={0}
          aria-label={t('weather.chart')}
          aria-describedby="weather-reading"
          onPointerMove={(event) => setReading(dayUnder(event))}
          onPointerLeave={() => setReading(null)}
          onClick={(event) => {
            const i = dayUnder(event)
            if (i !== null) onOpenDay(days[i]?.day ?? today)
          }}
          onKeyDown={onKey}
        >
          <defs>
            <pattern id="filled" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <rect width="5" height="5" fill={colour.sheet} />
              <line x1="0" x2="0" y1="0" y2="5" stroke={colour.petrol} strokeWidth="2.5" />
            </pattern>
            <pattern id="not-known" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
              <line x1="0" x2="0" y1="0" y2="5" stroke={colour.rule} strokeWidth="2" />
            </pattern>
            <clipPath id="plot">
              <rect x={LEFT} y="0" width={right - LEFT} height={HEIGHT} />
            </clipPath>
          </defs>
          {y.ticks(4).map((tick) => (
            <g key={tick}>
              <line x1={LEFT} x2={right} y1={y(tick)} y2={y(tick)} stroke={colour.ruleSoft} />
              <text x={LEFT - 6} y={y(tick) + 4} textAnchor="end">
                {tick}
              </text>
            </g>
          ))}
          <text x={6} y={16}>
            {temperature.unit}
          </text>
          <LaneName lane={RAIN} words={t('lane.rain')} more={f.rain(rainMost)} />
          <LaneName lane={WET} words={t('lane.wet')} more="24 h" />
          <LaneName lane={SOIL} words={t('lane.soil')} more="" />
          {[RAIN, WET, SOIL].map(({ foot }) => (
            <line key={foot} x1={LEFT} x2={right} y1={foot} y2={foot} stroke={colour.rule} />
          ))}
          <g clipPath="url(#plot)">
            <path d={band(shown) ?? ''} fill={colour.ruleSoft} />
            {shown.map((d) =>
              d.min === null || d.max === null ? null : (
                <rect
                  key={d.day}
                  x={x(d.i) + wide * 0.15}
                  width={wide * 0.7}
                  y={y(temperature.shown(d.max))}
                  height={Math.max(1, y(temperature.shown(d.min)) - y(temperature.shown(d.max)))}
                  fill={d.filled > 0 ? 'url(#filled)' : colour.petrol}
                />
              ),
            )}
            <Ahead {...{ ahead, days, x, y, wide }} />
            {shown.map((d) =>
              d.rain ? (
                <rect
                  key={d.day}
                  x={x(d.i) + wide * 0.1}
                  width={wide * 0.8}
                  y={rain(d.rain)}
                  height={RAIN.foot - rain(d.rain)}
                  fill={colour.inkSoft}
                />
              ) : null,
            )}
            {shown.map((d) =>
              d.wet === null ? null : (
                <g key={d.day}>
                  <rect x={x(d.i) + wide * 0.1} width={wide * 0.8} y={wet(d.wet)} height={WET.foot - wet(d.wet)} fill={colour.petrol} />
                  {d.wetUnknown > 0 ? (
                    <rect
                      x={x(d.i) + wide * 0.1}
                      width={wide * 0.8}
                      y={wet(d.wet + d.wetUnknown)}
                      height={wet(d.wet) - wet(d.wet + d.wetUnknown)}
                      fill="url(#not-known)"
                    />
                  ) : null}
                </g>
              ),
            )}
            <path d={rootZone(shown) ?? ''} fill={colour.petrolSoft} stroke={colour.petrol} strokeWidth="1" />
            <path d={surface(shown) ?? ''} fill="none" stroke={colour.ink} strokeWidth="1" strokeDasharray="3 2" />
            <DayTicks days={shown} x={x} span={span} />
            {todayIndex >= 0 ? <line x1={x(todayIndex)} x2={x(todayIndex)} y1={4} y2={FOOT} stroke={colour.beet} strokeWidth="2" /> : null}
            <OpenDay index={days.findIndex(({ day }) => day === openDay)} x={x} />
            {reading === null ? null : (
              <line x1={x(reading + 0.5)} x2={x(reading + 0.5)} y1={4} y2={FOOT} stroke={colour.ink} strokeDasharray="3 3" />
            )}
          </g>
        </svg>
        <figcaption id="weather-reading" aria-live="polite">
          {words()}
        </figcaption>
      </Figure>
    </div>
  )
}

function LaneName({ lane, words, more }: { lane: { top: number; foot: number }; words: string; more: string }) {
  return (
    <>
      <text x={6} y={lane.top + 12}>
        {words}
      </text>
      <text x={6} y={lane.top + 27}>
        {more}
      </text>
    </>
  )
}

interface Scales {
  x: (day: number) => number
  y: (value: number) => number
}

/** The days ahead: from the lowest to the highest member, the line from median to median. */
function Ahead({ ahead, days, x, y, wide }: Pick<Season, 'ahead' | 'days'> & Scales & { wide: number }) {
  const { temperature } = useFormat().measures
  return ahead.map(({ day, min: low, max: high }) => {
    const i = days.findIndex((d) => d.day === day)
    if (i < 0) return null
    const [top, bottom] = [y(temperature.shown(high.high)), y(temperature.shown(low.low))]
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
        <line
          x1={x(i + 0.5)}
          x2={x(i + 0.5)}
          y1={y(temperature.shown(high.middle))}
          y2={y(temperature.shown(low.middle))}
          stroke={colour.petrol}
          strokeWidth="1.2"
        />
      </g>
    )
  })
}

/** Marks of the axis: months, weeks or days, as there is room. */
function DayTicks({ days, x, span }: { days: readonly (DayWeather & { i: number })[]; x: (day: number) => number; span: number }) {
  const f = useFormat()
  const isMark = ({ day }: DayWeather): boolean =>
    span > 120 ? day.endsWith('-01') : span > 24 ? ['01', '08', '15', '22'].includes(day.slice(8)) : Number(day.slice(8)) % 2 === 1
  return days.filter(isMark).map((d) => (
    <g key={d.day}>
      <line x1={x(d.i)} x2={x(d.i)} y1={FOOT} y2={FOOT + 6} stroke={colour.rule} />
      <text x={x(d.i) + 4} y={HEIGHT - 6}>
        {span > 120 ? f.month(d.day).slice(0, 3) : f.shortDate(d.day)}
      </text>
    </g>
  ))
}

/** A foot under the day that is open below. */
function OpenDay({ index, x }: { index: number; x: (day: number) => number }) {
  if (index < 0) return null
  const middle = x(index + 0.5)
  return <path d={`M${middle - 6},${FOOT + 9} L${middle},${FOOT + 1} L${middle + 6},${FOOT + 9} Z`} fill={colour.ink} />
}
