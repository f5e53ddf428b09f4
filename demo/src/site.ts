import type { blocks, endpoints, rules, Person, Place, productInput, InputOf, Watch, weather } from '@bocado/contract'
import type { CropStage } from '@bocado/library'
import type { z } from 'zod'
import type { InventedStation } from './weather.js'

/** Hollin Bench: everything about it is invented. Its position only makes sun and frost behave. */
export const SITE = {
  name: 'Hollin Bench',
  place: 'a river terrace, 34 ha',
  latitude: 46.2,
  longitude: -119.3,
  elevationM: 210,
  timeZone: 'America/Los_Angeles',
  units: 'metric',
} as const

/** 12 June of the demonstration year, half past seven in the morning on the site's clock. */
export const DEMO_NOW = '2026-06-12T14:30:00Z'
export const SEASON = '2026-01-01'

export const LEAD = { name: 'Marit Solheim' } as const
export const PEOPLE: readonly Omit<Person, 'id' | 'rowVersion' | 'signsIn' | 'help'>[] = [
  { name: 'Dario Quince', role: 'scout', licensed: false, licenceNumber: '', licenceUntil: null },
  { name: 'Tovah Lindqvist', role: 'applicator', licensed: true, licenceNumber: 'HB 2041', licenceUntil: '2027-03-31' },
  { name: 'Packing-house buyer', role: 'viewer', licensed: false, licenceNumber: '', licenceUntil: null },
]

/** Two stations: one on the bench, one by the river, where nights are colder. */
export const STATIONS: readonly (InventedStation & { name: 'Bench' | 'River'; about: InputOf<typeof weather.addStation> })[] = [
  {
    name: 'Bench',
    seed: 11,
    coldNights: 0,
    doubts: true,
    about: {
      name: 'Bench',
      place: 'mown grass above Old Apples',
      latitude: 46.2,
      longitude: -119.3,
      elevationM: 210,
      sensorHeightM: 2,
    },
  },
  {
    name: 'River',
    seed: 12,
    coldNights: 1.5,
    doubts: false,
    about: {
      name: 'River',
      place: 'a mast by the pump, cold air pools there',
      latitude: 46.193,
      longitude: -119.289,
      elevationM: 188,
      sensorHeightM: 3,
    },
  },
]

type BlockDefinition = Omit<InputOf<typeof blocks.create>, 'stationId'> & { station: 'Bench' | 'River' | 'nearest' }

export const BLOCKS: readonly BlockDefinition[] = [
  {
    name: 'Old Apples',
    kind: 'orchard',
    areaHa: 4.2,
    grows: 'apple, 1988, on seedling stock',
    station: 'Bench',
    soilTexture: 'silt-loam',
    soilCover: 'covered',
  },
  { name: 'Ladder Pears', kind: 'orchard', areaHa: 2.6, grows: 'pear', station: 'River' },
  { name: 'Stone Row', kind: 'orchard', areaHa: 1.8, grows: 'peach, nectarine', station: 'Bench' },
  { name: 'Terrace Vines', kind: 'vineyard', areaHa: 5.5, grows: 'wine grape', station: 'Bench' },
  { name: 'Long Corn', kind: 'field', areaHa: 8, grows: 'sweet corn in three sowings', station: 'River' },
  { name: 'Onion Flat', kind: 'field', areaHa: 3.1, grows: 'onion', station: 'River' },
  { name: 'Glass Two', kind: 'tunnel', areaHa: 0.3, grows: 'pepper and ornamentals', station: 'Bench', offsetMin: 3, offsetMax: 6 },
  {
    name: 'Creek Margin',
    kind: 'natural-area',
    areaHa: 5,
    grows: 'alder and willow',
    station: 'nearest',
    latitude: 46.191,
    longitude: -119.287,
  },
  {
    name: 'Lower Meadow',
    kind: 'natural-area',
    areaHa: 3.5,
    grows: 'hay, wild flowers',
    station: 'nearest',
    latitude: 46.194,
    longitude: -119.292,
    offsetMin: -1.2,
    soilTexture: 'sandy-loam',
    soilCover: 'covered',
  },
]

