import { requireAtLeast, requireWithin } from '../guards.js'
import { quantileSorted } from '../statistics/quantile.js'
import { drawNormal, drawPoisson, seededRandom, type Random } from '../statistics/random.js'

/** How a weed lives: one year, two, from roots that spread, or as wood. */
export type WeedForm = 'annual' | 'biennial' | 'clonal' | 'woody'

/** What is done each year. */
export interface YearsWork {
  /** Times that somebody goes over it in a season. */
  passes: number
  /** Of the plants in flower the share that a pass finds and takes. */
  found: number
  /** Only what will seed this year is taken, and what is younger is left. */
  seedersOnly: boolean
  /** Of what is taken in flower the share that is left lying. */
  leftLying: number
  /** Passes of each year where they are not alike, the next one first; what stands last goes on. They take the place of `passes`. */
  passesByYear?: readonly number[] | undefined
  /** Year in which nobody came, 0 for the next one; undefined where none is missed. */
  missedIn?: number | undefined
}

/** A stand of a weed, and what is known of its ground. */
export interface WeedStand {
  form: WeedForm
  /** Plants that stood at their most in a season, oldest first: those that flower or stand as shoots. Whole years, one behind the other. */
  counts: readonly { year: number; plants: number }[]
  /** m² over which they stand. */
  areaM2: number
  /** Years that seed or root stays alive in the soil: fewest and most. */
  bankYears: { shortest: number; longest: number }
  /** Seeds, or for clonal weeds pieces, that come from elsewhere in a year; 0 where nothing comes. */
  arrivals: number
  /** What was done in the years that were counted. */
  doneSoFar: YearsWork
}

/** What the years would bring under one way of working. */
export interface YearsAhead {
  /** Plants by year, the first is the next one. */
  plants: { p10: number; p50: number; p90: number }[]
  /** Of the next year what nine in ten runs hold between them: plants, and by what they change from this year to the next. */
  next: { plants: { low: number; high: number }; rate: { low: number; high: number } }
  /** Years until few stand (a fiftieth of today's plants, or two); null where it takes longer than is looked at. */
  yearsToFew: { p10: number | null; p50: number | null; p90: number | null }
  /** Share of the runs in which after the last year nothing stands and nothing lies in the soil. Where something arrives that lasts no longer than a year. */
  gone: number
  /** Plants taken over all years, and in the first of them: middle of the runs. */
  taken: number
  takenFirst: number
  /** Years until less than one seed or piece of root is left in the soil of the middle run; null where it takes longer. */
  bankAliveYears: number | null
}

/** Years that are looked at. */
export const YEARS_AHEAD = 15
const FEW_SHARE = 0.02
const FEW_PLANTS = 2
/** Share of younger plants that a pass for flowering ones finds too, beside those: they are smaller. */
const YOUNG_FOUND = 0.5
/** What was counted may be off by so much, on the log scale. */
const COUNT_SD_LOG = 0.35
/** By how much the seedlings of two years differ, on the log scale. */
const YEARS_DIFFER_LOG = 0.7
/** Ground counts as no fuller than this. */
const FULLEST = 0.95
/** Of the seed that is alive after the longest time so much is left. */
const LEFT_AT_LONGEST = 0.01

/** What a life is drawn from, by form: middle and sd on the log scale, or the ends of an even spread. */
const LIVES = {
  annual: { germination: [0.3, 0.8], survival: [0.1, 0.6], fecundity: [120, 1.1], ripens: [0.1, 0.7], perM2: [20, 0.7] },
  biennial: { germination: [0.1, 0.5], survival: [0.02, 0.3], fecundity: [300, 0.9], ripens: [0.1, 0.7], perM2: [8, 0.7] },
  clonal: { germination: [0, 0.02], survival: [0, 0.05], fecundity: [1, 1], ripens: [0, 0.1], perM2: [12, 0.6] },
  woody: { germination: [0.02, 0.2], survival: [0.01, 0.1], fecundity: [300, 1], ripens: [0.1, 0.7], perM2: [1.5, 0.6] },
} as const
/** Of clonal weeds: how much a stand that is left alone grows in a year, and how much of what lies below ground a pass takes with a shoot. */
const SPREAD = [1.15, 1.9] as const
const TAKEN_BELOW = [0.08, 0.35] as const
const WINTER = [0.3, 0.8] as const
/** Of woody ones: share that grows up in a year, share of the grown that live on, share that sprouts again where it was cut. */
const GROWS_UP = [0.15, 0.4] as const
const LIVES_ON = [0.9, 0.98] as const
const SPROUTS = [0.05, 0.5] as const
/** What passes turn out to find, of the share that is said of them: people overlook more than they think. */
const FINDING = [0.3, 1] as const

