import { useText } from '../messages/useText.js'
import { useBlocks, usePlaces } from './hooks.js'
import { useSite } from './workplace.js'
import '../messages/en/field.js'

/** Blocks, then their parts by the names of both, as a list offers them. */
export function usePlaceOptions(): { id: string; label: string }[] {
  const t = useText()
  const site = useSite()
  const { data: blocks = [] } = useBlocks(site.id)
  const { data: parts = [] } = usePlaces(site.id)
  const nameOf = (id: string): string => [...blocks, ...parts].find((place) => place.id === id)?.name ?? ''
  return [
    ...blocks.map(({ id, name }) => ({ id, label: name })),
    ...parts.map(({ id, name, parentId }) => ({ id, label: t('place.within', { name, parent: nameOf(parentId) }) })),
  ]
}
