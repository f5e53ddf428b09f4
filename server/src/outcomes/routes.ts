import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { read, write, type Serving } from '../http/route.js'
import { windowsAhead } from './ahead.js'
import { keepNote, listNotes } from './notes.js'
import { getOutcomes } from './service.js'
import { getSkill } from './skill.js'
import { getWays } from './ways.js'
import { getYears } from './years.js'

export function outcomeRoutes(router: Router, serving: Serving): void {
  read(router, serving, endpoints.outcomes.list, ({ deps, params, input }) => getOutcomes(deps, params.siteId, input.season))
  read(router, serving, endpoints.outcomes.ways, ({ deps, params }) => getWays(deps, params.siteId))
  read(router, serving, endpoints.outcomes.years, ({ deps, params }) => getYears(deps, params.siteId))
  read(router, serving, endpoints.outcomes.ahead, ({ deps, params, input }) => windowsAhead(deps, params.siteId, input.season))
  read(router, serving, endpoints.outcomes.notes, ({ deps, params, input }) => listNotes(deps.db, params.siteId, input.season))
  write(router, serving, endpoints.outcomes.keepNote, (ctx) => keepNote(ctx, ctx.deps, ctx.params.blockId, ctx.input))
  read(router, serving, endpoints.outcomes.skill, ({ deps, params }) => getSkill(deps, params.siteId))
}
