import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { callerAt } from '../http/identity.js'
import { read, write, type Serving } from '../http/route.js'
import { getNormals, removeNormals, typeNormals } from '../weather/normals.js'
import {
  addPerson,
  archiveSite,
  changePerson,
  changeSite,
  createSite,
  getSites,
  nameHolding,
  removePerson,
  removeSite,
  restorePerson,
  restoreSite,
  setPolicy,
  shareFirst,
  setRules,
} from './service.js'

export function siteRoutes(router: Router, serving: Serving): void {
  const { sites } = endpoints
  read(router, serving, sites.list, async ({ deps, personId, token }) => {
    const all = await getSites(deps.db, deps.clock, personId)
    // Whoever came in by a code is at the site of its phone, and nowhere else.
    const only = (await callerAt(deps.db, token, undefined))?.phoneSite
    return only === undefined ? all : all.filter(({ id }) => id === only)
  })
  write(router, serving, sites.create, ({ deps, input, personId }) => createSite(deps, personId, input))
  write(router, serving, sites.update, (ctx) => changeSite(ctx, ctx.deps.clock, ctx.input))
  write(router, serving, sites.shareFirst, (ctx) => shareFirst(ctx, ctx.deps.clock, ctx.input))
  write(router, serving, sites.setPolicy, (ctx) => setPolicy(ctx, ctx.deps.clock, ctx.input))
  write(router, serving, sites.setRules, (ctx) => setRules(ctx, ctx.deps.clock, ctx.input))
  write(router, serving, sites.nameHolding, (ctx) => nameHolding(ctx, ctx.deps.clock, ctx.input))
  write(router, serving, sites.addPerson, (ctx) => addPerson(ctx, ctx.input))
  write(router, serving, sites.changePerson, (ctx) => changePerson(ctx, ctx.params.personId, ctx.input))
  write(router, serving, sites.removePerson, (ctx) => removePerson(ctx, ctx.params.personId, ctx.input.rowVersion))
  write(router, serving, sites.restorePerson, (ctx) => restorePerson(ctx, ctx.params.personId, ctx.input.rowVersion))
  write(router, serving, sites.archive, (ctx) => archiveSite(ctx, ctx.deps.clock, ctx.input), { at: 'archived' })
  write(router, serving, sites.remove, (ctx) => removeSite(ctx, ctx.deps.clock, ctx.input.rowVersion), { at: 'archived' })
  write(router, serving, sites.restore, (ctx) => restoreSite(ctx, ctx.deps.clock, ctx.input.rowVersion), { at: 'removed' })
  read(router, serving, sites.normals, ({ deps, params }) => getNormals(deps, params.siteId))
  write(router, serving, sites.typeNormals, (ctx) => typeNormals(ctx, ctx.input))
  write(router, serving, sites.removeNormals, (ctx) => removeNormals(ctx, ctx.input.rowVersion))
}
