import type { WeatherMapping } from '@bocado/contract'
import { MS_PER_DAY, MS_PER_HOUR } from '@bocado/core'
import { describe, expect, test } from 'vitest'
import { guessMapping } from './guess.js'
import { readReadings } from './readings.js'
import { splitCells } from './text.js'
import { openQuestions } from './understand.js'

/* Files as loggers, weather services and spreadsheets write them; each says the same weather, and each must become it without a question. */

const OFFSET = -480
const START = Date.UTC(2026, 4, 4)
const HOURS = 72
const DAYS = 20

/** The weather that every file tells, in SI; whole numbers in some units, so that nothing is lost by rounding. */
const truth = {
  temperature: (h: number) => Math.round(10 * (12 + 8 * Math.sin((h - 9) / 3.82))) / 10,
  humidity: (h: number) => Math.round(65 - 20 * Math.sin((h - 9) / 3.82)),
  rain: (h: number) => (h % 31 === 4 ? 2.5 : 0),
  wind: (h: number) => Math.round(10 * (2 + Math.sin(h / 5))) / 10,
  min: (d: number) => Math.round(10 * (6 + 3 * Math.sin(d))) / 10,
  max: (d: number) => Math.round(10 * (18 + 4 * Math.sin(d + 1))) / 10,
  dayRain: (d: number) => (d % 6 === 2 ? 5.1 : 0),
}
const two = (n: number): string => String(n).padStart(2, '0')
const F = (c: number): string => (c * 1.8 + 32).toFixed(1)
const comma = (n: number | string): string => String(n).replace('.', ',')
const MON = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']

interface Moment {
  y: number
  m: number
  d: number
  h: number
  iso: string
}
const momentOf = (local: number): Moment => {
  const at = new Date(local)
  return {
    y: at.getUTCFullYear(),
    m: at.getUTCMonth() + 1,
    d: at.getUTCDate(),
    h: at.getUTCHours(),
    iso: at.toISOString().slice(0, 10),
  }
}
const hours = (line: (t: Moment, h: number) => string, shift = 0): string[] =>
  Array.from({ length: HOURS }, (_, h) => line(momentOf(START + (h + shift) * MS_PER_HOUR), h))
const days = (line: (t: Moment, d: number) => string): string[] =>
  Array.from({ length: DAYS }, (_, d) => line(momentOf(START + d * MS_PER_DAY), d))
const file = (...parts: (string | string[])[]): string => parts.flat().join('\n')
const { temperature: T, humidity: H, rain: R, wind: W, min: N, max: X, dayRain: P } = truth
const clock12 = (h: number): string => `${h % 12 === 0 ? 12 : h % 12}:00 ${h < 12 ? 'AM' : 'PM'}`

type Holds = readonly ('temperature' | 'humidity' | 'rain' | 'wind')[]
interface Shape {
  text: string
  holds: Holds
  units?: 'metric' | 'us'
  mapping?: Partial<WeatherMapping>
}
const ALL: Holds = ['temperature', 'humidity', 'rain', 'wind']

