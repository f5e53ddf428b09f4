import type { HourBlock, HourLimits } from '../windows/usableHours.js'
import { closedBy, holdsOn, type SiteRule } from './siteRules.js'

/** Highest wind, m/s at 2 m, in which drops are let go where the label names none. */
export const MAX_WIND = 5
/** Delta T, °C, between which fine drops arrive. */
export const FINE_DELTA_T = [2, 8] as const
/** Hours without rain that what is sprayed needs where the label names none. */
export const RAIN_FAST_HOURS = 4
/** Oils, soaps and sulphur burn leaves above this air temperature, °C, where the label names none. */
export const BURNS_ABOVE = 30
/** Rain, mm in an hour, in which nobody works outside. */
export const POURS_MM = 1
/** Hours for which a residue that lasts for some hours is taken to harm bees: longer than a June night. */
export const SHORT_BEE_HOURS = 8

/** Soil, °C at 10 cm, above which nematodes die. */
export const NEMATODE_CEILING = 30

/** m down the wind within which fine drops, and coarse ones, are kept from what lies there. */
export const FINE_DRIFT_M = 100
export const COARSE_DRIFT_M = 20
/** Degrees by which the wind of an hour wanders to either side. */
export const WIND_WANDERS = 30

/** Methods of the library that burn leaves in heat. */
const BURNING: readonly string[] = ['horticultural-oil', 'insecticidal-soap', 'sulphur']
/** Methods whose residue harms no bee once it is dry, and those whose residue harms for hours. Any other is taken to harm for days. */
const DRY_SPARES_BEES: readonly string[] = [
  'insecticidal-soap',
  'horticultural-oil',
  'bt',
  'granulosis-virus',
  'kaolin',
  'sulphur',
  'copper',
  'nematodes',
]
const HARMS_FOR_HOURS: readonly string[] = ['spinosyn', 'pyrethrin', 'azadirachtin']

/** Methods of which no bee takes harm, wet or dry. */
const SPARES_BEES: readonly string[] = ['bt', 'granulosis-virus', 'nematodes']

/** Ways of application by what their drops are: fine ones drift and dry, coarse ones fall, the rest has none. */
const FINE: readonly string[] = ['spray', 'dusting']
const COARSE: readonly string[] = ['spot-spray', 'paint']

/** What hours are judged by: a product with what its label says, or work by hand. */
export interface ActingMeans {
  /** Null: work by hand. */
  product: {
    ways: readonly string[]
    bees: 'none-stated' | 'hazardous-in-bloom' | 'forbidden-in-bloom'
    maxWindMs: number | null
    minTempC: number | null
    maxTempC: number | null
    rainFastHours: number | null
    /** Lowest soil temperature, °C, by its label. */
    soilMinC?: number | null
    /** Distance from water, m, by its label. */
    bufferM?: number | null
  } | null
  /** Methods of the library that it is for. */
  methods: readonly string[]
  /** The plant takes it up: in bloom it comes to the flower. */
  systemic: boolean
  /** Lowest soil temperature, °C, at which its strain or species works; null where it has none, or nobody has said which it is. */
  soilFloor?: number | null
}

/** Whose a limit is. */
export type LimitFrom = 'label' | 'usual' | 'law' | 'own'
export interface LimitsOfMeans {
  limits: HourLimits
  /** Of each reason that can block an hour, whose limit it is. */
  from: Partial<Record<HourBlock, LimitFrom>>
}

/**
 * How far down the wind what is kept clear matters, m: the distance of the label where that is more; null for what has no drops.
 *
 * @param product with what its label says; null for work by hand
 */
export function driftReach(product: ActingMeans['product']): number | null {
  if (!product) return null
  const { ways, bufferM = null } = product
  if (ways.length === 0 || ways.some((way) => FINE.includes(way))) return Math.max(FINE_DRIFT_M, bufferM ?? 0)
  return ways.some((way) => COARSE.includes(way)) ? Math.max(COARSE_DRIFT_M, bufferM ?? 0) : null
}

/** Whether what drifts to hives may do harm there: only of methods that no bee takes harm from it does not. */
export const harmsHives = (methods: readonly string[]): boolean =>
  methods.length === 0 || methods.some((method) => !SPARES_BEES.includes(method))

