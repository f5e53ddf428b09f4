import { isoInstant, MS_PER_HOUR } from '@bocado/core'
import type { GateRefusal } from '@bocado/core'
import type { Label, Product, Treatment } from '@bocado/contract'
import { instantOf, jsonOf, OWN_OR_SHARED, sqlInstant, type Queryable, type Row } from '../database/index.js'
import { civilDayIn } from '../clock.js'
import { methodsByIds } from '../library/catalogue.js'
import { doesByLabel, type MethodThen } from './means.js'

/** A product without whose shelf it stands on. */
export const labelOf = ({ shared: _, ...label }: Label & { shared?: boolean }): Label => label

const productOf = (row: Row): Product => ({
  id: row['id'] as string,
  name: row['name'] as string,
  methods: jsonOf<string[]>(row['methods']),
  strain: row['strain'] as string | null,
  active: row['active'] as string,
  formulation: row['formulation'] as Product['formulation'],
  ways: jsonOf<Product['ways']>(row['ways']),
  targets: jsonOf<string[]>(row['targets']),
  crops: jsonOf<string[]>(row['crops']),
  places: jsonOf<Product['places']>(row['places']),
  kindBefore: row['kind'] as string | null,
  stages: jsonOf<string[]>(row['stages']),
  effect: row['effect'] as number,
  residualDays: row['residual_days'] as number,
  assumed: jsonOf<Product['assumed']>(row['assumed']),
  labelRate: row['label_rate'] as number,
  rateUnit: row['rate_unit'] as Product['rateUnit'],
  reEntryHours: row['re_entry_hours'] as number,
  preHarvestDays: row['pre_harvest_days'] as number,
  bees: row['bees'] as Product['bees'],
  protection: row['protection'] as string,
  licensedOnly: Boolean(row['licensed_only']),
  registration: row['registration'] as string,
  leastIntervalDays: row['least_interval_days'] as number | null,
  mostPerSeason: row['most_per_season'] as number | null,
  rainFastHours: row['rain_fast_hours'] as number | null,
  maxWindMs: row['max_wind_ms'] as number | null,
  minTempC: row['min_temp_c'] as number | null,
  maxTempC: row['max_temp_c'] as number | null,
  rates: jsonOf<Product['rates']>(row['rates']),
  mostAmount: row['most_amount'] as number | null,
  leastVolume: row['least_volume'] as number | null,
  plantBackDays: row['plant_back_days'] as number | null,
  grazingDays: row['grazing_days'] as number | null,
  carriesOver: Boolean(row['carries_over']),
  bufferM: row['buffer_m'] as number | null,
  bufferLowDriftM: row['buffer_low_drift_m'] as number | null,
  actionGroup: row['action_group'] as string,
  notWithin: jsonOf<Product['notWithin']>(row['not_within']),
  burns: jsonOf<string[]>(row['burns']),
  cropStages: row['crop_stages'] as string,
  soilMinC: row['soil_min_c'] as number | null,
  organic: row['organic'] === null ? null : Boolean(row['organic']),
  orderDays: row['order_days'] as number | null,
  keepsDays: row['keeps_days'] as number | null,
  mixing: row['mixing'] as string,
  activeGramsPer: row['active_grams_per'] as number | null,
  mostActiveKgHa: row['most_active_kg_ha'] as number | null,
  needsPermit: Boolean(row['needs_permit']),
  readOn: row['read_on'] as string | null,
  shared: row['site_id'] === null,
  rowVersion: row['row_version'] as number,
})

export async function listProducts(db: Queryable, siteId: string): Promise<Product[]> {
  const [rows] = await db.query<Row[]>(`SELECT * FROM product WHERE ${OWN_OR_SHARED} AND deleted_at IS NULL ORDER BY name`, [
    siteId,
    siteId,
  ])
  return rows.map(productOf)
}

export async function findProduct(db: Queryable, siteId: string, productId: string): Promise<Product | undefined> {
  const [[row]] = await db.query<Row[]>(`SELECT * FROM product WHERE id = ? AND ${OWN_OR_SHARED} AND deleted_at IS NULL`, [
    productId,
    siteId,
    siteId,
  ])
  return row && productOf(row)
}

