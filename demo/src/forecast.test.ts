import { describe, expect, test } from 'vitest'
import { HOURS_AHEAD, makeIssue, MEMBERS, newestIssueAt } from './forecast.js'
import { STATIONS } from './site.js'
import { inventWeather } from './weather.js'

const truth = inventWeather(STATIONS[0]!, Date.parse('2026-12-31T00:00:00Z'))
const at = Date.parse('2026-06-12T12:00:00Z')
const issue = makeIssue(truth, at)
const from = truth.findIndex((hour) => hour.at >= at)

/** Root mean square error of the members over a run of hours, over many issues. */
function error(first: number, last: number): number {
  let sum = 0
  let n = 0
  for (let d = 0; d < 40; d++) {
    const moment = at + d * 86_400_000
    const start = truth.findIndex((hour) => hour.at >= moment)
    for (const { temperature } of makeIssue(truth, moment).members) {
      for (let h = first; h < last; h++) {
        sum += (temperature[h]! - truth[start + h]!.temperature!) ** 2
        n++
      }
    }
  }
  return Math.sqrt(sum / n)
}

describe('an issue', () => {
  test('has twelve members over eleven days, the same for the same moment', () => {
    expect(issue.members).toHaveLength(MEMBERS)
    for (const member of issue.members) for (const values of Object.values(member)) expect(values).toHaveLength(HOURS_AHEAD)
    expect(makeIssue(truth, at)).toEqual(issue)
    expect(issue.firstHour).toBe('2026-06-12T12:00:00Z')
  })

  test('knows less the further it looks', () => {
    const [tomorrow, week] = [error(0, 24), error(168, 240)]
    expect(tomorrow).toBeLessThan(1)
    expect(week).toBeGreaterThan(2 * tomorrow)
    expect(week).toBeLessThan(5)
  })

  test('holds what came within its members about as often as a spread may', () => {
    let inside = 0
    for (let h = 0; h < HOURS_AHEAD; h++) {
      const values = issue.members.map(({ temperature }) => temperature[h]!)
      const came = truth[from + h]!.temperature!
      if (came >= Math.min(...values) && came <= Math.max(...values)) inside++
    }
    expect(inside / HOURS_AHEAD).toBeGreaterThan(0.6)
  })

  test('never gives what cannot be', () => {
    for (const { humidity, rain, wind } of issue.members)
      expect([...humidity.map((v) => v >= 0 && v <= 100), ...rain.map((v) => v >= 0), ...wind.map((v) => v >= 0)]).not.toContain(false)
  })
})

test('issues come at 0, 6, 12 and 18 UTC', () => {
  expect(new Date(newestIssueAt(Date.parse('2026-06-12T14:30:00Z'))).toISOString()).toBe('2026-06-12T12:00:00.000Z')
  expect(new Date(newestIssueAt(Date.parse('2026-06-12T12:00:00Z'))).toISOString()).toBe('2026-06-12T12:00:00.000Z')
})
