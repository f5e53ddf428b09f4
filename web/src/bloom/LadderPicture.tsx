import { endpoints, type Ladder } from '@bocado/contract'
import { scaleLinear } from 'd3-scale'
import { useMemo, useRef, useState } from 'react'
import styled from 'styled-components'
import { useBlocks, useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { apart } from '../charts/apart.js'
import { useWidth } from '../charts/useWidth.js'
import { Choice, Select } from '../design/controls.js'
import { Columns, Heading, Line, PlainTable, Small, Stack } from '../design/text.js'
import { colour, font } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { Waiting } from '../shell/Waiting.js'
import { useText } from '../messages/useText.js'

type Axis = 'heat' | 'day'
type Rung = { key: string; name: string; at: number; dots: number[]; chosen: boolean }

const Frame = styled.div`
  overflow: hidden;
  svg {
    display: block;
  }
  text {
    font: 13px ${font.text};
    fill: ${colour.ink};
  }
  .soft {
    fill: ${colour.inkSoft};
  }
`
const HEIGHT = 620
const FOOT = 24
const LEAST_GAP = 17
/** Ties are drawn to the steadiest blooms of an event only. */
const TIES = 3

const middle = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[sorted.length >> 1] ?? 0
}

/** The bloom ladder: heat upwards, blooms on the left rail, events of pests on the right, a dot for each year, the steadiest pairs tied. */
export function LadderPicture() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data } = useRead(endpoints.bloom.ladder, { params: { siteId: site.id }, input: {} })
  const { data: blocks = [] } = useBlocks(site.id)
  const [axis, setAxis] = useState<Axis>('heat')
  const [pest, setPest] = useState<string | null>(null)
  const [plant, setPlant] = useState<string | null>(null)
  if (!data) return <Waiting />
  if (data.blooms.length === 0) return <p>{t('ladder.empty')}</p>
  const keyOf = (p: Ladder['pests'][number]): string => `${p.organismId} ${p.blockId} ${p.event}`
  const chosen = data.pests.find((p) => keyOf(p) === pest) ?? data.pests[0]
  const bloomKey = (b: { plantId: string; event: string }): string => `${b.plantId} ${b.event}`
  const announced = data.pests.flatMap((p) => p.indicators.filter((i) => bloomKey(i) === plant).map((i) => ({ pest: p, indicator: i })))
  const value = (dot: { heat: number; day: number }): number => (axis === 'heat' ? dot.heat : dot.day)
  return (
    <Stack $gap={16}>
      <Line>
        <Choice
          label={t('ladder.axis')}
          options={(['heat', 'day'] as const).map((id) => ({ id, label: t(`ladder.axis.${id}`) }))}
          value={axis}
          onChange={setAxis}
        />
        <Select
          label={t('ladder.event')}
          placeholder={t('choose')}
          width="34ch"
          options={data.pests.map((p) => ({
            id: keyOf(p),
            label: `${p.organismName}, ${p.name} (${blocks.find(({ id }) => id === p.blockId)?.name ?? ''})`,
          }))}
          value={chosen ? keyOf(chosen) : null}
          onChange={setPest}
        />
        <Select
          label={t('ladder.plant')}
          placeholder={t('choose')}
          width="34ch"
          options={data.blooms.map((b) => ({ id: bloomKey(b), label: b.name }))}
          value={plant}
          onChange={setPlant}
        />
      </Line>
      <Columns $left="1.2fr" $right="1fr">
        <Rails
          axis={axis}
          season={site.season.start}
          left={data.blooms.map((b) => ({
            key: bloomKey(b),
            name: b.name,
            at: middle(b.dots.map(value)),
            dots: b.dots.map(value),
            chosen: bloomKey(b) === plant,
          }))}
          right={data.pests.map((p) => ({
            key: keyOf(p),
            name: `${p.organismName}, ${p.name}`,
            at: p.dots.length > 0 ? middle(p.dots.map(value)) : p.expected ? value(p.expected) : 0,
            dots: p.dots.map(value),
            chosen: p === chosen,
          }))}
          ties={chosen ? chosen.indicators.slice(0, TIES).map((i) => [bloomKey(i), keyOf(chosen)] as const) : []}
        />
        <Stack>
          {chosen ? (
            <>
              <Heading>{t('ladder.foretold', { name: `${chosen.organismName}, ${chosen.name}` })}</Heading>
              {chosen.indicators.length === 0 ? <TooFew pest={chosen} /> : <Verdict pest={chosen} />}
              {chosen.indicators.length > 0 ? (
                <PlainTable data-testid="ranking">
                  <thead>
                    <tr>
                      <th scope="col">{t('ladder.bloom')}</th>
                      <th scope="col">{t('ladder.lead')}</th>
                      <th scope="col">{t('ladder.error')}</th>
                      <th scope="col">{t('ladder.years')}</th>
                    </tr>
                  </thead>
                  <tbody>
                    {chosen.indicators.slice(0, 8).map((i) => (
                      <tr key={bloomKey(i)}>
                        <th scope="row">{i.name}</th>
                        <td>{t('ladder.leadOf', { heat: f.heat(i.leadHeat), days: f.number(i.leadDays), sd: f.heat(i.spread) })}</td>
                        <td>{t('ladder.days', { days: f.number(i.error, 1) })}</td>
                        <td>{i.years}</td>
                      </tr>
                    ))}
                  </tbody>
                </PlainTable>
              ) : null}
            </>
          ) : (
            <p>{t('ladder.noPest')}</p>
          )}
          {plant ? (
            <>
              <Heading>{t('ladder.announces', { name: data.blooms.find((b) => bloomKey(b) === plant)?.name ?? '' })}</Heading>
              {announced.length === 0 ? <p>{t('ladder.announcesNothing')}</p> : null}
              {announced.map(({ pest: p, indicator }) => (
                <p key={keyOf(p)}>
                  {t('ladder.announcesOne', {
                    name: `${p.organismName}, ${p.name}`,
                    days: f.number(indicator.leadDays),
                    heat: f.heat(indicator.leadHeat),
                    error: f.number(indicator.error, 1),
                    years: indicator.years,
                  })}
                </p>
              ))}
            </>
          ) : null}
          <Small>{t('ladder.how')}</Small>
        </Stack>
      </Columns>
    </Stack>
  )
}

