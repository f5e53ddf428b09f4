import type { BenchData } from '@bocado/contract'
import {
  BEGUN_SHARE,
  boundsOfDates,
  datesOf,
  ensembleOf,
  eventBounds,
  dayOfHeat,
  generationWindows,
  heatAtShare,
  LEAD_DAYS,
  resolveEvents,
  seasonHeat,
  type Bounds,
  type EventModel,
  type Ensemble,
  type OrganismModel,
  type SeasonDay,
  type SeasonHeat,
  type SeasonWeather,
} from '@bocado/core'

/** Numbers of a model that were changed, by the path that the library gives them; and another day from which heat counts. */
export interface BenchChange {
  figures: Readonly<Record<string, number>>
  method: OrganismModel['heat']['method'] | null
  /** Day of the season from which heat counts instead. */
  startIndex: number | null
}

export interface BenchEvent {
  id: string
  generation: string
  /** Day of the season on which 3 % and half of the population have reached it. */
  begins: Bounds
  half: Bounds
}

export interface BenchResult {
  events: BenchEvent[]
  windows: { generation: string; opens: Bounds; closes: Bounds; best: Bounds }[]
  /** For each past season the day on which each event that was seen in it would have come, and on which it was seen. */
  past: { season: string; event: string; seen: number; predicted: number }[]
  /** Days by which the chosen event moves when a number is changed by its step. */
  sensitivity: { path: string; step: number; days: number }[]
}

interface Placed {
  heat: SeasonHeat
  ensemble: Ensemble
}

const NOT_KNOWN = { p10: Infinity, p50: Infinity, p90: Infinity }
/** Of a figure without an error of its own this share is tried. */
const TENTH = 0.1
const ONE_DEGREE = 1

const extremes = (day: [number, number] | null): SeasonDay | undefined => (day ? { min: day[0], max: day[1], rain: NaN } : undefined)
const known = (days: readonly ([number, number] | null)[]): SeasonDay[] =>
  days.map((day) => extremes(day) ?? { min: NaN, max: NaN, rain: NaN })

/** The model with the changed numbers in it. */
export function changedModel(model: OrganismModel, { figures, method }: BenchChange): OrganismModel {
  const changed = structuredClone(model)
  if (method) changed.heat.method = method
  for (const [path, value] of Object.entries(figures)) {
    const [subject = '', ...rest] = path.split('.')
    const part = rest.join('.')
    if (subject === 'heat') Object.assign(changed.heat, { [part]: value })
    else if (subject === 'biofix' && changed.biofix && 'expected' in changed.biofix)
      Object.assign(changed.biofix.expected, { [part.replace('expected.', '')]: value })
    for (const generation of changed.generations) {
      const event = generation.events.find(({ id }) => id === subject)
      if (event) Object.assign(event, { [part]: value })
      if (generation.id === subject && generation.diapause && part.startsWith('diapause.'))
        Object.assign(generation.diapause, { [part.slice('diapause.'.length)]: value })
    }
  }
  return changed
}

/** A season that the page computes again and again with other numbers. Heat is summed anew only where its rule or its start changed. */
export class Bench {
  private readonly weather: SeasonWeather
  private readonly base: OrganismModel
  private readonly heats = new Map<string, Placed>()

  constructor(private readonly data: BenchData) {
    this.base = data.model as OrganismModel
    const { observed, forecast, tails, ...rest } = data.weather
    this.weather = {
      ...rest,
      observed: observed.map(extremes),
      filled: observed.map(() => 0),
      forecast: forecast.length > 0 ? forecast.map(known) : [[]],
      tails: tails.map(({ pastSeason, made, days }) => ({ pastSeason, made, days: known(days) })),
    }
  }

  /** The season with changed numbers; `of` names the event whose sensitivity is asked for. */
  run(change: BenchChange, of: string, errors: Readonly<Record<string, number>>): BenchResult {
    const model = changedModel(this.base, change)
    return {
      ...this.season(model, change.startIndex),
      past: this.past(model, change.startIndex),
      sensitivity: this.sensitivity(change, of, errors),
    }
  }

  private startDay(startIndex: number | null): number {
    return startIndex === null ? this.data.start.day : this.data.weather.firstDay + startIndex
  }

  /** Heat and draws of a model, from where it starts. */
  private placed(model: OrganismModel, startIndex: number | null): Placed {
    const start = this.startDay(startIndex)
    const key = `${JSON.stringify(model.heat)} ${start}`
    const held = this.heats.get(key)
    if (held) return held
    if (this.heats.size > 24) this.heats.clear()
    const heat = seasonHeat(this.weather, model.heat, start)
    const made = { heat, ensemble: ensembleOf(heat) }
    this.heats.set(key, made)
    return made
  }

