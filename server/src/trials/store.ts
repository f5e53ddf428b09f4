import type { Trial } from '@bocado/contract'
import { civilDate, dayNumber, fairTrial, survivalTrial } from '@bocado/core'
import { jsonOf, type Queryable, type Row } from '../database/index.js'

const SELECT = `SELECT t.*, l.name AS place_name, p.name AS person_name FROM trial t
  JOIN place l ON l.id = t.place_id JOIN person p ON p.id = t.changed_by`

const counted = (on: unknown, counts: unknown): Trial['before'] =>
  on === null ? null : { countedOn: on as string, counts: jsonOf<Record<string, number>>(counts) }

/** What a trial says, once it was counted as its measure asks. */
function resultOf({ measure, pairs, before, after }: Pick<Trial, 'measure' | 'pairs' | 'before' | 'after'>): Trial['result'] {
  if (!after || (measure === 'count' && !before)) return null
  const at = (of: Trial['before'], unit: string): number => of?.counts[unit] ?? 0
  if (measure === 'alive') {
    const { verdict, ...survival } = survivalTrial(
      pairs.map(({ treated, check }) => ({ treatedAlive: at(after, treated) > 0, checkAlive: at(after, check) > 0 })),
    )
    return { verdict, shown: null, used: pairs.length, leftOut: 0, survival }
  }
  const { verdict, shown, used, leftOut } = fairTrial(
    pairs.map(({ treated, check }) => ({
      treatedBefore: at(before, treated),
      treatedAfter: at(after, treated),
      checkBefore: at(before, check),
      checkAfter: at(after, check),
    })),
  )
  return { verdict, shown, used, leftOut, survival: null }
}

function trialOf(row: Row): Trial {
  const treatedOn = row['treated_on'] as string | null
  const judgeAfterDays = row['judge_after_days'] as number
  const known = {
    measure: row['measure'] as Trial['measure'],
    pairs: jsonOf<Trial['pairs']>(row['pairs']),
    before: counted(row['before_on'], row['before_counts']),
    after: counted(row['after_on'], row['after_counts']),
  }
  return {
    id: row['id'] as string,
    name: row['name'] as string,
    what: row['what'] as string,
    productId: row['product_id'] as string | null,
    methodId: row['method_id'] as string | null,
    placeId: row['place_id'] as string,
    placeName: row['place_name'] as string,
    organismId: row['organism_id'] as string | null,
    units: row['units'] as Trial['units'],
    moves: Boolean(row['moves']),
    drawnOn: row['drawn_on'] as string,
    treatedOn,
    judgeAfterDays,
    judgeFrom: treatedOn && civilDate(dayNumber(treatedOn) + judgeAfterDays),
    ...known,
    result: resultOf(known),
    note: row['note'] as string,
    personName: row['person_name'] as string,
    rowVersion: row['row_version'] as number,
  }
}

/** The trials of a site, the newest first. */
export async function listTrials(db: Queryable, siteId: string): Promise<Trial[]> {
  const [rows] = await db.query<Row[]>(
    `${SELECT} WHERE t.site_id = ? AND t.deleted_at IS NULL ORDER BY t.drawn_on DESC, t.created_at DESC, t.id`,
    [siteId],
  )
  return rows.map(trialOf)
}