/** Fewer than three years of its own: what the library and this season's weather say, and that they do. */
function TooFew({ pest }: { pest: Ladder['pests'][number] }) {
  const t = useText()
  const f = useFormat()
  return (
    <div data-testid="by-library">
      <p>{t('ladder.tooFew', { years: pest.dots.length })}</p>
      {pest.byLibrary.length > 0 ? <p>{t('ladder.byLibrary')}</p> : null}
      <ul>
        {pest.byLibrary.map(({ name, leadDays }) => (
          <li key={name}>{t('ladder.libraryLead', { name, days: f.number(leadDays) })}</li>
        ))}
      </ul>
    </div>
  )
}

/** Whether bloom beats heat and calendar here, in one plain sentence. */
function Verdict({ pest }: { pest: Ladder['pests'][number] }) {
  const t = useText()
  const f = useFormat()
  const [best] = pest.indicators
  if (!best) return null
  return (
    <p data-testid="ladder-verdict">
      {t('ladder.verdict', {
        name: best.name,
        better: best.error < best.errorByHeat - 0.05 ? 'yes' : 'no',
        error: f.number(best.error, 1),
        heat: f.number(best.errorByHeat, 1),
        calendar: f.number(best.errorByCalendar, 1),
        years: best.years,
      })}
    </p>
  )
}

function Rails(p: {
  axis: Axis
  season: string
  left: readonly Rung[]
  right: readonly Rung[]
  ties: readonly (readonly [string, string])[]
}) {
  const t = useText()
  const f = useFormat()
  const frame = useRef<HTMLDivElement>(null)
  const width = useWidth(frame, 760)
  const all = [...p.left, ...p.right].flatMap(({ dots, at }) => [...dots, at])
  const [least, most] = [Math.min(...all), Math.max(...all)]
  const y = scaleLinear([least - (most - least) * 0.04, most + (most - least) * 0.04], [HEIGHT - FOOT, 12])
  const [xl, xr] = [width * 0.42, width * 0.6]
  const leftAt = useMemo(
    () =>
      apart(
        p.left.map(({ at }) => y(at)),
        LEAST_GAP,
        10,
        HEIGHT - FOOT,
      ),
    [p.left, y],
  )
  const rightAt = useMemo(
    () =>
      apart(
        p.right.map(({ at }) => y(at)),
        LEAST_GAP,
        10,
        HEIGHT - FOOT,
      ),
    [p.right, y],
  )
  const rung = (key: string): number => {
    const one = [...p.left, ...p.right].find((r) => r.key === key)
    return one ? y(one.at) : 0
  }
  const shown = (v: number): string => (p.axis === 'heat' ? f.number(f.measures.heat.shown(v)) : f.shortDate(f.seasonDay(p.season, v)))
  return (
    <Frame ref={frame}>
      <svg width={width} height={HEIGHT} role="img" aria-label={t('ladder.picture')}>
        {y.ticks(8).map((tick) => (
          <g key={tick}>
            <line x1={xl - 30} x2={xr + 30} y1={y(tick)} y2={y(tick)} stroke={colour.ruleSoft} />
            <text className="soft" x={(xl + xr) / 2} y={y(tick) - 3} textAnchor="middle">
              {shown(tick)}
            </text>
          </g>
        ))}
        <line x1={xl} x2={xl} y1={8} y2={HEIGHT - FOOT} stroke={colour.ink} strokeWidth={2} />
        <line x1={xr} x2={xr} y1={8} y2={HEIGHT - FOOT} stroke={colour.ink} strokeWidth={2} />
        {p.ties.map(([a, b], i) => (
          <line key={a} x1={xl} x2={xr} y1={rung(a)} y2={rung(b)} stroke={colour.petrol} strokeWidth={i === 0 ? 3 : 1.5} />
        ))}
        {(
          [
            [p.left, leftAt, xl, -1],
            [p.right, rightAt, xr, 1],
          ] as const
        ).map(([rungs, at, x, side]) =>
          rungs.map((r, i) => (
            <g key={r.key}>
              {r.dots.map((dot, d) => (
                <circle key={d} cx={x + side * 8} cy={y(dot)} r={2.6} fill={side < 0 ? colour.pollen : colour.beet} />
              ))}
              <line x1={x + side * 14} x2={x + side * 24} y1={y(r.at)} y2={at[i]} stroke={colour.rule} />
              <text x={x + side * 28} y={(at[i] ?? 0) + 4} textAnchor={side < 0 ? 'end' : 'start'} fontWeight={r.chosen ? 700 : 400}>
                {r.name.length > 34 ? `${r.name.slice(0, 33)}…` : r.name}
              </text>
            </g>
          )),
        )}
        <text className="soft" x={xl} y={HEIGHT - 6} textAnchor="middle">
          {t('ladder.blooms')}
        </text>
        <text className="soft" x={xr} y={HEIGHT - 6} textAnchor="middle">
          {t('ladder.pests')}
        </text>
      </svg>
      <Small>{t(p.axis === 'heat' ? 'ladder.unitHeat' : 'ladder.unitDay', { unit: f.measures.heat.unit })}</Small>
    </Frame>
  )
}
