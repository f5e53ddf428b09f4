import { useMemo } from 'react'
import { useArrivals, useBand, useBlocks, useFlags, useOrganisms, usePlaces, usePlots, useShapes, useTraps } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'

/** Everything that the walk is made from; null as long as some of it is not there. */
export function useWalked() {
  const site = useSite()
  const { data: band } = useBand(site.id, site.season.start)
  const { data: blocks } = useBlocks(site.id)
  const { data: places } = usePlaces(site.id)
  const { data: organisms } = useOrganisms()
  const { data: traps } = useTraps(site.id, site.season.start)
  const { data: flags } = useFlags(site.id)
  const { data: plots } = usePlots(site.id)
  const { data: shapes } = useShapes(site.id)
  const { data: arrivals } = useArrivals(site.id)
  return useMemo(
    () =>
      band && blocks && places && organisms && traps && flags && plots && shapes && arrivals
        ? { band, blocks, places, organisms, traps, flags: flags.flags, plots: plots.plots, shapes, arrivals }
        : null,
    [band, blocks, places, organisms, traps, flags, plots, shapes, arrivals],
  )
}
export type Walked = NonNullable<ReturnType<typeof useWalked>>
