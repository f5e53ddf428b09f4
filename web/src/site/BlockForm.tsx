import { blockKinds, endpoints, type Block } from '@bocado/contract'
import { useStations } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button, NumberField, Select, TextField } from '../design/controls.js'
import { FormError } from '../design/FormError.js'
import { Line, Sheet, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'

/** A new block, or a change to one, with its check areas. */
export function BlockForm({ block, onDone }: { block?: Block; onDone: () => void }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: stations = [] } = useStations(site.id)
  const initial = {
    name: block?.name ?? '',
    kind: block?.kind ?? (null as Block['kind'] | null),
    areaHa: block?.areaHa ?? null,
    grows: block?.grows ?? '',
    stationId: block?.stationId ?? null,
  }
  const create = useEntry(endpoints.blocks.create, initial)
  const update = useEntry(endpoints.blocks.update, initial)
  const entry = block ? update : create
  const { values, set, errors } = entry
  const { area } = f.measures
  const save = async (): Promise<void> => {
    const typed = { ...values, kind: values.kind ?? undefined }
    const saved = block
      ? await update.submit({ siteId: site.id, blockId: block.id }, () => ({ ...typed, rowVersion: block.rowVersion }))
      : await create.submit({ siteId: site.id }, () => typed)
    if (saved) onDone()
  }
  return (
    <Sheet>
      <Stack>
        <Line>
          <TextField
            label={t('block.name')}
            width="24ch"
            value={values.name}
            onChange={(name) => set({ name })}
            error={errors['name']}
            autoFocus
          />
          <Select
            label={t('block.kind')}
            placeholder={t('choose')}
            width="18ch"
            options={blockKinds.map((kind) => ({ id: kind, label: t(`kind.${kind}`) }))}
            value={values.kind}
            onChange={(kind) => set({ kind: kind as Block['kind'] })}
            error={errors['kind']}
          />
          <NumberField
            label={t('block.area')}
            width="16ch"
            unit={area.unit}
            value={values.areaHa === null ? null : area.shown(values.areaHa)}
            onChange={(shown) => set({ areaHa: shown === null ? null : area.stored(shown) })}
            error={errors['areaHa']}
          />
        </Line>
        <Line>
          <TextField
            label={t('block.grows')}
            width="36ch"
            value={values.grows}
            onChange={(grows) => set({ grows })}
            error={errors['grows']}
          />
          {stations.length > 1 ? (
            <Select
              label={t('block.station')}
              placeholder={stations[0]?.name ?? ''}
              width="20ch"
              options={stations.map(({ id, name }) => ({ id, label: name }))}
              value={values.stationId}
              onChange={(stationId) => set({ stationId })}
              error={errors['stationId']}
            />
          ) : null}
        </Line>
        <FormError text={entry.general} />
        <Line>
          <Button onPress={() => void save()} isDisabled={entry.isSaving}>
            {t('save')}
          </Button>
          <Button $plain onPress={onDone}>
            {t('cancel')}
          </Button>
        </Line>
      </Stack>
    </Sheet>
  )
}
