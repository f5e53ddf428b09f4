import type { Economics, Scale, Watch } from '@bocado/contract'
import { findOrganism, type Organism } from '@bocado/library'
import { ownEntryOf } from '../library/catalogue.js'
import { jsonOf, type Queryable, type Row } from '../database/index.js'
import type { PinnedModel } from './models.js'

/** A watch with the model that it is pinned to. An organism of one's own that was removed since still stands behind its watches. */
export interface StoredWatch extends Watch {
  pinned: PinnedModel
  modelHash: string
  /** The organism where it is one of the site's own; null for one of the library. */
  ownEntry: Organism | null
  /** Row and version of that entry. */
  ownKey: string | null
}

/** The entry of a watch with its version, for keys of what is made from it: own organisms of two sites may share a name. */
export const entryKey = ({ organismId, ownKey }: Pick<StoredWatch, 'organismId' | 'ownKey'>): string => ownKey ?? organismId

const thresholdOf = (row: Row): Watch['threshold'] =>
  row['threshold_per_100'] === null
    ? null
    : {
        per100: row['threshold_per_100'] as number,
        reason: row['threshold_reason'] as string,
        scale: row['threshold_scale'] as Scale,
        steps: row['threshold_steps'] === null ? [] : jsonOf<ThresholdStep[]>(row['threshold_steps']),
        economics: row['threshold_economics'] === null ? null : jsonOf<Economics>(row['threshold_economics']),
        // Which one holds today is known where the crop is.
        now: null,
      }

type ThresholdStep = NonNullable<Watch['threshold']>['steps'][number]

export const watchOf = (row: Row): StoredWatch => ({
  id: row['id'] as string,
  organismId: row['organism_id'] as string,
  blockId: row['block_id'] as string,
  season: row['season'] as string,
  biofix: row['biofix'] as string | null,
  biofixNote: row['biofix_note'] as string,
  sourceKnown: row['source_known'] as Watch['sourceKnown'],
  threshold: thresholdOf(row),
  followsBloom: Boolean(row['follows_bloom']),
  model: `${row['organism_id']}@${row['library_version']}`,
  rowVersion: row['row_version'] as number,
  pinned: jsonOf<PinnedModel>(row['model']),
  modelHash: row['model_hash'] as string,
  ownEntry: ownEntryOf(row),
  ownKey: row['own_id'] ? `${row['own_id'] as string}@${row['own_version'] as number}` : null,
})

const SELECT = `SELECT w.*, o.id AS own_id, o.row_version AS own_version, o.entry AS own_entry FROM watch w JOIN site s ON s.id = w.site_id
  LEFT JOIN own_organism o ON o.id = (SELECT x.id FROM own_organism x WHERE (x.site_id = w.site_id OR x.holding_id = s.holding_id) AND x.organism_id = w.organism_id
    ORDER BY x.deleted_at IS NULL DESC, x.created_at DESC, x.id LIMIT 1)`

/** The watch as it travels: without the numbers of its model. */
export function presentedWatch({ pinned: _, modelHash: __, ownEntry: ___, ownKey: ____, ...watch }: StoredWatch): Watch {
  return watch
}

export async function listWatches(db: Queryable, siteId: string, season: string): Promise<StoredWatch[]> {
  const [rows] = await db.query<Row[]>(
    `${SELECT} WHERE w.site_id = ? AND w.season = ? AND w.deleted_at IS NULL ORDER BY w.created_at, w.id`,
    [siteId, season],
  )
  return rows.map(watchOf)
}

export async function findWatch(db: Queryable, siteId: string, watchId: string): Promise<StoredWatch | undefined> {
  const [[row]] = await db.query<Row[]>(`${SELECT} WHERE w.id = ? AND w.site_id = ? AND w.deleted_at IS NULL`, [watchId, siteId])
  return row && watchOf(row)
}

/** Biofixes that were entered for an organism in a block, by season. */
export async function listBiofixes(
  db: Queryable,
  siteId: string,
  { blockId, organismId }: Pick<Watch, 'blockId' | 'organismId'>,
): Promise<Map<string, string>> {
  const [rows] = await db.query<Row[]>(
    `SELECT season, MIN(biofix) AS biofix FROM watch
     WHERE site_id = ? AND block_id = ? AND organism_id = ? AND biofix IS NOT NULL AND deleted_at IS NULL GROUP BY season`,
    [siteId, blockId, organismId],
  )
  return new Map(rows.map((row) => [row['season'] as string, row['biofix'] as string]))
}

/** The organism of a watch; one that neither library nor site has any more is a fault. */
export function organismOf(watch: Pick<StoredWatch, 'organismId' | 'ownEntry'>): Organism {
  const organism = watch.ownEntry ?? findOrganism(watch.organismId)
  if (!organism) throw new Error(`the library has no ${watch.organismId}`)
  return organism
}
