import { scaleLinear } from 'd3-scale'
import { area, line } from 'd3-shape'
import type { PointerEvent } from 'react'
import { Picture } from '../charts/Picture.js'
import type { TreatmentReach } from '../band/treatmentCoverage.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'

const WIDTH = 640
const HEIGHT = 150
const LEFT = 40
const FOOT = 22

interface Props {
  days: readonly { day: number; coverage: TreatmentReach | undefined }[]
  chosen: number
  today: number
  start: string
  onChoose: (day: number) => void
}

/** What one treatment reaches on each day, with the bounds over past seasons; a click chooses the day. */
export function CoverageChart({ days, chosen, today, start, onChoose }: Props) {
  const t = useText()
  const f = useFormat()
  const first = days[0]?.day ?? 0
  const last = days.at(-1)?.day ?? 1
  const most = Math.max(0.2, ...days.map(({ coverage }) => coverage?.bounds.p90 ?? 0))
  const x = scaleLinear([first, last + 1], [LEFT, WIDTH - 6])
  const y = scaleLinear([0, most], [HEIGHT - FOOT, 8])
  const known = days.flatMap(({ day, coverage }) => (coverage ? [{ day, ...coverage.bounds }] : []))
  const spread = area<(typeof known)[number]>()
    .x(({ day }) => x(day + 0.5))
    .y0(({ p10 }) => y(p10))
    .y1(({ p90 }) => y(p90))
  const middle = line<(typeof known)[number]>()
    .x(({ day }) => x(day + 0.5))
    .y(({ p50 }) => y(p50))
  const choose = (event: PointerEvent<SVGSVGElement>): void => {
    const box = event.currentTarget.getBoundingClientRect()
    const day = Math.floor(x.invert(((event.clientX - box.left) / box.width) * WIDTH))
    onChoose(Math.min(last, Math.max(first, day)))
  }
  const at = known.find(({ day }) => day === chosen)
  return (
    <Picture
      style={{ cursor: 'crosshair' }}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={t('plan.chart')}
      onPointerDown={choose}
    >
      {y.ticks(3).map((tick) => (
        <g key={tick}>
          <line x1={LEFT} x2={WIDTH} y1={y(tick)} y2={y(tick)} stroke={colour.ruleSoft} />
          <text className="soft" x={LEFT - 6} y={y(tick) + 4} textAnchor="end">
            {f.percent(tick)}
          </text>
        </g>
      ))}
      {days
        .filter(({ day }) => f.seasonDay(start, day).endsWith('-01') || f.seasonDay(start, day).endsWith('-15'))
        .map(({ day }) => (
          <text className="soft" key={day} x={x(day)} y={HEIGHT - 5}>
            {f.shortDate(f.seasonDay(start, day))}
          </text>
        ))}
      <path d={spread(known) ?? ''} fill={colour.petrolSoft} />
      <path d={middle(known) ?? ''} fill="none" stroke={colour.petrol} strokeWidth="2" />
      <line x1={x(today + 0.5)} x2={x(today + 0.5)} y1={4} y2={HEIGHT - FOOT} stroke={colour.beet} strokeWidth="1.5" />
      {chosen >= first && chosen <= last ? (
        <g>
          <line x1={x(chosen + 0.5)} x2={x(chosen + 0.5)} y1={4} y2={HEIGHT - FOOT} stroke={colour.ink} strokeDasharray="4 3" />
          {at ? <circle cx={x(chosen + 0.5)} cy={y(at.p50)} r="5" fill={colour.white} stroke={colour.ink} strokeWidth="2" /> : null}
        </g>
      ) : null}
    </Picture>
  )
}
