import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { read, write, type Deps } from '../http/route.js'
import { getNormals, removeNormals, typeNormals } from '../weather/normals.js'
import { addPerson, changeSite, createSite, getSites } from './service.js'

export function siteRoutes(router: Router, deps: Deps): void {
  const { sites } = endpoints
  read(router, deps, sites.list, () => getSites(deps.database, deps.clock))
  write(router, deps, sites.create, ({ tx, input }) => createSite(tx, deps.clock, input))
  write(router, deps, sites.update, (ctx) => changeSite(ctx, deps.clock, ctx.input))
  write(router, deps, sites.addPerson, (ctx) => addPerson(ctx, ctx.input))
  read(router, deps, sites.normals, ({ params }) => getNormals(deps, params.siteId))
  write(router, deps, sites.typeNormals, (ctx) => typeNormals(ctx, ctx.input))
  write(router, deps, sites.removeNormals, (ctx) => removeNormals(ctx, ctx.input.rowVersion))
}