interface Life {
  germination: number
  seedMortality: number
  survival: number
  fecundity: number
  ripens: number
  /** Grown plants that the ground can bear. */
  most: number
  winter: number
  spread: number
  takenBelow: number
  growsUp: number
  livesOn: number
  sprouts: number
  /** What passes here turn out to find, of the share that is said. */
  finding: number
}

interface State {
  /** Seeds in the soil; of clonal weeds shoots' worth of living root. */
  bank: number
  /** Rosettes that winter, or wood that does not flower yet. */
  young: number
  /** Plants that flower this year, or grown wood. */
  grown: number
}

const between = (random: Random, [low, high]: readonly [number, number]): number => low + (high - low) * random()
const around = (random: Random, [middle, sd]: readonly [number, number]): number => middle * Math.exp(drawNormal(random, 0, sd))

function drawLife(random: Random, { form, areaM2, bankYears, counts }: WeedStand): Life {
  const prior = LIVES[form]
  const germination = between(random, prior.germination)
  const years = between(random, [bankYears.shortest, bankYears.longest])
  // What comes up is gone from the bank, too: the rest dies so fast that hardly any is left at the end.
  const kept = LEFT_AT_LONGEST ** (1 / Math.max(1, years))
  return {
    germination,
    seedMortality: Math.max(0, 1 - kept / Math.max(1e-9, 1 - germination)),
    survival: between(random, prior.survival),
    fecundity: around(random, prior.fecundity),
    ripens: between(random, prior.ripens),
    // The ground bears what was counted on it, as far as that was counted well.
    most: Math.max(around(random, prior.perM2) * areaM2, Math.max(...counts.map(({ plants }) => plants)) * Math.exp(-2 * COUNT_SD_LOG)),
    winter: between(random, WINTER),
    spread: between(random, SPREAD),
    takenBelow: between(random, TAKEN_BELOW),
    growsUp: between(random, GROWS_UP),
    livesOn: between(random, LIVES_ON),
    sprouts: between(random, SPROUTS),
    finding: between(random, FINDING),
  }
}

/** The share that several passes leave standing. */
const leftBy = ({ passes }: YearsWork, found: number): number => (1 - found) ** passes

/** From so many on chance is as good as normal. */
const MANY = 40

/** A number of expected ones, by chance. */
function some(random: Random, expected: number): number {
  if (!(expected > 0)) return 0
  return expected > MANY ? Math.max(0, expected + Math.sqrt(expected) * drawNormal(random)) : drawPoisson(random, expected)
}

/** How many of so many stay, each by its own chance; never more than there were. */
function staying(random: Random, n: number, share: number): number {
  if (share >= 1 || n <= 0) return n
  if (n > MANY) return Math.min(n, Math.max(0, n * share + Math.sqrt(n * share * (1 - share)) * drawNormal(random)))
  let left = 0
  for (let i = 0; i < Math.floor(n); i++) if (random() < share) left++
  return left + (random() < share ? n - Math.floor(n) : 0)
}

/** One year: what stood at its most, what was taken, and what is left behind. */
function yearOf(
  random: Random,
  form: WeedForm,
  life: Life,
  state: State,
  work: YearsWork,
  arrivals: number,
): State & { stood: number; taken: number } {
  const found = work.found * life.finding
  const standing = leftBy(work, found)
  const youngLeft = work.seedersOnly ? 1 : leftBy(work, found * YOUNG_FOUND)
  if (form === 'clonal') {
    const stood = Math.min(life.most, state.bank)
    // Each pass takes of the root what its shoots would have fed; what is left alone spreads until the ground is full.
    const below = (1 - life.takenBelow * found) ** work.passes
    const grown = state.bank * below * (work.passes === 0 ? life.spread : 1 + (life.spread - 1) * standing)
    const bank = Math.min(life.most, grown) + some(random, arrivals)
    return {
      bank: bank < 0.5 ? 0 : bank,
      young: 0,
      grown: 0,
      stood: some(random, stood),
      taken: stood * (work.passes > 0 ? 1 - standing : 0) * work.passes,
    }
  }
  const emerged = some(random, state.bank * life.germination)
  const seedlings = some(random, emerged * life.survival * youngLeft)
  if (form === 'annual') {
    const stood = seedlings / (1 + seedlings / life.most)
    const left = staying(random, stood, standing)
    const taken = stood - left
    return { ...shed(random, life, state.bank, left, taken, work, arrivals), young: 0, grown: 0, stood, taken }
  }
  const room = 1 / (1 + (seedlings + state.grown) / life.most)
  if (form === 'biennial') {
    const stood = some(random, state.young * life.winter)
    const left = staying(random, stood, standing)
    const taken = stood - left
    const young = seedlings * room
    return { ...shed(random, life, state.bank, left, taken, work, arrivals), young, grown: 0, stood, taken }
  }
  const stood = state.grown
  const left = staying(random, stood, (standing + (1 - standing) * life.sprouts) * life.livesOn)
  const taken = stood * (1 - standing)
  const growing = some(random, state.young * life.growsUp)
  const young = (state.young - Math.min(state.young, growing)) * youngLeft + seedlings * room
  return { ...shed(random, life, state.bank, stood * standing, taken, work, arrivals), young, grown: left + growing, stood, taken }
}

