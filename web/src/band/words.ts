import type { InfectionForecast, WatchForecast, WindowForecast } from '@bocado/contract'
import type { Format } from '../design/useFormat.js'
import type { Say } from '../messages/useText.js'
import { currentWindow } from './urgency.js'

type Usual = WatchForecast['usual'][number]

/** The generation that is usually reachable now or next by the calendar. */
function nextUsual({ usual }: WatchForecast, month: number): Usual | undefined {
  return usual.find(({ months }) => months.includes(month) || (months[0] ?? 0) > month) ?? usual[0]
}

/** Whether it breeds on past the last of its usual months. */
const breedsPast = ({ breedsOn, usual }: WatchForecast, month: number): boolean =>
  Boolean(breedsOn) && usual.every(({ months }) => (months.at(-1) ?? 12) < month)

/** "May", "May to July": months of the year by name. */
export function monthSpan(months: readonly number[], t: Say, f: Format): string {
  const name = (month: number): string => f.month(`2026-${String(month).padStart(2, '0')}-01`)
  const [first, last] = [months[0] ?? 1, months.at(-1) ?? 1]
  return t('window.months.span', { from: first === last ? 'same' : name(first), to: name(last) })
}

/** Says of a watch where its window stands, with day and reason; in months where a number of the model is a placeholder. */
export function windowSentence(forecast: WatchForecast, t: Say, f: Format, asked?: WindowForecast): string {
  const window = asked ?? currentWindow(forecast)
  if (forecast.grade === 'none')
    return forecast.stationName === null ? t('window.noStation') : t('window.noWeather', { station: forecast.stationName })
  if (forecast.grade === 'calendar') {
    const usual = nextUsual(forecast, Number(f.today.slice(5, 7)))
    return usual ? t('window.calendar', { months: monthSpan(usual.months, t, f) }) : t('window.noStation')
  }
  // Of some only the months are known, whatever the weather; a guessed figure says nothing of months either.
  if (forecast.grade === 'months' && !forecast.infection) {
    const month = Number(f.today.slice(5, 7))
    if (breedsPast(forecast, month)) return t('window.breedsOn')
    const usual = nextUsual(forecast, month)
    // Own dates tell of an event, not of one of its windows.
    const dated = asked ? undefined : datedSentence(forecast, usual, t, f)
    if (dated) return dated
    if (usual) return t('window.monthsOnly', { months: monthSpan(usual.months, t, f) })
  }
  if (forecast.infection) return infectionSentence(forecast, forecast.infection, t, f)
  if (!window) return t('window.noFuture', { end: forecast.heat.forecast ? 'forecast' : 'today' })
  const start = forecast.watch.season
  const day = (index: number | null): string => (index === null ? t('window.beyond') : f.date(f.seasonDay(start, index)))
  const span = (low: number | null, high: number | null): string =>
    low === null || high === null ? t('window.beyond') : f.span(f.seasonDay(start, low), f.seasonDay(start, high))
  if (forecast.grade === 'months') {
    const month = (index: number | null): string => (index === null ? t('window.beyond') : f.month(f.seasonDay(start, index)))
    const [from, to] = [month(window.opens.p50), month(window.closes.p50)]
    return t('window.months', { months: t('window.months.span', { from: from === to ? 'same' : from, to }) })
  }
  const values = {
    opens: day(window.opens.p50),
    opensSpan: span(window.opens.p10, window.opens.p90),
    closes: window.closes.p50 === null ? t('window.beyond') : t('window.about', { date: day(window.closes.p50) }),
    closed: day(window.closes.p50),
    closesSpan: span(window.closes.p10, window.closes.p90),
    best: f.percent(window.best.p50 ?? 0),
  }
  if (forecast.breedsOn && (window.state === 'past' || window.state === 'not-this-season')) return t('window.breedsOn', values)
  return t(`window.${window.state}`, values)
}

/**
 * Says of a watch where its window stands, as a row of the band has room for it: up to the date, and no further. What has no shorter words
 * says what `windowSentence` says.
 */
