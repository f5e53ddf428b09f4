import { dayOfHeat } from './eventDates.js'
import { shareInDiapause } from './diapause.js'
import type { OrganismModel, ResolvedEvent } from './model.js'
import { heatAtShare, type Spread } from './spread.js'

const QUANTILES = 20

/** Generations as day length leaves them. */
export interface Generations {
  /** Share of the population that makes each generation, 0..1, in the order of the model. */
  shares: number[]
  /** All events, those of later generations where the ones that go on bring them. */
  events: ResolvedEvent[]
}

/**
 * What day length leaves of each generation: the first is whole, each later one lacks what went into diapause in the one before. Each
 * quantile of the sensitive stage meets the length of its own day; one that the season does not bring to it winters as it is. Those that
 * go on are the early ones, so that what they bring is earlier, and nearer together, than all of the generation would have brought it.
 *
 * @param cumulative °C·d through each day of the season
 * @param dayLength hours of daylight on a day of the season
 */
export function generationsByDiapause(
  model: Pick<OrganismModel, 'generations'>,
  events: readonly ResolvedEvent[],
  cumulative: ArrayLike<number>,
  dayLength: (dayIndex: number) => number,
): Generations {
  let share = 1
  let placed = [...events]
  const shares = model.generations.map(({ diapause }, g) => {
    const own = share
    const at = diapause && placed.find(({ id }) => id === diapause.at)
    if (diapause && at) {
      const heats = Array.from({ length: QUANTILES }, (_, q) => heatAtShare((q + 0.5) / QUANTILES, at.spread))
      const goingOn = heats.map((heat) => {
        const day = dayOfHeat(cumulative, heat)
        return day === Infinity ? 0 : 1 - shareInDiapause(dayLength(Math.floor(day)), diapause)
      })
      const kept = goingOn.reduce((a, b) => a + b, 0) / QUANTILES
      share *= kept
      const later = new Set(model.generations.slice(g + 1).map(({ id }) => id))
      if (kept > 0)
        placed = placed.map((event) => (later.has(event.generation) ? { ...event, spread: ofThose(event.spread, heats, goingOn) } : event))
    }
    return own
  })
  return { shares, events: placed }
}

/** Of its width a later event keeps at least this share, however narrow those that go on are (from practice). */
const LEAST_WIDTH = 0.3

/** A later event as those bring it that go on: moved by how much earlier they are, narrower by how much nearer together. */
function ofThose(spread: Spread, heats: readonly number[], weights: readonly number[]): Spread {
  if (spread.kind === 'weibull') return spread
  const total = weights.reduce((a, b) => a + b, 0)
  const mean = heats.reduce((sum, heat, q) => sum + heat * (weights[q] as number), 0) / total
  const all = heats.reduce((a, b) => a + b, 0) / heats.length
  const variance = heats.reduce((sum, heat, q) => sum + (heat - mean) ** 2 * (weights[q] as number), 0) / total
  const whole = heats.reduce((sum, heat) => sum + (heat - all) ** 2, 0) / heats.length
  const sd = Math.sqrt(Math.max((LEAST_WIDTH * spread.sd) ** 2, spread.sd ** 2 + variance - whole))
  return { ...spread, median: spread.median + mean - all, sd }
}
