import { ALL_SITES, endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { instantOf, sqlInstant, type Queryable, type Row } from '../database/index.js'
import { HttpProblem } from '../http/problems.js'
import { listSites } from '../sites/store.js'
import { read, write, type Serving } from '../http/route.js'

async function demoNow(db: Queryable): Promise<string | null> {
  const [[row]] = await db.query<Row[]>('SELECT now_at FROM demo_clock')
  return row ? instantOf(row['now_at'] as string) : null
}

/** The demonstration's time. It can be moved only where there is one: a real site has none. */
export function demoRoutes(router: Router, serving: Serving): void {
  const { demo } = endpoints
  read(router, serving, demo.clock, async ({ deps }) => ({ now: await demoNow(deps.db) }))
  write(router, serving, demo.setClock, async ({ tx, input }) => {
    const [result] = await tx.query('UPDATE demo_clock SET now_at = ?', [sqlInstant(input.now)])
    // Every site has another time now.
    for (const { id } of await listSites(tx)) tx.touch(id, 'day')
    tx.touch(ALL_SITES, 'day')
    const [[held]] = await tx.query<Row[]>('SELECT COUNT(*) AS clocks FROM demo_clock')
    if ((result as { affectedRows: number }).affectedRows === 0 && Number(held?.['clocks']) === 0)
      throw new HttpProblem(404, 'The time here is real and cannot be moved.')
    return { now: await demoNow(tx) }
  })
}
