import { endpoints, type Label, type Treatment } from '@bocado/contract'
import { useEffect, useState } from 'react'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { FormError } from '../design/FormError.js'
import { rateBasis } from '../band/mix.js'
import { forgetSheet, keptSheet, type KeptSheet } from '../job/keptSheet.js'
import { wallClockOf } from '../design/moments.js'
import { useFormat } from '../design/useFormat.js'
import { Sheet, Small, Stack } from '../design/text.js'
import { useText } from '../messages/useText.js'
import { ReminderLater } from '../library/toldApartLater.js'
import { ProductCautions } from './ProductCautions.js'
import { useMostRate } from './useMostRate.js'
import { DoneFields } from './DoneFields.js'
import { doneInput, isAboveLabel, NO_WEATHER, NOTHING_MORE, saysWhy, takenOf, type DoneValues } from './doneValues.js'
import { useNextLot } from './useNextLot.js'

/** A treatment as it was done: what is known is filled in, the rest is typed. */
export function RecordForm({
  treatment,
  product,
  against,
  areaHa,
  placeName,
  onDone,
}: {
  treatment: Treatment
  /** Null where it is done by hand. */
  product: Label | null
  /** What it is done against. */
  against: { organismId: string; name: string }
  /** Of the place where it is done, where that is known. */
  areaHa: number | null
  placeName: string
  onDone: () => void
}) {
  const t = useText()
  const site = useSite()
  const { done } = treatment
  const f = useFormat()
  const most = useMostRate(product, against.organismId, treatment.placeId)
  const clock = (moment: string | null) => (moment === null ? null : wallClockOf(moment, site.timeZone))
  // What was measured and worked out on the job sheet, on this device.
  const [sheet] = useState(() => keptSheet(treatment.id))
  const begun = clock(done ? done.startedAt : sheet.begunAt)
  const ended = done ? done.endedAt : sheet.endedAt
  const initial: DoneValues = {
    day: begun?.day ?? (treatment.plannedOn <= site.today ? treatment.plannedOn : site.today),
    time: done ? f.clock(done.startedAt) : (begun?.time ?? ''),
    ...NOTHING_MORE,
    ...(done
      ? moreOf(done)
      : product
        ? { machineId: sheet.machineId, waterL: sheet.waterL, amountUsed: usedOn(sheet, product, most) }
        : {}),
    ...(product?.ways.length === 1 ? { way: product.ways[0] ?? null } : {}),
    endTime: ended === null ? '' : f.clock(ended),
    rate: done?.rate ?? sheet.rate ?? most,
    areaHa: done ? done.areaHa : areaHa,
    keptClearM: done?.keptClearM ?? null,
    minutes: done?.minutes ?? null,
    doneById: done?.doneById ?? null,
    ...takenOf(done?.taken ?? null),
    weather: done?.weather ?? { ...NO_WEATHER, windMs: sheet.windMs, windFrom: sheet.windFrom },
    note: [treatment.note, done ? '' : sheet.lessBecause].filter(Boolean).join(' '),
  }
  const entry = useEntry(endpoints.treatments.record, initial, treatment, treatment.id)
  const { fill } = entry
  const lotId = useNextLot(product, done !== null || entry.draftSince !== null)
  useEffect(() => {
    if (lotId !== null) fill({ lotId })
  }, [lotId, fill])
  const [asksWhy, setAsksWhy] = useState(false)
  const save = async (): Promise<void> => {
    // Asked for here: what is sent without a signal cannot be asked back.
    if (isAboveLabel(entry.values, product, most) && !saysWhy(entry.values)) return setAsksWhy(true)
    const params = { siteId: site.id, treatmentId: treatment.id }
    const input = (values: DoneValues, rowVersion: number | null) => ({ ...doneInput(values, site.timeZone), rowVersion })
    const says = t('record.says', { what: treatment.name, organism: against.name })
    // What is recorded already is corrected where it can be seen.
    if (!(done ? await entry.submit(params, input) : await entry.put(params, says, 'treatments', input))) return
    forgetSheet(treatment.id)
    onDone()
  }
  return (
    <Sheet>
      <Stack>
        {done?.signed ? <Small>{t('signature.goes')}</Small> : null}
        {done ? null : <ReminderLater subject={{ watchId: treatment.watchId, ...against }} />}
        <DoneFields
          {...entry}
          place={{ id: treatment.placeId, name: placeName, areaHa }}
          organismId={against.organismId}
          label={product}
          most={most}
          watchId={treatment.watchId}
          weatherStands={done !== null || entry.draftSince !== null}
          measured={sheet}
          asksWhy={asksWhy}
        />
        {product ? <ProductCautions product={product} /> : null}
        {/* What it was planned with may be gone since, and has no field here. */}
        <FormError text={entry.errors['productId'] ?? entry.errors['methodId'] ?? null} />
        <EntryEnd entry={entry} onSave={save} onCancel={onDone} words={t('record.save')} />
      </Stack>
    </Sheet>
  )
}

/** What else is noted of what was done, as the form holds it. */
function moreOf(done: NonNullable<Treatment['done']>): Omit<typeof NOTHING_MORE, 'endTime'> {
  const { way, machineId, lotId, amountUsed, waterL, cropStage, targetStage, bags, waste, departureReason } = done
  return { way, machineId, lotId, amountUsed, waterL, cropStage, targetStage, bags, waste, departureReason }
}

/** What the sheet worked out in all, where the rate does not tell it by the area. */
const usedOn = (sheet: KeptSheet, { rateUnit }: Label, most: number | null): number | null =>
  rateBasis(rateUnit) !== 'area' && (sheet.rate ?? most) !== null ? sheet.amount : null
