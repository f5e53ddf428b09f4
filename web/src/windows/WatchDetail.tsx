import { endpoints, type Organism, type WatchForecast } from '@bocado/contract'
import { memo, useMemo, useState } from 'react'
import styled from 'styled-components'
import { useWrite } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { stageBoundsOn } from '../band/streams.js'
import { Decided } from '../scouting/Decided.js'
import { thresholdOf } from '../band/threshold.js'
import { expectedSpan, heatSentence, monthSpan, originSentence, windowSentence } from '../band/words.js'
import { TextButton } from '../design/buttons.js'
import { Checkbox, Choice } from '../design/controls.js'
import { Explained } from '../design/Explained.js'
import { onStageFill, stageFill, StageShape } from '../design/StageShape.js'
import { Hazards } from '../design/Hazards.js'
import { Caution, Figure, Heading, Line, Small, Stack } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { ReportDuty } from '../library/ReportDuty.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { EmergenceWords, InfectionWords } from './InfectionWords.js'
import {
  EditWatchLater,
  EventDatesLater,
  ModelFiguresLater,
  OwnRecordsLater,
  ProgrammeLater,
  WaysToActLater,
  WhyMovedLater,
} from './detailLater.js'
import { SeenToday } from './SeenToday.js'
import '../messages/en/field.js'
import '../messages/en/windows.js'

const Stages = styled.table`
  width: 100%;
  td,
  th {
    padding: 3px 8px 3px 0;
    text-align: left;
    font-weight: 400;
    vertical-align: middle;
  }
  td:nth-child(3) {
    text-align: right;
    white-space: nowrap;
  }
  .where {
    font-size: 13px;
    color: ${colour.inkSoft};
  }
`

const PANELS = ['now', 'ways', 'programme', 'dates', 'moved', 'numbers', 'records'] as const

/** What is known of one watch: now, its dates, why they moved, the numbers they rest on, and what was recorded. */
export const WatchDetail = memo(function WatchDetail(p: {
  forecast: WatchForecast
  organism: Organism
  /** A way to act was taken up: its key, as planning takes it. */
  onPlan: (key: string) => void
}) {
  const { forecast, organism } = p
  const t = useText()
  const [panel, setPanel] = useState<(typeof PANELS)[number]>('now')
  return (
    <Stack data-part="detail">
      <Choice
        label={t('detail.panels')}
        options={PANELS.map((id) => ({ id, label: t(`detail.panel.${id}`) }))}
        value={panel}
        onChange={setPanel}
      />
      {panel === 'now' ? <Now forecast={forecast} organism={organism} /> : null}
      {panel === 'ways' ? <WaysToActLater forecast={forecast} organism={organism} onPlan={p.onPlan} /> : null}
      {panel === 'programme' ? <ProgrammeLater forecast={forecast} onPlan={p.onPlan} /> : null}
      {panel === 'dates' ? <EventDatesLater forecast={forecast} /> : null}
      {panel === 'moved' ? <WhyMovedLater forecast={forecast} /> : null}
      {panel === 'numbers' ? <ModelFiguresLater forecast={forecast} /> : null}
      {panel === 'records' ? <OwnRecordsLater forecast={forecast} /> : null}
    </Stack>
  )
})

