import type { PlantingDates } from '@bocado/contract'
import { area, line } from 'd3-shape'
import { useEffect, useId, useRef, type KeyboardEvent, type PointerEvent } from 'react'
import styled from 'styled-components'
import { isBarred, mostMet, spanOf, stagesFrom, type Looked, type SowingPlan, type StageSpan } from '../band/planting.js'
import { Picture } from '../charts/Picture.js'
import { useWidth } from '../charts/useWidth.js'
import { Small } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/crops.js'
import '../messages/en/prevent.js'

const Frame = styled.div`
  position: relative;
  touch-action: pan-y;
  svg {
    display: block;
  }
`
/** What is held to move the crop along the season; as large as a thumb. */
const Handle = styled.div`
  position: absolute;
  width: 48px;
  height: 48px;
  margin-left: -24px;
  border-radius: 6px;
  cursor: ew-resize;
  touch-action: none;
`
const WIDEST = 1240
const HILL = 52
const BAR_TOP = 26
const BAR = 24
const BAR_ROW = 78
const RISK = 74
const AXIS = 22
/** px that a word needs between two stages. */
const WORD_ROOM = 86

/** When each of what comes is about, the crop as it would stand, and by each day of sowing how much of it is met. */
export function SowingPicture({
  dates,
  looked,
  plans,
  day,
  onChoose,
}: {
  dates: PlantingDates
  looked: readonly Looked[]
  plans: readonly SowingPlan[]
  day: number
  onChoose: (day: number) => void
}) {
  const t = useText()
  const f = useFormat()
  const frame = useRef<HTMLDivElement>(null)
  const width = useWidth(frame, WIDEST)
  const id = useId()
  const thought = useRef(day)
  useEffect(() => {
    thought.current = day
  }, [day])
  const { days, start, first } = dates.season
  const x = (at: number): number => (Math.min(days, Math.max(0, at)) / days) * width
  const dayAt = (clientX: number): number => {
    const box = frame.current?.getBoundingClientRect()
    return box ? Math.round(((clientX - box.left) / box.width) * days) : day
  }
  const drag = (event: PointerEvent<HTMLElement>): void => {
    if (event.buttons === 1) onChoose(dayAt(event.clientX))
  }
  const onKey = (event: KeyboardEvent): void => {
    const by = { ArrowLeft: -1, ArrowRight: 1, ArrowDown: -1, ArrowUp: 1, PageDown: -7, PageUp: 7 }[event.key]
    if (by === undefined) return
    event.preventDefault()
    // Keys come faster than the page is drawn anew: each goes on from the one before.
    thought.current = Math.min(days - 1, Math.max(0, thought.current + by))
    onChoose(thought.current)
  }
  const stages = stagesFrom(dates, day)
  const date = dates.dates[day]
  const most = date && mostMet(date, looked)
  const dateOf = (at: number): string => f.date(f.seasonDay(start, at))
  const barTop = looked.length * HILL
  const riskTop = barTop + BAR_ROW
  const height = riskTop + RISK + AXIS
  const valueText = t('prevent.dayValue', {
    date: dateOf(day),
    share: most ? f.percent(most.p50) : '–',
    harvest: date?.harvest ? dateOf(date.harvest.p50) : '–',
  })
  return (
    <div>
      <Frame ref={frame}>
        <Picture
          viewBox={`0 0 ${width} ${height}`}
          role="img"
          aria-label={t('prevent.picture', { how: t(`crops.stage.${dates.begins}`), date: dateOf(day) })}
          onPointerDown={(event) => onChoose(dayAt(event.clientX))}
        >
          <defs>
            <pattern id={`${id}met`} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <rect width="6" height="6" fill={colour.beetSoft} />
              <rect width="2.5" height="6" fill={colour.beet} />
            </pattern>
            <pattern id={`${id}barred`} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
              <rect width="1.5" height="7" fill={colour.inkSoft} />
            </pattern>
          </defs>
          <Months days={days} x={x} y={riskTop + RISK} dayOf={(at) => f.seasonDay(start, at)} month={f.month} />
          {looked.map((meeting, i) => (
            <Hill
              key={meeting.organismId}
              meeting={meeting}
              top={i * HILL}
              span={spanOf(stages, dates.crop.stages, meeting)}
              x={x}
              clip={`${id}${i}`}
              fill={`url(#${id}met)`}
              words={t('prevent.row', { name: meeting.name, share: f.percent(date?.met[meeting.at]?.share.p50 ?? 0) })}
            />
          ))}
          <line x1={x(day)} x2={x(day)} y1={0} y2={riskTop + RISK} stroke={colour.ink} strokeWidth="1.5" />
          <CropBar stages={stages} top={barTop + BAR_TOP} x={x} width={width} />
          <Risk
            dates={dates}
            looked={looked}
            plans={plans}
            top={riskTop}
            x={x}
            barred={`url(#${id}barred)`}
            words={{ title: t('prevent.risk'), cold: t('prevent.tooCold'), percent: f.percent }}
          />
          {first > 0 ? <rect x={0} y={riskTop + 16} width={x(first)} height={RISK - 17} fill={colour.ground} opacity="0.72" /> : null}
        </Picture>
        <Handle
          role="slider"
          tabIndex={0}
          data-testid="sowing-day"
          aria-label={t('prevent.day', { how: dates.begins })}
          aria-valuemin={0}
          aria-valuemax={days - 1}
          aria-valuenow={day}
          aria-valuetext={valueText}
          style={{ left: `${(x(day) / width) * 100}%`, top: barTop + BAR_TOP - 12 }}
          onKeyDown={onKey}
          onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
          onPointerMove={drag}
        />
      </Frame>
      <Small>{t('prevent.dragHelp')}</Small>
    </div>
  )
}

