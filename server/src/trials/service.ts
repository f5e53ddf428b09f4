import { randomInt } from 'node:crypto'
import type { ParsedInputOf, Trial, trials } from '@bocado/contract'
import { drawTrial } from '@bocado/core'
import { insertRow, restoreRow, updateRow, type Write } from '../database/index.js'
import { fieldProblem, fieldsProblem, HttpProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { organismAt } from '../library/catalogue.js'
import { tree } from '../places/store.js'
import { getSite } from '../sites/service.js'
import { requireHandMethod } from '../treatments/means.js'
import { getProduct } from '../treatments/shelf.js'
import { listTrials } from './store.js'

async function getTrial(w: Write, id: string): Promise<Trial> {
  const trial = (await listTrials(w.tx, w.siteId)).find((one) => one.id === id)
  if (!trial) throw new HttpProblem(404, 'There is no such trial at this site.')
  return trial
}

/** A lot that nobody can foretell, and nobody draws twice. */
const RESOLUTION = 2 ** 47
const lot = (): number => randomInt(RESOLUTION) / RESOLUTION

/** Plans a trial. Its lot is drawn here and now, once: what is drawn again until it pleases is no lot. */
export async function drawTrialFor(w: Write, deps: Deps, input: ParsedInputOf<typeof trials.draw>, random = lot): Promise<Trial> {
  if (!(await tree(w.tx, w.siteId)).has(input.placeId)) throw fieldProblem('placeId', 'choose a place of this site')
  if (input.organismId !== null && !(await organismAt(w.tx, w.siteId, input.organismId)))
    throw fieldProblem('organismId', 'choose an organism of the library, or one of your own')
  if (input.productId !== null) await getProduct(w.tx, w.siteId, input.productId)
  // What a product is, its own label says.
  const methodId = input.productId === null ? input.methodId : null
  if (methodId !== null) await requireHandMethod(w.tx, w.siteId, methodId)
  const { today } = await getSite(w.tx, deps.clock, w.siteId)
  const names = Array.from({ length: 2 * input.pairs }, (_, i) => String(i + 1))
  const id = await insertRow(w, 'trial', {
    name: input.name,
    what: input.what,
    product_id: input.productId,
    method_id: methodId,
    place_id: input.placeId,
    organism_id: input.organismId,
    units: input.units,
    measure: input.measure,
    moves: input.moves,
    pairs: JSON.stringify(drawTrial(names, random)),
    drawn_on: today,
    judge_after_days: input.judgeAfterDays,
    note: input.note,
  })
  return getTrial(w, id)
}

/** Says when what the lot named was treated: not before it was drawn, and not before the count that it is held against. */
export async function noteTreated(w: Write, deps: Deps, id: string, input: ParsedInputOf<typeof trials.treated>): Promise<Trial> {
  const trial = await getTrial(w, id)
  const { treatedOn } = input
  if (treatedOn !== null) {
    const { today } = await getSite(w.tx, deps.clock, w.siteId)
    if (treatedOn > today) throw refusal('treatedOn', 'day.future', { today: { day: today } })
    if (treatedOn < trial.drawnOn) throw refusal('treatedOn', 'trial.before-lot', { drawn: { day: trial.drawnOn } })
    if (trial.before && treatedOn < trial.before.countedOn)
      throw refusal('treatedOn', 'trial.before-count', { counted: { day: trial.before.countedOn } })
  }
  if (trial.after) throw fieldProblem('treatedOn', 'it is judged already: what was treated when no longer changes')
  await updateRow(w, 'trial', id, input.rowVersion, { treated_on: treatedOn })
  return getTrial(w, id)
}

/** Keeps a count of every unit: the one before it is treated, and one by which it is judged, from the day on from which that is fair. */
export async function countTrial(w: Write, deps: Deps, id: string, input: ParsedInputOf<typeof trials.count>): Promise<Trial> {
  const trial = await getTrial(w, id)
  const { phase, countedOn, counts } = input
  const { today } = await getSite(w.tx, deps.clock, w.siteId)
  if (countedOn > today) throw refusal('countedOn', 'day.future', { today: { day: today } })
  const units = trial.pairs.flatMap(({ treated, check }) => [treated, check])
  const missing = units.filter((unit) => counts[unit] === undefined)
  const unknown = Object.keys(counts).filter((unit) => !units.includes(unit))
  if (missing.length > 0 || unknown.length > 0)
    throw fieldsProblem([
      ...missing.map((unit) => ({ path: `counts.${unit}`, message: 'enter what was found; 0 where there was nothing' })),
      ...unknown.map((unit) => ({ path: `counts.${unit}`, message: 'there is no such one in this trial' })),
    ])
  if (phase === 'before') {
    if (countedOn < trial.drawnOn) throw refusal('countedOn', 'trial.before-lot', { drawn: { day: trial.drawnOn } })
    if (trial.treatedOn !== null && countedOn > trial.treatedOn)
      throw refusal('countedOn', 'trial.after-treated', { treated: { day: trial.treatedOn } })
  } else {
    if (trial.judgeFrom === null) throw fieldProblem('countedOn', 'say first when it was treated')
    if (trial.measure === 'count' && !trial.before)
      throw fieldProblem('countedOn', 'nothing was counted before: there is nothing to hold it against')
    if (countedOn < trial.judgeFrom) throw refusal('countedOn', 'trial.too-early', { from: { day: trial.judgeFrom } })
  }
  await updateRow(w, 'trial', id, input.rowVersion, { [`${phase}_on`]: countedOn, [`${phase}_counts`]: JSON.stringify(counts) })
  return getTrial(w, id)
}

export async function restoreTrial(w: Write, id: string, rowVersion: number): Promise<Trial> {
  await restoreRow(w, 'trial', id, rowVersion)
  return getTrial(w, id)
}
