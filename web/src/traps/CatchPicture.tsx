import type { Trap } from '@bocado/contract'
import { max } from 'd3-array'
import { scaleLinear } from 'd3-scale'
import { line } from 'd3-shape'
import { Picture } from '../charts/Picture.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'

const WIDTH = 520
const HEIGHT = 120
const LEFT = 34
const RIGHT = 84
const FOOT = 20

/** The catch a day, check by check, as steps; how it adds up as a line over them. */
export function CatchPicture({ trap }: { trap: Trap }) {
  const t = useText()
  const f = useFormat()
  const { checks } = trap
  const [first, last] = [checks[0], checks.at(-1)]
  if (!first || !last) return null
  const dayOf = (day: string): number => f.seasonIndex(first.since, day)
  const x = scaleLinear([0, Math.max(1, dayOf(last.day))], [LEFT, WIDTH - RIGHT])
  const most = Math.max(max(checks, ({ perDay }) => perDay) ?? 0, 0.5)
  const y = scaleLinear([0, most], [HEIGHT - FOOT, 8]).nice(3)
  const sums = checks.reduce<number[]>((all, { caught }) => [...all, (all.at(-1) ?? 0) + caught], [])
  const total = sums.at(-1) ?? 0
  const up = scaleLinear([0, Math.max(1, total)], [HEIGHT - FOOT, 8])
  const path = line<number>()
    .x((_, i) => x(i === 0 ? 0 : dayOf(checks[i - 1]!.day)))
    .y((sum) => up(sum))
  const said = checks.map(({ day, perDay }) => `${f.shortDate(day)} ${f.number(perDay, 1)}`).join(', ')
  return (
    <Picture viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={t('traps.chart', { name: trap.name, list: said })}>
      {y.ticks(2).map((tick) => (
        <g key={tick}>
          <line x1={LEFT} x2={WIDTH - RIGHT} y1={y(tick)} y2={y(tick)} stroke={colour.ruleSoft} />
          <text className="soft" x={LEFT - 6} y={y(tick) + 4} textAnchor="end">
            {f.number(tick, 1)}
          </text>
        </g>
      ))}
      {checks.map(({ id, since, day, perDay }) => (
        <rect
          key={id}
          x={x(dayOf(since)) + 0.5}
          width={Math.max(1, x(dayOf(day)) - x(dayOf(since)) - 1)}
          y={y(perDay)}
          height={y(0) - y(perDay)}
          fill={colour.petrolSoft}
          stroke={colour.petrol}
        />
      ))}
      <text className="soft" x={LEFT + 4} y={14}>
        {t('traps.perDay')}
      </text>
      <path d={path([0, ...sums]) ?? ''} fill="none" stroke={colour.ink} strokeDasharray="5 3" />
      <text x={WIDTH - RIGHT + 6} y={up(total) + 4}>
        {t('traps.inAll', { total })}
      </text>
      <text className="soft" x={LEFT} y={HEIGHT - 4}>
        {f.shortDate(first.since)}
      </text>
      <text className="soft" x={WIDTH - RIGHT} y={HEIGHT - 4} textAnchor="end">
        {f.shortDate(last.day)}
      </text>
    </Picture>
  )
}
