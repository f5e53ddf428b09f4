import { endpoints, type AspectVersions, type Endpoint, type ResponseOf, type Session, type Site } from '@bocado/contract'
import { QueryCache, QueryClient, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { call, RequestProblem, Unreachable, type Call } from './client.js'
import { keepAnswer, showKept } from './keptAnswers.js'
import { isReachable, noteReachable, noteStale } from './connection.js'
import { isNoAct, noteAct } from './lastAct.js'
import { useLacking } from './may.js'
import { SESSION_WRITES, takeSession } from './takeSession.js'
import { isBehind, noteReadAt, noteVersions, restsOn } from './versions.js'
import { useSite } from './workplace.js'

const tryAgainDelay = (attempt: number): number => Math.min(500 * 2 ** attempt, 4000)

/** A fault of the server passes more often than not; a refusal does not. */
const FAULT_TRIES = 2

/** Reads and writes that got no answer are tried until one comes; a refusal is final. */
export function makeQueryClient(): QueryClient {
  const client: QueryClient = new QueryClient({
    queryCache: new QueryCache({
      // What is shown stays where it cannot be read anew, and the bar says so.
      onError: (error, query) => {
        if (query.state.data !== undefined && error instanceof RequestProblem) noteStale(query.queryHash, error.problem.detail)
      },
      onSuccess: (_, query) => {
        noteStale(query.queryHash, null)
        void keepAnswer(query)
        // Something changed while it was on its way.
        if (isBehind(query)) void client.invalidateQueries({ queryKey: query.queryKey, exact: true })
      },
    }),
    defaultOptions: {
      queries: {
        retry: (tries, error) =>
          error instanceof Unreachable || (error instanceof RequestProblem && error.problem.status >= 500 && tries < FAULT_TRIES),
        retryDelay: tryAgainDelay,
        staleTime: 15_000,
        networkMode: 'always',
        refetchOnWindowFocus: true,
        // What was refused will not come by waiting: the screen says so instead, where it has nothing to show.
        throwOnError: (error, query) => error instanceof RequestProblem && query.state.data === undefined,
      },
      mutations: { retry: (_, error) => error instanceof Unreachable, retryDelay: tryAgainDelay, networkMode: 'always' },
    },
  })
  return client
}

export const queryClient = makeQueryClient()

/** Runs a call and tells the connection whether an answer came. */
export async function watched<T>(work: Promise<T>): Promise<T> {
  try {
    const result = await work
    noteReachable(true)
    return result
  } catch (error) {
    if (error instanceof Unreachable) noteReachable(false)
    else if (error instanceof RequestProblem) noteReachable(true)
    throw error
  }
}

/** After this, what was kept of an answer is shown until it comes. */
const SLOW_MS = 1500

export function useRead<E extends Endpoint>(e: E, c: Call<E>, enabled = true, everyMs: number | false = false) {
  const client = useQueryClient()
  const queryKey = [e.path, c.params, c.input]
  return useQuery<ResponseOf<E>>({
    queryKey,
    meta: restsOn(e, c.params),
    queryFn: () => {
      // A signal that hardly is one brings no refusal, only nothing.
      const slow = setTimeout(() => void showKept(client, queryKey), isReachable() ? SLOW_MS : 0)
      return watched(call(e, c, undefined, (versions) => noteReadAt(queryKey, versions)))
        .catch((error: unknown) => {
          if (error instanceof Unreachable) void showKept(client, queryKey)
          throw error
        })
        .finally(() => clearTimeout(slow))
    },
    enabled,
    refetchInterval: everyMs,
  })
}

interface WriteVariables<E extends Endpoint> extends Call<E> {
  idempotencyKey: string
  onAnswer: ((answer: ResponseOf<E>) => void) | undefined
}

/** Reads anew what rests on what a write changed. */
export function readAnew(client: QueryClient, changed: Readonly<Record<string, AspectVersions>>): Promise<unknown> {
  const sites = Object.entries(changed)
  // A write that had been stored before, its answer lost, does not say what it changed.
  if (sites.length === 0) return client.invalidateQueries()
  return Promise.all(sites.map(([siteId, versions]) => noteVersions(client, siteId, versions, true)))
}

/** Longer than this nobody waits to hear that something was stored, however much is read anew because of it. */
export const patience = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 1500))

