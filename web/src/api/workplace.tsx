import type { Person, Site } from '@bocado/contract'
import { civilDate, dayNumber, seasonLater } from '@bocado/core/time'
import { noteAct } from './lastAct.js'
import { createContext, useContext, useMemo, useState, type ReactNode } from 'react'

/** Where and as whom one works: kept in this browser until accounts exist. */
interface Workplace {
  personId: string | null
  workAs: (person: Pick<Person, 'id'>) => void
}

const WorkplaceContext = createContext<Workplace>({ personId: null, workAs: () => undefined })

const KEY = 'bocado.person'

export function WorkplaceProvider({ children }: { children: ReactNode }) {
  const [personId, setPersonId] = useState<string | null>(() => localStorage.getItem(KEY))
  const value = useMemo(
    () => ({
      personId,
      workAs: ({ id }: Pick<Person, 'id'>) => {
        localStorage.setItem(KEY, id)
        setPersonId(id)
        // What somebody else did is not one's own last act.
        noteAct('nothing')
      },
    }),
    [personId],
  )
  return <WorkplaceContext value={value}>{children}</WorkplaceContext>
}

export const useWorkplace = (): Workplace => useContext(WorkplaceContext)

/** undefined above the shell, where there is no site yet. */
export const SiteContext = createContext<Site | null>(null)
export const SiteProvider = SiteContext.Provider

/** The site of the screen. Screens below the shell always have one. */
export function useSite(): Site {
  const site = useContext(SiteContext)
  if (!site) throw new Error('useSite needs a SiteProvider above it')
  return site
}

/** Which season is looked at; the screens take it as the site's own. */
export interface SeasonChoice {
  /** First day of the season now. */
  now: string
  choose: (start: string) => void
}

export const SeasonContext = createContext<SeasonChoice>({ now: '', choose: () => undefined })

/** The choice of a season, and whether a past one is looked at. */
export function useSeasonChoice(): SeasonChoice & { isPast: boolean } {
  const choice = useContext(SeasonContext)
  return { ...choice, isPast: useSite().season.start !== choice.now }
}

/** A site as it is seen in another of its seasons. */
export function inSeason(site: Site, start: string | null): Site {
  if (start === null || start === site.season.start || !site.seasons.includes(start)) return site
  return { ...site, season: { start, end: civilDate(seasonLater(dayNumber(start), 1) - 1) } }
}
