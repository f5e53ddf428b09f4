import type { Band, BloomForecast } from '@bocado/contract'
import { useMemo } from 'react'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import type { DayScale } from './axis.js'
import { bloomLanes } from './bloomLanes.js'

const LANE = 17
/** Two lanes of names below each other. */
export const BLOOM_HEIGHT = 2 * LANE + 12

const firstOpen = (blooms: readonly BloomForecast[]): BloomForecast[] => blooms.filter(({ event }) => event === 'first-open')

interface Placed {
  bloom: BloomForecast
  x: number
  lane: number | null
}

/** First open flowers of the plants as stems standing on the axis. Names take two lanes, those nearest to today first; they never collide. */
export function Blooms({ band, scale, bottom }: { band: Band; scale: DayScale; bottom: number }) {
  const t = useText()
  const f = useFormat()
  const { blooms, season } = band
  const titles = useMemo(
    () =>
      new Map(
        firstOpen(blooms).map(({ plant, name, eventName, date: { p10, p50, p90 } }) => [
          plant,
          t('band.bloomExpected', {
            name,
            event: eventName,
            date: f.date(f.seasonDay(season.start, p50 ?? 0)),
            span: f.span(f.seasonDay(season.start, p10 ?? 0), f.seasonDay(season.start, p90 ?? season.days - 1)),
          }),
        ]),
      ),
    [blooms, season.start, season.days, t, f],
  )
  const placed = useMemo(() => {
    const open = firstOpen(blooms).flatMap((bloom) => {
      const day = bloom.date.p50
      return day === null ? [] : [{ bloom, day, x: scale.x(day) }]
    })
    const lanes = bloomLanes(
      open.map(({ bloom, day, x }) => ({ id: bloom.plant, name: bloom.name, x, away: Math.abs(day - season.todayIndex) })),
    )
    return open.map(({ bloom, x }): Placed => ({ bloom, x, lane: lanes.get(bloom.plant) ?? null }))
  }, [blooms, scale, season.todayIndex])
  return (
    <g>
      {placed.map(({ bloom, x, lane }) => {
        const top = bottom - 10 - LANE * (1 - (lane ?? 1)) - 8
        const past = (bloom.date.p50 ?? 0) < season.todayIndex
        return (
          <g key={bloom.plant}>
            <title>{titles.get(bloom.plant)}</title>
            <path d={`M${x},${top + 4}V${bottom}`} stroke={colour.pollen} strokeWidth="1.4" strokeDasharray={past ? 'none' : '3 2'} />
            <path
              d={`M${x},${top - 4}a4,4 0 0 1 4,4a4,4 0 0 1 -4,4a4,4 0 0 1 -4,-4a4,4 0 0 1 4,-4z`}
              fill={past ? colour.pollen : colour.sheet}
              stroke={colour.pollen}
              strokeWidth="1.6"
            />
            {lane === null ? null : (
              <text x={x + 8} y={top + 4} className="soft">
                {bloom.name}
              </text>
            )}
          </g>
        )
      })}
    </g>
  )
}

/** The blooms within three days of a day, for the line that is read out. */
export function bloomsAround(blooms: readonly BloomForecast[], day: number): BloomForecast[] {
  return blooms.filter(({ date }) => date.p50 !== null && Math.abs(date.p50 - day) <= 3)
}
