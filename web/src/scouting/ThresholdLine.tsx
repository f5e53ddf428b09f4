import { useState, type PointerEvent as ReactPointerEvent } from 'react'
import styled from 'styled-components'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/threshold.js'
import '../messages/en/work.js'

const Handle = styled.g`
  cursor: ns-resize;
  touch-action: none;
  outline: none;
  &:focus-visible line:first-of-type {
    stroke-width: 4;
  }
`
/** A press of an arrow key moves the line by so much of the threshold. */
const STEP = 0.05

/** A value that people set, as it is written: two figures are as much as anybody means. */
export const rounded = (per100: number): number => Number(Math.max(0.01, per100).toPrecision(2))

/** The line of the threshold in a picture, moved up and down by the pointer or the arrow keys; what is let go of is handed on. */
export function ThresholdLine(p: {
  per100: number
  items: string
  left: number
  right: number
  most: number
  toY: (per100: number) => number
  fromY: (y: number) => number
  onChange: (per100: number) => void
}) {
  const t = useText()
  const f = useFormat()
  const [moved, setMoved] = useState<number | null>(null)
  const shown = moved ?? p.per100
  const at = p.toY(Math.min(shown, p.most))
  const valueAt = (event: ReactPointerEvent<SVGGElement>): number => {
    const svg = event.currentTarget.ownerSVGElement
    const box = svg?.getBoundingClientRect()
    if (!svg || !box) return shown
    const y = ((event.clientY - box.top) / box.height) * svg.viewBox.baseVal.height
    return rounded(Math.min(p.most, p.fromY(y)))
  }
  const end = (): void => {
    if (moved !== null && moved !== p.per100) p.onChange(moved)
    setMoved(null)
  }
  const keys: Readonly<Record<string, number>> = { ArrowUp: 1, ArrowDown: -1, PageUp: 5, PageDown: -5 }
  return (
    <Handle
      role="slider"
      tabIndex={0}
      aria-orientation="vertical"
      aria-label={t('actFrom.drag')}
      aria-valuemin={0}
      aria-valuemax={p.most}
      aria-valuenow={shown}
      aria-valuetext={t('actFrom.dragged', { per100: f.number(shown, 2), items: p.items })}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId)
        setMoved(shown)
      }}
      onPointerMove={(event) => moved !== null && setMoved(valueAt(event))}
      onPointerUp={end}
      onPointerCancel={() => setMoved(null)}
      onKeyDown={(event) => {
        const by = keys[event.key]
        if (by !== undefined) {
          event.preventDefault()
          setMoved(rounded(Math.min(p.most, shown + by * STEP * p.per100)))
        } else if (event.key === 'Enter') end()
        else if (event.key === 'Escape') setMoved(null)
      }}
      onBlur={end}
    >
      <line x1={p.left} x2={p.right} y1={at} y2={at} stroke={colour.beet} strokeWidth="1.5" strokeDasharray="5 4" />
      {/* As tall as a finger needs. */}
      <line x1={p.left} x2={p.right} y1={at} y2={at} stroke="transparent" strokeWidth="22" />
      <circle cx={p.right} cy={at} r="5" fill={colour.beet} />
      <text x={p.right + 10} y={at + 4} style={{ fill: 'var(--beet)' }}>
        {t('scouting.thresholdShort', { threshold: f.number(shown, 2) })}
      </text>
    </Handle>
  )
}
