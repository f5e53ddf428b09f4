import type { Flag, HelpDay, helping, ParsedInputOf, Shape, Site } from '@bocado/contract'
import { keptClearOf } from '@bocado/contract'
import { civilDate, dayNumber } from '@bocado/core'
import type { Organism } from '@bocado/library'
import { listBlocks } from '../blocks/store.js'
import { companionsOf } from '../companions/service.js'
import { jsonOf, type Queryable, type Row, type Write } from '../database/index.js'
import { flagsOf, storedFlag } from '../flags/known.js'
import { addFlag, addVisit } from '../flags/service.js'
import { mapOf } from '../ground/store.js'
import { fieldProblem, HttpProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { organismsOf } from '../library/catalogue.js'
import { blockOf, tree } from '../places/store.js'
import { getSite } from '../sites/service.js'

/** A phone that heard no server may send what was done within so many days after. */
const SENT_WITHIN_DAYS = 21
/** What nobody has to be shown the way to any more. */
const OVER: readonly Flag['state'][] = ['none-standing', 'gone']

/** Where and when somebody helps; null: they work here always, and are held to neither. */
interface Helper {
  on: string
  blockIds: readonly string[]
}

async function helperAt(db: Queryable, siteId: string, personId: string): Promise<Helper | null> {
  const [[row]] = await db.query<Row[]>(
    "SELECT help_on, help_in FROM site_person WHERE site_id = ? AND person_id = ? AND left_at IS NULL AND role = 'volunteer'",
    [siteId, personId],
  )
  return row ? { on: row['help_on'] as string, blockIds: jsonOf<string[]>(row['help_in']) } : null
}

/** The day that is told: of a volunteer their own, and to them on no other. */
function dayOf({ today }: Pick<Site, 'today'>, helper: Helper | null): string {
  if (helper === null || helper.on === today) return today
  throw new HttpProblem(403, helper.on < today ? 'Your day of work here is over. Thank you.' : `Your day of work here is ${helper.on}.`)
}

/** The work of a day, as it is told to whoever helps with it: nothing of other days, and of no other blocks. */
export async function helpDay(
  deps: Deps,
  siteId: string,
  personId: string,
  { blocks: asked }: ParsedInputOf<typeof helping.day>,
): Promise<HelpDay> {
  const { db, clock } = deps
  const [site, helper] = [await getSite(db, clock, siteId), await helperAt(db, siteId, personId)]
  const on = dayOf(site, helper)
  const ids = new Set(helper?.blockIds ?? asked.split(',').filter(Boolean))
  const [places, shapes, { flags }, organisms, all, { companions }] = await Promise.all([
    tree(db, siteId),
    mapOf(db, siteId),
    flagsOf(deps, siteId, {}),
    organismsOf(db, siteId),
    listBlocks(db, siteId),
    companionsOf(db, clock, siteId),
  ])
  const blocks = all.filter(({ id }) => ids.has(id))
  const there = flags.flatMap((flag): HelpDay['flags'] => {
    const block = blocks.find(({ id }) => id === blockOf(places, flag.placeId)?.id)
    const isDone = flag.last.seenOn === on
    return block && (isDone || !OVER.includes(flag.state)) ? [shown(flag, block, isDone)] : []
  })
  const known = new Set(there.flatMap(({ organismId }) => organismId ?? []))
  return {
    on,
    blocks: blocks.map(({ id, name, kind }) => ({ id, name, kind, outline: outlineOf(shapes, id)?.geometry ?? null })),
    keepOff: keptOff(shapes, blocks),
    stays: companions.filter(({ blockId }) => ids.has(blockId)).map(({ name, placeName, awake }) => ({ name, where: placeName, ...awake })),
    flags: there,
    organisms: organisms.filter(({ id }) => known.has(id)).map(cardOf),
  }
}

const outlineOf = (shapes: readonly Shape[], placeId: string): Shape | undefined => shapes.find((shape) => shape.placeId === placeId)

/** What lies in or near the blocks that one keeps away from. */
function keptOff(shapes: readonly Shape[], blocks: readonly { id: string }[]): HelpDay['keepOff'] {
  const near = new Set(blocks.flatMap(({ id }) => outlineOf(shapes, id)?.near.map(({ shapeId }) => shapeId) ?? []))
  return shapes.filter(({ id, kind }) => near.has(id) && keptClearOf.includes(kind)).map(({ name, kind }) => ({ name, kind }))
}

const shown = (
  { id, number, colour, organismId, organismName, position, state, last }: Flag,
  block: { id: string; name: string },
  isDone: boolean,
): HelpDay['flags'][number] => ({
  id,
  number,
  colour,
  blockId: block.id,
  blockName: block.name,
  organismId,
  organismName,
  position: position && { latitude: position.latitude, longitude: position.longitude },
  state,
  plants: last.plants,
  isDone,
})

/** What somebody can do at a plant who was shown it this morning; what is left of dug roots grows on. */
const WORK_BY_HAND: readonly string[] = ['hand-pulling', 'lever-puller', 'cut-flower-heads']
/** What harms whoever works there, and what would carry it on. */
const MINDED: readonly string[] = ['people', 'spread']

const cardOf = ({ id, name, scientificName, about, hazards }: Organism): HelpDay['organisms'][number] => ({
  id,
  name,
  scientificName,
  characters: about.identity.characters
    .filter(({ by }) => by === 'sight')
    .map(({ ask, here, others }) => ({ ask, here: here.text, others: others.text })),
  byHand: about.reach.some(({ method }) => WORK_BY_HAND.includes(method)) && !hazards.some(({ touch }) => touch),
  doesNotWork: about.doesNotWork.map(({ what, why }) => ({ what, why })),
  hazards: hazards.filter(({ group }) => MINDED.includes(group)).map(({ group, text }) => ({ group, text })),
})

/** Refuses what lies outside the day and the blocks of whoever helps. */
async function requireHelps(w: Write, deps: Deps, helpedOn: string, placeId: string): Promise<void> {
  const helper = await helperAt(w.tx, w.siteId, w.personId)
  if (helper === null) return
  const { today } = await getSite(w.tx, deps.clock, w.siteId)
  if (helpedOn !== helper.on) throw fieldProblem('helpedOn', `you help here on ${helper.on}`)
  if (today > civilDate(dayNumber(helper.on) + SENT_WITHIN_DAYS))
    throw new HttpProblem(403, 'Your day of work here is long over. Tell whoever leads the site what you did.')
  const block = blockOf(await tree(w.tx, w.siteId), placeId)
  if (!block || !helper.blockIds.includes(block.id)) throw fieldProblem('blockId', 'choose one of the blocks in which you help')
}

const NOT_SAID = { areaM2: null, cover: null, stage: null, height: null, methodId: null, dueOn: null }

/** Flags what was found while helping. */
export async function addFind(w: Write, deps: Deps, input: ParsedInputOf<typeof helping.find>) {
  const { helpedOn, blockId, organismId, position, plants, photo, note, id, made } = input
  await requireHelps(w, deps, helpedOn, blockId)
  const pin = { organismId, placeId: blockId, number: null, colour: null, position }
  const seen = { ...NOT_SAID, seenOn: helpedOn, sight: 'standing' as const, plants, taken: null, minutes: null, photo, note }
  return addFlag(w, deps, { ...pin, ...seen, made, ...(id === undefined ? {} : { id }) })
}

/** Records what was seen and taken at a flag while helping. */
export async function addWork(w: Write, deps: Deps, input: ParsedInputOf<typeof helping.work>) {
  const { helpedOn, flagId, sight, plants, taken, minutes, photo, note, id, made } = input
  const flag = await storedFlag(w.tx, w.siteId, flagId)
  if (!flag) throw fieldProblem('flagId', 'choose a flag of this site')
  await requireHelps(w, deps, helpedOn, flag.placeId)
  const seen = { ...NOT_SAID, seenOn: helpedOn, sight, plants, taken, minutes, photo, note }
  return addVisit(w, deps, { flagId, ...seen, made, ...(id === undefined ? {} : { id }) })
}
