import type { Calibration, EventSkill, Ladder } from '@bocado/contract'
import { calendarSkill, dayNumber, forecastSkill, type JudgedForecast } from '@bocado/core'
import { listBlocks } from '../blocks/store.js'
import { bloomLadder } from '../bloom/ladder.js'
import { jsonOf, type Queryable, type Row } from '../database/index.js'
import type { Deps } from '../http/route.js'
import { getSite } from '../sites/service.js'
import { calibrationOf } from '../watches/calibration.js'
import { listWatches, organismOf, type StoredWatch } from '../watches/store.js'

type Bounds = { p10: number | null; p50: number | null; p90: number | null }

/** What was said of an event on a day, in days of its season. */
interface Said extends Pick<StoredWatch, 'organismId' | 'blockId' | 'season'> {
  today: string
  event: string
  begins: Bounds
  half: Bounds
}

/** What was said beforehand of every event with a date, once a day, in the seasons in which anybody dated anything of it. */
async function saidOf(db: Queryable, siteId: string): Promise<Said[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT w.organism_id, w.block_id, w.season, i.today, i.events FROM issued_forecast i JOIN watch w ON w.id = i.watch_id
     WHERE i.site_id = ? AND i.grade = 'dates' AND w.deleted_at IS NULL
       AND EXISTS (SELECT 1 FROM event_record r WHERE r.block_id = w.block_id AND r.organism_id = w.organism_id AND r.season = w.season AND r.deleted_at IS NULL)
     ORDER BY i.today, i.said_at`,
    [siteId],
  )
  const newest = new Map<string, Said>()
  for (const row of rows)
    for (const { id, begins, half } of jsonOf<{ id: string; begins: Bounds; half: Bounds }[]>(row['events']) ?? []) {
      const [organismId, blockId, season] = [row['organism_id'] as string, row['block_id'] as string, row['season'] as string]
      const today = row['today'] as string
      newest.set([organismId, blockId, season, today, id].join(), { organismId, blockId, season, today, event: id, begins, half })
    }
  return [...newest.values()]
}

/** Days before what was seen, up to and with which a lead is called so. */
const LEADS = { days: 6, week: 13, 'two-weeks': 27, month: 366 } as const

const leadOf = (days: number): keyof typeof LEADS =>
  days <= LEADS.days ? 'days' : days <= LEADS.week ? 'week' : days <= LEADS['two-weeks'] ? 'two-weeks' : 'month'

/** How what was said beforehand stood against the days on which an event was seen, by how long beforehand it was said. */
function issuedSkill(said: readonly Said[], seen: readonly Dated[]): EventSkill['issued'] {
  const judged = new Map<keyof typeof LEADS, JudgedForecast[]>()
  for (const { season, today, begins, half } of said) {
    const of = seen.find((one) => one.season === season)
    const day = of?.day
    const { p10, p50, p90 } = of?.source === 'first' ? begins : half
    if (day === undefined || day <= today || p10 === null || p50 === null || p90 === null) continue
    const lead = leadOf(dayNumber(day) - dayNumber(today))
    judged.set(lead, [...(judged.get(lead) ?? []), { p10, p50, p90, seen: dayNumber(day) - dayNumber(season) }])
  }
  return (Object.keys(LEADS) as (keyof typeof LEADS)[]).flatMap((lead) => {
    const skill = forecastSkill(judged.get(lead) ?? [])
    return skill ? [{ lead, ...skill }] : []
  })
}

type Dated = Calibration['events'][number]['seasons'][number]
type Told = Pick<EventSkill, 'byLibrary' | 'byOwn' | 'byBloom' | 'byCalendar'>

function toldBy({ skill, seasons }: Calibration['events'][number], bloom: Ladder['pests'][number]['indicators'][number] | undefined): Told {
  const byHeat = (one: NonNullable<typeof skill>['prior'] | undefined): Told['byLibrary'] =>
    one ? { forecasts: one.seasons, bias: one.bias, error: one.error, inside: one.coverage } : null
  const byDate = calendarSkill(seasons.map(({ season, day }) => dayNumber(day) - dayNumber(season)))
  return {
    byLibrary: byHeat(skill?.prior),
    byOwn: byHeat(skill?.own),
    byBloom: bloom ? { name: bloom.name, forecasts: bloom.years, bias: null, error: bloom.error, inside: null } : null,
    byCalendar: byDate ? { ...byDate, inside: null } : null,
  }
}

/** An event that the block's own clock tells: there is no figure of the library to hold beside it. */
function toldByClock(
  { clock, seasons }: Calibration['clocks'][number],
  bloom: Ladder['pests'][number]['indicators'][number] | undefined,
): Told {
  const byDate = calendarSkill(seasons.map(({ season, day }) => dayNumber(day) - dayNumber(season)))
  return {
    byLibrary: null,
    byOwn: clock ? { forecasts: seasons.length, bias: null, error: clock.error.clock, inside: null } : null,
    byBloom: bloom ? { name: bloom.name, forecasts: bloom.years, bias: null, error: bloom.error, inside: null } : null,
    byCalendar: byDate ? { ...byDate, inside: null } : null,
  }
}

/** How good the forecasts of a site were against what was seen, for every event of which a day was written down. */
export async function getSkill(deps: Deps, siteId: string): Promise<EventSkill[]> {
  const { db } = deps
  const site = await getSite(db, deps.clock, siteId)
  const [blocks, said, recorded] = await Promise.all([listBlocks(db, siteId), saidOf(db, siteId), recordedAt(db, siteId)])
  // The newest watch of an organism in a block stands for all of its seasons: records are of the block.
  const watches = new Map<string, StoredWatch>()
  for (const season of site.seasons)
    for (const watch of await listWatches(db, siteId, season)) {
      const key = `${watch.organismId} ${watch.blockId}`
      if (recorded.has(key) && !watches.has(key)) watches.set(key, watch)
    }
  if (watches.size === 0) return []
  const { pests } = await bloomLadder(deps, siteId)
  const result: EventSkill[] = []
  for (const watch of watches.values()) {
    const block = blocks.find(({ id }) => id === watch.blockId)
    if (!block) continue
    const { organismId, blockId } = watch
    const { events, clocks } = await calibrationOf(deps, siteId, watch.id)
    const about = {
      organismId,
      organismName: organismOf(watch).name,
      blockId,
      blockName: block.name,
      watchId: watch.season === site.season.start ? watch.id : null,
    }
    const bloomOf = (event: string) =>
      pests.find((one) => one.organismId === organismId && one.blockId === blockId && one.event === event)?.indicators[0]
    const days = (all: readonly { season: string; day: string }[]): EventSkill['seasons'] => all.map(({ season, day }) => ({ season, day }))
    for (const event of events) {
      // What has no figure is told by the block's own clock, not by the stand-in of the library.
      if (event.seasons.length === 0 || clocks.some((clock) => clock.event === event.event)) continue
      const own = said.filter((one) => one.organismId === organismId && one.blockId === blockId && one.event === event.event)
      result.push({
        ...about,
        event: event.event,
        name: event.name,
        seasons: days(event.seasons),
        ...toldBy(event, bloomOf(event.event)),
        seen: event.seasons.every(({ source }) => source === 'first') ? 'begins' : 'half',
        ownAccepted: event.accepted,
        issued: issuedSkill(own, event.seasons),
      })
    }
    for (const clock of clocks)
      if (clock.seasons.length > 0)
        result.push({
          ...about,
          event: clock.event,
          name: clock.name,
          seasons: days(clock.seasons),
          ...toldByClock(clock, bloomOf(clock.event)),
          seen: 'begins',
          ownAccepted: clock.taken?.current === true,
          issued: [],
        })
  }
  return result.sort((a, b) => b.seasons.length - a.seasons.length || a.organismName.localeCompare(b.organismName))
}

/** Organisms and blocks of which anybody dated anything. */
async function recordedAt(db: Queryable, siteId: string): Promise<Set<string>> {
  const [rows] = await db.query<Row[]>('SELECT DISTINCT organism_id, block_id FROM event_record WHERE site_id = ? AND deleted_at IS NULL', [
    siteId,
  ])
  return new Set(rows.map((row) => `${row['organism_id'] as string} ${row['block_id'] as string}`))
}
