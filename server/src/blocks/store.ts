import type { Block, CheckArea } from '@bocado/contract'
import { hectaresFromSquareMetres } from '@bocado/core/units'
import type { Queryable, Row } from '../database/index.js'
import { findSite } from '../sites/store.js'
import { followedStation } from '../weather/place.js'
import { listStations } from '../weather/store.js'

const checkAreaOf = (row: Row): CheckArea => ({
  id: row['id'] as string,
  blockId: row['block_id'] as string,
  name: row['name'] as string,
  note: row['note'] as string,
  rowVersion: row['row_version'] as number,
})

/** Square metres as hectares; a block's own number comes back as it was typed. */
const hectares = (m2: number | null): number | null => (m2 === null ? null : Number(hectaresFromSquareMetres(m2).toFixed(8)))

const blockOf = (row: Row, checkAreas: CheckArea[]): Omit<Block, 'follows'> => ({
  id: row['id'] as string,
  name: row['name'] as string,
  kind: row['kind'] as Block['kind'],
  areaHa: hectares(row['area_m2'] as number | null),
  grows: row['grows'] as string,
  stationId: row['station_id'] as string | null,
  latitude: row['latitude'] as number | null,
  longitude: row['longitude'] as number | null,
  offsetMin: row['offset_min'] as number,
  offsetMax: row['offset_max'] as number,
  soilTexture: row['soil_texture'] as Block['soilTexture'],
  soilCover: row['soil_cover'] as Block['soilCover'],
  rank: row['walk_rank'] as number | null,
  spreads: Boolean(row['spreads']),
  rowVersion: row['row_version'] as number,
  checkAreas,
})

export async function listCheckAreas(db: Queryable, siteId: string): Promise<CheckArea[]> {
  const [rows] = await db.query<Row[]>('SELECT * FROM check_area WHERE site_id = ? AND deleted_at IS NULL ORDER BY name', [siteId])
  return rows.map(checkAreaOf)
}

export async function listBlocks(db: Queryable, siteId: string): Promise<Block[]> {
  const [rows] = await db.query<Row[]>(
    "SELECT * FROM place WHERE site_id = ? AND level = 'block' AND deleted_at IS NULL ORDER BY created_at, name",
    [siteId],
  )
  const checkAreas = await listCheckAreas(db, siteId)
  const stations = await listStations(db, siteId)
  const site = (await findSite(db, siteId)) ?? { latitude: null, longitude: null }
  return rows.map((row) => {
    const block = blockOf(
      row,
      checkAreas.filter((area) => area.blockId === row['id']),
    )
    const followed = followedStation(stations, block, site)
    const follows = followed && { stationId: followed.station.id, name: followed.station.name, how: followed.how, km: followed.km }
    return { ...block, follows: follows ?? null }
  })
}
