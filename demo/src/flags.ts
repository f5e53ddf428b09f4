import type { endpoints, InputOf } from '@bocado/contract'
import { drawPoisson, seededRandom, type Random } from '@bocado/core'
import { positionAt } from './ground.js'

type Visit = Omit<InputOf<typeof endpoints.flags.visit>, 'flagId'>

/** A flag with what was seen there over the years, the first look first. */
export interface InventedFlag {
  organism: string
  block: string
  at: readonly [east: number, north: number]
  colour: 'pink' | 'yellow' | 'blue' | 'orange' | 'red'
  visits: Visit[]
}

const FIRST_YEAR = 2022
const LAST_YEAR = 2026
/** Past the demonstration’s now nothing was seen yet. */
const LAST_DAY = '2026-06-12'

/** One kind of weed: where it stands, when it is looked at, and what becomes of a patch from year to year. */
interface Kind {
  organism: string
  block: string
  colour: InventedFlag['colour']
  flags: number
  /** m east and north between which its patches lie. */
  within: readonly [west: number, east: number, south: number, north: number]
  /** Days of each year on which it is visited, as month and day. */
  days: readonly string[]
  method: string
  /** Plants of a new patch, and by what they change a year where the patch was worked at. */
  plants: number
  yearly: number
  perPlantM2: number
  stage: string
  /** Years over which its patches were found. */
  foundUntil: number
  unit: 'bags' | 'pieces'
}

const KINDS: readonly Kind[] = [
  // Falls: pulled twice a year, upstream first.
  {
    organism: 'himalayan-balsam',
    block: 'Creek Margin',
    colour: 'pink',
    flags: 36,
    within: [20, 660, 92, 140],
    days: ['06-08', '07-20'],
    method: 'hand-pulling',
    plants: 45,
    yearly: 0.38,
    perPlantM2: 0.15,
    stage: 'young',
    foundUntil: 2025,
    unit: 'bags',
  },
  // Holds: what is dug comes again from its roots.
  {
    organism: 'creeping-thistle',
    block: 'Lower Meadow',
    colour: 'yellow',
    flags: 12,
    within: [545, 675, 215, 330],
    days: ['06-05', '08-10'],
    method: 'repeated-mowing',
    plants: 60,
    yearly: 1,
    perPlantM2: 0.2,
    stage: 'bolt',
    foundUntil: 2023,
    unit: 'pieces',
  },
  {
    organism: 'wild-parsnip',
    block: 'Lower Meadow',
    colour: 'orange',
    flags: 9,
    within: [545, 675, 340, 410],
    days: ['06-09', '07-15'],
    method: 'root-cut',
    plants: 14,
    yearly: 0.6,
    perPlantM2: 0.1,
    stage: 'flower',
    foundUntil: 2024,
    unit: 'bags',
  },
  {
    organism: 'scotch-broom',
    block: 'Lower Meadow',
    colour: 'blue',
    flags: 3,
    within: [545, 600, 260, 400],
    days: ['06-06'],
    method: 'lever-puller',
    plants: 3,
    yearly: 0.5,
    perPlantM2: 1,
    stage: 'pod',
    foundUntil: 2023,
    unit: 'pieces',
  },
  // Grows: one patch, worked at only by mowing.
  {
    organism: 'japanese-knotweed',
    block: 'Creek Margin',
    colour: 'red',
    flags: 1,
    within: [610, 612, 140, 142],
    days: ['06-03', '08-25'],
    method: 'repeated-mowing',
    plants: 30,
    yearly: 1.35,
    perPlantM2: 0.25,
    stage: 'shoot',
    foundUntil: 2022,
    unit: 'bags',
  },
]

const HEIGHTS = ['finger', 'hand', 'knee', 'hip'] as const

