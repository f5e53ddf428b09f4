import { useCallback } from 'react'
import { usePlaces } from './hooks.js'
import { useSite } from './workplace.js'

/** The block in which a place lies; the place itself where it is one. Undefined until the places are there. */
export function useBlockOf(): ((placeId: string) => string) | undefined {
  const { data: places } = usePlaces(useSite().id)
  const blockOf = useCallback(
    (placeId: string): string => {
      for (let id = placeId; ;) {
        const parent = places?.find((place) => place.id === id)?.parentId
        if (!parent) return id
        id = parent
      }
    },
    [places],
  )
  return places && blockOf
}
