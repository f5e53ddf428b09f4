import { randomBytes } from 'node:crypto'
import {
  civilDateSchema,
  type catchesPushInput,
  type devices,
  type ParsedInputOf,
  type ResponseOf,
  type Trap,
  type traps,
} from '@bocado/contract'
import { catchPerDay, civilDate, dayNumber, sustainedCatch } from '@bocado/core'
import { datedEvents, type Organism } from '@bocado/library'
import Papa from 'papaparse'
import type { z } from 'zod'
import {
  auditOther,
  insertOnce,
  insertRow,
  isStored,
  liveRow,
  madeColumns,
  restoreRow,
  updateRow,
  type Row,
  type Write,
} from '../database/index.js'
import { hashOf } from '../devices/token.js'
import { unmarked } from '../http/csv.js'
import { fieldProblem, HttpProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { organismsOf, requireOrganism } from '../library/catalogue.js'
import { liveBlock } from '../places/store.js'
import { getSite, seasonOf } from '../sites/service.js'
import { listWatches } from '../watches/store.js'
import { checksOfTrap, listChecks, listLures, listTraps, setCounter, trapOfToken, type StoredCheck, type StoredTrap } from './store.js'

/** The event that the catches of a trap show, as long as nobody says another: from which the heat of its organism counts. */
const usualEvent = (organism: Organism): string | undefined => organism.generations[0]?.events[0]?.id ?? datedEvents(organism)[0]?.id

const DAYS_PER_WEEK = 7

/** The traps that hung in a season, with what they caught and what that says. */
export async function trapsOf({ db, clock }: Deps, siteId: string, season: string): Promise<Trap[]> {
  const site = await getSite(db, clock, siteId)
  const [stored, lures, checks, organisms, watches] = await Promise.all([
    listTraps(db, siteId),
    listLures(db, siteId),
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
        lures: lures.get(trap.id) ?? [],
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

/** Keeps which lure hung since when: the one of a day that is there already is put right. */
async function noteLure(w: Write, trapId: string, { lure, lureLoad, lureOn }: Pick<Trap, 'lure' | 'lureLoad' | 'lureOn'>): Promise<void> {
  if (lure === '' || lureOn === null) return
  const [[row]] = await w.tx.query<Row[]>('SELECT id, lure, lure_load, row_version FROM trap_lure WHERE trap_id = ? AND hung_on = ?', [
    trapId,
    lureOn,
  ])
  if (!row) await insertRow(w, 'trap_lure', { trap_id: trapId, lure, lure_load: lureLoad, hung_on: lureOn })
  else if (row['lure'] !== lure || row['lure_load'] !== lureLoad)
    await updateRow(w, 'trap_lure', row['id'] as string, row['row_version'] as number, { lure, lure_load: lureLoad })
}

export async function addTrap(w: Write, deps: Deps, input: ParsedInputOf<typeof traps.add>) {
  const id = await insertRow(w, 'trap', await columnsOf(w, deps, input))
  await noteLure(w, id, input)
  return { id, rowVersion: 1 }
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
  await noteLure(w, id, input)
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

/** Columns that a file of checks has to have. */
const FILE_COLUMNS = ['trap', 'day', 'caught'] as const

/** Takes the checks of a CSV file, each into the trap of its name: all, or none where one of them does not fit, named by its row. */
export async function takeChecks(w: Write, deps: Deps, { text }: ParsedInputOf<typeof traps.takeFile>) {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, '').trim(), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (name) => name.trim().toLowerCase(),
  })
  const missing = FILE_COLUMNS.filter((name) => !meta.fields?.includes(name))
  if (missing.length > 0)
    throw fieldProblem('text', `the file has no column ${missing.join(', ')}; its first line has to name trap, day and caught`)
  if (data.length === 0) throw fieldProblem('text', 'the file has no rows')
  const site = await getSite(w.tx, deps.clock, w.siteId)
  const all = await listTraps(w.tx, w.siteId)
  const told = { checks: 0, known: 0 }
  const rows = data.map((row, i) => {
    const path = `row ${i + 2}`
    const name = unmarked(row['trap']?.trim() ?? '')
    const named = all.filter(
      (trap) => trap.name === name && (row['block'] === undefined || unmarked(row['block'].trim()) === trap.blockName),
    )
    const [trap] = named
    if (!trap) throw fieldProblem(path, `there is no trap called ${name || 'nothing'}; hang it first, or put its name right in the file`)
    if (named.length > 1) throw fieldProblem(path, `${name} is the name of ${named.length} traps; add a column block`)
    const day = civilDateSchema.safeParse(row['day']?.trim())
    if (!day.success) throw fieldProblem(path, `day: ${row['day'] ?? 'nothing'} is no day; write it as 2026-06-12`)
    const caught = Number(row['caught']?.trim() || NaN)
    if (!Number.isInteger(caught) || caught < 0 || caught > 100_000)
      throw fieldProblem(path, `caught: ${row['caught'] || 'nothing'} is no whole number from 0 to 100,000`)
    return { trapId: trap.id, day: day.data, caught, path, note: unmarked(row['note']?.trim() ?? '').slice(0, 2000) }
  })
  // In the order of their days, so that each counts since the one before.
  for (const { trapId, day, caught, path, note } of rows.toSorted((a, b) => (a.day < b.day ? -1 : 1))) {
    const trap = await trapFor(w, trapId)
    const before = (await checksOfTrap(w.tx, trapId)).find((check) => check.day === day)
    if (before) {
      if (before.caught !== caught) throw fieldProblem(path, `${day} is recorded with ${before.caught} already; put one of both right`)
      told.known++
      continue
    }
    await insertCheck(w, trap, { day, caught, path, note }, site)
    told.checks++
  }
  return told
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