/** Parts of blocks that are treated or looked at by themselves. */
export const PARTS: readonly { block: string; level: Place['level']; name: string; areaM2: number; plants?: number }[] = [
  { block: 'Glass Two', level: 'bed', name: 'Bay 1', areaM2: 900, plants: 1800 },
  { block: 'Glass Two', level: 'bed', name: 'Bay 2', areaM2: 900, plants: 1800 },
  { block: 'Glass Two', level: 'bed', name: 'Bay 3', areaM2: 900, plants: 1200 },
  { block: 'Creek Margin', level: 'patch', name: 'Knotweed by the culvert', areaM2: 42 },
]

/** What the farm has set for itself, and what the district asks. */
export const RULES: readonly InputOf<typeof rules.add>[] = [
  { name: 'Neighbours hear of it before', kind: 'notice', act: 'spraying', whose: 'own', amount: 1 },
  { name: 'No spraying while the school bus is about', kind: 'closed-hours', act: 'spraying', whose: 'own', fromHour: 7, untilHour: 8.5 },
  {
    name: 'Chemicals stay off the creek',
    kind: 'kept-clear',
    act: 'chemicals',
    whose: 'law',
    amount: 10,
    source: 'water rules of the district',
    readOn: '2026-02-03',
  },
]

/** Peppers of the tunnel, bay by bay. */
export const HARVESTS: readonly { part: string; pickedOn: string; kg: number; pieces?: number; spoilt?: number; spoiltBy?: string }[] = [
  { part: 'Bay 1', pickedOn: '2026-06-04', kg: 11.5 },
  { part: 'Bay 2', pickedOn: '2026-06-08', kg: 14.2, pieces: 96, spoilt: 5, spoiltBy: 'western-flower-thrips' },
  { part: 'Bay 3', pickedOn: '2026-06-11', kg: 9.8 },
]

/** Waterings from above: in the tunnel every third morning of early June, on the corn every fifth evening from its sowing on. */
export const WATERINGS = [
  ...['2026-06-01', '2026-06-04', '2026-06-07', '2026-06-10'].map((day) => ({
    block: 'Glass Two',
    startedAt: `${day}T13:00:00Z`,
    endedAt: `${day}T14:30:00Z`,
    waterMm: 6,
  })),
  ...['2026-05-06', '2026-05-11', '2026-05-16', '2026-05-21', '2026-05-26', '2026-05-31', '2026-06-05', '2026-06-10'].map((day) => ({
    block: 'Long Corn',
    startedAt: `${day}T03:00:00Z`,
    endedAt: `${day}T07:00:00Z`,
    waterMm: 22,
  })),
]

/** Days before the demonstration's now of which the forecasts are kept, one a day. */
export const KEPT_FORECAST_DAYS = 45

