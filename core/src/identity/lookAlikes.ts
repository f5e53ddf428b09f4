/** A character that tells an organism from some of its look-alikes. */
export interface Character {
  id: string
  /** Look-alikes that show the other answer. */
  others: readonly string[]
  /** Whether the other answer settles that it is something else. */
  decisive: boolean
  /** Seen without touching, or only by crushing, breaking, smelling or pulling. */
  by: 'sight' | 'touch'
}

/** What somebody saw of a character: as it is here, as it is in the look-alikes, or not to be told. */
export type CharacterAnswer = 'here' | 'others' | 'unsure'

export interface IdentityVerdict {
  verdict: 'matches' | 'does-not-match' | 'unsure'
  /** Look-alikes that no answer has ruled out. */
  open: string[]
  /** Look-alikes that an answer against the organism speaks for. */
  likely: string[]
  /** Characters that are not answered yet, those that settle most first. */
  ask: string[]
  /** Characters that have to be touched, and must not be yet: something that burns or poisons is not excluded by sight. */
  later: string[]
}

/** What burns or poisons whoever touches it: the organism itself, or some of its look-alikes. */
export interface Burning {
  itself: boolean
  lookAlikes: readonly string[]
}

/**
 * Whether what was seen is the organism. One decisive character against it settles that it is not; it matches once each look-alike
 * is ruled out and nothing speaks against it. Anything else is unsure: then somebody who knows has to be asked.
 */
export function identityVerdict(
  characters: readonly Character[],
  lookAlikes: readonly string[],
  answers: Readonly<Record<string, CharacterAnswer>>,
  burning: Burning = { itself: false, lookAlikes: [] },
): IdentityVerdict {
  const given = (answer: CharacterAnswer): Character[] => characters.filter(({ id }) => answers[id] === answer)
  const against = given('others')
  const ruledOut = new Set(given('here').flatMap(({ others }) => others))
  const open = lookAlikes.filter((id) => !ruledOut.has(id))
  const likely = [...new Set(against.flatMap(({ others }) => others))].filter((id) => !ruledOut.has(id))
  const separates = ({ others }: Character): number => others.filter((id) => open.includes(id)).length
  // By sight alone: what was touched to exclude what burns was touched too early.
  const bySight = new Set(given('here').flatMap(({ by, others }) => (by === 'sight' ? others : [])))
  const settledBySight = given('others').some(({ by, decisive }) => by === 'sight' && decisive)
  const mayBurn = (burning.itself && !settledBySight) || burning.lookAlikes.some((id) => !bySight.has(id))
  const later = characters.filter(({ id, by }) => mayBurn && by === 'touch' && answers[id] === undefined).map(({ id }) => id)
  const ask = characters
    .filter(({ id }) => answers[id] === undefined && !later.includes(id))
    .sort((a, b) => Number(b.decisive) - Number(a.decisive) || separates(b) - separates(a))
    .map(({ id }) => id)
  const settled = against.some(({ decisive }) => decisive)
  const verdict = settled ? 'does-not-match' : against.length === 0 && open.length === 0 ? 'matches' : 'unsure'
  return { verdict, open, likely, ask, later }
}