export function rowSentence(forecast: WatchForecast, t: Say, f: Format): string {
  const { grade, infection, watch, heat } = forecast
  const on = (index: number): string => f.date(f.seasonDay(watch.season, index))
  if (grade === 'dates' && infection) {
    const next = infection.days.find(({ day, probability }) => day >= heat.todayIndex && probability >= 0.5)
    const of = infection.days.findLast(({ day, curativeUntil }) => day <= heat.todayIndex && (curativeUntil ?? -1) >= heat.todayIndex)
    if (infection.state === 'protect' && next) return t('row.protect', { day: on(next.day) })
    if (infection.state === 'protect') return t('row.pressing', { total: f.number(infection.total ?? 0) })
    if (infection.state === 'cure' && of?.curativeUntil != null) return t('row.cure', { day: on(of.day), until: on(of.curativeUntil) })
    const due = infection.followUp?.due.p50
    if (infection.state === 'protected' && due != null) return t('row.protected', { due: on(due) })
    if (infection.state === 'quiet') return t('row.quiet')
    if (infection.state === 'over' && infection.until !== null) return t('row.over', { until: on(infection.until) })
    if (infection.state === 'unknown') return t('row.unknown')
  }
  if (infection || grade === 'none') return windowSentence(forecast, t, f)
  if (grade !== 'dates') {
    const usual = nextUsual(forecast, Number(f.today.slice(5, 7)))
    const dated = grade === 'months' ? datedSentence(forecast, usual, t, f, true) : undefined
    if (dated !== undefined) return dated
    if (grade === 'months' && breedsPast(forecast, Number(f.today.slice(5, 7)))) return t('row.breedsOn')
    return usual ? t('row.months', { months: monthSpan(usual.months, t, f) }) : windowSentence(forecast, t, f)
  }
  const window = currentWindow(forecast)
  if (!window) return windowSentence(forecast, t, f)
  const { opens, closes, state, best } = window
  const span = ({ p10, p90 }: typeof opens): string =>
    p10 === null || p90 === null ? t('window.beyond') : f.span(f.seasonDay(watch.season, p10), f.seasonDay(watch.season, p90))
  const over = state === 'past' || state === 'not-this-season'
  if (forecast.breedsOn && over) return t('row.breedsOn')
  if (state === 'coming' && opens.p50 !== null) return t('row.coming', { opens: on(opens.p50), opensSpan: span(opens) })
  if ((state === 'open' || state === 'closing') && closes.p50 !== null)
    return t(`row.${state}`, { closed: on(closes.p50), closesSpan: span(closes) })
  if (state === 'past' && closes.p50 !== null) return t('row.past', { closed: on(closes.p50) })
  if (state === 'poorly-reachable') return t('row.poor', { best: f.percent(best.p50 ?? 0) })
  return windowSentence(forecast, t, f)
}

/** Of an organism by months, what a clock of own records expects next, or else what was seen last; undefined where neither is. */
function datedSentence(forecast: WatchForecast, usual: Usual | undefined, t: Say, f: Format, isShort = false): string | undefined {
  const { named, seen, watch, heat } = forecast
  const on = (day: number): string => f.seasonDay(watch.season, day)
  const next = named
    .flatMap(({ id, name, clock }) => {
      if (!clock || clock.date.p10 === null || clock.date.p50 === null || clock.date.p90 === null) return []
      const { p10, p50, p90 } = clock.date
      return p90 < heat.todayIndex || seen.some(({ event }) => event === id)
        ? []
        : [{ name, p10, p50, p90, seasons: clock.seasons, by: clock.by }]
    })
    .sort((a, b) => a.p50 - b.p50)[0]
  if (next)
    return t(isShort ? 'row.byClock' : 'window.byClock', {
      name: capital(next.name),
      date: f.date(on(next.p50)),
      span: f.span(on(next.p10), on(next.p90)),
      seasons: next.seasons,
      by: next.by,
    })
  const last = seen.at(-1)
  return last && usual
    ? t(isShort ? 'row.seenLast' : 'window.seenLast', {
        name: capital(last.name),
        date: f.date(last.day),
        months: monthSpan(usual.months, t, f),
      })
    : undefined
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)

/** Says of a disease what the weather allowed, what is coming, and until when something can still be done. */
function infectionSentence(forecast: WatchForecast, infection: InfectionForecast, t: Say, f: Format): string {
  const { todayIndex } = forecast.heat
  const start = forecast.watch.season
  const on = (index: number): string => f.date(f.seasonDay(start, index))
  const came = infection.days.filter(({ day }) => day < todayIndex)
  const last = came.at(-1)
  if (forecast.grade === 'months') {
    const month = infection.from === null ? null : f.month(f.seasonDay(start, infection.from))
    return month === null ? t('infection.notYet') : t('infection.months', { month })
  }
  switch (infection.state) {
    case 'cure': {
      const of = infection.days.findLast(({ day, curativeUntil }) => day <= todayIndex && (curativeUntil ?? -1) >= todayIndex) ?? last
      const values = { day: of ? on(of.day) : '', until: of?.curativeUntil == null ? '' : on(of.curativeUntil) }
      return of?.origin === 'hail' ? t('infection.hail', values) : t('infection.cure', { ...values, certain: of?.certain ? 'yes' : 'no' })
    }
    case 'protected':
      return protectedSentence(forecast, infection, t, f)
    case 'protect': {
      const again = infection.followUp
      if (again && (again.by === 'values' || again.by === 'index') && again.due.p50 !== null && again.due.p50 <= todayIndex)
        return t('infection.dueAgain', { due: on(again.due.p50), since: on(again.since), by: again.by })
      const next = infection.days.find(({ day, probability }) => day >= todayIndex && probability >= 0.5)
      return next
        ? t('infection.protect', { day: on(next.day), share: f.percent(next.probability) })
        : t('infection.pressing', { total: f.number(infection.total ?? 0), due: f.number(infection.dueAt ?? 0) })
    }
    case 'coming':
      return infection.from === null ? t('infection.notYet') : t('infection.coming', { day: on(infection.from) })
    case 'over':
      return t(infection.primaryUntil === null ? 'infection.over' : 'infection.overPrimary', {
        n: came.length,
        until: infection.until === null ? '' : on(infection.until),
      })
    case 'unknown':
      return t('infection.unknown', { station: forecast.stationName ?? '' })
    case 'quiet':
      return t('infection.quiet', { n: came.length, last: last ? on(last.day) : '', days: forecast.heat.forecast?.days ?? 0 })
  }
}

