import type { HourWeather, ResponseOf, weather } from '@bocado/contract'
import { max, min } from 'd3-array'
import { scaleLinear } from 'd3-scale'
import { area, line } from 'd3-shape'
import { Picture } from '../charts/Picture.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'

const WIDTH = 1240
const HEIGHT = 190
const LEFT = 64
const RIGHT = WIDTH - 8
const FOOT = 164

interface Props {
  /** An hour of the day by the clock. */
  nameOf: (hour: number) => string
  hours: readonly HourWeather[]
  sun: ResponseOf<typeof weather.hours>['sun']
}

/** A day's temperature and dew point over night and day, wet hours and rain. */
export function HoursPicture({ hours, sun, nameOf }: Props) {
  const t = useText()
  const f = useFormat()
  const { temperature } = f.measures
  const values = hours.flatMap((h) => [h.temperature, h.low, h.high, h.dewPoint].filter((v): v is number => v !== null))
  const x = scaleLinear([0, 24], [LEFT, RIGHT])
  const y = scaleLinear([temperature.shown(min(values) ?? 0), temperature.shown(max(values) ?? 20)], [FOOT - 10, 12]).nice()
  const rainMost = Math.max(1, max(hours, (h) => h.rain ?? 0) ?? 0)
  const rain = scaleLinear([0, rainMost], [FOOT, FOOT - 44])
  const curve = (of: (h: HourWeather) => number | null) =>
    line<HourWeather>()
      .defined((h) => of(h) !== null)
      .x((h) => x(h.hour + 0.5))
      .y((h) => y(temperature.shown(of(h) ?? 0)))([...hours]) ?? ''
  const spread =
    area<HourWeather>()
      .defined((h) => h.low !== null && h.high !== null)
      .x((h) => x(h.hour + 0.5))
      .y0((h) => y(temperature.shown(h.low ?? 0)))
      .y1((h) => y(temperature.shown(h.high ?? 0)))([...hours]) ?? ''
  const nights =
    sun?.sunrise != null && sun.sunset !== null
      ? [
          [0, sun.sunrise],
          [sun.sunset, 24],
        ]
      : []
  return (
    <Picture viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={t('hours.chart')} style={{ background: colour.sheet }}>
      {nights.map(([from, to]) => (
        <rect key={from} x={x(from ?? 0)} width={x(to ?? 0) - x(from ?? 0)} y={4} height={FOOT - 4} fill={colour.ruleSoft} />
      ))}
      {y.ticks(4).map((tick) => (
        <g key={tick}>
          <line x1={LEFT} x2={RIGHT} y1={y(tick)} y2={y(tick)} stroke={colour.rule} strokeWidth="0.5" />
          <text className="soft" x={LEFT - 6} y={y(tick) + 4} textAnchor="end">
            {tick}
          </text>
        </g>
      ))}
      <text className="soft" x={6} y={16}>
        {temperature.unit}
      </text>
      {hours.map((h) =>
        h.rain ? (
          <rect
            key={h.hour}
            x={x(h.hour) + 6}
            width={x(1) - x(0) - 12}
            y={rain(h.rain)}
            height={FOOT - rain(h.rain)}
            fill={colour.inkSoft}
          />
        ) : null,
      )}
      <path d={spread} fill={colour.petrolSoft} stroke={colour.petrol} strokeWidth="0.6" />
      <path d={curve((h) => h.dewPoint)} fill="none" stroke={colour.inkSoft} strokeWidth="1.4" strokeDasharray="5 3" />
      <path d={curve((h) => h.temperature)} fill="none" stroke={colour.petrol} strokeWidth="2.6" />
      {hours.map((h) => (h.wet ? <rect key={h.hour} x={x(h.hour)} width={x(1) - x(0)} y={FOOT} height={6} fill={colour.petrol} /> : null))}
      <line x1={LEFT} x2={RIGHT} y1={FOOT} y2={FOOT} stroke={colour.rule} />
      {[0, 3, 6, 9, 12, 15, 18, 21].map((hour) => (
        <text className="soft" key={hour} x={x(hour) + 2} y={HEIGHT - 6}>
          {nameOf(hour)}
        </text>
      ))}
    </Picture>
  )
}
