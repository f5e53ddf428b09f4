import { endpoints, type WatchForecast } from '@bocado/contract'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { DraftNote, FormError } from '../design/FormError.js'
import { FormLine } from '../design/FormLine.js'
import { NumberField } from '../design/NumberField.js'
import { Line, Stack } from '../design/text.js'
import { useText } from '../messages/useText.js'
import { SourceKnown } from './SourceKnown.js'
import '../messages/en/field.js'
import '../messages/en/plan.js'
import '../messages/en/windows.js'

export function EditWatch({ forecast, items, onDone }: { forecast: WatchForecast; items: string; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const { watch } = forecast
  const entry = useEntry(
    endpoints.watches.update,
    {
      biofix: watch.biofix,
      biofixNote: watch.biofixNote,
      sourceKnown: watch.sourceKnown,
      per100: watch.threshold?.per100 ?? (null as number | null),
      reason: watch.threshold?.reason ?? '',
    },
    watch,
    watch.id,
  )
  const { values, set, errors } = entry
  // Stages of the crop and what it was reckoned from are changed where one counts.
  const { scale = 'classes', steps = [], economics = null } = watch.threshold ?? {}
  const kept = { scale, steps, economics }
  const save = async (): Promise<void> => {
    const saved = await entry.submit({ siteId: site.id, watchId: watch.id }, (v, rowVersion) => ({
      biofix: v.biofix,
      biofixNote: v.biofixNote,
      sourceKnown: v.sourceKnown,
      threshold: v.per100 === null ? null : { ...kept, per100: v.per100, reason: v.reason },
      rowVersion,
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
      {forecast.infection ? <SourceKnown value={values.sourceKnown} onChange={(sourceKnown) => set({ sourceKnown })} /> : null}
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
      <DraftNote entry={entry} />
      <FormError text={entry.general} />
      <FormLine onSave={save} onLeave={onDone} isBarred={entry.isBarred}>
        <Button onPress={() => void save()} isDisabled={entry.isBarred}>
          {t('save')}
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
      </FormLine>
    </Stack>
  )
}
