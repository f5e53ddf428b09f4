import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { removeRow } from '../database/index.js'
import { read, write, type Serving } from '../http/route.js'
import { addRule, changeRule, restoreRule, rulesOf } from './service.js'

export function ruleRoutes(router: Router, serving: Serving): void {
  const { rules } = endpoints
  read(router, serving, rules.list, ({ deps, params }) => rulesOf(deps.db, deps.clock, params.siteId))
  write(router, serving, rules.add, (ctx) => addRule(ctx, ctx.deps, ctx.input))
  write(router, serving, rules.update, (ctx) => changeRule(ctx, ctx.deps, ctx.params.siteRuleId, ctx.input))
  write(router, serving, rules.remove, (ctx) => removeRow(ctx, 'site_rule', ctx.params.siteRuleId, ctx.input.rowVersion))
  write(router, serving, rules.restore, (ctx) => restoreRule(ctx, ctx.params.siteRuleId, ctx.input.rowVersion))
}
