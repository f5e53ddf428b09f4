import type { ParsedInputOf, PlantEvent, places } from '@bocado/contract'
import { insertRow, restoreRow, type Queryable, type Row, type Write } from '../database/index.js'
import { fieldProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { organismsOf, requireOrganism } from '../library/catalogue.js'
import { getSite } from '../sites/service.js'
import { tree } from './store.js'

/** What became of single plants of a site, the newest first. */
export async function plantEvents(db: Queryable, siteId: string): Promise<PlantEvent[]> {
  const [[rows], organisms] = await Promise.all([
    db.query<Row[]>(
      `SELECT e.*, p.name AS person_name FROM plant_event e JOIN person p ON p.id = e.changed_by
       WHERE e.site_id = ? AND e.deleted_at IS NULL ORDER BY e.happened_on DESC, e.created_at DESC, e.id`,
      [siteId],
    ),
    organismsOf(db, siteId),
  ])
  return rows.map((row) => {
    const organismId = row['organism_id'] as string | null
    return {
      id: row['id'] as string,
      placeId: row['place_id'] as string,
      happened: row['happened'] as PlantEvent['happened'],
      plants: row['plants'] as number,
      organismId,
      organismName: organismId === null ? null : (organisms.find(({ id }) => id === organismId)?.name ?? organismId),
      happenedOn: row['happened_on'] as string,
      note: row['note'] as string,
      personName: row['person_name'] as string,
      rowVersion: row['row_version'] as number,
    }
  })
}

export async function addPlantEvent(w: Write, deps: Deps, input: ParsedInputOf<typeof places.addEvent>) {
  const { today } = await getSite(w.tx, deps.clock, w.siteId)
  if (input.happenedOn > today) throw refusal('happenedOn', 'day.future', { today: { day: today } })
  if (!(await tree(w.tx, w.siteId)).has(input.placeId)) throw fieldProblem('placeId', 'choose a place of this site')
  if (input.organismId !== null) await requireOrganism(w.tx, w.siteId, input.organismId)
  const columns = {
    place_id: input.placeId,
    happened: input.happened,
    plants: input.plants,
    organism_id: input.organismId,
    happened_on: input.happenedOn,
    note: input.note,
  }
  return { id: await insertRow(w, 'plant_event', columns), rowVersion: 1 }
}

export async function restorePlantEvent(w: Write, id: string, rowVersion: number) {
  await restoreRow(w, 'plant_event', id, rowVersion)
  return { id, rowVersion: rowVersion + 1 }
}
