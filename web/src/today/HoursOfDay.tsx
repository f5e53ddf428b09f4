import type { WatchForecast } from '@bocado/contract'
import type { ReactNode } from 'react'
import styled from 'styled-components'
import type { Means } from '../band/means.js'
import { Quiet } from '../design/text.js'
import { colour, font, PHONE, size } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { boardWords, leading } from '../windows/hourWords.js'
import { useHours } from '../windows/useHours.js'
import '../messages/en/board.js'
import '../messages/en/today.js'

/** Hours of a day that are shown: before four nobody begins. */
const FROM = 4
const UNTIL = 24

const Frame = styled.section`
  background: ${colour.white};
  border-top: 2px solid ${colour.ink};
  padding: 10px 16px 14px;
  font-size: ${size.small};
  display: grid;
  grid-template-columns: minmax(10ch, 26ch) minmax(0, 1fr);
  gap: 6px 14px;
  align-items: center;
  .scale {
    position: relative;
    height: 18px;
    font-family: ${font.figures};
    color: ${colour.inkSoft};
    span {
      position: absolute;
    }
    @media ${PHONE} {
      span:nth-child(even) {
        display: none;
      }
    }
  }
  @media ${PHONE} {
    grid-template-columns: minmax(0, 1fr);
    > span:empty {
      display: none;
    }
  }
`
/** The hours of a day: hatched where it cannot be done, open where it can, with the word of what keeps it from that. */
const Hours = styled.div`
  position: relative;
  height: 28px;
  overflow: hidden;
  background: repeating-linear-gradient(135deg, transparent 0 5px, ${colour.rule} 5px 6px);
  > * {
    position: absolute;
    top: 0;
    bottom: 0;
  }
  .usable {
    background: ${colour.petrolSoft};
    border-bottom: 4px solid ${colour.petrol};
  }
  .why {
    display: flex;
    align-items: center;
    overflow: hidden;
    white-space: nowrap;
    @media ${PHONE} {
      &[data-tight] {
        display: none;
      }
    }
    span {
      margin-left: 5px;
      padding: 0 4px;
      background: ${colour.white};
      overflow: hidden;
      text-overflow: ellipsis;
    }
  }
  .now {
    width: 2.5px;
    background: ${colour.beet};
  }
`

/** Hour by hour of today, a line a deed: when each can be done, what keeps it from that, and where the day stands. */
export function HoursOfDay({ children }: { children: ReactNode }) {
  const t = useText()
  return (
    <Frame aria-label={t('today.hours')} data-part="hours" data-testid="hours-today">
      <span />
      <div className="scale" aria-hidden>
        {Array.from({ length: (UNTIL - FROM) / 2 }, (_, i) => (
          <span key={i} style={{ left: at(FROM + 2 * i) }}>
            {String(FROM + 2 * i).padStart(2, '0')}
          </span>
        ))}
      </div>
      {children}
    </Frame>
  )
}

/** Where an hour stands, from the left. */
const at = (hour: number): string => `${(100 * (hour - FROM)) / (UNTIL - FROM)}%`
const wide = (hours: number): string => `${(100 * hours) / (UNTIL - FROM)}%`
/** So many hours have room for a word. */
const ROOM_FOR_WORD = 2
/** And so many on a phone. */
const NARROW_ROOM = 6

/** Where a deed will stand, so that nothing moves when it comes. */
export function HourRowLater() {
  return (
    <>
      <span>&nbsp;</span>
      <Hours />
    </>
  )
}

/** A deed: when it can be done today. */
export function HourRow({ row, means, place }: { row: WatchForecast; means: Means; place: string }) {
  const t = useText()
  const f = useFormat()
  const hours = useHours(row, means)
  const name = (
    <span>
      <b>{means.name}</b>, {place}
    </span>
  )
  if (!hours || hours.members === 0)
    return (
      <>
        {name}
        <Quiet style={{ display: 'block', minHeight: 28 }}>{hours ? boardWords(hours, t, f) : ' '}</Quiet>
      </>
    )
  const day = hours.hours.slice(0, UNTIL)
  const isUsable = (hour: number): boolean => (day[hour]?.usable ?? 0) * 2 >= hours.members
  const states = day.map((hour, h) => (isUsable(h) ? ('usable' as const) : leading(hour)))
  return (
    <>
      {name}
      <Hours role="img" aria-label={t('today.hoursOf', { name: means.name, place, words: boardWords(hours, t, f) })}>
        {runsOfReasons(states).map(({ from, until, reason }) => {
          const begin = Math.max(FROM, from)
          if (until <= begin) return null
          const box = { left: at(begin), width: wide(until - begin) }
          if (reason === 'usable') return <div key={from} className="usable" style={box} />
          return until - begin < ROOM_FOR_WORD ? null : (
            <div key={from} className="why" style={box} data-tight={until - begin < NARROW_ROOM || undefined}>
              <span>{t(`board.reason.${reason}`)}</span>
            </div>
          )
        })}
        <div className="now" style={{ left: at(Math.max(FROM, hours.over)) }} title={t('today.now')} />
      </Hours>
    </>
  )
}

/** Hours in a row with one reason. */
export function runsOfReasons<R extends string>(reasons: readonly (R | null)[]): { from: number; until: number; reason: R }[] {
  const runs: { from: number; until: number; reason: R }[] = []
  reasons.forEach((reason, h) => {
    if (reason === null) return
    const last = runs.at(-1)
    if (last?.until === h && last.reason === reason) last.until = h + 1
    else runs.push({ from: h, until: h + 1, reason })
  })
  return runs
}
