import { endpoints } from '@bocado/contract'
import { scaleLinear } from 'd3-scale'
import styled from 'styled-components'
import { Picture } from '../charts/Picture.js'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Columns, Figure, Heading, Small, Stack } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { Waiting } from '../shell/Waiting.js'

const Table = styled.table`
  width: 100%;
  th,
  td {
    padding: 3px 10px 3px 0;
    text-align: right;
    font-weight: 400;
    border-bottom: 1px solid ${colour.ruleSoft};
  }
  th:first-child {
    text-align: left;
  }
  thead th {
    font-size: 13px;
    font-weight: 600;
    vertical-align: bottom;
  }
`

/** How good past forecasts were here, by how many days ahead, and what is taken off the next one. */
export function ForecastScore({ stationId }: { stationId: string }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data } = useRead(endpoints.weather.score, { params: { siteId: site.id, stationId }, input: {} })
  if (!data) return <Waiting />
  const { temperature } = f.measures
  const degrees = (c: number): number => temperature.shown(c) - temperature.shown(0)
  const signed = (c: number): string => f.signed(degrees(c), 1)
  const { leads, issues } = data
  if (leads.length === 0)
    return (
      <Stack>
        <Heading>{t('score.title')}</Heading>
        <p>{t('score.none')}</p>
      </Stack>
    )
  return (
    <Stack>
      <Heading>{t('score.title')}</Heading>
      <p>
        {t('score.sentence', {
          issues,
          error: `${f.number(degrees(leads[0]?.errorMax ?? 0), 1)} ${temperature.unit}`,
          later: `${f.number(degrees(leads.at(-1)?.errorMax ?? 0), 1)} ${temperature.unit}`,
          days: leads.at(-1)?.lead ?? 0,
        })}
      </p>
      <Columns $left="5fr" $right="7fr">
        <ScorePicture leads={leads} />
        <Table>
          <thead>
            <tr>
              <th scope="col">{t('score.lead')}</th>
              <th scope="col">{t('score.n')}</th>
              <th scope="col">{t('score.biasMin', { unit: temperature.unit })}</th>
              <th scope="col">{t('score.biasMax', { unit: temperature.unit })}</th>
              <th scope="col">{t('score.errorMin', { unit: temperature.unit })}</th>
              <th scope="col">{t('score.errorMax', { unit: temperature.unit })}</th>
              <th scope="col">{t('score.inside')}</th>
              <th scope="col">{t('score.takenOff', { unit: temperature.unit })}</th>
            </tr>
          </thead>
          <tbody>
            {leads.map((lead) => (
              <tr key={lead.lead}>
                <th scope="row">{t('score.days', { days: lead.lead })}</th>
                {[
                  f.number(lead.n),
                  signed(lead.biasMin),
                  signed(lead.biasMax),
                  f.fixed(degrees(lead.errorMin), 1),
                  f.fixed(degrees(lead.errorMax), 1),
                  f.percent(lead.inside),
                  lead.takenOffMin === 0 && lead.takenOffMax === 0
                    ? t('score.nothing')
                    : t('score.both', { min: signed(lead.takenOffMin), max: signed(lead.takenOffMax) }),
                ].map((value, i) => (
                  <td key={i}>
                    <Figure>{value}</Figure>
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </Table>
      </Columns>
      <Small>{t('score.explain')}</Small>
    </Stack>
  )
}

const WIDTH = 520
const HEIGHT = 220

/** Mean error by lead day, and the bias within it. */
function ScorePicture({
  leads,
}: {
  leads: readonly { lead: number; errorMax: number; errorMin: number; biasMin: number; biasMax: number }[]
}) {
  const t = useText()
  const f = useFormat()
  const { temperature } = f.measures
  const degrees = (c: number): number => temperature.shown(c) - temperature.shown(0)
  const most = Math.max(0.5, ...leads.flatMap((l) => [l.errorMax, l.errorMin, Math.abs(l.biasMin), Math.abs(l.biasMax)].map(degrees)))
  const x = scaleLinear([0, leads.length], [44, WIDTH - 8])
  const y = scaleLinear([-most, most], [HEIGHT - 26, 8]).nice()
  const wide = x(1) - x(0)
  return (
    <Picture viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={t('score.chart')} style={{ background: colour.sheet }}>
      {y.ticks(5).map((tick) => (
        <g key={tick}>
          <line x1={44} x2={WIDTH} y1={y(tick)} y2={y(tick)} stroke={tick === 0 ? colour.ink : colour.ruleSoft} />
          <text className="soft" x={38} y={y(tick) + 4} textAnchor="end">
            {f.number(tick, 1)}
          </text>
        </g>
      ))}
      {leads.map((l, i) => (
        <g key={l.lead}>
          <rect
            x={x(i) + wide * 0.14}
            width={wide * 0.72}
            y={y(degrees(l.errorMax))}
            height={y(-degrees(l.errorMax)) - y(degrees(l.errorMax))}
            fill={colour.petrolSoft}
            stroke={colour.petrol}
          />
          <circle cx={x(i) + wide * 0.35} cy={y(degrees(l.biasMin))} r="4" fill={colour.ink} />
          <path
            d={`M${x(i) + wide * 0.65 - 5},${y(degrees(l.biasMax)) + 4} h10 l-5,-9 Z`}
            fill={colour.pollen}
            stroke={colour.ink}
            strokeWidth="0.8"
          />
          <text className="soft" x={x(i) + wide / 2} y={HEIGHT - 6} textAnchor="middle">
            {l.lead}
          </text>
        </g>
      ))}
    </Picture>
  )
}
