import type { Companion, companions, ParsedInputOf, ResponseOf, SiteRule } from '@bocado/contract'
import { asleepSpans, awakeNow, awakeWith, civilDate, dayNumber } from '@bocado/core'
import { requirePlant } from '../bloom/plants.js'
import type { Clock } from '../clock.js'
import { grouped, insertRow, restoreRow, updateRow, type Queryable, type Write } from '../database/index.js'
import { fieldProblem, HttpProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { blockOf, tree } from '../places/store.js'
import { getSite } from '../sites/service.js'
import { bloomDays, listCompanions } from './store.js'

type CompanionInput = ParsedInputOf<typeof companions.add>

const monthDay = (day: string): string => day.slice(5)

/** Companions of a site with when each is awake. */
async function knownCompanions(db: Queryable, clock: Clock, siteId: string): Promise<Companion[]> {
  const stored = await listCompanions(db, siteId)
  if (stored.length === 0) return []
  const [places, blooms, { today }] = [
    await tree(db, siteId),
    await bloomDays(
      db,
      siteId,
      stored.flatMap(({ plantId }) => plantId ?? []),
    ),
    await getSite(db, clock, siteId),
  ]
  return stored.flatMap((one) => {
    const block = blockOf(places, one.placeId)
    if (!block) return []
    const seen = (one.plantId === null ? undefined : blooms.get(one.plantId)) ?? []
    return [
      {
        ...one,
        blockId: block.id,
        awake: awakeNow(awakeWith({ from: one.wakesOn, until: one.sleepsOn }, seen.map(monthDay)), one.asleepOn, today),
        blooms: seen.length / 2,
      },
    ]
  })
}

/** The companions, and by block when all of them are asleep. */
export async function companionsOf(db: Queryable, clock: Clock, siteId: string): Promise<ResponseOf<typeof companions.list>> {
  const all = await knownCompanions(db, clock, siteId)
  return {
    companions: all,
    asleep: [...grouped(all, ({ blockId }) => blockId)].map(([blockId, own]) => ({
      blockId,
      spans: (asleepSpans(own.map(({ awake }) => awake)) ?? []).map(({ from, until }) => ({
        from,
        until,
        openedBy: nameAt(own, (awake) => nextDay(awake.until) === from),
        closedBy: nameAt(own, (awake) => awake.from === nextDay(until)),
      })),
    })),
  }
}

/** The next day of a year without a leap day. */
const nextDay = (day: string): string => monthDay(civilDate(dayNumber(`2025-${day === '02-29' ? '02-28' : day}`) + 1))
const nameAt = (all: readonly Companion[], is: (awake: Companion['awake']) => boolean): string =>
  all
    .filter(({ awake }) => is(awake))
    .map(({ name }) => name)
    .join(', ')

/** What companions forbid, as rules of their blocks: what would harm one is closed while it is awake. */
export async function companionRules(db: Queryable, clock: Clock, siteId: string): Promise<SiteRule[]> {
  return (await knownCompanions(db, clock, siteId)).flatMap(({ id, placeId, blockId, name, harmedBy, awake, rowVersion }) =>
    harmedBy.map((act): SiteRule => ({
      id,
      name: `${name} is awake`,
      kind: 'closed-days',
      act,
      whose: 'own',
      placeId,
      blockId,
      companionId: id,
      fromDay: awake.from,
      untilDay: awake.until,
      fromHour: null,
      untilHour: null,
      amount: null,
      source: '',
      readOn: null,
      rowVersion,
    })),
  )
}

async function columnsOf(w: Write, deps: Deps, input: CompanionInput) {
  if (!(await tree(w.tx, w.siteId)).has(input.placeId)) throw fieldProblem('placeId', 'choose a place of this site')
  const { today } = await getSite(w.tx, deps.clock, w.siteId)
  if (input.asleepOn !== null && input.asleepOn > today) throw refusal('asleepOn', 'day.future', { today: { day: today } })
  if (input.plantId !== null) await requirePlant(w.tx, w.siteId, input.plantId)
  return {
    place_id: input.placeId,
    name: input.name,
    wakes_on: input.wakesOn,
    sleeps_on: input.sleepsOn,
    harmed_by: JSON.stringify([...new Set(input.harmedBy)]),
    plant_id: input.plantId,
    asleep_on: input.asleepOn,
    note: input.note,
  }
}

async function getCompanion(w: Write, deps: Deps, id: string): Promise<Companion> {
  const found = (await knownCompanions(w.tx, deps.clock, w.siteId)).find((one) => one.id === id)
  if (!found) throw new HttpProblem(404, 'There is no such plant at this site.')
  return found
}

export const addCompanion = async (w: Write, deps: Deps, input: CompanionInput): Promise<Companion> =>
  getCompanion(w, deps, await insertRow(w, 'companion', await columnsOf(w, deps, input)))

export async function changeCompanion(w: Write, deps: Deps, id: string, { rowVersion, ...input }: ParsedInputOf<typeof companions.update>) {
  await updateRow(w, 'companion', id, rowVersion, await columnsOf(w, deps, input))
  return getCompanion(w, deps, id)
}

export async function restoreCompanion(w: Write, deps: Deps, id: string, rowVersion: number): Promise<Companion> {
  await restoreRow(w, 'companion', id, rowVersion)
  return getCompanion(w, deps, id)
}
