import { useEffect, useState, useSyncExternalStore, type ComponentType } from 'react'
import { Waiting } from './Waiting.js'

/** What stands where nothing does. */
export const Nothing = (): null => null

export interface Meanwhile<P extends object> {
  /** What stands in its place until it is here; that it is waited for, where nothing is given. */
  meanwhile?: ComponentType<P>
  /** What stands in its place where its code does not come; the screen is told of it, where nothing is given. */
  missing?: ComponentType<P>
}

/**
 * A part of a screen that few open at once: its code comes when somebody asks for it, so that the screen stands sooner. It stands as soon as
 * it is here: what waits by way of `Suspense` is held back by React for some tenths of a second, one part behind the other.
 */
export function partLater<P extends object>(
  fetched: () => Promise<ComponentType<P>>,
  { meanwhile: Meanwhile = Waiting, missing }: Meanwhile<P> = {},
): ComponentType<P> {
  let here: ComponentType<P> | undefined
  const listeners = new Set<() => void>()
  const hear = (listener: () => void): (() => void) => {
    listeners.add(listener)
    return () => listeners.delete(listener)
  }
  const fetch = async (): Promise<void> => {
    here = await fetched()
    for (const listener of listeners) listener()
  }
  return function Later(p: P) {
    const Part = useSyncExternalStore(hear, () => here)
    const [failed, setFailed] = useState<{ cause: unknown } | null>(null)
    useEffect(() => {
      if (!here) void fetch().catch((cause: unknown) => setFailed({ cause }))
    }, [])
    if (Part) return <Part {...p} />
    if (!failed) return <Meanwhile {...p} />
    if (!missing) throw failed.cause
    const Missing = missing
    return <Missing {...p} />
  }
}
