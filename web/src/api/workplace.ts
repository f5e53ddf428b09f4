import type { Session, Settings, Site } from '@bocado/contract'
import { civilDate, dayNumber, seasonLater } from '@bocado/core/time'
import { createContext, useContext } from 'react'

/** As whom one works: whoever is signed in. */
export interface Workplace {
  personId: string | null
  name: string
  /** In by a code, on a phone that is handed on. */
  byCode: boolean
  /** In which units they read it; null: as each site has them. */
  units: Settings['units']
  /** In the demonstration, who else one may be by one press; null elsewhere. */
  others: Session['demo']
}

export const WorkplaceContext = createContext<Workplace>({ personId: null, name: '', byCode: false, units: null, others: null })
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
  return { ...choice, isPast: useSite().season.start < choice.now }
}

/** A site as it is seen in another of its seasons. */
export function inSeason(site: Site, start: string | null): Site {
  if (start === null || start === site.season.start || !site.seasons.includes(start)) return site
  return { ...site, season: { start, end: civilDate(seasonLater(dayNumber(start), 1) - 1) } }
}

/** A site as somebody reads it who has units of their own. */
export const inUnits = (site: Site, units: Settings['units']): Site => (units === null || units === site.units ? site : { ...site, units })