function Now({ forecast, organism }: { forecast: WatchForecast; organism: Organism | undefined }) {
  const t = useText()
  const f = useFormat()
  const [editing, setEditing] = useState(false)
  return (
    <Stack>
      {forecast.grade === 'calendar' ? (
        <Calendar forecast={forecast} />
      ) : forecast.grade === 'none' ? (
        <MissingWeather forecast={forecast} />
      ) : (
        <>
          {forecast.infection ? (
            <p>
              <b>{windowSentence(forecast, t, f)}</b>
            </p>
          ) : (
            <Windows forecast={forecast} />
          )}
          <SeasonBeyondHeat forecast={forecast} />
          <BloomWords forecast={forecast} />
        </>
      )}
      <SeenToday forecast={forecast} />
      {forecast.biofix.how === 'expected' && forecast.grade !== 'calendar' ? (
        <Caution>
          <Explained>{t('detail.expected', { span: expectedSpan(forecast, f), ask: organism?.biofix.ask ?? '' })}</Explained>
        </Caution>
      ) : null}
      {forecast.grade === 'dates' && forecast.events.length > 0 ? <StagesNow forecast={forecast} /> : null}
      {forecast.infection && forecast.grade !== 'none' && forecast.grade !== 'calendar' ? (
        <InfectionWords forecast={forecast} infection={forecast.infection} organism={organism} />
      ) : null}
      <EmergenceWords forecast={forecast} />
      {organism ? <ThresholdFrom forecast={forecast} organism={organism} /> : null}
      <Decided row={forecast} />
      <ReportDuty organismId={forecast.watch.organismId} />
      <Caution>{t('caution.look')}</Caution>
      {forecast.basis === 'normals' ? <Caution>{t('caution.normals')}</Caution> : null}
      {forecast.wide && forecast.grade === 'dates' && forecast.basis !== 'normals' ? (
        <Caution>{t('caution.wide', { seasons: forecast.heat.pastSeasons })}</Caution>
      ) : null}
      {forecast.heat.filledShare > 0.05 ? <Caution>{t('caution.filled', { share: f.percent(forecast.heat.filledShare) })}</Caution> : null}
      <Hazards hazards={organism?.hazards ?? []} />
      {forecast.grade === 'calendar' ? null : (
        <Small data-part="origin">
          <Explained>{originSentence(forecast, t, f)}</Explained>
        </Small>
      )}
      {editing ? (
        <EditWatchLater forecast={forecast} items={organism?.sampling.items ?? ''} onDone={() => setEditing(false)} />
      ) : (
        <Line data-part="watch">
          <TextButton onPress={() => setEditing(true)}>{t('detail.edit')}</TextButton>
          <RemoveWatch forecast={forecast} />
        </Line>
      )}
    </Stack>
  )
}

/** Where the threshold comes from that counts are held against. */
function ThresholdFrom({ forecast, organism }: { forecast: WatchForecast; organism: Organism }) {
  const t = useText()
  const threshold = thresholdOf(forecast.watch, organism)
  if (threshold === null || threshold.from === 'every-one') return null
  const { region, confidence } = organism.sampling.threshold
  return (
    <p>
      {forecast.watch.threshold
        ? t('detail.ownThreshold', { reason: forecast.watch.threshold.reason })
        : t('detail.libraryThreshold', { region, confidence: t(`confidence.${confidence}`) })}
    </p>
  )
}

function Windows({ forecast }: { forecast: WatchForecast }) {
  const t = useText()
  const f = useFormat()
  if (forecast.windows.length === 0) return <Heading as="h3">{windowSentence(forecast, t, f)}</Heading>
  return forecast.windows.map((window) => (
    <div key={window.generation}>
      <b>{t('detail.generation', { name: window.generationName })}</b>
      <p>{windowSentence(forecast, t, f, window)}</p>
      <Small>
        <Explained>{forecast.grade === 'dates' ? heatSentence(forecast, t, f, window) : t('detail.placeholder')}</Explained>
      </Small>
    </div>
  ))
}

/** By fewer days no month moves. */
const MOVED_SHOWN_DAYS = 4

/** What months were moved by, and what ends the season where that is no heat. */
function SeasonBeyondHeat({ forecast }: { forecast: WatchForecast }) {
  const t = useText()
  const f = useFormat()
  const { usual, end, watch, grade } = forecast
  const moved =
    grade === 'months' && !forecast.infection ? usual.find(({ movedDays }) => Math.abs(movedDays ?? 0) >= MOVED_SHOWN_DAYS) : undefined
  const on = (index: number): string => f.seasonDay(watch.season, index)
  return (
    <>
      {moved?.movedDays == null ? null : (
        <Small>
          {t('detail.monthsMoved', {
            days: Math.abs(moved.movedDays),
            way: moved.movedDays < 0 ? 'ahead' : 'behind',
            region: moved.region,
          })}
        </Small>
      )}
      {forecast.winter.map(({ what, verdict, medium, read, lowest, killedBelow, day, then }) => (
        <Small key={what}>
          {t('detail.winter', {
            what,
            verdict,
            medium,
            read: read ? 'yes' : 'no',
            lowest: f.temperature(lowest),
            limit: f.temperature(killedBelow),
            day: f.date(day),
            then,
          })}
        </Small>
      ))}
      {end?.date.p50 == null ? null : (
        <Small>
          {t('detail.seasonEnd', {
            what: end.what,
            date: f.date(on(end.date.p50)),
            span: f.span(on(end.date.p10 ?? end.date.p50), on(end.date.p90 ?? end.date.p50)),
          })}
        </Small>
      )}
    </>
  )
}

