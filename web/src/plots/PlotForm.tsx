import { endpoints, type Block, type Organism, type Plot, type WantedPlant } from '@bocado/contract'
import { useEntry } from '../api/useEntry.js'
import { usePlaceOptions } from '../api/usePlaceOptions.js'
import { useSite } from '../api/workplace.js'
import { Checkbox, Select, TextField } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { NumberField } from '../design/NumberField.js'
import { Several } from '../design/Several.js'
import { Fields, Heading, Sheet, Small, Stack } from '../design/text.js'
import { PositionChoice } from '../flags/PositionChoice.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/field.js'
import '../messages/en/flags.js'
import '../messages/en/plots.js'

export interface PlotKnown {
  blocks: readonly Block[]
  /** Weeds in the order in which they are offered. */
  weeds: readonly Organism[]
  wanted: readonly WantedPlant[]
}

const typedOf = (plot: Plot | null, placeId: string | null) => ({
  placeId: plot?.placeId ?? placeId,
  number: plot?.number ?? null,
  sideM: plot?.sideM ?? 1,
  worked: plot?.worked ?? true,
  weeds: plot?.plants.flatMap(({ of, id }) => (of === 'weed' ? [id] : [])) ?? [],
  wanted: plot?.plants.flatMap(({ of, id }) => (of === 'wanted' ? [id] : [])) ?? [],
  latitude: plot?.position?.latitude ?? null,
  longitude: plot?.position?.longitude ?? null,
  accuracyM: plot?.position?.accuracyM ?? null,
  fromWhat: plot?.fromWhat ?? '',
  bearingDeg: plot?.bearingDeg ?? null,
  paces: plot?.paces ?? null,
  note: plot?.note ?? '',
})
type Typed = ReturnType<typeof typedOf>

const inputOf = ({ latitude, longitude, accuracyM, placeId, sideM, ...v }: Typed) => ({
  ...v,
  placeId: placeId ?? '',
  sideM: sideM ?? NaN,
  position: latitude === null && longitude === null ? null : { latitude: latitude ?? NaN, longitude: longitude ?? NaN, accuracyM },
})

/** Marks out a plot. */
export function PlotAdd(p: PlotKnown & { placeId: string | null; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const entry = useEntry(endpoints.plots.add, typedOf(null, p.placeId), null, site.id)
  const save = async (): Promise<void> => {
    if (await entry.submit({ siteId: site.id }, inputOf)) p.onDone()
  }
  return (
    <Sheet>
      <Stack>
        <Heading>{t('plots.add')}</Heading>
        <PlotFields {...p} entry={entry} />
        <EntryEnd entry={entry} onSave={save} onCancel={p.onDone} />
      </Stack>
    </Sheet>
  )
}

/** Puts a plot right, or says how it is found. */
export function PlotEdit(p: PlotKnown & { plot: Plot; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const entry = useEntry(endpoints.plots.update, typedOf(p.plot, null), p.plot, p.plot.id)
  const save = async (): Promise<void> => {
    const saved = await entry.submit({ siteId: site.id, plotId: p.plot.id }, (v, rowVersion) => ({ ...inputOf(v), rowVersion }))
    if (saved) p.onDone()
  }
  return (
    <Stack>
      <Heading>{t('plots.edit')}</Heading>
      <PlotFields {...p} entry={entry} />
      <EntryEnd entry={entry} onSave={save} onCancel={p.onDone} />
    </Stack>
  )
}

interface PlotEntry {
  values: Typed
  set: (changes: Partial<Typed>) => void
  errors: Readonly<Record<string, string>>
}

function PlotFields({ weeds, wanted, entry }: PlotKnown & { entry: PlotEntry }) {
  const t = useText()
  const places = usePlaceOptions()
  const { height } = useFormat().measures
  const { values, set, errors } = entry
  const side = values.sideM as number | null
  return (
    <>
      <Fields>
        <Select
          label={t('plots.where')}
          placeholder={t('choose')}
          width="24ch"
          options={places}
          value={values.placeId}
          onChange={(placeId) => set({ placeId })}
          error={errors['placeId']}
        />
        <NumberField
          label={t('plots.side')}
          unit={height.unit}
          digits={height.digits}
          width="11ch"
          value={side === null ? null : height.shown(side)}
          onChange={(shown) => set({ sideM: (shown === null ? null : height.stored(shown)) as number })}
          error={errors['sideM']}
        />
        <NumberField
          label={t('plots.number')}
          width="17ch"
          digits={0}
          hint={t('plots.numberNext')}
          value={values.number}
          onChange={(number) => set({ number })}
          error={errors['number']}
        />
      </Fields>
      <Several
        label={t('plots.weeds')}
        placeholder={t('choose')}
        options={weeds.map(({ id, name }) => ({ id, label: name }))}
        value={values.weeds}
        onChange={(chosen) => set({ weeds: chosen })}
        dropWords={(name) => t('plots.drop', { name })}
        error={errors['weeds']}
      />
      {wanted.length === 0 ? (
        <Small>{t('plots.noWanted')}</Small>
      ) : (
        <Several
          label={t('plots.wanted')}
          placeholder={t('choose')}
          options={wanted.map(({ id, name }) => ({ id, label: name }))}
          value={values.wanted}
          onChange={(chosen) => set({ wanted: chosen })}
          dropWords={(name) => t('plots.drop', { name })}
          error={errors['wanted']}
        />
      )}
      <Fields>
        <TextField
          label={t('plots.from')}
          width="28ch"
          hint={t('plots.fromHint')}
          value={values.fromWhat}
          onChange={(fromWhat) => set({ fromWhat })}
          error={errors['fromWhat']}
        />
        <NumberField
          label={t('plots.bearing')}
          unit="°"
          width="12ch"
          digits={0}
          hint={t('plots.bearingHint')}
          value={values.bearingDeg}
          onChange={(bearingDeg) => set({ bearingDeg })}
          error={errors['bearingDeg']}
        />
        <NumberField
          label={t('plots.paces')}
          width="10ch"
          digits={0}
          value={values.paces}
          onChange={(paces) => set({ paces })}
          error={errors['paces']}
        />
      </Fields>
      <PositionChoice
        value={values}
        onChange={set}
        error={errors['position'] ?? errors['position.latitude'] ?? errors['position.longitude']}
      />
      <Checkbox label={t('plots.worked')} value={values.worked} onChange={(worked) => set({ worked })} />
      {values.worked ? null : <Small>{t('plots.leftHint')}</Small>}
    </>
  )
}
