import type { Band, Flag, Organism } from '@bocado/contract'
import type { Option } from '../design/fields.js'
import { NONE } from './seen.js'

/** What a flag may mark, what is watched or flagged here first, then the other weeds, then the rest. */
export function namesFirst(organisms: readonly Organism[], watches: Band['watches'], flags: readonly Flag[]): Organism[] {
  const here = new Set([...watches.map(({ watch }) => watch.organismId), ...flags.flatMap(({ organismId }) => organismId ?? [])])
  const rank = ({ id, kind }: Organism): number => (kind === 'weed' ? (here.has(id) ? 0 : 1) : here.has(id) ? 2 : 3)
  return [...organisms].sort((a, b) => rank(a) - rank(b) || a.name.localeCompare(b.name))
}

/** The same as choices, with one for what nobody can name. */
export const nameOptions = (organisms: readonly Organism[], unnamed: string): Option[] => [
  { id: NONE, label: unnamed },
  ...organisms.map(({ id, name }) => ({ id, label: name })),
]
