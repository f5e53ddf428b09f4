import type { Site, WatchForecast, WindowForecast } from '@bocado/contract'
import { createElement, type ReactNode } from 'react'
import { describe, expect, test } from 'vitest'
import { useFormat, type Format } from '../design/useFormat.js'
import { useText, type Say } from '../messages/useText.js'
import { markupOf } from '../testing/drawn.js'
import { heatSentence, originSentence, rowSentence, windowSentence } from './words.js'

/** The words and numbers as a component of the page gets them, in the units of a site. */
function speak(units: Site['units'] = 'metric'): { t: Say; f: Format } {
  let got: { t: Say; f: Format } | undefined
  function Listener(): ReactNode {
    got = { t: useText(), f: useFormat() }
    return null
  }
  markupOf(createElement(Listener), units)
  if (!got) throw new Error('nothing was rendered')
  return got
}

const exactly = (day: number | null) => ({ p10: day, p50: day, p90: day })
const window = (state: WindowForecast['state'], changes: Partial<WindowForecast> = {}): WindowForecast => ({
  generation: 'first',
  generationName: 'first generation',
  state,
  opens: { p10: 166, p50: 168, p90: 171 },
  closes: { p10: 175, p50: 177.4, p90: 183 },
  bestDay: exactly(172),
  best: exactly(0.36),
  opensHeat: 164,
  beginsWith: { name: 'egg laying begins', heat: 50 },
  ...changes,
})
const forecast = (windows: WindowForecast[], changes: object = {}): WatchForecast =>
  ({
    watch: { season: '2026-01-01', biofix: '2026-05-10', model: 'codling-moth@1.0.0' },
    grade: 'dates',
    confidence: 'approximate',
    stationName: 'Bench',
    basis: 'station',
    offset: { min: 0, max: 0 },
    usual: [],
    named: [],
    seen: [],
    moved: null,
    biofix: { how: 'entered', kind: 'sustained-catch', date: '2026-05-10', expected: null },
    ownFigures: 0,
    rule: { method: 'single-sine', lower: 10, upper: 31.1 },
    heat: { now: 112, filledShare: 0.07, pastSeasons: 11, madeSeasons: 0, forecast: null, todayIndex: 162, knownDays: 365 },
    windows,
    ...changes,
  }) as unknown as WatchForecast

describe('a window in words', () => {
  const { t, f } = speak()
  test.each([
    [window('coming'), 'Opens Thu 18 Jun (16 to 21 Jun), closes about Sat 27 Jun'],
    [window('open'), 'Open, closes about Sat 27 Jun (25 Jun to 3 Jul)'],
    [window('closing'), 'Closing: until about Sat 27 Jun (25 Jun to 3 Jul)'],
    [window('past'), 'Past since Sat 27 Jun: too late for this generation'],
    [window('poorly-reachable', { best: exactly(0.21) }), 'Poorly reachable: one treatment reaches at most 21 %, about Thu 18 Jun'],
    [window('not-this-season', { opens: exactly(null), closes: exactly(null) }), 'Not in this season'],
    [window('coming', { closes: exactly(null) }), 'Opens Thu 18 Jun (16 to 21 Jun), closes after the season'],
  ])('%#', (w, words) => expect(windowSentence(forecast([w]), t, f)).toBe(words))

  test('a model that rests on a placeholder gives months and no date', () => {
    const words = windowSentence(forecast([window('coming')], { grade: 'months' }), t, f)
    expect(words).toContain('June')
    expect(words).not.toMatch(/\d/)
  })

  test('without weather, without a station and without past years it says what is missing', () => {
    expect(windowSentence(forecast([], { grade: 'none' }), t, f)).toBe('No forecast: weather is missing at Bench')
    expect(windowSentence(forecast([], { grade: 'none', stationName: null }), t, f)).toBe('No weather: this block follows no station')
    expect(windowSentence(forecast([]), t, f)).toContain('nothing can be said beyond today')
  })

  test('without any weather it gives the months of the generation that comes next, and no date', () => {
    const usual = [
      { generation: 'first', name: 'first generation', months: [5, 6], bloom: 'apple king bloom', region: 'temperate North America' },
      { generation: 'second', name: 'second generation', months: [8], bloom: 'linden', region: 'temperate North America' },
    ]
    const words = (list: typeof usual) => windowSentence(forecast([], { grade: 'calendar', usual: list }), t, f)
    expect(words(usual)).toBe('Usually reachable in May to June, by the calendar alone')
    expect(words(usual.slice(1))).toBe('Usually reachable in August, by the calendar alone')
    expect(words([])).toBe('No weather: this block follows no station')
  })
})

