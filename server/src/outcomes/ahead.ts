import type { ResponseOf, outcomes } from '@bocado/contract'
import { civilDate, dayNumber, seasonLater } from '@bocado/core'
import { listBlocks } from '../blocks/store.js'
import type { Deps } from '../http/route.js'
import { getSite } from '../sites/service.js'
import { windowsAt } from '../watches/forecast.js'
import { listWatches, organismOf } from '../watches/store.js'
import { weatherOfBlocks } from '../weather/groundWeather.js'

/**
 * Windows of the season after one, for what is watched in it: by its numbers and by the seasons of weather that the place knows. What has no
 * dates by its model, or starts from a biofix that nobody can foretell, has none here.
 */
export async function windowsAhead(deps: Deps, siteId: string, season: string): Promise<ResponseOf<typeof outcomes.ahead>> {
  const [site, watches, blocks] = await Promise.all([
    getSite(deps.db, deps.clock, siteId),
    listWatches(deps.db, siteId, season),
    listBlocks(deps.db, siteId),
  ])
  const next = civilDate(seasonLater(dayNumber(season), 1))
  const weatherOf = await weatherOfBlocks(deps, site, next)
  const windows: ResponseOf<typeof outcomes.ahead>['windows'] = []
  for (const watch of watches) {
    const block = blocks.find(({ id }) => id === watch.blockId)
    if (!block || watch.pinned.confidence === 'placeholder') continue
    for (const { generation, generationName, opens, closes } of windowsAt(
      organismOf(watch),
      watch.pinned,
      null,
      await weatherOf(block),
      deps.memo,
    ))
      if (opens.p50 !== null) windows.push({ watchId: watch.id, generation, generationName, opens, closes })
  }
  return { season: next, windows }
}
