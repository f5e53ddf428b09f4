import type { Character, CharacterAnswer } from './lookAlikes.js'

/** A look-alike with what it is. */
export interface LookAlike {
  id: string
  status: string
}

/** What must not be cut, sprayed or pulled by mistake. */
const PROTECTED: ReadonlySet<string> = new Set(['native', 'beneficial'])

/** Look-alikes that are native or useful, and so to be protected. */
export const protectedOf = (lookAlikes: readonly LookAlike[]): string[] =>
  lookAlikes.flatMap(({ id, status }) => (PROTECTED.has(status) ? [id] : []))

/**
 * Whether an organism has been told from the protected look-alikes that one could destroy in its stead: `clear` where there are none or
 * all are ruled out, `ask` with the character that decides most of what is open, `other` where a character spoke for one of them,
 * `unsure` where somebody looked and could not tell.
 */
export type ToldApart =
  | { state: 'clear' | 'other' | 'unsure'; character: Character | null; open: string[] }
  | { state: 'ask'; character: Character; open: string[] }

/**
 * What has to be asked before something is cut, sprayed or pulled.
 *
 * @param answers of somebody who looked, in this place and season; none where nobody has
 * @param mayTouch whether nothing burns or poisons that is not excluded yet: only then is something asked that has to be touched
 */
export function toldApart(
  characters: readonly Character[],
  lookAlikes: readonly LookAlike[],
  answers: Readonly<Record<string, CharacterAnswer>>,
  mayTouch: boolean,
): ToldApart {
  const guarded = protectedOf(lookAlikes)
  const separating = characters.filter(({ others }) => others.some((id) => guarded.includes(id)))
  const ruledOut = new Set(separating.flatMap(({ id, others }) => (answers[id] === 'here' ? others : [])))
  const open = guarded.filter((id) => !ruledOut.has(id) && separating.some(({ others }) => others.includes(id)))
  const against = separating.find(({ id, decisive }) => answers[id] === 'others' && decisive)
  if (against) return { state: 'other', character: against, open: against.others.filter((id) => guarded.includes(id)) }
  if (open.length === 0) return { state: 'clear', character: null, open: [] }
  const decides = ({ others }: Character): number => others.filter((id) => open.includes(id)).length
  const [best] = separating
    .filter((c) => answers[c.id] === undefined && decides(c) > 0 && (c.by === 'sight' || mayTouch))
    .sort(
      (a, b) => Number(b.decisive) - Number(a.decisive) || Number(a.by === 'touch') - Number(b.by === 'touch') || decides(b) - decides(a),
    )
  return best ? { state: 'ask', character: best, open } : { state: 'unsure', character: null, open }
}
