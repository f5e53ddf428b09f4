import { asksForSelf, may, needOf, rights, type Endpoint, type Right, type Role } from '@bocado/contract'
import { useContext } from 'react'
import { SiteContext, useWorkplace } from './workplace.js'

/** What whoever is signed in is at the site of the screen; undefined above the sites. */
export function useRole(): Role | undefined {
  const site = useContext(SiteContext)
  const { personId } = useWorkplace()
  return site?.people.find(({ id }) => id === personId)?.role
}

/** Whether whoever is signed in may do something at the site of the screen. Above the sites, where one is started, everybody may. */
export function useMay(right: Right): boolean {
  const role = useRole()
  const { byCode } = useWorkplace()
  if (byCode && asksForSelf(right)) return false
  return role === undefined || may(role, right)
}

const isRight = (need: string): need is Right => (rights as readonly string[]).includes(need)

/** What whoever is signed in lacks for an operation: a right, or to be in by more than a code; null where they may. */
export type Lacking = Right | 'self' | null

export function useLacking(e: Endpoint): Lacking {
  const role = useRole()
  const { byCode } = useWorkplace()
  const need = needOf(e)
  if (role !== undefined && isRight(need) && !may(role, need)) return need
  return byCode && asksForSelf(need) ? 'self' : null
}
