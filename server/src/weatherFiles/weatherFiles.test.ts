import type { WeatherMapping } from '@bocado/contract'
import { describe, expect, test } from 'vitest'
import { guessMapping } from './guess.js'
import { parseMoment, parseTime, WallClock } from './moments.js'
import { HOUR_VALUES, rowTexts } from '../weather/readingStore.js'
import { readReadings } from './readings.js'
import { decodeText, requireLines, splitCells } from './text.js'
import { openQuestions, understandLines } from './understand.js'

const SITE = { timeZone: 'America/Los_Angeles', units: 'us' } as const
const CLOCK = { timeZone: SITE.timeZone, utcOffsetMinutes: -480, now: Date.parse('2026-06-12T12:00:00Z') }

function understand(text: string, changes: Partial<WeatherMapping> = {}) {
  const { mapping: guessed } = guessMapping(text, SITE)
  const mapping = { ...guessed, ...changes }
  const understood = understandLines(splitCells(text, mapping.separator), mapping, CLOCK)
  const readings = readReadings(text, mapping, CLOCK, () => undefined)
  return { mapping, understood, ...readings, rows: [...rowTexts(readings.rows, mapping.interval === 'daily')] }
}

describe('dates and times of day', () => {
  test.each([
    ['6/3/2026 14:05', 'mdy', '2026-06-03T14:05'],
    ['6/3/2026 14:05', 'dmy', '2026-03-06T14:05'],
    ['03.06.26', 'dmy', '2026-06-03T00:00'],
    ['03.06.98', 'dmy', '1998-06-03T00:00'],
    ['6/3/49', 'mdy', '2049-06-03T00:00'],
    ['2026-06-03T24:00', 'ymd', '2026-06-04T00:00'],
    ['20260603 0700', 'ymd', '2026-06-03T07:00'],
    ['3-Jun-2026 12:30 AM', 'mdy', '2026-06-03T00:30'],
    ['6/3/2026, 12:30 p.m.', 'mdy', '2026-06-03T12:30'],
  ] as const)('%s read as %s', (text, order, expected) => {
    expect(new Date(parseMoment(text, order)!.local).toISOString().slice(0, 16)).toBe(expected)
  })
  test.each(['31/31/2026', '2026-02-30', 'yesterday', '14:00', '6/3/2026 25:00', '6/3/2026 13:00 PM'])('%s is none', (text) => {
    expect(parseMoment(text, 'mdy')).toBeUndefined()
  })
  test('an offset in the text is kept', () => expect(parseTime('07:00:00+02:00')).toEqual({ minutes: 420, offset: 120 }))
})

test('a wall clock shows the autumn hour twice and skips one in spring', () => {
  const wall = new WallClock('America/Los_Angeles')
  expect(wall.momentsOf(Date.UTC(2025, 10, 2, 1, 30))).toEqual([Date.UTC(2025, 10, 2, 8, 30), Date.UTC(2025, 10, 2, 9, 30)])
  expect(wall.momentsOf(Date.UTC(2025, 2, 9, 2, 30))).toEqual([])
  expect(wall.momentsOf(Date.UTC(2025, 6, 1, 12))).toEqual([Date.UTC(2025, 6, 1, 19)])
})

