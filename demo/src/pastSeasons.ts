import { civilDate, dayNumber, drawNormal, drawPoisson, seededRandom, shareReached, type Random } from '@bocado/core'
import { drawRound } from './counts.js'
import { heatOf, TRUE_CODLING_MOTH } from './pastRecords.js'
import type { InventedStation } from './weather.js'

/** A deed of a past season, as it was written down afterwards. */
export interface PastDeed {
  product: string
  startedAt: string
  endedAt: string
  rate: number
  areaHa: number
  note: string
}

/** A count of a past season; `check`: in the untreated area. */
export interface PastRound {
  countedOn: string
  check: boolean
  units: Record<string, number>[]
}

/** What was watched in a block in a past season, counted and done against it. */
export interface PastWatch {
  season: string
  organism: string
  block: string
  biofix: string | null
  rounds: PastRound[]
  deeds: PastDeed[]
}

/** What was picked of a block, and of some of it how many were spoilt. */
export interface PastHarvest {
  block: string
  pickedOn: string
  kg: number
  pieces: number
  spoilt: number
  spoiltBy: string
}

/** Blocks of the codling moth story: fruit with entries per hundred in a year when nothing is done, and how the cold by the river delays them. */
const ORCHARDS = {
  'Old Apples': { pressure: 15, areaHa: 4.2, kgPerHa: 26_000, product: 'Granule C (granulosis virus)', rate: 0.1, kill: 0.75, lasts: 8 },
  'Ladder Pears': { pressure: 9, areaHa: 2.6, kgPerHa: 21_000, product: 'Tanager 240 (spinosyn)', rate: 0.4, kill: 0.85, lasts: 10 },
} as const
type Orchard = keyof typeof ORCHARDS

/** An entry is told as fresh for so many days. */
const FRESH_DAYS = 14
const DAYS_BETWEEN_SPRAYS = 8
/** Half past nine in the evening at Hollin Bench. */
const EVENING = 'T04:30:00Z'

interface Hatching {
  biofix: string
  /** Share of the year's first generation that has hatched by a day number. */
  hatched: (day: number) => number
  /** The day number on which a share has hatched. */
  on: (share: number) => number
}

function hatchingOf(random: Random, season: string, heat: readonly number[]): Hatching {
  const { flight, betweenYears, spread, hatch } = TRUE_CODLING_MOTH
  const firstDay = dayNumber(season)
  const begins = flight + drawNormal(random, 0, betweenYears)
  const middle = begins + 1.88 * spread + hatch
  const hatched = (day: number): number => shareReached(heat[day - firstDay] ?? 0, { kind: 'normal', median: middle, sd: spread })
  const on = (share: number): number => firstDay + heat.findIndex((_, i) => hatched(firstDay + i) >= share)
  return { biofix: civilDate(firstDay + heat.findIndex((sum) => sum >= begins)), hatched, on }
}

/** Fruit with fresh entries per hundred on a day, where deeds killed their share of what hatched while they lasted. */
function freshOn({ hatched }: Hatching, pressure: number, day: number, sprayed: readonly number[], kill: number, lasts: number): number {
  let sum = 0
  for (let hatch = day - FRESH_DAYS + 1; hatch <= day; hatch++) {
    const met = sprayed.some((spray) => hatch > spray && hatch <= spray + lasts)
    sum += (hatched(hatch) - hatched(hatch - 1)) * (met ? 1 - kill : 1)
  }
  return pressure * sum
}

/** The codling moth of one orchard in one season: counted before, sprayed, counted again from the day on which it shows. */
function codlingMoth(
  random: Random,
  season: string,
  name: Orchard,
  heat: readonly number[],
  sprays: number,
): { watch: PastWatch; harvest: PastHarvest } {
  const { pressure, areaHa, kgPerHa, product, rate, kill, lasts } = ORCHARDS[name]
  const hatching = hatchingOf(random, season, heat)
  const year = pressure * Math.exp(drawNormal(random, 0, 0.3))
  const first = hatching.on(0.12)
  const sprayed = Array.from({ length: sprays }, (_, i) => first + i * DAYS_BETWEEN_SPRAYS)
  // Two areas go apart by themselves, whatever is done.
  const drift = Math.exp(drawNormal(random, 0, 0.2))
  const rounds = [first, first + 7, first + 15, first + 23].flatMap((day): PastRound[] => {
    const at = (check: boolean): PastRound => {
      const density = freshOn(hatching, year, day, check ? [] : sprayed, kill, lasts) * (check ? drift : 1)
      return { countedOn: civilDate(day), check, units: drawRound(random, density, 24, 20) }
    }
    return [at(false), at(true)]
  })
  const deeds = sprayed.map((day, i): PastDeed => {
    // The evening of a day at Hollin Bench is the next one in UTC.
    const evening = civilDate(day + 1)
    return {
      product,
      startedAt: `${evening}${EVENING}`,
      endedAt: `${evening}T06:10:00Z`,
      rate,
      areaHa: name === 'Old Apples' ? 3.9 : 2.4,
      note: i === 0 ? 'at the first hatch' : 'second one, for the later hatch',
    }
  })
  const hurt = Math.min(0.5, freshOn(hatching, year, first + 23, sprayed, kill, lasts) / 100 + 0.01)
  const watch = { season, organism: 'codling-moth', block: name, biofix: hatching.biofix, rounds, deeds }
  const kg = Math.round((kgPerHa * areaHa * Math.exp(drawNormal(random, 0, 0.15))) / 100) * 100
  return {
    watch,
    harvest: {
      block: name,
      pickedOn: `${season.slice(0, 4)}-09-${name === 'Old Apples' ? 18 : '08'}`,
      kg,
      pieces: 400,
      spoilt: drawPoisson(random, 400 * hurt),
      spoiltBy: 'codling-moth',
    },
  }
}

