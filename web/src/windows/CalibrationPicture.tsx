import type { CalibratedEvent } from '@bocado/contract'
import { scaleLinear } from 'd3-scale'
import { useRef } from 'react'
import styled from 'styled-components'
import { useWidth } from '../charts/useWidth.js'
import { colour, font } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'

const Frame = styled.div`
  svg {
    display: block;
    overflow: visible;
  }
  text {
    font: 13px ${font.text};
    fill: ${colour.ink};
  }
  .soft {
    fill: ${colour.inkSoft};
  }
`

const WIDEST = 640
const ROW = 20
const LEFT = 108
const RIGHT = 24
/** 10th to 90th percentile of a normal distribution, in standard deviations. */
const TEN_TO_NINETY = 1.2816

/** The number before the records, what each season says, and both together, on one scale of heat. */
export function CalibrationPicture({ event }: { event: CalibratedEvent }) {
  const t = useText()
  const f = useFormat()
  const ref = useRef<HTMLDivElement>(null)
  const width = useWidth(ref, WIDEST)
  const { prior, posterior, seasons } = event
  const { shown } = f.measures.heat
  if (!posterior) return null
  const spans = [
    ...seasons.map(({ season, heat, datingSd }) => ({
      key: season,
      label: season.slice(0, 4),
      heat,
      sd: datingSd,
      kind: 'season' as const,
    })),
    { key: 'prior', label: t('records.row.before'), heat: prior.heat, sd: prior.heatSe, kind: 'prior' as const },
    { key: 'posterior', label: t('records.row.after'), heat: posterior.heat, sd: posterior.heatSe, kind: 'posterior' as const },
  ]
  const ends = spans.flatMap(({ heat, sd }) => [shown(heat - TEN_TO_NINETY * sd), shown(heat + TEN_TO_NINETY * sd)])
  const x = scaleLinear([Math.min(...ends), Math.max(...ends)], [LEFT, Math.max(LEFT + 60, width - RIGHT)]).nice(4)
  const height = spans.length * ROW + 26
  return (
    <Frame ref={ref}>
      <svg
        width={Math.max(width, LEFT + 60 + RIGHT)}
        height={height}
        role="img"
        aria-label={t('records.picture', {
          name: event.name,
          prior: f.heat(prior.heat),
          seasons: seasons.map(({ season, heat }) => `${season.slice(0, 4)} ${f.heat(heat)}`).join(', '),
          posterior: f.heat(posterior.heat),
        })}
      >
        {x.ticks(5).map((tick) => (
          <g key={tick} transform={`translate(${x(tick)},0)`}>
            <line y2={height - 22} stroke={colour.ruleSoft} />
            <text className="soft" y={height - 6} textAnchor="middle">
              {f.number(tick)}
            </text>
          </g>
        ))}
        {spans.map(({ key, label, heat, sd, kind }, i) => {
          const y = i * ROW + ROW / 2
          const [from, to, at] = [heat - TEN_TO_NINETY * sd, heat + TEN_TO_NINETY * sd, heat].map((h) => x(shown(h))) as [
            number,
            number,
            number,
          ]
          return (
            <g key={key}>
              <text y={y + 4} x={LEFT - 10} textAnchor="end" className={kind === 'season' ? 'soft' : ''}>
                {label}
              </text>
              {kind === 'season' ? (
                <>
                  <line x1={from} x2={to} y1={y} y2={y} stroke={colour.inkSoft} />
                  <circle cx={at} cy={y} r="4" fill={colour.ink} />
                </>
              ) : (
                <>
                  <rect
                    x={from}
                    y={y - 6}
                    width={to - from}
                    height="12"
                    fill={kind === 'posterior' ? colour.petrol : colour.sheet}
                    stroke={kind === 'posterior' ? colour.petrol : colour.inkSoft}
                  />
                  <line x1={at} x2={at} y1={y - 9} y2={y + 9} stroke={kind === 'posterior' ? colour.white : colour.ink} strokeWidth="2" />
                </>
              )}
            </g>
          )
        })}
      </svg>
      <span style={{ fontSize: 13 }}>{t('records.pictureHow', { unit: f.measures.heat.unit })}</span>
    </Frame>
  )
}
