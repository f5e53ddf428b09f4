import type { Treatment } from '@bocado/contract'
import { civilDate, COUNT_REACH_DAYS, dayNumber, treatedCounts } from '@bocado/core'
import { jsonOf, type Queryable, type Row } from '../database/index.js'
import { listRounds } from '../scouting/service.js'
import type { StoredWatch } from '../watches/store.js'

type Why = NonNullable<NonNullable<Treatment['done']>['why']>

interface Stated {
  opens: { p50: number | null }
  closes: { p50: number | null }
}

/** The window of a statement in which a day lies, or that is nearest to it; days from the start of the season. */
function windowNear(windows: readonly Stated[], day: number): { from: number; until: number } | undefined {
  const dated = windows.flatMap(({ opens, closes }) =>
    opens.p50 === null || closes.p50 === null ? [] : [{ from: Math.round(opens.p50), until: Math.round(closes.p50) }],
  )
  const away = ({ from, until }: { from: number; until: number }): number => Math.max(from - day, day - until, 0)
  return dated.sort((a, b) => away(a) - away(b))[0]
}

/** What stood behind a treatment on its day: the last count before it, and the window as it was stated last before it. */
export async function whyOf(db: Queryable, siteId: string, watch: StoredWatch, day: string): Promise<Why> {
  const rounds = (await listRounds(db, siteId, watch.season))
    .filter(({ watchId }) => watchId === watch.id)
    .map((round) => ({ ...round, day: dayNumber(round.countedOn) }))
  const { before } = treatedCounts(rounds, dayNumber(day))
  const [[stated]] = await db.query<Row[]>(
    'SELECT windows FROM issued_forecast WHERE watch_id = ? AND today <= ? AND today >= ? ORDER BY today DESC, said_at DESC LIMIT 1',
    [watch.id, day, civilDate(dayNumber(day) - COUNT_REACH_DAYS)],
  )
  const begin = dayNumber(watch.season)
  const near = stated && windowNear(jsonOf<Stated[]>(stated['windows']), dayNumber(day) - begin)
  return {
    countedOn: before?.countedOn ?? null,
    per100: before?.per100 ?? null,
    threshold: before?.threshold?.per100 ?? null,
    opens: near ? civilDate(begin + near.from) : null,
    closes: near ? civilDate(begin + near.until) : null,
  }
}
