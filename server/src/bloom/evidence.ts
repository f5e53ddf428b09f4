import type { BloomOverview, BloomRecord, BloomShift, Site } from '@bocado/contract'
import { bloomEvidence, dayNumber, type BloomEvidence, type BloomPlant, type BloomSighting, type PlacedBloom } from '@bocado/core'
import { indicatorModel, indicators } from '@bocado/library'
import type { Block } from '@bocado/contract'
import type { Deps } from '../http/route.js'
import { weatherOfBlocks, type GroundWeather } from '../weather/groundWeather.js'
import { ownModel, ownPlants } from './plants.js'
import { bloomVersion, listBloomRecords } from './store.js'

type UsedBloom = BloomOverview['stations'][number]['used'][number]

/** A record as the computation takes it. */
export interface Sighting extends BloomSighting {
  record: BloomRecord
}

/** The library's bloom plants as models. */
export const bloomPlants: readonly (BloomPlant & { name: string })[] = indicators.map((plant) => ({
  ...indicatorModel(plant),
  id: plant.id,
  name: plant.name,
}))

/** What one station's blooms say of the season. */
export interface StationBloom {
  stationId: string
  stationName: string
  shift: BloomShift | null
  used: UsedBloom[]
  placed: PlacedBloom<Sighting>[]
}

/** Blooms of a site on their scales of heat, station by station, with what they say of this season. */
export async function bloomsByStation(deps: Deps, site: Site, blocks: readonly Block[]): Promise<StationBloom[]> {
  const version = await bloomVersion(deps.db, site.id)
  const own = await ownPlants(deps.db, site.id)
  const season = site.season.start
  const weatherOf = await weatherOfBlocks(deps, site, season)
  const main = await weatherOf(null)
  const followed = new Map<string, GroundWeather>()
  const stationOfBlock = new Map<string, string>()
  for (const block of blocks) {
    const weather = await weatherOf(block)
    // Under a cover nothing of the lane blooms by the same air.
    if (!weather.followed || weather.place?.covered) continue
    stationOfBlock.set(block.id, weather.followed.station.id)
    followed.set(weather.followed.station.id, weather)
  }
  if (main.followed) followed.set(main.followed.station.id, main)
  const key = `bloom ${site.id} ${version} ${own.map(({ id }) => id).join()} ${site.today} ${[...followed.values()].map(({ key: k }) => k).join()}`
  return deps.memo.get(key, async () => {
    const records = await listBloomRecords(deps.db, site.id)
    return [...followed].map(([stationId, weather]) => {
      const here = records.filter(({ blockId }) => (blockId ? stationOfBlock.get(blockId) : main.followed?.station.id) === stationId)
      const evidence = bloomEvidence([...bloomPlants, ...own.map(ownModel)], here.map(sightingOf), weather, dayNumber(site.today))
      return { stationId, stationName: weather.followed?.station.name ?? '', ...shown(evidence), placed: evidence.placed }
    })
  })
}

const sightingOf = (record: BloomRecord): Sighting => ({
  record,
  plantId: record.plantId,
  event: record.event,
  season: dayNumber(record.season),
  seenFrom: dayNumber(record.seenFrom),
  seenTo: dayNumber(record.seenTo),
  notYet: record.notYet,
})

const shown = ({ shift, used }: BloomEvidence<Sighting>): Pick<StationBloom, 'shift' | 'used'> => ({
  shift: shift ?? null,
  used: used.map(({ sighting: { record }, heat, expected, sd, ownYears }) => ({
    recordId: record.id,
    plantId: record.plantId,
    event: record.event,
    heat,
    expected,
    sd,
    notYet: record.notYet,
    ownYears,
  })),
})
