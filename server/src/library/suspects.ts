import type { ParsedInputOf, ResponseOf, SignObservation, Suspects, library } from '@bocado/contract'
import { plantParts, signKinds } from '@bocado/contract'
import { burningStill, livesIn, nextObservations, NONE_OF_THESE, rankWithUnknown, type Candidate, type Hemisphere } from '@bocado/core'
import { causes, type Cause, type Organism, type Sign } from '@bocado/library'
import { fieldProblem } from '../http/problems.js'

/** How much less an organism is suspected on a plant or in a place of which the library does not say that it lives there. */
const ELSEWHERE = 0.02
/** An organism that is watched here is known to be about. */
const WATCHED = 2
const SHOWN = 8
/** Less than this is not worth a line. */
const LEAST_PROBABILITY = 0.01

const inSeason = (months: readonly number[], hemisphere: Hemisphere): number[] =>
  hemisphere === 'south' ? months.map((m) => ((m + 5) % 12) + 1) : [...months]

interface Known {
  candidate: Candidate
  name: string
  kind: string
  signs: readonly Sign[]
  organism: Organism | undefined
  cause: Cause | undefined
}

function knownOf(organism: Organism, place: string, watched: ReadonlySet<string>, hemisphere: Hemisphere): Known {
  const { about, crops } = organism
  const at = livesIn(place, [...crops, ...about.hosts]) ? 1 : ELSEWHERE
  const prior = at * (watched.has(organism.id) ? WATCHED : 1)
  const signs = about.signs.map((sign) => ({ ...sign, months: inSeason(sign.months, hemisphere) }))
  const burns = organism.hazards.some(({ touch }) => touch)
  return {
    candidate: { id: organism.id, prior, signs, burns },
    name: organism.name,
    kind: organism.kind,
    signs,
    organism,
    cause: undefined,
  }
}

function knownCause(cause: Cause, place: string, hemisphere: Hemisphere): Known {
  const at = cause.crops.length === 0 || livesIn(place, cause.crops) ? 1 : ELSEWHERE
  const signs = cause.signs.map((sign) => ({ ...sign, months: inSeason(sign.months, hemisphere) }))
  const id = `cause-${cause.id}`
  return { candidate: { id, prior: cause.commonness * at, signs }, name: cause.name, kind: 'no pest', signs, organism: undefined, cause }
}

/** `leaf:holes,stem:frass` as observations; one that is none is named. */
export function observationsOf(text: string, path: string, seen: boolean): SignObservation[] {
  return text
    .split(',')
    .filter((part) => part.trim() !== '')
    .map((pair) => {
      const [part, sign] = pair.trim().split(':')
      const knownPart = plantParts.find((p) => p === part)
      const knownSign = signKinds.find((s) => s === sign)
      if (!knownPart || !knownSign) throw fieldProblem(path, `${pair} is no sign; write part and sign, as leaf:holes`)
      return { part: knownPart, sign: knownSign, seen }
    })
}

/** Every sign that something in the library shows, once for each part of the plant. */
export function signsOf(organisms: readonly Organism[]): ResponseOf<typeof library.signs> {
  const all = [...organisms.flatMap(({ about }) => about.signs), ...causes.flatMap(({ signs }) => signs)]
  return [...new Map(all.map(({ part, sign }) => [`${part}:${sign}`, { part, sign }])).values()]
}

/** Whatever the library does not hold, as one of the suspects. */
const noneOfThese = (probability: number): Suspects['suspects'][number] => ({
  id: NONE_OF_THESE,
  name: 'None of these',
  kind: 'unknown',
  probability: Math.round(probability * 1000) / 1000,
  organism: false,
  silhouette: null,
  tells: [],
  whatHelps: null,
  touch: [],
})

/** What the signs speak for, and what to look for next so that the suspects part best. */
export function suspectsOf(
  organisms: readonly Organism[],
  input: ParsedInputOf<typeof library.suspects>,
  watched: ReadonlySet<string>,
  hemisphere: Hemisphere,
): Suspects {
  const observations = [...observationsOf(input.seen, 'seen', true), ...observationsOf(input.notSeen, 'notSeen', false)]
  const known = new Map(
    [
      ...organisms.map((organism) => knownOf(organism, input.place, watched, hemisphere)),
      ...causes.map((cause) => knownCause(cause, input.place, hemisphere)),
    ].map((k) => [k.candidate.id, k]),
  )
  const candidates = [...known.values()].map(({ candidate }) => candidate)
  const circumstances = { month: input.month, hour: input.hour }
  const of = (id: string): Known => known.get(id) as Known
  const { ranked, nothingFits } = rankWithUnknown(candidates, observations, circumstances)
  const seen = observations.filter((o) => o.seen)
  const next = observations.length === 0 ? [] : nextObservations(candidates, observations, circumstances, 3)
  return {
    nothingFits,
    burning: burningStill(candidates, observations, circumstances).map((id) => of(id).name),
    suspects: ranked
      .slice(0, SHOWN)
      .filter(({ probability }) => probability >= LEAST_PROBABILITY)
      .map(({ id, probability }) => {
        if (id === NONE_OF_THESE) return noneOfThese(probability)
        const { name, kind, signs, organism, cause } = of(id)
        const tells = signs.filter((s) => seen.some((o) => o.sign === s.sign)).map(({ tell }) => tell)
        return {
          id: organism?.id ?? id,
          name,
          kind,
          probability: Math.round(probability * 1000) / 1000,
          organism: organism !== undefined,
          silhouette: organism?.stages.find(({ id: stage }) => stage === organism.about.damage.stage)?.silhouette ?? null,
          tells: [...new Set(tells.length > 0 ? tells : signs.map(({ tell }) => tell))].slice(0, 2),
          whatHelps: cause?.whatHelps ?? null,
          touch: organism?.hazards.filter(({ touch }) => touch).map(({ text }) => text) ?? [],
        }
      }),
    next: next.map(({ part, sign, gain, shownBy }) => ({
      part: part as SignObservation['part'],
      sign: sign as SignObservation['sign'],
      gain: Math.round(gain * 1000) / 1000,
      shownBy: shownBy.slice(0, 4).map((id) => ({
        name: of(id).name,
        tell: of(id).signs.find((s) => s.part === part && s.sign === sign)?.tell ?? '',
      })),
    })),
  }
}
