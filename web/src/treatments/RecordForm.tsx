import { endpoints, type Label, type Treatment } from '@bocado/contract'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { FormError } from '../design/FormError.js'
import { wallClockOf } from '../design/moments.js'
import { useFormat } from '../design/useFormat.js'
import { Sheet, Small, Stack } from '../design/text.js'
import { useText } from '../messages/useText.js'
import { ReminderLater } from '../library/toldApartLater.js'
import { ProductCautions } from './ProductCautions.js'
import { useMostRate } from './useMostRate.js'
import { DoneFields, doneInput, NO_WEATHER, takenOf, type DoneValues } from './DoneFields.js'

/** A treatment as it was done: what is known is filled in, the rest is typed. */
export function RecordForm({
  treatment,
  product,
  against,
  areaHa,
  onDone,
}: {
  treatment: Treatment
  /** Null where it is done by hand. */
  product: Label | null
  /** What it is done against. */
  against: { organismId: string; name: string }
  /** Of the place where it is done, where that is known. */
  areaHa: number | null
  onDone: () => void
}) {
  const t = useText()
  const site = useSite()
  const { done } = treatment
  const f = useFormat()
  const most = useMostRate(product, against.organismId, treatment.placeId)
  const begun = done ? wallClockOf(done.startedAt, site.timeZone) : null
  const initial: DoneValues = {
    day: begun?.day ?? (treatment.plannedOn <= site.today ? treatment.plannedOn : site.today),
    time: done ? f.clock(done.startedAt) : '',
    rate: done?.rate ?? most,
    areaHa: done ? done.areaHa : areaHa,
    keptClearM: done?.keptClearM ?? null,
    minutes: done?.minutes ?? null,
    doneById: done?.doneById ?? null,
    ...takenOf(done?.taken ?? null),
    weather: done?.weather ?? NO_WEATHER,
    note: treatment.note,
  }
  const entry = useEntry(endpoints.treatments.record, initial, treatment, treatment.id)
  const save = async (): Promise<void> => {
    const params = { siteId: site.id, treatmentId: treatment.id }
    const input = (values: DoneValues, rowVersion: number | null) => ({ ...doneInput(values, site.timeZone), rowVersion })
    const says = t('record.says', { what: treatment.name, organism: against.name })
    // What is recorded already is corrected where it can be seen.
    if (done ? await entry.submit(params, input) : await entry.put(params, says, 'treatments', input)) onDone()
  }
  return (
    <Sheet>
      <Stack>
        {done?.signed ? <Small>{t('signature.goes')}</Small> : null}
        {done ? null : <ReminderLater subject={{ watchId: treatment.watchId, ...against }} />}
        <DoneFields
          {...entry}
          place={{ id: treatment.placeId, areaHa }}
          label={product}
          most={most}
          watchId={treatment.watchId}
          weatherStands={done !== null || entry.draftSince !== null}
        />
        {product ? <ProductCautions product={product} /> : null}
        {/* What it was planned with may be gone since, and has no field here. */}
        <FormError text={entry.errors['productId'] ?? entry.errors['methodId'] ?? null} />
        <EntryEnd entry={entry} onSave={save} onCancel={onDone} words={t('record.save')} />
      </Stack>
    </Sheet>
  )
}
