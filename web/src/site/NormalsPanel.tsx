import { endpoints, type MonthlyNormals } from '@bocado/contract'
import { useState } from 'react'
import { useRead, useWrite } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { TextField } from '../design/controls.js'
import { FormError } from '../design/FormError.js'
import { Caution, Heading, Line, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { useUndo } from '../shell/Undo.js'

type Month = MonthlyNormals['months'][number]

/** The first day of each month of a year, to name it. */
const monthDay = (month: number): string => `2026-${String(month + 1).padStart(2, '0')}-01`

/** Monthly normals of the site: what a season is made from where no station tells. */
export function NormalsPanel() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const undo = useUndo()
  const { data } = useRead(endpoints.sites.normals, { params: { siteId: site.id }, input: {} })
  const remove = useWrite(endpoints.sites.removeNormals)
  const restore = useWrite(endpoints.sites.typeNormals)
  const [editing, setEditing] = useState(false)
  if (!data) return null
  const { typed, own } = data
  const params = { siteId: site.id }
  return (
    <Stack>
      <Heading>{t('normals.title')}</Heading>
      {editing ? (
        <NormalsForm typed={typed} own={own} onDone={() => setEditing(false)} />
      ) : (
        <>
          <p>
            {typed
              ? t('normals.typed', {
                  july: f.month(monthDay(6)),
                  min: f.temperature(typed.months[6]?.min ?? 0),
                  max: f.temperature(typed.months[6]?.max ?? 0),
                  source: typed.source === '' ? typed.by : typed.source,
                })
              : t('normals.none')}
          </p>
          <Line $gap={16}>
            <TextButton onPress={() => setEditing(true)}>{t(typed ? 'normals.change' : 'normals.enter')}</TextButton>
            {typed ? (
              <TextButton
                isDisabled={remove.isBarred}
                onPress={() =>
                  void remove
                    .save({ params, input: { rowVersion: typed.rowVersion } })
                    .then(() =>
                      undo.offer(t('normals.removed'), () =>
                        restore.save({ params, input: { months: typed.months, source: typed.source, rowVersion: null } }),
                      ),
                    )
                }
              >
                {t('normals.remove')}
              </TextButton>
            ) : null}
          </Line>
        </>
      )}
    </Stack>
  )
}

interface FormProps {
  typed: MonthlyNormals | null
  own: { stationName: string; months: ({ min: number; max: number; rain: number | null } | null)[] } | null
  onDone: () => void
}

/** Twelve lines of text: minimum, maximum and rain of a month each. */
function NormalsForm({ typed, own, onDone }: FormProps) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { temperature, rain } = f.measures
  const asText = (months: readonly (Month | null)[]): string =>
    months
      .map((m) =>
        m ? `${f.number(temperature.shown(m.min), 1)} ${f.number(temperature.shown(m.max), 1)} ${f.number(rain.shown(m.rain), 2)}` : '',
      )
      .join('\n')
  const entry = useEntry(endpoints.sites.typeNormals, { text: typed ? asText(typed.months) : '', source: typed?.source ?? '' }, typed)
  const lines = entry.values.text.split('\n').map((line) =>
    line
      .trim()
      .split(/[\s;]+/)
      .map(Number),
  )
  const filled = lines.filter((numbers) => numbers.length >= 2 && numbers.every((n) => Number.isFinite(n)))
  const wrong = lines.findIndex(
    (numbers, i) => (entry.values.text.split('\n')[i] ?? '').trim() !== '' && !(numbers.length === 3 && numbers.every(Number.isFinite)),
  )
  const months = filled.map(([min, max, mm]) => ({
    min: temperature.stored(min ?? NaN),
    max: temperature.stored(max ?? NaN),
    rain: rain.stored(mm ?? 0),
  }))
  const refused = Object.entries(entry.errors)
    .filter(([path]) => path.startsWith('months.'))
    .map(([path, message]) => t('normals.wrongMonth', { month: f.month(monthDay(Number(path.split('.')[1]))), problem: message }))
  const save = (): void =>
    void entry.submit({ siteId: site.id }, (v, rowVersion) => ({ months, source: v.source, rowVersion })).then((saved) => saved && onDone())
  const complete = own?.months.every((m) => m !== null && m.rain !== null) ?? false
  return (
    <Stack>
      <TextField
        label={t('normals.label')}
        rows={12}
        value={entry.values.text}
        onChange={(text) => entry.set({ text, months: undefined } as never)}
        hint={t('normals.hint', { temperature: temperature.unit, rain: rain.unit })}
      />
      {own && complete ? (
        <TextButton
          onPress={() =>
            entry.set({
              text: asText(own.months.map((m) => m && { ...m, rain: m.rain ?? 0 })),
              source: t('normals.fromStation', { station: own.stationName }),
            })
          }
        >
          {t('normals.take', { station: own.stationName })}
        </TextButton>
      ) : null}
      {wrong >= 0 ? <Caution role="alert">{t('normals.wrongLine', { number: wrong + 1 })}</Caution> : null}
      {refused.map((words) => (
        <Caution role="alert" key={words}>
          {words}
        </Caution>
      ))}
      {months[0] && wrong < 0 ? (
        <Small>
          {t('normals.understood', {
            count: months.length,
            first: f.month(monthDay(0)),
            min: f.temperature(months[0].min),
            max: f.temperature(months[0].max),
            rain: f.rain(months[0].rain),
          })}
        </Small>
      ) : null}
      <TextField
        label={t('normals.source')}
        value={entry.values.source}
        onChange={(source) => entry.set({ source })}
        error={entry.errors['source']}
        hint={t('optional')}
      />
      <FormError text={entry.general ?? entry.errors['months'] ?? null} />
      <Line>
        <Button isDisabled={entry.isBarred || wrong >= 0 || months.length !== 12} onPress={save}>
          {t('save')}
        </Button>
        <Button $plain onPress={onDone}>
          {t('cancel')}
        </Button>
      </Line>
    </Stack>
  )
}