/** Invented products with invented labels; the kinds of action are real. */
export const PRODUCTS: readonly z.input<typeof productInput>[] = [
  {
    name: 'Granule C (granulosis virus)',
    methods: ['granulosis-virus'],
    active: 'Cydia pomonella granulovirus',
    formulation: 'liquid',
    ways: ['spray'],
    targets: ['codling-moth'],
    crops: ['apple', 'pear', 'quince'],
    places: ['orchard'],
    stages: ['young-larva'],
    effect: 0.75,
    residualDays: 8,
    labelRate: 0.1,
    rateUnit: 'L/ha',
    reEntryHours: 4,
    preHarvestDays: 0,
    bees: 'none-stated',
    leastIntervalDays: 7,
    mostPerSeason: 6,
    rainFastHours: 3,
    actionGroup: '31',
    registration: 'HB-0231',
    mixing: 'water below pH 8; keep it out of the sun',
    protection: 'gloves, long sleeves, eye protection when mixing',
  },
  {
    name: 'Tanager 240 (spinosyn)',
    methods: ['spinosyn'],
    active: 'spinosyn',
    formulation: 'liquid',
    ways: ['spray'],
    targets: ['codling-moth', 'oriental-fruit-moth', 'peach-twig-borer', 'grape-berry-moth', 'european-corn-borer'],
    crops: ['apple', 'pear', 'peach', 'nectarine', 'grape', 'sweet corn'],
    stages: ['young-larva'],
    effect: 0.85,
    residualDays: 10,
    labelRate: 0.4,
    rateUnit: 'L/ha',
    reEntryHours: 4,
    preHarvestDays: 7,
    bees: 'hazardous-in-bloom',
    leastIntervalDays: 10,
    mostPerSeason: 4,
    rainFastHours: 4,
    maxWindMs: 4.5,
    leastVolume: 500,
    bufferM: 15,
    bufferLowDriftM: 5,
    rates: [{ crop: 'grape', target: null, rate: 0.3 }],
    protection: 'gloves, long sleeves, eye protection; wash before eating',
  },
  {
    name: 'Summer oil Lind',
    methods: ['horticultural-oil'],
    active: 'refined mineral oil',
    formulation: 'liquid',
    ways: ['spray'],
    crops: ['apple', 'pear', 'peach', 'nectarine', 'ornamentals', 'pepper'],
    notWithin: [{ method: 'sulphur', days: 21 }],
    leastVolume: 1000,
    stages: ['egg'],
    effect: 0.6,
    residualDays: 0,
    labelRate: 10,
    rateUnit: 'L/ha',
    reEntryHours: 12,
    preHarvestDays: 0,
    bees: 'none-stated',
    protection: 'gloves, long sleeves; not in heat above 30 °C, it burns leaves',
  },
  {
    name: 'Loop dispensers (mating disruption)',
    methods: ['mating-disruption'],
    strain: 'lure-codling-moth',
    active: 'scent of the codling moth',
    formulation: 'dispensers',
    ways: ['dispensers'],
    targets: ['codling-moth'],
    crops: ['apple', 'pear'],
    stages: ['adult'],
    effect: 0.5,
    residualDays: 110,
    labelRate: 1000,
    rateUnit: 'pieces/ha',
    reEntryHours: 0,
    preHarvestDays: 0,
    bees: 'none-stated',
    protection: 'gloves when hanging; a firm ladder',
  },
  {
    name: 'Terrace sulphur',
    methods: ['sulphur'],
    active: 'sulphur',
    formulation: 'powder',
    ways: ['spray'],
    targets: ['apple-scab', 'vine-powdery-mildew'],
    crops: ['apple', 'grape'],
    stages: ['spore'],
    effect: 0.8,
    residualDays: 10,
    labelRate: 5,
    rateUnit: 'kg/ha',
    reEntryHours: 24,
    preHarvestDays: 14,
    bees: 'none-stated',
    protection: 'gloves, goggles, respirator; not above 30 °C, it burns leaves',
  },
  {
    name: 'Terrace copper',
    licensedOnly: true,
    methods: ['copper'],
    active: 'copper hydroxide',
    formulation: 'powder',
    ways: ['spray'],
    targets: ['apple-scab', 'fire-blight', 'vine-downy-mildew', 'onion-downy-mildew'],
    crops: ['apple', 'pear', 'grape', 'onion'],
    stages: ['spore'],
    effect: 0.75,
    residualDays: 12,
    labelRate: 2,
    rateUnit: 'kg/ha',
    activeGramsPer: 350,
    mostActiveKgHa: 4,
    actionGroup: 'M1',
    mixing: 'stir into a slurry first; do not mix with oil',
    registration: 'HB-0417',
    reEntryHours: 24,
    preHarvestDays: 21,
    bees: 'none-stated',
    protection: 'gloves, goggles, long sleeves; keep it out of water',
  },
  {
    name: 'Bench soap',
    methods: ['insecticidal-soap'],
    active: 'potassium salts of fatty acids',
    formulation: 'liquid',
    ways: ['spray'],
    crops: ['pepper', 'ornamentals', 'apple', 'pear'],
    stages: ['nymph', 'young-larva'],
    effect: 0.6,
    residualDays: 0,
    labelRate: 15,
    rateUnit: 'L/ha',
    reEntryHours: 4,
    preHarvestDays: 0,
    bees: 'none-stated',
    protection: 'gloves, eye protection; not in full sun',
  },
  {
    name: 'Furrow nematodes (Steinernema feltiae)',
    methods: ['nematodes'],
    strain: 'feltiae',
    active: 'Steinernema feltiae',
    formulation: 'living',
    ways: ['drench'],
    targets: ['fungus-gnats', 'western-flower-thrips', 'onion-maggot'],
    stages: ['larva', 'pupa'],
    effect: 0.6,
    residualDays: 14,
    labelRate: 5000,
    rateUnit: 'g/ha',
    reEntryHours: 0,
    preHarvestDays: 0,
    bees: 'none-stated',
    protection: 'gloves; moist soil, no sun on them',
    orderDays: 4,
    keepsDays: 14,
  },
]