function shed(random: Random, life: Life, bank: number, left: number, taken: number, work: YearsWork, arrivals: number): { bank: number } {
  const seeds = life.fecundity * (left + life.ripens * work.leftLying * taken)
  const kept = some(random, bank * (1 - life.germination) * (1 - life.seedMortality))
  return { bank: kept + some(random, seeds) + some(random, arrivals) }
}

/** A stand that held so many plants in a year, with a bank that would have brought them under the work that was done then. */
function begun(random: Random, { form, doneSoFar }: WeedStand, life: Life, plants: number): State {
  const seen = plants * Math.exp(drawNormal(random, 0, COUNT_SD_LOG))
  if (form === 'clonal') return { bank: seen, young: 0, grown: 0 }
  if (form === 'woody') return { bank: seen * life.fecundity * 0.2, young: seen * between(random, [0.2, 2]), grown: seen }
  const youngLeft = doneSoFar.seedersOnly ? 1 : leftBy(doneSoFar, doneSoFar.found * life.finding * YOUNG_FOUND)
  const bankOf = (seedlings: number): number => seedlings / Math.max(1e-6, life.germination * life.survival * Math.max(0.01, youngLeft))
  // Where the ground is nearly full many more came up than stood in the end.
  if (form === 'annual') return { bank: bankOf(seen / (1 - Math.min(FULLEST, seen / life.most))), young: 0, grown: 0 }
  // Those that flower came up a year before; what comes up now need not be as many.
  const young = seen / life.winter
  return { bank: bankOf(young) * Math.exp(drawNormal(random, 0, YEARS_DIFFER_LOG)), young, grown: 0 }
}

interface Particle {
  life: Life
  state: State
  /** What stood in the last year that was counted. */
  now: number
}

/**
 * Lives that would have led to what was counted, each as often as it agrees with that. After each count those that led there go on, each as
 * often as it deserves: picked at the end alone, few would be left, and alike.
 */
function fitted(random: Random, stand: WeedStand, runs: number): Particle[] {
  const counts = stand.counts.toSorted((a, b) => a.year - b.year)
  const first = counts[0] as { year: number; plants: number }
  const last = counts.at(-1) as { year: number; plants: number }
  let lives = Array.from({ length: Math.max(FEWEST_TRIED, runs * TRIES) }, (): Particle => {
    const life = drawLife(random, stand)
    return { life, state: begun(random, stand, life, first.plants), now: first.plants }
  })
  for (let year = first.year; year <= last.year; year++) {
    lives = lives.map(({ life, state }) => {
      const { stood, bank, young, grown } = yearOf(random, stand.form, life, state, stand.doneSoFar, stand.arrivals)
      return { life, state: { bank, young, grown }, now: stood }
    })
    const seen = counts.find((count) => count.year === year)?.plants
    if (seen !== undefined) lives = picked(random, lives, (one) => agrees(one.now, seen), lives.length)
  }
  return picked(random, lives, () => 1, runs)
}

/** How well what stood agrees with what was counted. */
function agrees(stood: number, seen: number): number {
  const off = Math.log((stood + 0.5) / (seen + 0.5))
  const spread = COUNT_SD_LOG ** 2 + 1 / (seen + 0.5)
  return Math.exp(-(off ** 2) / (2 * spread))
}

/** So many of them, each as often as it weighs; all alike where nothing weighs anything. */
function picked(random: Random, all: readonly Particle[], weigh: (one: Particle) => number, many: number): Particle[] {
  const weights = all.map(weigh)
  const total = weights.reduce((sum, weight) => sum + weight, 0)
  const step = (total > 0 ? total : all.length) / many
  const kept: Particle[] = []
  let at = random() * step
  let [next, sum] = [0, 0]
  while (kept.length < many) {
    const weight = total > 0 ? (weights[next] as number) : 1
    if (at < sum + weight || next === all.length - 1) {
      kept.push(all[next] as Particle)
      at += step
    } else {
      sum += weight
      next++
    }
  }
  return kept
}

const TRIES = 2
const FEWEST_TRIED = 1500