const HOURLY: Record<string, Shape> = {
  'plain ISO': {
    text: file(
      'time,temperature,humidity,rain,wind',
      hours((t, h) => `${t.iso} ${two(t.h)}:00,${T(h)},${H(h)},${R(h)},${W(h)}`),
    ),
    holds: ALL,
  },
  'ISO with T and seconds': {
    text: file(
      'timestamp,temp_c,rh',
      hours((t, h) => `${t.iso}T${two(t.h)}:00:00,${T(h)},${H(h)}`),
    ),
    holds: ['temperature', 'humidity'],
  },
  'an offset in each time': {
    text: file(
      'datetime,air_temp',
      hours((t, h) => `${t.iso}T${two(t.h)}:00:00-08:00,${T(h)}`),
    ),
    holds: ['temperature'],
  },
  'UTC with Z': {
    text: file(
      'datetime,air_temp',
      hours((t, h) => `${t.iso}T${two(t.h)}:00:00Z,${T(h)}`, 8),
    ),
    holds: ['temperature'],
    mapping: { clock: 'utc' },
  },
  'UTC in the head': {
    text: file(
      'Time (UTC);Temp °C',
      hours((t, h) => `${t.iso} ${two(t.h)}:00;${T(h)}`, 8),
    ),
    holds: ['temperature'],
    mapping: { clock: 'utc' },
  },
  'the station’s offset in the head': {
    text: file(
      'Local time (UTC-8),Temp °C',
      hours((t, h) => `${t.iso} ${two(t.h)}:00,${T(h)}`),
    ),
    holds: ['temperature'],
    mapping: { clock: 'standard' },
  },
  'another offset in the head': {
    text: file(
      'Date Time GMT-05:00,Temp °C',
      hours((t, h) => `${t.iso} ${two(t.h)}:00,${T(h)}`, 3),
    ),
    holds: ['temperature'],
    mapping: { clock: 'fixed', offsetMinutes: -300 },
  },
  'US dates, Fahrenheit, twelve hours': {
    text: file(
      'Date,Time,Air Temp (°F),RH (%),Rain (in),Wind Speed (mph)',
      hours((t, h) => `${t.m}/${t.d}/${t.y},${clock12(t.h)},${F(T(h))},${H(h)},${(R(h) / 25.4).toFixed(4)},${(W(h) / 0.44704).toFixed(2)}`),
    ),
    holds: ALL,
    units: 'us',
  },
  'German, semicolons and commas': {
    text: file(
      'Datum;Uhrzeit;Lufttemperatur °C;Luftfeuchte %;Niederschlag mm;Windgeschwindigkeit m/s',
      hours((t, h) => `${two(t.d)}.${two(t.m)}.${t.y};${two(t.h)}:00;${comma(T(h))};${H(h)};${comma(R(h))};${comma(W(h))}`),
    ),
    holds: ALL,
  },
  'German, with soil moisture, dew point and gusts beside it': {
    text: file(
      'Zeit;Temperatur;Taupunkt;Bodenfeuchte;Windböe;Windrichtung;Regen;relative Feuchte;Wind',
      hours((t, h) => `${two(t.d)}.${two(t.m)}.${t.y} ${two(t.h)}:00;${comma(T(h))};3,1;22;9,9;180;${comma(R(h))};${H(h)};${comma(W(h))}`),
    ),
    holds: ALL,
  },
  French: {
    text: file(
      'Date;Heure;Température (°C);Humidité (%);Pluie (mm);Vent (m/s);Rafale (m/s)',
      hours((t, h) => `${two(t.d)}/${two(t.m)}/${t.y};${two(t.h)}:00;${comma(T(h))};${H(h)};${comma(R(h))};${comma(W(h))};9,9`),
    ),
    holds: ALL,
    mapping: { dateOrder: 'dmy' },
  },
  Spanish: {
    text: file(
      'Fecha;Hora;Temperatura;Humedad relativa;Precipitación;Velocidad del viento;Dirección del viento',
      hours((t, h) => `${t.iso};${two(t.h)}:00;${comma(T(h))};${H(h)};${comma(R(h))};${comma(W(h))};90`),
    ),
    holds: ALL,
  },
  Italian: {
    text: file(
      'Data;Ora;Temperatura aria;Umidità;Pioggia;Vento;Raffica;Direzione vento',
      hours((t, h) => `${t.iso};${two(t.h)}:00;${comma(T(h))};${H(h)};${comma(R(h))};${comma(W(h))};9,9;270`),
    ),
    holds: ALL,
  },
  Portuguese: {
    text: file(
      'Data;Hora;Temperatura do ar;Umidade relativa;Chuva;Vento',
      hours((t, h) => `${t.iso};${two(t.h)}:00;${comma(T(h))};${H(h)};${comma(R(h))};${comma(W(h))}`),
    ),
    holds: ALL,
  },
  'tabs from a spreadsheet': {
    text: file(
      'Date\tTime\tTemp\tRH',
      hours((t, h) => `${t.d}-${MON[t.m - 1]}-${t.y}\t${two(t.h)}:00\t${T(h)}\t${H(h)}`),
    ),
    holds: ['temperature', 'humidity'],
  },
  bars: {
    text: file(
      'time|temp|rain',
      hours((t, h) => `${t.iso} ${two(t.h)}:00|${T(h)}|${R(h)}`),
    ),
    holds: ['temperature', 'rain'],
  },
  'quoted cells with blanks': {
    text: file(
      '"Time","Temp","Hum"',
      hours((t, h) => `"${t.iso} ${two(t.h)}:00", "${T(h)}", "${H(h)}"`),
    ),
    holds: ['temperature', 'humidity'],
  },
  'a units row under the head': {
    text: file(
      'TIMESTAMP,AirTC_Avg,RH,Rain_Tot,WS',
      'TS,Deg C,%,mm,m/s',
      hours((t, h) => `${t.iso} ${two(t.h)}:00:00,${T(h)},${H(h)},${R(h)},${W(h)}`),
    ),
    holds: ALL,
    units: 'us',
  },
  'a title, names, units and kinds of mean in four rows': {
    text: file(
      'Station,Bench,v2,42,9',
      'TIMESTAMP,AirTC_Avg,RH,Rain_Tot,WS_ms_Avg',
      'TS,Deg C,%,mm,meters/second',
      ',Avg,Smp,Tot,Avg',
      hours((t, h) => `"${t.iso} ${two(t.h)}:00:00",${T(h)},${H(h)},${R(h)},${W(h)}`),
    ),
    holds: ALL,
  },
  'units in brackets on a US site': {
    text: file(
      'Date & Time,Temp [C],Rain [mm]',
      hours((t, h) => `${t.m}/${t.d}/${t.y} ${two(t.h)}:00,${T(h)},${R(h)}`),
    ),
    holds: ['temperature', 'rain'],
    units: 'us',
  },
  'units behind each number': {
    text: file(
      'Time,Temperature,Humidity,Rain',
      hours((t, h) => `${t.iso} ${two(t.h)}:00,${T(h)} °C,${H(h)}%,${R(h)} mm`),
    ),
    holds: ['temperature', 'humidity', 'rain'],
  },
  'tenths of degrees and millimetres': {
    text: file(
      'DATE,TIME,TEMP,PRCP',
      hours((t, h) => `${t.iso},${two(t.h)}:00,${Math.round(T(h) * 10)},${Math.round(R(h) * 10)}`),
    ),
    holds: ['temperature', 'rain'],
  },
  'compact dates': {
    text: file(
      'YYYYMMDD,HHMM,T,RH',
      hours((t, h) => `${t.y}${two(t.m)}${two(t.d)},${two(t.h)}:00,${T(h)},${H(h)}`),
    ),
    holds: ['temperature', 'humidity'],
  },
  'newest first': {
    text: file('time,temp', hours((t, h) => `${t.iso} ${two(t.h)}:00,${T(h)}`).reverse()),
    holds: ['temperature'],
  },
  'hour ending, said in the head': {
    text: file(
      'Hour ending,Temp,Rain mm',
      hours((t, h) => `${t.iso} ${two(t.h)}:00,${T(h)},${R(h)}`, 1),
    ),
    holds: ['temperature', 'rain'],
    mapping: { stamp: 'ends' },
  },
  'days from 01:00 to 24:00': {
    text: file(
      'date,hour,temp,rain',
      hours((_, h) => {
        const t = momentOf(START + Math.floor(h / 24) * MS_PER_DAY)
        return `${t.iso},${two((h % 24) + 1)}:00,${T(h)},${R(h)}`
      }),
    ),
    holds: ['temperature', 'rain'],
    mapping: { stamp: 'ends' },
  },
  'days from 01:00 to 00:00': {
    text: file(
      'time,temp,rain',
      hours((t, h) => `${t.iso} ${two(t.h)}:00,${T(h)},${R(h)}`, 1),
    ),
    holds: ['temperature', 'rain'],
    mapping: { stamp: 'ends' },
  },
  'every ten minutes': {
    text: file(
      'time,temp,rain',
      hours((t, h) => Array.from({ length: 6 }, (_, i) => `${t.iso} ${two(t.h)}:${i}0,${T(h)},${i === 2 ? R(h) : 0}`).join('\n')),
    ),
    holds: ['temperature', 'rain'],
  },
  'two digits of the year': {
    text: file(
      'date,time,temp',
      hours((t, h) => `${t.m}/${t.d}/${String(t.y).slice(2)},${two(t.h)}:00,${T(h)}`),
    ),
    holds: ['temperature'],
  },
  'marks for nothing read': {
    text: file(
      'time,temp,rh',
      hours((t, h) => `${t.iso} ${two(t.h)}:00,${T(h)},${h % 7 === 3 ? ['-999', 'NA', '--', 'M'][h % 4] : H(h)}`),
    ),
    holds: ['temperature'],
  },
  'an indoor sensor and a barometer beside it': {
    text: file(
      'time,Indoor Temp,Outdoor Temp,Pressure,Outdoor Humidity',
      hours((t, h) => `${t.iso} ${two(t.h)}:00,21,${T(h)},1013,${H(h)}`),
    ),
    holds: ['temperature', 'humidity'],
  },
  'wind in km/h': {
    text: file(
      'time,temp,wind km/h',
      hours((t, h) => `${t.iso} ${two(t.h)}:00,${T(h)},${(W(h) * 3.6).toFixed(2)}`),
    ),
    holds: ['temperature', 'wind'],
  },
  'a trailing comma and blank lines': {
    text: file('time,temp,', hours((t, h) => `${t.iso} ${two(t.h)}:00,${T(h)},`).join('\n\n')),
    holds: ['temperature'],
  },
  'lines of an old machine': {
    text: file(
      'time,temp',
      hours((t, h) => `${t.iso} ${two(t.h)}:00,${T(h)}`),
    ).replaceAll('\n', '\r\n'),
    holds: ['temperature'],
  },
  'comments above': {
    text: file(
      '# exported by hand',
      '# Bench, UTC offset see station',
      'time,temp',
      hours((t, h) => `${t.iso} ${two(t.h)}:00,${T(h)}`),
    ),
    holds: ['temperature'],
    mapping: { clock: 'utc' },
  },
}

