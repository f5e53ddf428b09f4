import type { calibration, EventClock as ShownClock, ParsedInputOf } from '@bocado/contract'
import { civilDate, clocksFromRecords, TYPED_HEAT_ERROR, type DatedEvent, type EventClock, type SeasonAtPlace } from '@bocado/core'
import { datedEvents, type Organism } from '@bocado/library'
import { insertOnce, updateRow, type Queryable, type Row, type Write } from '../database/index.js'
import { fieldProblem, HttpProblem } from '../http/problems.js'
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
  /** Set where somebody typed it. */
  typed: { upper: number | null; startsOn: string | null; source: string } | null
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
  typed: row['typed']
    ? {
        upper: row['upper_threshold'] as number | null,
        startsOn: row['starts_on'] as string | null,
        source: row['source'] as string,
      }
    : null,
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
    const here = taken.find((t) => t.event === event && t.typed === null)
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
    typed: false,
    upper_threshold: null,
    starts_on: null,
    source: '',
  }
  return putClock(
    w,
    columns,
    taken.find((t) => t.event === event),
  )
}

/** Lets a block go by a threshold and a sum that somebody typed, for an event that nothing else dates. */
export async function typeClock(
  w: Write,
  { blockId, organismId }: Pick<StoredWatch, 'blockId' | 'organismId'>,
  organism: Organism,
  taken: readonly StoredClock[],
  input: ParsedInputOf<typeof calibration.typeClock>,
): Promise<{ id: string; rowVersion: number }> {
  const known = datedEvents(organism).filter(({ hasFigure }) => !hasFigure)
  if (!known.some(({ id }) => id === input.event))
    throw fieldProblem('event', `must be an event that no figure dates: ${known.map(({ id }) => id).join(', ') || 'there is none'}`)
  const columns = {
    block_id: blockId,
    organism_id: organismId,
    event_id: input.event,
    lower_threshold: input.lower,
    upper_threshold: input.upper,
    heat: kept(input.heat),
    heat_se: kept(input.heat * TYPED_HEAT_ERROR),
    seasons: 0,
    typed: true,
    starts_on: input.startsOn,
    source: input.source,
  }
  return putClock(
    w,
    columns,
    taken.find((t) => t.event === input.event),
  )
}

/** A block goes by one clock for an event: a newer one takes the place of the one before. */
async function putClock(
  w: Write,
  columns: Readonly<Record<string, unknown>>,
  before: StoredClock | undefined,
): Promise<{ id: string; rowVersion: number }> {
  if (before) {
    await updateRow(w, 'own_clock', before.id, before.rowVersion, columns)
    return { id: before.id, rowVersion: before.rowVersion + 1 }
  }
  const meanwhile = (): HttpProblem => new HttpProblem(409, 'Somebody took this clock meanwhile.')
  return { id: await insertOnce(w, 'own_clock', columns, meanwhile), rowVersion: 1 }
}
