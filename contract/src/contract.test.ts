import { describe, expect, test } from 'vitest'
import { civilDateSchema, endpoints, productInput, type Endpoint, siteInput, typedDaysInput } from './index.js'

describe('days', () => {
  test.each(['2026-02-28', '2024-02-29'])('%s is one', (day) => expect(civilDateSchema.safeParse(day).success).toBe(true))
  test.each(['0002-05-25', '0202-05-25'])('%s is a year half typed', (day) =>
    expect(civilDateSchema.safeParse(day).error?.issues.map(({ message }) => message)).toEqual([
      'enter the year with four digits, as 2026',
    ]),
  )
  test.each(['2026-02-29', '2026-13-01', '12.06.2026', '2026-6-1', ''])('"%s" is none', (day) =>
    expect(civilDateSchema.safeParse(day).success).toBe(false),
  )
})

test('a label’s numbers have to be given: none is filled in by default', () => {
  const { error } = productInput.safeParse({ name: 'Summer oil Lind', kind: 'oil', stages: ['egg'] })
  expect(error?.issues.map(({ path }) => path.join('.'))).toEqual([
    'labelRate',
    'rateUnit',
    'reEntryHours',
    'preHarvestDays',
    'bees',
    'protection',
  ])
})

test('names of blank space are no names, and spaces around one go', () => {
  const site = {
    place: 'a river terrace',
    timeZone: 'America/Los_Angeles',
    units: 'metric',
  }
  expect(siteInput.safeParse({ ...site, name: '   ' }).error?.issues[0]?.message).toBe('enter the name of the site')
  expect(siteInput.parse({ ...site, name: ' Hollin Bench ' }).name).toBe('Hollin Bench')
})

test('typed days are checked one by one', () => {
  const { error } = typedDaysInput.safeParse({
    days: [
      { day: '2026-06-01', min: 8, max: 21 },
      { day: '2026-06-02', min: 9, max: 71 },
    ],
  })
  expect(error?.issues.map(({ path, message }) => [path.join('.'), message])).toEqual([['days.1.max', 'must be at most 58 °C']])
})

test('no two operations share a method and a path, and what is bound to a site says so in its path', () => {
  const all = Object.values(endpoints).flatMap((group) => Object.values<Endpoint>(group))
  const keys = all.map(({ method, path }) => `${method} ${path}`)
  expect(new Set(keys).size).toBe(keys.length)
  for (const { path } of all)
    expect(path).toMatch(
      /^\/(sites|organisms|stations\/:stationId\/(readings|forecast-issues)|traps\/:trapId\/catches|demo|session|account|links|phones)/,
    )
})

test('every read of a site says what its answer changes with', () => {
  const silent = Object.values(endpoints as unknown as Record<string, Record<string, Endpoint>>)
    .flatMap((group) => Object.values(group))
    .filter(({ method, path, restsOn }) => method === 'get' && path.includes(':siteId') && !restsOn?.length)
  expect(silent.map(({ path }) => path)).toEqual([])
})
