import type { Queryable } from '../database/index.js'
import { fieldProblem } from '../http/problems.js'
import { doesByKind, requireHandMethod, type Means } from './means.js'
import { getProduct } from './shelf.js'

/** The product or the method that is named: one of both, never both. */
export async function meansOf(
  db: Queryable,
  siteId: string,
  { productId, methodId }: { productId: string | null; methodId: string | null },
): Promise<Means> {
  if (productId !== null && methodId !== null)
    throw fieldProblem('methodId', 'name the product or the method by hand, not both: each is a deed of its own')
  if (methodId !== null) {
    const method = await requireHandMethod(db, siteId, methodId)
    return { product: null, method: { id: method.id, then: { name: method.name, ...doesByKind([method]) } } }
  }
  if (productId === null) throw fieldProblem('productId', 'choose a product, or a method that needs none')
  return { product: await getProduct(db, siteId, productId), method: null }
}
