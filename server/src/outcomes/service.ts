import type { Block, Outcome, OutcomeCount, Round, Threshold, Treatment } from '@bocado/contract'
import {
  actionThreshold,
  civilDate,
  cohortsInReach,
  compareWithCheck,
  dayNumber,
  meanWithInterval,
  STATED_AREA_SD_LOG,
  tellingCheck,
  treatedCounts,
  treatmentReach,
  workMinutes,
  type BeforeAfter,
  type Bounds,
} from '@bocado/core'
import type { Method, Organism } from '@bocado/library'
import { listBlocks } from '../blocks/store.js'
import { versionsOf } from '../database/index.js'
import type { Deps } from '../http/route.js'
import { methodsOf } from '../library/catalogue.js'
import { listRounds } from '../scouting/service.js'
import { getSite } from '../sites/service.js'
import { gateFor } from '../treatments/gate.js'
import { handGate } from '../treatments/means.js'
import { listTreatments } from '../treatments/store.js'
import type { Memo } from '../memo.js'
import { placedAt } from '../watches/forecast.js'
import { organismOf } from '../watches/store.js'
import { weatherOfBlocks, type GroundWeather } from '../weather/groundWeather.js'
import { listWatches, type StoredWatch } from '../watches/store.js'

/** Resampling is seeded, so that the same counts always give the same interval. */
export const INTERVAL_SEED = 1979

/** A round with the day number by which it is held against treatments. */
type DatedRound = Round & { day: number }

/** Counts of classes and of degrees are not held against each other: those of the kind that was counted
 * last are. Presence alone tells no numbers by which a fall could be judged. */
const ofOneScale = (rounds: readonly Round[]): Round[] => {
  const counted = rounds.filter(({ scale }) => scale !== 'presence')
  return counted.filter(({ scale }) => scale === counted.at(-1)?.scale)
}

/** A round as if it had been counted by the unit of the library, so that rounds of different units can be held against each other. */
const dated = (round: Round, { sampling }: Organism): DatedRound => ({
  ...round,
  effective: round.effective.map((count) => (count * sampling.itemsPerUnit) / round.unit.items),
  day: dayNumber(round.countedOn),
})

/** The counts of a watch that can be held against each other, by the unit of the library. */
export const countedAlike = (rounds: readonly Round[], organism: Organism): DatedRound[] =>
  ofOneScale(rounds).map((round) => dated(round, organism))

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
    crossed: round.crossed,
  }
}

/** What a treatment reached, with the weather that came: the generation that it reached most of. */
function achievedCoverage(
  watch: StoredWatch,
  organism: Organism,
  { label, does, day }: NonNullable<Treatment['done']>,
  methodId: string | null,
  ground: Block,
  block: GroundWeather,
  memo: Memo,
): { bounds: Bounds; betterOn: Outcome['betterOn'] } | null {
  const { heat, ensemble, events } = placedAt(block, watch.pinned, watch.biofix, memo)
  if (heat.members.length === 0) return null
  const verdict = label ? gateFor(label, organism, ground) : handGate(methodId ?? '', organism)
  if (verdict.verdict !== 'fits') return null
  const cohorts = cohortsInReach(
    events,
    watch.pinned.generations.map(({ id }) => id),
    verdict.stages,
    ensemble,
  )
  const on = dayNumber(day) - heat.firstDay
  const reached = treatmentReach(cohorts, does, on, ensemble)
  if (!reached) return null
  const better = betterDay(cohorts, does, on, ensemble, reached)
  return { bounds: reached.bounds, betterOn: better && { day: civilDate(heat.firstDay + better.day), coverage: better.coverage } }
}

/** Days before and after a deed among which a better one is looked for. */
const NEAR_DAYS = 21
/** By less a day is no better. */
const BETTER_BY = 0.05

type Reaching = Parameters<typeof treatmentReach>

/** The day near a deed on which the same would have reached most of the same generation; null where its own was as good. */
function betterDay(
  cohorts: Reaching[0],
  does: Reaching[1],
  on: number,
  ensemble: Reaching[3],
  own: NonNullable<ReturnType<typeof treatmentReach>>,
): { day: number; coverage: number } | null {
  let best: { day: number; coverage: number } | null = null
  for (let day = on - NEAR_DAYS; day <= on + NEAR_DAYS; day++) {
    const reach = treatmentReach(cohorts, does, day, ensemble)
    if (reach?.generation !== own.generation) continue
    if (reach.bounds.p50 > (best?.coverage ?? own.bounds.p50 + BETTER_BY)) best = { day, coverage: reach.bounds.p50 }
  }
  return best
}

