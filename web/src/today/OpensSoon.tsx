import type { BloomForecast, WatchForecast } from '@bocado/contract'
import { Link } from 'react-router'
import styled from 'styled-components'
import { useSite } from '../api/workplace.js'
import { currentWindow } from '../band/urgency.js'
import { Heading, Small, Stack } from '../design/text.js'
import { colour, font, size } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/today.js'

export const SOON_DAYS = 14
const MOST = 7

const Table = styled.div`
  display: grid;
  grid-template-columns: minmax(9ch, 18ch) minmax(0, 1fr);
  gap: 4px 12px;
  align-items: center;
  font-size: ${size.small};
  svg {
    width: 100%;
    height: 20px;
    display: block;
  }
  .scale {
    display: flex;
    justify-content: space-between;
    color: ${colour.inkSoft};
    font-family: ${font.figures};
  }
`
const WIDE = 280

interface Mark {
  id: string
  name: string
  to: string | null
  kind: 'window' | 'bloom'
  early: number
  middle: number
  late: number
  /** Where the window closes again. */
  until: number | null
}

/** Windows that open and blooms that are expected within two weeks, each with how sure its day is. */
export function OpensSoon({ rows, blooms }: { rows: readonly WatchForecast[]; blooms: readonly BloomForecast[] }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const at = f.seasonIndex(site.season.start, site.today)
  const marks: Mark[] = [
    ...rows.flatMap((row): Mark[] => {
      const window = currentWindow(row)
      if (!window || window.opens.p50 === null) return []
      const { p10, p50, p90 } = window.opens
      return [
        {
          id: row.watch.id,
          name: row.organismName,
          to: `/sites/${site.id}/windows?watch=${row.watch.id}`,
          kind: 'window',
          early: (p10 ?? p50) - at,
          middle: p50 - at,
          late: (p90 ?? p50) - at,
          until: window.closes.p50 === null ? null : window.closes.p50 - at,
        },
      ]
    }),
    ...blooms.flatMap((bloom): Mark[] => {
      const { p10, p50, p90 } = bloom.date
      if (p50 === null || p50 < at + 1 || p50 > at + SOON_DAYS) return []
      const id = `${bloom.plant} ${bloom.event}`
      const name = `${bloom.name}, ${bloom.eventName}`
      return [{ id, name, to: null, kind: 'bloom', early: (p10 ?? p50) - at, middle: p50 - at, late: (p90 ?? p50) - at, until: null }]
    }),
  ]
    .sort((a, b) => a.middle - b.middle)
    .slice(0, MOST)
  const x = (days: number): number => (Math.max(0, Math.min(SOON_DAYS, days)) / SOON_DAYS) * WIDE
  const day = (days: number): string => f.nudge(site.today, Math.floor(days))
  return (
    <Stack $gap={8} data-part="soon" data-testid="opens-soon">
      <Heading>{t('today.soon')}</Heading>
      {marks.length === 0 ? <Small>{t('today.soonNone')}</Small> : null}
      <Table>
        {marks.length > 0 ? (
          <>
            <span />
            <span className="scale" aria-hidden>
              {[0, 7, 14].map((days) => (
                <span key={days}>{f.shortDate(day(days))}</span>
              ))}
            </span>
          </>
        ) : null}
        {marks.map((mark) => (
          <Fragmented
            key={mark.id}
            mark={mark}
            x={x}
            says={t('today.soonOne', { name: mark.name, span: f.span(day(mark.early), day(mark.late)) })}
          />
        ))}
      </Table>
    </Stack>
  )
}

function Fragmented({ mark, x, says }: { mark: Mark; x: (days: number) => number; says: string }) {
  const { kind, name, to, early, middle, late, until } = mark
  return (
    <>
      <span>{to === null ? name : <Link to={to}>{name}</Link>}</span>
      <svg viewBox={`0 0 ${WIDE} 20`} preserveAspectRatio="none" role="img" aria-label={says}>
        <title>{says}</title>
        {[0, 7, 14].map((days) => (
          <line key={days} x1={x(days)} x2={x(days)} y1="0" y2="20" stroke={colour.rule} />
        ))}
        {kind === 'window' ? (
          <>
            <rect
              x={x(middle)}
              y="5"
              width={Math.max(2, x(until ?? SOON_DAYS) - x(middle))}
              height="10"
              fill="none"
              stroke={colour.petrol}
              strokeWidth="2"
            />
            <line x1={x(early)} x2={x(late)} y1="10" y2="10" stroke={colour.petrol} strokeWidth="2" />
          </>
        ) : (
          <>
            <line x1={x(early)} x2={x(late)} y1="10" y2="10" stroke={colour.pollen} strokeWidth="2" />
            <circle cx={x(middle)} cy="10" r="5" fill={colour.pollen} />
          </>
        )}
      </svg>
    </>
  )
}
