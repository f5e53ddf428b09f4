import type { InfectionForecast, Organism, WatchForecast } from '@bocado/contract'
import { Caution, Heading, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { windowSentence } from '../band/words.js'
import type { Format } from '../design/useFormat.js'
import { useText, type Say } from '../messages/useText.js'
import { FigureTable } from './FigureTable.js'

const SHOWN = 8

/** What the weather allowed a disease, what each infection asks for, and where to look for its signs. */
export function InfectionWords({
  forecast,
  infection,
  organism,
}: {
  forecast: WatchForecast
  infection: InfectionForecast
  organism: Organism | undefined
}) {
  const t = useText()
  const f = useFormat()
  const start = forecast.watch.season
  const { todayIndex } = forecast.heat
  const on = (index: number): string => f.date(f.seasonDay(start, index))
  const shown = infection.days.slice(-SHOWN)
  const left = forecast.treatments.filter(({ depositLeft }) => depositLeft !== null).at(-1)
  const dated = forecast.grade === 'dates'
  return (
    <Stack>
      <Heading>{t('infection.title')}</Heading>
      {dated && shown.length > 0 ? (
        <FigureTable>
          <thead>
            <tr>
              <th scope="col">{t('infection.column.day')}</th>
              <th scope="col">{t('infection.column.how')}</th>
              <th scope="col">{t('infection.column.cure')}</th>
              <th scope="col">{t('infection.column.shows')}</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((day) => {
              const coming = day.day >= todayIndex
              const { p10, p90 } = day.symptoms
              return (
                <tr key={day.day}>
                  <th scope="row">{on(day.day)}</th>
                  <td>
                    {coming
                      ? t('infection.ahead', { share: f.percent(day.probability) })
                      : t('infection.strength', {
                          severity: f.number(day.severity, 1),
                          certain: day.certain ? 'yes' : 'no',
                          origin: day.origin,
                        })}
                  </td>
                  <td>{coming ? t('infection.before') : day.curativeUntil === null ? t('infection.noCure') : on(day.curativeUntil)}</td>
                  <td>{p10 === null || p90 === null ? '' : f.span(f.seasonDay(start, p10), f.seasonDay(start, p90))}</td>
                </tr>
              )
            })}
          </tbody>
        </FigureTable>
      ) : (
        <p>{t(dated ? 'infection.noneSoFar' : 'detail.placeholder')}</p>
      )}
      {infection.total !== null && infection.dueAt !== null ? (
        <p>{t('infection.total', { total: f.number(infection.total, 0), due: f.number(infection.dueAt) })}</p>
      ) : null}
      {infection.usual ? (
        <p>
          {t('infection.usual', {
            p10: f.number(infection.usual.byNow.p10 ?? 0),
            p50: f.number(infection.usual.byNow.p50 ?? 0),
            p90: f.number(infection.usual.byNow.p90 ?? 0),
          })}
        </p>
      ) : null}
      {left?.depositLeft == null ? null : (
        <p>{t('infection.deposit', { date: f.date(left.done?.day ?? left.plannedOn), share: f.percent(left.depositLeft) })}</p>
      )}
      <p>
        {forecast.sourceNear && forecast.watch.sourceKnown === 'unknown' ? (
          <b>{t('infection.sourceNear', { date: f.date(forecast.sourceNear.day), km: f.number(forecast.sourceNear.withinKm) })}</b>
        ) : (
          <b>{t(`infection.source.${forecast.watch.sourceKnown}`)}</b>
        )}{' '}
        {organism?.infection?.inoculum}
      </p>
      <p>
        <b>{t('infection.lookFor')}</b> {organism?.infection?.lookFor}
      </p>
      {dated ? <ThreeClocks forecast={forecast} infection={infection} /> : null}
      {infection.estimated ? <Caution>{t('infection.estimated', infection.estimated)}</Caution> : null}
      {infection.unknownShare > 0.05 ? <Caution>{t('infection.gaps', { share: f.percent(infection.unknownShare) })}</Caution> : null}
      <Small>{t('infection.how', { model: t(`infection.model.${infection.model}` as Parameters<typeof t>[0]) })}</Small>
    </Stack>
  )
}

