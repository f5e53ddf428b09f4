import { blockKinds, endpoints, soilCovers, soilTextures, type Block } from '@bocado/contract'
import { useStations } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button, Select, TextField } from '../design/controls.js'
import { NumberField } from '../design/NumberField.js'
import { DraftNote, FormError } from '../design/FormError.js'
import { Fields, Line, Sheet, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'

/** Stands for no choice of station. */
const NEAREST = 'nearest'

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
    latitude: block?.latitude ?? null,
    longitude: block?.longitude ?? null,
    offsetMin: block?.offsetMin ?? 0,
    offsetMax: block?.offsetMax ?? 0,
    soilTexture: block?.soilTexture ?? null,
    soilCover: block?.soilCover ?? ('bare' as Block['soilCover']),
  }
  const create = useEntry(endpoints.blocks.create, initial, null, block ? undefined : site.id)
  const update = useEntry(endpoints.blocks.update, initial, block, block?.id)
  const entry = block ? update : create
  const { values, set, errors } = entry
  const { area, temperature } = f.measures
  // A difference has no zero point to move.
  const difference = temperature.shown(1) - temperature.shown(0)
  const save = async (): Promise<void> => {
    const typed = { ...values, kind: values.kind ?? undefined }
    const saved = block
      ? await update.submit({ siteId: site.id, blockId: block.id }, (_, rowVersion) => ({ ...typed, rowVersion }))
      : await create.submit({ siteId: site.id }, () => typed)
    if (saved) onDone()
  }
  return (
    <Sheet>
      <Stack>
        <Fields>
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
        </Fields>
        <Fields>
          <TextField
            label={t('block.grows')}
            width="36ch"
            value={values.grows}
            onChange={(grows) => set({ grows })}
            error={errors['grows']}
          />
          {stations.length > 0 ? (
            <Select
              label={t('block.station')}
              placeholder={t('block.nearest')}
              width="24ch"
              options={[{ id: NEAREST, label: t('block.nearest') }, ...stations.map(({ id, name }) => ({ id, label: name }))]}
              value={values.stationId ?? NEAREST}
              onChange={(id) => set({ stationId: id === NEAREST ? null : id })}
              error={errors['stationId']}
            />
          ) : null}
        </Fields>
        <Fields>
          <NumberField
            label={t('block.offsetMin')}
            width="19ch"
            digits={1}
            unit={temperature.unit}
            value={values.offsetMin * difference}
            onChange={(shown) => set({ offsetMin: (shown ?? 0) / difference })}
            error={errors['offsetMin']}
            hint={t(values.kind === 'tunnel' ? 'block.offsetHintInside' : 'block.offsetHint')}
          />
          <NumberField
            label={t('block.offsetMax')}
            width="19ch"
            digits={1}
            unit={temperature.unit}
            value={values.offsetMax * difference}
            onChange={(shown) => set({ offsetMax: (shown ?? 0) / difference })}
            error={errors['offsetMax']}
          />
          <NumberField
            label={t('site.latitude')}
            width="15ch"
            digits={5}
            value={values.latitude}
            onChange={(latitude) => set({ latitude })}
            error={errors['latitude']}
            hint={t('block.positionHint')}
          />
          <NumberField
            label={t('site.longitude')}
            width="15ch"
            digits={5}
            value={values.longitude}
            onChange={(longitude) => set({ longitude })}
            error={errors['longitude']}
          />
          <Select
            label={t('block.soil')}
            placeholder={t('block.soilUnknown')}
            width="20ch"
            options={soilTextures.map((id) => ({ id, label: t(`texture.${id}`) }))}
            value={values.soilTexture}
            onChange={(id) => set({ soilTexture: id as Block['soilTexture'] })}
            error={errors['soilTexture']}
          />
          <Select
            label={t('block.cover')}
            placeholder={t('choose')}
            width="20ch"
            options={soilCovers.map((id) => ({ id, label: t(`cover.${id}`) }))}
            value={values.soilCover}
            onChange={(id) => set({ soilCover: id as Block['soilCover'] })}
            error={errors['soilCover']}
          />
        </Fields>
        <DraftNote entry={entry} />
        <FormError text={entry.general} />
        <Line>
          <Button onPress={() => void save()} isDisabled={entry.isSaving}>
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
        </Line>
      </Stack>
    </Sheet>
  )
}
