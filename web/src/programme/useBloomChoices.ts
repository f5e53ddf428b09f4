import { useBand } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { bloomKey } from '../band/today.js'

/** Blooms of the walk that a step may wait for, each by its key. */
export function useBloomChoices(): { id: string; label: string; plantId: string; event: string }[] {
  const site = useSite()
  const { data: band } = useBand(site.id, site.season.start)
  return (band?.blooms ?? []).map(({ plant, event, name, eventName }) => ({
    id: bloomKey({ plant, event }),
    label: `${name}, ${eventName}`,
    plantId: plant,
    event,
  }))
}
