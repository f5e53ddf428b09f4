import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { removeRow } from '../database/index.js'
import { read, write, type Serving } from '../http/route.js'
import { addJob, arrange, changeJob, readSchedule, restoreJob } from './service.js'

export function scheduleRoutes(router: Router, serving: Serving): void {
  const { schedule } = endpoints
  read(router, serving, schedule.read, ({ deps, params, input }) => readSchedule(deps, params.siteId, input.season))
  write(router, serving, schedule.addJob, (ctx) => addJob(ctx, ctx.input))
  write(router, serving, schedule.updateJob, (ctx) => changeJob(ctx, ctx.deps, ctx.params.jobId, ctx.input))
  write(router, serving, schedule.removeJob, (ctx) => removeRow(ctx, 'job', ctx.params.jobId, ctx.input.rowVersion))
  write(router, serving, schedule.restoreJob, (ctx) => restoreJob(ctx, ctx.params.jobId, ctx.input.rowVersion))
  write(router, serving, schedule.arrange, (ctx) => arrange(ctx, ctx.deps, ctx.input))
}
