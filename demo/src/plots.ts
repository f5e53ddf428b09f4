import type { endpoints, InputOf, PlotCover } from '@bocado/contract'
import { positionAt } from './ground.js'
import photo2023 from './plots/plot-2023.jpg?inline'
import photo2024 from './plots/plot-2024.jpg?inline'
import photo2025 from './plots/plot-2025.jpg?inline'

/** What is wanted in the natural areas, with what its seller says of it. */
export const WANTED: readonly InputOf<typeof endpoints.replacement.addWanted>[] = [
  { name: 'Tufted sedge', begins: 'planted', spacingCm: 30, months: [9, 10, 3, 4], note: 'plugs from our own ditch' },
  { name: 'Grey willow, cuttings', begins: 'planted', spacingCm: 100, months: [11, 12, 1, 2] },
  {
    name: 'Meadow mix of the valley',
    begins: 'sown',
    gramsPerM2: 3,
    months: [8, 9],
    note: 'seed from Lower Meadow, thrashed by ourselves',
  },
]

/** What was planted in place of weeds, and what will be. */
export const INSTEAD = [
  {
    block: 'Creek Margin',
    organismId: 'himalayan-balsam',
    areaM2: 120,
    plants: [['Tufted sedge', 1]],
    plannedOn: '2023-10-07',
    doneOn: '2023-10-07',
  },
  {
    block: 'Creek Margin',
    organismId: 'japanese-knotweed',
    areaM2: 60,
    plants: [
      ['Grey willow, cuttings', 0.5],
      ['Tufted sedge', 0.5],
    ],
    plannedOn: '2026-11-14',
    doneOn: null,
  },
] as const

interface InventedPlot {
  block: string
  at: readonly [east: number, north: number]
  worked: boolean
  weed: string
  wanted: string
  fromWhat: string
  bearingDeg: number
  paces: number
  /** Cover of the weed and of what is wanted, the first year first. */
  looks: readonly (readonly [day: string, weed: PlotCover, wanted: PlotCover, photo?: string])[]
}

const jpegOf = (inline: string): string => inline.slice(inline.indexOf(',') + 1)
const creek = { block: 'Creek Margin', weed: 'himalayan-balsam', wanted: 'Tufted sedge', fromWhat: 'the post at the bridge' }
const meadow = { block: 'Lower Meadow', weed: 'creeping-thistle', wanted: 'Meadow mix of the valley', fromWhat: 'the gate' }

/** Six plots along the creek, where balsam gives way to sedge but in the one that is left alone; four in the meadow, where little moves. */
export const PLOTS: readonly InventedPlot[] = [
  {
    ...creek,
    at: [120, 108],
    worked: true,
    bearingDeg: 85,
    paces: 24,
    looks: [
      ['2023-06-10', '50-75', '1-5', jpegOf(photo2023)],
      ['2024-06-08', '25-50', '5-25', jpegOf(photo2024)],
      ['2025-06-11', '5-25', '25-50', jpegOf(photo2025)],
    ],
  },
  {
    ...creek,
    at: [210, 112],
    worked: true,
    bearingDeg: 88,
    paces: 110,
    looks: [
      ['2023-06-10', '50-75', 'under-1'],
      ['2024-06-08', '25-50', '1-5'],
      ['2025-06-11', '5-25', '5-25'],
    ],
  },
  {
    ...creek,
    at: [330, 118],
    worked: true,
    bearingDeg: 92,
    paces: 230,
    looks: [
      ['2023-06-10', '25-50', 'none'],
      ['2024-06-08', '25-50', '5-25'],
      ['2025-06-11', '1-5', '5-25'],
    ],
  },
  {
    ...creek,
    at: [450, 126],
    worked: true,
    bearingDeg: 94,
    paces: 350,
    looks: [
      ['2023-06-10', '50-75', '1-5'],
      ['2024-06-08', '5-25', '5-25'],
      ['2025-06-11', '5-25', '25-50'],
    ],
  },
  {
    ...creek,
    at: [560, 132],
    worked: true,
    bearingDeg: 96,
    paces: 460,
    looks: [
      ['2023-06-10', '25-50', '1-5'],
      ['2024-06-08', '25-50', '1-5'],
      ['2025-06-11', '5-25', '5-25'],
    ],
  },
  {
    ...creek,
    at: [640, 138],
    worked: false,
    bearingDeg: 97,
    paces: 540,
    looks: [
      ['2023-06-10', '50-75', 'under-1'],
      ['2024-06-08', '50-75', 'under-1'],
      ['2025-06-11', 'over-75', 'none'],
    ],
  },
  ...([0, 1, 2, 3] as const).map((i): InventedPlot => ({
    ...meadow,
    at: [560 + 30 * i, 240 + 20 * i],
    worked: true,
    bearingDeg: 30 + 15 * i,
    paces: 40 + 20 * i,
    looks: [
      ['2024-06-05', i === 2 ? '25-50' : '5-25', i === 3 ? '25-50' : '5-25'],
      ['2025-06-06', i === 0 ? '25-50' : '5-25', '25-50'],
    ],
  })),
]

/** Where a plot lies, as a handheld would have it. */
export const plotPosition = ({ at }: InventedPlot) => {
  const [longitude, latitude] = positionAt(at)
  return { latitude, longitude, accuracyM: 3 }
}

/** What is to stay in the natural areas, and is harmed while it is above the ground. */
export const COMPANIONS: readonly (Omit<InputOf<typeof endpoints.companions.add>, 'placeId'> & { block: string })[] = [
  { block: 'Lower Meadow', name: 'Marsh orchid', wakesOn: '04-05', sleepsOn: '08-20', harmedBy: ['cutting', 'chemicals', 'soil-work'] },
  {
    block: 'Lower Meadow',
    name: 'Meadow saffron',
    wakesOn: '02-25',
    sleepsOn: '06-20',
    harmedBy: ['soil-work'],
    note: 'flowers again in September',
  },
]
