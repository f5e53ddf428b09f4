import { endpoints, type Moves, type WatchForecast } from '@bocado/contract'
import { useState } from 'react'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { monthSpan } from '../band/words.js'
import { Select } from '../design/controls.js'
import { Figure, Heading, Line, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { Waiting } from '../shell/Waiting.js'
import { FigureTable } from './FigureTable.js'
import '../messages/en/field.js'
import '../messages/en/plan.js'
import '../messages/en/windows.js'

/** Why a window lies elsewhere than a forecast of some days ago had it: each cause with its days. */
export function WhyMoved({ forecast }: { forecast: WatchForecast }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [since, setSince] = useState<string | null>(null)
  const { data } = useRead(endpoints.watches.moves, {
    params: { siteId: site.id, watchId: forecast.watch.id },
    input: since ? { since } : {},
  })
  if (!data) return <Waiting />
  const earlier = data.issued.filter(({ today, grade }) => today < site.today && grade === 'dates')
  if (earlier.length === 0 || !data.since) return forecast.grade === 'dates' ? <p>{t('moved.none')}</p> : <Undated issued={data.issued} />
  if (data.since.windows.length === 0) return <p>{t('moved.infection')}</p>
  const chosen = data.issued.find(({ id }) => id === data.since?.id)
  return (
    <Stack>
      <Heading>{t('moved.title')}</Heading>
      <Line>
        <Select
          label={t('moved.since')}
          placeholder={t('choose')}
          width="26ch"
          options={earlier.map(({ id, today }) => ({ id, label: f.dateInDays(today) }))}
          value={data.since.id}
          onChange={setSince}
        />
      </Line>
      {data.since.windows.map((window) => (
        <MovedWindow key={window.generation} window={window} start={forecast.watch.season} />
      ))}
      <Small>
        {t('moved.how', {
          model: chosen?.model ?? '',
          biofix: chosen?.biofix ? f.date(chosen.biofix) : t('band.noBiofix'),
        })}
      </Small>
    </Stack>
  )
}

/** Forecasts that gave no dates, as they were said. */
function Undated({ issued }: { issued: Moves['issued'] }) {
  const t = useText()
  const f = useFormat()
  return (
    <Stack>
      <p>{t('moved.undated')}</p>
      <ul>
        {issued.slice(0, 20).map(({ id, today, grade, usual }) => (
          <li key={id}>
            {t('moved.said', {
              date: f.date(today),
              grade,
              months: usual.map(({ name, months }) => `${name} ${monthSpan(months, t, f)}`).join(', ') || 'none',
            })}
          </li>
        ))}
      </ul>
    </Stack>
  )
}

function MovedWindow({ window, start }: { window: NonNullable<Moves['since']>['windows'][number]; start: string }) {
  const t = useText()
  const f = useFormat()
  const on = (index: number | null): string => (index === null ? t('window.beyond') : f.date(f.seasonDay(start, index)))
  const total = window.before !== null && window.now !== null ? window.now - window.before : null
  return (
    <div>
      <p>
        <b>
          {t('moved.window', {
            name: window.generationName,
            before: on(window.before),
            now: on(window.now),
            way: total === null || total === 0 ? 'same' : total > 0 ? 'later' : 'earlier',
            days: Math.abs(total ?? 0),
          })}
        </b>
      </p>
      {window.steps.some(({ days }) => days !== 0) ? (
        <FigureTable>
          <tbody>
            {window.steps
              .filter(({ days }) => days !== 0)
              .map(({ cause, days }) => (
                <tr key={cause}>
                  <th scope="row">{t(`moved.cause.${cause}`)}</th>
                  <td className="right">
                    <Figure>{t('moved.days', { days: f.signed(days, 1) })}</Figure>
                  </td>
                </tr>
              ))}
          </tbody>
        </FigureTable>
      ) : null}
    </div>
  )
}
