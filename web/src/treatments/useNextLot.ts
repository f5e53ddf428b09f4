import { endpoints, type Label } from '@bocado/contract'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'

/** The lot that is used up next: of those that can still be used and have anything left, the one that ends first. Null where there is none. */
export function useNextLot(label: Label | null, isKnown: boolean): string | null {
  const site = useSite()
  const isAsked = label !== null && !isKnown
  const { data: lots = [] } = useRead(endpoints.equipment.lots, { params: { siteId: site.id }, input: {} }, isAsked)
  if (!isAsked) return null
  const [next] = lots
    .filter(
      ({ productId, expiresOn, left }) => productId === label.id && (expiresOn === null || expiresOn >= site.today) && (left ?? 1) > 0,
    )
    .sort((a, b) => (a.expiresOn ?? '9999').localeCompare(b.expiresOn ?? '9999'))
  return next?.id ?? null
}
