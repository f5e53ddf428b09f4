import { Check, Crosshair, Flag, Grid2x2, Hammer, PackageOpen, Route, TriangleAlert } from 'lucide-react'
import { useRef, type CSSProperties } from 'react'
import styled from 'styled-components'
import { canMove, type Conflict, type Task } from '../band/schedule.js'
import { colour, font, PHONE, size } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/weeks.js'

/** What is put on has its own edge, and needs the room for its name. */
const ICONS = {
  deed: null,
  step: Route,
  job: Hammer,
  count: Crosshair,
  trap: Crosshair,
  flags: Flag,
  plots: Grid2x2,
  arrival: PackageOpen,
} as const
/** px that a pointer goes before a chip follows it: less is a press. */
const DRAG_FROM = 5

const Frame = styled.section`
  border-top: 2px solid ${colour.ink};
`
const Head = styled.div`
  display: grid;
  grid-template-columns: 132px minmax(0, 1fr);
  position: sticky;
  top: 0;
  z-index: 2;
  background: ${colour.ground};
  font-size: ${size.small};
  .days {
    display: grid;
    grid-template-columns: repeat(var(--days), minmax(0, 1fr));
  }
  .days > span {
    padding: 5px 0 4px 6px;
    border-left: 1px solid ${colour.rule};
    line-height: 1.25;
  }
  .days > span[data-today] {
    background: ${colour.ink};
    color: ${colour.white};
    font-weight: 650;
  }
  .share {
    font-family: ${font.figures};
    color: ${colour.petrol};
  }
  [data-today] .share {
    color: ${colour.white};
  }
  @media ${PHONE} {
    display: none;
  }
`
const Row = styled.section`
  display: grid;
  grid-template-columns: 132px minmax(0, 1fr);
  border-top: 1px solid ${colour.rule};
  break-inside: avoid;
  h2 {
    font-size: ${size.text};
    padding: 8px 8px 8px 0;
  }
  .days {
    position: relative;
    display: grid;
    grid-template-columns: repeat(var(--days), minmax(0, 1fr));
    grid-auto-flow: row dense;
    align-content: start;
    gap: 3px 0;
    padding: 4px 0;
    min-height: 46px;
  }
  .day {
    position: absolute;
    top: 0;
    bottom: 0;
    border-left: 1px solid ${colour.ruleSoft};
  }
  .day[data-rest] {
    background: ${colour.sheet};
  }
  .day[data-today] {
    border-left: 2px solid ${colour.ink};
  }
  .day[data-open] {
    border-top: 3px solid ${colour.petrol};
    border-bottom: 3px solid ${colour.petrol};
    background: ${colour.petrolSoft};
  }
  .day[data-there='refused'] {
    background: repeating-linear-gradient(135deg, ${colour.beetSoft} 0 5px, transparent 5px 10px);
  }
  .day[data-there='told'] {
    box-shadow: inset 0 -4px 0 ${colour.pollen};
  }
  @media ${PHONE} {
    grid-template-columns: minmax(0, 1fr);
    .days {
      grid-template-columns: minmax(0, 1fr);
      gap: 8px;
      padding: 0 0 12px;
    }
    .day {
      display: none;
    }
  }
`
const Chip = styled.button`
  position: relative;
  z-index: 1;
  margin: 0 3px;
  padding: 3px 5px;
  min-height: 28px;
  text-align: left;
  font-size: ${size.small};
  line-height: 1.2;
  border: 1px solid ${colour.inkSoft};
  border-radius: 4px;
  background: ${colour.white};
  cursor: pointer;
  svg {
    width: 13px;
    height: 13px;
    margin: 0 4px -2px 0;
  }
  .what {
    display: -webkit-box;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 2;
    overflow: hidden;
    overflow-wrap: break-word;
    hyphens: auto;
  }
  .on {
    display: none;
  }
  &[data-kind='deed'] {
    border-color: ${colour.petrol};
    border-left-width: 4px;
  }
  &[data-kind='step'] {
    border-style: dashed;
    border-color: ${colour.petrol};
  }
  &[data-moves] {
    touch-action: none;
  }
  &[data-warns] {
    border-color: ${colour.beet};
  }
  svg.warns {
    position: absolute;
    top: -7px;
    right: -5px;
    width: 17px;
    height: 17px;
    margin: 0;
    padding: 1px;
    border-radius: 50%;
    background: ${colour.white};
    color: ${colour.beet};
  }
  &[data-done] {
    background: none;
    color: ${colour.inkSoft};
    border-color: ${colour.rule};
  }
  &[aria-pressed='true'] {
    background: ${colour.ink};
    color: ${colour.white};
    border-color: ${colour.ink};
  }
  @media ${PHONE} {
    grid-column: 1 !important;
    display: grid;
    grid-template-columns: minmax(0, 1fr) max-content;
    gap: 8px;
    margin: 0;
    min-height: 48px;
    align-items: center;
    font-size: ${size.text};
    &[data-moves] {
      touch-action: auto;
    }
    .on {
      display: block;
      font-weight: 650;
    }
  }
`