/** What work is done with. */
export const MACHINES: readonly InputOf<typeof endpoints.equipment.addMachine>[] = [
  { name: 'Orchard sprayer', kind: 'air-blast', tankL: 1000, sprayLPerHa: 600, lowDrift: true, testedOn: '2026-04-11', testOff: 0.03 },
  { name: 'Knapsack 15', kind: 'knapsack', tankL: 15, sprayLPerHa: 400, testedOn: '2026-05-02', testOff: -0.04 },
  { name: 'Meadow mower', kind: 'mower' },
  { name: 'Digging fork', kind: 'tool' },
]

/** Lots on the shelf, by the names of their products. */
export const LOTS: readonly (Omit<InputOf<typeof endpoints.equipment.addLot>, 'productId'> & { product: string })[] = [
  { product: 'Granule C (granulosis virus)', number: 'GC-26-03', amount: 1, unit: 'L', cameOn: '2026-04-20', expiresOn: '2026-10-31' },
  { product: 'Terrace copper', number: 'TC-118', amount: 25, unit: 'kg', cameOn: '2025-05-06', expiresOn: '2027-12-31' },
  { product: 'Bench soap', number: 'BS-9', amount: 20, unit: 'L', cameOn: '2024-03-01', expiresOn: '2026-05-31' },
]

/** A fair trial in the tunnel: a cold week came meanwhile, and the thrips fell on treated and untreated pots alike. */
export const TRIAL = {
  input: {
    name: 'Soap in the tunnel',
    what: 'Bench soap, both leaf sides, at dusk',
    organismId: 'western-flower-thrips',
    units: 'pots',
    measure: 'count',
    pairs: 8,
    judgeAfterDays: 3,
    note: 'a cold week from the day after',
  },
  block: 'Glass Two',
  drawnAt: '2026-05-18T15:00:00Z',
  treatedOn: '2026-05-18',
  countedAgainAt: '2026-05-22T15:00:00Z',
  before: 9,
  after: 3,
} as const

/** Who allowed what. */
export const PERMISSIONS: readonly InputOf<typeof endpoints.permissions.add>[] = [
  { kind: 'consent', byWhom: 'The ditch company', validFrom: '2026-03-01', validUntil: '2026-06-30', reference: 'letter in the office' },
]

interface WatchDefinition {
  organism: string
  block: string
  biofix?: string
  note?: string
  sourceKnown?: Watch['sourceKnown']
}

/** What is watched where. Some biofixes were seen, some come by the calendar, and some are not there yet. */
export const WATCHES: readonly WatchDefinition[] = [
  { organism: 'codling-moth', block: 'Old Apples', biofix: '2026-05-10', note: 'moths in the trap by the old gate at two checks in a row' },
  {
    organism: 'apple-scab',
    block: 'Old Apples',
    biofix: '2026-04-04',
    note: 'half the buds of the earliest row at green tip',
    sourceKnown: 'yes',
  },
  { organism: 'codling-moth', block: 'Ladder Pears', biofix: '2026-05-16', note: 'first of three checks in a row with moths' },
  { organism: 'pear-psylla', block: 'Ladder Pears', biofix: '2026-03-21', note: 'first eggs on spurs of the lowest trees' },
  { organism: 'oriental-fruit-moth', block: 'Stone Row', biofix: '2026-04-12', note: 'moths at two checks in a row' },
  { organism: 'peach-twig-borer', block: 'Stone Row' },
  { organism: 'grape-berry-moth', block: 'Terrace Vines', biofix: '2026-06-03', note: 'half the wild grape along the lane open' },
  {
    organism: 'vine-downy-mildew',
    block: 'Terrace Vines',
    biofix: '2026-05-08',
    note: 'shoots 10 cm in the lowest row',
    sourceKnown: 'no',
  },
  { organism: 'vine-powdery-mildew', block: 'Terrace Vines', biofix: '2026-05-02', note: 'first leaves unfolded', sourceKnown: 'yes' },
  { organism: 'european-corn-borer', block: 'Long Corn', biofix: '2026-06-01', note: 'moths in the light trap at two checks in a row' },
  { organism: 'barnyard-grass', block: 'Long Corn', biofix: '2026-05-04', note: 'first sowing, seedbed made that day' },
  { organism: 'lambsquarters', block: 'Long Corn', biofix: '2026-05-04', note: 'first sowing, seedbed made that day' },
  { organism: 'onion-maggot', block: 'Onion Flat' },
  { organism: 'onion-thrips', block: 'Onion Flat', biofix: '2026-05-29', note: 'first thrips between the inner leaves' },
  { organism: 'western-flower-thrips', block: 'Glass Two', biofix: '2026-04-20', note: 'first on the blue traps by the door' },
  { organism: 'fungus-gnats', block: 'Glass Two', biofix: '2026-04-15', note: 'first on the yellow traps at the seed trays' },
  { organism: 'himalayan-balsam', block: 'Creek Margin' },
  { organism: 'japanese-knotweed', block: 'Creek Margin' },
  { organism: 'wild-parsnip', block: 'Lower Meadow' },
  { organism: 'creeping-thistle', block: 'Lower Meadow' },
  { organism: 'scotch-broom', block: 'Lower Meadow' },
]

