import { scaleLinear } from 'd3-scale'
import { line } from 'd3-shape'
import type { CountingPlan } from '../band/countingPlan.js'
import { Picture } from '../charts/Picture.js'
import { colour } from '../design/theme.js'
import { useText } from '../messages/useText.js'
import '../messages/en/count.js'
import '../messages/en/work.js'

const WIDTH = 520
const HEIGHT = 190
const LEFT = 34
const RIGHT = 96
const FOOT = 22
/** Room beyond what was counted, so that one sees where it leads. */
const AHEAD = 1.25

export interface StopLinesProps {
  plan: CountingPlan
  /** What counts on each sample unit, in their order. */
  found: readonly number[]
  units: string
  said: string
}

/**
 * The stop-line chart: the running total of a count walks between two lines until it leaves them. Before the least number of sample units
 * there are no lines to leave.
 */
export function StopLines(p: StopLinesProps) {
  const t = useText()
  const { actAt, stopAt, knownAt, leastUnits, mostUnits, unitsIfNone } = p.plan
  const totals = p.found.reduce<number[]>((so, n) => [...so, (so.at(-1) ?? 0) + n], [0])
  const counted = p.found.length
  const end = Math.max(counted, Math.min(mostUnits, Math.ceil(AHEAD * Math.max(counted, leastUnits, unitsIfNone))))
  const x = scaleLinear([0, end], [LEFT, WIDTH - RIGHT])
  const y = scaleLinear([0, Math.max(actAt(end), (totals.at(-1) ?? 0) * 1.05)], [HEIGHT - FOOT, 10]).nice(4)
  const steps = Array.from({ length: end - leastUnits + 1 }, (_, i) => leastUnits + i)
  const stops = steps.filter((n) => stopAt(n) >= 0)
  const begins = stops[0] ?? end
  const path = line<number>((_, n) => x(n), y)
  const along = (all: readonly number[], height: (n: number) => number): string => line<number>(x, (n) => y(height(n)))(all) ?? ''
  const foot = HEIGHT - FOOT
  const area = (points: readonly (readonly [number, number])[]): string => points.map(([n, sum]) => `${x(n)},${y(sum)}`).join(' ')
  const top = y.domain()[1] ?? 0
  return (
    <Picture viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={t('count.chart', { said: p.said, units: p.units })}>
      <polygon points={area([...steps.map((n) => [n, actAt(n)] as const), [end, top], [leastUnits, top]])} fill={colour.beetSoft} />
      {begins < end ? (
        <polygon points={area([...stops.map((n) => [n, stopAt(n)] as const), [end, 0], [begins, 0]])} fill={colour.petrolSoft} />
      ) : null}
      {y.ticks(4).map((tick) => (
        <text className="soft" key={tick} x={LEFT - 6} y={y(tick) + 4} textAnchor="end">
          {tick}
        </text>
      ))}
      <line x1={LEFT} x2={WIDTH - RIGHT} y1={foot} y2={foot} stroke={colour.rule} />
      <line x1={x(leastUnits)} x2={x(leastUnits)} y1={10} y2={foot} stroke={colour.inkSoft} strokeDasharray="2 4" />
      <path d={along(steps, actAt)} fill="none" stroke={colour.beet} strokeWidth="2" />
      {knownAt ? (
        <>
          <path
            d={along(
              steps.filter((n) => knownAt(n) <= top),
              knownAt,
            )}
            fill="none"
            stroke={colour.inkSoft}
            strokeWidth="2"
            strokeDasharray="2 3"
          />
          <text className="soft" x={x(end) + 8} y={y(Math.min(top, knownAt(end))) + 4}>
            {t('count.line.known')}
          </text>
        </>
      ) : null}
      <text x={x(end) + 8} y={y(actAt(end)) + 4} style={{ fill: 'var(--beet)' }}>
        {t('count.line.act')}
      </text>
      {begins < end ? (
        <>
          <path d={along(stops, stopAt)} fill="none" stroke={colour.petrol} strokeWidth="2" strokeDasharray="7 4" />
          <text x={x(end) + 8} y={y(stopAt(end)) + (p.plan.kind === 'fixed' ? 18 : 4)} style={{ fill: 'var(--petrol)' }}>
            {t('count.line.stop')}
          </text>
        </>
      ) : null}
      <path d={path(totals) ?? ''} fill="none" stroke={colour.ink} strokeWidth="2.5" />
      <circle cx={x(counted)} cy={y(totals.at(-1) ?? 0)} r="5" fill={colour.ink} />
      {x
        .ticks(6)
        .filter((tick) => Number.isInteger(tick) && tick > 0)
        .map((tick) => (
          <text className="soft" key={tick} x={x(tick)} y={HEIGHT - 5} textAnchor="middle">
            {tick}
          </text>
        ))}
      <text className="soft" x={WIDTH - RIGHT + 22} y={HEIGHT - 5}>
        {p.units}
      </text>
    </Picture>
  )
}
