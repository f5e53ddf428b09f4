import type { Block, InfectionDayForecast, InfectionForecast, WetEvent } from '@bocado/contract'
import {
  bounds,
  boundsOfDates,
  dayOfHeat,
  infectionDays,
  knownPastYears,
  offsetHours,
  sameDayInYear,
  seasonLater,
  wetHours,
  type InfectionDay,
  type InfectionHours,
  type OrganismModel,
  type SeasonHeat,
} from '@bocado/core'
import { finiteBounds } from './bounds.js'
import type { BlockWeather } from '../weather/blockWeather.js'
import type { PlaceDays } from '../weather/place.js'
import { wetHoursAt } from '../weather/seasonDays.js'
import type { Memo } from '../memo.js'

type Infection = NonNullable<OrganismModel['infection']>

export interface InfectionInput {
  infection: Infection
  block: BlockWeather
  place: Pick<Block, 'id'>
  events: readonly WetEvent[]
  /** Heat from the biofix on, for what ends with it and for symptoms. */
  heat: SeasonHeat
  scores: readonly number[]
  /** Day number from which infections count; undefined while that day is not within what is known. */
  start: number | undefined
  memo: Memo
}

/** Hours of a place between two days; hours that nobody read are not known. */
function hoursBetween(place: PlaceDays, wet: Float64Array, from: number, until: number): InfectionHours {
  const firstHour = from * 24
  const length = Math.max(0, (until - from) * 24)
  const cut = (values: Float64Array, start: number): Float64Array => {
    const result = new Float64Array(length).fill(NaN)
    const skip = Math.max(0, start - firstHour)
    const inside = values.subarray(Math.max(0, firstHour - start), Math.max(0, firstHour - start) + length - skip)
    if (skip < length) result.set(inside, skip)
    return result
  }
  const { hours, temperatures } = place
  return {
    firstHour,
    temperature: cut(temperatures.values, temperatures.firstHour),
    wet: cut(wet, hours.firstHour),
    humidity: cut(hours.values.humidity, hours.firstHour),
    rain: cut(hours.values.rain, hours.firstHour),
  }
}

/** Two stretches of hours as one. */
function joined(a: InfectionHours, b: Omit<InfectionHours, 'firstHour'>): InfectionHours {
  const both = (x: Float64Array, y: Float64Array): Float64Array => {
    const result = new Float64Array(x.length + y.length)
    result.set(x)
    result.set(y, x.length)
    return result
  }
  return {
    firstHour: a.firstHour,
    temperature: both(a.temperature, b.temperature),
    wet: both(a.wet, b.wet),
    humidity: both(a.humidity, b.humidity),
    rain: both(a.rain, b.rain),
  }
}

/** The hours from a day on. */
function from(hours: Omit<InfectionHours, 'firstHour'>, days: number): Omit<InfectionHours, 'firstHour'> {
  const { temperature, wet, humidity, rain } = hours
  const cut = (values: Float64Array): Float64Array => values.subarray(days * 24)
  return { temperature: cut(temperature), wet: cut(wet), humidity: cut(humidity), rain: cut(rain) }
}

/** The hours ahead of each member of the forecast, as they are at a place. */
function hoursAhead({ ahead, place }: BlockWeather): Omit<InfectionHours, 'firstHour'>[] {
  if (!ahead || !place) return []
  return ahead.hours.map(({ temperature, humidity, rain }) => {
    const unknown = new Float64Array(temperature.length).fill(NaN)
    const inside = place.covered ? { humidity: unknown, rain: unknown } : { humidity, rain }
    return { temperature: offsetHours(ahead.firstHour, temperature, place.offset), ...inside, wet: wetHours(inside) }
  })
}

/** Days before the start from which hours are looked at: a spell may have begun by then. */
const BEFORE_DAYS = 3
/** An infection older than this shows by itself. */
const SYMPTOM_DAYS = 60
const LIKELY_FROM = 0.5

/** Infections of a season: those that the weather allowed, those that the days ahead may bring, and what follows from each. */
export function forecastInfection(input: InfectionInput): InfectionForecast {
  const { infection, block, heat, start, events } = input
  const { weather, place } = block
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
  const wet = input.memo.get(`wet ${place.key} ${events.map(({ id, rowVersion }) => `${id}@${rowVersion}`).join()}`, () =>
    wetHoursAt(place, events, block.followed?.station.utcOffsetMinutes ?? 0),
  )
  // Where the station is late its last days are taken from the forecast, as today is.
  const seam = Math.min(today, block.ahead ? Math.floor(block.ahead.firstHour / 24) : today)
  const until = Math.min(seam, firstDay + untilIndex)
  const observed = hoursBetween(place, wet, start - BEFORE_DAYS, Math.max(start, seam))
  const past = infectionDays(model, observed, start, until)
  const members = hoursAhead(block)
  const aheadUntil = Math.min(firstDay + untilIndex, seam + (members[0]?.temperature.length ?? 0) / 24)
  const ahead =
    aheadUntil > Math.max(start, seam)
      ? members.map((hours) =>
          infectionDays(model, joined(observed, from(hours, Math.max(start, seam) - seam)), start, aheadUntil).slice(
            Math.max(0, seam - start),
          ),
        )
      : []
  const days = [
    ...past.filter(({ infection: did }) => did).map((day) => described(input, day, 1, firstDay)),
    ...overMembers(ahead).flatMap(({ day, probability }) => (probability > 0.04 ? [described(input, day, probability, firstDay)] : [])),
  ]
  let unknown = 0
  const humid = model.kind === 'two-day-humidity' || (model.kind === 'severity-table' && model.table === 'late-blight')
  const needed = model.kind === 'vine-powdery-mildew' || model.kind === 'physiological-days' ? 'temperature' : humid ? 'humidity' : 'wet'
  for (const value of observed[needed]) if (Number.isNaN(value)) unknown++
  const unknownShare = observed[needed].length > 0 ? unknown / observed[needed].length : 0
  const total = past.at(-1)?.total ?? null
  const usual = usualInfections(input, place, wet, start, firstDay + untilIndex, today)
  return {
    ...none,
    days,
    total,
    unknownShare,
    usual,
    state: stateOf({ days, todayIndex, from: start - firstDay, untilIndex, total, dueAt, model: model.kind, unknownShare }),
  }
}