const SELECT = `SELECT t.*, x.name AS shelf_name, w.season, s.time_zone, p.name AS person_name, l.name AS place_name, COALESCE(q.record_name, q.name, p.record_name) AS done_by_name, COALESCE(g.record_name, g.name) AS signed_by_name, x.methods AS shelf_methods, x.strain AS shelf_strain, m.name AS machine_name, o.number AS lot_number FROM deed t
  JOIN place l ON l.id = t.place_id JOIN watch w ON w.id = t.watch_id JOIN site s ON s.id = t.site_id JOIN person p ON p.id = t.changed_by
  LEFT JOIN person q ON q.id = t.done_by LEFT JOIN person g ON g.id = t.signed_by LEFT JOIN product x ON x.id = t.product_id
  LEFT JOIN machine m ON m.id = t.machine_id LEFT JOIN lot o ON o.id = t.lot_id`

/** What a label did not say before methods were named. */
const NOT_SAID = {
  methods: [],
  strain: null,
  active: '',
  formulation: null,
  ways: [],
  targets: [],
  crops: [],
  places: [],
  kindBefore: null,
  assumed: [],
  licensedOnly: false,
  registration: '',
  leastIntervalDays: null,
  mostPerSeason: null,
  rainFastHours: null,
  maxWindMs: null,
  minTempC: null,
  maxTempC: null,
  rates: [],
  mostAmount: null,
  leastVolume: null,
  plantBackDays: null,
  grazingDays: null,
  carriesOver: false,
  bufferM: null,
  bufferLowDriftM: null,
  actionGroup: '',
  notWithin: [],
  burns: [],
  cropStages: '',
  soilMinC: null,
  organic: null,
  orderDays: null,
  keepsDays: null,
  mixing: '',
  activeGramsPer: null,
  mostActiveKgHa: null,
  needsPermit: false,
  readOn: null,
}

/**
 * The label of the day on which it was done. Whoever recorded it before methods were named said by the product what it is: that is no
 * number of its label, and is taken from the shelf.
 */
function labelThen(row: Row): Label | null {
  const kept = jsonOf<(Omit<Label, keyof typeof NOT_SAID> & Partial<Label> & { kind?: string }) | null>(row['product_then'])
  if (!kept) return null
  const { kind = null, ...label } = kept
  const whole = { ...NOT_SAID, kindBefore: kind, ...label }
  if (label.methods !== undefined) return labelOf(whole)
  return labelOf({ ...whole, methods: jsonOf<string[] | null>(row['shelf_methods']) ?? [], strain: row['shelf_strain'] as string | null })
}

/** What a deed is called: as it was on the day that it was done, or as it is called now. */
function nameOf(row: Row, names: ReadonlyMap<string, string>): string {
  const then = labelThen(row) ?? jsonOf<MethodThen | null>(row['method_then'])
  const methodId = row['method_id'] as string | null
  return then?.name ?? (row['shelf_name'] as string | null) ?? (methodId === null ? '' : (names.get(methodId) ?? methodId))
}

/** What was done, and by what. */
function doneOf(row: Row, startedAt: string): Treatment['done'] {
  const label = labelThen(row)
  const byHand = jsonOf<MethodThen | null>(row['method_then'])
  const does = label ? doesByLabel(label) : byHand
  if (!does) return null
  const taken = row['taken'] as number | null
  const endedAt = row['ended_at'] ? instantOf(row['ended_at'] as string) : null
  return {
    startedAt,
    day: civilDayIn(new Date(startedAt), row['time_zone'] as string),
    rate: row['rate'] as number | null,
    rateUnit: label?.rateUnit ?? null,
    areaHa: row['area_ha'] as number | null,
    keptClearM: row['kept_clear'] as number | null,
    minutes: row['minutes'] as number | null,
    taken:
      taken === null ? null : { amount: taken, unit: row['taken_unit'] as NonNullable<NonNullable<Treatment['done']>['taken']>['unit'] },
    doneById: (row['done_by'] as string | null) ?? (row['changed_by'] as string),
    doneByName: (row['done_by_name'] as string | null) ?? (row['person_name'] as string),
    weather: {
      tempC: row['temperature'] as number | null,
      humidityPct: row['humidity'] as number | null,
      windMs: row['wind'] as number | null,
      windFrom: row['wind_from'] as number | null,
    },
    label,
    does: { methods: does.methods, effect: does.effect, residualDays: does.residualDays, assumed: does.assumed },
    labelState: row['label_state'] as 'kept' | 'restored' | 'doubtful',
    signed:
      row['signed_at'] === null
        ? null
        : {
            byName: row['signed_by_name'] as string,
            at: instantOf(row['signed_at'] as string),
            licence: (row['licence_then'] as string | null) ?? '',
          },
    reEntryUntil: label && isoInstant(Date.parse(endedAt ?? startedAt) + label.reEntryHours * MS_PER_HOUR),
    endedAt,
    way: row['way'] as NonNullable<Treatment['done']>['way'],
    machineId: row['machine_id'] as string | null,
    machineName: row['machine_name'] as string | null,
    lotId: row['lot_id'] as string | null,
    lotNumber: row['lot_number'] as string | null,
    amountUsed: row['amount_used'] as number | null,
    waterL: row['water_l'] as number | null,
    cropStage: row['crop_stage'] as string,
    targetStage: row['target_stage'] as string,
    bags: row['bags'] as number | null,
    waste: row['waste'] as NonNullable<Treatment['done']>['waste'],
    why: jsonOf<NonNullable<Treatment['done']>['why']>(row['why']),
    departures: jsonOf<NonNullable<Treatment['done']>['departures']>(row['departures']),
    departureReason: row['departure_reason'] as string,
  }
}

