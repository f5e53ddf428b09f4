import type { Band, BloomForecast } from '@bocado/contract'
import { useMemo } from 'react'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import type { DayScale } from './axis.js'

const LANE = 17
/** Two lanes of names below each other. */
export const BLOOM_HEIGHT = 2 * LANE + 12
/** About as wide as a letter of the label is. */
const LETTER = 6.4

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
          t('bloom.expected', {
            name,
            event: eventName,
            date: f.date(f.seasonDay(season.start, p50 ?? 0)),
            span: f.span(f.seasonDay(season.start, p10 ?? 0), f.seasonDay(season.start, p90 ?? 0)),
          }),
        ]),
      ),
    [blooms, season.start, t, f],
  )
  const placed = useMemo(() => {
    const open = firstOpen(blooms).flatMap((bloom) => {
      const day = bloom.date.p50
      return day === null ? [] : [{ bloom, day, x: scale.x(day) }]
    })
    const nearest = [...open].sort((a, b) => Math.abs(a.day - season.todayIndex) - Math.abs(b.day - season.todayIndex))
    // Every stem passes the lower lane; the upper one is only passed by stems whose names stand there.
    const stems: number[][] = [[], open.map(({ x }) => x)]
    const names: [number, number][][] = [[], []]
    const lanes = new Map<string, number>()
    for (const { bloom, x } of nearest) {
      const span: [number, number] = [x - 6, x + 14 + LETTER * bloom.name.length]
      const isFree = (lane: number): boolean =>
        (stems[lane] ?? []).every((stem) => stem === x || stem < span[0] || stem > span[1]) &&
        (names[lane] ?? []).every(([from, to]) => span[1] < from || span[0] > to)
      const lane = [1, 0].find(isFree)
      if (lane === undefined) continue
      names[lane]?.push(span)
      if (lane === 0) stems[0]?.push(x)
      lanes.set(bloom.plant, lane)
    }
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
