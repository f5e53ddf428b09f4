import { infectionDays, type InfectionDay, type InfectionModel } from '../infection/infectionDays.js'
import { boundsOfDates } from '../phenology/ensemble.js'
import { dayOfHeat } from '../phenology/eventDates.js'
import type { OrganismModel } from '../phenology/model.js'
import { bounds, type Bounds } from '../statistics/quantile.js'
import { sameDayInYear, seasonLater } from '../time/civilDays.js'
import { knownPastYears } from '../derived/normals.js'
import type { SeasonHeat } from '../weather/seasonHeat.js'
import { followedBy, hoursAhead, hoursOfDays, wetHoursAt } from './hoursOfSeason.js'
import { makeAnew, type Keep } from './keep.js'
import type { PlaceRecord, SeasonAtPlace, Wetting } from './seasonAtPlace.js'

/** A day of the season that allowed an infection, or may. */
export interface ForecastInfection {
  /** Day of the season. */
  day: number
  /** Share of the ways the weather may go in which it comes; 1 for a day that has passed. */
  probability: number
  /** Whether the hours it rests on are known; otherwise it is possible. */
  certain: boolean
  severity: number
  total: number | null
  /** Last day of the season on which a curative material still reaches it; null where none does. */
  curativeUntil: number | null
  /** Days of the season on which symptoms should show; null where it is not looked at any more, or not known. */
  symptoms: Bounds | null
}

/** What a disease asks for today. */
export type InfectionState = 'protect' | 'cure' | 'quiet' | 'coming' | 'over' | 'unknown'

/** Infections of a season: those that the weather allowed, those that the days ahead may bring, and what follows from each. */
export interface InfectionForecast {
  model: InfectionModel['kind']
  state: InfectionState
  /** Days of the season between which host and source allow infection; null: not within what is known. */
  from: number | null
  until: number | null
  /** Oldest first. */
  days: ForecastInfection[]
  /** Accumulated value or index today, and the one at which protection is due; null for models without. */
  total: number | null
  dueAt: number | null
  usual: UsualInfections | null
  /** Share of the hours so far of which what the model needs most is not known. */
  unknownShare: number
}

/** Infections that past seasons had from the same date to today, and by week of the season on average. */
export interface UsualInfections {
  byNow: Bounds
  perWeek: number[]
}

interface InfectionInput {
  infection: NonNullable<OrganismModel['infection']>
  at: SeasonAtPlace
  wettings: readonly Wetting[]
  /** Heat from the biofix on, for what ends with it and for symptoms. */
  heat: SeasonHeat
  scores: readonly number[]
  /** Day number from which infections count; undefined while that day is not within what is known. */
  start: number | undefined
  keep?: Keep
}

/** Days before the start from which hours are looked at: a spell may have begun by then. */
const BEFORE_DAYS = 3
/** An infection older than this shows by itself. */
const SYMPTOM_DAYS = 60
/** From this share of the ways the weather may go an infection counts as likely, and protection is asked for (from practice). */
export const LIKELY_FROM = 0.5
/** A day that fewer ways bring an infection to is not shown (from practice). */
const SHOWN_FROM = 0.04
/** With less than this share of its hours known, a past season says nothing. */
const LEAST_KNOWN = 0.8
const PAST_SEASONS = 11
const LEAST_PAST = 3
/** Above this unknown share of the hours nothing is said about a quiet disease. */
const MOST_UNKNOWN = 0.5

/** Infections of a season up to today, from the hours that were read, and ahead, from each member of the weather forecast. */
export function infectionForecast(input: InfectionInput): InfectionForecast {
  const { infection, at, heat, start, wettings, keep = makeAnew } = input
  const { weather, place, ahead } = at
  const { firstDay, length, todayIndex } = weather
  const today = firstDay + todayIndex
  const { model } = infection
  const dueAt = 'dueAt' in model ? model.dueAt : null
  const ended = infection.ends === undefined ? length : dayOfHeat(heat.median, infection.ends)
  const untilIndex = Number.isFinite(ended) ? Math.min(length, Math.ceil(ended)) : length
  const none: InfectionForecast = {
    model: model.kind,
    state: start === undefined || start > today ? 'coming' : 'unknown',
    from: start === undefined ? null : start - firstDay,
    until: untilIndex < length ? untilIndex : null,
    days: [],
    total: null,
    dueAt,
    usual: null,
    unknownShare: 1,
  }
  if (!place || start === undefined) return none
  const wet = keep(`wet ${keyOf(wettings)}`, () => wetHoursAt(place, wettings))
  // Where the station is late its last days are taken from the forecast, as today is.
  const seam = Math.min(today, ahead ? Math.floor(ahead.firstHour / 24) : today)
  const observed = hoursOfDays(place, wet, start - BEFORE_DAYS, Math.max(start, seam))
  const past = infectionDays(model, observed, start, Math.min(seam, firstDay + untilIndex))
  const members = hoursAhead(at, Math.max(start, seam) - seam)
  const aheadUntil = Math.min(firstDay + untilIndex, Math.max(start, seam) + (members[0]?.temperature.length ?? 0) / 24)
  const coming =
    aheadUntil > Math.max(start, seam)
      ? members.map((hours) => infectionDays(model, followedBy(observed, hours), start, aheadUntil).slice(Math.max(0, seam - start)))
      : []
  const days = [
    ...past.filter(({ infection: did }) => did).map((day) => forecastDay(input, day, 1)),
    ...overMembers(coming).flatMap(({ day, probability }) => (probability > SHOWN_FROM ? [forecastDay(input, day, probability)] : [])),
  ]
  const needed = observed[neededBy(model)]
  const unknownShare = needed.length > 0 ? unknownIn(needed) / needed.length : 0
  const total = past.at(-1)?.total ?? null
  const pressing = model.kind === 'vine-powdery-mildew' && total !== null && total >= model.dueAt
  return {
    ...none,
    days,
    total,
    unknownShare,
    usual: usualInfections(input, place, wet, { start, until: firstDay + untilIndex, today }),
    state: infectionState({ days, todayIndex, from: start - firstDay, until: untilIndex, pressing, unknownShare }),
  }
}

