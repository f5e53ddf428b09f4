import { useSyncExternalStore } from 'react'

/** Whether the last answer came. Told by every call; shown in one place. */
let reachable = true
const listeners = new Set<() => void>()

export function noteReachable(now: boolean): void {
  if (now === reachable) return
  reachable = now
  listeners.forEach((listener) => listener())
}

export const useReachable = (): boolean =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    () => reachable,
  )