/**
 * What binds a way to act, hour by hour: first its label, then what is usual for drops of its kind.
 *
 * @param flowers something that bees visit is in flower in or beside the place
 */
export function hourLimits({ product, methods, systemic, soilFloor = null }: ActingMeans, flowers: boolean): LimitsOfMeans {
  if (!product) return { limits: { daylight: true, maxRain: POURS_MM }, from: { dark: 'usual', rain: 'usual' } }
  const { ways, bees, maxWindMs, minTempC, maxTempC, rainFastHours } = product
  const from: LimitsOfMeans['from'] = {}
  const limits: HourLimits = {}
  const whose = (reason: HourBlock, label: unknown): void => {
    from[reason] = label === null ? 'usual' : 'label'
  }
  if (flowers && bees !== 'none-stated') {
    limits.bees = bees === 'forbidden-in-bloom' || systemic ? 'never' : beeHours(methods)
    from.bees = bees === 'forbidden-in-bloom' ? 'label' : 'usual'
  }
  if (methods.includes('nematodes')) {
    limits.dark = true
    from.sun = 'usual'
  } else {
    // Where nobody has said how it is applied it is taken for a fine spray, which is bound most.
    const isFine = ways.length === 0 || ways.some((way) => FINE.includes(way))
    const isCoarse = ways.some((way) => COARSE.includes(way))
    if (isFine || isCoarse) {
      limits.maxWind = maxWindMs ?? MAX_WIND
      whose('wind', maxWindMs)
      limits.rainFastHours = rainFastHours ?? RAIN_FAST_HOURS
      whose('rain', rainFastHours)
    } else {
      limits.maxRain = POURS_MM
      limits.daylight = true
      from.rain = from.dark = 'usual'
      if (maxWindMs !== null) {
        limits.maxWind = maxWindMs
        from.wind = 'label'
      }
    }
    if (isFine) {
      limits.inversion = true
      limits.deltaT = FINE_DELTA_T
      from.inversion = from['delta-t'] = 'usual'
    }
  }
  const coolest = product.soilMinC ?? soilFloor
  if (coolest !== null) {
    limits.soil = [coolest, NEMATODE_CEILING]
    whose('soil', product.soilMinC ?? null)
  }
  const burns = methods.some((method) => BURNING.includes(method)) ? BURNS_ABOVE : null
  const highest = maxTempC ?? burns
  if (highest !== null) limits.maxTemperature = highest
  if (minTempC !== null) limits.minTemperature = minTempC
  if (highest !== null || minTempC !== null) from.temperature = maxTempC === null && minTempC === null ? 'usual' : 'label'
  return { limits, from }
}

/**
 * The limits of one day with what the rules of the place add to them: hours that they close, and a wind below that of the label.
 *
 * @param rules those that bind what is done
 * @param day civil day, YYYY-MM-DD
 */
export function withRules({ limits, from }: LimitsOfMeans, rules: readonly SiteRule[], day: string): LimitsOfMeans {
  const result: LimitsOfMeans = { limits: { ...limits }, from: { ...from } }
  for (const rule of rules) {
    const closed = closedBy(rule, day)
    if (closed.length > 0) {
      result.limits.closed = [...(result.limits.closed ?? []), ...closed]
      // A law outranks what somebody set for themselves.
      if (result.from.rule !== 'law') result.from.rule = rule.whose
    }
    const isLower = rule.kind === 'wind' && rule.amount !== null && holdsOn(rule, day) && rule.amount < (result.limits.maxWind ?? Infinity)
    if (isLower) {
      result.limits.maxWind = rule.amount as number
      result.from.wind = rule.whose
    }
  }
  return result
}

/** For how many hours a residue is taken to harm bees; `never` harmless within a night where its class is not known. */
function beeHours(methods: readonly string[]): number | 'never' {
  if (methods.length > 0 && methods.every((method) => DRY_SPARES_BEES.includes(method))) return 0
  if (methods.length > 0 && methods.every((method) => [...DRY_SPARES_BEES, ...HARMS_FOR_HOURS].includes(method))) return SHORT_BEE_HOURS
  return 'never'
}
