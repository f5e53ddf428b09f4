import type { ParsedInputOf, rules, SiteRule } from '@bocado/contract'
import { insertRow, restoreRow, updateRow, type Write } from '../database/index.js'
import { HttpProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { getSite } from '../sites/service.js'
import { listRules } from './store.js'

type RuleInput = ParsedInputOf<typeof rules.add>

async function columnsOf(w: Write, deps: Deps, input: RuleInput) {
  const { today } = await getSite(w.tx, deps.clock, w.siteId)
  if (input.readOn !== null && input.readOn > today) throw refusal('readOn', 'day.future', { today: { day: today } })
  const hasAmount = ['wind', 'notice', 'kept-clear'].includes(input.kind)
  return {
    name: input.name,
    kind: input.kind,
    act: input.act,
    whose: input.whose,
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
