import type { ParsedInputOf, Replacement, replacement, ResponseOf, WantedPlant } from '@bocado/contract'
import { plantsFor } from '@bocado/core'
import { insertRow, liveRow, removeRow, restoreRow, updateRow, type Queryable, type Row, type Write } from '../database/index.js'
import { fieldProblem, HttpProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { organismsOf } from '../library/catalogue.js'
import { tree } from '../places/store.js'
import { getSite } from '../sites/service.js'
import { listReplacements, listWanted, type StoredReplacement } from './store.js'

type PlantInput = ParsedInputOf<typeof replacement.addWanted>
type PlanInput = ParsedInputOf<typeof replacement.add>

/** The plants that are wanted, and what is planned with them, with its amounts. */
export async function replacementsOf(db: Queryable, siteId: string): Promise<ResponseOf<typeof replacement.list>> {
  const wanted = await listWanted(db, siteId)
  const names = new Map((await organismsOf(db, siteId)).map(({ id, name }) => [id, name]))
  return {
    wanted: wanted.flatMap(({ isListed, ...plant }) => (isListed ? [plant] : [])),
    plans: (await listReplacements(db, siteId)).map((plan) => planOf(plan, wanted, names)),
  }
}

function planOf(
  { plants, jobVersion: _, ...plan }: StoredReplacement,
  wanted: readonly WantedPlant[],
  names: ReadonlyMap<string, string>,
): Replacement {
  const month = Number(plan.plannedOn.slice(5, 7))
  const known = plants.flatMap(({ wantedPlantId, share }) => {
    const plant = wanted.find(({ id }) => id === wantedPlantId)
    return plant ? [{ plant, share }] : []
  })
  return {
    ...plan,
    organismName: plan.organismId === null ? null : (names.get(plan.organismId) ?? plan.organismId),
    lines: known.map(({ plant, share }) => ({
      wantedPlantId: plant.id,
      name: plant.name,
      share,
      plants: plant.begins === 'planted' && plant.spacingCm !== null ? plantsFor(plan.areaM2 * share, plant.spacingCm) : null,
      grams: plant.begins === 'sown' && plant.gramsPerM2 !== null ? plan.areaM2 * share * plant.gramsPerM2 : null,
    })),
    outOfSeason: known.flatMap(({ plant: { name, months } }) => (months.length > 0 && !months.includes(month) ? [name] : [])),
  }
}

const plantColumns = ({ name, begins, spacingCm, gramsPerM2, months, note }: PlantInput) => ({
  name,
  begins,
  spacing_cm: spacingCm,
  grams_per_m2: gramsPerM2,
  months: JSON.stringify([...new Set(months)].sort((a, b) => a - b)),
  note,
})

async function getWanted(w: Write, id: string): Promise<WantedPlant> {
  const found = (await replacementsOf(w.tx, w.siteId)).wanted.find((one) => one.id === id)
  if (!found) throw new HttpProblem(404, 'There is no such plant on the list of this site.')
  return found
}

async function requireOther(w: Write, name: string, own: string | null): Promise<void> {
  const { wanted } = await replacementsOf(w.tx, w.siteId)
  if (wanted.some((one) => one.id !== own && one.name.toLowerCase() === name.toLowerCase()))
    throw fieldProblem('name', 'is on the list already')
}

export async function addWanted(w: Write, input: PlantInput): Promise<WantedPlant> {
  await liveRow(w.tx, w.siteId, 'site', w.siteId, true)
  await requireOther(w, input.name, null)
  return getWanted(w, await insertRow(w, 'wanted_plant', plantColumns(input)))
}

export async function changeWanted(w: Write, id: string, { rowVersion, ...input }: ParsedInputOf<typeof replacement.updateWanted>) {
  await requireOther(w, input.name, id)
  await updateRow(w, 'wanted_plant', id, rowVersion, plantColumns(input))
  return getWanted(w, id)
}

export async function restoreWanted(w: Write, id: string, rowVersion: number): Promise<WantedPlant> {
  await restoreRow(w, 'wanted_plant', id, rowVersion)
  return getWanted(w, id)
}

async function getPlan(w: Write, id: string): Promise<Replacement> {
  const found = (await replacementsOf(w.tx, w.siteId)).plans.find((one) => one.id === id)
  if (!found) throw new HttpProblem(404, 'There is nothing of the kind planned at this site.')
  return found
}

/** Refuses what cannot be planned. @param before plants of it that need be on the list no more */
async function requirePlan(w: Write, input: PlanInput, before: readonly string[]): Promise<void> {
  if (!(await tree(w.tx, w.siteId)).has(input.placeId)) throw fieldProblem('placeId', 'choose a place of this site')
  if (input.organismId !== null && !(await organismsOf(w.tx, w.siteId)).some(({ id }) => id === input.organismId))
    throw fieldProblem('organismId', 'choose a weed of the library, or one of your own')
  const wanted = await listWanted(w.tx, w.siteId)
  for (const [i, { wantedPlantId }] of input.lines.entries())
    if (!wanted.some(({ id, isListed }) => id === wantedPlantId && (isListed || before.includes(id))))
      throw fieldProblem(`lines.${i}.wantedPlantId`, 'choose a plant of your list')
}

const planColumns = ({ placeId, organismId, areaM2, lines, note }: PlanInput) => ({
  place_id: placeId,
  organism_id: organismId,
  area_m2: areaM2,
  plants: JSON.stringify(lines),
  note,
})

const LONGEST_NAME = 120

/** What the schedule calls it. */
async function nameOf(w: Write, { lines, organismId }: PlanInput): Promise<string> {
  const wanted = await listWanted(w.tx, w.siteId)
  const weed = organismId === null ? undefined : (await organismsOf(w.tx, w.siteId)).find(({ id }) => id === organismId)?.name
  const plants = lines.map(({ wantedPlantId }) => wanted.find(({ id }) => id === wantedPlantId)?.name ?? '').join(', ')
  const whole = weed === undefined ? plants : `${plants} in place of ${weed}`
  return whole.length <= LONGEST_NAME ? whole : `${whole.slice(0, LONGEST_NAME - 1)}…`
}

/** Plans it, and puts it on the schedule. */
export async function addReplacement(w: Write, input: PlanInput): Promise<Replacement> {
  await requirePlan(w, input, [])
  const job = {
    place_id: input.placeId,
    name: await nameOf(w, input),
    kind: 'sowing',
    planned_on: input.plannedOn,
    done_on: null,
    note: '',
  }
  const jobId = await insertRow(w, 'job', job)
  return getPlan(w, await insertRow(w, 'replacement', { ...planColumns(input), job_id: jobId }))
}

export async function changeReplacement(
  w: Write,
  deps: Deps,
  id: string,
  { rowVersion, doneOn, ...input }: ParsedInputOf<typeof replacement.update>,
): Promise<Replacement> {
  const before = (await listReplacements(w.tx, w.siteId)).find((one) => one.id === id)
  if (!before) throw new HttpProblem(404, 'There is nothing of the kind planned at this site.')
  await requirePlan(
    w,
    input,
    before.plants.map(({ wantedPlantId }) => wantedPlantId),
  )
  const { today } = await getSite(w.tx, deps.clock, w.siteId)
  if (doneOn !== null && doneOn > today) throw refusal('doneOn', 'day.future', { today: { day: today } })
  await updateRow(w, 'replacement', id, rowVersion, planColumns(input))
  await updateRow(w, 'job', before.jobId, before.jobVersion, {
    place_id: input.placeId,
    name: await nameOf(w, input),
    planned_on: input.plannedOn,
    done_on: doneOn,
  })
  return getPlan(w, id)
}

/** Removes it, and its work from the schedule. */
export async function removeReplacement(w: Write, id: string, rowVersion: number) {
  const before = (await listReplacements(w.tx, w.siteId)).find((one) => one.id === id)
  const gone = await removeRow(w, 'replacement', id, rowVersion)
  if (before) await removeRow(w, 'job', before.jobId, before.jobVersion)
  return gone
}

export async function restoreReplacement(w: Write, id: string, rowVersion: number): Promise<Replacement> {
  await restoreRow(w, 'replacement', id, rowVersion)
  const { job_id: jobId } = await liveRow(w.tx, w.siteId, 'replacement', id)
  const [[job]] = await w.tx.query<Row[]>('SELECT row_version, deleted_at FROM job WHERE id = ? AND site_id = ?', [jobId, w.siteId])
  if (job && job['deleted_at'] !== null) await restoreRow(w, 'job', jobId as string, job['row_version'] as number)
  return getPlan(w, id)
}
