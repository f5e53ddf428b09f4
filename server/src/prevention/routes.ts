import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { read, type Serving } from '../http/route.js'
import { winterChores } from './chores.js'
import { datesOfPlanting } from './dates.js'

export function preventionRoutes(router: Router, serving: Serving): void {
  const { prevention } = endpoints
  read(router, serving, prevention.dates, ({ deps, params, input }) => datesOfPlanting(deps, params.siteId, input))
  read(router, serving, prevention.chores, ({ deps, params }) => winterChores(deps, params.siteId))
}
