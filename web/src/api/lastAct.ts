import { endpoints, type Endpoint } from '@bocado/contract'

/** What one did last from this page: nothing yet, something that no key takes back, or how it is taken back. */
export type LastAct = 'nothing' | 'fixed' | (() => Promise<unknown>)

let last: LastAct = 'nothing'

const listeners = new Set<(act: LastAct) => void>()

export const lastAct = (): LastAct => last
export function noteAct(act: LastAct): void {
  last = act
  listeners.forEach((listener) => listener(act))
}
/** Hears of each act; the way to stop is returned. */
export function onAct(listener: (act: LastAct) => void): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

/** What stores nothing of one's own: a look at what would be stored, and the clock of the demonstration. */
export const isNoAct = ({ path }: Endpoint): boolean => /preview$/.test(path) || path.startsWith('/demo/')

const all: readonly Endpoint[] = Object.values(endpoints).flatMap((group) => Object.values<Endpoint>(group))

/** What removes a row that `e` has made; undefined where nothing does, and for whole sites, which are not removed by a key. */
export const removalOf = (e: Endpoint): Endpoint | undefined =>
  e.method === 'post' && e.path !== endpoints.sites.create.path
    ? all.find(({ method, path }) => method === 'delete' && path.startsWith(`${e.path}/:`) && !path.slice(e.path.length + 2).includes('/'))
    : undefined

/** The name of the last parameter of an address. */
export const lastParameter = (path: string): string => path.slice(path.lastIndexOf(':') + 1)
