import { endpoints, flagColours, flagPriors, type Block, type Flag, type Organism } from '@bocado/contract'
import { useState } from 'react'
import { useEntry } from '../api/useEntry.js'
import { usePlaceOptions } from '../api/usePlaceOptions.js'
import { useSite } from '../api/workplace.js'
import { Select } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { NumberField } from '../design/NumberField.js'
import { Fields, Heading, Sheet, Stack } from '../design/text.js'
import type { SmallPhoto } from '../library/photo.js'
import { useText } from '../messages/useText.js'
import { nameOptions } from './named.js'
import { PositionChoice, type PinPosition } from './PositionChoice.js'
import { NONE, nothingSeen, seenInput, type SeenValues } from './seen.js'
import { SeenFields } from './SeenFields.js'

type PinValues = { organismId: string; placeId: string | null; number: number | null; colour: string } & PinPosition
type Values = PinValues & SeenValues

const pinOf = (flag: Flag): PinValues => ({
  organismId: flag.organismId ?? NONE,
  placeId: flag.placeId,
  number: flag.number,
  colour: flag.colour ?? NONE,
  latitude: flag.position?.latitude ?? null,
  longitude: flag.position?.longitude ?? null,
  accuracyM: flag.position?.accuracyM ?? null,
})

const pinInput = (v: PinValues) => ({
  organismId: v.organismId === NONE ? null : v.organismId,
  placeId: v.placeId ?? '',
  number: v.number,
  colour: v.colour === NONE ? null : (v.colour as NonNullable<Flag['colour']>),
  position:
    v.latitude === null && v.longitude === null
      ? null
      : { latitude: v.latitude ?? NaN, longitude: v.longitude ?? NaN, accuracyM: v.accuracyM },
})

interface PinEntry {
  set: (changes: Partial<PinValues>) => void
  errors: Readonly<Record<string, string>>
}

interface Known {
  blocks: readonly Block[]
  /** In the order in which they are offered. */
  organisms: readonly Organism[]
}

/** A patch that was found: what it is, where, and how much of it. */
export function FlagForm(p: Known & { begins: { organismId: string; placeId: string | null }; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const [photo, setPhoto] = useState<SmallPhoto | null>(null)
  const initial: Values = {
    organismId: p.begins.organismId,
    placeId: p.begins.placeId,
    number: null,
    colour: NONE,
    latitude: null,
    longitude: null,
    accuracyM: null,
    ...nothingSeen(site.today),
  }
  const entry = useEntry(endpoints.flags.add, initial, null, site.id)
  const { values, bind, errors } = entry
  const organism = p.organisms.find(({ id }) => id === values.organismId)
  const save = async (): Promise<void> => {
    const place = p.blocks.find(({ id }) => id === values.placeId)?.name ?? ''
    const says = t('flags.says', { name: organism?.name ?? t('flags.unnamed'), place })
    const saved = await entry.put({ siteId: site.id }, says, 'scouting?panel=flags&do=flag', (v) => ({
      ...pinInput(v),
      ...seenInput(v, 'standing', photo, site.today),
    }))
    if (saved) p.onDone()
  }
  return (
    <Sheet>
      <Stack>
        <Heading>{t('flags.add')}</Heading>
        <PinFields {...p} values={values} entry={entry} />
        <SeenFields
          sight="standing"
          organism={organism}
          bind={bind as never}
          errors={errors}
          photo={photo}
          onPhoto={setPhoto}
          isFind
          more={<Pin values={values} entry={entry} />}
        />
        <EntryEnd entry={entry} onSave={save} onCancel={p.onDone} />
      </Stack>
    </Sheet>
  )
}

/** Corrects a flag, or says what it marks. */
export function FlagEdit(p: Known & { flag: Flag; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const entry = useEntry(endpoints.flags.update, { ...pinOf(p.flag), prior: p.flag.prior ?? NONE }, p.flag, p.flag.id)
  const save = async (): Promise<void> => {
    const saved = await entry.submit({ siteId: site.id, flagId: p.flag.id }, (v, rowVersion) => ({
      ...pinInput(v),
      note: p.flag.note,
      prior: v.prior === NONE ? null : (v.prior as Flag['prior']),
      rowVersion,
    }))
    if (saved) p.onDone()
  }
  return (
    <Stack>
      <Heading>{t('flags.edit')}</Heading>
      <PinFields {...p} values={entry.values} entry={entry} />
      <Pin values={entry.values} entry={entry} />
      <Select
        label={t('flags.prior')}
        placeholder=""
        width="34ch"
        options={[{ id: NONE, label: t('flags.notSaid') }, ...flagPriors.map((id) => ({ id, label: t(`flags.prior.${id}`) }))]}
        {...entry.bind.choice('prior')}
      />
      <EntryEnd entry={entry} onSave={save} onCancel={p.onDone} />
    </Stack>
  )
}

/** The pin that was put there. */
function Pin({ values, entry: { set, errors } }: { values: PinValues; entry: PinEntry }) {
  const t = useText()
  return (
    <Fields>
      <NumberField
        label={t('flags.number')}
        width="15ch"
        digits={0}
        hint={t('flags.numberNext')}
        value={values.number}
        onChange={(number) => set({ number })}
        error={errors['number']}
      />
      <Select
        label={t('flags.colour')}
        placeholder=""
        width="15ch"
        options={[{ id: NONE, label: t('flags.notSaid') }, ...flagColours.map((id) => ({ id, label: t(`flags.colour.${id}`) }))]}
        value={values.colour}
        onChange={(colour) => set({ colour })}
        error={errors['colour']}
      />
    </Fields>
  )
}

/** What it is, and where it stands. */
function PinFields(
  p: Known & {
    values: PinValues
    entry: PinEntry
  },
) {
  const t = useText()
  const places = usePlaceOptions()
  const { values, entry } = p
  const { set, errors } = entry
  return (
    <>
      <Fields>
        <Select
          label={t('flags.what')}
          placeholder={t('choose')}
          width="26ch"
          options={nameOptions(p.organisms, t('flags.unnamed'))}
          value={values.organismId}
          onChange={(organismId) => set({ organismId })}
          error={errors['organismId']}
        />
        <Select
          label={t('flags.where')}
          placeholder={t('choose')}
          width="24ch"
          options={places}
          value={values.placeId}
          onChange={(placeId) => set({ placeId })}
          error={errors['placeId']}
        />
      </Fields>
      <PositionChoice
        value={values}
        onChange={set}
        error={errors['position'] ?? errors['position.latitude'] ?? errors['position.longitude']}
      />
    </>
  )
}
