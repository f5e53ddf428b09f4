import { useContext, useEffect, useSyncExternalStore } from 'react'
import { SiteContext } from '../api/workplace.js'

interface Headed {
  /** What the page is about. */
  thing: string
  /** What of it is shown, where not everything is. */
  part: string
}

let headed: Headed = { thing: '', part: '' }
const told = new Set<() => void>()

/**
 * Names the page after what it shows: in the browser's tab and at the head of its print. Called by the screen that stands, not by one
 * around it.
 *
 * @param part What is shown of it, such as a filter; said on paper only.
 */
export function usePageTitle(thing: string | undefined, part = ''): void {
  const site = useContext(SiteContext)
  const place = site?.name ?? ''
  useEffect(() => {
    if (thing === undefined) return
    headed = { thing, part }
    document.title = [thing, place, 'Bocado'].filter((word) => word !== '').join(' · ')
    for (const tell of told) tell()
  }, [thing, part, place])
}

/** What the page that stands is named after. */
export const usePageHead = (): Headed =>
  useSyncExternalStore(
    (tell) => {
      told.add(tell)
      return () => told.delete(tell)
    },
    () => headed,
  )