/** The threshold of the count before a treatment, or of the one after it: that of its day; today's where nothing was counted. */
function thresholdOf(watch: StoredWatch, { sampling }: Organism, rounds: readonly DatedRound[], day: string): Threshold | null {
  const { before, after } = treatedCounts(rounds, dayNumber(day))
  const counted = before ?? after
  return counted ? counted.threshold : actionThreshold(watch.threshold?.per100 ?? null, sampling)
}

function missingOf(treated: BeforeAfter<Round>, check: BeforeAfter<Round> | undefined): Outcome['missing'] {
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
  organism: Organism,
  rounds: readonly DatedRound[],
  threshold: Threshold | null,
  reached: { bounds: Bounds; betterOn: Outcome['betterOn'] } | null,
  judgeAfterDays: number,
  others: readonly Treatment[],
): Outcome {
  const treated = treatedCounts(rounds, dayNumber(day), judgeAfterDays)
  const check = tellingCheck(rounds, dayNumber(day), judgeAfterDays)
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
    productName: treatment.name,
    treatedOn: day,
    minutes: treatment.done ? workMinutes(treatment.done) : null,
    threshold,
    item: organism.sampling.items,
    units: organism.sampling.units,
    treated: { before: countOf(treated.before, organism), after: countOf(treated.after, organism) },
    check: check
      ? {
          name: (check.before ?? check.after)?.checkAreaName ?? '',
          before: countOf(check.before, organism),
          after: countOf(check.after, organism),
        }
      : null,
    comparison: comparison && {
      ...comparison,
      expectedWithoutTreatment: (comparison.expectedWithoutTreatment * 100) / organism.sampling.itemsPerUnit,
      areaSdLog: STATED_AREA_SD_LOG,
    },
    coverage: reached?.bounds ?? null,
    betterOn: reached?.betterOn ?? null,
    deviation: treatment.deviation?.because ?? null,
    judgeFrom: judgeAfterDays > 0 ? civilDate(dayNumber(day) + judgeAfterDays) : null,
    alsoDone: others.flatMap(({ name, done }) =>
      done && treated.before && treated.after && dayNumber(done.day) >= treated.before.day && dayNumber(done.day) < treated.after.day
        ? [{ name, on: done.day }]
        : [],
    ),
    isEarly: treated.after !== undefined && treated.after.day < dayNumber(day) + judgeAfterDays,
    missing: missingOf(treated, check),
  }
}

/** Days after which what was done shows, by its slowest method; 0 where none is known. */
const judgeAfter = (ids: readonly string[], methods: readonly Method[]): number =>
  Math.max(0, ...methods.filter(({ id }) => ids.includes(id)).map(({ judgeAfterDays }) => judgeAfterDays))

/** Aspects that what is said of treatments changes with. */
const RESTS_ON = ['treatments', 'counts', 'watches', 'weather', 'stations', 'site', 'library'] as const

/** What can be said of each treatment that was done in a season; reckoned once, until something of it changes. */
export async function getOutcomes(deps: Deps, siteId: string, season: string): Promise<Outcome[]> {
  const { today } = await getSite(deps.db, deps.clock, siteId)
  const versions = (await versionsOf(deps.db, [siteId]))[siteId] ?? {}
  const key = ['outcomes', siteId, season, today, ...RESTS_ON.map((aspect) => versions[aspect] ?? 0)].join(' ')
  return deps.memo.get(key, () => reckoned(deps, siteId, season))
}

async function reckoned(deps: Deps, siteId: string, season: string): Promise<Outcome[]> {
  const { db } = deps
  const [site, watches, treatments, rounds, blocks] = await Promise.all([
    getSite(db, deps.clock, siteId),
    listWatches(db, siteId, season),
    listTreatments(db, siteId, season),
    listRounds(db, siteId, season),
    listBlocks(db, siteId),
  ])
  const methods = await methodsOf(db, siteId)
  const weatherOf = await weatherOfBlocks(deps, site, season)
  const result: Outcome[] = []
  for (const treatment of treatments) {
    const watch = watches.find(({ id }) => id === treatment.watchId)
    const block = blocks.find(({ id }) => id === watch?.blockId)
    // A removed block takes its outcomes out of sight with it, and gives them back when it is restored.
    if (!treatment.done || !watch || !block) continue
    const organism = organismOf(watch)
    const ofWatch = countedAlike(
      rounds.filter(({ watchId }) => watchId === watch.id),
      organism,
    )
    const coverage = treatment.deviation
      ? null
      : achievedCoverage(watch, organism, treatment.done, treatment.methodId, block, await weatherOf(block), deps.memo)
    result.push(
      outcomeOf(
        treatment,
        treatment.done.day,
        organism,
        ofWatch,
        thresholdOf(watch, organism, ofWatch, treatment.done.day),
        coverage,
        judgeAfter(treatment.done.does.methods, methods),
        treatments.filter(({ id, watchId }) => id !== treatment.id && watchId === watch.id),
      ),
    )
  }
  return result
}
