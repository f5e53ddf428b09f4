import { scaleLinear } from 'd3-scale'
import { useRef } from 'react'
import { Picture } from '../charts/Picture.js'
import { apart } from '../charts/apart.js'
import { useWidth } from '../charts/useWidth.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import type { WayAhead, YearsWay } from '../workers/weeds.js'

const WIDEST = 760
/** Narrower than this the ways are named by their choice alone. */
const ROOM_FOR_NAMES = 520
const HEIGHT = 300
const LEFT = 56
const NAMES = 190
const FOOT = 26
const TOP = 14

/** Plants by year on a scale on which few are told from many: what was counted, the chosen way with its bounds, the others as thin lines. */
export function AheadPicture(p: { counts: readonly { year: number; plants: number }[]; ways: readonly WayAhead[]; chosen: YearsWay }) {
  const t = useText()
  const f = useFormat()
  const { counts, ways, chosen } = p
  const frame = useRef<HTMLDivElement>(null)
  const width = useWidth(frame, WIDEST)
  const isNamed = width >= ROOM_FOR_NAMES
  const right = isNamed ? NAMES : 20
  const own = ways.find(({ way }) => way === chosen)
  if (!own) return null
  const first = counts[0]?.year ?? 0
  const now = counts.at(-1)?.year ?? 0
  const last = now + own.ahead.plants.length
  const x = scaleLinear([first, last], [LEFT, width - right])
  // Square roots: a few plants stay in sight beside a thousand.
  const most = Math.max(
    ...counts.map(({ plants }) => plants),
    ...own.ahead.plants.map(({ p90 }) => p90),
    ...ways.flatMap(({ way, ahead }) => (way === 'none' ? [] : ahead.plants.map(({ p50 }) => p50))),
    4,
  )
  const y = (plants: number): number => HEIGHT - FOOT - (HEIGHT - FOOT - TOP) * Math.sqrt(Math.min(plants, most) / most)
  const line = (values: readonly number[]): string =>
    [{ year: now, value: counts.at(-1)?.plants ?? 0 }, ...values.map((value, i) => ({ year: now + 1 + i, value }))]
      .map(({ year, value }, i) => `${i === 0 ? 'M' : 'L'}${x(year)},${y(value)}`)
      .join('')
  const { plants } = own.ahead
  const band = `${line(plants.map(({ p90 }) => p90))}${[...plants]
    .reverse()
    .map(({ p10 }, i) => `L${x(last - i)},${y(p10)}`)
    .join('')}Z`
  const ends = ways.map(({ way, ahead }) => ({ way, at: y(ahead.plants.at(-1)?.p50 ?? 0) })).sort((a, b) => a.at - b.at)
  const labels = apart(
    ends.map(({ at }) => at),
    17,
    TOP,
    HEIGHT - FOOT,
  )
  return (
    <div ref={frame}>
      <Picture viewBox={`0 0 ${width} ${HEIGHT}`} role="img" aria-label={t('ahead.picture', { way: t(`ahead.way.${chosen}`) })}>
        {[0, most / 16, most / 4, most].map((tick) => (
          <g key={tick}>
            <line x1={LEFT} x2={width - right} y1={y(tick)} y2={y(tick)} stroke={colour.ruleSoft} />
            <text x={LEFT - 6} y={y(tick) + 4} textAnchor="end" className="soft">
              {f.number(tick)}
            </text>
          </g>
        ))}
        <path d={band} fill={colour.petrolSoft} />
        {ways.map(({ way, ahead }) => (
          <path
            key={way}
            d={line(ahead.plants.map(({ p50 }) => p50))}
            fill="none"
            stroke={way === chosen ? colour.petrol : colour.inkSoft}
            strokeWidth={way === chosen ? 3 : 1.2}
          />
        ))}
        <path
          d={counts.map(({ year, plants: n }, i) => `${i === 0 ? 'M' : 'L'}${x(year)},${y(n)}`).join('')}
          fill="none"
          stroke={colour.ink}
          strokeWidth="1.4"
        />
        {counts.map(({ year, plants: n }) => (
          <circle key={year} cx={x(year)} cy={y(n)} r="5" fill={colour.white} stroke={colour.ink} strokeWidth="1.6" />
        ))}
        {isNamed
          ? ends.map(({ way }, i) => (
              <text
                key={way}
                x={width - right + 8}
                y={(labels[i] ?? 0) + 4}
                className={way === chosen ? 'value' : 'soft'}
                style={{ fontWeight: way === chosen ? 600 : 400 }}
              >
                {t(`ahead.way.${way}`)}
              </text>
            ))
          : null}
        {Array.from({ length: last - first + 1 }, (_, i) => first + i)
          .filter((year) => (year - first) % 3 === 0)
          .map((year) => (
            <text key={year} x={x(year)} y={HEIGHT - 6} textAnchor="middle" className="soft">
              {year}
            </text>
          ))}
      </Picture>
    </div>
  )
}
