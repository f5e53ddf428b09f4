import type { Band } from '@bocado/contract'
import { useMemo, useRef, type KeyboardEvent, type PointerEvent } from 'react'
import styled from 'styled-components'
import { useBand } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { useWidth } from '../charts/useWidth.js'
import { TextButton } from '../design/buttons.js'
import { colour, font, PHONE } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { heldRange } from './axis.js'
import { useVisibleRange } from './range.js'
import { usualRange } from './SeasonBand.js'
import { byUrgency } from './urgency.js'
import '../messages/en/field.js'
import '../messages/en/windows.js'

const Strip = styled.div<{ $inside?: boolean }>`
  position: relative;
  padding: 4px 20px 2px;
  background: ${colour.sheet};
  border-bottom: 1px solid ${colour.rule};
  svg {
    display: block;
    width: 100%;
    cursor: ew-resize;
    touch-action: none;
  }
  text {
    font: 12px ${font.text};
    fill: ${colour.inkSoft};
    user-select: none;
  }
  > button {
    position: absolute;
    right: 20px;
    top: 3px;
    font-size: 13px;
    padding: 0 4px;
    background: ${colour.sheet};
  }
  @media ${PHONE} {
    display: ${({ $inside }) => ($inside ? 'block' : 'none')};
    padding: 4px 0 2px;
  }
`
const HEIGHT = 40
const WIDEST = 2600

/**
 * The season in miniature: windows as bars, today, and the days in view, which are chosen by dragging. It never moves
 * today.
 *
 * @param whole as long as nobody has chosen, the whole season is in view
 * @param inside stands among a phone's tools, and is shown there
 */
export function SeasonStrip({ whole, inside = false }: { whole: boolean; inside?: boolean }) {
  const site = useSite()
  const { data: band } = useBand(site.id, site.season.start)
  if (!band) return <Strip style={{ minHeight: 47 }} />
  if (band.watches.length === 0) return null
  return <StripOf band={band} whole={whole} inside={inside} />
}

function StripOf({ band, whole, inside }: { band: Band; whole: boolean; inside: boolean }) {
  const t = useText()
  const f = useFormat()
  const ref = useRef<HTMLDivElement>(null)
  const width = useWidth(ref, WIDEST) || 1240
  const { range, show } = useVisibleRange()
  const { days, start, todayIndex } = band.season
  const rows = useMemo(() => [...band.watches].sort(byUrgency), [band])
  const [from, to] = range ?? (whole ? [0, days] : usualRange(rows, days, todayIndex))
  const inner = width - 40
  const x = (day: number): number => (day / days) * inner
  const grip = useRef<{ kind: 'from' | 'to' | 'both' | 'new'; day: number; from: number; to: number } | null>(null)
  const dayOf = (event: PointerEvent<SVGSVGElement>): number => {
    const box = event.currentTarget.getBoundingClientRect()
    return Math.min(days, Math.max(0, ((event.clientX - box.left) / box.width) * days))
  }
  const take = (event: PointerEvent<SVGSVGElement>): void => {
    event.currentTarget.setPointerCapture(event.pointerId)
    const day = dayOf(event)
    const near = (8 / inner) * days
    const kind = Math.abs(day - from) < near ? 'from' : Math.abs(day - to) < near ? 'to' : day > from && day < to ? 'both' : 'new'
    grip.current = { kind, day, from, to }
  }
  const drag = (event: PointerEvent<SVGSVGElement>): void => {
    const held = grip.current
    if (!held) return
    const day = dayOf(event)
    const by = day - held.day
    if (held.kind === 'both') show(heldRange([held.from + by, held.to + by], days), days)
    else if (held.kind === 'from') show([Math.min(day, held.to - 7), held.to], days)
    else if (held.kind === 'to') show([held.from, Math.max(day, held.from + 7)], days)
    else show([Math.min(day, held.day), Math.max(day, held.day)], days)
  }
  const byKey = (event: KeyboardEvent): void => {
    const move = { ArrowLeft: -7, ArrowRight: 7 }[event.key]
    if (move !== undefined) show(event.shiftKey ? [from, to + move] : [from + move, to + move], days)
    else if (event.key === '0' || event.key === 'Escape') show(null, days)
    else return
    event.preventDefault()
  }
  return (
    <Strip ref={ref} $inside={inside} className="off-paper">
      <svg
        viewBox={`0 0 ${inner} ${HEIGHT}`}
        height={HEIGHT}
        role="slider"
        tabIndex={0}
        aria-label={t('strip.label')}
        aria-valuemin={0}
        aria-valuemax={days}
        aria-valuenow={Math.round(from)}
        aria-valuetext={t('strip.range', {
          from: f.date(f.seasonDay(start, from)),
          to: f.date(f.seasonDay(start, Math.min(to, days - 1))),
        })}
        onPointerDown={take}
        onPointerMove={drag}
        onPointerUp={() => (grip.current = null)}
        onKeyDown={byKey}
      >
        <rect x={x(from)} y="0" width={x(to) - x(from)} height={HEIGHT - 12} fill={colour.white} stroke={colour.ink} strokeWidth="1" />
        <StripMarks band={band} inner={inner} />
        <path d={`M${x(from)},2V${HEIGHT - 14}M${x(to)},2V${HEIGHT - 14}`} stroke={colour.ink} strokeWidth="4" />
        {todayIndex < days ? <path d={`M${x(todayIndex + 0.5)},0V${HEIGHT - 10}`} stroke={colour.beet} strokeWidth="2" /> : null}
      </svg>
      {range === null ? null : <TextButton onPress={() => show(null, days)}>{t('strip.whole')}</TextButton>}
    </Strip>
  )
}

