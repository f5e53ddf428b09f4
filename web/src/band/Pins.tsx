import type { Treatment, WatchForecast } from '@bocado/contract'
import { useRef } from 'react'
import styled from 'styled-components'
import { PHONE } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import type { DayScale } from './axis.js'

/** A treatment that is being thought about: drawn as a hollow pin before it is saved. */
export interface DraftPin {
  watchId: string
  dayIndex: number
  /** The planned treatment that it moves, where it does. */
  moving: string | null
}

/** The pin was taken, moved or let go; a planned treatment is named. */
export type PinEvent = { kind: 'take'; treatment: Treatment } | { kind: 'move'; dayIndex: number } | { kind: 'drop' }

const PinHandle = styled.div`
  position: absolute;
  width: 26px;
  height: 30px;
  margin: -8px 0 0 -13px;
  cursor: ew-resize;
  border-radius: 4px;
  touch-action: none;
  @media ${PHONE} {
    width: 48px;
    height: 48px;
    margin: -16px 0 0 -24px;
  }
`
/** Handles over the pins of the chosen row: dragged with the pointer, or moved with the arrow keys. */
export function Pins(p: {
  row: WatchForecast
  scale: DayScale
  top: number | undefined
  days: number
  draft: DraftPin | null
  onPin: (event: PinEvent) => void
}) {
  const { row, scale, top, draft, days, onPin } = p
  const t = useText()
  const f = useFormat()
  const box = useRef<HTMLDivElement>(null)
  if (top === undefined) return null
  const planned = row.treatments.filter(({ status, id }) => status === 'planned' && id !== draft?.moving)
  const handles = [
    ...planned.map((treatment) => ({ key: treatment.id, treatment, day: f.seasonIndex(row.watch.season, treatment.plannedOn) })),
    ...(draft?.watchId === row.watch.id ? [{ key: draft.moving ?? 'draft', treatment: null, day: draft.dayIndex }] : []),
  ].filter(({ day }) => day >= scale.from - 0.5 && day <= scale.to)
  const moveTo = (clientX: number): void => {
    const left = box.current?.getBoundingClientRect().left ?? 0
    onPin({ kind: 'move', dayIndex: Math.min(days - 1, Math.max(0, Math.floor(scale.day(clientX - left)))) })
  }
  return (
    <div ref={box}>
      {handles.map(({ key, treatment, day }) => (
        <PinHandle
          key={key}
          role="slider"
          tabIndex={0}
          aria-label={t(key === 'draft' ? 'band.draftPin' : 'band.plannedPin', { name: row.organismName })}
          aria-valuemin={0}
          aria-valuemax={days - 1}
          aria-valuenow={day}
          aria-valuetext={f.date(f.seasonDay(row.watch.season, day))}
          style={{ left: scale.x(day + 0.5), top }}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId)
            if (treatment) onPin({ kind: 'take', treatment })
          }}
          onPointerMove={(event) => {
            if (event.currentTarget.hasPointerCapture(event.pointerId)) moveTo(event.clientX)
          }}
          onPointerUp={() => onPin({ kind: 'drop' })}
          onKeyDown={(event) => {
            const by = { ArrowLeft: -1, ArrowRight: 1, PageUp: -7, PageDown: 7 }[event.key]
            if (by !== undefined) {
              if (treatment) onPin({ kind: 'take', treatment })
              onPin({ kind: 'move', dayIndex: Math.min(days - 1, Math.max(0, day + by)) })
              event.preventDefault()
            } else if (event.key === 'Enter') onPin({ kind: 'drop' })
          }}
        />
      ))}
    </div>
  )
}
