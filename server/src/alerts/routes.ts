import { endpoints } from '@bocado/contract'
import { isoInstant } from '@bocado/core'
import type { Request, Response, Router } from 'express'
import { sqlInstant } from '../database/index.js'
import { HttpProblem } from '../http/problems.js'
import { read, write, type Serving } from '../http/route.js'
import { reading } from '../http/serving.js'
import { calendarOf } from './calendar.js'
import { inboxOf } from './outbox.js'
import { addDevice, makeKey, removeDevice } from './push.js'
import { endCalendar, makeCalendar, seeAll, setSettings, settingsOf } from './service.js'
import { listAlerts } from './store.js'

export function alertRoutes(router: Router, serving: Serving): void {
  const { alerts } = endpoints
  read(router, serving, alerts.list, async ({ deps, params, personId }) =>
    listAlerts(deps.db, params.siteId, personId, sqlInstant(isoInstant((await deps.clock.now(deps.db)).getTime()))),
  )
  write(router, serving, alerts.see, (ctx) => seeAll(ctx, ctx.deps))
  read(router, serving, alerts.settings, ({ deps, params, personId }) => settingsOf(deps.db, params.siteId, personId))
  write(router, serving, alerts.set, (ctx) => setSettings(ctx, ctx.input))
  write(router, serving, alerts.makeCalendar, (ctx) => makeCalendar(ctx), { secret: true })
  write(router, serving, alerts.endCalendar, (ctx) => endCalendar(ctx))
  write(router, serving, alerts.pushKey, (ctx) => makeKey(ctx.tx))
  write(router, serving, alerts.addDevice, (ctx) => addDevice(ctx.tx, ctx.personId, ctx.input))
  write(router, serving, alerts.removeDevice, (ctx) => removeDevice(ctx.tx, ctx.personId, ctx.input.endpoint))
  read(router, serving, alerts.inbox, ({ deps }) => {
    if (process.env['BOCADO_DEMO'] !== 'on') throw new HttpProblem(404, 'Mail goes out here; there is no inbox to look into.')
    return inboxOf(deps.db)
  })
  // A calendar signs in by nothing but its address.
  router.get('/calendar/:token.ics', async (req: Request, res: Response) => {
    const text = await reading(serving, (deps) => calendarOf(deps, String(req.params['token'])))
    res.type('text/calendar; charset=utf-8').set('Cache-Control', 'private, max-age=900').send(text)
  })
}
