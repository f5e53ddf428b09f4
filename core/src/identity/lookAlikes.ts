/** A character that tells an organism from some of its look-alikes. */
export interface Character {
  id: string
  /** Look-alikes that show the other answer. */
  others: readonly string[]
  /** Whether the other answer settles that it is something else. */
  decisive: boolean
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
}

/**
 * Whether what was seen is the organism. One decisive character against it settles that it is not; it matches once each look-alike
 * is ruled out and nothing speaks against it. Anything else is unsure: then somebody who knows has to be asked.
 */
export function identityVerdict(
  characters: readonly Character[],
  lookAlikes: readonly string[],
  answers: Readonly<Record<string, CharacterAnswer>>,
): IdentityVerdict {
  const given = (answer: CharacterAnswer): Character[] => characters.filter(({ id }) => answers[id] === answer)
  const against = given('others')
  const ruledOut = new Set(given('here').flatMap(({ others }) => others))
  const open = lookAlikes.filter((id) => !ruledOut.has(id))
  const likely = [...new Set(against.flatMap(({ others }) => others))].filter((id) => !ruledOut.has(id))
  const separates = ({ others }: Character): number => others.filter((id) => open.includes(id)).length
  const ask = characters
    .filter(({ id }) => answers[id] === undefined)
    .sort((a, b) => Number(b.decisive) - Number(a.decisive) || separates(b) - separates(a))
    .map(({ id }) => id)
  const settled = against.some(({ decisive }) => decisive)
  const verdict = settled ? 'does-not-match' : against.length === 0 && open.length === 0 ? 'matches' : 'unsure'
  return { verdict, open, likely, ask }
}
