import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { removeRow } from '../database/index.js'
import { read, write, type Serving } from '../http/route.js'
import { addLot, addMachine, changeLot, changeMachine, restoreLot, restoreMachine } from './service.js'
import { listLots, listMachines } from './store.js'

export function equipmentRoutes(router: Router, serving: Serving): void {
  const { equipment } = endpoints
  read(router, serving, equipment.machines, ({ deps, params }) => listMachines(deps.db, params.siteId))
  write(router, serving, equipment.addMachine, (ctx) => addMachine(ctx, ctx.deps, ctx.input))
  write(router, serving, equipment.updateMachine, (ctx) => changeMachine(ctx, ctx.deps, ctx.params.machineId, ctx.input))
  write(router, serving, equipment.removeMachine, (ctx) => removeRow(ctx, 'machine', ctx.params.machineId, ctx.input.rowVersion))
  write(router, serving, equipment.restoreMachine, (ctx) => restoreMachine(ctx, ctx.params.machineId, ctx.input.rowVersion))
  read(router, serving, equipment.lots, ({ deps, params }) => listLots(deps.db, params.siteId))
  write(router, serving, equipment.addLot, (ctx) => addLot(ctx, ctx.deps, ctx.input))
  write(router, serving, equipment.updateLot, (ctx) => changeLot(ctx, ctx.deps, ctx.params.lotId, ctx.input))
  write(router, serving, equipment.removeLot, (ctx) => removeRow(ctx, 'lot', ctx.params.lotId, ctx.input.rowVersion))
  write(router, serving, equipment.restoreLot, (ctx) => restoreLot(ctx, ctx.params.lotId, ctx.input.rowVersion))
}