const DAILY: Record<string, { text: string; rain: boolean; units?: 'metric' | 'us' }> = {
  'TMAX, TMIN, PRCP': {
    text: file(
      'DATE,PRCP,TMAX,TMIN',
      days((t, d) => `${t.iso},${P(d)},${X(d)},${N(d)}`),
    ),
    rain: true,
  },
  'the same in tenths': {
    text: file(
      'STATION,DATE,PRCP,TMAX,TMIN',
      days((t, d) => `BENCH,${t.iso},${P(d) * 10},${Math.round(X(d) * 10)},${Math.round(N(d) * 10)}`),
    ),
    rain: true,
  },
  'the same in Fahrenheit and inches': {
    text: file(
      'DATE,TMAX,TMIN,PRCP',
      days((t, d) => `${t.m}/${t.d}/${t.y},${F(X(d))},${F(N(d))},${(P(d) / 25.4).toFixed(4)}`),
    ),
    rain: true,
    units: 'us',
  },
  'Tx and Tn with a mean': {
    text: file(
      'date;tn;tm;tx;rr',
      days((t, d) => `${t.iso};${N(d)};12;${X(d)};${P(d)}`),
    ),
    rain: true,
  },
  German: {
    text: file(
      'Tag;Minimum;Maximum;Niederschlag',
      days((t, d) => `${two(t.d)}.${two(t.m)}.${t.y};${comma(N(d))};${comma(X(d))};${comma(P(d))}`),
    ),
    rain: true,
  },
  'French names in a file of commas': {
    text: file(
      'jour,température minimale,température maximale,pluie',
      days((t, d) => `${t.iso},${N(d)},${X(d)},${P(d)}`),
    ),
    rain: true,
  },
  'Italian, minima and massima': {
    text: file(
      'data;temperatura minima;temperatura massima;precipitazione',
      days((t, d) => `${t.iso};${N(d)};${X(d)};${P(d)}`),
    ),
    rain: true,
  },
  'Spanish, mínima and máxima': {
    text: file(
      'fecha;mínima;máxima;lluvia',
      days((t, d) => `${t.iso};${N(d)};${X(d)};${P(d)}`),
    ),
    rain: true,
  },
  'high and low, months by name': {
    text: file(
      'Day,High,Low',
      days((t, d) => `${t.d} ${MON[t.m - 1]} ${t.y},${X(d)},${N(d)}`),
    ),
    rain: false,
  },
  'traces of rain': {
    text: file(
      'date,min,max,rain mm',
      days((t, d) => `${t.iso},${N(d)},${X(d)},${P(d) === 0 ? 'T' : P(d)}`),
    ),
    rain: true,
  },
}

