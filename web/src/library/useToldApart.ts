import { endpoints, type ToldApart } from '@bocado/contract'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'

/** What is to be told from its look-alikes. */
export interface Subject {
  watchId: string
  organismId: string
  name: string
}

/** Whether what is watched has been told from its protected look-alikes; undefined until that is known. */
export function useToldApart(watchId: string): ToldApart | undefined {
  const site = useSite()
  return useRead(endpoints.library.toldApart, { params: { siteId: site.id, watchId }, input: {} }).data
}
