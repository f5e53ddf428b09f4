import type { Place } from '@bocado/contract'
import { useText } from '../messages/useText.js'
import { useBlocks, usePlaces } from './hooks.js'
import { useSite } from './workplace.js'
import '../messages/en/field.js'

/** The parts of a block or a part, each followed by its own. */
export const partsOf = (places: readonly Place[], parentId: string): Place[] =>
  places.filter((place) => place.parentId === parentId).flatMap((place) => [place, ...partsOf(places, place.id)])

/** Blocks, each followed by its parts by the names of both, as a list offers them. */
export function usePlaceOptions(): { id: string; label: string }[] {
  const t = useText()
  const site = useSite()
  const { data: blocks = [] } = useBlocks(site.id)
  const { data: parts = [] } = usePlaces(site.id)
  return blocks.flatMap((block) => [
    { id: block.id, label: block.name },
    ...partsOf(parts, block.id).map(({ id, name }) => ({ id, label: t('place.within', { name, parent: block.name }) })),
  ])
}
