import { ALL_SITES, aspects, type Aspect, type AspectVersions, type Endpoint } from '@bocado/contract'
import { hashKey, type Query, type QueryClient, type QueryKey } from '@tanstack/react-query'

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

/** The versions that answers were read at, by their query. */
const readAt = new Map<string, AspectVersions>()

/** Forgets all versions; for tests. */
export function forgetVersions(): void {
  known.clear()
  readAt.clear()
}

/** Takes note of which versions the answer of a query tells. */
export const noteReadAt = (key: QueryKey, versions: AspectVersions): void => void readAt.set(hashKey(key), versions)

/** Whether what a query shows was read before something that is known to have happened; undefined where its answer did not say. */
function isOlder({ queryHash, meta }: Pick<Query, 'queryHash' | 'meta'>): boolean | undefined {
  const at = readAt.get(queryHash)
  const on = meta as Partial<RestsOn> | undefined
  if (!at || on?.siteId === undefined) return undefined
  const now = known.get(on.siteId) ?? {}
  return (on.aspects ?? aspects).some((aspect) => (now[aspect] ?? 0) > (at[aspect] ?? 0))
}

/** Whether an answer that came just now is older than what was heard meanwhile. */
export const isBehind = (query: Pick<Query, 'queryHash' | 'meta'>): boolean => isOlder(query) === true

/**
 * Takes note of versions of a site, wherever they come from, and reads anew what was read before them. Of answers that do not say when they
 * were read, the first versions that are heard of a site are those.
 *
 * @param areRaised whether they are known to have risen just now, by a write of one's own
 * @returns when what was on the screen has been read
 */
export function noteVersions(client: QueryClient, siteId: string, versions: AspectVersions, areRaised = false): Promise<void> {
  const before = known.get(siteId)
  known.set(siteId, { ...before, ...higher(before ?? {}, versions) })
  const risen = before || areRaised ? (Object.keys(higher(before ?? {}, versions)) as Aspect[]) : []
  return client.invalidateQueries(
    { predicate: (query) => (rests(query, siteId, aspects) && isOlder(query)) ?? rests(query, siteId, risen) },
    // What is on its way comes first, however often something changes meanwhile; it is asked for again where it is behind then.
    { cancelRefetch: false },
  )
}

/** Those versions that are higher than the ones before. */
function higher(before: AspectVersions, versions: AspectVersions): AspectVersions {
  return Object.fromEntries(Object.entries(versions).filter(([aspect, version]) => version > (before[aspect as Aspect] ?? 0)))
}

function rests({ meta }: Query, siteId: string, risen: readonly Aspect[]): boolean {
  const on = meta as Partial<RestsOn> | undefined
  return on?.siteId === siteId && (on.aspects ?? aspects).some((aspect) => risen.includes(aspect))
}