/** Windows and infections of every watch, one thin line each, over the months. */
function StripMarks({ band, inner }: { band: Band; inner: number }) {
  const f = useFormat()
  const { days, start } = band.season
  return useMemo(() => {
    const x = (day: number): number => Math.round((day / days) * inner * 10) / 10
    const rows = [...band.watches].sort(byUrgency)
    const step = Math.min(4, (HEIGHT - 16) / Math.max(1, rows.length))
    const bars = rows.flatMap((row, i) => {
      const y = 3 + step * i + step / 2
      const line = (from: number, to: number) => `M${x(from)},${y}H${Math.max(x(from) + 2, x(to))}`
      return [
        ...row.windows.flatMap(({ opens, closes, state }) =>
          opens.p50 === null || closes.p50 === null || state === 'not-this-season'
            ? []
            : [{ d: line(opens.p50, closes.p50 + 1), tone: state === 'open' ? 'open' : state === 'closing' ? 'closing' : 'rest' }],
        ),
        ...(row.infection?.days ?? []).map(({ day }) => ({ d: line(day, day + 1), tone: 'infection' })),
      ]
    })
    const of = (tone: string): string => bars.flatMap((bar) => (bar.tone === tone ? [bar.d] : [])).join('')
    const months = Array.from({ length: days }, (_, i) => i).filter((i) => f.seasonDay(start, i).endsWith('-01'))
    return (
      <g>
        <path d={of('rest')} stroke={colour.inkSoft} strokeWidth="1.5" />
        <path d={of('open')} stroke={colour.petrol} strokeWidth="3" />
        <path d={of('closing')} stroke={colour.pollen} strokeWidth="3" />
        <path d={of('infection')} stroke={colour.beet} strokeWidth="2" />
        <path d={months.map((i) => `M${x(i)},${HEIGHT - 12}v4`).join('')} stroke={colour.rule} />
        {months.map((i) => (
          <text key={i} x={x(i) + 3} y={HEIGHT - 1}>
            {f.month(f.seasonDay(start, i)).slice(0, 3)}
          </text>
        ))}
      </g>
    )
  }, [band, days, start, inner, f])
}
