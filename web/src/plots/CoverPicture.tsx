import type { CoverLine } from '@bocado/contract'
import { scaleLinear } from 'd3-scale'
import { useRef } from 'react'
import { apart } from '../charts/apart.js'
import { Picture } from '../charts/Picture.js'
import { useWidth } from '../charts/useWidth.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { seasonName } from '../shell/screens.js'

const WIDEST = 620
const HEIGHT = 220
const LEFT = 44
const FOOT = 26
const TOP = 10
/** For the names at the ends of the lines. */
const NAMES = 210
const LINE_HEIGHT = 17
/** So far from each other stand marks of one season. */
const ASIDE = 7

/** Cover of the plants of one place by season: what shall go beside what shall grow there, with their intervals. */
export function CoverPicture({ lines }: { lines: readonly CoverLine[] }) {
  const t = useText()
  const f = useFormat()
  const frame = useRef<HTMLDivElement>(null)
  const width = useWidth(frame, WIDEST)
  const seasons = [...new Set(lines.flatMap((line) => line.seasons.map(({ season }) => season)))].sort()
  const [first] = lines
  if (!first || seasons.length === 0) return null
  const most = Math.max(...lines.flatMap((line) => line.seasons.map(({ high }) => high)), 5)
  const y = scaleLinear([0, Math.min(100, most * 1.05)], [HEIGHT - FOOT, TOP])
  const names = Math.min(NAMES, width / 3)
  const step = (width - LEFT - 40 - names) / Math.max(1, seasons.length - 1)
  const x = (season: string, i: number): number => LEFT + 20 + step * seasons.indexOf(season) + ASIDE * (i - (lines.length - 1) / 2)
  const nameOf = ({ name, worked }: CoverLine): string => (worked ? name : t('plots.ofLeft', { name }))
  const ends = lines.map(({ seasons: own }) => y(own.at(-1)?.mean ?? 0))
  const places = apart(ends, LINE_HEIGHT, TOP, HEIGHT - FOOT)
  return (
    <div ref={frame}>
      <Picture
        viewBox={`0 0 ${width} ${HEIGHT}`}
        role="img"
        aria-label={t('plots.pictureOf', { place: first.placeName, names: lines.map(nameOf).join(', ') })}
      >
        {y.ticks(4).map((tick) => (
          <g key={tick}>
            <line x1={LEFT} x2={width - names} y1={y(tick)} y2={y(tick)} stroke={colour.ruleSoft} />
            <text x={LEFT - 6} y={y(tick) + 4} textAnchor="end" className="soft">
              {f.percent(tick / 100)}
            </text>
          </g>
        ))}
        {lines.map((line, i) => {
          const of = line.of === 'weed' ? colour.beet : colour.petrol
          const path = line.seasons.map(({ season, mean }, at) => `${at === 0 ? 'M' : 'L'}${x(season, i)},${y(mean)}`).join('')
          return (
            <g key={`${line.worked} ${line.of} ${line.id}`}>
              <path d={path} fill="none" stroke={of} strokeWidth="1.6" strokeDasharray={line.worked ? undefined : '5 4'} />
              {line.seasons.map(({ season, mean, low, high }) => (
                <g key={season}>
                  <line x1={x(season, i)} x2={x(season, i)} y1={y(low)} y2={y(high)} stroke={of} strokeWidth="1.4" />
                  {line.of === 'weed' ? (
                    <circle cx={x(season, i)} cy={y(mean)} r="5" fill={line.worked ? of : colour.sheet} stroke={of} strokeWidth="1.6" />
                  ) : (
                    <rect
                      x={x(season, i) - 5}
                      y={y(mean) - 5}
                      width="10"
                      height="10"
                      fill={line.worked ? of : colour.sheet}
                      stroke={of}
                      strokeWidth="1.6"
                    />
                  )}
                </g>
              ))}
              <text x={width - names + 6} y={(places[i] ?? 0) + 4} fill={of}>
                {short(nameOf(line), Math.floor((names - 6) / 7))}
              </text>
            </g>
          )
        })}
        {seasons.map((season) => (
          <text key={season} x={x(season, (lines.length - 1) / 2)} y={HEIGHT - 6} textAnchor="middle" className="soft">
            {seasonName(season)}
          </text>
        ))}
      </Picture>
    </div>
  )
}

const short = (name: string, most: number): string => (name.length <= most ? name : `${name.slice(0, most - 1)}…`)
