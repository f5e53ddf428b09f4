import { useRef } from 'react'
import type { SeasonPlan, SeasonSources } from '../band/season.js'
import { Picture } from '../charts/Picture.js'
import { useWidth } from '../charts/useWidth.js'
import { Line, Small } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/plans.js'

const WIDEST = 1240
const ROW = 26
const HEAD = 22
const NAMES = 250
/** On a narrow screen names stand above their line. */
const NARROW = 640

/** The rest of the season, a line a watch: treatments, those that wait for a count, counts, and what stands on the schedule already. */
export function SeasonPicture({
  sources,
  plan,
}: {
  sources: Pick<SeasonSources, 'rows' | 'blocks' | 'tasks' | 'season'>
  plan: SeasonPlan
}) {
  const t = useText()
  const f = useFormat()
  const frame = useRef<HTMLDivElement>(null)
  const width = useWidth(frame, WIDEST)
  const { start, days, todayIndex } = sources.season
  const isNarrow = width < NARROW
  const left = isNarrow ? 0 : NAMES
  const row = isNarrow ? ROW + 16 : ROW
  const x = (day: number): number => left + ((day - todayIndex) / Math.max(1, days - todayIndex)) * (width - left - 8)
  // What asks for nothing has no line.
  const rows = sources.rows.filter(
    ({ watch: { id } }) => plan.treatments.some(({ watch }) => watch === id) || plan.counts.some(({ watch }) => watch === id),
  )
  const months = Array.from({ length: days - todayIndex }, (_, i) => ({
    at: todayIndex + i,
    day: f.seasonDay(start, todayIndex + i),
  })).filter(({ day }) => day.endsWith('-01'))
  const height = HEAD + rows.length * row
  return (
    <div ref={frame}>
      <Picture
        viewBox={`0 0 ${width} ${height}`}
        role="img"
        aria-label={t('plans.picture', { school: t(`plans.school.${plan.school}`), treatments: plan.treatments.length })}
      >
        {months.map(({ at, day }) => (
          <g key={day}>
            <line x1={x(at)} x2={x(at)} y1={HEAD - 4} y2={height} stroke={colour.ruleSoft} />
            <text x={x(at) + 3} y={14} className="soft">
              {f.month(day).slice(0, isNarrow ? 1 : 3)}
            </text>
          </g>
        ))}
        {rows.map(({ watch, organismName, treatments }, i) => {
          const middle = HEAD + i * row + row - ROW / 2
          const block = sources.blocks.find(({ id }) => id === watch.blockId)?.name ?? ''
          return (
            <g key={watch.id}>
              <text x={0} y={isNarrow ? HEAD + i * row + 13 : middle + 4}>
                {organismName}, <tspan className="soft">{block}</tspan>
              </text>
              <line x1={left} x2={width - 8} y1={middle} y2={middle} stroke={colour.rule} />
              {plan.counts
                .filter(({ watch: id }) => id === watch.id)
                .map(({ day }) => (
                  <line key={day} x1={x(day)} x2={x(day)} y1={middle - 4} y2={middle + 4} stroke={colour.inkSoft} strokeWidth="1.5" />
                ))}
              {treatments
                .filter(({ status, plannedOn }) => status === 'planned' && f.seasonIndex(start, plannedOn) >= todayIndex)
                .map(({ id, plannedOn }) => (
                  <rect key={id} x={x(f.seasonIndex(start, plannedOn)) - 4} y={middle - 7} width={8} height={14} fill={colour.ink} />
                ))}
              {plan.treatments
                .filter(({ watch: id }) => id === watch.id)
                .map(({ day, conditional, generation }) => (
                  <path
                    key={`${generation} ${day}`}
                    d={`M${x(day)} ${middle - 8} l7 8 l-7 8 l-7 -8 z`}
                    fill={conditional ? colour.white : colour.petrol}
                    stroke={colour.petrol}
                    strokeWidth="2"
                  />
                ))}
            </g>
          )
        })}
      </Picture>
      <Line $gap={18}>
        <Key
          shape={<path d="M8 1 l7 7 l-7 7 l-7 -7 z" fill={colour.petrol} stroke={colour.petrol} strokeWidth="2" />}
          words={t('plans.key.treat')}
        />
        <Key
          shape={<path d="M8 1 l7 7 l-7 7 l-7 -7 z" fill={colour.white} stroke={colour.petrol} strokeWidth="2" />}
          words={t('plans.key.wait')}
        />
        <Key shape={<line x1="8" x2="8" y1="3" y2="13" stroke={colour.inkSoft} strokeWidth="1.5" />} words={t('plans.key.count')} />
        <Key shape={<rect x="4" y="1" width="8" height="14" fill={colour.ink} />} words={t('plans.key.there')} />
      </Line>
    </div>
  )
}

function Key({ shape, words }: { shape: React.ReactNode; words: string }) {
  return (
    <Small as="span" style={{ display: 'inline-flex', gap: 6, alignItems: 'center' }}>
      <svg width="16" height="16" aria-hidden="true">
        {shape}
      </svg>
      {words}
    </Small>
  )
}
