import type { ParsedInputOf, Programme, programmes } from '@bocado/contract'
import { insertRow, liveRow, restoreRow, updateRow, type Write } from '../database/index.js'
import { fieldsProblem, HttpProblem, type FieldMessage } from '../http/problems.js'
import { methodsByIds } from '../library/catalogue.js'
import { listProducts } from '../treatments/store.js'
import { listProgrammes } from './store.js'

type ProgrammeInput = ParsedInputOf<typeof programmes.add>

/** Refuses steps whose means are not on the shelf, or in the library. */
async function requireMeans(w: Write, { steps }: ProgrammeInput): Promise<void> {
  const faults: FieldMessage[] = []
  const methods = await methodsByIds(
    w.tx,
    w.siteId,
    steps.flatMap(({ methodId }) => methodId ?? []),
  )
  const shelf = new Set((await listProducts(w.tx, w.siteId)).map(({ id }) => id))
  for (const [i, { productId, methodId }] of steps.entries()) {
    const method = methods.find(({ id }) => id === methodId)
    if (productId !== null && !shelf.has(productId))
      faults.push({ path: `steps.${i}.productId`, message: 'choose a product of this site’s shelf' })
    else if (methodId !== null && !method) faults.push({ path: `steps.${i}.methodId`, message: 'choose a method of the library' })
    else if (method?.product) faults.push({ path: `steps.${i}.methodId`, message: `${method.name} comes with a label: choose the product` })
  }
  if (faults.length > 0) throw fieldsProblem(faults)
}

const columnsOf = ({ name, followed, hourly, steps }: ProgrammeInput) => ({ name, followed, hourly, steps: JSON.stringify(steps) })

/** Of the programmes of a watch one is followed at most: another one gives way. Whoever follows at the same moment waits for the watch. */
async function onlyFollowed(w: Write, watchId: string, except: string | undefined): Promise<void> {
  for (const other of await listProgrammes(w.tx, w.siteId))
    if (other.watchId === watchId && other.followed && other.id !== except)
      await updateRow(w, 'programme', other.id, other.rowVersion, { followed: false })
}

async function getProgramme(w: Write, id: string): Promise<Programme> {
  const found = (await listProgrammes(w.tx, w.siteId)).find((one) => one.id === id)
  if (!found) throw new HttpProblem(404, 'There is no such programme at this site.')
  return found
}

export async function addProgramme(w: Write, watchId: string, input: ProgrammeInput): Promise<Programme> {
  await liveRow(w.tx, w.siteId, 'watch', watchId, true)
  await requireMeans(w, input)
  if (input.followed) await onlyFollowed(w, watchId, undefined)
  return getProgramme(w, await insertRow(w, 'programme', { watch_id: watchId, ...columnsOf(input) }))
}

export async function changeProgramme(w: Write, id: string, input: ParsedInputOf<typeof programmes.update>): Promise<Programme> {
  const { watchId } = await getProgramme(w, id)
  await liveRow(w.tx, w.siteId, 'watch', watchId, true)
  await requireMeans(w, input)
  if (input.followed) await onlyFollowed(w, watchId, id)
  await updateRow(w, 'programme', id, input.rowVersion, columnsOf(input))
  return getProgramme(w, id)
}

/** A followed programme that comes back takes its place again. */
export async function restoreProgramme(w: Write, id: string, rowVersion: number): Promise<Programme> {
  await restoreRow(w, 'programme', id, rowVersion)
  const back = await getProgramme(w, id)
  await liveRow(w.tx, w.siteId, 'watch', back.watchId, true)
  if (back.followed) await onlyFollowed(w, back.watchId, id)
  return getProgramme(w, id)
}