const keyOf = (wettings: readonly Wetting[]): string => wettings.map(({ from, until }) => `${from}-${until}`).join()

function unknownIn(values: Float64Array): number {
  let unknown = 0
  for (const value of values) if (Number.isNaN(value)) unknown++
  return unknown
}

/** Which reading a model cannot do without. */
function neededBy(model: InfectionModel): 'temperature' | 'humidity' | 'wet' {
  if (model.kind === 'vine-powdery-mildew' || model.kind === 'physiological-days') return 'temperature'
  const byHumidity = model.kind === 'two-day-humidity' || (model.kind === 'severity-table' && model.table === 'late-blight')
  return byHumidity ? 'humidity' : 'wet'
}

function forecastDay({ infection, heat, scores, at }: InfectionInput, day: InfectionDay, probability: number): ForecastInfection {
  const index = day.day - at.weather.firstDay
  const { todayIndex } = heat
  const looked = index >= 0 && index > todayIndex - SYMPTOM_DAYS && heat.members.length > 0 && heat.knownDays > index
  const shows = (cumulative: Float64Array, m: number): number =>
    dayOfHeat(cumulative, (cumulative[index] as number) + infection.latent.heat + (scores[m] ?? 0) * infection.latent.heatSe)
  return {
    day: index,
    probability,
    certain: day.certain,
    severity: day.severity,
    total: day.total,
    curativeUntil: infection.curativeDays > 0 ? index + Math.floor(infection.curativeDays) : null,
    symptoms: looked
      ? boundsOfDates(
          heat.members.map(({ cumulative }, m) => shows(cumulative, m)),
          heat,
        )
      : null,
  }
}

/** What the members of the forecast say of each day ahead: the share with an infection, and a typical one of those. */
function overMembers(members: readonly InfectionDay[][]): { day: InfectionDay; probability: number }[] {
  return (members[0] ?? []).map((first, d) => {
    const having = members.flatMap((days) => (days[d]?.infection ? [days[d]] : [])).sort((a, b) => a.severity - b.severity)
    return { day: having[having.length >> 1] ?? first, probability: having.length / members.length }
  })
}

/** Infection days of past seasons over the same part of the season, where their hours are known; null where fewer than three are. */
function usualInfections(
  { infection, at, wettings, keep = makeAnew }: InfectionInput,
  place: PlaceRecord,
  wet: Float64Array,
  { start, until, today }: { start: number; until: number; today: number },
): UsualInfections | null {
  const { firstDay, length } = at.weather
  const what = `past infections ${firstDay} ${start} ${until} ${JSON.stringify(infection.model)} ${keyOf(wettings)}`
  const seasons = keep(what, () =>
    knownPastYears(place.series, firstDay)
      .slice(0, PAST_SEASONS)
      .flatMap((years) => {
        const from = sameDayInYear(start, years)
        const to = Math.min(sameDayInYear(until, years), seasonLater(firstDay, years + 1))
        const hours = hoursOfDays(place, wet, from - BEFORE_DAYS, to)
        const known = hours.wet.length - unknownIn(hours.wet)
        if (to <= from || known < LEAST_KNOWN * hours.wet.length) return []
        return [infectionDays(infection.model, hours, from, to).flatMap(({ day, infection: did }) => (did ? [day - from] : []))]
      }),
  )
  if (seasons.length < LEAST_PAST) return null
  const perWeek = new Array<number>(Math.ceil(length / 7)).fill(0)
  for (const days of seasons)
    for (const day of days) {
      const week = Math.floor((start - firstDay + day) / 7)
      if (week >= 0 && week < perWeek.length) perWeek[week] = (perWeek[week] as number) + 1 / seasons.length
    }
  return { byNow: bounds(seasons.map((days) => days.filter((day) => day < today - start).length)), perWeek }
}

/**
 * What a disease asks for today: nothing before host and source are there or after; a cure while an infection that has passed can
 * still be reached; protection where an infection is likely, or the pressure is high; otherwise quiet, or not known.
 */
export function infectionState(p: {
  days: readonly Pick<ForecastInfection, 'day' | 'probability' | 'curativeUntil'>[]
  todayIndex: number
  /** Days of the season between which host and source allow infection. */
  from: number
  until: number
  /** Whether an index of the disease stands where protection is due. */
  pressing: boolean
  unknownShare: number
}): InfectionState {
  if (p.todayIndex < p.from) return 'coming'
  if (p.todayIndex >= p.until) return 'over'
  const before = p.days.filter(({ day }) => day < p.todayIndex)
  if (before.some(({ curativeUntil }) => curativeUntil !== null && curativeUntil >= p.todayIndex)) return 'cure'
  if (p.pressing || p.days.some(({ day, probability }) => day >= p.todayIndex && probability >= LIKELY_FROM)) return 'protect'
  return p.unknownShare > MOST_UNKNOWN ? 'unknown' : 'quiet'
}