describe('what a file is taken for', () => {
  test('US dates with a time column and units in the header', () => {
    const text = [
      'Station log',
      'Date,Time,Air Temp (°F),RH (%),Rain (in),Wind Speed (mph)',
      ...hoursOf(5, (d, h) => `${d.getUTCMonth() + 1}/${d.getUTCDate()}/2026,${h}:00,${50 + h},60,0,3`),
    ].join('\n')
    const { mapping, columns } = guessMapping(text, SITE)
    expect(mapping).toMatchObject({
      separator: ',',
      headerLines: 2,
      interval: 'hourly',
      dateColumn: 0,
      timeColumn: 1,
      dateOrder: 'mdy',
      clock: 'standard',
    })
    expect(mapping.columns.map(({ variable, unit }) => [variable, unit])).toEqual([
      ['temperature', 'F'],
      ['humidity', '%'],
      ['rain', 'in'],
      ['wind', 'mph'],
    ])
    expect(columns[2]?.name).toBe('Air Temp (°F)')
  })

  test('semicolons, decimal commas, day first, daily extremes; dew point is no temperature', () => {
    const text =
      'Datum;Tmin °C;Tmax °C;dew point;rain mm\n' +
      Array.from({ length: 20 }, (_, i) => `${i + 1}.05.2026;${i},5;${i + 11},0;3,0;0,0`).join('\n')
    const { mapping } = guessMapping(text.replaceAll('Tmin', 'min').replaceAll('Tmax', 'max'), SITE)
    expect(mapping).toMatchObject({ separator: ';', decimal: ',', interval: 'daily', dateOrder: 'dmy' })
    expect(mapping.columns.map(({ variable, column, unit }) => [variable, column, unit])).toEqual([
      ['min', 1, 'C'],
      ['max', 2, 'C'],
      ['rain', 4, 'mm'],
    ])
  })

  test('dates that can be read either way are asked about', () => {
    const { mapping } = guessMapping('day,min,max\n3/4/2026,40,60\n', SITE)
    expect(mapping.dateOrder).toBeNull()
    expect(openQuestions(mapping, ['3/4/2026'])[0]?.message).toContain('"3/4/2026" can be read as day or month first')
  })

  test('even steps settle the order where no day is above twelve', () => {
    const text = 'day,min,max\n' + Array.from({ length: 9 }, (_, i) => `4/${i + 1}/2026,40,60`).join('\n')
    expect(guessMapping(text, SITE).mapping.dateOrder).toBe('mdy')
  })

  test('a spring hour that is skipped with the zone gives away a wall clock', () => {
    const text = 'time,temp\n' + ['00:00', '01:00', '03:00', '04:00'].map((time) => `2026-03-08 ${time},40`).join('\n')
    expect(guessMapping(text, SITE).mapping.clock).toBe('wall')
  })
})

function hoursOf(days: number, line: (day: Date, hour: number) => string): string[] {
  return Array.from({ length: days * 24 }, (_, i) => line(new Date(Date.UTC(2026, 4, 14 + Math.floor(i / 24))), i % 24))
}

describe('where the wind comes from', () => {
  const of = (name: string, cells: readonly string[]) =>
    understand(`time,temp C,${name},Wind speed m/s\n` + cells.map((cell, h) => `2026-06-03 ${14 + h}:00,20.${h},${cell},3.1`).join('\n'))

  test('is not how strong it is', () => {
    const { mapping } = of('Wind bearing', ['270', '280'])
    expect(mapping.columns).toMatchObject([
      { variable: 'temperature' },
      { variable: 'direction', column: 2, unit: 'deg' },
      { variable: 'wind', column: 3, unit: 'm/s' },
    ])
  })

  test.each([
    ['Wind direction', ['E', 'SSW', 'calm'], 'NESW', [90, 202.5, undefined]],
    ['Windrichtung', ['O', 'NNO', 'W'], 'NOSW', [90, 22.5, 270]],
    ['Direction du vent', ['O', 'E', 'SO'], 'NESO', [270, 90, 225]],
    ['WD', ['0', '360', '90°'], 'deg', [0, 0, 90]],
    ['DD', ['10', '20', '30'], 'deg', [10, 20, 30]],
  ])('%s in degrees, or in the letters of its language', (name, cells, unit, degrees) => {
    const { mapping, understood } = of(name, cells)
    expect(mapping.columns[1]).toEqual({ variable: 'direction', column: 2, unit })
    expect(understood.map(({ values }) => values.direction)).toEqual(degrees)
  })

  test('is named where it cannot be read, and the rest of the line is taken; outside the circle the line is refused', () => {
    const { rows, rejections } = of('Wind direction', ['E', 'upwards', 'N'])
    expect(rows.map(([, temperature]) => temperature)).toEqual([20, 20.1, 20.2])
    expect(rejections).toMatchObject([
      { line: 3, partly: true, reason: 'direction "upwards" is neither degrees nor a point of the compass; the rest of the line is taken' },
    ])
    const outside = of('Wind direction', ['90', '400', '10'])
    expect(outside.rejections).toMatchObject([{ line: 3, reason: 'direction 400 is outside 0 to 360 °; is the unit right?' }])
    expect(outside.rows).toHaveLength(2)
  })

  test('is not taken from a row that says how dates are written', () => {
    const lines = ['Date,Air temp,Rain', 'dd/mm/yyyy hh:mm,°C,mm', '13/06/2026 14:00,20.1,0', '13/06/2026 15:00,20.4,0']
    const { mapping } = guessMapping(lines.join('\n'), SITE)
    expect(mapping.columns.map(({ variable }) => variable)).toEqual(['temperature', 'rain'])
  })

  test('of a gust, and of the sun, is none', () => {
    for (const name of ['Gust direction', 'Solar azimuth', 'Richtung Boe'])
      expect(of(name, ['90', '95']).mapping.columns.map(({ variable }) => variable)).toEqual(['temperature', 'wind'])
  })

  test('within an hour is the mean of vectors, in which a stronger wind weighs more', () => {
    const text =
      'time,temp C,wind dir,wind m/s\n' + ['350,1', '10,1', '100,0'].map((cells, i) => `2026-06-03 14:${i}0,20.${i},${cells}`).join('\n')
    const { rows } = understand(text)
    expect(rows).toHaveLength(1)
    expect(rows[0]![1 + HOUR_VALUES.indexOf('direction')]).toBe(0)
  })
})

