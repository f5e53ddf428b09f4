import { endpoints } from '@bocado/contract'
import type { Request, Response, Router } from 'express'
import { instantOf, sqlInstant, type Queryable, type Row } from '../database/index.js'
import { HttpProblem } from '../http/problems.js'
import { parse, read, type Deps } from '../http/route.js'

async function demoNow(db: Queryable): Promise<string | null> {
  const [[row]] = await db.query<Row[]>('SELECT now_at FROM demo_clock')
  return row ? instantOf(row['now_at'] as string) : null
}

/** The demonstration's time. It can be moved only where there is one: a real site has none. */
export function demoRoutes(router: Router, deps: Deps): void {
  const { demo } = endpoints
  read(router, deps, demo.clock, async () => ({ now: await demoNow(deps.database) }))
  router.put(demo.setClock.path, async (req: Request, res: Response) => {
    const { now } = parse(demo.setClock.input, req.body)
    const [result] = await deps.database.query('UPDATE demo_clock SET now_at = ?', [sqlInstant(now)])
    if ((result as { affectedRows: number }).affectedRows === 0) throw new HttpProblem(404, 'The time here is real and cannot be moved.')
    res.json({ now: await demoNow(deps.database) })
  })
}
