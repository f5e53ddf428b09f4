import { sunTimes } from '../derived/sun.js'
import type { InfectionFacts, InfectionOrigin } from '../infection/facts.js'
import { infectionDays, type InfectionDay, type InfectionModel } from '../infection/infectionDays.js'
import type { InfectionHours } from '../infection/spells.js'
import { boundsOfDates } from '../phenology/ensemble.js'
import { dayOfHeat } from '../phenology/eventDates.js'
import type { OrganismModel } from '../phenology/model.js'
import { bounds, type Bounds } from '../statistics/quantile.js'
import { sameDayInYear, seasonLater } from '../time/civilDays.js'
import { knownPastYears } from '../derived/normals.js'
import type { SeasonHeat } from '../weather/seasonHeat.js'
import { NO_RECORDS, type DiseaseRecords } from './diseaseRecords.js'
import { followUp, type FollowUp } from './followUp.js'
import { followedBy, hoursAhead, hoursOfDays, leafHoursAt, type CoverSide, type LeafHours } from './hoursOfSeason.js'
import { makeAnew, type Keep } from './keep.js'
import type { PlaceRecord, SeasonAtPlace, Wetting } from './seasonAtPlace.js'

/** A day of the season that allowed an infection, or may. */
export interface ForecastInfection {
  /** Day of the season. */
  day: number
  origin: InfectionOrigin
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
export type InfectionState = 'protect' | 'cure' | 'protected' | 'quiet' | 'coming' | 'over' | 'unknown'

/** Infections of a season: those that the weather allowed, those that the days ahead may bring, and what follows from each. */
export interface InfectionForecast {
  model: InfectionModel['kind']
  state: InfectionState
  /** Days of the season between which host and source allow infection; null: not within what is known. */
  from: number | null
  until: number | null
  /** Day of the season on which what wintered is spent; null: not within what is known, or nothing tells. */
  primaryUntil: number | null
  /** When protection is due again after the last deed; null where none was put on. Days of the season. */
  followUp: FollowUp | null
  /** Infections up to today by the two bounds of what humidity is under a cover; null where it is read, or outside. */
  estimated: { drier: number; damper: number } | null
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
  records?: DiseaseRecords | undefined
  /** Heat from the biofix on, for what ends with it and for symptoms. */
  heat: SeasonHeat
  /** Day of the season on which frost or short days end it. */
  endsOn?: number | undefined
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

/** Models in which lesions of the season infect by other weather than what wintered. */
const HAS_SECONDARY = new Set<InfectionModel['kind']>(['apple-scab', 'vine-downy-mildew'])
/** Hail wounds have to be treated within a day. */
const HAIL_DAYS = 1

/** Infections of a season up to today, from the hours that were read, and ahead, from each member of the weather forecast. */
export function infectionForecast(input: InfectionInput): InfectionForecast {
  const { infection, at, heat, start } = input
  const { firstDay, length, todayIndex } = at.weather
  const today = firstDay + todayIndex
  const { model } = infection
  const spent = infection.ends === undefined ? length : dayOfHeat(heat.median, infection.ends)
  const lastIndex = Math.min(length, Math.floor(input.endsOn ?? length))
  const spentIndex = Number.isFinite(spent) ? Math.min(lastIndex, Math.ceil(spent)) : lastIndex
  const { lesionsFrom, protections } = input.records ?? NO_RECORDS
  const secondary = HAS_SECONDARY.has(model.kind) && lesionsFrom !== undefined
  const untilIndex = secondary ? lastIndex : spentIndex
  const treated = model.kind === 'severity-table' && protections.some(({ day }) => day <= today)
  const none: InfectionForecast = {
    model: model.kind,
    state: start === undefined || start > today ? 'coming' : 'unknown',
    from: start === undefined ? null : start - firstDay,
    until: untilIndex < length ? untilIndex : null,
    primaryUntil: HAS_SECONDARY.has(model.kind) && spentIndex < length ? spentIndex : null,
    followUp: null,
    estimated: null,
    days: [],
    total: null,
    dueAt: dueAtOf(model, treated),
    usual: null,
    unknownShare: 1,
  }
  if (!at.place || start === undefined) return none
  const span: InfectionSpan = { start, until: firstDay + untilIndex, primaryUntil: firstDay + spentIndex, today }
  const facts = factsOf(input, span)
  // Under a cover without a logger both bounds of its humidity are looked at.
  const sides = at.place.inside ? (['drier', 'damper'] as const) : ([undefined] as const)
  const bySide = sides.map((side) => infectionsOf(input, span, facts, side))
  const [first, damper = first] = bySide as [InfectionsOfSide, InfectionsOfSide | undefined]
  const days = [
    ...passedDays(first.past, damper.past).map((day) => forecastDay(input, day, 1)),
    ...hailDays(input, span),
    ...overMembers(bySide.flatMap(({ coming }) => coming)).flatMap(({ day, probability }) =>
      probability > SHOWN_FROM ? [forecastDay(input, day, probability)] : [],
    ),
  ].sort((a, b) => a.day - b.day)
  const total = damper.past.at(-1)?.total ?? null
  const again = followUpOf(input, span, facts, bySide)
  const pressing = model.kind === 'vine-powdery-mildew' && total !== null && total >= model.dueAt
  const infected = (past: readonly InfectionDay[]): number => past.filter(({ infection: did }) => did).length
  return {
    ...none,
    days,
    total,
    followUp: again,
    estimated: at.place.inside ? { drier: infected(first.past), damper: infected(damper.past) } : null,
    unknownShare: first.unknownShare,
    usual: usualInfections(input, at.place, first.leaf, span, facts),
    state: infectionState({
      days,
      todayIndex,
      from: start - firstDay,
      until: untilIndex,
      pressing,
      unknownShare: first.unknownShare,
      followUp: again,
    }),
  }
}

/** The accumulated value at which protection is due: first, or since the last deed; null for models without, and where days count. */
function dueAtOf(model: InfectionModel, treated: boolean): number | null {
  if (!('dueAt' in model)) return null
  if (model.kind !== 'severity-table' || !treated) return model.dueAt
  return model.table === 'late-blight' ? null : (model.followUpAt ?? model.dueAt)
}

/** Day numbers between which infections count. */
interface InfectionSpan {
  start: number
  until: number
  primaryUntil: number
  today: number
}

/** What is known beside the weather, as the models take it. */
function factsOf({ at, records = NO_RECORDS }: InfectionInput, { primaryUntil }: InfectionSpan): InfectionFacts {
  const { position, utcOffsetMinutes } = at
  const times = new Map<number, ReturnType<typeof sunTimes>>()
  const sunOn = (day: number): ReturnType<typeof sunTimes> => {
    const known = times.get(day)
    if (known || !position) return known as ReturnType<typeof sunTimes>
    const made = sunTimes(day, position, utcOffsetMinutes)
    times.set(day, made)
    return made
  }
  return {
    ...(position ? { sun: sunOn } : {}),
    heavySource: records.source === 'heavy',
    sourceNear: records.source === 'yes' || records.source === 'heavy',
    lesionsFrom: records.lesionsFrom,
    primaryUntil,
    protectedOn: records.protections.map(({ day }) => day),
  }
}

/** What one bound of the humidity says, or the one there is. */
interface InfectionsOfSide {
  leaf: LeafHours
  observed: InfectionHours
  /** Hours of each way the weather may go, observed ones first; the observed alone without a forecast. */
  ways: InfectionHours[]
  past: InfectionDay[]
  /** For each member the days ahead. */
  coming: InfectionDay[][]
  /** Day number before which hours are known. */
  knownUntil: number
  unknownShare: number
}

function infectionsOf(input: InfectionInput, span: InfectionSpan, facts: InfectionFacts, side: CoverSide | undefined): InfectionsOfSide {
  const { infection, at, wettings, keep = makeAnew } = input
  const place = at.place as PlaceRecord
  const { start, until, today } = span
  const { model } = infection
  const leaf = keep(`leaf ${side ?? ''} ${keyOf(wettings)}`, () => leafHoursAt(place, wettings, side))
  // Where the station is late its last days are taken from the forecast, as today is.
  const seam = Math.max(start, Math.min(today, at.ahead ? Math.floor(at.ahead.firstHour / 24) : today))
  const skipped = at.ahead ? Math.max(0, seam - Math.floor(at.ahead.firstHour / 24)) : 0
  const observed = hoursOfDays(place, leaf, start - BEFORE_DAYS, seam)
  const members = hoursAhead(at, skipped, side)
  const knownUntil = seam + (members[0]?.temperature.length ?? 0) / 24
  const ways = members.length > 0 ? members.map((hours) => followedBy(observed, hours)) : [observed]
  const past = infectionDays(model, observed, start, Math.min(seam, until), facts)
  const aheadUntil = Math.min(until, knownUntil)
  const coming = aheadUntil > seam ? ways.map((hours) => infectionDays(model, hours, start, aheadUntil, facts).slice(seam - start)) : []
  const needed = observed[neededBy(model)]
  const unknownShare = needed.length > 0 ? unknownIn(needed) / needed.length : 0
  return { leaf, observed, ways, past, coming, knownUntil, unknownShare }
}

/** Days that have passed: certain where both bounds of the humidity agree, possible where only the damper one infects. */
const passedDays = (drier: readonly InfectionDay[], damper: readonly InfectionDay[]): InfectionDay[] =>
  damper.flatMap((day, i) => {
    if (!day.infection) return []
    const least = drier[i]
    return [least?.infection ? { ...least, certain: least.certain && day.certain } : { ...day, certain: false }]
  })

/** Hail opens wounds through which fire blight enters, in bloom or after it. */
function hailDays({ infection, at, records = NO_RECORDS }: InfectionInput, { start, today }: InfectionSpan): ForecastInfection[] {
  if (infection.model.kind !== 'fire-blight') return []
  const { firstDay, length } = at.weather
  const days = new Set(records.hail.map((hour) => Math.floor(hour / 24)))
  return [...days]
    .filter((day) => day >= start && day <= today && day < firstDay + length)
    .map((day) => ({
      day: day - firstDay,
      origin: 'hail' as const,
      probability: 1,
      certain: true,
      severity: 1,
      total: null,
      curativeUntil: day - firstDay + HAIL_DAYS,
      symptoms: null,
    }))
}

/** When protection is due again after the last deed, in days of the season. */
function followUpOf(
  { infection, at, records = NO_RECORDS }: InfectionInput,
  { start, today }: InfectionSpan,
  facts: InfectionFacts,
  sides: readonly InfectionsOfSide[],
): FollowUp | null {
  const last = records.protections.findLast(({ day }) => day <= today)
  const [side] = sides
  if (!last || !side || last.day < start - BEFORE_DAYS) return null
  const ways = sides.flatMap((one) => one.ways)
  const { since, due, by } = followUp(infection.model, last, ways, { start, until: side.knownUntil, facts })
  const { firstDay } = at.weather
  return { since: since - firstDay, due: { p10: due.p10 - firstDay, p50: due.p50 - firstDay, p90: due.p90 - firstDay }, by }
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
    origin: day.origin,
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
  leaf: LeafHours,
  { start, until, primaryUntil, today }: InfectionSpan,
  { sun, heavySource }: InfectionFacts,
): UsualInfections | null {
  const { firstDay, length } = at.weather
  const what = `past infections ${firstDay} ${start} ${until} ${primaryUntil} ${heavySource} ${JSON.stringify(infection.model)} ${keyOf(wettings)}`
  const seasons = keep(what, () =>
    knownPastYears(place.series, firstDay)
      .slice(0, PAST_SEASONS)
      .flatMap((years) => {
        const from = sameDayInYear(start, years)
        const to = Math.min(sameDayInYear(until, years), seasonLater(firstDay, years + 1))
        const hours = hoursOfDays(place, leaf, from - BEFORE_DAYS, to)
        const facts = { sun, heavySource, primaryUntil: sameDayInYear(primaryUntil, years) }
        const known = hours.wet.length - unknownIn(hours.wet)
        if (to <= from || known < LEAST_KNOWN * hours.wet.length) return []
        return [infectionDays(infection.model, hours, from, to, facts).flatMap(({ day, infection: did }) => (did ? [day - from] : []))]
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
 * still be reached, unless the place was protected when it came; protection where an infection is likely, or the pressure is high, and no
 * deed protects until then; otherwise quiet, or not known.
 */
export function infectionState(p: {
  days: readonly (Pick<ForecastInfection, 'day' | 'probability' | 'curativeUntil'> & { origin?: InfectionOrigin })[]
  todayIndex: number
  /** Days of the season between which host and source allow infection. */
  from: number
  until: number
  /** Whether an index of the disease stands where protection is due. */
  pressing: boolean
  unknownShare: number
  followUp?: Pick<FollowUp, 'since' | 'due' | 'by'> | null
}): InfectionState {
  const { todayIndex, followUp: again } = p
  if (todayIndex < p.from) return 'coming'
  const underProtection = (day: number): boolean => !!again && day >= again.since && day < again.due.p50
  const before = p.days.filter(({ day, origin }) => (origin === 'hail' ? day <= todayIndex : day < todayIndex && !underProtection(day)))
  const curable = before.filter(({ curativeUntil }) => curativeUntil !== null && curativeUntil >= todayIndex)
  const over = todayIndex >= p.until
  if (curable.some(({ origin, day }) => (origin === 'hail' ? !again || again.since < day : !over))) return 'cure'
  if (over) return 'over'
  if (underProtection(todayIndex)) return 'protected'
  const asked = again !== null && again !== undefined && (again.by === 'values' || again.by === 'index')
  if (asked || p.pressing || p.days.some(({ day, probability }) => day >= todayIndex && probability >= LIKELY_FROM)) return 'protect'
  return p.unknownShare > MOST_UNKNOWN ? 'unknown' : 'quiet'
}
