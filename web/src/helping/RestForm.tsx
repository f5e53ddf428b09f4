import { endpoints, type HelpDay, type Taken } from '@bocado/contract'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { TextField } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { FormError } from '../design/FormError.js'
import { NumberField } from '../design/NumberField.js'
import { TakenFields } from '../design/TakenFields.js'
import { Fields, Sheet, Stack } from '../design/text.js'
import { useText } from '../messages/useText.js'

/** What was taken at a flag where some still stand. */
export function RestForm(p: { flag: HelpDay['flags'][number]; on: string; byHand: boolean; onDone: () => void }) {
  const { flag, on, byHand, onDone } = p
  const t = useText()
  const site = useSite()
  const entry = useEntry(
    endpoints.helping.work,
    { plants: null as number | null, taken: null as number | null, takenUnit: 'pieces', minutes: null as number | null, note: '' },
    null,
    flag.id,
  )
  const { bind, errors } = entry
  const save = async (): Promise<void> => {
    const says = t('helping.saysWork', { number: flag.number, sight: 'standing' })
    const saved = await entry.put({ siteId: site.id }, says, 'helping', ({ plants, taken, takenUnit, minutes, note }) => ({
      flagId: flag.id,
      sight: 'standing',
      helpedOn: on,
      plants,
      taken: taken === null ? null : { amount: taken, unit: takenUnit as Taken['unit'] },
      minutes,
      note,
    }))
    if (saved) onDone()
  }
  return (
    <Sheet>
      <Stack>
        <Fields>
          <NumberField label={t('helping.plantsLeft')} width="12ch" digits={0} hint={t('optional')} {...bind.number('plants')} />
          {byHand ? (
            <TakenFields amount={{ ...bind.number('taken'), error: errors['taken.amount'] }} unit={bind.choice('takenUnit')} />
          ) : null}
          <NumberField label={t('helping.took')} width="12ch" digits={0} unit="min" hint={t('optional')} {...bind.number('minutes')} />
        </Fields>
        <TextField label={t('note')} {...bind.text('note')} />
        <FormError text={errors['flagId'] ?? errors['helpedOn'] ?? errors['blockId'] ?? null} />
        <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
      </Stack>
    </Sheet>
  )
}
