import { randomBytes } from 'node:crypto'
import type { catchesPushInput, devices, ParsedInputOf, ResponseOf, Trap, traps } from '@bocado/contract'
import { catchPerDay, civilDate, dayNumber, sustainedCatch } from '@bocado/core'
import { datedEvents, type Organism } from '@bocado/library'
import type { z } from 'zod'
import { auditOther, insertOnce, insertRow, isStored, liveRow, madeColumns, restoreRow, updateRow, type Write } from '../database/index.js'
import { hashOf } from '../devices/token.js'
import { fieldProblem, HttpProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { organismsOf, requireOrganism } from '../library/catalogue.js'
import { liveBlock } from '../places/store.js'
import { getSite, seasonOf } from '../sites/service.js'
import { listWatches } from '../watches/store.js'
import { checksOfTrap, listChecks, listTraps, setCounter, trapOfToken, type StoredCheck, type StoredTrap } from './store.js'

/** The event that the catches of a trap show, as long as nobody says another: from which the heat of its organism counts. */
const usualEvent = (organism: Organism): string | undefined => organism.generations[0]?.events[0]?.id ?? datedEvents(organism)[0]?.id

const DAYS_PER_WEEK = 7

/** The traps that hung in a season, with what they caught and what that says. */
export async function trapsOf({ db, clock }: Deps, siteId: string, season: string): Promise<Trap[]> {
  const site = await getSite(db, clock, siteId)
  const [stored, checks, organisms, watches] = await Promise.all([
    listTraps(db, siteId),
    listChecks(db, siteId, season),
    organismsOf(db, siteId),
    listWatches(db, siteId, season),
  ])
  return stored
    .filter(
      ({ id, hungOn, takenDownOn }) =>
        checks.some(({ trapId }) => trapId === id) ||
        (seasonOf(site, hungOn) <= season && (takenDownOn === null || seasonOf(site, takenDownOn) >= season)),
    )
    .map(({ siteId: _, ...trap }): Trap => {
      const organism = organisms.find(({ id }) => id === trap.organismId)
      const own = checks.filter(({ trapId }) => trapId === trap.id)
      const watch = watches.find(({ blockId, organismId }) => blockId === trap.blockId && organismId === trap.organismId)
      return {
        ...trap,
        organismName: organism?.name ?? trap.organismId,
        eventName: (organism && datedEvents(organism).find(({ id }) => id === trap.event)?.name) ?? trap.event,
        lureUntil:
          trap.lureOn === null || trap.lureWeeks === null ? null : civilDate(dayNumber(trap.lureOn) + DAYS_PER_WEEK * trap.lureWeeks),
        checks: own.map(({ trapId: __, season: ___, ...check }) => ({
          ...check,
          perDay: catchPerDay({ day: dayNumber(check.day), since: dayNumber(check.since), caught: check.caught }),
        })),
        biofix: biofixOf(trap, own, organism),
        watch: watch
          ? {
              id: watch.id,
              biofix: watch.biofix,
              waits: organism?.biofix.kind === 'sustained-catch' && usualEvent(organism) === trap.event,
            }
          : null,
      }
    })
}

/** The biofix that a season's checks of a trap show. In mating disruption none does: males do not find the trap. */
function biofixOf(
  { inDisruption, event }: Pick<StoredTrap, 'inDisruption' | 'event'>,
  checks: readonly StoredCheck[],
  organism: Organism | undefined,
): Trap['biofix'] {
  const [first] = checks
  if (!first || inDisruption || organism?.biofix.kind !== 'sustained-catch' || usualEvent(organism) !== event) return null
  const found = sustainedCatch(
    dayNumber(first.since),
    checks.map(({ day, caught }) => ({ day: dayNumber(day), count: caught })),
    organism.biofix.checks,
  )
  return found ? { day: civilDate(Math.round(found.day)), halfInterval: found.halfInterval, checks: found.checks.map(civilDate) } : null
}

async function columnsOf(w: Write, deps: Deps, input: ParsedInputOf<typeof traps.add>) {
  const { today } = await getSite(w.tx, deps.clock, w.siteId)
  await liveBlock(w.tx, w.siteId, input.blockId)
  const organism = await requireOrganism(w.tx, w.siteId, input.organismId)
  const event = input.event ?? usualEvent(organism)
  if (event === undefined || !datedEvents(organism).some(({ id }) => id === event))
    throw fieldProblem(
      'event',
      `must be an event of ${organism.name}: ${datedEvents(organism)
        .map(({ id }) => id)
        .join(', ')}`,
    )
  for (const field of ['hungOn', 'takenDownOn', 'lureOn'] as const)
    if ((input[field] ?? '') > today) throw refusal(field, 'day.future', { today: { day: today } })
  return {
    name: input.name,
    block_id: input.blockId,
    organism_id: input.organismId,
    event_id: event,
    lure: input.lure,
    lure_load: input.lureLoad,
    lure_on: input.lureOn,
    lure_weeks: input.lureWeeks,
    in_disruption: input.inDisruption,
    hung_on: input.hungOn,
    taken_down_on: input.takenDownOn,
    latitude: input.position?.latitude ?? null,
    longitude: input.position?.longitude ?? null,
    note: input.note,
  }
}

export async function addTrap(w: Write, deps: Deps, input: ParsedInputOf<typeof traps.add>) {
  return { id: await insertRow(w, 'trap', await columnsOf(w, deps, input)), rowVersion: 1 }
}

export async function changeTrap(w: Write, deps: Deps, id: string, { rowVersion, ...input }: ParsedInputOf<typeof traps.update>) {
  const before = await liveRow(w.tx, w.siteId, 'trap', id, true)
  const columns = await columnsOf(w, deps, input)
  const checks = await checksOfTrap(w.tx, id)
  const isElse =
    before['organism_id'] !== columns.organism_id || before['block_id'] !== columns.block_id || before['event_id'] !== columns.event_id
  if (isElse && checks.length > 0)
    throw fieldProblem('organismId', 'its catches are records of where it hung and of what it caught: take it down and hang another')
  const [first, last] = [checks[0], checks.at(-1)]
  if (first && input.hungOn > first.since) throw fieldProblem('hungOn', `was checked for what it caught since ${first.since}`)
  if (last && input.takenDownOn !== null && input.takenDownOn < last.day)
    throw fieldProblem('takenDownOn', `was still checked on ${last.day}`)
  await updateRow(w, 'trap', id, rowVersion, columns)
  return { id, rowVersion: rowVersion + 1 }
}

export async function restoreTrap(w: Write, id: string, rowVersion: number) {
  await restoreRow(w, 'trap', id, rowVersion)
  return { id, rowVersion: rowVersion + 1 }
}

const again = (day: string): string => `${day} is recorded already; remove that check first if it is wrong`

/** Stores a check, in its place between those that are known. */
async function insertCheck(
  w: Write,
  trap: Pick<StoredTrap, 'id' | 'blockId' | 'organismId' | 'event' | 'hungOn' | 'takenDownOn'>,
  { day, caught, path, ...more }: { day: string; caught: number; path: string } & Record<string, unknown>,
  siteOf: { today: string; latitude: number | null },
  id?: string,
): Promise<string> {
  if (day > siteOf.today) throw refusal(path, 'day.future', { today: { day: siteOf.today } })
  if (day <= trap.hungOn) throw fieldProblem(path, `must lie after ${trap.hungOn}, on which the trap was hung`)
  if (trap.takenDownOn !== null && day > trap.takenDownOn)
    throw fieldProblem(path, `lies after ${trap.takenDownOn}, on which it was taken down`)
  const checks = await checksOfTrap(w.tx, trap.id)
  if (checks.some((check) => check.day === day)) throw fieldProblem(path, again(day))
  const season = seasonOf(siteOf, day)
  const columns = {
    block_id: trap.blockId,
    organism_id: trap.organismId,
    event_id: trap.event,
    trap_id: trap.id,
    season,
    kind: 'catch',
    seen_on: day,
    caught,
    ...more,
  }
  return insertOnce(w, 'event_record', columns, () => fieldProblem(path, again(day)), id)
}

async function trapFor(w: Write, id: string): Promise<StoredTrap> {
  await liveRow(w.tx, w.siteId, 'trap', id, true)
  return (await listTraps(w.tx, w.siteId)).find((trap) => trap.id === id) as StoredTrap
}

/** Records a check, under the id that its device gave it, however late it comes. */
export async function addCheck(w: Write, deps: Deps, { id, made, trapId, day, caught, note }: ParsedInputOf<typeof traps.check>) {
  if (id !== undefined && (await isStored(w, 'event_record', id))) return { id, rowVersion: 1 }
  const site = await getSite(w.tx, deps.clock, w.siteId)
  if (!(await listTraps(w.tx, w.siteId)).some((one) => one.id === trapId)) throw fieldProblem('trapId', 'choose a trap of this site')
  const madeBy = madeColumns(w, made)
  const trap = await trapFor(w, trapId)
  if (id !== undefined && (await isStored(w, 'event_record', id))) return { id, rowVersion: 1 }
  return { id: await insertCheck(w, trap, { day, caught, path: 'day', note, ...madeBy }, site, id), rowVersion: 1 }
}

export async function pasteChecks(w: Write, deps: Deps, trapId: string, { checks }: ParsedInputOf<typeof traps.paste>) {
  const site = await getSite(w.tx, deps.clock, w.siteId)
  const trap = await trapFor(w, trapId)
  for (const [i, check] of checks.entries()) await insertCheck(w, trap, { ...check, path: `checks.${i}.day` }, site)
  return { checks: checks.length }
}

/** Lets a counter send. Only the token's hash is kept, so it is shown this once; an earlier one ends. */
export async function issueToken(w: Write, trapId: string): Promise<{ token: string }> {
  await liveRow(w.tx, w.siteId, 'trap', trapId, true)
  const token = randomBytes(24).toString('base64url')
  await setCounter(w, trapId, hashOf(token))
  await auditOther(w, 'trap', trapId, 'change', { token: 'before' }, { token: 'new' })
  return { token }
}

export async function endToken(w: Write, trapId: string): Promise<{ id: string }> {
  const row = await liveRow(w.tx, w.siteId, 'trap', trapId, true)
  if (row['token_hash'] === null) throw new HttpProblem(404, 'No counter sends to this trap.')
  await setCounter(w, trapId, null)
  await auditOther(w, 'trap', trapId, 'change', { token: 'before' }, { token: 'none' })
  return { id: trapId }
}

/** The trap that the token of a counter opens, or 401. */
export async function requireCounter(deps: Pick<Deps, 'db'>, trapId: string, token: string | undefined) {
  const found = token ? await trapOfToken(deps.db, trapId, hashOf(token)) : undefined
  if (!found)
    throw new HttpProblem(401, 'This token does not open this trap. Issue a new one under Scouting, Traps, and put it into the counter.')
  return found
}

/** Stores what a counter sent: all of it, or nothing. A day that it sent before is put right; what a person counted stays theirs. */
export async function pushCatches(
  deps: Deps,
  trapId: string,
  token: string | undefined,
  { catches }: z.output<typeof catchesPushInput>,
): Promise<ResponseOf<typeof devices.pushCatches>> {
  const { db: tx, clock } = deps
  const { trap, tokenBy } = await requireCounter(deps, trapId, token)
  const w: Write = { tx, siteId: trap.siteId, personId: tokenBy, now: await clock.now(tx) }
  await liveRow(tx, trap.siteId, 'trap', trapId, true)
  const site = await getSite(tx, clock, trap.siteId)
  const told = { new: 0, changed: 0, unchanged: 0 }
  for (const [i, { day, caught }] of catches.entries()) {
    const known = (await checksOfTrap(tx, trapId)).find((check) => check.day === day)
    if (!known) {
      await insertCheck(w, trap, { day, caught, path: `catches.${i}.day`, counted_by: 'device' }, site)
      told.new++
    } else if (known.countedBy === 'device' && known.caught !== caught) {
      await updateRow(w, 'event_record', known.id, known.rowVersion, { caught })
      told.changed++
    } else told.unchanged++
  }
  return told
}
