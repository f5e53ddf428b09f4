import { requireFinite, requirePositive } from '../guards.js'
import { normalQuantile } from '../statistics/normal.js'
import { combineEvidence, type Estimate } from './combineEvidence.js'
import { dayOfHeat } from './eventDates.js'

/** An event as one season showed it: the figure in °C·d that the season alone would give, and how far its dating may be off. */
export interface SeasonFigure {
  heat: number
  /** Standard deviation in °C·d of the dating alone: visit gap, catches, biofix. */
  datingSd: number
}

/** What a site's seasons make of a figure of the library. */
export interface CalibratedFigure {
  /** The figure itself and its standard error, in °C·d. */
  figure: Estimate
  /** Standard deviation between years in °C·d that the records, or without enough of them the library, speak for. */
  yearSd: number
  /** How far the next season may lie from `figure`: its error and that between years together. */
  heatSe: number
  /** Share of the result that rests on the site's records, 0..1. */
  weight: number
}

/** Of a figure's variance, what is uncertainty of the figure itself; the rest is between years. One season then moves it by a third at most. */
const OF_THE_FIGURE = 1 / 3
/** The library's variance between years counts as much as this many seasons. */
const PRIOR_SEASONS = 3

/**
 * Updates a published figure by the site's own seasons: normal–normal, by precision (Gelman et al. 2013). `prior.sd` holds the
 * uncertainty of the figure and the difference between years, and is split between both; the variance between years is itself
 * corrected by what the seasons show. With one season the figure moves a little, with ten the records dominate.
 *
 * @throws RangeError for a non-finite value or an sd not above 0
 */
export function calibrateFigure(prior: Estimate, seasons: readonly SeasonFigure[]): CalibratedFigure {
  requireFinite('prior.mean', prior.mean)
  requirePositive('prior.sd', prior.sd)
  seasons.forEach(({ heat, datingSd }, i) => {
    requireFinite(`seasons[${i}].heat`, heat)
    requirePositive(`seasons[${i}].datingSd`, datingSd)
  })
  const priorYears = (1 - OF_THE_FIGURE) * prior.sd ** 2
  const yearSd = Math.sqrt(betweenYears(priorYears, seasons))
  const own = { mean: prior.mean, sd: prior.sd * Math.sqrt(OF_THE_FIGURE) }
  const figure = combineEvidence(
    own,
    seasons.map(({ heat, datingSd }) => ({ value: heat, sd: Math.hypot(yearSd, datingSd) })),
  )
  return { figure, yearSd, heatSe: Math.hypot(figure.sd, yearSd), weight: 1 - (figure.sd / own.sd) ** 2 }
}

/** Variance between years: the library's, and the seasons' own scatter less what their dating explains. */
function betweenYears(prior: number, seasons: readonly SeasonFigure[]): number {
  const n = seasons.length
  if (n < 2) return prior
  const mean = seasons.reduce((sum, { heat }) => sum + heat, 0) / n
  const scatter = seasons.reduce((sum, { heat }) => sum + (heat - mean) ** 2, 0)
  const dating = seasons.reduce((sum, { datingSd }) => sum + datingSd ** 2, 0) / n
  const own = Math.max(0, scatter - (n - 1) * dating)
  return (PRIOR_SEASONS * prior + own) / (PRIOR_SEASONS + n - 1)
}

/** A season with its date and its heat, for judging forecasts of it. */
export interface JudgedSeason extends SeasonFigure {
  /** Day of the season, fraction included, on which the event was seen. */
  day: number
  /** °C·d from the biofix through each day of that season. */
  cumulative: ArrayLike<number>
  /** °C·d to add to the figure to get the heat of the event in this season's sum, such as an anchor that it counts from. */
  offset: number
}

/** How well a figure tells an event's date, over seasons that it does not rest on. */
export interface CalibrationSkill {
  /** Mean of predicted less seen, in days: above 0 the forecast is late. */
  bias: number
  /** Mean absolute error in days. */
  error: number
  /** Share of the seasons whose date lies between the 10th and 90th percentile. */
  coverage: number
  seasons: number
}

const Z90 = normalQuantile(0.9)

/**
 * Skill of a figure over seasons in days. Each season is predicted without itself: with `leaveOneOut` by the prior updated by the
 * others, otherwise by the prior alone. Undefined where no season's heat reaches the event.
 */
export function calibrationSkill(prior: Estimate, seasons: readonly JudgedSeason[], leaveOneOut: boolean): CalibrationSkill | undefined {
  let n = 0
  let bias = 0
  let error = 0
  let inside = 0
  seasons.forEach((season, i) => {
    const others = leaveOneOut ? seasons.filter((_, k) => k !== i) : []
    const { figure, heatSe } = calibrateFigure(prior, others)
    const at = (heat: number): number => dayOfHeat(season.cumulative, heat + season.offset)
    const predicted = at(figure.mean)
    if (!Number.isFinite(predicted)) return
    const width = Z90 * Math.hypot(heatSe, season.datingSd)
    n++
    bias += predicted - season.day
    error += Math.abs(predicted - season.day)
    if (season.day >= at(figure.mean - width) && season.day <= at(figure.mean + width)) inside++
  })
  return n === 0 ? undefined : { bias: bias / n, error: error / n, coverage: inside / n, seasons: n }
}