/** A protectant on the vines, two days before the rain of early June. */
export const COPPER = {
  organism: 'vine-downy-mildew',
  block: 'Terrace Vines',
  product: 'Terrace copper',
  treatedAt: '2026-06-02T13:10:00Z',
} as const

/** Seasons in which somebody wrote down when the thistles flowered. */
export const THISTLE_SEASONS = ['2021-01-01', '2022-01-01', '2023-01-01', '2024-01-01', '2025-01-01'] as const

/** Seasons of which trap checks and first hatch were written down. */
export const PAST_RECORDS = ['2023-01-01', '2024-01-01', '2025-01-01'] as const

/** Harvests at which the varieties of Old Apples were counted side by side. */
export const VARIETY_YEARS = [2023, 2024, 2025] as const

/** Days before today on which forecasts were issued and kept. */
export const ISSUED_DAYS_AGO = [14, 7, 3, 2, 1] as const

/** The Old Apples story of this season: fruit with fresh entries per hundred in truth, from which the counts are drawn. */
export const STORY = {
  checkName: 'North corner',
  treatedOn: '2026-06-06T04:20:00Z',
  endedAt: '2026-06-06T06:05:00Z',
  plannedOn: '2026-06-13',
  rounds: [
    // Larvae enter fruit from the first days of June on, and no scout sees one before.
    { countedOn: '2026-05-29', block: 0, check: 0 },
    { countedOn: '2026-06-05', block: 3.4, check: 3.1 },
    { countedOn: '2026-06-12', block: 2.4, check: 8.5 },
  ],
} as const

/** Something living that is planned and has to be ordered. */
export const RELEASE = {
  product: 'Furrow nematodes (Steinernema feltiae)',
  organism: 'fungus-gnats',
  block: 'Glass Two',
  plannedOn: '2026-06-19',
} as const

/** What came in this season. */
export const ARRIVALS = [
  {
    what: 'plants',
    name: '12 pear trees on seedling stock',
    source: 'a nursery up the valley',
    arrivedOn: '2026-06-09',
    block: 'Ladder Pears',
    rootLook: 'clean',
    stemLook: 'not-looked',
    isolatedUntil: '2026-06-30',
  },
  {
    what: 'machine',
    name: 'hay mower, on loan',
    source: 'a neighbour',
    arrivedOn: '2026-05-28',
    block: 'Lower Meadow',
    rootLook: 'signs',
    stemLook: 'clean',
    releasedOn: '2026-05-29',
    note: 'seed heads in the deck, brushed out at the gate',
  },
] as const

/** What comes first when hours are short, and from where things get away. */
export const RANKS: Readonly<Record<string, { rank: number; spreads: boolean }>> = {
  'Creek Margin': { rank: 1, spreads: true },
  'Old Apples': { rank: 1, spreads: false },
  'Lower Meadow': { rank: 2, spreads: true },
  'Long Corn': { rank: 3, spreads: false },
}

