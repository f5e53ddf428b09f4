import { partsOf } from '../api/usePlaceOptions.js'
import type { Block, Place } from '@bocado/contract'
import { Select } from '../design/controls.js'
import { useText } from '../messages/useText.js'

/** Which part of a block is meant, or the whole of it; nothing where the block has no parts. */
export function PlaceSelect(p: {
  block: Block
  places: readonly Place[]
  /** null: the whole block. */
  value: string | null
  onChange: (placeId: string | null) => void
  error?: string | undefined
}) {
  const t = useText()
  const parts = partsOf(p.places, p.block.id)
  if (parts.length === 0) return null
  const nameOf = ({ parentId, name }: Place): string => {
    const parent = parts.find(({ id }) => id === parentId)
    return parent ? t('place.within', { name, parent: nameOf(parent) }) : name
  }
  return (
    <Select
      label={t('place.where')}
      placeholder={t('choose')}
      width="24ch"
      options={[
        { id: p.block.id, label: t('place.whole', { block: p.block.name }) },
        ...parts.map((part) => ({ id: part.id, label: nameOf(part) })),
      ]}
      value={p.value ?? p.block.id}
      onChange={(id) => p.onChange(id === p.block.id ? null : id)}
      error={p.error}
    />
  )
}