test('a day that is written with 24:00 is the day that ends then', () => {
  const { rows } = understand('date,min C,max C\n2026-06-03 24:00,8,21\n2026-06-04 24:00,9,24', {
    interval: 'daily',
    columns: [
      { variable: 'min', column: 1, unit: 'C' },
      { variable: 'max', column: 2, unit: 'C' },
    ],
  })
  expect(rows.map(([day]) => day)).toEqual(['2026-06-03', '2026-06-04'])
})

test.each([
  ['a single line of commas', ','.repeat(300_000), /Line 1 is 300000 characters long/],
  ['a single line of quotes', '"'.repeat(300_000), /Line 1 is 300000 characters long/],
  ['more lines than any logger wrote', '\n'.repeat(5_000_002), /more than 5000000 lines/],
])('%s is refused before it is taken apart', (_, text, words) => {
  expect(() => requireLines(text)).toThrow(words)
})

test('a quote that is never closed is a letter, and holds up nothing', () => {
  const lines = Array.from({ length: 20_000 }, (_, i) => `${new Date(Date.UTC(2019, 0, 1, i)).toISOString().slice(0, 16)},${10 + (i % 9)}`)
  const seconds = (): number => {
    const began = process.cpuUsage()
    const { rejections, rows } = understand(['time,temp C', ...lines].join('\n'))
    expect(rows.length + rejections.length).toBe(20_000)
    return process.cpuUsage(began).user
  }
  const without = seconds()
  lines[5] = '2019-01-01T04:00,"11'
  // A reader that looks for the end of the quote from every line takes hundreds of times as long.
  expect(seconds() / without).toBeLessThan(10)
})

