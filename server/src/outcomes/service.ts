import type { Outcome, OutcomeCount, Product, Round, Treatment } from '@bocado/contract'
import {
  compareWithCheck,
  coverageForecast,
  dayNumber,
  meanWithInterval,
  reachableCohort,
  reachHeat,
  reachOf,
  STATED_AREA_SD_LOG,
  TREATMENT_HOUR_OF_DAY,
  type Bounds,
} from '@bocado/core'
import type { Organism } from '@bocado/library'
import { listBlocks } from '../blocks/store.js'
import type { Deps } from '../http/route.js'
import { listRounds } from '../scouting/service.js'
import { getSite, hemisphereOf } from '../sites/service.js'
import { listTreatments } from '../treatments/store.js'
import { placeModel } from '../watches/forecast.js'
import { organismOf } from '../watches/store.js'
import { weatherOfBlocks } from '../weather/blockWeather.js'
import { listWatches, type StoredWatch } from '../watches/store.js'

/** Resampling is seeded, so that the same counts always give the same interval. */
const INTERVAL_SEED = 1979

/** A count before a treatment is not too old, and one after it not too late, within this many days. */
const COUNT_REACH_DAYS = 28

interface BeforeAfter {
  before: Round | undefined
  after: Round | undefined
}

/** The last count on or before the day of treatment and the first one after it. */
function around(rounds: readonly Round[], day: string): BeforeAfter {
  const near = rounds.filter(({ countedOn }) => Math.abs(dayNumber(countedOn) - dayNumber(day)) <= COUNT_REACH_DAYS)
  return { before: near.findLast(({ countedOn }) => countedOn <= day), after: near.find(({ countedOn }) => countedOn > day) }
}

/** The check area that tells most: the one counted both before and after, or at least once. */
function bestCheck(rounds: readonly Round[], day: string): (BeforeAfter & { name: string }) | undefined {
  const names = new Map(rounds.flatMap(({ checkAreaId, checkAreaName }) => (checkAreaId ? [[checkAreaId, checkAreaName ?? '']] : [])))
  const areas = [...names].map(([id, name]) => ({
    name,
    ...around(
      rounds.filter(({ checkAreaId }) => checkAreaId === id),
      day,
    ),
  }))
  const counts = (a: BeforeAfter): number => (a.before ? 1 : 0) + (a.after ? 1 : 0)
  return areas.filter((a) => counts(a) > 0).sort((a, b) => counts(b) - counts(a))[0]
}

function countOf(round: Round | undefined, organism: Organism): OutcomeCount | null {
  if (!round) return null
  const { mean, low, high } = meanWithInterval(round.effective, INTERVAL_SEED)
  const per100 = 100 / organism.sampling.itemsPerUnit
  return {
    roundId: round.id,
    countedOn: round.countedOn,
    units: round.units.length,
    per100: mean * per100,
    low: low * per100,
    high: high * per100,
    crossed: mean * per100 >= round.threshold,
  }
}

/** What a treatment reached, with the weather that came: the generation that it reached most of. */
function achievedCoverage(
  watch: StoredWatch,
  organism: Organism,
  product: Product,
  day: string,
  from: Parameters<typeof placeModel>[0],
): Bounds | null {
  const { heat, ensemble, events } = placeModel(from, watch.pinned, watch.biofix)
  if (heat.members.length === 0) return null
  const reachable = organism.stages.filter(({ id, reachable: r }) => r && product.stages.includes(id)).map(({ id }) => id)
  const action = { day: dayNumber(day) - heat.firstDay + TREATMENT_HOUR_OF_DAY, effect: product.effect, residualDays: product.residualDays }
  const reached = watch.pinned.generations.flatMap((generation) => {
    const reach = reachOf(events, generation.id, reachable)
    if (!reach) return []
    const stageHeat = reachHeat(reach)
    return [
      coverageForecast(
        heat.members.map(({ cumulative }, m) => reachableCohort(stageHeat, cumulative, ensemble.scores[m] ?? 0)),
        [action],
        ensemble,
      ),
    ]
  })
  return reached.sort((a, b) => b.p50 - a.p50)[0] ?? null
}

function missingOf(treated: BeforeAfter, check: BeforeAfter | undefined): Outcome['missing'] {
  const missing: Outcome['missing'] = []
  if (!treated.before) missing.push('count-before')
  if (!treated.after) missing.push('count-after')
  if (!check) missing.push('check-area')
  else {
    if (!check.before) missing.push('check-before')
    if (!check.after) missing.push('check-after')
  }
  return missing
}

function outcomeOf(
  treatment: Treatment,
  day: string,
  product: Product,
  organism: Organism,
  rounds: readonly Round[],
  threshold: number,
  coverage: Bounds | null,
): Outcome {
  const treated = around(
    rounds.filter(({ checkAreaId }) => checkAreaId === null),
    day,
  )
  const check = bestCheck(rounds, day)
  const complete = treated.before && treated.after && check?.before && check.after
  const comparison = complete
    ? compareWithCheck(
        {
          treatedBefore: treated.before!.effective,
          treatedAfter: treated.after!.effective,
          checkBefore: check.before!.effective,
          checkAfter: check.after!.effective,
        },
        { seed: INTERVAL_SEED },
      )
    : null
  return {
    treatmentId: treatment.id,
    watchId: treatment.watchId,
    productName: product.name,
    treatedOn: day,
    threshold,
    item: organism.sampling.items,
    units: organism.sampling.units,
    treated: { before: countOf(treated.before, organism), after: countOf(treated.after, organism) },
    check: check ? { name: check.name, before: countOf(check.before, organism), after: countOf(check.after, organism) } : null,
    comparison: comparison && {
      ...comparison,
      expectedWithoutTreatment: (comparison.expectedWithoutTreatment * 100) / organism.sampling.itemsPerUnit,
      areaSdLog: STATED_AREA_SD_LOG,
    },
    coverage,
    missing: missingOf(treated, check),
  }
}

/** What can be said of each treatment that was done in a season. */
export async function getOutcomes(deps: Deps, siteId: string, season: string): Promise<Outcome[]> {
  const { db } = deps
  const [site, watches, treatments, rounds, blocks] = await Promise.all([
    getSite(db, deps.clock, siteId),
    listWatches(db, siteId, season),
    listTreatments(db, siteId, season),
    listRounds(db, siteId, season),
    listBlocks(db, siteId),
  ])
  const weatherOf = await weatherOfBlocks(deps, site, season)
  const result: Outcome[] = []
  for (const treatment of treatments) {
    const watch = watches.find(({ id }) => id === treatment.watchId)
    // The product as it was that day: what the shelf says today changes nothing of what was done.
    const product = treatment.done?.label
    const block = blocks.find(({ id }) => id === watch?.blockId)
    // A removed block takes its outcomes out of sight with it, and gives them back when it is restored.
    if (!treatment.done || !watch || !product || !block) continue
    const organism = organismOf(watch)
    const ofWatch = rounds.filter(({ watchId }) => watchId === watch.id)
    const coverage = achievedCoverage(watch, organism, product, treatment.done.day, {
      block: await weatherOf(block),
      memo: deps.memo,
      hemisphere: hemisphereOf(site),
    })
    result.push(
      outcomeOf(
        treatment,
        treatment.done.day,
        product,
        organism,
        ofWatch,
        watch.threshold?.per100 ?? organism.sampling.threshold.value,
        coverage,
      ),
    )
  }
  return result
}