/**
 * What the years would bring to a stand of a weed under several ways of working: seed bank and cohorts by the form of its life (annual, biennial,
 * from spreading roots, woody), drawn run by run from what is usual of such lives and weighed by how well each leads to what was counted. Small
 * numbers go by chance. Where anything arrives nothing is gone for good.
 *
 * @param works ways of working, by which the result is named; they share their runs, so that they can be held against each other
 * @param runs lives that are followed; more make smoother bounds
 * @returns for each way of working what stands year by year
 * @throws RangeError for no counts, negative plants or arrivals, an area that is not above 0, or shares outside 0 to 1
 */
export function yearsAhead(stand: WeedStand, works: readonly YearsWork[], runs: number, seed: number): YearsAhead[] {
  if (stand.counts.length === 0) throw new RangeError('stand.counts must hold at least one, got 0')
  stand.counts.forEach(({ plants }, i) => requireAtLeast(`stand.counts[${i}].plants`, plants, 0))
  requireAtLeast('stand.arrivals', stand.arrivals, 0)
  requireAtLeast('stand.areaM2', stand.areaM2, 0.01)
  for (const [i, work] of [stand.doneSoFar, ...works].entries()) {
    requireWithin(`works[${i}].found`, work.found, 0, 1)
    requireWithin(`works[${i}].leftLying`, work.leftLying, 0, 1)
    requireAtLeast(`works[${i}].passes`, work.passes, 0)
    work.passesByYear?.forEach((passes, year) => requireAtLeast(`works[${i}].passesByYear[${year}]`, passes, 0))
  }
  const particles = fitted(seededRandom(seed), stand, runs)
  const today = stand.counts.reduce((newest, count) => (count.year > newest.year ? count : newest)).plants
  const few = Math.max(FEW_PLANTS, today * FEW_SHARE)
  return works.map((work) => followed(stand, particles, work, few, seed))
}

function followed(stand: WeedStand, particles: readonly Particle[], work: YearsWork, few: number, seed: number): YearsAhead {
  const n = particles.length
  const stood = Array.from({ length: YEARS_AHEAD }, () => new Float64Array(n))
  const toFew = new Float64Array(n)
  const bankDead = new Float64Array(n)
  const taken = new Float64Array(n)
  const takenFirst = new Float64Array(n)
  const rate = new Float64Array(n)
  let gone = 0
  particles.forEach(({ life, state: begins, now }, run) => {
    // The same chance under every way of working.
    const random = seededRandom(seed + 7919 * (run + 1))
    let state = begins
    let [few_, dead] = [Infinity, Infinity]
    for (let year = 0; year < YEARS_AHEAD; year++) {
      const own = { ...work, passes: work.missedIn === year ? 0 : (work.passesByYear?.[year] ?? work.passesByYear?.at(-1) ?? work.passes) }
      const next = yearOf(random, stand.form, life, state, own, stand.arrivals)
      ;(stood[year] as Float64Array)[run] = next.stood
      taken[run] = (taken[run] as number) + next.taken
      if (year === 0) {
        takenFirst[run] = next.taken
        rate[run] = next.stood / Math.max(1, now)
      }
      // It stays few only as long as it does not come back.
      if (next.stood > few) few_ = Infinity
      else if (few_ === Infinity) few_ = year + 1
      state = { bank: next.bank, young: next.young, grown: next.grown }
      if (state.bank >= 1) dead = Infinity
      else if (dead === Infinity) dead = year + 1
    }
    toFew[run] = few_
    bankDead[run] = dead
    if (state.bank < 1 && state.young < 1 && state.grown < 1 && stand.arrivals === 0) gone++
  })
  const at = (values: Float64Array, p: number): number => quantileSorted(Float64Array.from(values).sort(), p)
  const years = (values: Float64Array, p: number): number | null => {
    // Runs that never get there stand at the end: no mean of them and others.
    const sorted = Float64Array.from(values).sort()
    const value = sorted[Math.min(n - 1, Math.floor(p * n))] as number
    return Number.isFinite(value) ? value : null
  }
  return {
    plants: stood.map((values) => ({ p10: at(values, 0.1), p50: at(values, 0.5), p90: at(values, 0.9) })),
    next: {
      plants: { low: at(stood[0] as Float64Array, 0.05), high: at(stood[0] as Float64Array, 0.95) },
      rate: { low: at(rate, 0.05), high: at(rate, 0.95) },
    },
    yearsToFew: { p10: years(toFew, 0.1), p50: years(toFew, 0.5), p90: years(toFew, 0.9) },
    gone: gone / n,
    taken: at(taken, 0.5),
    takenFirst: at(takenFirst, 0.5),
    bankAliveYears: years(bankDead, 0.5),
  }
}