/** When one of them is about; what of it the crop stands in is hatched. */
function Hill({
  meeting,
  top,
  span,
  x,
  clip,
  fill,
  words,
}: {
  meeting: Looked
  top: number
  span: { from: number; until: number }
  x: (day: number) => number
  clip: string
  fill: string
  words: string
}) {
  const path =
    area<number>()
      .x((_, i) => x(i + 0.5))
      .y0(top + HILL - 2)
      .y1((part) => top + HILL - 2 - part * (HILL - 20))([...meeting.curve]) ?? ''
  return (
    <g>
      <clipPath id={clip}>
        <rect x={x(span.from)} y={top} width={Math.max(0, x(span.until) - x(span.from))} height={HILL} />
      </clipPath>
      <line x1={0} x2="100%" y1={top + HILL - 2} y2={top + HILL - 2} stroke={colour.rule} />
      <path d={path} fill={colour.petrolSoft} stroke={colour.petrol} strokeWidth="1" />
      <path d={path} fill={fill} stroke={colour.beet} strokeWidth="1.5" clipPath={`url(#${clip})`} />
      <text x={4} y={top + 13} className="value">
        {words}
      </text>
    </g>
  )
}

/** The crop as it would stand: from sowing to its last harvest, with how far quick and slow years lie apart at the end. */
function CropBar({ stages, top, x, width }: { stages: readonly StageSpan[]; top: number; x: (day: number) => number; width: number }) {
  const t = useText()
  const [begin, end] = [stages[0], stages.at(-1)]
  if (!begin || !end) return null
  const shown = stages.filter((one, i) => one.from.usual < (stages[i + 1]?.from.usual ?? Infinity))
  let free = -Infinity
  return (
    <g>
      <rect
        x={x(begin.from.usual)}
        y={top}
        width={Math.max(2, x(end.from.usual) - x(begin.from.usual))}
        height={BAR}
        rx="3"
        fill={colour.white}
        stroke={colour.ink}
        strokeWidth="1.5"
      />
      <line
        x1={x(end.from.quick)}
        x2={x(end.from.slow)}
        y1={top + BAR / 2}
        y2={top + BAR / 2}
        stroke={colour.ink}
        strokeDasharray="3 3"
        strokeWidth="2"
      />
      {shown.map(({ stage, from: { usual } }) => {
        const at = x(usual)
        const fits = at >= free && at < width - 30
        if (fits) free = at + WORD_ROOM
        return (
          <g key={stage}>
            <line x1={at} x2={at} y1={top} y2={top + BAR} stroke={colour.inkSoft} />
            {fits ? (
              <text x={Math.min(at + 3, width - WORD_ROOM)} y={top + BAR + 15} className="soft">
                {t(`crops.stage.${stage as 'sown'}`)}
              </text>
            ) : null}
          </g>
        )
      })}
      <rect x={x(begin.from.usual) - 5} y={top - 4} width="10" height={BAR + 8} rx="3" fill={colour.ink} />
    </g>
  )
}

