import type { Decision, ParsedInputOf, Round, scouting } from '@bocado/contract'
import { dayNumber } from '@bocado/core'
import { insertOnce, restoreRow, type Queryable, type Row, type Write } from '../database/index.js'
import { fieldProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { getSite } from '../sites/service.js'
import { getRound } from './service.js'

/** Longer nobody leaves what is over its threshold unseen. */
const LATEST_LOOK_DAYS = 42

/** What was decided on counts of a site, by the count that each rests on. */
export async function decisionsOf(db: Queryable, siteId: string): Promise<Map<string, Decision>> {
  const [rows] = await db.query<Row[]>(
    `SELECT d.*, p.name AS person_name FROM decision d JOIN person p ON p.id = d.changed_by
     WHERE d.site_id = ? AND d.deleted_at IS NULL`,
    [siteId],
  )
  return new Map(
    rows.map((row) => [
      row['round_id'] as string,
      {
        id: row['id'] as string,
        roundId: row['round_id'] as string,
        kind: row['kind'] as Decision['kind'],
        reason: row['reason'] as string,
        decidedOn: row['decided_on'] as string,
        lookAgainOn: row['look_again_on'] as string,
        personName: row['person_name'] as string,
        rowVersion: row['row_version'] as number,
      },
    ]),
  )
}

/** What holds of a watch: the decision that rests on its last count in the block itself. */
export function decisionOn(rounds: readonly Round[], decisions: ReadonlyMap<string, Decision>): Decision | null {
  const last = rounds.findLast(({ checkAreaId }) => checkAreaId === null)
  return (last && decisions.get(last.id)) ?? null
}

/** Leaves what is over its threshold as it is for now, for a reason, until somebody looks again. */
export async function decide(
  w: Write,
  deps: Deps,
  input: ParsedInputOf<typeof scouting.decide>,
): Promise<{ id: string; rowVersion: number }> {
  const round = await getRound(w.tx, w.siteId, input.roundId)
  const { today } = await getSite(w.tx, deps.clock, w.siteId)
  if (round.threshold?.from === 'every-one') throw fieldProblem('kind', 'is not left: of this every one is to go')
  if (!round.crossed) throw fieldProblem('roundId', 'this count is not over its threshold: there is nothing to decide')
  const days = dayNumber(input.lookAgainOn) - dayNumber(today)
  if (days < 1) throw fieldProblem('lookAgainOn', 'must lie after today')
  if (days > LATEST_LOOK_DAYS)
    throw fieldProblem('lookAgainOn', `must lie within ${LATEST_LOOK_DAYS} days: what is over its threshold is not lost sight of`)
  const columns = {
    watch_id: round.watchId,
    round_id: round.id,
    kind: input.kind,
    reason: input.reason,
    decided_on: today,
    look_again_on: input.lookAgainOn,
  }
  const known = () => fieldProblem('roundId', 'something was decided on this count already; take that back first')
  return { id: await insertOnce(w, 'decision', columns, known), rowVersion: 1 }
}

export async function restoreDecision(w: Write, id: string, rowVersion: number): Promise<{ id: string; rowVersion: number }> {
  await restoreRow(w, 'decision', id, rowVersion)
  return { id, rowVersion: rowVersion + 1 }
}
