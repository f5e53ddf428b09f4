import { checkedVariables, endpoints, type HourWeather, type ResponseOf } from '@bocado/contract'
import { useState } from 'react'
import { useEntry } from '../api/useEntry.js'
import { useWrite } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { NumberField } from '../design/NumberField.js'
import { Fields, Line, Quiet, Rows, Sheet, Stack } from '../design/text.js'
import { measureOf } from '../design/units.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { useUndo } from '../shell/Undo.js'

type DayHours = ResponseOf<typeof endpoints.weather.hours>
type Variable = (typeof checkedVariables)[number]

/** Units in which hourly values are stored. */
export const SI_UNITS: Readonly<Record<Variable, string>> = {
  temperature: '°C',
  humidity: '%',
  rain: 'mm',
  wind: 'm/s',
  direction: '°',
  wetness: '',
  soil: '°C',
}

/** What somebody typed of a day, with the way back to what was read. */
export function TypedDay({ typed, day, stationId }: { typed: NonNullable<DayHours['typed']>; day: string; stationId: string }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const undo = useUndo()
  const { save, isBarred } = useWrite(endpoints.weather.untypeDays)
  const retype = useWrite(endpoints.weather.typeDays)
  const params = { siteId: site.id, stationId }
  const { min, max, rain, by } = typed
  const takeOff = async (): Promise<void> => {
    await save({ params, input: { days: [day] } })
    undo.offer(t('hours.typedGone', { date: f.date(day) }), () => retype.save({ params, input: { days: [{ day, min, max, rain }] } }))
  }
  return (
    <p>
      {t('hours.typedBy', {
        person: by,
        min: f.temperature(min),
        max: f.temperature(max),
        rain: rain === null ? t('typed.noRain') : f.rain(rain),
      })}{' '}
      <TextButton isDisabled={isBarred} onPress={() => void takeOff()}>
        {t('hours.typedOff')}
      </TextButton>
    </p>
  )
}

/** Single hours of a day that were put right by hand, and the form for another one. */
export function PutRight(p: {
  byHand: DayHours['byHand']
  hours: readonly HourWeather[]
  day: string
  nameOf: (hour: number) => string
  stationId: string
}) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [adding, setAdding] = useState(false)
  const figure = (variable: Variable, value: number): string => f.figure(value, SI_UNITS[variable])
  return (
    <Stack>
      {p.byHand.length > 0 ? (
        <Rows>
          {p.byHand.map(({ id, rowVersion, hour, variable, value, read, note, by }) => (
            <li key={id}>
              <Line style={{ justifyContent: 'space-between', alignItems: 'baseline' }}>
                <span>
                  {t('hours.byHand', {
                    hour: p.nameOf(hour),
                    variable: t(`variable.${variable}`),
                    value: figure(variable, value),
                    read: read === null ? 'none' : figure(variable, read),
                    note,
                  })}{' '}
                  <Quiet>{by}</Quiet>
                </span>
                <RemoveButton
                  remove={endpoints.weather.removeCorrection}
                  restore={endpoints.weather.restoreCorrection}
                  params={{ siteId: site.id, correctionId: id }}
                  rowVersion={rowVersion}
                  words={t('correction.takeOff')}
                  said={t('correction.removed')}
                />
              </Line>
            </li>
          ))}
        </Rows>
      ) : null}
      {adding ? (
        <HourForm key={p.day} {...p} onDone={() => setAdding(false)} />
      ) : (
        <Line>
          <TextButton onPress={() => setAdding(true)}>{t('hours.putRight')}</TextButton>
        </Line>
      )}
    </Stack>
  )
}

/** The hour of a day that asks for it: the first that is doubted, otherwise midday, or the last before it. */
function likelyHour(past: readonly HourWeather[]): { hour: number; variable: Variable } {
  const doubted = past.find(({ doubts }) => doubts.length > 0)
  const last = past.at(-1)?.hour ?? 0
  return { hour: doubted?.hour ?? Math.min(12, last), variable: doubted?.doubts[0]?.variable ?? 'temperature' }
}

function HourForm({
  hours,
  day,
  nameOf,
  stationId,
  onDone,
}: {
  hours: readonly HourWeather[]
  day: string
  nameOf: (hour: number) => string
  stationId: string
  onDone: () => void
}) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  // Hours of the forecast, which have a range, have not come yet.
  const past = hours.filter(({ low }) => low === null)
  const entry = useEntry(
    endpoints.weather.correct,
    { ...likelyHour(past), value: null as number | null, note: '' },
    null,
    `${stationId} ${day}`,
  )
  const { values, set, errors } = entry
  const measure = measureOf(SI_UNITS[values.variable], f.measures)
  const save = async (): Promise<void> => {
    const made = await entry.submit({ siteId: site.id, stationId }, ({ hour, variable, value, note }) => ({
      kind: 'value' as const,
      ...{ from: day, to: day, hour, variable, note },
      value: value === null ? null : measure.stored(value),
    }))
    if (made) onDone()
  }
  return (
    <Sheet>
      <Stack>
        <Fields>
          <Select
            label={t('hours.hour')}
            placeholder={t('choose')}
            width="12ch"
            options={past.map(({ hour }) => ({ id: String(hour), label: nameOf(hour) }))}
            value={String(values.hour)}
            onChange={(hour) => set({ hour: Number(hour) })}
            error={errors['hour']}
          />
          <Select
            label={t('correction.variable')}
            placeholder={t('choose')}
            width="18ch"
            options={checkedVariables.map((id) => ({ id, label: t(`variable.${id}`) }))}
            value={values.variable}
            onChange={(id) => set({ variable: id as Variable })}
            error={errors['variable']}
          />
          <NumberField
            label={t('hours.was')}
            width="14ch"
            unit={measure.unit}
            digits={measure.digits}
            value={values.value}
            onChange={(value) => set({ value })}
            error={errors['value']}
          />
          <TextField label={t('hours.why')} width="32ch" value={values.note} onChange={(note) => set({ note })} error={errors['note']} />
        </Fields>
        <EntryEnd entry={entry} onSave={save} onCancel={onDone} words={t('hours.putIn')} />
      </Stack>
    </Sheet>
  )
}