/** Thrips on Onion Flat: per plant in truth, more at the edge where the wind drops them; natural enemies seen on the same walk. */
export const EDGED = {
  organism: 'onion-thrips',
  block: 'Onion Flat',
  /** Of each place, whether it lies at the edge. */
  places: [true, true, true, true, true, false, false, false, false, false, false],
  plantsPerPlace: 2,
  rounds: [
    { countedOn: '2026-05-22', edge: 4, inside: 0.8, enemies: { lacewings: 2 } },
    { countedOn: '2026-05-29', edge: 7, inside: 1.2, enemies: { lacewings: 3, 'predatory-bugs': 4 } },
    { countedOn: '2026-06-05', edge: 13, inside: 2, enemies: { lacewings: 4, 'predatory-bugs': 9 } },
    { countedOn: '2026-06-11', edge: 26, inside: 3.5, enemies: { lacewings: 7, 'predatory-bugs': 15, spiders: 3 } },
  ],
} as const

/** Bloom plants along the lane, in the order in which they bloom. */
export const LANE = [
  'forsythia',
  'serviceberry',
  'common-lilac',
  'apple',
  'black-locust',
  'elderberry',
  'catalpa',
  'linden',
  'chicory',
] as const

/** Blocks in or beside which plants of the lane flower: bees are judged by that. */
export const BESIDE: Readonly<Record<string, string>> = {
  apple: 'Old Apples',
  'black-locust': 'Stone Row',
  linden: 'Terrace Vines',
  chicory: 'Terrace Vines',
}

/** Plants that also bloom on the flat by the river, where the station stands in a cold hollow and the plants do not. */
export const RIVER_BLOOMS: readonly string[] = ['forsythia', 'common-lilac', 'black-locust', 'elderberry']

/** A check of identity that was kept: the parsnip of the meadow, sure by three characters. */
export const IDENTITY = {
  organism: 'wild-parsnip',
  block: 'Lower Meadow',
  answers: { stem: 'here', flower: 'here', leaflet: 'here' },
  note: 'by the lower gate; gloves on, dull day',
} as const

/** What stands where, and which of its stages somebody wrote down: day by stage. */
export const PLANTINGS: readonly {
  block: string
  crop: string
  variety?: string
  standsFrom: string
  standsUntil?: string
  begins?: 'sown' | 'planted'
  stages: readonly (readonly [CropStage, string])[]
}[] = [
  {
    block: 'Old Apples',
    crop: 'apple',
    standsFrom: '1988-04-01',
    stages: [
      ['bud-break', '2026-04-02'],
      ['first-flower', '2026-04-27'],
      ['petal-fall', '2026-05-12'],
    ],
  },
  {
    block: 'Stone Row',
    crop: 'peach',
    standsFrom: '2012-04-01',
    stages: [
      ['first-flower', '2026-04-08'],
      ['petal-fall', '2026-04-20'],
    ],
  },
  {
    block: 'Long Corn',
    crop: 'sweet-corn',
    variety: 'first sowing',
    standsFrom: '2026-04-28',
    begins: 'sown',
    stages: [['emerged', '2026-05-11']],
  },
  {
    block: 'Long Corn',
    crop: 'sweet-corn',
    variety: 'second sowing',
    standsFrom: '2026-05-18',
    begins: 'sown',
    stages: [['emerged', '2026-05-27']],
  },
  { block: 'Onion Flat', crop: 'onion', standsFrom: '2026-04-06', begins: 'planted', stages: [] },
  { block: 'Onion Flat', crop: 'leek', standsFrom: '2024-05-10', standsUntil: '2024-11-15', stages: [] },
  {
    block: 'Glass Two',
    crop: 'pepper',
    standsFrom: '2026-03-20',
    begins: 'planted',
    stages: [
      ['first-flower', '2026-04-24'],
      ['fruit-set', '2026-05-03'],
      ['first-harvest', '2026-06-04'],
    ],
  },
]

/** Areas that are left untreated, beside that of the story: block, name, note. */
export const CHECKS = [
  ['Ladder Pears', 'Last two rows', 'left every year'],
  ['Glass Two', 'Bay 3, east bench', 'never sprayed'],
] as const