describe('what is stored', () => {
  test('°F, inches and mph become °C, mm and m/s at UTC hours', () => {
    const { rows } = understand('time,temp F,rain in,wind mph\n2026-05-14 06:00,50,0.1,10\n2026-05-14 07:00,68,0,0')
    expect(rows[0]?.[0]).toBe('2026-05-14 14:00:00')
    expect(rows[0]?.slice(1).map((v) => (v === null ? null : Number(Number(v).toFixed(4))))).toEqual([
      10,
      null,
      2.54,
      4.4704,
      null,
      null,
      null,
    ])
  })

  test('the repeated autumn hour of a wall clock is taken in order', () => {
    const text = 'time,temp C\n' + ['00:00', '01:00', '01:00', '02:00'].map((time, i) => `2025-11-02 ${time},${i}`).join('\n')
    const { rows, rejections } = understand(text, { clock: 'wall' })
    expect(rejections).toEqual([])
    expect(rows.map(([at, t]) => [at, t])).toEqual([
      ['2025-11-02 07:00:00', 0],
      ['2025-11-02 08:00:00', 1],
      ['2025-11-02 09:00:00', 2],
      ['2025-11-02 10:00:00', 3],
    ])
  })

  test('newest first is understood too', () => {
    const text = 'time,temp C\n' + ['02:00', '01:00', '01:00', '00:00'].map((time, i) => `2025-11-02 ${time},${3 - i}`).join('\n')
    expect(understand(text, { clock: 'wall' }).rows.map(([at]) => at)).toEqual([
      '2025-11-02 07:00:00',
      '2025-11-02 08:00:00',
      '2025-11-02 09:00:00',
      '2025-11-02 10:00:00',
    ])
  })

  test('ten-minute readings are averaged into hours and their rain added up', () => {
    const text =
      'time,temp C,rain mm\n' +
      Array.from({ length: 12 }, (_, i) => `2026-05-14 0${Math.floor(i / 6)}:${(i % 6) * 10 || '00'},${i % 6},0.5`).join('\n')
    const { rows, readingsPerHour } = understand(text)
    expect(readingsPerHour).toBe(6)
    expect(rows.map(([, t, , rain]) => [t, rain])).toEqual([
      [2.5, 3],
      [2.5, 3],
    ])
  })
})

describe('what is refused, line by line', () => {
  const good = Array.from({ length: 8 }, (_, h) => `2026-05-14 0${h}:00,10,50`)
  const reasons = (lines: string[]) =>
    understand(['time,temp C,hum', ...good, ...lines].join('\n'), { clock: 'wall' }).rejections.map(
      ({ line, reason }) => `${line}: ${reason}`,
    )

  test.each([
    ['2026-05-15 09:00,warm,50', 'temperature "warm" is not a number; the rest of the line is taken'],
    ['2026-05-15 09:00,99,50', 'temperature 99 is outside -60 to 58 °C; is the unit right?'],
    ['2026-05-15 09:00,,', 'no reading on this line'],
    ['2026-13-15 09:00,10,50', '"2026-13-15 09:00" is not a date'],
    ['2026-03-08 02:00,10,50', 'this hour does not exist: the wall clock skips it in spring'],
    ['2026-06-13 09:00,10,50', 'lies in the future'],
  ])('%s', (line, reason) => expect(reasons([line])).toEqual([`10: ${reason}`]))

  test('two lines that contradict each other are both left out; one repeated word for word is not', () => {
    expect(reasons(['2026-05-14 03:00,10.5,50'])).toEqual([
      '5: lines 5, 10 give different values for the same moment; none was taken',
      '10: lines 5, 10 give different values for the same moment; none was taken',
    ])
    expect(understand(['time,temp C,hum', ...good, good[3]].join('\n')).repeated).toBe(1)
  })

  test('a day whose minimum is above its maximum', () => {
    const { rejections } = understand('day,min C,max C\n2026-05-14,4,9\n2026-05-15,19,9')
    expect(rejections).toEqual([{ line: 3, reason: 'the minimum is above the maximum', content: '2026-05-15,19,9' }])
  })
})

describe('what is no text', () => {
  test.each([
    ['nothing', new Uint8Array(), 'The file is empty'],
    ['a spreadsheet', Uint8Array.from([0x50, 0x4b, 3, 4, 0, 0]), 'a spreadsheet or zip file'],
    ['anything binary', Uint8Array.from({ length: 300 }, (_, i) => i % 9), 'not a text file'],
    ['blank lines', new TextEncoder().encode('\n\n  \n'), 'nothing but blank lines'],
  ])('%s', (_, bytes, words) => expect(() => decodeText(bytes)).toThrow(words))

  test('UTF-16 and Latin-1 are read', () => {
    expect(decodeText(Uint8Array.from([0xff, 0xfe, 0x41, 0, 0xb0, 0]))).toBe('A°')
    expect(decodeText(Uint8Array.from([0x41, 0xb0]))).toBe('A°')
  })
})
