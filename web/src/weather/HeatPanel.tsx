import { endpoints, heatCutoffs, heatMethods, type ResponseOf, type Station } from '@bocado/contract'
import { heatQuery } from '@bocado/contract/whole'
import { max, quantile } from 'd3-array'
import { scaleLinear } from 'd3-scale'
import { line } from 'd3-shape'
import { useState, type MouseEvent, type PointerEvent } from 'react'
import styled from 'styled-components'
import { Picture } from '../charts/Picture.js'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Select } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { NumberField, readable } from '../design/NumberField.js'
import { Columns, Figure, Heading, Line, Small, Stack } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { heatOver } from './heatOver.js'

type Method = (typeof heatMethods)[number]
type Cutoff = (typeof heatCutoffs)[number]

const WIDTH = 640
const HEIGHT = 230
const LEFT = 52
const FOOT = 22

const Table = styled.table`
  width: 100%;
  td,
  th {
    padding: 4px 12px 4px 0;
    text-align: left;
    border-bottom: 1px solid ${colour.rule};
    font-weight: 400;
  }
  thead th {
    font-size: 13px;
    color: ${colour.inkSoft};
  }
  tr[data-chosen='true'] th {
    font-weight: 700;
  }
`

/** Heat sums of the season by any rule against every past season, and what the choice of method changes in days. */
export function HeatPanel({
  station,
  blockId,
  season,
  lastDay,
}: {
  station: Station
  blockId: string | undefined
  season: string
  lastDay: string
}) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [method, setMethod] = useState<Method>('single-sine')
  const [cutoff, setCutoff] = useState<Cutoff>('horizontal')
  const [lower, setLower] = useState<number | null>(10)
  const [upper, setUpper] = useState<number | null>(31.1)
  const [from, setFrom] = useState<string | null>(season)
  const [limit, setLimit] = useState<number | null>(37)
  const [target, setTarget] = useState<number | null>(140)
  const [upTo, setUpTo] = useState<string | null>(null)
  const [under, setUnder] = useState<number | null>(null)
  const query = {
    season,
    from: from ?? '',
    method,
    cutoff,
    lower: lower ?? '',
    ...(upper === null ? {} : { upper }),
    ...(upper === null || limit === null ? {} : { limit }),
    ...(blockId ? { blockId } : {}),
    target: target ?? '',
  }
  const checked = heatQuery.safeParse(query)
  const outside = from !== null && (from < season || from > lastDay)
  const errors = new Map(checked.error?.issues.map(({ path, message }) => [path.join('.'), message]))
  const { data } = useRead(
    endpoints.weather.heat,
    { params: { siteId: site.id, stationId: station.id }, input: query as never },
    checked.success && !outside,
  )
  const { temperature, heat } = f.measures
  const now = data?.current.at(-1)
  const over = data && site.season.end < site.today ? heatOver(data) : null
  const lastIndex = Math.max(0, (data?.current.length ?? 1) - 1)
  const start = from ?? season
  const kept = upTo !== null && upTo >= start && upTo <= lastDay ? f.seasonIndex(start, upTo) : null
  const pointed = under ?? kept
  const shownDay = pointed ?? lastIndex
  const point = (day: number | null, keep: boolean): void => {
    if (keep) setUpTo(day === null ? null : f.nudge(start, day))
    else setUnder(day)
  }
  const dayOf = (index: number): string => f.shortDate(f.nudge(from ?? season, Math.round(index)))
  return (
    <Stack>
      <Heading>{t('heat.title')}</Heading>
      <Line>
        <Select
          label={t('heat.method')}
          placeholder=""
          width="21ch"
          options={heatMethods.map((id) => ({ id, label: t(`method.${id}`) }))}
          value={method}
          onChange={(id) => setMethod(id as Method)}
        />
        <NumberField
          label={t('heat.lower')}
          width="14ch"
          digits={1}
          unit={temperature.unit}
          value={lower === null ? null : temperature.shown(lower)}
          onChange={(typed) => {
            const v = readable(typed)
            setLower(v === null ? null : temperature.stored(v))
          }}
          error={errors.get('lower')}
        />
        <NumberField
          label={t('heat.upper')}
          width="14ch"
          digits={1}
          unit={temperature.unit}
          value={upper === null ? null : temperature.shown(upper)}
          onChange={(typed) => {
            const v = readable(typed)
            setUpper(v === null ? null : temperature.stored(v))
          }}
          error={errors.get('upper')}
        />
        <Select
          label={t('heat.cutoff')}
          placeholder=""
          width="18ch"
          options={heatCutoffs.map((id) => ({ id, label: t(`cutoff.${id}`) }))}
          value={cutoff}
          onChange={(id) => setCutoff(id as Cutoff)}
        />
        <NumberField
          label={t('heat.limit')}
          width="15ch"
          digits={1}
          unit={temperature.unit}
          value={limit === null ? null : temperature.shown(limit)}
          onChange={(typed) => {
            const v = readable(typed)
            setLimit(v === null ? null : temperature.stored(v))
          }}
          error={errors.get('limit')}
        />
        <DateField
          label={t('heat.from')}
          value={from}
          onChange={setFrom}
          error={outside ? t('heat.outside', { start: f.withYear(season), end: f.withYear(lastDay) }) : errors.get('from')}
        />
        <NumberField
          label={t('heat.target')}
          width="16ch"
          digits={0}
          unit={heat.unit}
          value={target === null ? null : heat.shown(target)}
          onChange={(typed) => {
            const v = readable(typed)
            setTarget(v === null ? null : heat.stored(v))
          }}
          error={errors.get('target')}
        />
      </Line>
      {data ? (
        <Columns $left="1fr" $right="1fr">
          <Stack>
            <p data-testid="heat-now">
              <b>
                {now === undefined
                  ? t('heat.nothing')
                  : over
                    ? t('heat.over', {
                        sum: f.heat(now),
                        from: dayOf(0),
                        share: f.percent(Math.abs(over.share)),
                        way: over.way,
                        seasons: data.past.length,
                      })
                    : data.aheadDays === null
                      ? t('heat.now', { sum: f.heat(now), from: dayOf(0) })
                      : t('heat.ahead', {
                          sum: f.heat(now),
                          from: dayOf(0),
                          days: Math.abs(Math.round(data.aheadDays)),
                          way: data.aheadDays < -0.5 ? 'behind' : data.aheadDays > 0.5 ? 'ahead' : 'even',
                          seasons: data.past.length,
                        })}
              </b>
            </p>
            <HeatCurves
              current={data.current}
              past={data.past.map(({ cumulative }) => cumulative)}
              from={from ?? season}
              target={target ?? 0}
              day={pointed}
              onPoint={point}
            />
            <Line>
              <DateField
                label={t('heat.upTo')}
                value={under === null && upTo !== null ? upTo : f.nudge(start, shownDay)}
                onChange={setUpTo}
                error={
                  upTo !== null && kept === null ? t('heat.outside', { start: f.withYear(start), end: f.withYear(lastDay) }) : undefined
                }
              />
              <HeatUpTo data={data} index={shownDay} from={from ?? season} />
            </Line>
            <a href={`/api/v1/sites/${site.id}/stations/${station.id}/heat.csv?${asAddress(query)}`} download>
              {t('heat.csv')}
            </a>
          </Stack>
          <Stack>
            <Table>
              <caption style={{ textAlign: 'left' }}>
                <Small>{t('heat.compare', { sum: f.heat(target ?? 0), seasons: data.past.length })}</Small>
              </caption>
              <thead>
                <tr>
                  <th scope="col">{t('heat.method')}</th>
                  <th scope="col">{t('heat.reached')}</th>
                  <th scope="col">{t('heat.difference')}</th>
                </tr>
              </thead>
              <tbody>
                {data.methods.map((row) => (
                  <tr key={row.method} data-chosen={row.method === method}>
                    <th scope="row">{t(`method.${row.method}`)}</th>
                    <td>
                      <Figure>{row.day === null ? t('heat.never') : dayOf(row.day)}</Figure>
                    </td>
                    <td>
                      {row.laterBy === null
                        ? ''
                        : t('heat.later', {
                            days: Math.abs(Math.round(row.laterBy)),
                            way: row.laterBy < -0.5 ? 'earlier' : row.laterBy > 0.5 ? 'later' : 'same',
                          })}
                    </td>
                  </tr>
                ))}
              </tbody>
            </Table>
          </Stack>
        </Columns>
      ) : null}
    </Stack>
  )
}

