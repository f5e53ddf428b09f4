import { endpoints, type ModelFigure, type WatchForecast } from '@bocado/contract'
import { useState } from 'react'
import { useRead, useWrite } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { Choice, TextField } from '../design/controls.js'
import { NumberField } from '../design/NumberField.js'
import { DraftNote, FormError } from '../design/FormError.js'
import { Caution, Figure, Heading, Line, Small, Stack } from '../design/text.js'
import { measureOf } from '../design/units.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { Waiting } from '../shell/Waiting.js'
import { FigureTable } from './FigureTable.js'
import '../messages/en/field.js'
import '../messages/en/figures.js'
import '../messages/en/records.js'
import '../messages/en/plan.js'
import '../messages/en/windows.js'

/** Every number that a watch's forecast rests on, with where it is from; each can be given a value of the site's own. */
export function ModelFigures({ forecast }: { forecast: WatchForecast }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [editing, setEditing] = useState<string | null>(null)
  const { watch, offer } = forecast
  const { data: figures } = useRead(endpoints.watches.figures, { params: { siteId: site.id, watchId: watch.id }, input: {} })
  const takeModel = useWrite(endpoints.watches.takeModel)
  if (!figures) return <Waiting />
  return (
    <Stack>
      <Heading>{t('figures.title', { model: watch.model })}</Heading>
      {offer ? (
        <Line>
          <p style={{ flex: '1 1 24ch' }}>{t('figures.offer', { model: offer.model, own: offer.ownFigures })}</p>
          <Button
            onPress={() => void takeModel.save({ params: { siteId: site.id, watchId: watch.id }, input: { rowVersion: watch.rowVersion } })}
            isDisabled={takeModel.isBarred}
          >
            {t('figures.take')}
          </Button>
        </Line>
      ) : null}
      <FigureTable data-testid="figures">
        <thead>
          <tr>
            <th scope="col">{t('figures.column.name')}</th>
            <th scope="col" className="right">
              {t('figures.column.value')}
            </th>
            <th scope="col">{t('figures.column.from')}</th>
            <th scope="col">{t('figures.column.own')}</th>
          </tr>
        </thead>
        <tbody>
          {figures.map((figure) => (
            <tr key={figure.path}>
              <th scope="row">{nameOf(figure, forecast, t)}</th>
              <td className="right">
                <Figure>{f.figure(figure.value, figure.unit)}</Figure>
              </td>
              <td className="soft">
                {figure.own
                  ? t('figures.ownReason', {
                      where: figure.own.fitted ? 'fitted' : figure.own.blockId ? 'block' : 'site',
                      reason: figure.own.reason,
                      library: f.figure(figure.own.libraryValue, figure.unit),
                    })
                  : t('figures.from', {
                      confidence: t(`confidence.${figure.confidence}`),
                      region: figure.region,
                      source: figure.source.kind === 'common-knowledge' ? 'common' : figure.source.kind,
                      authors: figure.source.kind === 'paper' ? figure.source.authors : '',
                      year: figure.source.kind === 'paper' ? String(figure.source.year) : '',
                    })}
              </td>
              <td>
                {editing === figure.path ? null : (
                  <TextButton
                    aria-label={t('figures.editOne', { name: nameOf(figure, forecast, t) })}
                    onPress={() => setEditing(figure.path)}
                  >
                    {t('figures.edit')}
                  </TextButton>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </FigureTable>
      {figures.map((figure) =>
        figure.path === editing ? (
          <EditFigure key={figure.path} figure={figure} forecast={forecast} onDone={() => setEditing(null)} />
        ) : null,
      )}
      <Small>{t('figures.how')}</Small>
    </Stack>
  )
}

type Say = ReturnType<typeof useText>

/** "Hatch begins, spread": an event or a part of the model by its name, its figure by what it is. */
function nameOf({ path }: ModelFigure, forecast: WatchForecast, t: Say): string {
  const parts = path.split('.')
  const first = parts[0] ?? ''
  const own = forecast.events.find(({ id }) => id === first)?.name ?? forecast.generations.find(({ id }) => id === first)?.name
  const within = parts.slice(1, -1).map((word) => t(`figures.within.${word}` as Parameters<Say>[0]))
  const subject = [own ?? t(`figures.within.${first}` as Parameters<Say>[0]), ...within].join(', ')
  return t('figures.name', { subject, part: t(`figures.part.${parts.at(-1)}` as Parameters<Say>[0]) })
}

function EditFigure({ figure, forecast, onDone }: { figure: ModelFigure; forecast: WatchForecast; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const { organismId, blockId } = forecast.watch
  const measure = measureOf(figure.unit, useFormat().measures)
  const entry = useEntry(
    endpoints.watches.ownFigure,
    {
      value: figure.value as number | null,
      reason: figure.own?.reason ?? '',
      scope: (figure.own?.blockId ? 'block' : 'site') as 'site' | 'block',
    },
    null,
    `${organismId} ${figure.path}`,
  )
  const drop = useWrite(endpoints.watches.dropOwnFigure)
  const { values, set, errors } = entry
  const save = async (): Promise<void> => {
    const saved = await entry.submit({ siteId: site.id, organismId }, (v) => ({
      path: figure.path,
      blockId: v.scope === 'block' ? blockId : null,
      value: v.value ?? undefined,
      reason: v.reason,
    }))
    if (saved) onDone()
  }
  return (
    <Stack>
      <Heading>{nameOf(figure, forecast, t)}</Heading>
      <Line>
        <NumberField
          label={t('figures.value')}
          unit={measure.unit}
          width="18ch"
          value={values.value === null ? null : measure.shown(values.value)}
          onChange={(shown) => set({ value: shown === null ? null : measure.stored(shown) })}
          error={errors['value']}
        />
        <TextField
          label={t('figures.reason')}
          width="36ch"
          value={values.reason}
          onChange={(reason) => set({ reason })}
          error={errors['reason']}
        />
      </Line>
      <Choice
        label={t('figures.scope')}
        options={(['site', 'block'] as const).map((id) => ({ id, label: t(`figures.scope.${id}`) }))}
        value={values.scope}
        onChange={(scope) => set({ scope })}
      />
      <Caution>{t('figures.caution')}</Caution>
      <DraftNote entry={entry} />
      <FormError text={entry.general} />
      <Line>
        <Button onPress={() => void save()} isDisabled={entry.isBarred}>
          {t('save')}
        </Button>
        {figure.own ? (
          <Button
            $plain
            isDisabled={drop.isBarred}
            onPress={() =>
              void drop
                .save({ params: { siteId: site.id, organismId }, input: { path: figure.path, blockId: figure.own?.blockId ?? null } })
                .then(onDone)
            }
          >
            {t('figures.drop')}
          </Button>
        ) : null}
        <Button $plain onPress={onDone}>
          {t('cancel')}
        </Button>
      </Line>
    </Stack>
  )
}
