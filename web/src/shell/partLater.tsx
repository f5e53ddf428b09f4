import { lazy, Suspense, type ComponentType } from 'react'
import { Waiting } from './Waiting.js'

/** A part of a screen that few open at once: its code comes when somebody asks for it, so that the screen stands sooner. */
export function partLater<P extends object>(fetched: () => Promise<ComponentType<P>>): ComponentType<P> {
  const Part = lazy(async () => ({ default: await fetched() })) as unknown as ComponentType<P>
  return (p: P) => (
    <Suspense fallback={<Waiting />}>
      <Part {...p} />
    </Suspense>
  )
}