/**
 * A write. `save` sends it under a key of its own and tries until an answer comes; what rests on what it changed is read anew
 * afterwards.
 */
export function useWrite<E extends Endpoint>(e: E) {
  const client = useQueryClient()
  const lacking = useLacking(e)
  const mutation = useMutation<ResponseOf<E>, Error, WriteVariables<E>>({
    mutationFn: async ({ idempotencyKey, onAnswer, ...c }) => {
      let changed: Readonly<Record<string, AspectVersions>> = {}
      const answer = await watched(call(e, c as Call<E>, { idempotencyKey, onChanged: (what) => (changed = what) }))
      if (!isNoAct(e)) noteAct('fixed')
      onAnswer?.(answer)
      // Who is signed in now is so at once: not only when all was read anew, when it may be somebody else again.
      const follows = SESSION_WRITES.has(e) ? takeSession(client, answer as Session) : readAnew(client, changed)
      await Promise.race([follows, patience()])
      return answer
    },
  })
  return {
    /** @param onAnswer what is done as soon as it is stored, before what rests on it is read anew and seen */
    save: (c: Call<E>, onAnswer?: (answer: ResponseOf<E>) => void): Promise<ResponseOf<E>> =>
      mutation.mutateAsync({ ...c, onAnswer, idempotencyKey: crypto.randomUUID() }),
    /** While it is being stored, and for whoever may not. */
    isBarred: mutation.isPending || lacking !== null,
    /** What they lack for it. */
    lacking,
  }
}

/** How often the sites are asked for, with their versions, where changes are not told. */
const ASK_EVERY_MS = 4000

/** The sites, each with the versions of its aspects, which tell whether the rest is fresh. */
export const useSites = (areToldOfChanges = true) =>
  useRead(endpoints.sites.list, { params: {}, input: {} }, true, areToldOfChanges ? false : ASK_EVERY_MS)
/** The site of the screen as it is stored, in its own units. */
export function useSiteItself(): Site {
  const site = useSite()
  return useSites().data?.find(({ id }) => id === site.id) ?? site
}
export const useOrganisms = () => useRead(endpoints.watches.organisms, { params: { siteId: useSite().id }, input: {} })
export const useBlocks = (siteId: string) => useRead(endpoints.blocks.list, { params: { siteId }, input: {} })
export const usePlaces = (siteId: string) => useRead(endpoints.places.list, { params: { siteId }, input: {} })
export const useShapes = (siteId: string) => useRead(endpoints.ground.map, { params: { siteId }, input: {} })
export const useFlags = (siteId: string, on?: string) =>
  useRead(endpoints.flags.list, { params: { siteId }, input: on === undefined ? {} : { on } })
export const useTraps = (siteId: string, season: string) => useRead(endpoints.traps.list, { params: { siteId }, input: { season } })
export const useArrivals = (siteId: string) => useRead(endpoints.arrivals.list, { params: { siteId }, input: {} })
export const usePlots = (siteId: string) => useRead(endpoints.plots.list, { params: { siteId }, input: {} })
export const useHarvests = (siteId: string, season: string) => useRead(endpoints.harvests.list, { params: { siteId }, input: { season } })
export const useStations = (siteId: string) => useRead(endpoints.weather.stations, { params: { siteId }, input: {} })
export const useBand = (siteId: string, season: string) => useRead(endpoints.watches.band, { params: { siteId }, input: { season } })
export const useProducts = (siteId: string) => useRead(endpoints.treatments.products, { params: { siteId }, input: {} })
export const useOutcomes = (siteId: string, season: string) => useRead(endpoints.outcomes.list, { params: { siteId }, input: { season } })
