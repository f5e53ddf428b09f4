import type { ParsedInputOf, ResponseOf, Round, scouting } from '@bocado/contract'
import {
  actionThreshold,
  byHeightOf,
  clumping,
  countingPlan,
  countingVerdict,
  effectiveCount,
  isCrossed,
  per100Of,
  spotTreatment,
  strataOf,
  type CountedAgainst,
} from '@bocado/core'
import type { Organism } from '@bocado/library'
import { insertRow, isStored, madeColumns, updateRow, type Queryable, type Row, type Write } from '../database/index.js'
import { HttpProblem, fieldProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { requireOrganism } from '../library/catalogue.js'
import { getSite } from '../sites/service.js'
import { findWatch, organismOf, type StoredWatch } from '../watches/store.js'
import { countingRules, degreeClasses, degreeWeight, PRESENT, weightsOf, type CountingRule } from './countingRules.js'
import { countsOf, findRound, roundsOfSeason, type StoredRound } from './store.js'
import { countedBy, thresholdBy, withThresholdsOn } from './thresholds.js'

/** A round with what it amounts to: effective count per unit and per hundred items, beside the threshold of its day. */
function presented(round: StoredRound, rules: ReadonlyMap<string, CountingRule>): Round {
  const { organismId, ownEntry: _, ownThreshold, thresholdThen, ...shown } = round
  const { sampling } = organismOf(round)
  const rule = rules.get(organismId)
  const measure = measureOf(sampling, round.scale)
  const unit = round.unit ?? { one: sampling.unit, many: sampling.units, items: sampling.itemsPerUnit }
  const effective = effectiveOf(round, organismOf(round), rule)
  const ends = endsBy(rule)
  const per100 = per100Of(effective, { measure, itemsPerUnit: unit.items, ...ends })
  const threshold = thresholdThen === undefined ? actionThreshold(ownThreshold, countedBy(sampling, round.scale)) : thresholdThen
  const against: CountedAgainst | null = threshold && {
    per100: threshold.per100,
    measure,
    itemsPerUnit: unit.items,
    suggestedUnits: sampling.suggestedUnits,
    weights: weightsIn(round, organismOf(round), rule),
    ...ends,
  }
  const isInBlock = round.checkAreaId === null
  const strata = isInBlock && round.places && against ? strataOf(effective, round.places, against) : []
  const spot = threshold && threshold.from !== 'every-one' ? spotTreatment(strata, threshold.per100) : null
  return {
    ...shown,
    unit,
    classes: classesOf(round, organismOf(round), rule),
    measure,
    effective,
    per100,
    byHeight: round.heights ? byHeightOf(effective, round.heights, { measure, itemsPerUnit: unit.items, ...ends }) : [],
    threshold,
    crossed: isCrossed(per100, threshold),
    verdict: isInBlock && against ? verdictOf(against, effective, round.places?.length ?? null) : null,
    strata,
    spot: spot && (spot.treat.edge ? 'edge' : 'inside'),
  }
}

type Sampling = Organism['sampling']

/** Of degrees the share of the surface is summed; other counts are as the entry says. */
const measureOf = (sampling: Sampling, scale: Round['scale']): CountedAgainst['measure'] =>
  scale === 'degrees' ? 'density' : scale === 'presence' ? 'presence' : sampling.measure

const weightsIn = ({ scale, units }: Pick<StoredRound, 'scale' | 'units'>, organism: Organism, rule: CountingRule | undefined): number[] =>
  scale === 'presence' ? [1] : scale === 'degrees' ? Object.values(degreeWeightsOf(units)) : Object.values(weightsOf(organism, rule))

/** The classes by which a round was counted, by whatever the site counts today. */
function classesOf({ scale, units }: StoredRound, { sampling, about }: Organism, rule: CountingRule | undefined): Round['classes'] {
  if (scale === 'presence') return [{ ...PRESENT }]
  if (scale === 'classes') {
    const weights = weightsOf({ sampling }, rule)
    return sampling.classes.map((one) => ({ ...one, weight: weights[one.id] ?? one.weight }))
  }
  const drawn = degreeClasses(about.damage.degrees)
  const tallied = Object.entries(degreeWeightsOf(units)).filter(([id]) => !drawn.some((one) => one.id === id))
  return [...drawn, ...degreeClasses(tallied.map(([, weight]) => weight * 100))].toSorted((a, b) => a.weight - b.weight)
}

const degreeWeightsOf = (units: readonly Record<string, number>[]): Record<string, number> =>
  Object.fromEntries([...new Set(units.flatMap((unit) => Object.keys(unit)))].map((id) => [id, degreeWeight(id) ?? 0]))

/** The effective count of each sample unit; of a share each item counts once, however much was found on it. */
function effectiveOf(round: Pick<StoredRound, 'units' | 'unit' | 'scale'>, organism: Organism, rule: CountingRule | undefined): number[] {
  const { sampling } = organism
  if (round.scale === 'presence') return round.units.map((unit) => Math.min(1, unit[PRESENT.id] ?? 0))
  const weights = round.scale === 'degrees' ? degreeWeightsOf(round.units) : weightsOf(organism, rule)
  const items = round.unit?.items ?? sampling.itemsPerUnit
  const most = measureOf(sampling, round.scale) === 'incidence' ? items : Infinity
  return round.units.map((unit) => Math.min(most, effectiveCount(unit, weights)))
}

/** How a count ends by the site's own plan; as usual where it has none. */
function endsBy(rule: CountingRule | undefined): Pick<CountedAgainst, 'choice' | 'clumping'> {
  if (!rule?.plan) return {}
  const { clumping: measured, ...choice } = rule.plan
  return { choice, ...(measured ? { clumping: measured } : {}) }
}

/** What a stored round decides by itself: it is over, so what was still between the lines stays undecided. */
function verdictOf(against: CountedAgainst, effective: readonly number[], places: number | null): Round['verdict'] {
  const plan = countingPlan(against)
  if (!plan) return null
  const total = effective.reduce((a, b) => a + b, 0)
  const said = countingVerdict(plan, effective.length, total, places)
  return said === 'go-on' ? 'undecided' : said
}

/** How much animals sit together by the counts of a site. */
export async function spreadOf(db: Queryable, siteId: string, organismId: string): Promise<ResponseOf<typeof scouting.spread>> {
  const organism = await requireOrganism(db, siteId, organismId)
  const rule = (await countingRules(db, siteId)).get(organismId)
  // Whether a unit has any does not tell how many sit on it: what was counted in numbers does.
  const scale = rule?.scale === 'degrees' ? 'degrees' : 'classes'
  const items = rule?.unit?.items ?? organism.sampling.itemsPerUnit
  // Only what was counted by the unit of today tells how it varies between such units.
  const counts = (await countsOf(db, siteId, organismId)).filter(
    (round) => round.scale === scale && (round.unit?.items ?? organism.sampling.itemsPerUnit) === items,
  )
  return { clumping: clumping(counts.map((round) => effectiveOf(round, organism, rule))), counts: counts.length }
}

export async function listRounds(db: Queryable, siteId: string, season: string): Promise<Round[]> {
  const rules = await countingRules(db, siteId)
  return (await roundsOfSeason(db, siteId, season)).map((round) => presented(round, rules))
}

export async function getRound(db: Queryable, siteId: string, roundId: string): Promise<Round> {
  const round = await findRound(db, siteId, roundId)
  if (!round) throw new HttpProblem(404, 'There is no such counting round at this site.')
  return presented(round, await countingRules(db, siteId))
}

type RoundFields = Omit<ParsedInputOf<typeof scouting.create>, 'watchId' | 'unit' | 'id' | 'made'>

async function columnsOf(w: Write, deps: Deps, watch: StoredWatch, input: RoundFields) {
  const site = await getSite(w.tx, deps.clock, w.siteId)
  if (input.countedOn > site.today) throw refusal('countedOn', 'day.future', { today: { day: site.today } })
  if (input.countedOn < watch.season) throw refusal('countedOn', 'day.before-season', { from: { day: watch.season } })
  if (input.checkAreaId) {
    const [[area]] = await w.tx.query<Row[]>(
      'SELECT id FROM check_area WHERE id = ? AND site_id = ? AND block_id = ? AND deleted_at IS NULL',
      [input.checkAreaId, w.siteId, watch.blockId],
    )
    if (!area) throw fieldProblem('checkAreaId', 'choose a check area of the block that is watched')
  }
  const { about, sampling } = organismOf(watch)
  const byDegrees = input.scale === 'degrees'
  const classes = byDegrees
    ? about.damage.degrees.map((percent) => `degree-${percent}`)
    : input.scale === 'presence'
      ? [PRESENT.id as string]
      : sampling.classes.map(({ id }) => id)
  input.units.forEach((unit, i) => {
    const unknown = Object.keys(unit).find((name) => (byDegrees ? degreeWeight(name) === null : !classes.includes(name)))
    if (unknown !== undefined)
      throw fieldProblem(`units.${i}.${unknown}`, `is no class that is counted for this organism; use ${classes.join(', ')}`)
  })
  const beyond = input.places?.findIndex(({ from }) => from >= input.units.length) ?? -1
  if (beyond > 0) throw fieldProblem(`places.${beyond}.from`, `must be below ${input.units.length}, the number of sample units`)
  if (input.heights && input.heights.length !== input.units.length)
    throw fieldProblem('heights', `has to name one for each of the ${input.units.length} sample units, got ${input.heights.length}`)
  return {
    check_area_id: input.checkAreaId,
    counted_on: input.countedOn,
    units: JSON.stringify(input.units),
    places: input.places ? JSON.stringify(input.places) : null,
    heights: input.heights?.some((height) => height !== null) ? JSON.stringify(input.heights) : null,
    scale: input.scale,
    enemies: JSON.stringify(input.enemies),
    minutes: input.minutes,
    taken: input.taken?.amount ?? null,
    taken_unit: input.taken?.unit ?? null,
    note: input.note,
  }
}

/** The threshold of the day on which something was counted, by how far the crop was. */
async function thresholdFor(w: Write, { clock }: Deps, watch: StoredWatch, { countedOn, scale }: Pick<RoundFields, 'countedOn' | 'scale'>) {
  const [then] = await withThresholdsOn({ db: w.tx, clock }, w.siteId, watch.season, [watch], countedOn)
  return thresholdBy(then?.threshold ?? null, organismOf(watch).sampling, scale)
}

export async function createRound(w: Write, deps: Deps, input: ParsedInputOf<typeof scouting.create>): Promise<Round> {
  if (input.id !== undefined && (await isStored(w, 'round', input.id))) return getRound(w.tx, w.siteId, input.id)
  const watch = await findWatch(w.tx, w.siteId, input.watchId)
  if (!watch) throw fieldProblem('watchId', 'choose a watch of this site')
  // What was decided on that day stays as it was, whatever is thought of thresholds later.
  const threshold = await thresholdFor(w, deps, watch, input)
  // By which unit it was counted stays with it, too, though somebody set another while it was counted.
  const unit = input.unit ?? (await countingRules(w.tx, w.siteId)).get(watch.organismId)?.unit
  const columns = {
    watch_id: watch.id,
    ...(unit ? { unit_one: unit.one, unit_many: unit.many, unit_items: unit.items } : {}),
    threshold_from: threshold?.from ?? 'none',
    threshold_then: threshold?.per100 ?? null,
    ...(await columnsOf(w, deps, watch, input)),
    ...madeColumns(w, input.made),
  }
  return getRound(w.tx, w.siteId, await insertRow(w, 'round', columns, input.id))
}

export async function changeRound(w: Write, deps: Deps, roundId: string, input: ParsedInputOf<typeof scouting.update>): Promise<Round> {
  const before = await getRound(w.tx, w.siteId, roundId)
  const watch = await findWatch(w.tx, w.siteId, before.watchId)
  if (!watch) throw new HttpProblem(404, 'The watch of this round was removed. Restore it first.')
  await updateRow(w, 'round', roundId, input.rowVersion, await columnsOf(w, deps, watch, input))
  return getRound(w.tx, w.siteId, roundId)
}
