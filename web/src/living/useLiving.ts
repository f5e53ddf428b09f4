import { endpoints } from '@bocado/contract'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'

/** Living materials that are planned, and what was said of their orders; undefined until it is there. */
export function useLiving() {
  const site = useSite()
  return useRead(endpoints.living.read, { params: { siteId: site.id }, input: {} }).data
}