describe('a disease in words', () => {
  const { t, f } = speak()
  const symptoms = { p10: 170, p50: 172, p90: 175 }
  const day = (index: number, probability: number, curativeUntil: number | null = index + 3) => ({
    day: index,
    origin: 'primary',
    probability,
    certain: true,
    severity: 1.4,
    total: null,
    curativeUntil,
    symptoms,
  })
  const disease = (infection: object, changes: object = {}) =>
    forecast([], {
      infection: {
        model: 'apple-scab',
        from: 91,
        until: 150,
        primaryUntil: null,
        followUp: null,
        estimated: null,
        days: [],
        total: null,
        dueAt: null,
        usual: null,
        unknownShare: 0,
        ...infection,
      },
      ...changes,
    })
  test.each([
    [{ state: 'cure', days: [day(160, 1)] }, 'Infected Wed 10 Jun: curative materials reach it until Sat 13 Jun'],
    [
      { state: 'cure', days: [{ ...day(160, 1), certain: false }] },
      'Possibly infected Wed 10 Jun: curative materials reach it until Sat 13 Jun',
    ],
    [
      { state: 'protect', days: [day(158, 1, null), day(164, 0.3), day(166, 0.75)] },
      'Protect before Tue 16 Jun: infection in 75 % of the ways the weather may go',
    ],
    [{ state: 'protect', total: 80, dueAt: 60 }, 'Pressure high, 80 against 60: keep it protected'],
    [{ state: 'coming', from: 170 }, 'Not yet: infection counts from Sat 20 Jun'],
    [{ state: 'coming', from: null }, 'Not yet: what infection counts from has not come'],
    [{ state: 'over', days: [day(100, 1), day(120, 1)] }, 'Over since Sun 31 May: 2 infections this season'],
    [
      { state: 'over', primaryUntil: 150, days: [day(100, 1)] },
      'What wintered is spent since Sun 31 May: later infections come only where spots are found; one infection this season',
    ],
    [{ state: 'cure', days: [{ ...day(161, 1, 162), origin: 'hail' }] }, 'Hail Thu 11 Jun: wounds let it in; act by Fri 12 Jun'],
    [
      { state: 'protected', followUp: { since: 157, due: { p10: 164, p50: 166, p90: 168 }, by: 'residue' } },
      'Protected by the treatment of Sun 7 Jun until about Tue 16 Jun (14 to 18 Jun)',
    ],
    [
      { state: 'protected', followUp: { since: 157, due: { p10: null, p50: null, p90: null }, by: null } },
      'Protected by the treatment of Sun 7 Jun; nothing within what is known asks for the next',
    ],
    [
      { state: 'protect', followUp: { since: 150, due: { p10: 158, p50: 160, p90: 161 }, by: 'values' } },
      'Protection due again since Wed 10 Jun: infection weather since the treatment of Sun 31 May asks for it',
    ],
    [{ state: 'unknown' }, 'Not known: Bench gives neither humidity nor wetness'],
  ])('%#', (infection, words) => expect(windowSentence(disease(infection), t, f)).toBe(words))

  test('quiet says how far one can see and what came; a placeholder gives no date', () => {
    const heat = { todayIndex: 162, knownDays: 365, forecast: { days: 11 } }
    const quiet = disease({ state: 'quiet', days: [day(150, 1)] }, { heat })
    expect(windowSentence(quiet, t, f)).toBe('No infection in sight for 11 days; one so far, Sun 31 May')
    expect(windowSentence(disease({ state: 'protect', days: [day(166, 0.8)] }, { grade: 'months' }), t, f)).not.toMatch(/\d/)
  })
})

