import { blockKinds, endpoints, soilCovers, soilTextures, type Block, type SiteKind } from '@bocado/contract'
import { useState } from 'react'
import { useStations } from '../api/hooks.js'
import type { Bindings } from '../api/bindings.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { AreaField } from '../design/AreaField.js'
import { Select, TextField } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { NumberField } from '../design/NumberField.js'
import { PositionFields } from '../design/PositionFields.js'
import { Fields, Sheet, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { GrowsField } from './GrowsField.js'
import '../messages/en/field.js'
import '../messages/en/site.js'

/** Stands for no choice of station. */
const NEAREST = 'nearest'

/** What is typed of a block. */
type BlockValues = {
  name: string
  kind: Block['kind'] | null
  areaHa: number | null
  grows: string
  stationId: string | null
  latitude: number | null
  longitude: number | null
  offsetMin: number | null
  offsetMax: number | null
  soilTexture: Block['soilTexture']
  soilCover: Block['soilCover']
}

/** What one mostly adds by what one looks after; of a farm nothing is likelier than the rest. */
const LIKELY_KIND: Readonly<Record<SiteKind, Block['kind'] | null>> = { garden: 'bed', farm: null, land: 'natural-area', others: null }
const FIRST_KINDS: Readonly<Record<SiteKind, readonly Block['kind'][]>> = {
  garden: ['bed', 'pots', 'tunnel'],
  farm: [],
  land: ['natural-area', 'field'],
  others: [],
}
const kindsFor = (kind: SiteKind): Block['kind'][] => [...new Set([...FIRST_KINDS[kind], ...blockKinds])]

/** A new block, or a change to one, with its check areas. */
export function BlockForm({ block, onDone }: { block?: Block; onDone: () => void }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: stations = [] } = useStations(site.id)
  const initial: BlockValues = {
    name: block?.name ?? '',
    kind: block?.kind ?? LIKELY_KIND[site.kind],
    areaHa: block?.areaHa ?? null,
    grows: block?.grows ?? '',
    stationId: block?.stationId ?? null,
    latitude: block?.latitude ?? null,
    longitude: block?.longitude ?? null,
    offsetMin: block?.offsetMin ?? 0,
    offsetMax: block?.offsetMax ?? 0,
    soilTexture: block?.soilTexture ?? null,
    soilCover: block?.soilCover ?? 'bare',
  }
  const create = useEntry(endpoints.blocks.create, initial, null, block ? undefined : site.id)
  const update = useEntry(endpoints.blocks.update, initial, block, block?.id)
  const entry = block ? update : create
  const { values, bind } = entry
  const { temperature } = f.measures
  // A difference has no zero point to move.
  const perDegree = temperature.shown(1) - temperature.shown(0)
  const difference = { shown: (c: number) => c * perDegree, stored: (shown: number) => shown / perDegree }
  const station = bind.choice('stationId')
  const [more, setMore] = useState(
    initial.offsetMin !== 0 ||
      initial.offsetMax !== 0 ||
      initial.latitude !== null ||
      initial.soilTexture !== null ||
      initial.soilCover !== 'bare',
  )
  const isRefused = Object.keys(entry.errors).some((path) => /^(offset|latitude|longitude|soil)/.test(path))
  if (isRefused && !more) setMore(true)
  const save = async (): Promise<void> => {
    const typed = (v: BlockValues) => ({ ...v, kind: v.kind ?? undefined, offsetMin: v.offsetMin ?? 0, offsetMax: v.offsetMax ?? 0 })
    const saved = block
      ? await update.submit({ siteId: site.id, blockId: block.id }, (v, rowVersion) => ({ ...typed(v), rowVersion }))
      : await create.submit({ siteId: site.id }, typed)
    if (saved) onDone()
  }
  return (
    <Sheet>
      <Stack>
        <Fields>
          <TextField label={t('block.name')} width="24ch" {...bind.text('name')} autoFocus />
          <Select
            label={t('block.kind')}
            placeholder={t('choose')}
            width="18ch"
            options={kindsFor(site.kind).map((kind) => ({ id: kind, label: t(`kind.${kind}`) }))}
            {...bind.choice('kind')}
          />
          <AreaField
            key={values.kind === 'bed' || values.kind === 'pots' ? 'small' : 'large'}
            label={t('block.area')}
            isSmall={values.kind === 'bed' || values.kind === 'pots'}
            {...bind.number('areaHa')}
          />
        </Fields>
        <Fields>
          <GrowsField bound={bind.text('grows')} />
          {stations.length > 0 ? (
            <Select
              label={t('block.station')}
              placeholder={t('block.nearest')}
              width="24ch"
              options={[{ id: NEAREST, label: t('block.nearest') }, ...stations.map(({ id, name }) => ({ id, label: name }))]}
              {...station}
              value={station.value ?? NEAREST}
              onChange={(id) => entry.set({ stationId: id === NEAREST ? null : id })}
            />
          ) : null}
        </Fields>
        {more ? (
          <BlockWeather bind={bind} unit={temperature.unit} difference={difference} inside={values.kind === 'tunnel'} />
        ) : (
          <TextButton onPress={() => setMore(true)}>{t('block.more')}</TextButton>
        )}
        <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
      </Stack>
    </Sheet>
  )
}

/** How its weather and ground differ from where its station stands. */
function BlockWeather(p: {
  bind: Bindings<BlockValues>
  unit: string
  difference: { shown: (c: number) => number; stored: (shown: number) => number }
  inside: boolean
}) {
  const t = useText()
  const { bind } = p
  return (
    <Fields>
      <NumberField
        label={t('block.offsetMin')}
        width="19ch"
        digits={1}
        unit={p.unit}
        hint={t(p.inside ? 'block.offsetHintInside' : 'block.offsetHint')}
        {...bind.number('offsetMin', p.difference)}
      />
      <NumberField label={t('block.offsetMax')} width="19ch" digits={1} unit={p.unit} {...bind.number('offsetMax', p.difference)} />
      <PositionFields latitude={bind.number('latitude')} longitude={bind.number('longitude')} hint={t('block.positionHint')} />
      <Select
        label={t('block.soil')}
        placeholder={t('block.soilUnknown')}
        width="20ch"
        options={soilTextures.map((id) => ({ id, label: t(`texture.${id}`) }))}
        {...bind.choice('soilTexture')}
      />
      <Select
        label={t('block.cover')}
        placeholder={t('choose')}
        width="20ch"
        options={soilCovers.map((id) => ({ id, label: t(`cover.${id}`) }))}
        {...bind.choice('soilCover')}
      />
    </Fields>
  )
}
