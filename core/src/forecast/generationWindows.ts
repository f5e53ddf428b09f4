import { reachOf, type OrganismModel } from '../phenology/model.js'
import { seasonLater } from '../time/civilDays.js'
import { reachHeat } from '../windows/reachableCohort.js'
import { windowForecast, windowState, type WindowForecast, type WindowState } from '../windows/vulnerableWindow.js'
import { heatOfBegin } from './begun.js'
import type { PlacedModel } from './placedModel.js'
import { firstEnds } from './seasonEnd.js'

/** A generation that a smaller share of the population than this makes has no window of its own (from practice). */
export const LEAST_GENERATION = 0.05

/** The window of a generation, in days of the season. */
export interface GenerationWindow extends WindowForecast {
  generation: string
  state: WindowState
  /** Heat in °C·d at the median opening; null where it does not come. */
  opensHeat: number | null
  /** The event that begins the reachable stages, and the heat at which it has begun. */
  beginsWith: { event: string; heat: number }
}

/** The windows of a placed model: one for each generation that can be reached. None without weather to the season's end. */
export function generationWindows(
  model: Pick<OrganismModel, 'generations'>,
  {
    events,
    heat,
    ensemble,
    shares,
    ends = [],
  }: Pick<PlacedModel, 'events' | 'heat' | 'ensemble' | 'shares'> & Partial<Pick<PlacedModel, 'ends'>>,
): GenerationWindow[] {
  const length = seasonLater(heat.firstDay, 1) - heat.firstDay
  // Without weather to come nothing can be said of a window that may still be opening.
  if (heat.members.length === 0 || heat.knownDays < length) return []
  const last = firstEnds(ends)
  return model.generations.flatMap((generation, g) => {
    const reach = reachOf(events, generation.id, generation.reachableStages)
    if (!reach) return []
    const window = windowForecast(ensemble, reachHeat(reach), length, 0, last)
    const opensOn = window.opens.p50
    return [
      {
        ...window,
        generation: generation.id,
        state: (shares[g] ?? 1) < LEAST_GENERATION ? ('not-this-season' as const) : windowState(window, heat.todayIndex),
        opensHeat: Number.isFinite(opensOn) ? (heat.median[Math.floor(opensOn)] ?? null) : null,
        beginsWith: { event: reach.enter.id, heat: heatOfBegin(reach.enter) },
      },
    ]
  })
}