describe('the numbers behind it', () => {
  test('heat in the units of the site, whole degree-days', () => {
    const row = forecast([window('coming')])
    const metric = speak()
    expect(heatSentence(row, metric.t, metric.f)).toBe('egg laying begins at 50 °C·d; the window opens at 164 °C·d, now 112 °C·d.')
    const us = speak('us')
    expect(heatSentence(row, us.t, us.f)).toBe('egg laying begins at 90 °F·d; the window opens at 295 °F·d, now 202 °F·d.')
  })

  test('method, thresholds, start, station, filled share, forecast and past years', () => {
    const { t, f } = speak()
    const heat = {
      now: 112,
      filledShare: 0.07,
      pastSeasons: 11,
      madeSeasons: 0,
      forecast: { issuedAt: '2026-06-12T12:00:00Z', members: 12, days: 11, correctedFrom: 0 },
    }
    expect(originSentence(forecast([], { heat }), t, f)).toBe(
      'Single sine, 10 to 31.1 °C, from the biofix Sun 10 May. Station Bench, 7 % of its days filled. ' +
        '11 days ahead from 12 members of a forecast of Fri 12 Jun, 05:00. ' +
        'After that, 11 past seasons; dates are the middle, and in four of five years they fall within the brackets. Model codling-moth@1.0.0, approximate.',
    )
    expect(originSentence(forecast([], { rule: { method: 'average', lower: 8.41 } }), t, f)).toContain('Average, above 8.4 °C')
  })

  test('a biofix that was not entered, and numbers of the site', () => {
    const { t, f } = speak()
    const expected = { how: 'expected', kind: 'sustained-catch', date: null, expected: { p10: 120, p50: 125, p90: 133 } }
    const words = originSentence(forecast([], { biofix: expected, ownFigures: 2 }), t, f)
    expect(words).toContain('since no biofix was entered: it is expected 1 to 14 May')
    expect(words).toContain('with 2 numbers of this site')
    const calendar = { how: 'calendar', kind: 'date', date: '2026-03-01', expected: null }
    expect(originSentence(forecast([], { biofix: calendar }), t, f)).toContain('from Sun 1 Mar, by the calendar')
  })

  test('a place that differs, a corrected forecast, and seasons that were made and not measured', () => {
    const { t, f } = speak()
    const ahead = { issuedAt: '2026-06-12T12:00:00Z', members: 12, days: 11, correctedFrom: 40 }
    const heat = { now: 112, filledShare: 0, pastSeasons: 2, madeSeasons: 9, forecast: ahead }
    const words = originSentence(forecast([], { heat, basis: 'station-and-normals', offset: { min: -3, max: 0.5 } }), t, f)
    expect(words).toContain('nights -3 °C, days +0.5 °C against it')
    expect(words).toContain('corrected by 40 past ones')
    expect(words).toContain('2 past seasons')
    expect(words).toContain('9 seasons made from monthly normals join them')
    const made = { ...heat, pastSeasons: 0, madeSeasons: 11, forecast: null }
    expect(originSentence(forecast([], { heat: made, basis: 'normals' }), t, f)).toContain(
      'made from typed monthly normals and were never measured',
    )
  })
})

test('dates to come are given as a day and as a distance', () => {
  const { f } = speak()
  expect(f.dateInDays('2026-06-15')).toBe('Mon 15 Jun, in 3 days')
  expect(f.dateInDays('2026-06-12')).toBe('Fri 12 Jun, today')
  expect(f.moment('2026-06-04T05:20:00Z')).toBe('Wed 3 Jun, 22:20')
  expect(f.seasonDay('2024-01-01', 59)).toBe('2024-02-29')
})

describe('what a row of the band says', () => {
  const { t, f } = speak()
  const said = (windows: WindowForecast[], changes: object = {}): string => rowSentence(forecast(windows, changes), t, f)
  test('ends at its date', () => {
    expect(said([window('coming')])).toBe('Opens Thu 18 Jun (16 to 21 Jun)')
    expect(said([window('open')])).toBe('Closes about Sat 27 Jun (25 Jun to 3 Jul)')
    expect(said([window('closing')])).toBe('Closing: Sat 27 Jun (25 Jun to 3 Jul)')
    expect(said([window('past')])).toBe('Past since Sat 27 Jun')
    expect(said([window('poorly-reachable', { best: exactly(0.2) })])).toBe('Poorly reachable, at most 20 %')
  })

  test('says months where only months are known, and no date with them', () => {
    const usual = [{ generation: 'first', name: 'growth of this year', months: [8, 9], bloom: '', region: '', movedDays: null }]
    expect(said([window('coming')], { grade: 'months', usual })).toBe('About August to September, by months')
    expect(said([window('coming')], { grade: 'calendar', usual })).toBe('About August to September, by months')
  })

  test('goes by counts where broods run on beyond what heat can tell', () => {
    expect(said([window('past')], { breedsOn: true })).toBe('Breeding on: go by counts')
  })

  test('is never longer than what is said in full', () => {
    for (const state of ['coming', 'open', 'closing', 'past', 'poorly-reachable', 'not-this-season'] as const) {
      const windows = [window(state)]
      expect(said(windows).length).toBeLessThanOrEqual(windowSentence(forecast(windows), t, f).length)
    }
  })
})
