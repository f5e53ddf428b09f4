import { endpoints, type Block, type Organism, type Trap } from '@bocado/contract'
import { useState } from 'react'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Checkbox, Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { NumberField } from '../design/NumberField.js'
import { PositionFields } from '../design/PositionFields.js'
import { Fields, Heading, Sheet, Stack } from '../design/text.js'
import { useText } from '../messages/useText.js'

/** A trap as it is sent: what nobody said is not sent. */
export const trapInput = (trap: Trap) => ({
  name: trap.name,
  blockId: trap.blockId,
  organismId: trap.organismId,
  event: trap.event,
  lure: trap.lure,
  lureLoad: trap.lureLoad,
  lureOn: trap.lureOn,
  lureWeeks: trap.lureWeeks,
  inDisruption: trap.inDisruption,
  hungOn: trap.hungOn,
  takenDownOn: trap.takenDownOn,
  position: trap.position,
  note: trap.note,
})

/** Hangs a trap, or changes one: what it catches, where and since when; its lure when it is asked for. */
export function TrapForm(p: {
  trap?: Trap
  blocks: readonly Block[]
  organisms: readonly Organism[]
  begins: { name: string; blockId: string | null; organismId: string | null }
  onDone: () => void
}) {
  const t = useText()
  const site = useSite()
  const { trap } = p
  const initial = {
    name: trap?.name ?? p.begins.name,
    blockId: trap?.blockId ?? p.begins.blockId,
    organismId: trap?.organismId ?? p.begins.organismId,
    hungOn: trap?.hungOn ?? (site.today as string | null),
    takenDownOn: trap?.takenDownOn ?? (null as string | null),
    lure: trap?.lure ?? '',
    lureLoad: trap?.lureLoad ?? '',
    lureOn: trap?.lureOn ?? (null as string | null),
    lureWeeks: trap?.lureWeeks ?? (null as number | null),
    inDisruption: trap?.inDisruption ?? false,
    latitude: trap?.position?.latitude ?? (null as number | null),
    longitude: trap?.position?.longitude ?? (null as number | null),
    note: trap?.note ?? '',
  }
  const add = useEntry(endpoints.traps.add, initial, null, trap ? undefined : site.id)
  const update = useEntry(endpoints.traps.update, initial, trap, trap?.id)
  const entry = trap ? update : add
  const { bind, values, errors } = entry
  const [isWhole, setWhole] = useState(trap !== undefined)
  const input = ({ latitude, longitude, ...v }: typeof initial) => ({
    ...v,
    blockId: v.blockId ?? '',
    organismId: v.organismId ?? '',
    event: trap && v.organismId === trap.organismId ? trap.event : null,
    hungOn: v.hungOn ?? '',
    // What hangs in it since it was hung is its first lure.
    lureOn: v.lureOn ?? (v.lure === '' ? null : v.hungOn),
    position: latitude === null && longitude === null ? null : { latitude: latitude ?? NaN, longitude: longitude ?? NaN },
  })
  const save = async (): Promise<void> => {
    const saved = trap
      ? await update.submit({ siteId: site.id, trapId: trap.id }, (v, rowVersion) => ({ ...input(v), rowVersion }))
      : await add.submit({ siteId: site.id }, input)
    if (saved) p.onDone()
  }
  return (
    <Sheet>
      <Stack>
        <Heading>{t(trap ? 'traps.edit' : 'traps.hang')}</Heading>
        <Fields>
          <Select
            label={t('traps.what')}
            placeholder={t('choose')}
            width="26ch"
            options={p.organisms.map(({ id, name }) => ({ id, label: name }))}
            {...bind.choice('organismId')}
            error={errors['organismId'] ?? errors['event']}
          />
          <Select
            label={t('traps.where')}
            placeholder={t('choose')}
            width="22ch"
            options={p.blocks.map(({ id, name }) => ({ id, label: name }))}
            {...bind.choice('blockId')}
          />
          <TextField label={t('traps.name')} width="16ch" {...bind.text('name')} />
          <DateField label={t('traps.hungOn')} {...bind.day('hungOn')} />
        </Fields>
        <TextButton aria-expanded={isWhole} onPress={() => setWhole(!isWhole)}>
          {t(isWhole ? 'traps.less' : 'traps.more')}
        </TextButton>
        {isWhole ? (
          <>
            <Fields>
              <TextField label={t('traps.lure')} width="20ch" hint={t('traps.lureHint')} {...bind.text('lure')} />
              <TextField label={t('traps.load')} width="14ch" hint={t('traps.loadHint')} {...bind.text('lureLoad')} />
              <DateField label={t('traps.lureOn')} {...bind.day('lureOn')} />
              <NumberField label={t('traps.lureWeeks')} width="14ch" digits={0} unit={t('traps.weeks')} {...bind.number('lureWeeks')} />
              {trap ? <DateField label={t('traps.takenDownOn')} {...bind.day('takenDownOn')} /> : null}
            </Fields>
            <Checkbox label={t('traps.disruption')} {...bind.check('inDisruption')} />
            <Fields>
              <PositionFields
                latitude={{ ...bind.number('latitude'), error: errors['position'] ?? errors['position.latitude'] }}
                longitude={{ ...bind.number('longitude'), error: errors['position.longitude'] }}
                onBoth={entry.set}
              />
              <TextField label={t('note')} width="30ch" {...bind.text('note')} />
            </Fields>
          </>
        ) : null}
        {values.inDisruption ? <p>{t('traps.inDisruption')}</p> : null}
        <EntryEnd entry={entry} onSave={save} onCancel={p.onDone} />
      </Stack>
    </Sheet>
  )
}
