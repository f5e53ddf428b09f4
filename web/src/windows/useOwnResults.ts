import { endpoints, type Outcome } from '@bocado/contract'
import { useMemo } from 'react'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'

/** What was judged of a treatment against a check. */
export interface OwnResult {
  name: string
  treatedOn: string
  comparison: NonNullable<Outcome['comparison']>
}

/** Treatments of one season against an organism that were judged against a check; none where the season has none. */
function useResultsOf(season: string | undefined, organismId: string): OwnResult[] | undefined {
  const site = useSite()
  const params = { siteId: site.id }
  const input = { season: season ?? site.season.start }
  const { data: outcomes } = useRead(endpoints.outcomes.list, { params, input }, season !== undefined)
  const { data: watches } = useRead(endpoints.watches.list, { params, input }, season !== undefined)
  return useMemo(() => {
    if (season === undefined) return []
    if (!outcomes || !watches) return undefined
    const own = new Set(watches.filter((watch) => watch.organismId === organismId).map(({ id }) => id))
    return outcomes.flatMap(({ watchId, productName, treatedOn, comparison }) =>
      comparison && own.has(watchId) ? [{ name: productName, treatedOn, comparison }] : [],
    )
  }, [season, outcomes, watches, organismId])
}

/** What ways to act did here in the last three seasons, the newest first; undefined until it is there. */
export function useOwnResults(organismId: string): OwnResult[] | undefined {
  const { seasons } = useSite()
  const [now, last, before] = [
    useResultsOf(seasons[0], organismId),
    useResultsOf(seasons[1], organismId),
    useResultsOf(seasons[2], organismId),
  ]
  return useMemo(
    () => (now && last && before ? [...now, ...last, ...before].sort((a, b) => b.treatedOn.localeCompare(a.treatedOn)) : undefined),
    [now, last, before],
  )
}
