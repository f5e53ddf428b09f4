import { endpoints, wantedBeginnings, type WantedPlant } from '@bocado/contract'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Choice, TextField } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { NumberField } from '../design/NumberField.js'
import { Several } from '../design/Several.js'
import { Fields, Sheet, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'

const typedOf = (plant: WantedPlant | null) => ({
  name: plant?.name ?? '',
  begins: (plant?.begins ?? 'planted') as WantedPlant['begins'],
  spacingCm: plant?.spacingCm ?? null,
  gramsPerM2: plant?.gramsPerM2 ?? null,
  months: plant?.months.map(String) ?? [],
  note: plant?.note ?? '',
})
type Typed = ReturnType<typeof typedOf>

const inputOf = (v: Typed) => ({
  ...v,
  spacingCm: v.begins === 'planted' ? v.spacingCm : null,
  gramsPerM2: v.begins === 'sown' ? v.gramsPerM2 : null,
  months: v.months.map(Number),
})

/** Puts a plant on the list of what is wanted. */
export function PlantAdd({ onDone }: { onDone: () => void }) {
  const site = useSite()
  const entry = useEntry(endpoints.replacement.addWanted, typedOf(null), null, site.id)
  const save = async (): Promise<void> => {
    if (await entry.submit({ siteId: site.id }, inputOf)) onDone()
  }
  return (
    <Sheet>
      <Stack>
        <PlantFields entry={entry} />
        <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
      </Stack>
    </Sheet>
  )
}

export function PlantEdit({ plant, onDone }: { plant: WantedPlant; onDone: () => void }) {
  const site = useSite()
  const entry = useEntry(endpoints.replacement.updateWanted, typedOf(plant), plant, plant.id)
  const save = async (): Promise<void> => {
    const params = { siteId: site.id, wantedPlantId: plant.id }
    if (await entry.submit(params, (v, rowVersion) => ({ ...inputOf(v), rowVersion }))) onDone()
  }
  return (
    <Stack>
      <PlantFields entry={entry} />
      <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
    </Stack>
  )
}

function PlantFields({
  entry: { values, set, errors },
}: {
  entry: { values: Typed; set: (changes: Partial<Typed>) => void; errors: Readonly<Record<string, string>> }
}) {
  const t = useText()
  const f = useFormat()
  return (
    <>
      <Fields>
        <TextField label={t('instead.name')} width="24ch" value={values.name} onChange={(name) => set({ name })} error={errors['name']} />
        {values.begins === 'planted' ? (
          <NumberField
            label={t('instead.spacing')}
            unit="cm"
            width="12ch"
            value={values.spacingCm}
            onChange={(spacingCm) => set({ spacingCm })}
            error={errors['spacingCm']}
          />
        ) : (
          <NumberField
            label={t('instead.grams')}
            unit="g"
            width="16ch"
            hint={t('instead.gramsHint')}
            value={values.gramsPerM2}
            onChange={(gramsPerM2) => set({ gramsPerM2 })}
            error={errors['gramsPerM2']}
          />
        )}
      </Fields>
      <Choice
        label={t('instead.begins')}
        options={wantedBeginnings.map((id) => ({ id, label: t(`instead.begins.${id}`) }))}
        value={values.begins}
        onChange={(begins) => set({ begins })}
      />
      <Several
        label={t('instead.months')}
        placeholder={t('choose')}
        options={Array.from({ length: 12 }, (_, i) => ({ id: String(i + 1), label: f.month(`2026-${String(i + 1).padStart(2, '0')}-01`) }))}
        value={values.months}
        onChange={(months) => set({ months })}
        dropWords={(name) => t('plots.drop', { name })}
        error={errors['months']}
      />
      <TextField label={t('note')} width="36ch" value={values.note} onChange={(note) => set({ note })} error={errors['note']} />
    </>
  )
}
