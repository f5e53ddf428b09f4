/** A consent or permit as it decides a day: civil days as YYYY-MM-DD. */
export interface PermissionTerms {
  kind: 'consent' | 'permit'
  /** The rule that asks for it, the place and the product for which it holds; null: any. */
  ruleId: string | null
  placeId: string | null
  productId: string | null
  validFrom: string
  /** Its last day; null: it has none. */
  validUntil: string | null
}

/** What is asked for. */
export interface PermissionAsked {
  kind: 'consent' | 'permit'
  ruleId: string | null
  /** The treated place and those that it lies in. */
  placeIds: readonly string[]
  /** null: it is done by hand. */
  productId: string | null
  day: string
}

/** Days after which the numbers of a label are read again before it is used. */
export const LABEL_READ_AGAIN_DAYS = 365

/**
 * The permissions that cover what is asked for on its day; where none does, the last that has ended before it.
 *
 * @returns `holds` are those of the day; `ended` is null while any holds, and where none ever did
 */
export function permissionsFor<P extends PermissionTerms>(
  all: readonly P[],
  { kind, ruleId, placeIds, productId, day }: PermissionAsked,
): { holds: P[]; ended: P | null } {
  const covers = all.filter(
    (one) =>
      one.kind === kind &&
      (one.ruleId === null || one.ruleId === ruleId) &&
      (one.placeId === null || placeIds.includes(one.placeId)) &&
      (one.productId === null || one.productId === productId),
  )
  const holds = covers.filter(({ validFrom, validUntil }) => validFrom <= day && (validUntil === null || day <= validUntil))
  if (holds.length > 0) return { holds, ended: null }
  const over = covers.filter(({ validUntil }) => validUntil !== null && validUntil < day)
  const [ended = null] = over.sort((a, b) => (b.validUntil ?? '').localeCompare(a.validUntil ?? ''))
  return { holds, ended }
}
