/** A sign by which a cause gives itself away, with the share of its cases in which it is seen. */
export interface CauseSign {
  part: string
  sign: string
  /** Months, 1 to 12, in which it is seen. */
  months: readonly number[]
  /** Share of the cases in which it is seen, 0..1. */
  typical: number
  hour?: string | undefined
}

/** Something that may be the cause: an organism, or weather, soil and the like. */
export interface Candidate {
  id: string
  /** How often it is the cause here, relative to the others, before anything is looked at; above 0. */
  prior: number
  signs: readonly CauseSign[]
  /** It burns skin, or is poisonous to the touch. */
  burns?: boolean | undefined
}

/** What was looked for, and whether it was seen. */
export interface Observation {
  part: string
  sign: string
  seen: boolean
}

export interface Circumstances {
  month: number
  /** When it was seen, where that is known. */
  hour?: string | undefined
}

export interface Suspect {
  id: string
  /** 0..1; all together 1. */
  probability: number
}

/** Stands for whatever is not among the candidates. */
export const NONE_OF_THESE = 'none-of-these'

/** What is not among the candidates is as likely, before anything is looked at, as one of them that lives there (from practice). */
const UNKNOWN_PRIOR = 1
/** It shows any one sign in one case of ten (from practice). */
const UNKNOWN_SIGN = 0.1
/** Where the best candidate shows what was seen less often than this, sign by sign, nothing among them fits. */
const FITS_FROM = 0.12
/** A single sign settles nothing. */
const FEWEST_SIGNS = 2

/** Seen though it is none of the cause's signs: something else is there as well, or it was named wrongly. */
const BY_CHANCE = 0.03
/** The same sign on another part of the plant counts for this much: people name parts differently. */
const OTHER_PART = 0.25
const OUT_OF_SEASON = 0.15
const OTHER_HOUR = 0.5
const MONTHS = 12

function monthsApart(months: readonly number[], month: number): number {
  return Math.min(...months.map((m) => Math.min(Math.abs(m - month), MONTHS - Math.abs(m - month))))
}

/** Probability that a sign is seen where a candidate is the cause. */
export function probabilityOfSign(candidate: Candidate, part: string, sign: string, { month, hour }: Circumstances): number {
  let best = BY_CHANCE
  for (const s of candidate.signs) {
    if (s.sign !== sign) continue
    const away = monthsApart(s.months, month)
    const season = away === 0 ? 1 : away === 1 ? 0.5 : OUT_OF_SEASON
    const atHour = hour !== undefined && s.hour !== undefined && s.hour !== hour ? OTHER_HOUR : 1
    best = Math.max(best, s.typical * (s.part === part ? 1 : OTHER_PART) * season * atHour)
  }
  return Math.min(best, 1 - BY_CHANCE)
}

/**
 * Candidates in the order of their probability after what was seen and not seen: Bayes with signs taken as independent given the
 * cause.
 *
 * @throws RangeError for a prior not above 0, or a month outside 1 to 12
 */
export function rankSuspects(
  candidates: readonly Candidate[],
  observations: readonly Observation[],
  circumstances: Circumstances,
): Suspect[] {
  const { month } = circumstances
  if (!Number.isInteger(month) || month < 1 || month > MONTHS) throw new RangeError(`month must be 1 to 12, got ${month}`)
  return shared(weighed(candidates, observations, circumstances))
}

/** Prior times likelihood of each candidate. */
const weighed = (
  candidates: readonly Candidate[],
  observations: readonly Observation[],
  circumstances: Circumstances,
): { id: string; weight: number }[] =>
  candidates.map((candidate) => {
    if (!(candidate.prior > 0)) throw new RangeError(`candidate.prior must be above 0, got ${candidate.prior} for ${candidate.id}`)
    const weight = observations.reduce((product, { part, sign, seen }) => {
      const p = probabilityOfSign(candidate, part, sign, circumstances)
      return product * (seen ? p : 1 - p)
    }, candidate.prior)
    return { id: candidate.id, weight }
  })

function shared(all: readonly { id: string; weight: number }[]): Suspect[] {
  const total = all.reduce((sum, { weight }) => sum + weight, 0)
  return all
    .map(({ id, weight }) => ({ id, probability: total > 0 ? weight / total : 0 }))
    .sort((a, b) => b.probability - a.probability || a.id.localeCompare(b.id))
}

/**
 * The same with one more candidate, `NONE_OF_THESE`, for whatever the library does not hold: it has its own prior, and shows any sign now and
 * then.
 */