export interface BoardRow {
  id: string
  name: string
  tasks: readonly Task[]
}

/** A task that is thought of on another day. */
export interface Moving {
  id: string
  day: string
}

interface Props {
  label: string
  rows: readonly BoardRow[]
  days: readonly string[]
  chosen: string | null
  onChoose: (id: string | null) => void
  moving: Moving | null
  /** It is thought of on a day; null: it stays where it is. */
  onThink: (moving: Moving | null) => void
  onDrop: (moving: Moving) => void
  conflicts: readonly Conflict[]
  /** What the chosen task would meet on each day, the share that it would reach, and whether its window is open. */
  there: (day: string) => { told: 'refused' | 'told' | null; share: number | null; open: boolean }
  what: (task: Task) => string
  /** The same where there is little room: its picture says what is done. */
  short: (task: Task) => string
}

/** Tasks as chips on days, a row for each block or person. What can be moved is dragged, or moved by the arrow keys. */
export function Board({ label, rows, days, chosen, onChoose, moving, onThink, onDrop, conflicts, there, what, short }: Props) {
  const t = useText()
  const f = useFormat()
  const columns = { '--days': days.length } as CSSProperties
  const width = 100 / days.length
  const shares = days.map((day) => there(day).share)
  return (
    <Frame aria-label={label} data-testid="schedule-board">
      <Head aria-hidden>
        <span />
        <div className="days" style={columns}>
          {days.map((day, i) => (
            <span key={day} data-today={day === f.today || undefined}>
              {f.date(day)}
              <br />
              <span className="share">{shares[i] == null ? ' ' : f.percent(shares[i])}</span>
            </span>
          ))}
        </div>
      </Head>
      {rows.map((row) => {
        const isOfChosen = row.tasks.some(({ id }) => id === chosen)
        return (
          <Row key={row.id} aria-label={row.name}>
            <h2>{row.name}</h2>
            <div className="days" style={columns}>
              {days.map((day, i) => {
                const at = isOfChosen ? there(day) : null
                return (
                  <span
                    key={day}
                    className="day"
                    aria-hidden
                    title={
                      at?.told
                        ? t(at.told === 'refused' ? 'weeks.refusedThere' : 'weeks.toldThere')
                        : at?.open
                          ? t('weeks.windowThere')
                          : undefined
                    }
                    data-today={day === f.today || undefined}
                    data-rest={isRest(day) || undefined}
                    data-open={at?.open || undefined}
                    data-there={at?.told ?? undefined}
                    style={{ left: `${i * width}%`, width: `${width}%` }}
                  />
                )
              })}
              {row.tasks.map((task) => (
                <OneTask
                  key={task.id}
                  task={task}
                  day={task.id === moving?.id ? moving.day : task.day}
                  days={days}
                  place={row.name}
                  what={what(task)}
                  short={short(task)}
                  isChosen={task.id === chosen}
                  inTheWay={conflicts.filter((one) => one.task === task.id).length}
                  {...{ onChoose, onThink, onDrop, moving }}
                />
              ))}
            </div>
          </Row>
        )
      })}
    </Frame>
  )
}

