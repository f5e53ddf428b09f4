import { readdirSync, readFileSync } from 'node:fs'
import { expect, test } from 'vitest'

/** Constants that are no guess: exact by definition, published with their source beside them, or settings of the computation. */
const NO_GUESS: Readonly<Record<string, string>> = {
  FROM_MIDDLE: 'of the normal distribution',
  METRES_PER_FOOT: 'by definition',
  UNITS: 'names of units',
  HOURS: 'by the clock',
  LATE_BY: 'names of methods',
  AT_SOWING: 'names of methods',
  EXEMPT_FROM_ROTATION: 'names of methods',
  DAYS_PER_YEAR: 'by the calendar',
  SHORTENING_DAYS: 'by the calendar',
  HPA_AT_ZERO: 'published, with the formula',
  MIDDAY_PLUS_HOURS: 'published, with the formula',
  SOLAR_CONSTANT: 'published, with the formula',
  MM_PER_MJ: 'published, with the formula',
  CAPACITY: 'published',
  WILTING_KPA: 'by definition',
  FIELD_CAPACITY_KPA: 'by definition',
  HUMID_FROM_PCT: 'of the published models',
  BLOSSOM_HEAT_FROM: 'of the published model',
  BLOSSOM_DEGREE_HOURS: 'of the published model',
  HOT_DAY_FROM: 'of the published model',
  UNKNOWN_MIN: 'stands for a day that nobody knows',
  SCAB_LONGEST_BREAK_HOURS: 'of the published model',
  SHARE: 'from BEGUN_SHARE and a half',
  LEAST_SEASONS_SHOWN: 'of the computation: a spread of fewer says nothing',
  LOWERS: 'of the computation: the thresholds that are tried',
  TROPIC: 'exact',
  DAYS_AFTER: 'of the computation: how far a season is looked at',
  PAST_SEASONS: 'of the computation: how many seasons are looked at',
  LATE: 'stands for a day that nobody knows',
  NEVER: 'stands for a day that does not come',
  INTERVAL_LEVEL: 'what is reported',
  REPLICATES: 'of the computation',
  Z90: 'of the normal distribution',
  LEAST_EXPECTED: 'of the computation: cells of a χ²',
  GOLDEN: 'exact',
  SCORE_SEED: 'of the computation',
  REFERENCE_SEASONS: 'of the computation',
  REFERENCE_SEED: 'of the computation',
  DRAWS_LOOKED_AT: 'of the computation',
  EXCHANGES: 'of the computation',
  FEW_WISHES: 'of the computation',
  EVERY_NTH: 'of the computation',
  TRIED: 'of the computation',
  HALVINGS: 'of the computation',
  NO_TANK_L: 'of the computation: nothing',
  PERCENT: 'by definition',
  TRIAL_LEVEL: 'what is reported',
  LEVEL: 'what is reported',
  POWER: 'what is reported',
  MOST: 'of the computation: how far a fall is sought',
  MOST_UNITS: 'of the computation: more nobody counts',
  AREAS_THAT_TELL: 'asked for by science: three pairs of areas',
  YEARS_AHEAD: 'of the computation: how far it is looked',
  TRIES: 'of the computation',
  FEWEST_TRIED: 'of the computation',
  COVER_CLASSES: 'by definition',
  FEWEST_PLOTS: 'of the computation: a spread needs so many',
  TREND_PLOTS: 'of the computation: a tendency needs so many',
  CM_PER_M: 'by definition',
  DAYS: 'by the calendar',
  MONTH_STARTS: 'by the calendar',
  TREND_YEARS: 'of the computation: a line needs so many',
  PLAYED: 'of the computation: how often a trial is played through',
  OUNCES_PER_POUND: 'by definition',
  PER_GALLON: 'by definition',
  PER: 'names of units',
  GRAMS_PER_KILOGRAM: 'by definition',
  POWDERS: 'names of formulations',
  WET: 'names of ways of application',
  ADDED: 'stands for the logarithm of a count of nothing, as science asks',
  SMOOTH_DAYS: 'of the computation',
  PACES: 'of the computation: quantiles between the bounds of practice',
  DECIDED: 'of the computation: nothing',
  QUANTILES: 'of the computation',
  SD_QUANTILES: 'of the computation',
  COHORT_QUANTILES: 'of the computation',
  LOGISTIC_SCALE: 'exact',
  RANKS: 'of the computation',
  STRATA: 'of the computation',
  SMALLEST_SPREAD: 'of the computation: nothing',
  MOST_TERMS: 'of the computation',
  FAR_TAIL: 'of the computation',
  KILOGRAMS_PER_POUND: 'exact',
  SQUARE_METRES_PER_ACRE: 'exact',
  SQUARE_METRES_PER_HECTARE: 'exact',
  SQUARE_METRES_PER_SQUARE_FOOT: 'exact',
  LITRES_PER_US_GALLON: 'exact',
  METRES_PER_SECOND_PER_MPH: 'exact',
  MONTHS: 'exact',
  NOTHING: 'stands for a day that is not over',
  OF_INFECTION: 'words, no numbers',
  DRAWS: 'of the computation',
  CROSSING_SEED: 'of the computation',
  TABLES: 'published',
  MOST_CELLS: 'of the computation',
  POINT_DEGREES: 'of the compass',
  NO_DIRECTION_BELOW: 'of the computation: from there on a mean of directions says nothing',
  CELLS_ACROSS: 'of the computation',
  MOST_TREATMENTS: 'of the computation: more are not planned exactly',
  SAME: 'of the computation: nothing',
}

