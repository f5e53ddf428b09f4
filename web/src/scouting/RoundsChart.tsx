import type { Round, Threshold } from '@bocado/contract'
import { scaleLinear } from 'd3-scale'
import { line } from 'd3-shape'
import { Picture } from '../charts/Picture.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { ThresholdLine } from './ThresholdLine.js'

const WIDTH = 520
const HEIGHT = 150
const LEFT = 34
const RIGHT = 130
const FOOT = 22

export interface RoundsChartProps {
  rounds: readonly Round[]
  threshold: Threshold | null
  items: string
  /** The line of the threshold is moved to another value, per 100 items; without it the line stands. */
  onThreshold?: (per100: number) => void
}

/** Counts of a season against the threshold: the block as dots, the check area as diamonds. */
export function RoundsChart({ rounds, threshold, items, onThreshold }: RoundsChartProps) {
  const t = useText()
  const f = useFormat()
  const first = rounds[0]?.countedOn ?? f.today
  const dayOf = (round: Round): number => f.seasonIndex(first, round.countedOn)
  const days = rounds.map(dayOf)
  const x = scaleLinear([Math.min(...days), Math.max(...days, Math.min(...days) + 1)], [LEFT + 14, WIDTH - RIGHT])
  const drawn = threshold && threshold.per100 > 0 ? threshold.per100 : null
  const y = scaleLinear([0, Math.max((drawn ?? 0) * 1.3, 1, ...rounds.map(({ per100 }) => per100 * 1.08))], [HEIGHT - FOOT, 8])
  const series = [...new Set(rounds.map(({ checkAreaName }) => checkAreaName))].map((name) =>
    rounds.filter(({ checkAreaName }) => checkAreaName === name),
  )
  const path = line<Round>()
    .x((round) => x(dayOf(round)))
    .y(({ per100 }) => y(per100))
  return (
    <Picture
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role={onThreshold && drawn !== null ? 'group' : 'img'}
      aria-label={t('scouting.chart', { items, known: drawn === null ? 'no' : 'yes', threshold: f.number(drawn ?? 0, 1) })}
    >
      {y.ticks(3).map((tick) => (
        <g key={tick}>
          <line x1={LEFT} x2={WIDTH - RIGHT + 8} y1={y(tick)} y2={y(tick)} stroke={colour.ruleSoft} />
          <text className="soft" x={LEFT - 6} y={y(tick) + 4} textAnchor="end">
            {tick}
          </text>
        </g>
      ))}
      {drawn === null ? null : onThreshold ? (
        <ThresholdLine
          per100={drawn}
          items={items}
          left={LEFT}
          right={WIDTH - RIGHT + 8}
          toY={(per100) => y(per100)}
          fromY={(at) => y.invert(at)}
          most={y.domain()[1] ?? drawn}
          onChange={onThreshold}
        />
      ) : (
        <>
          <line x1={LEFT} x2={WIDTH - RIGHT + 8} y1={y(drawn)} y2={y(drawn)} stroke={colour.beet} strokeWidth="1.5" strokeDasharray="5 4" />
          <text x={WIDTH - RIGHT + 12} y={y(drawn) + 4} style={{ fill: 'var(--beet)' }}>
            {t('scouting.thresholdShort', { threshold: f.number(drawn, 1) })}
          </text>
        </>
      )}
      {series.map((of) => {
        const check = of[0]?.checkAreaId !== null
        const last = of.at(-1)
        return (
          <g key={of[0]?.id}>
            <path d={path(of) ?? ''} fill="none" stroke={colour.ink} strokeDasharray={check ? '3 3' : 'none'} />
            {of.map((round) => {
              const [cx, cy] = [x(dayOf(round)), y(round.per100)]
              const fill = round.crossed ? colour.beet : colour.white
              return check ? (
                <rect
                  key={round.id}
                  x={cx - 4.5}
                  y={cy - 4.5}
                  width="9"
                  height="9"
                  transform={`rotate(45 ${cx} ${cy})`}
                  fill={fill}
                  stroke={colour.ink}
                  strokeWidth="1.4"
                />
              ) : (
                <circle key={round.id} cx={cx} cy={cy} r="5" fill={fill} stroke={colour.ink} strokeWidth="1.4" />
              )
            })}
            {last ? (
              <text
                x={x(dayOf(last)) + 12}
                y={y(last.per100) + 4 + (drawn !== null && Math.abs(y(last.per100) - y(drawn)) < 14 ? -14 : 0)}
                style={{ fill: 'var(--ink)' }}
              >
                {check ? t('scouting.inCheck') : t('count.inBlock')}
              </text>
            ) : null}
          </g>
        )
      })}
      {[...new Set(days)].map((day, i, all) =>
        i === 0 || i === all.length - 1 ? (
          <text className="soft" key={day} x={x(day)} y={HEIGHT - 5} textAnchor="middle">
            {f.shortDate(f.seasonDay(first, day))}
          </text>
        ) : null,
      )}
    </Picture>
  )
}
