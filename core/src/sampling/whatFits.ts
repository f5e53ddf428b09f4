/** Something to go and do, when hours are short. */
export interface Fitting {
  id: string
  /** null: nobody knows how long it takes. */
  minutes: number | null
  /** 1 first, 3 last; null: nobody ranked it. */
  rank: number | null
  /** Done now, seed is prevented. */
  preventsSeed: boolean
  /** It stands where it gets away from. */
  spreads: boolean
  /** Day number by which it is due. */
  due: number
}

/** What nobody ranked comes last. */
const rankOf = ({ rank }: Fitting): number => rank ?? Number.MAX_SAFE_INTEGER

/**
 * What fits into the minutes there are: by rank, then what prevents seed, then what gets away, then what is due longest. Nothing is ranked
 * where nobody ranked anything; what is not ranked comes after what is.
 *
 * @param otherwise minutes that are taken for what nobody measured
 * @returns what to do in its order, and what is left undone; null where nothing is ranked
 * @example whatFits([{ id: 'a', minutes: 30, rank: 2, preventsSeed: false, spreads: false, due: 1 }, { id: 'b', minutes: 40, rank: 1, preventsSeed: false, spreads: false, due: 5 }], 60, 15) // { taken: ['b'], left: ['a'], minutes: 40 }
 */
export function whatFits(
  all: readonly Fitting[],
  minutes: number,
  otherwise: number,
): { taken: string[]; left: string[]; minutes: number } | null {
  if (all.every(({ rank }) => rank === null)) return null
  const order = all.toSorted(
    (a, b) =>
      rankOf(a) - rankOf(b) || Number(b.preventsSeed) - Number(a.preventsSeed) || Number(b.spreads) - Number(a.spreads) || a.due - b.due,
  )
  const found = { taken: [] as string[], left: [] as string[], minutes: 0 }
  for (const one of order) {
    const takes = one.minutes ?? otherwise
    // A smaller one that comes later may still fit.
    if (found.minutes + takes > minutes) found.left.push(one.id)
    else {
      found.taken.push(one.id)
      found.minutes += takes
    }
  }
  return found
}
