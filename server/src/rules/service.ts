import type { ParsedInputOf, rules, SiteRule } from '@bocado/contract'
import { rulesThere } from '@bocado/core'
import { companionRules } from '../companions/service.js'
import type { Clock } from '../clock.js'
import { insertRow, restoreRow, updateRow, type Queryable, type Write } from '../database/index.js'
import { fieldProblem, HttpProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { blockOf, tree } from '../places/store.js'
import { getSite } from '../sites/service.js'
import { listRules } from './store.js'

type RuleInput = ParsedInputOf<typeof rules.add>

/** All rules of a site: those that it has written down, and those of plants that must not be harmed. */
export async function rulesOf(db: Queryable, clock: Clock, siteId: string): Promise<SiteRule[]> {
  return [...(await listRules(db, siteId)), ...(await companionRules(db, clock, siteId))]
}

/** Those of them that bind a place: what binds its block, or the whole site. */
export async function rulesAt(db: Queryable, clock: Clock, siteId: string, placeId: string): Promise<SiteRule[]> {
  const block = blockOf(await tree(db, siteId), placeId)
  return rulesThere(await rulesOf(db, clock, siteId), block?.id ?? placeId)
}

/** Those that a site has written down and that bind a place. */
export async function writtenAt(db: Queryable, siteId: string, placeId: string): Promise<SiteRule[]> {
  const block = blockOf(await tree(db, siteId), placeId)
  return rulesThere(await listRules(db, siteId), block?.id ?? placeId)
}

async function columnsOf(w: Write, deps: Deps, input: RuleInput) {
  const { today } = await getSite(w.tx, deps.clock, w.siteId)
  if (input.readOn !== null && input.readOn > today) throw refusal('readOn', 'day.future', { today: { day: today } })
  if (input.placeId !== null && !(await tree(w.tx, w.siteId)).has(input.placeId))
    throw fieldProblem('placeId', 'choose a place of this site')
  const hasAmount = ['wind', 'notice', 'kept-clear'].includes(input.kind)
  return {
    name: input.name,
    kind: input.kind,
    act: input.act,
    whose: input.whose,
    place_id: input.placeId,
    from_day: input.fromDay,
    until_day: input.untilDay,
    from_hour: input.kind === 'closed-hours' ? input.fromHour : null,
    until_hour: input.kind === 'closed-hours' ? input.untilHour : null,
    amount: hasAmount ? input.amount : null,
    source: input.source,
    read_on: input.readOn,
  }
}

async function getRule(w: Write, id: string): Promise<SiteRule> {
  const rule = (await listRules(w.tx, w.siteId)).find((one) => one.id === id)
  if (!rule) throw new HttpProblem(404, 'There is no such rule at this site.')
  return rule
}

export const addRule = async (w: Write, deps: Deps, input: RuleInput): Promise<SiteRule> =>
  getRule(w, await insertRow(w, 'site_rule', await columnsOf(w, deps, input)))

export async function changeRule(w: Write, deps: Deps, id: string, input: ParsedInputOf<typeof rules.update>): Promise<SiteRule> {
  await updateRow(w, 'site_rule', id, input.rowVersion, await columnsOf(w, deps, input))
  return getRule(w, id)
}

export async function restoreRule(w: Write, id: string, rowVersion: number): Promise<SiteRule> {
  await restoreRow(w, 'site_rule', id, rowVersion)
  return getRule(w, id)
}