/** By each day of sowing the most that is met, with its bounds; where frost or the season's end bars a day it is hatched. */
function Risk({
  dates,
  looked,
  plans,
  top,
  x,
  barred,
  words,
}: {
  dates: PlantingDates
  looked: readonly Looked[]
  plans: readonly SowingPlan[]
  top: number
  x: (day: number) => number
  barred: string
  words: { title: string; cold: string; percent: (share: number) => string }
}) {
  const { days } = dates.season
  const met = dates.dates.map((date) => mostMet(date, looked))
  const y = (share: number): number => top + RISK - 2 - share * (RISK - 18)
  const known = met.map((share, i) => ({ at: i, share })).filter((one) => one.share !== null)
  const band =
    area<(typeof known)[number]>()
      .x(({ at }) => x(at))
      .y0(({ share }) => y(share?.p10 ?? 0))
      .y1(({ share }) => y(share?.p90 ?? 0))(known) ?? ''
  const middle =
    line<(typeof known)[number]>()
      .x(({ at }) => x(at))
      .y(({ share }) => y(share?.p50 ?? 0))(known) ?? ''
  const closed = dates.dates.map((date) => isBarred(date, days))
  return (
    <g>
      <text x={4} y={top + 12} className="value">
        {words.title}
      </text>
      {runsOf(closed).map(({ from, until }) => (
        <rect key={from} x={x(from)} y={top + 16} width={x(until) - x(from)} height={RISK - 18} fill={barred} opacity="0.45">
          <title>{words.cold}</title>
        </rect>
      ))}
      <path d={band} fill={colour.rule} opacity="0.7" />
      <path d={middle} fill="none" stroke={colour.ink} strokeWidth="2" />
      <line x1={0} x2="100%" y1={y(0)} y2={y(0)} stroke={colour.rule} />
      {plans.flatMap((plan) =>
        plan.days.map((at) => (
          <path
            key={`${plan.kind} ${at}`}
            d={`M${x(at) - 5} ${y(0) + 1} l10 0 l-5 -9 z`}
            fill={colour.petrol}
            stroke={colour.white}
            strokeWidth="1"
          />
        )),
      )}
    </g>
  )
}

function runsOf(closed: readonly boolean[]): { from: number; until: number }[] {
  const runs: { from: number; until: number }[] = []
  closed.forEach((is, day) => {
    const last = runs.at(-1)
    if (!is) return
    if (last?.until === day) last.until = day + 1
    else runs.push({ from: day, until: day + 1 })
  })
  return runs
}

function Months({
  days,
  x,
  y,
  dayOf,
  month,
}: {
  days: number
  x: (day: number) => number
  y: number
  dayOf: (index: number) => string
  month: (day: string) => string
}) {
  const begins = Array.from({ length: days }, (_, at) => ({ day: dayOf(at), at })).filter(({ day }) => day.endsWith('-01'))
  const room = x(30) - x(0)
  return (
    <g>
      {begins.map(({ day, at }) => (
        <g key={day}>
          <line x1={x(at)} x2={x(at)} y1={0} y2={y} stroke={colour.ruleSoft} />
          <text x={x(at) + 3} y={y + 15} className="soft">
            {room > 70 ? month(day) : month(day).slice(0, room > 32 ? 3 : 1)}
          </text>
        </g>
      ))}
    </g>
  )
}