export function rankWithUnknown(
  candidates: readonly Candidate[],
  observations: readonly Observation[],
  circumstances: Circumstances,
): { ranked: Suspect[]; nothingFits: boolean } {
  const known = weighed(candidates, observations, circumstances)
  const unknown = observations.reduce((weight, { seen }) => weight * (seen ? UNKNOWN_SIGN : 1 - UNKNOWN_SIGN), UNKNOWN_PRIOR)
  const ranked = shared([...known, { id: NONE_OF_THESE, weight: unknown }])
  const seen = observations.filter((o) => o.seen)
  const fit = (candidate: Candidate): number =>
    Math.exp(seen.reduce((sum, { part, sign }) => sum + Math.log(probabilityOfSign(candidate, part, sign, circumstances)), 0) / seen.length)
  const best = candidates.find(({ id }) => id === ranked.find((suspect) => suspect.id !== NONE_OF_THESE)?.id)
  const nothingFits = seen.length >= FEWEST_SIGNS && (ranked[0]?.id === NONE_OF_THESE || best === undefined || fit(best) < FITS_FROM)
  return { ranked, nothingFits }
}

/** What has to be dug up, pulled, crushed or smelled to be seen. */
const TOUCHED: ReadonlySet<string> = new Set(['scented', 'tap-root', 'creeping', 'tubers'])
export const needsTouch = ({ part, sign }: Pick<Observation, 'part' | 'sign'>): boolean => part === 'root' || TOUCHED.has(sign)

/** Below this a candidate that burns counts as excluded by sight. */
const EXCLUDED_BELOW = 0.02

/** Candidates that burn or poison whoever touches them, and that what was seen has not excluded. */
export function burningStill(
  candidates: readonly Candidate[],
  observations: readonly Observation[],
  circumstances: Circumstances,
): string[] {
  const byId = new Map(candidates.map((candidate) => [candidate.id, candidate]))
  return rankSuspects(candidates, observations, circumstances)
    .filter(({ id, probability }) => byId.get(id)?.burns && probability >= EXCLUDED_BELOW)
    .map(({ id }) => id)
}

/** An observation worth making next. */
export interface NextObservation {
  part: string
  sign: string
  /** Bits by which it is expected to reduce the uncertainty about the cause. */
  gain: number
  /** Candidates that would show it, the most probable first. */
  shownBy: string[]
}

const worth = ({ part, gain }: NextObservation): number => gain * (part === 'root' ? DIGGING : 1)

const entropy = (shares: readonly number[]): number => shares.reduce((sum, p) => (p > 0 ? sum - p * Math.log2(p) : sum), 0)

/** What has to be dug up is looked at last: its gain counts for this much where questions are put in order. */
const DIGGING = 0.6

/** Only these many of the most probable suspects are told apart: what hardly anybody suspects asks no question. */
const TOLD_APART = 12

/**
 * The observations that would separate the suspects best, by expected gain of information (Shannon 1948), best first; what has to
 * be dug up comes after what lies open. What was looked for already is not asked again, and nothing is asked that has to be touched while a
 * candidate that burns or poisons is not excluded.
 */
export function nextObservations(
  candidates: readonly Candidate[],
  observations: readonly Observation[],
  circumstances: Circumstances,
  most = 3,
): NextObservation[] {
  const ranked = rankSuspects(candidates, observations, circumstances).slice(0, TOLD_APART)
  const mass = ranked.reduce((sum, { probability }) => sum + probability, 0)
  const suspects = ranked.map(({ id, probability }) => ({
    candidate: candidates.find((c) => c.id === id) as Candidate,
    share: mass > 0 ? probability / mass : 0,
  }))
  const now = entropy(suspects.map(({ share }) => share))
  const byHand = burningStill(candidates, observations, circumstances).length === 0
  const asked = new Set(observations.map(({ part, sign }) => `${part} ${sign}`))
  const questions = new Map<string, { part: string; sign: string }>()
  for (const { candidate } of suspects)
    for (const { part, sign } of candidate.signs) if (!asked.has(`${part} ${sign}`)) questions.set(`${part} ${sign}`, { part, sign })
  return [...questions.values()]
    .filter((question) => byHand || !needsTouch(question))
    .map(({ part, sign }) => {
      const seen = suspects.map(({ candidate, share }) => share * probabilityOfSign(candidate, part, sign, circumstances))
      const p = seen.reduce((sum, s) => sum + s, 0)
      const not = suspects.map(({ share }, i) => share - (seen[i] as number))
      const after = p * entropy(seen.map((s) => s / p)) + (1 - p) * entropy(not.map((s) => s / (1 - p)))
      const shownBy = suspects
        .filter(({ candidate }) => candidate.signs.some((s) => s.part === part && s.sign === sign))
        .map(({ candidate }) => candidate.id)
      return { part, sign, gain: now - after, shownBy }
    })
    .sort((a, b) => worth(b) - worth(a) || `${a.part}${a.sign}`.localeCompare(`${b.part}${b.sign}`))
    .slice(0, most)
}
