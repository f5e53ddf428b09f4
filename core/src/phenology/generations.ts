import { dayOfHeat } from './eventDates.js'
import { shareInDiapause } from './diapause.js'
import type { OrganismModel, ResolvedEvent } from './model.js'
import { heatAtShare } from './spread.js'

const QUANTILES = 20

/**
 * Share of the population that makes each generation, 0..1, in the order of the model: the first is 1, each later one lacks what
 * went into diapause in the one before. Each quantile of the sensitive stage meets the length of its own day; one that the season
 * does not bring to it winters as it is.
 *
 * @param cumulative °C·d through each day of the season
 * @param dayLength hours of daylight on a day of the season
 */
export function generationShares(
  model: Pick<OrganismModel, 'generations'>,
  events: readonly ResolvedEvent[],
  cumulative: ArrayLike<number>,
  dayLength: (dayIndex: number) => number,
): number[] {
  let share = 1
  return model.generations.map(({ diapause }) => {
    const own = share
    const at = diapause && events.find(({ id }) => id === diapause.at)
    if (diapause && at) {
      let goingOn = 0
      for (let q = 0; q < QUANTILES; q++) {
        const day = dayOfHeat(cumulative, heatAtShare((q + 0.5) / QUANTILES, at.spread))
        if (day !== Infinity) goingOn += 1 - shareInDiapause(dayLength(Math.floor(day)), diapause)
      }
      share *= goingOn / QUANTILES
    }
    return own
  })
}
