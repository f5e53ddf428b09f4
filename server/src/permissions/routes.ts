import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { removeRow } from '../database/index.js'
import { read, write, type Serving } from '../http/route.js'
import { addPermission, changePermission, giveNotice, restoreNotice, restorePermission } from './service.js'
import { listPermissions } from './store.js'

export function permissionRoutes(router: Router, serving: Serving): void {
  const { permissions } = endpoints
  read(router, serving, permissions.list, ({ deps, params }) => listPermissions(deps.db, params.siteId))
  write(router, serving, permissions.add, (ctx) => addPermission(ctx, ctx.input))
  write(router, serving, permissions.update, (ctx) => changePermission(ctx, ctx.params.permissionId, ctx.input))
  write(router, serving, permissions.remove, (ctx) => removeRow(ctx, 'permission', ctx.params.permissionId, ctx.input.rowVersion))
  write(router, serving, permissions.restore, (ctx) => restorePermission(ctx, ctx.params.permissionId, ctx.input.rowVersion))
  write(router, serving, permissions.giveNotice, (ctx) => giveNotice(ctx, ctx.deps, ctx.input))
  write(router, serving, permissions.removeNotice, (ctx) => removeRow(ctx, 'notice', ctx.params.noticeId, ctx.input.rowVersion))
  write(router, serving, permissions.restoreNotice, (ctx) => restoreNotice(ctx, ctx.params.noticeId, ctx.input.rowVersion))
}