test('there are at least forty shapes', () => {
  expect(Object.keys(HOURLY).length + Object.keys(DAILY).length).toBeGreaterThanOrEqual(40)
})

function bringIn(text: string, units: 'metric' | 'us' = 'metric') {
  const site = { timeZone: 'America/Los_Angeles', units, utcOffsetMinutes: OFFSET }
  const { mapping } = guessMapping(text, site)
  const cells = splitCells(text, mapping.separator)
  const questions = openQuestions(
    mapping,
    cells.slice(mapping.headerLines).map((row) => row[mapping.dateColumn] ?? ''),
  )
  const clock = { timeZone: site.timeZone, utcOffsetMinutes: OFFSET, now: Date.parse('2026-06-12T12:00:00Z') }
  return { mapping, questions, readings: readReadings(text, mapping, clock, () => undefined) }
}

describe('hourly', () => {
  const ORDER = ['temperature', 'humidity', 'rain', 'wind'] as const
  test.each(Object.entries(HOURLY))('%s', (_, { text, holds, units, mapping }) => {
    const { mapping: guessed, questions, readings } = bringIn(text, units)
    expect(questions).toEqual([])
    expect(guessed).toMatchObject({ interval: 'hourly', ...mapping })
    expect(readings.rejections).toEqual([])
    const { keys, columns } = readings.rows
    // A file whose clock says otherwise lies elsewhere in time and is the same for the rest.
    const from = guessed.clock === 'utc' && mapping?.clock === 'utc' && text.startsWith('# ') ? START : START - OFFSET * 60_000
    expect([keys.length, keys[0], keys.at(-1)]).toEqual([HOURS, from, from + (HOURS - 1) * MS_PER_HOUR])
    for (const [v, variable] of ORDER.entries()) {
      if (!holds.includes(variable)) continue
      const far = Array.from({ length: HOURS }, (_, h) => Math.abs((columns[v]?.[h] as number) - truth[variable](h)))
      expect(Math.max(...far), variable).toBeLessThan(0.06)
    }
  })
})