function treatmentOf(row: Row, names: ReadonlyMap<string, string>): Treatment {
  const startedAt = row['started_at'] ? instantOf(row['started_at'] as string) : null
  return {
    id: row['id'] as string,
    watchId: row['watch_id'] as string,
    productId: row['product_id'] as string | null,
    methodId: row['method_id'] as string | null,
    name: nameOf(row, names),
    placeId: row['place_id'] as string,
    placeName: row['place_name'] as string,
    status: row['status'] as Treatment['status'],
    plannedOn: row['planned_on'] as string,
    deviation: row['deviation']
      ? { because: row['deviation'] as GateRefusal, reason: (row['deviation_reason'] as string | null) ?? '' }
      : null,
    done: startedAt ? doneOf(row, startedAt) : null,
    note: row['note'] as string,
    personName: row['person_name'] as string,
    rowVersion: row['row_version'] as number,
  }
}

export async function listTreatments(db: Queryable, siteId: string, season: string): Promise<Treatment[]> {
  const [rows] = await db.query<Row[]>(
    `${SELECT} WHERE t.site_id = ? AND w.season = ? AND t.deleted_at IS NULL AND w.deleted_at IS NULL ORDER BY t.planned_on, t.created_at, t.id`,
    [siteId, season],
  )
  return named(db, siteId, rows)
}

/** Deeds with the names of the methods that they are done by. */
async function named(db: Queryable, siteId: string, rows: readonly Row[]): Promise<Treatment[]> {
  const ids = rows.flatMap((row) => (row['method_id'] as string | null) ?? [])
  const names = new Map((await methodsByIds(db, siteId, ids)).map(({ id, name }) => [id, name]))
  return rows.map((row) => treatmentOf(row, names))
}

export async function findTreatment(db: Queryable, siteId: string, treatmentId: string): Promise<Treatment | undefined> {
  const [rows] = await db.query<Row[]>(`${SELECT} WHERE t.id = ? AND t.site_id = ? AND t.deleted_at IS NULL`, [treatmentId, siteId])
  return (await named(db, siteId, rows))[0]
}

/** Longest re-entry interval of a label, in days. */
const LONGEST_ENTRY_DAYS = 366

/**
 * The moment until which nobody may enter a block after what was used there, by the labels of those days; null where everybody may. It stays
 * closed though nobody watches there any more.
 *
 * @param except a record that does not count: the very one that is asked for
 */
export async function entryClosedUntil(
  db: Queryable,
  siteId: string,
  blockId: string,
  now: Date,
  except: string | null = null,
): Promise<number | null> {
  const since = isoInstant(now.getTime() - LONGEST_ENTRY_DAYS * 24 * MS_PER_HOUR)
  const [rows] = await db.query<Row[]>(
    `SELECT COALESCE(t.ended_at, t.started_at) AS started_at, t.product_then FROM deed t JOIN watch w ON w.id = t.watch_id
     WHERE t.site_id = ? AND w.block_id = ? AND t.status = 'done' AND t.deleted_at IS NULL AND t.product_then IS NOT NULL AND t.started_at >= ? AND COALESCE(t.ended_at, t.started_at) < ? AND NOT (t.id <=> ?)`,
    [siteId, blockId, sqlInstant(since), sqlInstant(now.toISOString()), except],
  )
  const until = rows.map((row) => {
    const { reEntryHours } = jsonOf<Pick<Label, 'reEntryHours'>>(row['product_then'])
    return Date.parse(instantOf(row['started_at'] as string)) + reEntryHours * MS_PER_HOUR
  })
  const last = Math.max(-Infinity, ...until)
  return last > now.getTime() ? last : null
}
