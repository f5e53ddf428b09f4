import type { Label } from '@bocado/contract'
import { useBlocks, usePlaces } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { rateFor } from '../band/gate.js'

/** The highest rate that a label allows against an organism at a place; null where nothing with a label is used. */
export function useMostRate(label: Label | null, organismId: string, placeId: string): number | null {
  const site = useSite()
  const { data: blocks = [] } = useBlocks(site.id)
  const { data: places = [] } = usePlaces(site.id)
  if (!label) return null
  const blockOf = (id: string | null | undefined): string | undefined => {
    if (id == null) return undefined
    return blocks.find((block) => block.id === id)?.grows ?? blockOf(places.find((part) => part.id === id)?.parentId)
  }
  return rateFor(label, organismId, blockOf(placeId) ?? '')
}