/** What practitioners go by, side by side: infection weather, heat to the first outbreak of past seasons, and a fixed interval. */
function ThreeClocks({ forecast, infection }: { forecast: WatchForecast; infection: InfectionForecast }) {
  const t = useText()
  const f = useFormat()
  const on = (index: number): string => f.seasonDay(forecast.watch.season, index)
  return (
    <FigureTable>
      <caption>{t('infection.clocks')}</caption>
      <tbody>
        <tr>
          <th scope="row">{t('infection.clock.weather')}</th>
          <td>{byWeather(forecast, infection, t, f)}</td>
        </tr>
        <tr>
          <th scope="row">{t('infection.clock.heat')}</th>
          <td>{byHeat(forecast, t, f, on)}</td>
        </tr>
        <tr>
          <th scope="row">{t('infection.clock.interval')}</th>
          <td>{byInterval(forecast, t, f)}</td>
        </tr>
      </tbody>
    </FigureTable>
  )
}

/** When infection weather asks for protection again, or what it says of today. */
function byWeather(forecast: WatchForecast, { followUp }: InfectionForecast, t: Say, f: Format): string {
  const { p10, p50, p90 } = followUp?.due ?? { p10: null, p50: null, p90: null }
  if (!followUp || p50 === null) return windowSentence(forecast, t, f)
  const on = (index: number): string => f.seasonDay(forecast.watch.season, index)
  return t('infection.followUp', {
    since: f.date(on(followUp.since)),
    due: f.date(on(p50)),
    span: f.span(on(p10 ?? p50), on(p90 ?? p50)),
    by: followUp.by ?? 'none',
  })
}

/** When the first spots come by the heat of past seasons, or came. */
function byHeat({ named, seen }: WatchForecast, t: Say, f: Format, on: (index: number) => string): string {
  const first = seen[0]
  if (first) return t('infection.clock.heatSeen', { day: f.date(first.day) })
  const clock = named.map((event) => event.clock).find((c) => c && c.date.p50 !== null)
  if (!clock || clock.date.p50 === null) return t('infection.clock.heatNone')
  const { p10, p50, p90 } = clock.date
  return t('infection.clock.heatDue', { day: f.date(on(p50)), span: f.span(on(p10 ?? p50), on(p90 ?? p50)), seasons: clock.seasons })
}

/** The label's days after the last treatment. */
function byInterval({ treatments }: WatchForecast, t: Say, f: Format): string {
  // Only what is put on leaves a deposit.
  const last = treatments.filter(({ done, deviation }) => done?.label && !deviation && done.label.residualDays > 0).at(-1)?.done
  if (!last?.label) return t('infection.clock.intervalNone')
  const days = last.label.residualDays
  return t('infection.clock.intervalDue', { days, since: f.date(last.day), due: f.date(f.seasonDay(last.day, days)) })
}

/** How a weed's seedlings come up. */
export function EmergenceWords({ forecast }: { forecast: WatchForecast }) {
  const t = useText()
  const f = useFormat()
  const { emergence } = forecast
  if (!emergence) return null
  const start = forecast.watch.season
  const now = emergence.p50[Math.max(0, forecast.heat.todayIndex - 1)] ?? 0
  const dated = forecast.grade === 'dates'
  const month = (index: number): string => f.month(f.seasonDay(start, index))
  return (
    <Stack $gap={4}>
      <Heading>{t('emergence.title')}</Heading>
      <p>
        {dated ? t('emergence.now', { share: f.percent(now) }) : t('detail.placeholder')}{' '}
        {emergence.flushes
          .map(({ from, until, share }) =>
            dated
              ? t('emergence.flush', { span: f.span(f.seasonDay(start, from), f.seasonDay(start, until - 1)), share: f.percent(share) })
              : t('emergence.months', { from: month(from), to: month(until - 1), same: month(from) === month(until - 1) ? 'yes' : 'no' }),
          )
          .join(' ')}
      </p>
      {emergence.clock !== 'thermal' && !emergence.rainKnown ? <Caution>{t('emergence.noRain')}</Caution> : null}
      <Small>
        {t('emergence.how', {
          clock: emergence.clock.replace('hydrothermal-', ''),
          texture: t(`texture.${emergence.texture}` as Parameters<typeof t>[0]),
        })}
      </Small>
    </Stack>
  )
}
