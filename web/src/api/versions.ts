import { ALL_SITES, aspects, type Aspect, type AspectVersions, type Endpoint } from '@bocado/contract'
import type { Query, QueryClient } from '@tanstack/react-query'

/** What a query rests on: of which site, and which of its aspects. */
export interface RestsOn extends Record<string, unknown> {
  siteId: string
  aspects: readonly Aspect[]
}

/** What the answer of a read changes with; the list of sites has no site of its own. */
export const restsOn = (e: Endpoint, params: unknown): RestsOn => ({
  siteId: (params as { siteId?: string } | undefined)?.siteId ?? ALL_SITES,
  aspects: e.restsOn ?? aspects,
})

/** The versions that what is shown goes by, by site. */
const known = new Map<string, AspectVersions>()

/** Forgets all versions; for tests. */
export const forgetVersions = (): void => known.clear()

/**
 * Takes note of versions of a site, wherever they come from, and reads anew what rests on those that have risen. The first that are heard of
 * a site are those that it was read with.
 *
 * @param areRaised whether they are known to have risen just now, by a write of one's own
 * @returns when what was on the screen has been read
 */
export function noteVersions(client: QueryClient, siteId: string, versions: AspectVersions, areRaised = false): Promise<void> {
  const before = known.get(siteId)
  known.set(siteId, { ...before, ...higher(before ?? {}, versions) })
  if (!before && !areRaised) return Promise.resolve()
  const risen = Object.keys(higher(before ?? {}, versions)) as Aspect[]
  if (risen.length === 0) return Promise.resolve()
  return client.invalidateQueries({ predicate: (query) => rests(query, siteId, risen) })
}

/** Those versions that are higher than the ones before. */
function higher(before: AspectVersions, versions: AspectVersions): AspectVersions {
  return Object.fromEntries(Object.entries(versions).filter(([aspect, version]) => version > (before[aspect as Aspect] ?? 0)))
}

function rests({ meta }: Query, siteId: string, risen: readonly Aspect[]): boolean {
  const on = meta as Partial<RestsOn> | undefined
  return on?.siteId === siteId && (on.aspects ?? aspects).some((aspect) => risen.includes(aspect))
}
