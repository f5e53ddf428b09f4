import type { Chore } from '@bocado/contract'
import { boundsOfDates, civilDate, datesOf, dayNumber, BEGUN_SHARE, seasonLater, type PlacedModel } from '@bocado/core'
import { listBlocks } from '../blocks/store.js'
import { lastHarvests } from '../crops/service.js'
import type { Deps } from '../http/route.js'
import { isOneGround, tree } from '../places/store.js'
import { getSite } from '../sites/service.js'
import { listOwnFigures, resolvedModel, type PinnedModel } from '../watches/models.js'
import { listWatches, organismOf, type StoredWatch } from '../watches/store.js'
import { weatherOfBlocks, type GroundWeather } from '../weather/groundWeather.js'
import { datedThere, monthRuns } from './attacks.js'

/** What can be done between two seasons against what winters at a site, by when each is about again. */
export async function winterChores(deps: Deps, siteId: string): Promise<Chore[]> {
  const { db, memo } = deps
  const site = await getSite(db, deps.clock, siteId)
  const start = dayNumber(site.season.start)
  const [watches, blocks, figures, places, harvests] = [
    await listWatches(db, siteId, site.season.start),
    await listBlocks(db, siteId),
    await listOwnFigures(db, siteId),
    await tree(db, siteId),
    await lastHarvests(deps, site),
  ]
  const [thisYear, nextYear] = [
    await weatherOfBlocks(deps, site, site.season.start),
    await weatherOfBlocks(deps, site, civilDate(seasonLater(start, 1))),
  ]
  const today = dayNumber(site.today)
  const found: Chore[] = []
  for (const watch of watches) {
    const block = blocks.find(({ id }) => id === watch.blockId)
    const organism = organismOf(watch)
    const todo = todoAgainst(organism)
    // A weed lies in the ground all year: what is done against it stands at its windows.
    if (!block || organism.kind === 'weed' || todo.length === 0) continue
    const at = await thisYear(block)
    const first = firstAbout(watch, watch.pinned, watch.biofix, at, memo)
    const isAhead = first !== null && first.day > today
    const returns = isAhead
      ? first
      : firstAbout(watch, resolvedModel(organism, figures, block.id).pinned, null, await nextYear(block), memo)
    if (!returns) continue
    const picked = harvests.filter(({ placeId }) => isOneGround(places, placeId, block.id)).map(({ until }) => until)
    found.push({
      organismId: organism.id,
      name: organism.name,
      blockId: block.id,
      blockName: block.name,
      as: organism.about.winters.as,
      where: organism.about.winters.where,
      todo,
      from: isAhead ? null : (picked.sort().at(-1) ?? null),
      until: civilDate(returns.day),
      by: returns.by,
    })
  }
  return found.sort((a, b) => (a.until < b.until ? -1 : a.until > b.until ? 1 : 0))
}

/** Clearing away and work of the soil, where the entry says how, and its hygiene. */
function todoAgainst({ about }: ReturnType<typeof organismOf>): string[] {
  const cleared = about.reach.flatMap(({ method, note }) => (CLEARS.has(method) && note ? [note] : []))
  return [...new Set([...cleared, ...about.hygiene])]
}
const CLEARS: ReadonlySet<string> = new Set(['sanitation', 'tillage'])

/** The day number on which the first of an organism is about in a season: the earliest of nine in ten where a model tells it. */
function firstAbout(
  watch: StoredWatch,
  model: PinnedModel,
  biofix: string | null,
  at: GroundWeather,
  memo: Deps['memo'],
): { day: number; by: Chore['by'] } | null {
  const { firstDay } = at.weather
  const placed = datedThere(model, biofix, at, memo)
  const day = placed && firstEvent(placed)
  if (day !== null) return { day: firstDay + Math.floor(day), by: 'model' }
  const starts = monthRuns(organismOf(watch), at, memo).map(({ from }) => from)
  return starts.length > 0 ? { day: firstDay + Math.min(...starts), by: 'months' } : null
}

function firstEvent({ events, ensemble }: PlacedModel): number | null {
  const [first] = events
  const { p10 } = first ? boundsOfDates(datesOf(first, BEGUN_SHARE, ensemble.members, ensemble.scores), ensemble) : { p10: Infinity }
  return Number.isFinite(p10) ? p10 : null
}