type Heat = ResponseOf<typeof endpoints.weather.heat>

/** A query as an address takes it. */
const asAddress = (query: Readonly<Record<string, string | number>>): string =>
  new URLSearchParams(Object.entries(query).map(([name, value]) => [name, String(value)])).toString()

/** The sum up to a day, this season and in past ones; of a day to come what past seasons would add to today's. */
function HeatUpTo({ data, index, from }: { data: Heat; index: number; from: string }) {
  const t = useText()
  const f = useFormat()
  const last = data.current.length - 1
  const ahead = index > last
  const sums = data.past.flatMap(({ cumulative }) => {
    const sum = cumulative[index]
    return sum === undefined ? [] : [ahead ? (data.current[last] ?? 0) + sum - (cumulative[last] ?? 0) : sum]
  })
  const [low, middle, high] = [0.1, 0.5, 0.9].map((share) => quantile(sums, share))
  const spread = low === undefined || middle === undefined || high === undefined ? null : { low, middle, high }
  return (
    <p aria-live="polite" data-testid="heat-up-to">
      <b>{f.date(f.nudge(from, index))}</b>{' '}
      {ahead || data.current[index] === undefined ? '' : t('heat.thatDay', { sum: f.heat(data.current[index]) })}{' '}
      {spread
        ? t(ahead ? 'heat.expected' : 'heat.usual', {
            middle: f.heat(spread.middle),
            low: f.heat(spread.low),
            high: f.heat(spread.high),
            seasons: sums.length,
          })
        : ''}
    </p>
  )
}