/** How far blooms have moved it, and the switch; nothing where its biofix was seen, which stands closer than any bloom. */
function BloomWords({ forecast }: { forecast: WatchForecast }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { watch, bloom, biofix } = forecast
  const follow = useWrite(endpoints.bloom.follow)
  if (biofix.how === 'entered' || forecast.events.length === 0 || forecast.grade !== 'dates') return null
  return (
    <div data-testid="bloom-moved">
      {bloom ? (
        <p>
          {t('detail.bloomMoved', { blooms: bloom.blooms, days: f.signed(bloom.days, 1) })}{' '}
          {forecast.windows.map((window) => {
            const without = bloom.opensWithout.find(({ generation }) => generation === window.generation)?.day ?? null
            if (without === null || window.opens.p50 === null || Math.floor(without) === Math.floor(window.opens.p50)) return null
            return (
              <span key={window.generation}>
                {t('detail.bloomWindow', {
                  name: window.generationName,
                  from: f.date(f.seasonDay(watch.season, without)),
                  to: f.date(f.seasonDay(watch.season, window.opens.p50)),
                })}{' '}
              </span>
            )
          })}
        </p>
      ) : null}
      <Checkbox
        label={t('detail.followBloom')}
        value={watch.followsBloom}
        isDisabled={follow.isBarred}
        onChange={(follows) =>
          void follow.save({ params: { siteId: site.id, watchId: watch.id }, input: { follows, rowVersion: watch.rowVersion } })
        }
      />
    </div>
  )
}

/** What months and blooms say where there is no weather. */
function Calendar({ forecast }: { forecast: WatchForecast }) {
  const t = useText()
  const f = useFormat()
  return (
    <div>
      <Heading as="h3">{windowSentence(forecast, t, f)}</Heading>
      <p>{t('detail.calendar')}</p>
      {forecast.usual.map(({ generation, name, months, bloom, region }) => (
        <p key={generation}>{t('detail.usual', { name, months: monthSpan(months, t, f), bloom, region })}</p>
      ))}
    </div>
  )
}

function MissingWeather({ forecast }: { forecast: WatchForecast }) {
  const t = useText()
  const f = useFormat()
  const { missing } = forecast.heat
  return (
    <div>
      <Heading as="h3">{windowSentence(forecast, t, f)}</Heading>
      {missing.length > 0 ? (
        <p>
          {t('detail.missing', {
            days: missing
              .slice(0, 4)
              .map(({ from, to }) => (from === to ? f.date(from) : `${f.date(from)} – ${f.date(to)}`))
              .join(', '),
            more: Math.max(0, missing.length - 4),
          })}
        </p>
      ) : null}
    </div>
  )
}

function StagesNow({ forecast }: { forecast: WatchForecast }) {
  const t = useText()
  const f = useFormat()
  const { todayIndex } = forecast.heat
  const shares = useMemo(() => stageBoundsOn(forecast, Math.max(0, todayIndex - 1)), [forecast, todayIndex])
  return (
    <Stages>
      <caption style={{ textAlign: 'left' }}>
        <b>{t('detail.stages', { heat: f.heat(forecast.heat.now) })}</b>
      </caption>
      <tbody>
        {forecast.stages.map((stage) => {
          const share = shares.find((s) => s.stage === stage.id)?.share ?? { p10: 0, p50: 0, p90: 0 }
          return (
            <tr key={stage.id}>
              <td style={{ width: 40 }}>
                <svg width="32" height="22" viewBox="-16 -11 32 22" aria-hidden>
                  <rect x="-16" y="-11" width="32" height="22" rx="3" fill={stageFill(stage.silhouette)} />
                  <StageShape shape={stage.silhouette} fill={onStageFill(stage.silhouette)} />
                </svg>
              </td>
              <th scope="row">
                {stage.name} <span className="where">{stage.where}</span>
              </th>
              <td>
                <Figure>{f.percent(share.p50)}</Figure>{' '}
                {share.p90 - share.p10 >= 0.015 ? (
                  <span className="where">{t('detail.range', { low: f.number(100 * share.p10), high: f.number(100 * share.p90) })}</span>
                ) : null}
              </td>
            </tr>
          )
        })}
      </tbody>
    </Stages>
  )
}

function RemoveWatch({ forecast }: { forecast: WatchForecast }) {
  const t = useText()
  const site = useSite()
  const { watch } = forecast
  return (
    <RemoveButton
      remove={endpoints.watches.remove}
      restore={endpoints.watches.restore}
      params={{ siteId: site.id, watchId: watch.id }}
      rowVersion={watch.rowVersion}
      words={t('watch.remove')}
      said={t('watch.removed', { name: forecast.organismName })}
    />
  )
}
