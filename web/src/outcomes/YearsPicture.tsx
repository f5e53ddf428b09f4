import type { YearsOf } from '@bocado/contract'
import { scaleLinear } from 'd3-scale'
import { useRef } from 'react'
import { Picture } from '../charts/Picture.js'
import { useWidth } from '../charts/useWidth.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { seasonName } from '../shell/screens.js'

const WIDEST = 560
const HEIGHT = 132
const LEFT = 44
const FOOT = 24
const TOP = 12
/** Seasons are no further apart than this, however few they are. */
const WIDEST_STEP = 120

interface Point {
  season: string
  value: number
  low: number
  high: number
  isOver: boolean
  check: number | null
}

/** What is drawn of an organism: counts where there are any, else what stood. */
function pointsOf({ years }: YearsOf): { of: 'counts' | 'stood'; points: Point[] } {
  const counted = years.flatMap(({ season, highest, threshold, check }): Point[] =>
    highest
      ? [
          {
            season,
            value: highest.per100,
            low: highest.low,
            high: highest.high,
            isOver: threshold !== null && highest.per100 >= threshold,
            check,
          },
        ]
      : [],
  )
  if (counted.length > 0) return { of: 'counts', points: counted }
  const byPlants = years.every(({ patches, plants }) => patches === null || plants !== null)
  const stood = years.flatMap(({ season, patches, plants }): Point[] => {
    const value = byPlants ? plants : patches
    return value === null ? [] : [{ season, value, low: value, high: value, isOver: false, check: null }]
  })
  return { of: 'stood', points: stood }
}

/** One organism of a block over the seasons, all of them on the axis of the page: its highest counts with their intervals, or what stood; what came untreated beside them. */
export function YearsPicture({ line, seasons }: { line: YearsOf; seasons: readonly string[] }) {
  const t = useText()
  const f = useFormat()
  const frame = useRef<HTMLDivElement>(null)
  const width = useWidth(frame, WIDEST)
  const { of, points } = pointsOf(line)
  if (points.length === 0) return null
  const thresholds = line.years.flatMap(({ threshold }) => threshold ?? [])
  const threshold = of === 'counts' ? thresholds.at(-1) : undefined
  const most = Math.max(...points.flatMap(({ high, check }) => [high, check ?? 0]), (threshold ?? 0) * 1.3, 1e-9)
  const y = scaleLinear([0, most * 1.05], [HEIGHT - FOOT, TOP])
  const step = Math.min(WIDEST_STEP, (width - LEFT - 80) / Math.max(1, seasons.length - 1))
  const x = (season: string): number => LEFT + 40 + step * seasons.indexOf(season)
  const path = points.map(({ season, value }, i) => `${i === 0 ? 'M' : 'L'}${x(season)},${y(value)}`).join('')
  return (
    <div ref={frame}>
      <Picture
        viewBox={`0 0 ${width} ${HEIGHT}`}
        role="img"
        aria-label={t(of === 'counts' ? 'years.picture' : 'years.pictureStood', {
          name: line.organismName,
          block: line.blockName,
          items: line.items,
        })}
      >
        {y.ticks(3).map((tick) => (
          <g key={tick}>
            <line x1={LEFT} x2={width} y1={y(tick)} y2={y(tick)} stroke={colour.ruleSoft} />
            <text x={LEFT - 6} y={y(tick) + 4} textAnchor="end" className="soft">
              {f.number(tick, 1)}
            </text>
          </g>
        ))}
        {threshold === undefined ? null : (
          <line x1={LEFT} x2={width} y1={y(threshold)} y2={y(threshold)} stroke={colour.beet} strokeWidth="1.5" strokeDasharray="5 4" />
        )}
        <path d={path} fill="none" stroke={colour.ink} strokeWidth="1.4" />
        {points.map(({ season, value, low, high, isOver, check }) => (
          <g key={season}>
            {check === null ? null : (
              <rect
                x={x(season) + 14}
                y={y(check) - 5}
                width="10"
                height="10"
                transform={`rotate(45 ${x(season) + 19} ${y(check)})`}
                fill={colour.white}
                stroke={colour.inkSoft}
                strokeWidth="1.5"
              />
            )}
            {high > low ? <line x1={x(season)} x2={x(season)} y1={y(low)} y2={y(high)} stroke={colour.ink} strokeWidth="2" /> : null}
            <circle cx={x(season)} cy={y(value)} r="5.5" fill={isOver ? colour.beet : colour.white} stroke={colour.ink} strokeWidth="1.6" />
            <text x={x(season) - 10} y={y(value) + 4} textAnchor="end" className="value">
              {f.number(value, value < 10 ? 1 : 0)}
            </text>
          </g>
        ))}
        {seasons.map((season) => (
          <text key={season} x={x(season)} y={HEIGHT - 6} textAnchor="middle" className="soft">
            {seasonName(season)}
          </text>
        ))}
      </Picture>
    </div>
  )
}