describe('daily', () => {
  test.each(Object.entries(DAILY))('%s', (_, { text, rain, units }) => {
    const { mapping, questions, readings } = bringIn(text, units)
    expect(questions).toEqual([])
    expect(mapping.interval).toBe('daily')
    expect(readings.rejections).toEqual([])
    const { keys, columns } = readings.rows
    expect([keys.length, keys[0]]).toEqual([DAYS, START])
    const far = (c: number, of: (d: number) => number): number =>
      Math.max(...Array.from({ length: DAYS }, (_, d) => Math.abs((columns[c]?.[d] as number) - of(d))))
    expect(far(0, N)).toBeLessThan(0.06)
    expect(far(1, X)).toBeLessThan(0.06)
    if (rain) expect(far(2, P)).toBeLessThan(0.06)
  })
})

test('said to have other lines above its readings, or another separator, a file is guessed again from there', () => {
  const text = file(
    '4 May 2026 21 C at the bench',
    'time,temp',
    hours((t, h) => `${t.iso} ${two(t.h)}:00,${T(h)}`),
  )
  const site = { timeZone: 'America/Los_Angeles', units: 'metric', utcOffsetMinutes: OFFSET } as const
  const { mapping, columns } = guessMapping(text, site, { headerLines: 2, separator: ',' })
  expect(mapping).toMatchObject({ headerLines: 2, interval: 'hourly', columns: [{ variable: 'temperature', column: 1, unit: 'C' }] })
  expect(columns.map(({ name }) => name)).toEqual(['time', 'temp'])
})
