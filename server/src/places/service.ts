import type { ParsedInputOf, Place, places } from '@bocado/contract'
import { insertRow, liveRow, updateRow, type Write } from '../database/index.js'
import { fieldProblem, HttpProblem, refusal } from '../http/problems.js'
import { heldWithin, listPlaces, SAME_M2, tree, type StoredPlace } from './store.js'

/** What may lie within what: a place holds only what comes later here. */
const DEPTH: Readonly<Record<StoredPlace['level'], number>> = { block: 0, patch: 1, row: 2, bed: 2, plants: 3, pots: 3 }

type PlaceInput = Pick<ParsedInputOf<typeof places.create>, 'level' | 'name' | 'areaM2' | 'plants'>

/** Refuses what does not fit into its parent: a row in a bed, or more ground than is left there. */
async function requireRoom(w: Write, parentId: string, input: PlaceInput, placeId?: string): Promise<void> {
  // Whoever adds to a place waits for whoever is adding to it.
  await liveRow(w.tx, w.siteId, 'place', parentId, true)
  if (placeId) await liveRow(w.tx, w.siteId, 'place', placeId, true)
  const all = await tree(w.tx, w.siteId)
  const parent = all.get(parentId)
  if (!parent) throw fieldProblem('parentId', 'choose a place of this site')
  if (DEPTH[input.level] <= DEPTH[parent.level]) throw fieldProblem('level', `cannot lie within ${parent.name}, which is smaller`)
  if (input.areaM2 !== null && parent.areaM2 !== null) {
    const left = parent.areaM2 - heldWithin(all, parentId, placeId)
    if (input.areaM2 > left + SAME_M2)
      throw refusal('areaM2', 'area.more-than-left', { place: parent.name, left: { si: Number(Math.max(0, left).toFixed(1)), unit: 'm²' } })
  }
  if (!placeId) return
  const within = [...all.values()].find((place) => place.parentId === placeId && DEPTH[place.level] <= DEPTH[input.level])
  if (within) throw fieldProblem('level', `cannot hold ${within.name}, which lies within it`)
  const held = heldWithin(all, placeId)
  if (input.areaM2 !== null && input.areaM2 < held - SAME_M2)
    throw refusal('areaM2', 'area.less-than-held', { held: { si: Number(held.toFixed(1)), unit: 'm²' } })
}

const columnsOf = ({ level, name, areaM2, plants }: PlaceInput) => ({ level, name, area_m2: areaM2, plants })

export async function getPlace(w: Write, placeId: string): Promise<Place> {
  const place = (await listPlaces(w.tx, w.siteId)).find(({ id }) => id === placeId)
  if (!place) throw new HttpProblem(404, 'There is no such part of a block at this site.')
  return place
}

/** Adds a part of a block, or of a part of one, under the id that the page gave it. */
export async function addPlace(w: Write, input: ParsedInputOf<typeof places.create>): Promise<Place> {
  // Sent twice at once, the second waits here for the first, and finds it.
  await liveRow(w.tx, w.siteId, 'place', input.parentId, true)
  const before = (await listPlaces(w.tx, w.siteId)).find(({ id }) => id === input.id)
  if (before) return before
  await requireRoom(w, input.parentId, input)
  return getPlace(w, await insertRow(w, 'place', { parent_id: input.parentId, kind: null, ...columnsOf(input) }, input.id))
}

/** Adds parts of one place in their order; where one of them does not fit, none is added, and it is named by its row. */
export async function addPlaces(w: Write, { parentId, parts }: ParsedInputOf<typeof places.createSeveral>): Promise<Place[]> {
  const added: Place[] = []
  for (const [i, part] of parts.entries())
    try {
      added.push(await addPlace(w, { ...part, parentId }))
    } catch (error) {
      if ((error as { code?: string }).code === 'ER_DUP_ENTRY')
        throw fieldProblem(`parts.${i}.name`, `${part.name} is there already; choose another name`)
      throw error instanceof HttpProblem ? ofRow(error, `parts.${i}`) : error
    }
  return added
}

/** The same refusal, its fields named as those of a row. */
const ofRow = ({ status, message, fields }: HttpProblem, row: string): HttpProblem =>
  new HttpProblem(status, message, fields ? { fields: fields.map((field) => ({ ...field, path: `${row}.${field.path}` })) } : {})

export async function changePlace(w: Write, placeId: string, input: ParsedInputOf<typeof places.update>): Promise<Place> {
  const { parentId } = await getPlace(w, placeId)
  await requireRoom(w, parentId, input, placeId)
  await updateRow(w, 'place', placeId, input.rowVersion, columnsOf(input))
  return getPlace(w, placeId)
}

/** What was brought back has to fit, as what is added. */
export async function fitsAgain(w: Write, placeId: string): Promise<Place> {
  const place = await getPlace(w, placeId)
  await requireRoom(w, place.parentId, place, placeId)
  return place
}