/** Until when the last treatment protects. */
function protectedSentence(forecast: WatchForecast, { followUp }: InfectionForecast, t: Say, f: Format): string {
  const on = (index: number): string => f.seasonDay(forecast.watch.season, index)
  if (!followUp) return ''
  const since = f.date(on(followUp.since))
  const { p10, p50, p90 } = followUp.due
  if (p50 === null) return t('infection.protectedOpen', { since })
  return t('infection.protected', { since, due: f.date(on(p50)), span: f.span(on(p10 ?? p50), on(p90 ?? p50)) })
}

/** The heat behind the sentence: at what sum the window opens, and what the sum is now. */
export function heatSentence(forecast: WatchForecast, t: Say, f: Format, window = currentWindow(forecast)): string {
  if (forecast.grade === 'none' || forecast.grade === 'calendar' || !window || window.opensHeat === null) return ''
  return t('window.heat', {
    event: window.beginsWith.name,
    begins: f.heat(Math.max(0, window.beginsWith.heat)),
    opens: f.heat(window.opensHeat),
    now: f.heat(forecast.heat.now),
  })
}

/** "4 to 12 May": when a biofix that nobody entered is expected; empty where it is not. */
export function expectedSpan({ biofix, watch }: WatchForecast, f: Format): string {
  const { p10, p90 } = biofix.expected ?? { p10: null, p90: null }
  return p10 === null || p90 === null ? '' : f.span(f.seasonDay(watch.season, p10), f.seasonDay(watch.season, p90))
}

/** Method, thresholds, start, station, filled share and number of past seasons: where the numbers come from. */
export function originSentence(forecast: WatchForecast, t: Say, f: Format): string {
  const { rule, heat, watch, stationName } = forecast
  const degrees = (c: number): string => f.number(f.measures.temperature.shown(c), 1)
  const thresholds =
    rule.upper === undefined
      ? t('origin.lower', { lower: degrees(rule.lower), unit: f.measures.temperature.unit })
      : t('origin.between', { lower: degrees(rule.lower), upper: degrees(rule.upper), unit: f.measures.temperature.unit })
  const difference = (c: number): string => {
    const shown = f.measures.temperature.shown(c) - f.measures.temperature.shown(0)
    return `${shown > 0 ? '+' : ''}${f.number(shown, 1)} ${f.measures.temperature.unit}`
  }
  return t('origin.sentence', {
    basis: forecast.basis === 'past-seasons' ? 'past' : forecast.basis,
    offset: forecast.offset.min !== 0 || forecast.offset.max !== 0 ? 'yes' : 'no',
    nights: difference(forecast.offset.min),
    warmer: difference(forecast.offset.max),
    made: heat.madeSeasons,
    corrected: heat.forecast?.correctedFrom ?? 0,
    method: t(`method.${rule.method}` as Parameters<Say>[0]),
    thresholds,
    how: forecast.biofix.how === 'chill-expected' ? 'chillLater' : forecast.biofix.how,
    biofix: forecast.biofix.date ? f.date(forecast.biofix.date) : '',
    expected: expectedSpan(forecast, f),
    own: forecast.ownFigures,
    station: stationName ?? '',
    filled: f.percent(heat.filledShare),
    seasons: heat.pastSeasons,
    days: heat.forecast?.days ?? 0,
    members: heat.forecast?.members ?? 0,
    issued: heat.forecast ? f.moment(heat.forecast.issuedAt) : '',
    confidence: t(`confidence.${forecast.confidence}`),
    model: watch.model,
  })
}
