import type { OwnCountingPlan, ParsedInputOf, SampleUnit, Scale, scouting } from '@bocado/contract'
import type { Organism } from '@bocado/library'
import { insertOnce, jsonOf, restoreRow, updateRow, type Queryable, type Row, type Write } from '../database/index.js'
import { fieldProblem, HttpProblem } from '../http/problems.js'
import { requireOrganism } from '../library/catalogue.js'

/** How a site counts an organism, where it goes by another rule than the library. */
export interface CountingRule {
  id: string
  organismId: string
  weights: Record<string, number>
  /** Of the site's own; null: the library's. */
  unit: (SampleUnit & { suggested: number }) | null
  scale: Scale
  /** How its counts end; null: as usual. */
  plan: OwnCountingPlan | null
  frame: string
  reason: string
  rowVersion: number
}

const unitOf = (row: Row): CountingRule['unit'] =>
  row['unit_one'] === null
    ? null
    : {
        one: row['unit_one'] as string,
        many: row['unit_many'] as string,
        items: row['unit_items'] as number,
        suggested: row['unit_suggested'] as number,
      }

const ruleOf = (row: Row): CountingRule => ({
  id: row['id'] as string,
  organismId: row['organism_id'] as string,
  weights: jsonOf<Record<string, number>>(row['weights']),
  unit: unitOf(row),
  scale: row['scale'] as Scale,
  plan: row['plan'] === null ? null : jsonOf<OwnCountingPlan>(row['plan']),
  frame: row['frame'] as string,
  reason: row['reason'] as string,
  rowVersion: row['row_version'] as number,
})

/** The rules of a site, by organism. */
export async function countingRules(db: Queryable, siteId: string): Promise<Map<string, CountingRule>> {
  const [rows] = await db.query<Row[]>('SELECT * FROM counting_rule WHERE site_id = ? AND deleted_at IS NULL', [siteId])
  return new Map(rows.map(ruleOf).map((rule) => [rule.organismId, rule]))
}

/** The weights by which a site reckons its counts of an organism: its own, and the library's where it has none. */
export const weightsOf = (organism: Pick<Organism, 'sampling'>, rule: Pick<CountingRule, 'weights'> | undefined): Record<string, number> =>
  Object.fromEntries(organism.sampling.classes.map(({ id, weight }) => [id, rule?.weights[id] ?? weight]))

/** What a class of a degree of damage weighs: the share of an item's surface that it means; null for other classes. */
export function degreeWeight(classId: string): number | null {
  const percent = Number(/^degree-(\d+(?:\.\d+)?)$/.exec(classId)?.[1] ?? NaN)
  return percent > 0 && percent <= 100 ? percent / 100 : null
}

/** The degrees of damage as classes: each item that shows one weighs as much of it as is damaged. */
export const degreeClasses = (percents: readonly number[]): { id: string; name: string; weight: number }[] =>
  percents.map((percent) => ({ id: `degree-${percent}`, name: `about ${percent} %`, weight: percent / 100 }))

/** The one class of a count that only looks whether a sample unit has any. */
export const PRESENT = { id: 'present', name: 'has any', weight: 1 } as const

/** Sets how a site counts an organism, or changes it; rounds that were counted before are reckoned by it as well. */
export async function setCountingRule(
  w: Write,
  organismId: string,
  input: ParsedInputOf<typeof scouting.setRule>,
): Promise<{ id: string; rowVersion: number }> {
  const organism = await requireOrganism(w.tx, w.siteId, organismId)
  const classes = organism.sampling.classes.map(({ id }) => id)
  for (const name of Object.keys(input.weights))
    if (!classes.includes(name)) throw fieldProblem(`weights.${name}`, `is no class that is counted for it; use ${classes.join(', ')}`)
  const weights = weightsOf(organism, { weights: input.weights })
  if (classes.every((id) => weights[id] === 0)) throw fieldProblem('weights', 'let at least one class count')
  const { plan, scale } = input
  if (scale === 'presence' && organism.sampling.measure === 'incidence') throw fieldProblem('scale', 'is counted as a share already')
  if (plan && plan.mostUnits < plan.leastUnits) throw fieldProblem('plan.mostUnits', 'must be at least as many as the least sample units')
  if (plan?.kind === 'crowding' && !plan.clumping?.crowding)
    throw fieldProblem('plan.kind', 'needs how they sit together, as counts of single sample units tell it')
  if (scale === 'presence' && (plan?.kind === 'crowding' || plan?.kind === 'precision'))
    throw fieldProblem('plan.kind', 'needs numbers, and only the presence is looked at')
  if (plan?.kind === 'precision' && !plan.clumping?.taylor)
    throw fieldProblem('plan.kind', 'needs how they sit together, as counts of single sample units tell it')
  const columns = {
    organism_id: organismId,
    weights: JSON.stringify(input.weights),
    frame: input.frame,
    unit_one: input.unit?.one ?? null,
    unit_many: input.unit?.many ?? null,
    unit_items: input.unit?.items ?? null,
    unit_suggested: input.unit?.suggested ?? null,
    scale: input.scale,
    plan: input.plan ? JSON.stringify(input.plan) : null,
    reason: input.reason,
  }
  if (input.rowVersion === null) {
    const meanwhile = (): HttpProblem =>
      new HttpProblem(409, 'Somebody set how this is counted meanwhile. Look at it, and change that instead.')
    return { id: await insertOnce(w, 'counting_rule', columns, meanwhile), rowVersion: 1 }
  }
  const rule = (await countingRules(w.tx, w.siteId)).get(organismId)
  if (!rule) throw new HttpProblem(409, 'The rule was removed meanwhile. Save it once more to set it anew.')
  await updateRow(w, 'counting_rule', rule.id, input.rowVersion, columns)
  return { id: rule.id, rowVersion: input.rowVersion + 1 }
}

export async function restoreCountingRule(w: Write, ruleId: string, rowVersion: number): Promise<{ id: string; rowVersion: number }> {
  await restoreRow(w, 'counting_rule', ruleId, rowVersion)
  return { id: ruleId, rowVersion: rowVersion + 1 }
}