function described(input: InfectionInput, day: InfectionDay, probability: number, firstDay: number): InfectionDayForecast {
  const { infection, heat, scores } = input
  const index = day.day - firstDay
  const nothing = { p10: null, p50: null, p90: null }
  const { todayIndex } = heat
  const looked = index >= 0 && index > todayIndex - SYMPTOM_DAYS && heat.members.length > 0 && heat.knownDays > index
  const symptoms = looked
    ? boundsOfDates(
        heat.members.map(({ cumulative }, m) =>
          dayOfHeat(cumulative, (cumulative[index] as number) + infection.latent.heat + (scores[m] ?? 0) * infection.latent.heatSe),
        ),
        heat,
      )
    : undefined
  return {
    day: index,
    probability: Math.round(probability * 1000) / 1000,
    certain: day.certain,
    severity: Math.round(day.severity * 100) / 100,
    total: day.total === null ? null : Math.round(day.total * 10) / 10,
    curativeUntil: infection.curativeDays > 0 ? index + Math.floor(infection.curativeDays) : null,
    symptoms: symptoms ? finiteBounds(symptoms) : nothing,
  }
}

/** What the members of the forecast say of each day ahead: the share with an infection, and a typical one of those. */
function overMembers(members: readonly InfectionDay[][]): { day: InfectionDay; probability: number }[] {
  return (members[0] ?? []).map((first, d) => {
    const having = members.flatMap((days) => (days[d]?.infection ? [days[d]] : [])).sort((a, b) => a.severity - b.severity)
    return { day: having[having.length >> 1] ?? first, probability: having.length / members.length }
  })
}

/** Infection days of past seasons over the same part of the season, where their hours are known. */
function usualInfections(
  { infection, block, memo, events }: InfectionInput,
  place: PlaceDays,
  wet: Float64Array,
  start: number,
  until: number,
  today: number,
): InfectionForecast['usual'] {
  const { firstDay, length } = block.weather
  const what = JSON.stringify([infection.model, events.map(({ id, rowVersion }) => [id, rowVersion])])
  const seasons = memo.get(`past infections ${place.key} ${firstDay} ${start} ${until} ${what}`, () =>
    knownPastYears(place.series, firstDay)
      .slice(0, 11)
      .flatMap((years) => {
        const from = sameDayInYear(start, years)
        const to = Math.min(sameDayInYear(until, years), seasonLater(firstDay, years + 1))
        const hours = hoursBetween(place, wet, from - BEFORE_DAYS, to)
        const known = hours.wet.reduce((n, value) => n + (Number.isNaN(value) ? 0 : 1), 0)
        if (to <= from || known < 0.8 * hours.wet.length) return []
        return [infectionDays(infection.model, hours, from, to).flatMap(({ day, infection: did }) => (did ? [day - from] : []))]
      }),
  )
  if (seasons.length < 3) return null
  const perWeek = new Array<number>(Math.ceil(length / 7)).fill(0)
  for (const days of seasons)
    for (const day of days) {
      const week = Math.floor((start - firstDay + day) / 7)
      if (week >= 0 && week < perWeek.length) perWeek[week] = (perWeek[week] as number) + 1 / seasons.length
    }
  const byNow = bounds(seasons.map((days) => days.filter((day) => day < today - start).length))
  return { byNow, perWeek: perWeek.map((n) => Math.round(n * 100) / 100) }
}

function stateOf(p: {
  days: readonly InfectionDayForecast[]
  todayIndex: number
  from: number
  untilIndex: number
  total: number | null
  dueAt: number | null
  model: string
  unknownShare: number
}): InfectionForecast['state'] {
  if (p.todayIndex < p.from) return 'coming'
  if (p.todayIndex >= p.untilIndex) return 'over'
  const before = p.days.filter(({ day }) => day < p.todayIndex)
  if (before.some(({ curativeUntil }) => curativeUntil !== null && curativeUntil >= p.todayIndex)) return 'cure'
  const pressing = p.model === 'vine-powdery-mildew' && p.total !== null && p.dueAt !== null && p.total >= p.dueAt
  if (pressing || p.days.some(({ day, probability }) => day >= p.todayIndex && probability >= LIKELY_FROM)) return 'protect'
  return p.unknownShare > 0.5 ? 'unknown' : 'quiet'
}
