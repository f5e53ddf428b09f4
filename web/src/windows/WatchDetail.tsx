import { endpoints, type Organism, type WatchForecast } from '@bocado/contract'
import { useState } from 'react'
import styled from 'styled-components'
import { useWrite } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { stageSharesAt } from '../band/streams.js'
import { STAGE_FILL } from '../band/SeasonBand.js'
import { heatSentence, monthSpan, originSentence, windowSentence } from '../band/words.js'
import { Button, DateField, NumberField, TextButton, TextField } from '../design/controls.js'
import { FormError } from '../design/FormError.js'
import { StageShape } from '../design/StageShape.js'
import { Caution, Figure, Heading, Line, Small, Stack } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { useUndo } from '../shell/Undo.js'

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

/** What the band says about one watch, in words: windows, heat, stages now, threshold, and where the numbers come from. */
export function WatchDetail({ forecast, organism }: { forecast: WatchForecast; organism: Organism | undefined }) {
  const t = useText()
  const f = useFormat()
  const [editing, setEditing] = useState(false)
  const last = forecast.rounds.findLast(({ checkAreaId }) => checkAreaId === null)
  const threshold = forecast.watch.threshold?.per100 ?? organism?.sampling.threshold.value
  return (
    <Stack>
      {forecast.grade === 'calendar' ? (
        <Calendar forecast={forecast} />
      ) : forecast.windows.length > 0 && forecast.grade !== 'none' ? (
        forecast.windows.map((window) => (
          <div key={window.generation}>
            <Heading as="h2">{t('detail.generation', { name: window.generationName })}</Heading>
            <p>
              <b>{windowSentence(forecast, t, f, window)}</b>
            </p>
            <Small>{forecast.grade === 'dates' ? heatSentence(forecast, t, f, window) : t('detail.placeholder')}</Small>
          </div>
        ))
      ) : (
        <MissingWeather forecast={forecast} />
      )}
      {forecast.grade === 'none' || forecast.grade === 'calendar' ? null : <StagesNow forecast={forecast} />}
      {organism && threshold !== undefined ? (
        <p>
          {last
            ? t(last.per100 >= threshold ? 'detail.crossed' : 'detail.below', {
                count: f.number(last.per100, 1),
                items: organism.sampling.items,
                date: f.date(last.countedOn),
                threshold: f.number(threshold, 1),
              })
            : t('detail.noCount', { items: organism.sampling.items, threshold: f.number(threshold, 1) })}{' '}
          {forecast.watch.threshold
            ? t('detail.ownThreshold', { reason: forecast.watch.threshold.reason })
            : t('detail.libraryThreshold', { region: organism.sampling.threshold.region })}
        </p>
      ) : null}
      <Caution>{t('caution.look')}</Caution>
      {forecast.basis === 'normals' ? <Caution>{t('caution.normals')}</Caution> : null}
      {forecast.heat.filledShare > 0.05 ? <Caution>{t('caution.filled', { share: f.percent(forecast.heat.filledShare) })}</Caution> : null}
      {organism?.hazards.map(({ group, text }) => (
        <Caution key={group}>{t('hazard', { group: t(`hazard.${group}` as Parameters<typeof t>[0]), text })}</Caution>
      ))}
      {forecast.grade === 'calendar' ? null : <Small>{originSentence(forecast, t, f)}</Small>}
      {editing ? (
        <EditWatch forecast={forecast} items={organism?.sampling.items ?? ''} onDone={() => setEditing(false)} />
      ) : (
        <Line>
          <TextButton onPress={() => setEditing(true)}>{t('detail.edit')}</TextButton>
          <RemoveWatch forecast={forecast} />
        </Line>
      )}
    </Stack>
  )
}

