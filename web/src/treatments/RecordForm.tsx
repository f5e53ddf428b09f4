import { endpoints, type Block, type Product, type Treatment } from '@bocado/contract'
import { DateTime } from 'luxon'
import { useEffect, useState } from 'react'
import { useRead } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { NumberField } from '../design/NumberField.js'
import { DraftNote, FormError } from '../design/FormError.js'
import { momentOf } from '../design/moments.js'
import { Line, Sheet, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { ProductCautions } from '../windows/PlanPanel.js'

/** A treatment as it was done: what is known is filled in, the rest is typed. */
export function RecordForm({
  treatment,
  product,
  block,
  onDone,
}: {
  treatment: Treatment
  product: Product
  block: Block
  onDone: () => void
}) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { done } = treatment
  const begun = done ? DateTime.fromISO(done.startedAt, { zone: site.timeZone }) : null
  const entry = useEntry(
    endpoints.treatments.record,
    {
      day: (begun?.toISODate() ?? (treatment.plannedOn <= site.today ? treatment.plannedOn : site.today)) as string | null,
      time: begun?.toFormat('HH:mm') ?? '',
      rate: (done?.rate ?? product.labelRate) as number | null,
      areaHa: done?.areaHa ?? block.areaHa,
      tempC: done?.weather.tempC ?? null,
      humidityPct: done?.weather.humidityPct ?? null,
      windMs: done?.weather.windMs ?? null,
      note: treatment.note,
    },
    treatment,
    treatment.id,
  )
  const { values, set, errors } = entry
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
    if (then && !touched && draftSince === null) fill(then)
  }, [then, touched, draftSince, fill])

  const save = async (): Promise<void> => {
    const saved = await entry.submit({ siteId: site.id, treatmentId: treatment.id }, (v, rowVersion) => ({
      startedAt: startedAt ?? undefined,
      rate: v.rate ?? undefined,
      areaHa: v.areaHa ?? undefined,
      weather: { tempC: v.tempC, humidityPct: v.humidityPct, windMs: v.windMs },
      note: v.note,
      rowVersion,
    }))
    if (saved) onDone()
  }
  const weather = (changes: Partial<typeof values>): void => {
    setTouched(true)
    set(changes)
  }
  const { temperature, wind, area } = f.measures
  const inAll =
    values.rate !== null && values.areaHa !== null
      ? `${f.number(values.rate * values.areaHa, 3)} ${product.rateUnit.split('/')[0] ?? ''}`
      : ''
  return (
    <Sheet>
      <Stack>
        <Line>
          <DateField label={t('record.day')} value={values.day} onChange={(day) => set({ day })} error={errors['startedAt']} />
          <TextField
            label={t('record.time')}
            width="12ch"
            value={values.time}
            onChange={(time) => set({ time })}
            hint={t('record.timeHint')}
            error={values.time !== '' && startedAt === null ? t('record.timeWrong') : undefined}
          />
          <NumberField
            label={t('record.rate')}
            width="18ch"
            digits={4}
            unit={product.rateUnit}
            value={values.rate}
            onChange={(rate) => set({ rate })}
            error={errors['rate']}
            hint={t('record.rateHint', { rate: f.number(product.labelRate, 3) })}
          />
          <NumberField
            label={t('record.area')}
            width="18ch"
            unit={area.unit}
            value={values.areaHa === null ? null : area.shown(values.areaHa)}
            onChange={(shown) => set({ areaHa: shown === null ? null : area.stored(shown) })}
            error={errors['areaHa']}
            hint={t('record.inAll', { amount: inAll })}
          />
        </Line>
        <Line>
          <NumberField
            label={t('record.temperature')}
            width="15ch"
            digits={1}
            unit={temperature.unit}
            value={values.tempC === null ? null : temperature.shown(values.tempC)}
            onChange={(shown) => weather({ tempC: shown === null ? null : temperature.stored(shown) })}
            error={errors['weather.tempC']}
          />
          <NumberField
            label={t('record.humidity')}
            width="15ch"
            digits={0}
            unit="%"
            value={values.humidityPct}
            onChange={(humidityPct) => weather({ humidityPct })}
            error={errors['weather.humidityPct']}
          />
          <NumberField
            label={t('record.wind')}
            width="15ch"
            digits={1}
            unit={wind.unit}
            value={values.windMs === null ? null : wind.shown(values.windMs)}
            onChange={(shown) => weather({ windMs: shown === null ? null : wind.stored(shown) })}
            error={errors['weather.windMs']}
          />
          <TextField label={t('note')} width="30ch" value={values.note} onChange={(note) => set({ note })} error={errors['note']} />
        </Line>
        <Small>
          {touched
            ? t('record.weatherTyped')
            : then && Object.values(then).some((v) => v !== null)
              ? t('record.weatherRead')
              : t('record.weatherMissing')}
        </Small>
        <ProductCautions product={product} />
        <DraftNote entry={entry} />
        <FormError text={entry.general} />
        <Line>
          <Button onPress={() => void save()} isDisabled={entry.isSaving}>
            {t('record.save')}
          </Button>
          <Button
            $plain
            onPress={() => {
              entry.discard()
              onDone()
            }}
          >
            {t('cancel')}
          </Button>
        </Line>
      </Stack>
    </Sheet>
  )
}
