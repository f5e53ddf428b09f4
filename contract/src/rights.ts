/** What somebody is at a site. An owner is whose site it is; there is always one. */
export const roles = ['owner', 'lead', 'scout', 'applicator', 'viewer', 'volunteer'] as const
export type Role = (typeof roles)[number]

/**
 * What may be done at a site: help for a day, shown the work of it and nothing else; look at it; record what is seen (counts, blooms, finds); tend what forecasts rest on (weather, watches,
 * library); treat (plan, do and record, and keep the shelf); lead (ground, people, stations); own (archive and remove it, make owners).
 */
export const rights = ['help', 'look', 'observe', 'tend', 'treat', 'lead', 'own'] as const
export type Right = (typeof rights)[number]

/** The one table of what each role may do. */
export const MAY: Readonly<Record<Role, readonly Right[]>> = {
  owner: ['help', 'look', 'observe', 'tend', 'treat', 'lead', 'own'],
  lead: ['help', 'look', 'observe', 'tend', 'treat', 'lead'],
  scout: ['help', 'look', 'observe', 'tend'],
  applicator: ['help', 'look', 'observe', 'treat'],
  viewer: ['look'],
  volunteer: ['help'],
}

export const may = (role: Role, right: Right): boolean => MAY[role].includes(right)

/**
 * What an operation asks of whoever calls it: a right at its site, to be signed in, to be so by password or passkey (`self`), the token
 * of a device, or nothing.
 */
export type Need = Right | 'signed-in' | 'self' | 'device' | 'nothing'

/** What a code on a shared phone is not enough for: whoever saw it typed would else have it. */
export const asksForSelf = (need: Need): boolean => need === 'self' || need === 'lead' || need === 'own'
