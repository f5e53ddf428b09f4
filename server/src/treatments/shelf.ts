import type { Product, treatments, ParsedInputOf } from '@bocado/contract'
import { insertRow, ownerColumns, updateRow, type Queryable, type Row, type Write } from '../database/index.js'
import { fieldProblem } from '../http/problems.js'
import { requireKnownLabel } from './gate.js'
import { actionOf } from './means.js'
import { findProduct } from './store.js'

type ProductInput = ParsedInputOf<typeof treatments.addProduct>

const productColumns = async (w: Write, input: ProductInput) => ({
  ...(await ownerColumns(w, input.shared)),
  name: input.name,
  methods: JSON.stringify(input.methods),
  strain: input.strain,
  active: input.active,
  formulation: input.formulation,
  ways: JSON.stringify(input.ways),
  targets: JSON.stringify(input.targets),
  crops: JSON.stringify(input.crops),
  places: JSON.stringify(input.places),
  stages: JSON.stringify(input.stages),
  ...(await actionColumns(w, input)),
  label_rate: input.labelRate,
  rate_unit: input.rateUnit,
  re_entry_hours: input.reEntryHours,
  pre_harvest_days: input.preHarvestDays,
  bees: input.bees,
  protection: input.protection,
  licensed_only: input.licensedOnly,
  registration: input.registration,
  least_interval_days: input.leastIntervalDays,
  most_per_season: input.mostPerSeason,
  rain_fast_hours: input.rainFastHours,
  max_wind_ms: input.maxWindMs,
  min_temp_c: input.minTempC,
  max_temp_c: input.maxTempC,
  rates: JSON.stringify(input.rates),
  most_amount: input.mostAmount,
  least_volume: input.leastVolume,
  plant_back_days: input.plantBackDays,
  grazing_days: input.grazingDays,
  carries_over: input.carriesOver,
  buffer_m: input.bufferM,
  buffer_low_drift_m: input.bufferLowDriftM,
  action_group: input.actionGroup,
  not_within: JSON.stringify(input.notWithin),
  burns: JSON.stringify(input.burns),
  crop_stages: input.cropStages,
  soil_min_c: input.soilMinC,
  organic: input.organic,
  order_days: input.orderDays,
  keeps_days: input.keepsDays,
  mixing: input.mixing,
  active_grams_per: input.activeGramsPer,
  most_active_kg_ha: input.mostActiveKgHa,
  needs_permit: input.needsPermit,
  read_on: input.readOn,
})

async function actionColumns(w: Write, input: ProductInput) {
  const { effect, residualDays, assumed } = await actionOf(w.tx, w.siteId, input)
  return { effect, residual_days: residualDays, assumed: JSON.stringify(assumed) }
}

export async function getProduct(db: Queryable, siteId: string, productId: string): Promise<Product> {
  const product = await findProduct(db, siteId, productId)
  if (!product) throw fieldProblem('productId', 'choose a product of this site’s shelf')
  return product
}

export async function addProduct(w: Write, input: ProductInput): Promise<Product> {
  await requireKnownLabel(w.tx, w.siteId, input)
  return getProduct(w.tx, w.siteId, await insertRow(w, 'product', await productColumns(w, input)))
}

export async function changeProduct(w: Write, productId: string, input: ParsedInputOf<typeof treatments.updateProduct>): Promise<Product> {
  await requireKnownLabel(w.tx, w.siteId, input)
  if (!input.shared) await requireUnusedElsewhere(w, productId)
  await updateRow(w, 'product', productId, input.rowVersion, await productColumns(w, input))
  return getProduct(w.tx, w.siteId, productId)
}

/** A product that other sites of the holding have planned or used cannot leave their shelf. */
async function requireUnusedElsewhere(w: Write, productId: string): Promise<void> {
  const [[row]] = await w.tx.query<Row[]>(
    'SELECT s.name FROM deed d JOIN site s ON s.id = d.site_id WHERE d.product_id = ? AND d.site_id <> ? AND d.deleted_at IS NULL LIMIT 1',
    [productId, w.siteId],
  )
  if (row) throw fieldProblem('shared', `${row['name'] as string} uses it, too: it stays on the shelf of every site of the holding`)
}
