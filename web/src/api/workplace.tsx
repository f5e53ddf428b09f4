import type { Person, Site } from '@bocado/contract'
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
