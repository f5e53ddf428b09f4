import { endpoints, type SiteRule } from '@bocado/contract'
import { useMemo } from 'react'
import { useRead } from '../api/hooks.js'
import { useBlockOf } from '../api/useBlockOf.js'
import { useSite } from '../api/workplace.js'
import { rulesThere } from '../band/rules.js'

/** Rules that bind a place: those of its block, and of the whole site. Null: of the whole site alone. */
export function useRulesAt(placeId: string | null): readonly SiteRule[] {
  const { data: rules } = useRead(endpoints.rules.list, { params: { siteId: useSite().id }, input: {} })
  const blockOf = useBlockOf()
  return useMemo(() => {
    // A block is its own; until the places are there a part is taken for one, and the server holds what is planned against all.
    const blockId = placeId === null ? '' : (blockOf?.(placeId) ?? placeId)
    return rulesThere(rules ?? [], blockId)
  }, [rules, blockOf, placeId])
}
