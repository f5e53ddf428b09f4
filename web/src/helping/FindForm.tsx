import { endpoints, type HelpDay } from '@bocado/contract'
import { useState } from 'react'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Select, TextField } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { FormError } from '../design/FormError.js'
import { NumberField } from '../design/NumberField.js'
import { Fields, Sheet, Stack } from '../design/text.js'
import { PositionChoice, type PinPosition } from '../flags/PositionChoice.js'
import type { SmallPhoto } from '../library/photo.js'
import { PhotoField } from '../library/PhotoField.js'
import { useText } from '../messages/useText.js'
import '../messages/en/flags.js'
import '../messages/en/library.js'

/** Whoever is not sure says so: it is flagged, and looked at by somebody who knows. */
const NOT_SURE = 'not-sure'
const NOWHERE: PinPosition = { latitude: null, longitude: null, accuracyM: null }

/** What was found while helping: what it is, where, how many, and a photo. */
export function FindForm({ day, onDone }: { day: HelpDay; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const [photo, setPhoto] = useState<SmallPhoto | null>(null)
  const [position, setPosition] = useState(NOWHERE)
  const entry = useEntry(
    endpoints.helping.find,
    { organismId: NOT_SURE, blockId: day.blocks[0]?.id ?? '', plants: null as number | null, note: '' },
    null,
    `${site.id} find`,
  )
  const { bind, errors } = entry
  const save = async (): Promise<void> => {
    const named = day.organisms.find(({ id }) => id === entry.values.organismId)
    const says = t('helping.saysFind', { name: named?.name ?? t('helping.unknown') })
    const { latitude, longitude, accuracyM } = position
    const saved = await entry.put({ siteId: site.id }, says, 'helping', ({ organismId, ...values }) => ({
      ...values,
      organismId: organismId === NOT_SURE ? null : organismId,
      position: latitude === null || longitude === null ? null : { latitude, longitude, accuracyM },
      helpedOn: day.on,
      photo: photo ? { jpeg: photo.jpeg, takenOn: photo.takenOn ?? day.on, position: null } : null,
    }))
    if (saved) onDone()
  }
  return (
    <Sheet>
      <Stack>
        <Fields>
          <Select
            label={t('helping.what')}
            placeholder={t('choose')}
            width="24ch"
            options={[{ id: NOT_SURE, label: t('helping.notSure') }, ...day.organisms.map(({ id, name }) => ({ id, label: name }))]}
            {...bind.choice('organismId')}
          />
          {day.blocks.length > 1 ? (
            <Select
              label={t('helping.where')}
              placeholder={t('choose')}
              width="22ch"
              options={day.blocks.map(({ id, name }) => ({ id, label: name }))}
              {...bind.choice('blockId')}
            />
          ) : null}
          <NumberField label={t('helping.count')} width="12ch" digits={0} hint={t('optional')} {...bind.number('plants')} />
        </Fields>
        <PositionChoice value={position} onChange={setPosition} error={errors['position.latitude'] ?? errors['position']} />
        <PhotoField photo={photo} onChange={setPhoto} />
        <TextField label={t('note')} {...bind.text('note')} />
        <FormError text={errors['blockId'] ?? errors['helpedOn'] ?? null} />
        <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
      </Stack>
    </Sheet>
  )
}
