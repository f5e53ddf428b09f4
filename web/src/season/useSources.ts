import { useMemo } from 'react'
import { useBand, useOrganisms } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { harvestOf } from '../band/harvest.js'
import { asScheduled } from '../band/schedule.js'
import type { SeasonSources } from '../band/season.js'
import { useSchedule } from '../schedule/useSchedule.js'

/** Everything that a season is planned from, but for what somebody chooses; null as long as some of it is not there. */
export function useSources(): Omit<SeasonSources, 'ranks' | 'hoursPerWeek'> | null {
  const site = useSite()
  const here = useSchedule(site.today)
  const { data: band } = useBand(site.id, site.season.start)
  const { data: organisms } = useOrganisms()
  return useMemo(() => {
    if (!here || !band || !organisms) return null
    const { surroundings, products, methods, blocks, all } = here
    return {
      rows: band.watches,
      blooms: band.blooms,
      products,
      methods,
      organisms,
      blocks,
      rules: surroundings.rules,
      flowers: surroundings.flowers,
      harvests: surroundings.plantings.map((planting) => ({
        blockId: surroundings.blockOf(planting.placeId),
        crop: planting.cropName,
        ahead: harvestOf(planting),
      })),
      before: surroundings.before,
      tasks: asScheduled(all, products, methods),
      season: band.season,
      usesNone: site.policy.chemicals === 'never',
    }
  }, [here, band, organisms, site])
}
