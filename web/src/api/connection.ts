import { useSyncExternalStore } from 'react'

/** Whether the last answer came; before any, whether the device says that it is on a network. Told by every call; shown in one place. */
let reachable = !(typeof navigator === 'object' && navigator.onLine === false)
const listeners = new Set<() => void>()

export const isReachable = (): boolean => reachable

export function noteReachable(now: boolean): void {
  if (now === reachable) return
  reachable = now
  listeners.forEach((listener) => listener())
}

/** Hears when an answer comes again after none did; the way to hear no more is returned. */
export function onReachable(listener: () => void): () => void {
  const heard = (): void => {
    if (reachable) listener()
  }
  listeners.add(heard)
  return () => listeners.delete(heard)
}

/** What is shown but could not be read anew, by its query, with the server's reason. */
let stale: ReadonlyMap<string, string> = new Map()

/** Notes that something shown could not be read anew, or (`null`) that it could. */
export function noteStale(query: string, reason: string | null): void {
  if ((stale.get(query) ?? null) === reason) return
  const next = new Map(stale)
  if (reason === null) next.delete(query)
  else next.set(query, reason)
  stale = next
  listeners.forEach((listener) => listener())
}

/** Reasons why something that is shown may be out of date; empty where all is fresh. */
export const useStale = (): ReadonlyMap<string, string> =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    () => stale,
  )

export const useReachable = (): boolean =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    () => reachable,
  )