const isRest = (day: string): boolean => [0, 6].includes(new Date(`${day}T00:00:00Z`).getUTCDay())

function OneTask(p: {
  task: Task
  day: string
  days: readonly string[]
  place: string
  what: string
  short: string
  isChosen: boolean
  inTheWay: number
  moving: Moving | null
  onChoose: Props['onChoose']
  onThink: Props['onThink']
  onDrop: Props['onDrop']
}) {
  const { task, day, days, what, short, isChosen, inTheWay, moving } = p
  const t = useText()
  const f = useFormat()
  /** Where a drag began, and the day to which it has come: what is drawn may lag behind the hand. */
  const drag = useRef<{ x: number; at: number; column: number; to: string | null } | null>(null)
  /** A press that ends a drag chooses nothing. */
  const wasDragged = useRef(false)
  const column = days.indexOf(day)
  if (column < 0) return null
  const moves = canMove(task)
  const Icon = task.done ? Check : ICONS[task.kind]
  const think = (to: number): string | undefined => {
    const next = days[Math.max(days.indexOf(f.today), 0, Math.min(days.length - 1, to))]
    if (next !== undefined) p.onThink(next === task.day ? null : { id: task.id, day: next })
    return next
  }
  return (
    <Chip
      type="button"
      data-kind={task.kind}
      data-done={task.done || undefined}
      data-warns={inTheWay > 0 || undefined}
      data-moves={moves || undefined}
      aria-pressed={isChosen}
      aria-description={moves ? t('weeks.moves') : undefined}
      aria-label={t('weeks.taskLabel', {
        what,
        place: p.place,
        date: f.date(day),
        who: task.done ? t('weeks.done') : 'none',
        count: inTheWay,
      })}
      style={{ gridColumn: column + 1 }}
      onClick={() => {
        if (!wasDragged.current) p.onChoose(isChosen && !moving ? null : task.id)
        wasDragged.current = false
      }}
      onPointerDown={(event) => {
        wasDragged.current = false
        // On a phone a finger scrolls; there the day is moved by its buttons.
        if (!moves || event.pointerType === 'touch') return
        const wide = (event.currentTarget.parentElement?.clientWidth ?? 0) / days.length
        drag.current = { x: event.clientX, at: column, column: wide, to: null }
        event.currentTarget.setPointerCapture(event.pointerId)
      }}
      onPointerMove={(event) => {
        const from = drag.current
        if (!from || from.column === 0 || (from.to === null && Math.abs(event.clientX - from.x) < DRAG_FROM)) return
        if (from.to === null && !isChosen) p.onChoose(task.id)
        from.to = think(from.at + Math.round((event.clientX - from.x) / from.column)) ?? null
      }}
      onPointerUp={() => {
        const to = drag.current?.to ?? null
        drag.current = null
        wasDragged.current = to !== null
        if (to !== null && to !== task.day) p.onDrop({ id: task.id, day: to })
      }}
      onKeyDown={(event) => {
        const by = { ArrowLeft: -1, ArrowRight: 1, PageUp: -7, PageDown: 7, '[': -1, ']': 1 }[event.key]
        if (moves && by !== undefined) {
          if (!isChosen) p.onChoose(task.id)
          think(column + by)
          event.preventDefault()
        } else if (event.key === 'Enter' && moving?.id === task.id) {
          event.preventDefault()
          p.onDrop(moving)
        } else if (event.key === 'Escape' && moving?.id === task.id) {
          event.preventDefault()
          p.onThink(null)
        }
      }}
    >
      <span className="what">
        {Icon ? <Icon aria-hidden /> : null}
        {short}
      </span>
      {inTheWay > 0 ? <TriangleAlert className="warns" aria-hidden /> : null}
      <span className="on">{f.shortDate(day)}</span>
    </Chip>
  )
}
