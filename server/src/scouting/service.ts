import type { ParsedInputOf, Round, scouting } from '@bocado/contract'
import { actionThreshold, countingPlan, countingVerdict, effectiveCount, isCrossed } from '@bocado/core'
import type { Organism } from '@bocado/library'
import { insertRow, isStored, madeColumns, updateRow, type Queryable, type Row, type Write } from '../database/index.js'
import { HttpProblem, fieldProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { getSite } from '../sites/service.js'
import { findWatch, organismOf, type StoredWatch } from '../watches/store.js'
import { countingRules, weightsOf, type CountingRule } from './countingRules.js'
import { findRound, roundsOfSeason, type StoredRound } from './store.js'

/** A round with what it amounts to: effective count per unit and per hundred items, beside the threshold of its day. */
function presented(round: StoredRound, rules: ReadonlyMap<string, CountingRule>): Round {
  const { organismId, ownEntry: _, ownThreshold, thresholdThen, ...shown } = round
  const { sampling } = organismOf(round)
  const weights = weightsOf(organismOf(round), rules.get(organismId))
  // Of a share each item counts once, however much was found on it.
  const unit = round.unit ?? { one: sampling.unit, many: sampling.units, items: sampling.itemsPerUnit }
  const most = sampling.measure === 'incidence' ? unit.items : Infinity
  const effective = round.units.map((unit) => Math.min(most, effectiveCount(unit, weights)))
  const per100 = (100 * effective.reduce((a, b) => a + b, 0)) / (effective.length * unit.items)
  const threshold = thresholdThen === undefined ? actionThreshold(ownThreshold, countedFor(sampling)) : thresholdThen
  return {
    ...shown,
    unit,
    effective,
    per100,
    threshold,
    crossed: isCrossed(per100, threshold),
    verdict: round.checkAreaId === null ? verdictOf(sampling, { threshold, unit, effective, weights: Object.values(weights) }) : null,
  }
}

type Counted = Pick<Round, 'threshold' | 'unit' | 'effective'> & { weights: readonly number[] }

/** What a stored round decides by itself: it is over, so what was still between the lines stays undecided. */
function verdictOf({ measure, suggestedUnits }: Organism['sampling'], { threshold, unit, effective, weights }: Counted): Round['verdict'] {
  const plan = threshold && countingPlan({ per100: threshold.per100, measure, itemsPerUnit: unit.items, suggestedUnits, weights })
  if (!plan) return null
  const total = effective.reduce((a, b) => a + b, 0)
  const said = countingVerdict(plan, effective.length, total)
  return said === 'go-on' ? 'undecided' : said
}

const countedFor = ({ threshold, serves, eliminate }: Organism['sampling']) => ({ threshold, serves, eliminate })

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
  const classes = organismOf(watch).sampling.classes.map(({ id }) => id)
  input.units.forEach((unit, i) => {
    const unknown = Object.keys(unit).find((name) => !classes.includes(name))
    if (unknown !== undefined)
      throw fieldProblem(`units.${i}.${unknown}`, `is no class that is counted for this organism; use ${classes.join(', ')}`)
  })
  return {
    check_area_id: input.checkAreaId,
    counted_on: input.countedOn,
    units: JSON.stringify(input.units),
    minutes: input.minutes,
    taken: input.taken?.amount ?? null,
    taken_unit: input.taken?.unit ?? null,
    note: input.note,
  }
}

export async function createRound(w: Write, deps: Deps, input: ParsedInputOf<typeof scouting.create>): Promise<Round> {
  if (input.id !== undefined && (await isStored(w, 'round', input.id))) return getRound(w.tx, w.siteId, input.id)
  const watch = await findWatch(w.tx, w.siteId, input.watchId)
  if (!watch) throw fieldProblem('watchId', 'choose a watch of this site')
  // What was decided on that day stays as it was, whatever is thought of thresholds later.
  const threshold = actionThreshold(watch.threshold?.per100 ?? null, countedFor(organismOf(watch).sampling))
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