interface Constant {
  file: string
  name: string
  value: string
  /** Whether its comment names who published it. */
  isPublished: boolean
}

const src = new URL('./', import.meta.url)
const constants = (readdirSync(src, { recursive: true }) as string[])
  .filter((file) => file.endsWith('.ts') && !file.endsWith('.test.ts') && !file.startsWith('time') && !file.startsWith('testing'))
  .flatMap((file): Constant[] => {
    const text = readFileSync(new URL(file, src), 'utf8')
    const found = text.matchAll(/((?:\/\*\*(?:(?!\*\/)[\s\S])*\*\/\n)?)(?:export )?const ([A-Z][A-Z0-9_]+)(?::[^=]+)? = ([^\n]+)/g)
    return [...found]
      .map(([, doc = '', name = '', value = '']) => ({
        file,
        name,
        value: value.replace(/\s+as const.*/, '').trim(),
        isPublished: /\b(1[89]|20)\d\d\b/.test(doc),
      }))
      .filter(({ value }) => /\d|\{$/.test(value))
  })
const listed = [
  ...readFileSync(new URL('../../docs/guessed-numbers.md', src), 'utf8').matchAll(/^\| `(\w+)`\s*\| (.+?)\s*\|.*\| `([\w/.]+)`\s*\|$/gm),
].map(([, name = '', value = '', file = '']) => ({ name, value: /^`(.*)`$/.exec(value)?.[1]?.replaceAll('\\|', '|'), file }))

test('the list of guessed numbers says what the code says', () => {
  expect(listed.length).toBeGreaterThan(90)
  for (const { name, value, file } of listed) {
    const constant = constants.find((c) => c.name === name && c.file === file)
    expect(constant, `${name} in ${file}`).toBeDefined()
    if (value !== undefined) expect(constant!.value, `${name} in ${file}`).toBe(value)
  }
})

test('every number of the computation is listed as guessed, published, or none that could be guessed', () => {
  const left = constants.filter(
    ({ file, name, isPublished }) => !isPublished && !(name in NO_GUESS) && !listed.some((one) => one.name === name && one.file === file),
  )
  expect(left.map(({ file, name, value }) => `${file} ${name} = ${value}`)).toEqual([])
})
