import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { read, type Serving } from '../http/route.js'
import { getOutcomes } from './service.js'

export function outcomeRoutes(router: Router, serving: Serving): void {
  read(router, serving, endpoints.outcomes.list, ({ deps, params, input }) => getOutcomes(deps, params.siteId, input.season))
}
