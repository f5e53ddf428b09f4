import type { Outcome, OutcomeCount } from '@bocado/contract'
import { scaleLinear } from 'd3-scale'
import { Picture } from '../charts/Picture.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'

const WIDTH = 620
const HEIGHT = 268
const LEFT = 42
const FOOT = 44

/** Treated and check side by side, before and after, with their intervals; hollow: where the treated area would stand had it gone the check's way. */
export function BeforeAfter({ outcome, block }: { outcome: Outcome; block: string }) {
  const t = useText()
  const f = useFormat()
  const { treated, check, comparison } = outcome
  const threshold = outcome.threshold && outcome.threshold.per100 > 0 ? outcome.threshold.per100 : null
  const highs = [treated.before, treated.after, check?.before, check?.after].flatMap((c) => c?.high ?? [])
  const y = scaleLinear(
    [0, Math.max((threshold ?? 0) * 1.4, comparison?.expectedWithoutTreatment ?? 0, ...highs) * 1.05],
    [HEIGHT - FOOT, 14],
  )
  const places = { treatedBefore: 110, treatedAfter: 240, checkBefore: 400, checkAfter: 530 }
  return (
    <Picture
      style={{ background: colour.sheet }}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={t('outcomes.chart', { items: outcome.item })}
    >
      {y.ticks(4).map((tick) => (
        <g key={tick}>
          <line x1={LEFT} x2={WIDTH} y1={y(tick)} y2={y(tick)} stroke={colour.ruleSoft} />
          <text x={LEFT - 6} y={y(tick) + 4} textAnchor="end" className="soft">
            {tick}
          </text>
        </g>
      ))}
      {threshold === null ? null : (
        <>
          <line x1={LEFT} x2={WIDTH} y1={y(threshold)} y2={y(threshold)} stroke={colour.beet} strokeWidth="1.5" strokeDasharray="5 4" />
          <text x={WIDTH - 4} y={y(threshold) - 5} textAnchor="end" style={{ fill: 'var(--beet)' }}>
            {t('scouting.thresholdShort', { threshold: f.number(threshold, 1) })}
          </text>
        </>
      )}
      <line x1={320} x2={320} y1={8} y2={HEIGHT - 6} stroke={colour.rule} />
      <Pair from={treated.before} to={treated.after} x={[places.treatedBefore, places.treatedAfter]} y={y} diamond={false} />
      {check ? <Pair from={check.before} to={check.after} x={[places.checkBefore, places.checkAfter]} y={y} diamond /> : null}
      {comparison && treated.before && treated.after ? (
        <g>
          <line
            x1={places.treatedBefore}
            y1={y(treated.before.per100)}
            x2={places.treatedAfter}
            y2={y(comparison.expectedWithoutTreatment)}
            stroke={colour.inkSoft}
            strokeDasharray="3 4"
          />
          <line
            x1={places.treatedAfter + 22}
            x2={places.treatedAfter + 22}
            y1={y(comparison.expectedWithoutTreatment)}
            y2={y(treated.after.per100)}
            stroke={colour.petrol}
            strokeWidth="5"
          />
          <circle
            cx={places.treatedAfter}
            cy={y(comparison.expectedWithoutTreatment)}
            r="7"
            fill="none"
            stroke={colour.inkSoft}
            strokeWidth="1.8"
            strokeDasharray="3 2"
          />
          <text x={places.treatedAfter - 14} y={y(comparison.expectedWithoutTreatment) + 4} textAnchor="end" className="soft">
            {t('outcomes.asCheck')}
          </text>
        </g>
      ) : null}
      <text x={175} y={HEIGHT - 8} textAnchor="middle" style={{ fontWeight: 600 }}>
        {t('outcomes.treatedArea', { block })}
      </text>
      <text x={465} y={HEIGHT - 8} textAnchor="middle" style={{ fontWeight: 600 }}>
        {check?.name ?? t('outcomes.noCheck')}
      </text>
    </Picture>
  )
}

function Pair({
  from,
  to,
  x,
  y,
  diamond,
}: {
  from: OutcomeCount | null
  to: OutcomeCount | null
  x: [number, number]
  y: (v: number) => number
  diamond: boolean
}) {
  const f = useFormat()
  return (
    <g>
      {from && to ? <line x1={x[0]} y1={y(from.per100)} x2={x[1]} y2={y(to.per100)} stroke={colour.ink} strokeWidth="1.6" /> : null}
      {[from, to].map((count, i) => {
        const cx = x[i] ?? 0
        if (!count) return null
        const cy = y(count.per100)
        const fill = count.crossed ? colour.beet : colour.white
        return (
          <g key={count.roundId}>
            <line x1={cx} x2={cx} y1={y(count.low)} y2={y(count.high)} stroke={colour.ink} strokeWidth="2" />
            {[count.low, count.high].map((v) => (
              <line key={v} x1={cx - 6} x2={cx + 6} y1={y(v)} y2={y(v)} stroke={colour.ink} strokeWidth="2" />
            ))}
            {diamond ? (
              <rect
                x={cx - 6}
                y={cy - 6}
                width="12"
                height="12"
                transform={`rotate(45 ${cx} ${cy})`}
                fill={fill}
                stroke={colour.ink}
                strokeWidth="1.6"
              />
            ) : (
              <circle cx={cx} cy={cy} r="7" fill={fill} stroke={colour.ink} strokeWidth="1.6" />
            )}
            <text x={cx - 14} y={cy + 4} textAnchor="end" className="value">
              {f.number(count.per100, 1)}
            </text>
            <text x={cx} y={HEIGHT - 27} textAnchor="middle" className="soft">
              {f.shortDate(count.countedOn)}
            </text>
          </g>
        )
      })}
    </g>
  )
}
