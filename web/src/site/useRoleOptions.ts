import { may, roles, type Role } from '@bocado/contract'
import { useRole } from '../api/may.js'
import { useText } from '../messages/useText.js'
import '../messages/en/site.js'

/** Roles that whoever is signed in may give, each with what it may do. */
export function useRoleOptions(): { id: Role; label: string }[] {
  const t = useText()
  const mine = useRole()
  return roles
    .filter((role) => role !== 'owner' || (mine !== undefined && may(mine, 'own')))
    .map((role) => ({ id: role, label: t('person.roleMay', { role: t(`role.${role}`), may: t(`does.${role}`) }) }))
}
