import { endpoints, may, type Label, type Taken } from '@bocado/contract'
import { useEffect, useState } from 'react'
import type { Bindings, Bound } from '../api/bindings.js'
import { useRead } from '../api/hooks.js'
import { useSite, useWorkplace } from '../api/workplace.js'
import { AreaField } from '../design/AreaField.js'
import { Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { momentOf } from '../design/moments.js'
import { TakenFields } from '../design/TakenFields.js'
import { NumberField } from '../design/NumberField.js'
import { Fields, Small } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { ClearOf } from './ClearOf.js'
import { amountOn } from './rates.js'

/** What is typed of a treatment that was done. */
export type DoneValues = {
  day: string | null
  time: string
  rate: number | null
  areaHa: number | null
  /** m kept clear of what lies near. */
  keptClearM: number | null
  minutes: number | null
  /** Who did it; null: whoever records it. */
  doneById: string | null
  /** What was picked, pulled or caught, where it is done by hand. */
  taken: number | null
  takenUnit: string
  weather: { tempC: number | null; humidityPct: number | null; windMs: number | null }
  note: string
}

/** What was taken, as the form holds it. */
export const takenOf = (taken: { amount: number; unit: string } | null): Pick<DoneValues, 'taken' | 'takenUnit'> => ({
  taken: taken?.amount ?? null,
  takenUnit: taken?.unit ?? 'pieces',
})

export const NO_WEATHER: DoneValues['weather'] = { tempC: null, humidityPct: null, windMs: null }

/** What was typed, as the endpoint takes it. */
export function doneInput(
  { day, time, rate, areaHa, keptClearM, minutes, doneById, taken, takenUnit, weather, note }: DoneValues,
  zone: string,
) {
  return {
    startedAt: momentOf(day, time, zone) ?? undefined,
    rate,
    areaHa,
    keptClearM,
    minutes,
    doneById,
    taken: taken === null ? null : { amount: taken, unit: takenUnit as Taken['unit'] },
    weather,
    note,
  }
}

/** Who did it, where several could have. */
function DoneBy({ bind }: { bind: Bindings<DoneValues> }) {
  const t = useText()
  const { people } = useSite()
  const { personId } = useWorkplace()
  const bound = bind.choice('doneById')
  const could = people.filter(({ id, role }) => may(role, 'treat') || id === bound.value)
  if (could.length < 2 && (bound.value === null || bound.value === personId)) return null
  return (
    <Select
      label={t('record.doneBy')}
      placeholder={t('choose')}
      width="20ch"
      options={could.map(({ id, name }) => ({ id, label: name }))}
      {...bound}
      value={bound.value ?? personId}
    />
  )
}

/** The fields of what was done: when, how much of what on how much ground, and the weather of that hour as the station read it. */
export function DoneFields(p: {
  values: DoneValues
  bind: Bindings<DoneValues>
  errors: Readonly<Record<string, string>>
  /** Puts in what is known without anybody typing it. */
  fill: (changes: { weather: DoneValues['weather'] }) => void
  set: (changes: { areaHa: number }) => void
  /** Where it is done, and how large that is, where anybody has said. */
  place: { id: string; areaHa: number | null }
  /** Null where it is done by hand. */
  label: Label | null
  /** Highest rate of the label here. */
  most: number | null
  watchId: string
  /** The weather was typed or recorded before: it is not put over. */
  weatherStands: boolean
}) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { values, bind, errors, label, weatherStands, fill } = p
  const [typed, setTyped] = useState(false)
  const stands = typed || weatherStands
  const startedAt = momentOf(values.day, values.time, site.timeZone)
  const { data: then } = useRead(
    endpoints.treatments.weatherAt,
    { params: { siteId: site.id, watchId: p.watchId }, input: { at: startedAt ?? '' } },
    startedAt !== null && !stands,
  )
  useEffect(() => {
    if (then && !stands) fill({ weather: then })
  }, [then, stands, fill])
  const inAll =
    label && Number.isFinite(values.rate ?? NaN) && Number.isFinite(values.areaHa ?? NaN)
      ? amountOn(values.rate ?? 0, label.rateUnit, values.areaHa ?? 0)
      : null
  return (
    <>
      <Fields>
        <DateField label={t('record.day')} {...bind.day('day')} error={errors['startedAt']} />
        <TextField
          label={t('record.time')}
          width="12ch"
          hint={t('record.timeHint')}
          {...bind.text('time')}
          error={values.time !== '' && startedAt === null ? t('record.timeWrong') : undefined}
        />
        {label ? (
          <NumberField
            label={t('record.rate')}
            width="16ch"
            digits={4}
            unit={label.rateUnit}
            hint={t('record.rateHint', { rate: f.number(p.most ?? label.labelRate, 3) })}
            {...bind.number('rate')}
          />
        ) : (
          <TakenFields amount={{ ...bind.number('taken'), error: errors['taken.amount'] }} unit={bind.choice('takenUnit')} />
        )}
        <AreaField
          label={t('record.area')}
          hint={label ? t('record.inAll', { amount: inAll ? `${f.number(inAll.amount, 3)} ${inAll.unit}` : '' }) : t('optional')}
          {...bind.number('areaHa')}
        />
        <NumberField label={t('record.minutes')} width="13ch" digits={0} unit="min" hint={t('optional')} {...bind.number('minutes')} />
        <DoneBy bind={bind} />
      </Fields>
      {label ? (
        <ClearOf
          key={p.place.id}
          placeId={p.place.id}
          placeHa={p.place.areaHa}
          metres={values.keptClearM}
          field={bind.number('keptClearM', f.measures.height)}
          onLeft={p.set}
          label={label}
          day={values.day ?? site.today}
        />
      ) : null}
      {label ? (
        <>
          <WeatherThen bind={bind} onTyped={() => setTyped(true)} />
          <Small>
            {stands
              ? t('record.weatherTyped')
              : then && Object.values(then).some((v) => v !== null)
                ? t('record.weatherRead')
                : t('record.weatherMissing')}
          </Small>
        </>
      ) : (
        <TextField label={t('note')} width="40ch" {...bind.text('note')} />
      )}
    </>
  )
}

/** The weather in which it was done; what is typed stands over what the station read. */
function WeatherThen({ bind, onTyped }: { bind: Bindings<DoneValues>; onTyped: () => void }) {
  const t = useText()
  const { temperature, wind } = useFormat().measures
  const typed = (field: Bound<number | null>): Bound<number | null> => ({
    ...field,
    onChange: (value) => {
      onTyped()
      field.onChange(value)
    },
  })
  return (
    <Fields>
      <NumberField
        label={t('record.temperature')}
        width="15ch"
        digits={1}
        unit={temperature.unit}
        {...typed(bind.number('weather.tempC', temperature))}
      />
      <NumberField label={t('record.humidity')} width="15ch" digits={0} unit="%" {...typed(bind.number('weather.humidityPct'))} />
      <NumberField label={t('record.wind')} width="15ch" digits={1} unit={wind.unit} {...typed(bind.number('weather.windMs', wind))} />
      <TextField label={t('note')} width="30ch" {...bind.text('note')} />
    </Fields>
  )
}
