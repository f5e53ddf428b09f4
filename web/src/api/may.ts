import { may, needOf, rights, type Endpoint, type Right, type Role } from '@bocado/contract'
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
  return role === undefined || may(role, right)
}

const isRight = (need: string): need is Right => (rights as readonly string[]).includes(need)

/** The right that whoever is signed in lacks for an operation; null where they may. */
export function useLacking(e: Endpoint): Right | null {
  const role = useRole()
  const need = needOf(e)
  return role !== undefined && isRight(need) && !may(role, need) ? need : null
}
