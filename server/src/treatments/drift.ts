import type { Block, Downwind } from '@bocado/contract'
import { driftReach, harmsHives, type ActingMeans } from '@bocado/core'
import type { Queryable } from '../database/index.js'
import { downwindOf } from '../ground/service.js'

/**
 * What must not get what drifts off a block where something is used; nothing for what has no drops, and under a cover, out of which none come.
 *
 * @param placeId the part of the block that is treated; of one that is not drawn its block stands for it
 */
export async function keptFromDrift(
  db: Queryable,
  siteId: string,
  { id, kind }: Pick<Block, 'id' | 'kind'>,
  { product, methods }: Pick<ActingMeans, 'product' | 'methods'>,
  placeId = id,
): Promise<Downwind[]> {
  const reach = kind === 'tunnel' ? null : driftReach(product)
  if (reach === null) return []
  const of = (place: string) => downwindOf(db, siteId, place, reach, harmsHives(methods))
  return (await of(placeId)) ?? (placeId === id ? undefined : await of(id)) ?? []
}
