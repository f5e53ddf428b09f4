import { endpoints, type Label, type Treatment } from '@bocado/contract'
import { useEffect, useState } from 'react'
import { useRead } from '../api/hooks.js'
import type { Bindings, Bound } from '../api/bindings.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { NumberField } from '../design/NumberField.js'
import { momentOf, wallClockOf } from '../design/moments.js'
import { Fields, Sheet, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { ProductCautions } from '../windows/PlanPanel.js'

/** A treatment as it was done: what is known is filled in, the rest is typed. */
export function RecordForm({
  treatment,
  product,
  areaHa,
  onDone,
}: {
  treatment: Treatment
  product: Label
  /** Of the place where it is done, where that is known. */
  areaHa: number | null
  onDone: () => void
}) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { done } = treatment
  const begun = done ? wallClockOf(done.startedAt, site.timeZone) : null
  const entry = useEntry(
    endpoints.treatments.record,
    {
      day: (begun?.day ?? (treatment.plannedOn <= site.today ? treatment.plannedOn : site.today)) as string | null,
      time: begun?.time ?? '',
      rate: (done?.rate ?? product.labelRate) as number | null,
      areaHa: done?.areaHa ?? areaHa,
      minutes: done?.minutes ?? (null as number | null),
      weather: done?.weather ?? { tempC: null as number | null, humidityPct: null as number | null, windMs: null as number | null },
      note: treatment.note,
    },
    treatment,
    treatment.id,
  )
  const { values, bind, errors } = entry
  const [touched, setTouched] = useState(done !== null)
  const startedAt = momentOf(values.day, values.time, site.timeZone)
  const { data: then } = useRead(
    endpoints.treatments.weatherAt,
    { params: { siteId: site.id, watchId: treatment.watchId }, input: { at: startedAt ?? '' } },
    startedAt !== null && !touched,
  )
  const { fill, draftSince } = entry
  useEffect(() => {
    // What was typed before the page was closed is not put over.
    if (then && !touched && draftSince === null) fill({ weather: then })
  }, [then, touched, draftSince, fill])

  const save = async (): Promise<void> => {
    const saved = await entry.submit({ siteId: site.id, treatmentId: treatment.id }, ({ day: _, time: __, ...typed }, rowVersion) => ({
      ...typed,
      startedAt: startedAt ?? undefined,
      rate: typed.rate ?? undefined,
      areaHa: typed.areaHa ?? undefined,
      rowVersion,
    }))
    if (saved) onDone()
  }
  const { area } = f.measures
  const inAll =
    values.rate !== null && values.areaHa !== null
      ? `${f.number(values.rate * values.areaHa, 3)} ${product.rateUnit.split('/')[0] ?? ''}`
      : ''
  return (
    <Sheet>
      <Stack>
        <Fields>
          <DateField label={t('record.day')} {...bind.day('day')} error={errors['startedAt']} />
          <TextField
            label={t('record.time')}
            width="12ch"
            hint={t('record.timeHint')}
            {...bind.text('time')}
            error={values.time !== '' && startedAt === null ? t('record.timeWrong') : undefined}
          />
          <NumberField
            label={t('record.rate')}
            width="16ch"
            digits={4}
            unit={product.rateUnit}
            hint={t('record.rateHint', { rate: f.number(product.labelRate, 3) })}
            {...bind.number('rate')}
          />
          <NumberField
            label={t('record.area')}
            width="15ch"
            digits={4}
            unit={area.unit}
            hint={t('record.inAll', { amount: inAll })}
            {...bind.number('areaHa', area)}
          />
          <NumberField label={t('record.minutes')} width="13ch" digits={0} unit="min" hint={t('optional')} {...bind.number('minutes')} />
        </Fields>
        <WeatherThen bind={bind} onTyped={() => setTouched(true)} />
        <Small>
          {touched
            ? t('record.weatherTyped')
            : then && Object.values(then).some((v) => v !== null)
              ? t('record.weatherRead')
              : t('record.weatherMissing')}
        </Small>
        <ProductCautions product={product} />
        <EntryEnd entry={entry} onSave={save} onCancel={onDone} words={t('record.save')} />
      </Stack>
    </Sheet>
  )
}

/** What is typed of a treatment that was done. */
type RecordValues = {
  day: string | null
  time: string
  rate: number | null
  areaHa: number | null
  minutes: number | null
  weather: { tempC: number | null; humidityPct: number | null; windMs: number | null }
  note: string
}

/** The weather in which it was done; what is typed stands over what the station read. */
function WeatherThen({ bind, onTyped }: { bind: Bindings<RecordValues>; onTyped: () => void }) {
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