/** The looks at one patch: while plants stand they are worked at, and next year there are fewer or more of them. */
function visitsOf(random: Random, kind: Kind, found: number, isCleanTwice: boolean): Visit[] {
  const visits: Visit[] = []
  let plants = Math.max(1, drawPoisson(random, kind.plants))
  for (let year = found; year <= LAST_YEAR; year++) {
    if (year > found) plants = isCleanTwice && year >= LAST_YEAR - 1 ? 0 : drawPoisson(random, plants * kind.yearly)
    for (const [i, day] of kind.days.entries()) {
      const seenOn = `${year}-${day}`
      if (seenOn > LAST_DAY) continue
      // What was worked at in spring regrows a little by summer.
      const standing = i === 0 ? plants : drawPoisson(random, plants * 0.15)
      if (standing === 0) {
        visits.push({ seenOn, sight: 'none', minutes: 3 })
        continue
      }
      visits.push({
        seenOn,
        sight: i === 0 ? 'standing' : 'regrowing',
        plants: standing,
        areaM2: Math.max(0.1, Math.round(10 * standing * kind.perPlantM2) / 10),
        stage: kind.stage,
        height: HEIGHTS[Math.min(3, 1 + Math.floor(3 * random()))]!,
        // This June’s round along the creek is not finished yet.
        methodId: year === LAST_YEAR && random() < 0.4 ? null : kind.method,
        taken: null,
        minutes: Math.max(2, Math.round(standing / 3)),
        dueOn: year < LAST_YEAR ? null : ['2026-06-11', '2026-06-19', '2026-07-20'][Math.floor(3 * random())]!,
      })
    }
  }
  return visits.filter(({ sight }, i) => i > 0 || sight !== 'none')
}

/** Sixty flags of the natural areas over five years: balsam falls, thistle holds, one knotweed grows, three patches were clean twice. */
export function inventFlags(): InventedFlag[] {
  const random = seededRandom(1733)
  return KINDS.flatMap((kind) =>
    Array.from({ length: kind.flags }, (_, i): InventedFlag => {
      const [west, east, south, north] = kind.within
      const found = FIRST_YEAR + Math.floor(random() * random() * (kind.foundUntil - FIRST_YEAR + 1))
      const x = west + (east - west) * ((i + random()) / kind.flags)
      const y = south + (north - south) * random() + (kind.organism === 'himalayan-balsam' ? (x - 340) * 0.06 : 0)
      return {
        organism: kind.organism,
        block: kind.block,
        at: [Math.round(x), Math.round(y)],
        colour: kind.colour,
        visits: visitsOf(random, kind, found, kind.organism === 'himalayan-balsam' && i < 3),
      }
    }),
  ).filter(({ visits }) => visits.length > 0)
}

/** Where a flag stands, as a handheld would have it. */
export const flagPosition = ({ at }: InventedFlag) => {
  const [longitude, latitude] = positionAt(at)
  return { latitude, longitude, accuracyM: 4 }
}

/** The board at the bridge, and what somebody who passed it sent: nobody has looked at it yet. */
export const BOARD = { block: 'Creek Margin', name: 'Board at the bridge' }
export const FOUND = {
  said: 'balsam, I think, or a willowherb',
  note: 'left bank, ten steps below the bridge, about a dozen',
  seenOn: '2026-06-11',
} as const

/** Searches of this spring: one along the creek by a track with gaps, two that found nothing. */
export const SEARCHES: readonly (Omit<InputOf<typeof endpoints.flags.addSearch>, 'placeId'> & { block: string })[] = [
  {
    block: 'Creek Margin',
    organismIds: ['himalayan-balsam'],
    searchedOn: '2026-06-08',
    minutes: 95,
    viewM: 14,
    found: true,
    track: [[20, 100, 180, 260, 340, 420, 500, 570].map((x, i) => positionAt([x, 100 + (x / 700) * 40 + (i % 2) * 14]))],
  },
  {
    block: 'Lower Meadow',
    organismIds: ['scotch-broom'],
    searchedOn: '2026-06-06',
    minutes: 40,
    coveredShare: 0.7,
    note: 'along the fence and the ditch',
  },
  { block: 'Creek Margin', organismIds: ['giant-hogweed'], searchedOn: '2026-05-14', minutes: 60, coveredShare: 0.5 },
]