function HeatCurves({
  current,
  past,
  from,
  target,
  day,
  onPoint,
}: {
  current: number[]
  past: number[][]
  from: string
  target: number
  /** Day that is pointed at, counted from the start of the sum. */
  day: number | null
  /** A day was pointed at, or kept by a press; null: none any more. */
  onPoint: (day: number | null, keep: boolean) => void
}) {
  const t = useText()
  const f = useFormat()
  const { heat } = f.measures
  // What has come and as much again: later the past years only fan out.
  const days = Math.min(366, Math.max(60, Math.round(current.length * 1.35)))
  const curves = past.map((curve) => curve.slice(0, days))
  const most = max([target * 1.1, ...curves.map((curve) => curve.at(-1) ?? 0), current.at(-1) ?? 0]) ?? 1
  const x = scaleLinear([0, days], [LEFT, WIDTH - 6])
  const y = scaleLinear([0, heat.shown(most)], [HEIGHT - FOOT, 8])
  const dayAt = (event: { clientX: number; currentTarget: SVGSVGElement }): number => {
    const box = event.currentTarget.getBoundingClientRect()
    const at = Math.round(x.invert(((event.clientX - box.left) / box.width) * WIDTH)) - 1
    return Math.min(Math.max(at, 0), days - 1)
  }
  const path = line<number>()
    .x((_, i) => x(i + 1))
    .y((sum) => y(heat.shown(sum)))
  return (
    <Picture
      style={{ background: colour.sheet, touchAction: 'pan-y' }}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={t('heat.chart', { seasons: past.length })}
      onPointerMove={(event: PointerEvent<SVGSVGElement>) => onPoint(dayAt(event), false)}
      onPointerLeave={() => onPoint(null, false)}
      onClick={(event: MouseEvent<SVGSVGElement>) => onPoint(dayAt(event), true)}
    >
      {day === null ? null : <line x1={x(day + 1)} x2={x(day + 1)} y1={8} y2={HEIGHT - FOOT} stroke={colour.beet} />}
      {y.ticks(4).map((tick) => (
        <g key={tick}>
          <line x1={LEFT} x2={WIDTH} y1={y(tick)} y2={y(tick)} stroke={colour.ruleSoft} />
          <text className="soft" x={LEFT - 6} y={y(tick) + 4} textAnchor="end">
            {f.number(tick)}
          </text>
        </g>
      ))}
      {curves.map((curve, i) => (
        <path key={i} d={path(curve) ?? ''} fill="none" stroke={colour.inkSoft} strokeWidth="1" opacity="0.55" />
      ))}
      <line
        x1={LEFT}
        x2={WIDTH}
        y1={y(heat.shown(target))}
        y2={y(heat.shown(target))}
        stroke={colour.pollen}
        strokeWidth="1.5"
        strokeDasharray="5 4"
      />
      <path d={path(current) ?? ''} fill="none" stroke={colour.petrol} strokeWidth="3" />
      {Array.from({ length: days }, (_, i) => i)
        .filter((i) => f.nudge(from, i).endsWith('-01'))
        .map((i) => (
          <text className="soft" key={i} x={x(i) + 2} y={HEIGHT - 6}>
            {f.month(f.nudge(from, i)).slice(0, 3)}
          </text>
        ))}
    </Picture>
  )
}