  /** Events with the biofix where it is expected; from a day that was chosen heat counts by itself. */
  private resolved(model: OrganismModel, startIndex: number | null) {
    const expected =
      startIndex === null && model.biofix && 'expected' in model.biofix && this.data.start.expected ? model.biofix.expected : undefined
    return resolveEvents(model, expected)
  }

  private season(model: OrganismModel, startIndex: number | null): Pick<BenchResult, 'events' | 'windows'> {
    const { heat, ensemble } = this.placed(model, startIndex)
    const resolved = this.resolved(model, startIndex)
    const known = ensemble.members.length > 0
    const [begins, half] = [BEGUN_SHARE, 0.5].map((share) => (known ? eventBounds(resolved, share, ensemble) : []))
    return {
      events: resolved.map(({ id, generation }, i) => ({
        id,
        generation,
        begins: begins?.[i] ?? NOT_KNOWN,
        half: half?.[i] ?? NOT_KNOWN,
      })),
      windows: generationWindows(model, {
        events: resolved,
        heat,
        ensemble,
        shares: model.generations.map(() => 1),
      }).map(({ generation, opens, closes, best }) => ({ generation, opens, closes, best })),
    }
  }

  private past(model: OrganismModel, startIndex: number | null): BenchResult['past'] {
    return this.data.past.flatMap(({ season, firstDay, days, start, seen }) => {
      if (seen.length === 0) return []
      const observed = days.map(extremes)
      const length = observed.length - LEAD_DAYS
      const weather: SeasonWeather = {
        firstDay,
        length,
        todayIndex: length,
        observed,
        filled: days.map(() => 0),
        forecast: [[]],
        tails: [],
      }
      const from = startIndex === null ? start.day : firstDay + startIndex
      const cumulative = seasonHeat(weather, model.heat, from).members[0]?.cumulative
      if (!cumulative) return []
      const expected =
        startIndex === null && start.expected && model.biofix && 'expected' in model.biofix ? model.biofix.expected : undefined
      const resolved = resolveEvents(model, expected)
      return seen.flatMap(({ event, day, kind }) => {
        const placed = resolved.find(({ id }) => id === event)
        if (!placed) return []
        return [
          { season, event, seen: day, predicted: dayOfHeat(cumulative, heatAtShare(kind === 'first' ? BEGUN_SHARE : 0.5, placed.spread)) },
        ]
      })
    })
  }

  /** How many days the begin of an event moves when each number is put up by its error, a tenth, or a degree. */
  private sensitivity(change: BenchChange, of: string, errors: Readonly<Record<string, number>>): BenchResult['sensitivity'] {
    const begin = (c: BenchChange): number => {
      const model = changedModel(this.base, c)
      const event = this.resolved(model, c.startIndex).find(({ id }) => id === of)
      if (!event) return NaN
      const { ensemble } = this.placed(model, c.startIndex)
      if (ensemble.members.length === 0) return NaN
      return boundsOfDates(datesOf(event, BEGUN_SHARE, ensemble.members, ensemble.scores), ensemble).p50
    }
    const now = begin(change)
    const values = { ...valuesOf(this.base), ...change.figures }
    return Object.entries(values)
      .filter(([path]) => !path.endsWith('heatSe') && !path.endsWith('atShare'))
      .flatMap(([path, value]) => {
        const step = errors[path] ?? (path.startsWith('heat.') ? ONE_DEGREE : Math.abs(value) * TENTH)
        if (step <= 0) return []
        try {
          const days = begin({ ...change, figures: { ...change.figures, [path]: value + step } }) - now
          return Number.isFinite(days) && Math.abs(days) >= 0.05 ? [{ path, step, days }] : []
        } catch (error) {
          if (error instanceof RangeError) return []
          throw error
        }
      })
      .sort((a, b) => Math.abs(b.days) - Math.abs(a.days))
  }
}

/** The numbers of a model by the paths that the library gives them. */
export function valuesOf(model: OrganismModel): Record<string, number> {
  const values: Record<string, number> = { 'heat.lower': model.heat.lower }
  if (model.heat.upper !== undefined) values['heat.upper'] = model.heat.upper
  if (model.biofix && 'expected' in model.biofix) {
    values['biofix.expected.heat'] = model.biofix.expected.heat
    values['biofix.expected.heatSe'] = model.biofix.expected.heatSe
  }
  const of = (event: EventModel): [string, number][] => [
    [`${event.id}.heat`, event.heat],
    ...(event.spread === undefined ? [] : [[`${event.id}.spread`, event.spread] as [string, number]]),
    [`${event.id}.heatSe`, event.heatSe],
  ]
  for (const generation of model.generations) for (const event of generation.events) Object.assign(values, Object.fromEntries(of(event)))
  return values
}
