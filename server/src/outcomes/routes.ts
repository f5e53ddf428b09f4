import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { read, type Deps } from '../http/route.js'
import { getOutcomes } from './service.js'

export function outcomeRoutes(router: Router, deps: Deps): void {
  read(router, deps, endpoints.outcomes.list, ({ params, input }) => getOutcomes(deps, params.siteId, input.season))
}
