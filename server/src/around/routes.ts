import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { read, type Serving } from '../http/route.js'
import { getSite } from '../sites/service.js'
import { firstsAround } from './service.js'

export function aroundRoutes(router: Router, serving: Serving): void {
  read(router, serving, endpoints.around.read, async ({ deps, params }) =>
    firstsAround(deps.db, await getSite(deps.db, deps.clock, params.siteId)),
  )
}
