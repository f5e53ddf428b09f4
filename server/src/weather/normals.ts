import type { MonthlyNormals, ParsedInputOf, ResponseOf, sites } from '@bocado/contract'
import { LEAD_DAYS, monthlyNormals, plausibleSeasons, seasonLater, seededRandom, type DayExtremes } from '@bocado/core'
import { insertRow, jsonOf, updateRow, removeRow, type Queryable, type Row, type Write } from '../database/index.js'
import { HttpProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { getSite } from '../sites/service.js'
import { stationPosition } from './place.js'
import { listStations } from './store.js'

/** Monthly normals as they are stored. */
export interface StoredNormals extends MonthlyNormals {
  id: string
}

export async function findNormals(db: Queryable, siteId: string): Promise<StoredNormals | undefined> {
  const [[row]] = await db.query<Row[]>(
    'SELECT n.*, p.name AS person FROM monthly_normals n JOIN person p ON p.id = n.changed_by WHERE n.site_id = ? AND n.deleted_at IS NULL',
    [siteId],
  )
  return (
    row && {
      id: row['id'] as string,
      months: jsonOf<MonthlyNormals['months']>(row['months']),
      source: row['source'] as string,
      by: row['person'] as string,
      rowVersion: row['row_version'] as number,
    }
  )
}

const presented = ({ months, source, by, rowVersion }: StoredNormals): MonthlyNormals => ({ months, source, by, rowVersion })

/** What was typed, beside what the site's own stations have: the station with the longest history. */
export async function getNormals(deps: Deps, siteId: string): Promise<ResponseOf<typeof sites.normals>> {
  const typed = await findNormals(deps.db, siteId)
  const site = await getSite(deps.db, deps.clock, siteId)
  const stations = await listStations(deps.db, siteId)
  const all = await Promise.all(
    stations
      .filter(({ underCover }) => !underCover)
      .map(async (station) => ({ station, days: await deps.history.daysOf(deps.db, station, stationPosition(station, site)) })),
  )
  const longest = all.sort((a, b) => b.days.series.min.length - a.days.series.min.length)[0]
  const own =
    longest && longest.days.series.min.length > 0
      ? {
          stationName: longest.station.name,
          months: monthlyNormals(longest.days.series, longest.days.rain).map((m) =>
            m ? { years: m.years, min: m.min, max: m.max, rain: m.rainYears > 0 ? m.rain : null } : null,
          ),
        }
      : null
  return { typed: typed ? presented(typed) : null, own }
}

export async function typeNormals(w: Write, input: ParsedInputOf<typeof sites.typeNormals>): Promise<MonthlyNormals> {
  const before = await findNormals(w.tx, w.siteId)
  const columns = { months: JSON.stringify(input.months), source: input.source }
  if (before) await updateRow(w, 'monthly_normals', before.id, input.rowVersion ?? 0, columns)
  else await insertRow(w, 'monthly_normals', columns)
  return presented((await findNormals(w.tx, w.siteId)) as StoredNormals)
}

export async function removeNormals(w: Write, rowVersion: number): Promise<{ id: string; rowVersion: number }> {
  const before = await findNormals(w.tx, w.siteId)
  if (!before) throw new HttpProblem(404, 'This site has no monthly normals.')
  return removeRow(w, 'monthly_normals', before.id, rowVersion)
}

/** As many seasons as are made; one seed, so that the same normals always make the same. */
const MADE_SEASONS = 11
const SEED = 1974

/** Seasons made from a site's normals, each from 120 days before the season on; undefined without normals. */
export function madeSeasons(deps: Deps, normals: StoredNormals | undefined, firstDay: number): DayExtremes[][] | undefined {
  if (!normals) return undefined
  return deps.memo.get(`made ${normals.id}@${normals.rowVersion} ${firstDay}`, () =>
    plausibleSeasons(
      normals.months,
      firstDay - LEAD_DAYS,
      seasonLater(firstDay, 1) - firstDay + LEAD_DAYS,
      MADE_SEASONS,
      seededRandom(SEED),
    ).map(({ days }) => days),
  )
}