/** What months and blooms say where there is no weather. */
function Calendar({ forecast }: { forecast: WatchForecast }) {
  const t = useText()
  const f = useFormat()
  return (
    <div>
      <Heading as="h2">{windowSentence(forecast, t, f)}</Heading>
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
      <Heading as="h2">{windowSentence(forecast, t, f)}</Heading>
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
  const shares = stageSharesAt(forecast, forecast.heat.now)
  return (
    <Stages>
      <caption style={{ textAlign: 'left' }}>
        <b>{t('detail.stages', { heat: f.heat(forecast.heat.now) })}</b>
      </caption>
      <tbody>
        {forecast.stages.map((stage) => (
          <tr key={stage.id}>
            <td style={{ width: 40 }}>
              <svg width="32" height="22" viewBox="-16 -11 32 22" aria-hidden>
                <rect x="-16" y="-11" width="32" height="22" rx="3" fill={STAGE_FILL[stage.silhouette]} />
                <StageShape shape={stage.silhouette} fill={['adult', 'pupa', 'larva'].includes(stage.silhouette) ? '#fff' : '#0b4e56'} />
              </svg>
            </td>
            <th scope="row">
              {stage.name} <span className="where">{stage.where}</span>
            </th>
            <td>
              <Figure>{f.percent(shares.find((s) => s.stage === stage.id)?.share ?? 0)}</Figure>
            </td>
          </tr>
        ))}
      </tbody>
    </Stages>
  )
}

function EditWatch({ forecast, items, onDone }: { forecast: WatchForecast; items: string; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const { watch } = forecast
  const entry = useEntry(endpoints.watches.update, {
    biofix: watch.biofix as string | null,
    biofixNote: watch.biofixNote,
    per100: watch.threshold?.per100 ?? (null as number | null),
    reason: watch.threshold?.reason ?? '',
  })
  const { values, set, errors } = entry
  const save = async (): Promise<void> => {
    const saved = await entry.submit({ siteId: site.id, watchId: watch.id }, (v) => ({
      biofix: v.biofix ?? undefined,
      biofixNote: v.biofixNote,
      threshold: v.per100 === null ? null : { per100: v.per100, reason: v.reason },
      rowVersion: watch.rowVersion,
    }))
    if (saved) onDone()
  }
  return (
    <Stack>
      <Line>
        <DateField label={t('watch.biofix')} value={values.biofix} onChange={(biofix) => set({ biofix })} error={errors['biofix']} />
        <TextField
          label={t('watch.biofixNote')}
          width="34ch"
          value={values.biofixNote}
          onChange={(biofixNote) => set({ biofixNote })}
          error={errors['biofixNote']}
        />
      </Line>
      <Line>
        <NumberField
          label={t('watch.threshold')}
          unit={t('watch.per100', { items })}
          width="20ch"
          value={values.per100}
          onChange={(per100) => set({ per100 })}
          error={errors['threshold.per100']}
        />
        <TextField
          label={t('watch.thresholdReason')}
          width="34ch"
          value={values.reason}
          onChange={(reason) => set({ reason })}
          error={errors['threshold.reason']}
        />
      </Line>
      <FormError text={entry.general} />
      <Line>
        <Button onPress={() => void save()} isDisabled={entry.isSaving}>
          {t('save')}
        </Button>
        <Button $plain onPress={onDone}>
          {t('cancel')}
        </Button>
      </Line>
    </Stack>
  )
}

function RemoveWatch({ forecast }: { forecast: WatchForecast }) {
  const t = useText()
  const site = useSite()
  const { watch } = forecast
  const { save } = useWrite(endpoints.watches.remove)
  const undo = useUndo()
  const restore = useWrite(endpoints.watches.restore)
  return (
    <TextButton
      onPress={() =>
        void save({ params: { siteId: site.id, watchId: watch.id }, input: { rowVersion: watch.rowVersion } }).then(({ rowVersion }) =>
          undo.offer(t('watch.removed', { name: forecast.organismName }), () =>
            restore.save({ params: { siteId: site.id, watchId: watch.id }, input: { rowVersion } }),
          ),
        )
      }
    >
      {t('watch.remove')}
    </TextButton>
  )
}
