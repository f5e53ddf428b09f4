import type { Flag } from '@bocado/contract'
import { useCallback } from 'react'
import { useBlocks, usePlaces } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { useBlockOf } from '../api/useBlockOf.js'
import type { Ground } from '../band/triage.js'

/** What the user said of the ground of a flag: of the part on which it stands, else of its block. */
export function useGround(): (flag: Pick<Flag, 'placeId'>) => Ground {
  const site = useSite()
  const { data: blocks = [] } = useBlocks(site.id)
  const { data: places = [] } = usePlaces(site.id)
  const blockOf = useBlockOf()
  return useCallback(
    ({ placeId }) => {
      const part = places.find(({ id }) => id === placeId)
      const block = blocks.find(({ id }) => id === (blockOf?.(placeId) ?? placeId))
      return { rank: part?.rank ?? block?.rank ?? null, spreads: part?.spreads === true || block?.spreads === true }
    },
    [blocks, places, blockOf],
  )
}
