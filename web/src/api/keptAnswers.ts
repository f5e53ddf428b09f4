import { ALL_SITES, endpoints, type Aspect } from '@bocado/contract'
import type { Query, QueryClient, QueryKey } from '@tanstack/react-query'
import { browserStore } from './browserStore.js'
import type { RestsOn } from './versions.js'

/** Answers that rest on these are worth having without a connection. */
const KEPT: ReadonlySet<Aspect> = new Set<Aspect>(['watches', 'blooms', 'counts', 'treatments', 'library'])
/** So is what rests on the site, unless it is of readings: of those there are too many. */
const isKept = (aspects: readonly Aspect[]): boolean =>
  aspects.some((aspect) => KEPT.has(aspect)) || (aspects.includes('site') && !aspects.includes('weather'))

/** Older than this an answer says nothing of a season any more. */
const KEPT_DAYS = 14

/** Keeps an answer in the browser, in place of the one before. That it cannot be kept changes nothing. */
export async function keepAnswer(query: Query<unknown, unknown>): Promise<void> {
  const on = query.meta as Partial<RestsOn> | undefined
  // Without the list of sites no screen stands; whatever else is of no site is asked for anew.
  const isList = query.queryKey[0] === endpoints.sites.list.path
  if (on?.siteId === undefined || !on.aspects || !(isList || (on.siteId !== ALL_SITES && isKept(on.aspects)))) return
  void letGoOfOld()
  try {
    const answer = { data: query.state.data, siteId: on.siteId, at: new Date(query.state.dataUpdatedAt).toISOString() }
    await (await browserStore())?.put('answer', answer, query.queryHash)
  } catch {
    // The disk is full, or the store was taken away.
  }
}

let isTidied = false

/** Lets go of answers that are too old to be shown, once in the life of a page. */
async function letGoOfOld(): Promise<void> {
  if (isTidied) return
  isTidied = true
  try {
    const db = await browserStore()
    let cursor = await db?.transaction('answer', 'readwrite').store.openCursor()
    while (cursor) {
      if (cursor.value.at < oldest()) await cursor.delete()
      cursor = await cursor.continue()
    }
  } catch {
    // They are let go by the next page.
  }
}

/** The moment before which an answer is too old. */
function oldest(): string {
  const at = new Date()
  at.setDate(at.getDate() - KEPT_DAYS)
  return at.toISOString()
}

const fieldKey = (siteId: string): string => `field ${siteId}`

/** When all that is needed in the field was read of a site, ISO; undefined where it was not, or not for whoever is here now. */
export async function readForField(siteId: string): Promise<string | undefined> {
  try {
    return (await (await browserStore())?.get('answer', fieldKey(siteId)))?.at
  } catch {
    return undefined
  }
}

/** Notes that all of it was read; it goes with the answers. */
export async function noteReadForField(siteId: string): Promise<void> {
  try {
    await (await browserStore())?.put('answer', { data: null, siteId, at: new Date().toISOString() }, fieldKey(siteId))
  } catch {
    // Then it is read again next time.
  }
}

/**
 * Shows the answer that was kept of a query which has none while no server answers. The query goes on being tried, and whatever rests on
 * what has changed since is read anew when an answer comes.
 */
export async function showKept(client: QueryClient, queryKey: QueryKey): Promise<void> {
  const query = client.getQueryCache().find({ queryKey, exact: true })
  if (!query || query.state.data !== undefined) return
  try {
    const kept = await (await browserStore())?.get('answer', query.queryHash)
    if (!kept) return
    if (kept.at < oldest()) await (await browserStore())?.delete('answer', query.queryHash)
    else if (query.state.data === undefined) client.setQueryData(queryKey, kept.data, { updatedAt: Date.parse(kept.at) })
  } catch {
    // Without it the page waits, as it would have.
  }
}
