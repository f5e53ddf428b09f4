import type { EventClock as ShownClock } from '@bocado/contract'
import { civilDate, clocksFromRecords, type DatedEvent, type EventClock, type SeasonAtPlace } from '@bocado/core'
import { datedEvents, type Organism } from '@bocado/library'
import { insertOnce, updateRow, type Queryable, type Row, type Write } from '../database/index.js'
import { HttpProblem } from '../http/problems.js'
import type { StoredWatch } from './store.js'

/** A clock that a block goes by for an event of which no figure is known. */
export interface StoredClock {
  id: string
  blockId: string
  organismId: string
  event: string
  /** °C */
  lower: number
  /** °C·d */
  heat: number
  heatSe: number
  seasons: number
  rowVersion: number
}

const clockOf = (row: Row): StoredClock => ({
  id: row['id'] as string,
  blockId: row['block_id'] as string,
  organismId: row['organism_id'] as string,
  event: row['event_id'] as string,
  lower: row['lower_threshold'] as number,
  heat: row['heat'] as number,
  heatSe: row['heat_se'] as number,
  seasons: row['seasons'] as number,
  rowVersion: row['row_version'] as number,
})

/** The clocks that a site's blocks go by. */
export async function listClocks(db: Queryable, siteId: string): Promise<StoredClock[]> {
  const [rows] = await db.query<Row[]>('SELECT * FROM own_clock WHERE site_id = ? AND deleted_at IS NULL ORDER BY event_id', [siteId])
  return rows.map(clockOf)
}

/** Those of an organism in a block. */
export const clocksOf = (
  clocks: readonly StoredClock[],
  { blockId, organismId }: Pick<StoredWatch, 'blockId' | 'organismId'>,
): StoredClock[] => clocks.filter((clock) => clock.blockId === blockId && clock.organismId === organismId)

const kept = (value: number): number => Math.round(value * 10) / 10
const isSame = (taken: StoredClock, { clock }: EventClock): boolean =>
  clock !== undefined && taken.lower === clock.lower && taken.heat === kept(clock.heat) && taken.heatSe === kept(clock.heatSe)

/** What a block's dates make of the events of which the library has no figure. */
export function shownClocks(
  organism: Organism,
  records: readonly DatedEvent[],
  taken: readonly StoredClock[],
  at: SeasonAtPlace,
  today: number,
): { shown: ShownClock[]; made: EventClock[] } {
  const named = datedEvents(organism).filter(({ hasFigure }) => !hasFigure)
  const made = clocksFromRecords(
    records.filter(({ event }) => named.some(({ id }) => id === event)),
    at,
    today,
  )
  const shown = made.map((one): ShownClock => {
    const { event, dated, left, clock } = one
    const here = taken.find((t) => t.event === event)
    const firstDay = dated[0]?.season ?? today
    return {
      event,
      name: named.find(({ id }) => id === event)?.name ?? event,
      seasons: dated.map(({ season, day }) => ({ season: civilDate(season), day: civilDate(day) })),
      left: left.map(civilDate),
      clock: clock
        ? {
            lower: clock.lower,
            heat: clock.heat,
            heatSe: clock.heatSe,
            calendarDay: civilDate(firstDay + Math.floor(clock.calendarDay)),
            error: clock.error,
            offered: clock.offered,
          }
        : null,
      taken: here ? { id: here.id, seasons: here.seasons, current: isSame(here, one), rowVersion: here.rowVersion } : null,
    }
  })
  return { shown, made }
}

/** Lets a block go by the clock of an event, or by what newer records make of it. */
export async function takeClock(
  w: Write,
  { blockId, organismId }: Pick<StoredWatch, 'blockId' | 'organismId'>,
  made: readonly EventClock[],
  taken: readonly StoredClock[],
  event: string,
): Promise<{ id: string; rowVersion: number }> {
  const clock = made.find((one) => one.event === event)?.clock
  if (!clock?.offered)
    throw new HttpProblem(
      422,
      'The records of this event make no clock that is nearer than the calendar yet. Five seasons are the least; more may tell.',
    )
  const columns = {
    block_id: blockId,
    organism_id: organismId,
    event_id: event,
    lower_threshold: clock.lower,
    heat: kept(clock.heat),
    heat_se: kept(clock.heatSe),
    seasons: clock.seasons,
  }
  const before = taken.find((t) => t.event === event)
  if (before) {
    await updateRow(w, 'own_clock', before.id, before.rowVersion, columns)
    return { id: before.id, rowVersion: before.rowVersion + 1 }
  }
  const meanwhile = (): HttpProblem => new HttpProblem(409, 'Somebody took this clock meanwhile.')
  return { id: await insertOnce(w, 'own_clock', columns, meanwhile), rowVersion: 1 }
}
