import type { WatchForecast } from '@bocado/contract'
import { useMemo, useState } from 'react'
import { chancesBy } from '../band/streams.js'
import { DateField } from '../design/DateField.js'
import { Figure, Heading, Line, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { FigureTable } from './FigureTable.js'
import '../messages/en/field.js'
import '../messages/en/plan.js'
import '../messages/en/windows.js'

const DAYS_AHEAD = 14

/** When each event of the model comes, with its bounds, and how likely it has begun by a day of one's choosing. */
export function EventDates({ forecast }: { forecast: WatchForecast }) {
  const t = useText()
  const f = useFormat()
  const start = forecast.watch.season
  const [by, setBy] = useState<string | null>(f.nudge(f.today, DAYS_AHEAD))
  const chances = useMemo(() => {
    return by ? chancesBy(forecast, f.seasonIndex(start, by)) : new Map<string, number>()
  }, [forecast, by, f, start])
  if (forecast.events.length === 0) return <p>{t('dates.none')}</p>
  if (forecast.grade !== 'dates') return <p>{t(forecast.grade === 'months' ? 'detail.placeholder' : 'plan.noWeather')}</p>
  const bounds = ({ p10, p50, p90 }: WatchForecast['events'][number]['dates']['half']) =>
    p50 === null || p10 === null || p90 === null ? (
      <span className="soft">{t('window.beyond')}</span>
    ) : (
      <>
        {f.date(f.seasonDay(start, p50))} <span className="soft">{f.span(f.seasonDay(start, p10), f.seasonDay(start, p90))}</span>
      </>
    )
  return (
    <Stack>
      <Heading>{t('dates.title')}</Heading>
      <Line>
        <DateField label={t('dates.by')} value={by} onChange={setBy} />
      </Line>
      <FigureTable>
        <thead>
          <tr>
            <th scope="col">{t('dates.event')}</th>
            <th scope="col">{t('dates.begins')}</th>
            <th scope="col">{t('dates.half')}</th>
            <th scope="col" className="right">
              {by ? t('dates.chance', { date: f.date(by) }) : ''}
            </th>
          </tr>
        </thead>
        <tbody>
          {forecast.events.map((event) => (
            <tr key={event.id}>
              <th scope="row">{event.name}</th>
              <td>{bounds(event.dates.begins)}</td>
              <td>{bounds(event.dates.half)}</td>
              <td className="right">
                <Figure>{by ? f.percent(chances.get(event.id) ?? 0) : ''}</Figure>
              </td>
            </tr>
          ))}
        </tbody>
      </FigureTable>
      {forecast.generations.some(({ share }) => share < 0.995) ? (
        <p>
          {forecast.generations
            .filter(({ share }) => share < 0.995)
            .map(({ name, share }) => t('dates.share', { name, share: f.percent(share) }))
            .join(' ')}
        </p>
      ) : null}
      <Small>{t('dates.how', { seasons: forecast.heat.pastSeasons })}</Small>
    </Stack>
  )
}
