import { endpoints, NEAR_M, type ResponseOf } from '@bocado/contract'
import { useRead, useShapes } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/ground.js'

/** What treatments keep away from near a block or part, each with how far it is, nearest first; empty where nothing is drawn. */
export function useNear(placeId: string | null): string[] {
  const t = useText()
  const f = useFormat()
  const { data: shapes = [] } = useShapes(useSite().id)
  const near = placeId === null ? [] : (shapes.find((shape) => shape.placeId === placeId)?.near ?? [])
  return near.flatMap(({ shapeId, metres }) => {
    const other = shapes.find(({ id }) => id === shapeId)
    if (!other) return []
    const name = other.name || t(`drawn.shape.${other.kind}`)
    return [metres === 0 ? t('drawn.nearIn', { name }) : t('drawn.nearOne', { name, away: f.height(metres) })]
  })
}

/** What is left of a drawn place where so many metres are kept from what lies near it; undefined until it is known, or for no distance. */
export function useClear(placeId: string, metres: number | null): ResponseOf<typeof endpoints.ground.keptClear> | undefined {
  const site = useSite()
  const isAsked = metres !== null && metres > 0 && metres <= NEAR_M
  const input = { metres: metres ?? 0 }
  const { data } = useRead(endpoints.ground.keptClear, { params: { siteId: site.id, placeId }, input }, isAsked)
  return isAsked ? data : undefined
}
