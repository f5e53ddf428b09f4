import { endpoints, type Block } from '@bocado/contract'
import { livesIn } from '@bocado/core/growing'
import { usePlaces, useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'

/**
 * What grows in a block: as the block says, and what its crop calendar adds of this season.
 *
 * @returns it in words, and with the other words that people have for it
 */
export function useGrown(block: Block | undefined): { grows: string; alsoCalled: string } {
  const site = useSite()
  const { data: parts = [] } = usePlaces(site.id)
  const { data: plantings = [] } = useRead(endpoints.crops.list, { params: { siteId: site.id }, input: { season: site.season.start } })
  const { data: known = [] } = useRead(endpoints.crops.known, { params: { siteId: site.id }, input: {} })
  if (!block) return { grows: '', alsoCalled: '' }
  const isWithin = (id: string | undefined): boolean =>
    id !== undefined && (id === block.id || isWithin(parts.find((part) => part.id === id)?.parentId))
  const said = block.grows.trim()
  const here = plantings.filter(({ placeId }) => isWithin(placeId))
  const more = here.filter(({ cropName }) => said === '' || !livesIn(said, [cropName])).map(({ cropName }) => cropName.toLowerCase())
  const grows = [said, ...new Set(more)].filter((words) => words !== '').join(', ')
  const words = known.filter(({ id }) => here.some(({ crop }) => crop === id)).flatMap((crop) => crop.words)
  return { grows, alsoCalled: [grows, ...words].join(', ') }
}
