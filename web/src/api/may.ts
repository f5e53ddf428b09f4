import { useContext } from 'react'
import { SiteContext, useWorkplace } from './workplace.js'

/** Whether whoever works here may only look. Above the sites, where a site is started, everybody may. */
export function useOnlyLooks(): boolean {
  const site = useContext(SiteContext)
  const { personId } = useWorkplace()
  return site?.people.find(({ id }) => id === personId)?.role === 'viewer'
}
