import { endpoints, type OwnCountingPlan } from '@bocado/contract'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'

/** A plan as it is typed; `usual`: the site has none of its own. */
export type TypedPlan = { [K in Exclude<keyof OwnCountingPlan, 'kind' | 'clumping'>]: number | null } & {
  kind: OwnCountingPlan['kind'] | 'usual'
}

/** As a plan begins: as counts usually end. */
export const planBegins = (plan: OwnCountingPlan | null, suggested: number): TypedPlan => ({
  kind: plan?.kind ?? 'usual',
  safeShare: plan?.safeShare ?? 0.5,
  needless: plan?.needless ?? 0.1,
  missed: plan?.missed ?? 0.1,
  relativeSe: plan?.relativeSe ?? 0.25,
  leastUnits: plan?.leastUnits ?? 10,
  leastPlaces: plan?.leastPlaces ?? 5,
  mostUnits: plan?.mostUnits ?? 2 * suggested,
})

/** The plan as it is stored, by how animals sit together here where counts tell it; null: as usual. */
export function planOfTyped(typed: TypedPlan, clumping: OwnCountingPlan['clumping']): OwnCountingPlan | null {
  const { kind, ...numbers } = typed
  if (kind === 'usual') return null
  // What is left empty is told by the contract, field by field.
  return { ...(numbers as Omit<OwnCountingPlan, 'kind' | 'clumping'>), kind, clumping }
}

/** How much animals sit together by the counts of this site. */
export const useSpread = (organismId: string) =>
  useRead(endpoints.scouting.spread, { params: { siteId: useSite().id, organismId }, input: {} })