/** Animals on single plants of the tunnel, five flowers each. */
const flowers = (random: Random, perFlower: number): Record<string, number>[] =>
  Array.from({ length: 20 }, () => {
    const patchiness = -Math.log(1 - random()) * 0.5 - Math.log(1 - random()) * 0.5
    return { thrips: drawPoisson(random, 5 * perFlower * patchiness) }
  })

/** Thrips in the tunnel a year ago: a cold week came, and they fell in sprayed and unsprayed bays alike. */
function thripsOfLastYear(random: Random): PastWatch {
  const round = (countedOn: string, check: boolean, perFlower: number): PastRound => ({
    countedOn,
    check,
    units: flowers(random, perFlower),
  })
  return {
    season: '2025-01-01',
    organism: 'western-flower-thrips',
    block: 'Glass Two',
    biofix: '2025-04-24',
    rounds: [
      round('2025-05-20', false, 2.6),
      round('2025-05-20', true, 2.4),
      round('2025-05-28', false, 0.8),
      round('2025-05-28', true, 0.75),
      round('2025-06-18', false, 1.9),
    ],
    deeds: [
      {
        product: 'Bench soap',
        startedAt: `2025-05-21${EVENING}`,
        endedAt: '2025-05-21T05:20:00Z',
        rate: 10,
        areaHa: 0.2,
        note: 'a cold week from the day after',
      },
    ],
  }
}

/** Shoots struck in Stone Row a year ago: over the threshold twice, and nobody did anything in time. */
function missedInStoneRow(random: Random): PastWatch {
  const round = (countedOn: string, share: number): PastRound => ({
    countedOn,
    check: false,
    units: Array.from({ length: 20 }, () => ({ strike: drawPoisson(random, 10 * share) })),
  })
  return {
    season: '2025-01-01',
    organism: 'oriental-fruit-moth',
    block: 'Stone Row',
    biofix: '2025-04-18',
    rounds: [round('2025-05-19', 0.02), round('2025-06-02', 0.07), round('2025-06-20', 0.09)],
    deeds: [],
  }
}

/** Watched and done nothing about, a year ago. */
const ONLY_WATCHED: readonly PastWatch[] = [
  { season: '2025-01-01', organism: 'grape-berry-moth', block: 'Terrace Vines', biofix: null, rounds: [], deeds: [] },
]

/**
 * Three past seasons, run by a hidden model whose numbers differ a little from the library's and seen through counts: what was watched, what was
 * done and what came of it.
 */
export function inventPastSeasons(stations: { bench: InventedStation; river: InventedStation }): {
  watches: PastWatch[]
  harvests: PastHarvest[]
} {
  const seasons = ['2023-01-01', '2024-01-01', '2025-01-01']
  const random = seededRandom(1866)
  const { rule } = TRUE_CODLING_MOTH
  const [bench, river] = [heatOf(stations.bench, seasons, rule), heatOf(stations.river, seasons, rule)]
  const orchards = seasons.flatMap((season, i) => [
    codlingMoth(random, season, 'Old Apples', bench[i]?.heat ?? [], season === '2024-01-01' ? 1 : 2),
    codlingMoth(random, season, 'Ladder Pears', river[i]?.heat ?? [], season === '2023-01-01' ? 0 : 1),
  ])
  return {
    watches: [...orchards.map(({ watch }) => watch), thripsOfLastYear(random), missedInStoneRow(random), ...ONLY_WATCHED],
    harvests: orchards.map(({ harvest }) => harvest),
  }
}
